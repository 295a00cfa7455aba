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
	"bytes"
	"context"
	"errors"
	"io"
	"log/slog"
	"net/http"
	"net/url"
	"reflect"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
	"github.com/go-chi/httprate"

	"mokren/core/body"
	"mokren/core/strict"
	"mokren/exchange"
	"mokren/store"
)

// Options of the server. The zero value serves plain HTTP on one machine; behind
// TLS set SecureCookie.
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
	photos   *photoGate
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
	s := &server{
		store: st, now: o.Now, sessions: scs.New(), photos: newPhotoGate(), inclinometer: o.Inclinometer,
	}
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
	r.Use(middleware.Recoverer, wellFormed, securityHeaders(o.Inclinometer), http.NewCrossOriginProtection().Handler)
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
		r.Use(s.sessions.LoadAndSave, limitBody, storable, onPath("/api/pad/", codes),
			middleware.Compress(5, "application/json"))
		r.With(httprate.Limit(o.SignInsPerMinute, time.Minute, httprate.WithKeyFuncs(httprate.KeyByIP),
			tooMany)).Route("/api/session", func(r chi.Router) {
			sub := humachi.New(r, cfgWithout(cfg))
			s.registerSignIn(sub)
		})
		a = humachi.New(r, cfg)
		a.UseMiddleware(s.authorise(a))
		s.registerSession(a)
		s.registerSettings(a)
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

// readsItself: operations that read and check their own bodies.
func readsItself(path string) bool {
	for _, part := range []string{"/events", "/photos/", "/calc/", "/pad/"} {
		if strings.Contains(path, part) {
			return true
		}
	}
	return false
}

// storable refuses a JSON body that the record cannot keep, and names the field.
func storable(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.ContentLength <= 0 || r.ContentLength > maxTyped || readsItself(r.URL.Path) {
			next.ServeHTTP(w, r)
			return
		}
		rc := http.NewResponseController(w)
		rc.SetReadDeadline(time.Now().Add(patience)) //nolint:errcheck // not every writer has one
		raw, err := io.ReadAll(r.Body)
		rc.SetReadDeadline(time.Time{}) //nolint:errcheck // as above
		if err != nil {
			writeProblem(w, http.StatusRequestTimeout, "The request did not come in time. Try again.")
			return
		}
		if e := strict.Storable(raw); e != nil {
			refuseField(w, "body"+strings.TrimPrefix(e.Path, "$"), e.Allowed, e.Given)
			return
		}
		r.Body = io.NopCloser(bytes.NewReader(raw))
		next.ServeHTTP(w, r)
	})
}

// Typed bodies are small; what is larger is refused by its operation.
const (
	maxTyped = 1 << 20
	patience = 15 * time.Second
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
			h.Set("Cross-Origin-Opener-Policy", "same-origin")
			h.Set("Permissions-Policy", "camera=(self), microphone=(), geolocation=()")
			if strings.HasPrefix(r.URL.Path, "/api/") {
				h.Set("Cache-Control", "no-store")
			}
			next.ServeHTTP(w, r)
		})
	}
}

// problem turns an error of the store into the right status.
func problem(err error) error {
	var conflict *store.Conflict
	switch {
	case err == nil:
		return nil
	case errors.As(err, &conflict):
		return huma.Error409Conflict("The record has something else here. Look at both, then save again.",
			&huma.ErrorDetail{Location: "stored", Message: "what the record has", Value: storedOut(conflict.Stored)})
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("There is no such record in this practice.")
	case errors.Is(err, store.ErrStale):
		return huma.Error409Conflict("Someone else changed this meanwhile. Look at their version, then save again.")
	case errors.Is(err, store.ErrTooMany):
		return huma.Error429TooManyRequests("This code has brought as much as it may. Ask your therapist for a " +
			"new one.")
	case errors.Is(err, context.Canceled):
		return err
	}
	var status huma.StatusError
	if errors.As(err, &status) {
		return status
	}
	slog.Error("request failed", "error", err)
	return huma.Error503ServiceUnavailable("The record is not reachable just now. Nothing is lost; try again.")
}

// storedOut is what the record has, as the API gives it.
func storedOut(stored any) any {
	switch v := stored.(type) {
	case store.Client:
		return clientOut(v, time.Now())
	case store.Visit:
		return visitOut(v)
	case store.Photo:
		return photoOut(v)
	}
	return nil
}
