package api_test

import (
	"context"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/coder/websocket/wsjson"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/demo"
	"mokren/devices/clientpad"
	"mokren/store/storetest"
)

// A pad that is connected to one copy of the program is heard at once by a screen
// that is connected to another: through the database, without sticky sessions.
func TestAnotherCopyHearsThePad(t *testing.T) {
	ctx, cancel := context.WithTimeout(t.Context(), time.Minute)
	defer cancel()
	c, st := newCallerWithStore(t, api.Options{Listen: ctx})
	path, event, begin := aHold(t, c, c.signIn(demo.Logins[0]))
	c.send(path, event("hold-started", begin), event("hold-event", map[string]any{
		"hold": begin["hold"], "at_ms": 0, "event": "contact",
	}))
	var link api.NewLink
	require.Equal(t, 200, c.call("POST", path+"/hand", nil, &link).StatusCode)

	h, err := api.New(st, api.Options{SignInsPerMinute: 1000, Listen: ctx})
	require.NoError(t, err)
	second := httptest.NewServer(h)
	defer second.Close()
	screen, _, err := websocket.Dial(ctx, "ws"+strings.TrimPrefix(second.URL, "http")+path+"/wire",
		&websocket.DialOptions{HTTPClient: c.http}) // the same cookie is good for both
	require.NoError(t, err)
	defer screen.CloseNow()

	pad := clientpad.New(c.base, link.Code)
	go pad.Run(ctx)
	said := false
	for {
		var heard api.Heard
		require.NoError(t, wsjson.Read(ctx, screen, &heard))
		// The pad's beat came by the database: the other copy listens by now.
		if heard.Pad && !said {
			said = true
			pad.Say(6)
		}
		if len(heard.Events) > 0 {
			assert.Equal(t, "hold-event", heard.Events[0].Type)
			break
		}
	}
	require.Eventually(t, func() bool { return len(scores(c.onlyHold(path))) == 1 }, 5*time.Second, 20*time.Millisecond)
}

// Liveness asks nobody; readiness asks the database.
func TestHealthKnowsTheDatabase(t *testing.T) {
	st := storetest.Open(t)
	h, err := api.New(st, api.Options{SecureCookie: true})
	require.NoError(t, err)
	get := func(path string) *httptest.ResponseRecorder {
		w := httptest.NewRecorder()
		h.ServeHTTP(w, httptest.NewRequest("GET", path, nil))
		return w
	}
	assert.Equal(t, http.StatusNoContent, get("/healthz").Code)
	assert.Equal(t, http.StatusNoContent, get("/readyz").Code)
	assert.Contains(t, get("/healthz").Header().Get("Strict-Transport-Security"), "max-age")
	require.NoError(t, st.Close())
	assert.Equal(t, http.StatusNoContent, get("/healthz").Code)
	assert.Equal(t, http.StatusServiceUnavailable, get("/readyz").Code)
}

// Metrics name routes by their patterns and never whose record it was.
func TestMetricsSayNothingOfAnybody(t *testing.T) {
	metrics := api.NewMetrics(nil)
	c := newCaller(t, api.Options{Metrics: metrics})
	path, _ := c.sendable(c.signIn(demo.Logins[0]))
	c.call("GET", path, nil, nil)
	w := httptest.NewRecorder()
	metrics.Handler().ServeHTTP(w, httptest.NewRequest("GET", "/metrics", nil))
	raw, err := io.ReadAll(w.Body)
	require.NoError(t, err)
	assert.Contains(t, string(raw), `mokren_request_seconds_count{method="GET",route="/api/visits/{id}",status="200"}`)
	assert.NotContains(t, string(raw), strings.TrimPrefix(path, "/api/visits/"))
}
