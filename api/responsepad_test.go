package api_test

import (
	"context"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/coder/websocket/wsjson"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/demo"
	"mokren/devices/clientpad"
)

// aHold is a visit that is screened and agreed to, with a point, and what begins
// a hold there.
func aHold(t *testing.T, c *caller, me api.Me) (
	path string, event func(string, any) map[string]any, begin map[string]any,
) {
	t.Helper()
	path, dated := c.sendable(me)
	event = func(kind string, body any) map[string]any {
		e := dated(kind, body)
		e["device_ms"] = time.Now().UnixMilli()
		return e
	}
	point := uuid.NewString()
	start, err := treat.NewStart(treat.Request{
		Protocol: "graded-stages", Muscle: "soleus", Side: "left", Where: firstSite(t, "soleus"),
	})
	require.NoError(t, err)
	answers := []any{}
	for _, q := range safety.Questions() {
		answers = append(answers, map[string]any{"question": q.ID, "answer": "no"})
	}
	c.send(path,
		event("screening-answered", map[string]any{"answers": answers}),
		event("consent-recorded", map[string]any{"area": "visit", "given": true}),
		event("point-charted", charted(t, point, "soleus", "left")))
	return path, event, map[string]any{
		"hold": uuid.NewString(), "point": point, "start": start, "contact": "thumb-pad", "position": "prone",
	}
}

func (c *caller) onlyHold(path string) visit.Hold {
	c.t.Helper()
	var v struct{ State visit.State }
	c.call("GET", path, nil, &v)
	require.Len(c.t, v.State.Holds, 1)
	return v.State.Holds[0]
}

func scores(h visit.Hold) (out []string) {
	for _, e := range h.Log {
		if e.Event == "score" || e.Event == "client-stop" {
			out = append(out, e.Event+string(e.Value))
		}
	}
	return out
}

// What the pad says is in the hold as it is said, by a source of its own, and the
// therapist's screen hears it at once; a code that was taken back is over.
func TestTheClientsPad(t *testing.T) {
	c := newCaller(t, api.Options{})
	path, event, begin := aHold(t, c, c.signIn(demo.Logins[0]))
	c.send(path, event("hold-started", begin), event("hold-event", map[string]any{
		"hold": begin["hold"], "at_ms": 0, "event": "contact",
	}))
	var link api.NewLink
	require.Equal(t, 200, c.call("POST", path+"/hand", nil, &link).StatusCode)
	var told api.ResponsePad
	require.Equal(t, 200, c.call("GET", "/api/hand/"+link.Code, nil, &told).StatusCode)
	assert.NotEmpty(t, told.Practice)

	ctx, cancel := context.WithTimeout(t.Context(), 20*time.Second)
	defer cancel()
	wire := "ws" + strings.TrimPrefix(c.base, "http") + path + "/wire"
	_, refused, err := websocket.Dial(ctx, wire, nil)
	require.Error(t, err)
	assert.Equal(t, http.StatusUnauthorized, refused.StatusCode, "nobody listens without a sign-in")
	screen, _, err := websocket.Dial(ctx, wire, &websocket.DialOptions{HTTPClient: c.http})
	require.NoError(t, err)
	defer screen.CloseNow()

	pad := clientpad.New(c.base, link.Code)
	go pad.Run(ctx)
	pad.Say(6)
	for {
		var h api.Heard
		require.NoError(t, wsjson.Read(ctx, screen, &h))
		if len(h.Events) > 0 {
			assert.Equal(t, "hold-event", h.Events[0].Type)
			break
		}
		assert.True(t, h.Pad, "a sign of life until then")
	}
	pad.Stop()
	require.Eventually(t, func() bool { return pad.Left() == 0 }, 5*time.Second, 20*time.Millisecond)
	h := c.onlyHold(path)
	assert.Equal(t, []string{"score6", "client-stop"}, scores(h))
	assert.Equal(t, treat.Stopped, h.Summary.Outcome)
	assert.NotEqual(t, h.Log[0].Source, h.Log[1].Source, "the client's own source")

	require.Equal(t, 204, c.call("DELETE", path+"/hand", nil, nil).StatusCode)
	assert.Equal(t, 404, c.call("GET", "/api/hand/"+link.Code, nil, nil).StatusCode)
}

// What was said while the tablet was away goes into the hold that it brings
// later, each at its own time.
func TestThePadIsAheadOfTheTablet(t *testing.T) {
	c := newCaller(t, api.Options{})
	path, event, begin := aHold(t, c, c.signIn(demo.Logins[0]))
	var link api.NewLink
	c.call("POST", path+"/hand", nil, &link)
	started := event("hold-started", begin)
	pad := clientpad.New(c.base, link.Code)
	go pad.Run(t.Context())
	pad.Say(7)
	require.Eventually(t, func() bool { return pad.Left() == 0 }, 5*time.Second, 20*time.Millisecond)
	c.send(path, started)
	h := c.onlyHold(path)
	require.Equal(t, []string{"score7"}, scores(h))
	assert.Less(t, h.Log[0].AtMS, int64(5000), "at its own time, not when it was sent")
}

// The aftercare sheet is read with its own code, without a name, after the visit
// is closed too.
func TestTheAftercareSheetByCode(t *testing.T) {
	c := newCaller(t, api.Options{})
	path, event, begin := aHold(t, c, c.signIn(demo.Logins[0]))
	c.send(path, event("hold-started", begin), event("hold-event", map[string]any{
		"hold": begin["hold"], "at_ms": 0, "event": "contact",
	}), event("visit-closed", map[string]any{}))
	var link api.NewLink
	require.Equal(t, 200, c.call("POST", path+"/after", nil, &link).StatusCode)
	var sheet api.AfterSheet
	require.Equal(t, 200, c.call("GET", "/api/after/"+link.Code, nil, &sheet).StatusCode)
	assert.Equal(t, []string{"Soleus, left"}, sheet.Sheet.Worked)
	assert.Equal(t, time.Now().Format("2006"), sheet.Day[:4])
	assert.Equal(t, 404, c.call("GET", "/api/pad/"+link.Code, nil, nil).StatusCode)
}

// A code is good for one thing.
func TestCodesOfOnePurpose(t *testing.T) {
	c := newCaller(t, api.Options{})
	path, _ := c.sendable(c.signIn(demo.Logins[0]))
	var intake, hand api.NewLink
	c.call("POST", path+"/link", nil, &intake)
	c.call("POST", path+"/hand", nil, &hand)
	assert.Equal(t, 404, c.call("GET", "/api/hand/"+intake.Code, nil, nil).StatusCode)
	assert.Equal(t, 404, c.call("GET", "/api/pad/"+hand.Code, nil, nil).StatusCode)
	assert.Equal(t, 200, c.call("GET", "/api/pad/"+intake.Code, nil, nil).StatusCode)
}
