// Package api is the HTTP door: sessions, authorisation, JSON resources with
// problem+json errors, OpenAPI, and the built front end.
//
//	h, err := api.New(store, api.Options{})
//	http.ListenAndServe(addr, h)
//
// The server keeps no state of its own; more than one copy can run against one
// database.
package api

import (
	"context"
	"errors"
	"log/slog"
	"net/http"
	"reflect"
	"strings"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
	"github.com/go-chi/httprate"

	"mokren/core/body"
	"mokren/exchange"
	"mokren/store"
)

// Options of the server. The zero value is right for production.
type Options struct {
	// SignInsPerMinute from one address; 0 means 10.
	SignInsPerMinute int
	// SecureCookie is set when the page is served over TLS.
	SecureCookie bool
	// Now is the clock; nil means time.Now.
	Now func() time.Time
	// Inclinometer is the address at which an instrument streams to the browser
	// ("ws://127.0.0.1:4175/"); empty means none.
	Inclinometer string
}

type server struct {
	store    *store.Store
	sessions *scs.SessionManager
	now      func() time.Time
	// inclinometer is where an instrument streams, as the browser sees it.
	inclinometer string
}

// New builds the handler.
func New(st *store.Store, o Options) (http.Handler, error) {
	h, _, err := build(st, o)
	return h, err
}

// OpenAPI gives the description of every operation as JSON.
func OpenAPI() ([]byte, error) {
	_, a, err := build(nil, Options{})
	if err != nil {
		return nil, err
	}
	return a.OpenAPI().MarshalJSON()
}

func build(st *store.Store, o Options) (http.Handler, huma.API, error) {
	s := &server{store: st, now: o.Now, sessions: scs.New(), inclinometer: o.Inclinometer}
	if s.now == nil {
		s.now = time.Now
	}
	if o.SignInsPerMinute == 0 {
		o.SignInsPerMinute = 10
	}
	s.sessions.Lifetime = 12 * time.Hour
	s.sessions.IdleTimeout = 2 * time.Hour
	s.sessions.Cookie.Name = "mokren"
	s.sessions.Cookie.HttpOnly = true
	s.sessions.Cookie.SameSite = http.SameSiteStrictMode
	s.sessions.Cookie.Secure = o.SecureCookie
	if st != nil {
		s.sessions.Store = sessionStore{st.DB()}
	}
	s.sessions.ErrorFunc = func(w http.ResponseWriter, r *http.Request, err error) {
		slog.Error("session", "error", err)
		writeProblem(w, http.StatusServiceUnavailable,
			"The record is not reachable just now. Nothing is lost; it is tried again.")
	}

	huma.ValidateStrictCasing = true
	huma.DefaultArrayNullable = false
	r := chi.NewRouter()
	r.Use(middleware.Recoverer, securityHeaders(o.Inclinometer), http.NewCrossOriginProtection().Handler)
	cfg := huma.DefaultConfig("Mokren", "1.0.0")
	cfg.DocsPath = ""
	cfg.OpenAPIPath = "/api/openapi"
	cfg.SchemasPath = ""
	cfg.CreateHooks = nil // no $schema links in answers
	cfg.Components = &huma.Components{Schemas: huma.NewMapRegistry("#/components/schemas/", schemaName)}
	var a huma.API
	r.Group(func(r chi.Router) {
		tooMany := httprate.WithLimitHandler(func(w http.ResponseWriter, _ *http.Request) {
			writeProblem(w, http.StatusTooManyRequests, "Too many attempts. Wait a minute, then try again.")
		})
		// A code cannot be found by trying: 60 a minute of 2.8e11.
		codes := httprate.Limit(60, time.Minute, httprate.WithKeyFuncs(httprate.KeyByIP), tooMany)
		r.Use(s.sessions.LoadAndSave, limitBody, onPath("/api/pad/", codes), middleware.Compress(5, "application/json"))
		r.With(httprate.Limit(o.SignInsPerMinute, time.Minute, httprate.WithKeyFuncs(httprate.KeyByIP),
			tooMany)).Route("/api/session", func(r chi.Router) {
			sub := humachi.New(r, cfgWithout(cfg))
			s.registerSignIn(sub)
		})
		a = humachi.New(r, cfg)
		s.registerSession(a)
		s.registerClients(a)
		s.registerVisits(a)
		s.registerCore(a)
		s.registerFinger(a)
		s.registerAtlas(a)
		s.registerLinks(a)
		s.registerPhotos(a)
		s.registerWeights(a)
		s.registerThresholds(a)
		s.registerInstruments(a)
		// The sign-in lives behind its own limit; describe it with the rest.
		s.describeSignIn(a)
	})
	r.NotFound(web())
	return r, a, nil
}

// schemaName names a type in the description; two packages have a Point.
func schemaName(t reflect.Type, hint string) string {
	if t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	switch t {
	case reflect.TypeFor[body.Point]():
		return "XY"
	case reflect.TypeFor[struct{}]():
		return "Nothing"
	}
	return huma.DefaultSchemaNamer(t, hint)
}

// cfgWithout is for a sub-API that publishes no description of its own.
func cfgWithout(c huma.Config) huma.Config {
	d := huma.DefaultConfig(c.Info.Title, c.Info.Version)
	d.DocsPath, d.OpenAPIPath, d.SchemasPath, d.CreateHooks = "", "", "", nil
	return d
}

// maxBody is far above any honest request: a day of holds is about 200 kB.
const maxBody = 4 << 20

func limitBody(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		limit := int64(maxBody)
		if strings.Contains(r.URL.Path, "/photos/") {
			limit = exchange.MaxPhotoBytes + 1<<20 // refused below, with the reason
		}
		r.Body = http.MaxBytesReader(w, r.Body, limit)
		next.ServeHTTP(w, r)
	})
}

// onPath applies a middleware below a path only.
func onPath(prefix string, mw func(http.Handler) http.Handler) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		limited := mw(next)
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if strings.HasPrefix(r.URL.Path, prefix) {
				limited.ServeHTTP(w, r)
				return
			}
			next.ServeHTTP(w, r)
		})
	}
}

// securityHeaders let a page talk to its own server and to the instrument.
func securityHeaders(instrument string) func(http.Handler) http.Handler {
	policy := strings.TrimSpace("default-src 'self'; connect-src 'self' "+instrument) +
		"; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; " +
		"object-src 'none'; base-uri 'none'; frame-ancestors 'none'"
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			h := w.Header()
			h.Set("Content-Security-Policy", policy)
			h.Set("X-Content-Type-Options", "nosniff")
			h.Set("Referrer-Policy", "same-origin")
			next.ServeHTTP(w, r)
		})
	}
}

// problem turns an error of the store into the right status.
func problem(err error) error {
	switch {
	case err == nil:
		return nil
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("There is no such record in this practice.")
	case errors.Is(err, store.ErrStale):
		return huma.Error409Conflict("Someone else changed this meanwhile. Look at their version, then save again.")
	case errors.Is(err, context.Canceled):
		return err
	}
	slog.Error("request failed", "error", err)
	return huma.Error503ServiceUnavailable("The record is not reachable just now. Nothing is lost; try again.")
}
