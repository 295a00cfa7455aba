package api

import (
	"bytes"
	"cmp"
	"io"
	"net/http"
	"net/url"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/httprate"

	"mokren/core/decode"
)

// wellFormed refuses an address with NUL or bytes that are not UTF-8 in it.
func wellFormed(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		query, err := url.QueryUnescape(r.URL.RawQuery)
		for where, text := range map[string]string{"path": r.URL.Path, "query": query} {
			if err != nil || strings.ContainsRune(text, 0) || !utf8.ValidString(text) {
				refuseField(w, where, "text in UTF-8 without NUL characters", "")
				return
			}
		}
		next.ServeHTTP(w, r)
	})
}

const policyHeader = "Content-Security-Policy"

// securityHeaders let a page talk to its own server and to the instrument; served over
// TLS it is asked for by TLS ever after.
func securityHeaders(secure bool, instruments ...string) func(http.Handler) http.Handler {
	policy := strings.TrimSpace("default-src 'self'; connect-src 'self' "+strings.Join(instruments, " ")) +
		"; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; " +
		"object-src 'none'; base-uri 'none'; frame-ancestors 'none'"
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			h := w.Header()
			h.Set(policyHeader, policy)
			if secure {
				h.Set("Strict-Transport-Security", "max-age=31536000")
			}
			h.Set("X-Content-Type-Options", "nosniff")
			h.Set("Referrer-Policy", "same-origin")
			h.Set("Cross-Origin-Opener-Policy", "same-origin")
			h.Set("Permissions-Policy", "camera=(self), microphone=(), geolocation=()")
			if strings.HasPrefix(r.URL.Path, "/api/") {
				h.Set("Cache-Control", "no-store")
			}
			next.ServeHTTP(w, r)
		})
	}
}

// Typed bodies are small.
const (
	maxTyped = 1 << 20
	patience = 15 * time.Second
)

// paced lets a body come as slowly as its line is, and ends the connection of one that
// stalls: each part of it must come within the patience after the one before. It holds
// for what nobody reads too, a refused request's body.
func paced(patience time.Duration) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if r.Body == nil || r.Body == http.NoBody {
				next.ServeHTTP(w, r)
				return
			}
			b := &pacedBody{ReadCloser: r.Body, conn: http.NewResponseController(w), patience: patience}
			r.Body = b
			next.ServeHTTP(w, r)
			if !b.read {
				b.conn.SetReadDeadline(time.Now().Add(patience)) //nolint:errcheck // not every writer has one
			}
		})
	}
}

// pacedBody gives each reading its own deadline; once all is read there is none, so that
// a request may wait for the database longer than its body took.
type pacedBody struct {
	io.ReadCloser
	conn     *http.ResponseController
	patience time.Duration
	read     bool
}

func (b *pacedBody) Read(p []byte) (int, error) {
	b.conn.SetReadDeadline(time.Now().Add(b.patience)) //nolint:errcheck // not every writer has one
	n, err := b.ReadCloser.Read(p)
	if err == io.EOF {
		b.read = true
		b.conn.SetReadDeadline(time.Time{}) //nolint:errcheck // as above
	}
	return n, err
}

// storable refuses a JSON body that the record cannot keep, and names the field.
// Operations that read and check their own bodies do so themselves.
func storable(a huma.API) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		r, w := humachi.Unwrap(ctx)
		if r.ContentLength == 0 || ctx.Operation().SkipValidateBody {
			next(ctx)
			return
		}
		limit := cmp.Or(ctx.Operation().MaxBodyBytes, maxTyped)
		raw, err := io.ReadAll(http.MaxBytesReader(w, r.Body, limit))
		if err != nil {
			status, why := http.StatusRequestTimeout, "The request did not come in time. Try again."
			if int64(len(raw)) >= limit {
				status, why = http.StatusRequestEntityTooLarge, "More than this operation takes."
			}
			huma.WriteErr(a, ctx, status, why) //nolint:errcheck // the caller went away
			return
		}
		if e := decode.Storable(raw); e != nil {
			refuseField(w, "body"+strings.TrimPrefix(e.Path, "$"), e.Allowed, e.Given)
			return
		}
		r.Body = io.NopCloser(bytes.NewReader(raw))
		next(ctx)
	}
}

// atMost lets so many calls a minute through from one address, over all copies;
// further ones get a 429. Where the database does not answer, nothing else does.
func (s *server) atMost(what string, calls int) huma.Middlewares {
	limiter := httprate.NewRateLimiter(calls, time.Minute, append(s.shared(what),
		httprate.WithErrorHandler(func(w http.ResponseWriter, _ *http.Request, _ error) {
			writeProblem(w, http.StatusServiceUnavailable,
				"The record is not reachable just now. Nothing is lost; it is tried again.")
		}),
		httprate.WithLimitHandler(func(w http.ResponseWriter, _ *http.Request) {
			writeProblem(w, http.StatusTooManyRequests, "Too many attempts. Wait a minute, then try again.")
		}))...)
	return huma.Middlewares{func(ctx huma.Context, next func(huma.Context)) {
		r, w := humachi.Unwrap(ctx)
		from, err := httprate.KeyByIP(r)
		if err != nil || !limiter.RespondOnLimit(w, r, from) {
			next(ctx)
		}
	}}
}

// byAddress is the same for a plain handler.
func (s *server) byAddress(what string, calls int) func(http.Handler) http.Handler {
	return httprate.Limit(calls, time.Minute, append(s.shared(what), httprate.WithKeyFuncs(httprate.KeyByIP))...)
}

// shared counts in the database, where several copies serve.
func (s *server) shared(what string) []httprate.Option {
	if s.store == nil || !s.sharedLimits {
		return nil
	}
	return []httprate.Option{httprate.WithLimitCounter(s.store.Rate(what))}
}

// ownOrigin refuses what another site's page asks for in somebody's name.
func ownOrigin() func(http.Handler) http.Handler {
	p := http.NewCrossOriginProtection()
	p.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		writeProblem(w, http.StatusForbidden, "Another site has asked for this; only this program's own pages may.")
	}))
	return p.Handler
}
