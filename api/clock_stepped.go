//go:build stepped

package api

import (
	"context"
	"net/http"
	"strconv"
	"time"
)

type steppedKey struct{}

// visitClock is the server's clock and what the page that asks has stepped over.
func (s *server) visitClock(ctx context.Context) time.Time {
	over, _ := ctx.Value(steppedKey{}).(time.Duration)
	return s.now().Add(over)
}

// stepped reads how much of a hold the page has stepped over (ui/src/testing/steppedClock.ts).
func stepped(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if ms, err := strconv.ParseInt(r.Header.Get("Mokren-Stepped"), 10, 64); err == nil {
			r = r.WithContext(context.WithValue(r.Context(), steppedKey{}, time.Duration(ms)*time.Millisecond))
		}
		next.ServeHTTP(w, r)
	})
}
