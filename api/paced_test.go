package api

import (
	"bufio"
	"context"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/http/httptest"
	"testing"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A body that stalls ends its connection, whether it is read or not; one that comes
// slowly is served, and its request may take longer than its body.
func TestAStalledBodyIsDropped(t *testing.T) {
	const patience = 2 * time.Second // a loaded machine may be late by one
	reads := func(w http.ResponseWriter, r *http.Request) {
		raw, err := io.ReadAll(r.Body)
		if err != nil {
			w.WriteHeader(http.StatusRequestTimeout)
			return
		}
		select { // as one that waits for the database
		case <-r.Context().Done():
			return
		case <-time.After(patience + patience/4):
		}
		fmt.Fprint(w, len(raw))
	}
	refuses := func(w http.ResponseWriter, _ *http.Request) { w.WriteHeader(http.StatusUnauthorized) }
	for _, c := range []struct {
		name    string
		handler http.HandlerFunc
		parts   []string // of a body of 4 bytes
		status  string
		closed  bool
	}{
		{"read, and stalled", reads, []string{"ab"}, "408", true},
		{"refused before it was read, and stalled", refuses, []string{"ab"}, "401", true},
		{"slow, and whole", reads, []string{"a", "b", "c", "d"}, "200", false},
	} {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			s := httptest.NewServer(paced(patience)(c.handler))
			defer s.Close()
			conn, err := net.Dial("tcp", s.Listener.Addr().String())
			require.NoError(t, err)
			defer conn.Close()
			require.NoError(t, conn.SetDeadline(time.Now().Add(20*time.Second)))
			fmt.Fprint(conn, "POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 4\r\n\r\n")
			for _, p := range c.parts {
				time.Sleep(patience / 8)
				fmt.Fprint(conn, p)
			}
			in := bufio.NewReader(conn)
			line, err := in.ReadString('\n')
			require.NoError(t, err)
			assert.Contains(t, line, c.status)
			if c.closed {
				_, err = io.ReadAll(in)
				assert.NoError(t, err, "the server ends the connection")
			}
		})
	}
}

// A made-up method makes no line of its own in the metrics.
func TestMetricsKnowTheMethodsThatThereAre(t *testing.T) {
	m := NewMetrics(nil)
	h := m.watch(http.NotFoundHandler())
	for i := range 50 {
		r := httptest.NewRequest(fmt.Sprint("MADE", i), "/", nil)
		h.ServeHTTP(httptest.NewRecorder(), withRoute(r))
	}
	h.ServeHTTP(httptest.NewRecorder(), withRoute(httptest.NewRequest(http.MethodGet, "/", nil)))
	w := httptest.NewRecorder()
	m.Handler().ServeHTTP(w, httptest.NewRequest(http.MethodGet, "/", nil))
	assert.Contains(t, w.Body.String(), `mokren_request_seconds_count{method="other",route="other",status="404"} 50`)
	assert.Contains(t, w.Body.String(), `mokren_request_seconds_count{method="GET",route="other",status="404"} 1`)
	assert.NotContains(t, w.Body.String(), "MADE")
}

// withRoute gives a request the context that a router would.
func withRoute(r *http.Request) *http.Request {
	return r.WithContext(context.WithValue(r.Context(), chi.RouteCtxKey, chi.NewRouteContext()))
}

// No operation ends while it waits for the database: what a body may take is paced.
func TestNoOperationHasADeadlineOfItsOwn(t *testing.T) {
	_, a, err := build(nil, Options{})
	require.NoError(t, err)
	n := 0
	for path, item := range a.OpenAPI().Paths {
		for _, o := range []*huma.Operation{item.Get, item.Put, item.Post, item.Delete, item.Patch} {
			if o != nil {
				n++
				assert.Negative(t, o.BodyReadTimeout, "%s %s", o.Method, path)
			}
		}
	}
	assert.Greater(t, n, 100)
}
