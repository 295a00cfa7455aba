package api

import (
	"net/http"
	"sync"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"
	"golang.org/x/sync/semaphore"
)

// photoGate lets one photograph at a time in for each person, and few in all: a
// picture of 10 MB is some hundred when it is opened.
type photoGate struct {
	mu     sync.Mutex
	people map[uuid.UUID]bool
	all    *semaphore.Weighted
}

// photosAtOnce bounds the memory, whoever sends.
const photosAtOnce = 1

func newPhotoGate() *photoGate {
	return &photoGate{people: map[uuid.UUID]bool{}, all: semaphore.NewWeighted(photosAtOnce)}
}

func (g *photoGate) enter(who uuid.UUID) bool {
	g.mu.Lock()
	defer g.mu.Unlock()
	if g.people[who] {
		return false
	}
	g.people[who] = true
	return true
}

func (g *photoGate) leave(who uuid.UUID) {
	g.mu.Lock()
	defer g.mu.Unlock()
	delete(g.people, who)
}

// onePhoto is a middleware of the operation: it is passed before the picture is
// read.
func (s *server) onePhoto(a huma.API) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		who, err := s.principal(ctx.Context())
		if err != nil {
			huma.WriteErr(a, ctx, http.StatusUnauthorized, "Please sign in.") //nolint:errcheck // the caller went away
			return
		}
		if !s.photos.enter(who.Person) {
			//nolint:errcheck // the caller went away
			huma.WriteErr(a, ctx, http.StatusTooManyRequests,
				"One photograph at a time; send it again when the other is in.")
			return
		}
		defer s.photos.leave(who.Person)
		if err := s.photos.all.Acquire(ctx.Context(), 1); err != nil {
			return // the caller left
		}
		defer s.photos.all.Release(1)
		next(ctx)
	}
}
