package api

import (
	"cmp"
	"compress/gzip"
	"context"
	"net/http"
	"reflect"
	"strings"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
	"github.com/google/uuid"

	"mokren/core/body"
	"mokren/core/plan"
	"mokren/core/points"
	"mokren/core/treat"
	"mokren/store"
)

// Options of the server. The zero value serves plain HTTP on one machine, with a
// cookie that travels in the clear; behind TLS set SecureCookie.
type Options struct {
	// SignInsPerMinute from one address; 0 means 10.
	SignInsPerMinute int
	// SharedLimits are counted in the database, for all copies on it.
	SharedLimits bool
	// SecureCookie is set when the page is served over TLS.
	SecureCookie bool
	// Now is the clock; nil means time.Now.
	Now func() time.Time
	// Inclinometer is the address at which an instrument streams to the browser
	// ("ws://127.0.0.1:4175/"); empty means none.
	Inclinometer string
	// Algometer is the same of a pressure algometer.
	Algometer string
	// PressurePad is the same of a pressure pad.
	PressurePad string
	// Metrics counts what this copy does; nil counts for nobody.
	Metrics *Metrics
	// Listen is as long as this copy listens to the others; nil does not listen.
	Listen context.Context
}

type server struct {
	sittings sittings
	store    *store.Store
	sessions *scs.SessionManager
	now      func() time.Time
	photos   *photoGate
	pages    *pageGate
	hub      *hub
	metrics  *Metrics
	// sharedLimits: see Options.
	sharedLimits bool
	// copy is this copy of the program among several on one database.
	copy uuid.UUID
	// inclinometer is where an instrument streams, as the browser sees it.
	inclinometer string
	algometer    string
	pressurePad  string
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
		store: st, now: o.Now, sessions: newSessions(st, o.SecureCookie), photos: newPhotoGate(), pages: newPageGate(),
		hub: newHub(), copy: uuid.New(), metrics: o.Metrics, sharedLimits: o.SharedLimits,
		inclinometer: o.Inclinometer, algometer: o.Algometer, pressurePad: o.PressurePad,
	}
	if s.now == nil {
		s.now = time.Now
	}
	huma.ValidateStrictCasing = true
	huma.DefaultArrayNullable = false
	if s.metrics == nil {
		s.metrics = NewMetrics(nil)
	}
	if st != nil && o.Listen != nil {
		go st.Listen(o.Listen, s.heardFrom)
	}
	r := chi.NewRouter()
	r.Use(formerNames, s.metrics.watch, middleware.Recoverer, paced(patience), wellFormed,
		securityHeaders(o.SecureCookie, o.Inclinometer, o.Algometer, o.PressurePad),
		ownOrigin())
	var a huma.API
	r.Group(func(r chi.Router) {
		r.Use(stepped, s.sessions.LoadAndSave, middleware.Compress(gzip.BestSpeed, "application/json"))
		a = humachi.New(r, config())
		a.UseMiddleware(s.authorise(a), storable(a))
		s.register(a, cmp.Or(o.SignInsPerMinute, 10))
		describe(a.OpenAPI(), s.sessions.Cookie.Name)
	})
	r.With(s.byAddress("wire", codesPerMinute)).Get("/api/hand/{code}/wire", s.responseWire)
	r.Get("/api/visits/{id}/wire", s.visitWire)
	// Calendar programs ask whether something has changed before they ask for it.
	for _, method := range []string{http.MethodGet, http.MethodHead} {
		limited := r.With(s.byAddress("calendar", codesPerMinute))
		limited.MethodFunc(method, "/calendar/{secret}", s.calendar)
		limited.MethodFunc(method, "/date/{code}", s.date)
	}
	r.Get("/healthz", alive)
	r.Get("/readyz", s.ready)
	r.NotFound(web(s.sessions.Cookie.Name))
	return r, a, nil
}

// register makes every operation of every resource.
func (s *server) register(a huma.API, signInsPerMinute int) {
	s.registerSession(a, signInsPerMinute)
	s.registerSettings(a)
	s.registerClients(a)
	s.registerVisits(a)
	s.registerEvents(a)
	s.registerFigure(a)
	s.registerCalc(a)
	s.registerAtlas(a)
	s.registerSubmissions(a)
	s.registerPad(a)
	s.registerResponsePad(a)
	s.registerAfter(a)
	s.registerPhotos(a)
	ownWeights.register(s, a)
	ownThresholds.register(s, a)
	ownProtocols.register(s, a)
	ownSequences.register(s, a)
	s.registerInstruments(a)
	s.registerExport(a)
	s.registerImports(a)
	s.registerDiary(a)
	s.registerCalendar(a)
	s.registerInvitations(a)
	s.registerReceipts(a)
	s.registerBench(a)
	s.registerAgreement(a)
	s.registerView(a)
	s.registerPrint(a)
	s.registerAudit(a)
	s.registerPeople(a)
	s.registerOwn(a)
	s.registerTickets(a)
	s.registerErase(a)
}

// config of the description, which is at /api/openapi.json.
func config() huma.Config {
	c := huma.DefaultConfig("Mokren", "1.0.0")
	c.DocsPath = ""
	c.OpenAPIPath = "/api/openapi"
	c.SchemasPath = ""
	c.CreateHooks = nil // no $schema links in answers
	c.Components = &huma.Components{Schemas: huma.NewMapRegistry(schemasAt, schemaName)}
	describeVocabulary(c.Components.Schemas)
	return c
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
	case reflect.TypeFor[treat.Plan]():
		return "HoldPlan" // a session has a plan too
	}
	name := huma.DefaultSchemaNamer(t, hint)
	switch t.PkgPath() {
	case reflect.TypeFor[points.Judgement]().PkgPath():
		return "Point" + name
	case reflect.TypeFor[plan.Plan]().PkgPath():
		return "Plan" + strings.TrimPrefix(name, "Plan")
	}
	return name
}
