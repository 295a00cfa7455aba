package api

import (
	"context"
	"net/http"
	"strconv"
	"time"

	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"

	"mokren/store"
)

// readyWithin is how long a database may take to answer before this copy is not
// ready.
const readyWithin = 2 * time.Second

// alive says that the program runs; it asks nobody.
func alive(w http.ResponseWriter, _ *http.Request) { w.WriteHeader(http.StatusNoContent) }

// ready says that the program can serve: its database answers.
func (s *server) ready(w http.ResponseWriter, r *http.Request) {
	ctx, cancel := context.WithTimeout(r.Context(), readyWithin)
	defer cancel()
	if s.store == nil || s.store.Ping(ctx) != nil {
		writeProblem(w, http.StatusServiceUnavailable, "The database does not answer.")
		return
	}
	w.WriteHeader(http.StatusNoContent)
}

// Metrics counts what a copy of the program does, without a word of health data:
// routes are their patterns, never addresses.
type Metrics struct {
	registry *prometheus.Registry
	requests *prometheus.HistogramVec
	refused  prometheus.Counter
	events   *prometheus.CounterVec
}

// NewMetrics also watches the pool of connections to the database.
func NewMetrics(st *store.Store) *Metrics {
	m := &Metrics{
		registry: prometheus.NewRegistry(),
		requests: prometheus.NewHistogramVec(prometheus.HistogramOpts{
			Name: "mokren_request_seconds", Help: "Time of a request by method, route and status.",
			Buckets: []float64{0.002, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10},
		}, []string{"method", "route", "status"}),
		refused: prometheus.NewCounter(prometheus.CounterOpts{
			Name: "mokren_outbox_refused_total", Help: "Events of devices that were not kept.",
		}),
		events: prometheus.NewCounterVec(prometheus.CounterOpts{
			Name: "mokren_events_total", Help: "Events of devices by what became of them.",
		}, []string{"result"}),
	}
	m.registry.MustRegister(m.requests, m.refused, m.events, collectors.NewGoCollector(),
		collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}))
	if st != nil {
		m.registry.MustRegister(collectors.NewDBStatsCollector(st.DB(), "mokren"))
	}
	return m
}

// Handler serves them; it belongs on an address of its own, within the house.
func (m *Metrics) Handler() http.Handler {
	return promhttp.HandlerFor(m.registry, promhttp.HandlerOpts{})
}

// watch times every request.
func (m *Metrics) watch(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		began := time.Now()
		ww := middleware.NewWrapResponseWriter(w, r.ProtoMajor)
		next.ServeHTTP(ww, r)
		route := chi.RouteContext(r.Context()).RoutePattern()
		if route == "" {
			route = "other"
		}
		m.requests.WithLabelValues(methodOf(r), route, strconv.Itoa(max(200, ww.Status()))).
			Observe(time.Since(began).Seconds())
	})
}

// methodOf names the methods that there are; a made-up one makes no line of its own.
func methodOf(r *http.Request) string {
	switch r.Method {
	case http.MethodGet, http.MethodHead, http.MethodPost, http.MethodPut, http.MethodPatch, http.MethodDelete,
		http.MethodOptions:
		return r.Method
	}
	return "other"
}

// took counts what became of events.
func (m *Metrics) took(receipts []store.Receipt) {
	for _, r := range receipts {
		m.events.WithLabelValues(string(r.Result)).Inc()
		if r.Result == store.Refused {
			m.refused.Inc()
		}
	}
}
