package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
)

// pageGate bounds the pages that are made at once, and those who wait for it: a page is some ten
// megabytes while it is made.
type pageGate struct{ made, waiting chan struct{} }

const (
	pagesAtOnce  = 2
	pagesWaiting = 24
	pagePatience = 10 * time.Second
)

func newPageGate() *pageGate {
	return &pageGate{make(chan struct{}, pagesAtOnce), make(chan struct{}, pagesAtOnce+pagesWaiting)}
}

// enter waits for a place; false when the queue is full, the wait is over or the caller has left.
func (g *pageGate) enter(ctx context.Context, patience time.Duration) bool {
	select {
	case g.waiting <- struct{}{}:
	default:
		return false
	}
	late, end := context.WithTimeout(ctx, patience)
	defer end()
	select {
	case g.made <- struct{}{}:
		return true
	case <-late.Done():
		<-g.waiting
		return false
	}
}

func (g *pageGate) leave() {
	<-g.made
	<-g.waiting
}

// inTurn is a middleware of what makes pages: it is passed before anything is read.
func (s *server) inTurn(a huma.API) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		if !s.pages.enter(ctx.Context(), pagePatience) {
			ctx.SetHeader("Retry-After", "5")
			//nolint:errcheck // the caller went away
			huma.WriteErr(a, ctx, http.StatusServiceUnavailable,
				"Many pages are being made just now. Nothing is lost; ask for it again in a moment.")
			return
		}
		defer s.pages.leave()
		next(ctx)
	}
}

// paged describes an operation that makes a page.
func (s *server) paged(a huma.API, id, method, path, summary string, errors ...int) huma.Operation {
	o := op(id, method, path, summary, errors...)
	o.Middlewares = append(o.Middlewares, s.inTurn(a))
	return o
}
