package api_test

import (
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/demo"
)

// A practice's own copy of a protocol: kept within its bounds, used by a hold
// with its name, and gone without touching that hold.
func TestOwnProtocols(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	assert.EqualValues(t, "graded-stages", me.Protocol)
	at := "/api/protocols/" + uuid.NewString()
	soft := map[string]any{
		"protocol": "pulses", "name": "Soft pulses", "numbers": map[string]any{"press_s": 3, "reps": 6},
	}
	var all api.Protocols
	require.Equal(t, 200, c.call("PUT", at, soft, &all).StatusCode)
	require.Len(t, all.Own, 1)
	assert.Len(t, all.Shipped, 14)
	var former api.Protocols
	require.Equal(t, 200, c.call("GET", "/api/schools", nil, &former).StatusCode, "under its former name")
	assert.Equal(t, all, former)
	soft["numbers"] = map[string]any{"press_s": 2}
	var problem struct {
		Errors []struct{ Location, Message string }
	}
	require.Equal(t, 422, c.call("PUT", at, soft, &problem).StatusCode)
	require.NotEmpty(t, problem.Errors)
	assert.Contains(t, problem.Errors[0].Location, "press_s")

	path, event, begin := aHold(t, c, me)
	start, err := treat.NewStart(treat.Request{
		Protocol: "pulses", Muscle: "soleus", Side: "left", Name: "Soft pulses",
		Numbers: map[string]float64{"press_s": 3, "reps": 6}, Where: firstSite(t, "soleus"),
	})
	require.NoError(t, err)
	begin["start"] = start
	c.send(path, event("hold-started", begin))
	h := c.onlyHold(path)
	assert.Equal(t, visit.Live, h.Status, h.Why)
	assert.Equal(t, "Soft pulses", h.Start.Plan.Name)

	all = api.Protocols{}
	require.Equal(t, 200, c.call("DELETE", at, nil, &all).StatusCode)
	assert.Empty(t, all.Own)
	assert.Equal(t, int64(3000), c.onlyHold(path).Start.Plan.PressMS, "the hold keeps its plan")
}

// A plan that was not resolved from a protocol within its bounds is set aside,
// whoever sends it.
func TestAForgedPlanIsSetAside(t *testing.T) {
	c := newCaller(t, api.Options{})
	path, event, begin := aHold(t, c, c.signIn(demo.Logins[0]))
	start, err := treat.NewStart(treat.Request{
		Protocol: "pulses", Muscle: "soleus", Side: "left", Where: firstSite(t, "soleus"),
	})
	require.NoError(t, err)
	plan := *start.Plan
	plan.PressMS, plan.RestMS = 90_000, 1000
	start.Plan = &plan
	begin["start"] = start
	c.send(path, event("hold-started", begin))
	h := c.onlyHold(path)
	assert.Equal(t, visit.HoldRejected, h.Status)
	assert.Contains(t, h.Why, "$.body.start.plan")
}

// One's own hands of the week, from other visits; nobody sees another's.
func TestHandLoadIsOnesOwn(t *testing.T) {
	c := newCaller(t, api.Options{})
	path, event, begin := aHold(t, c, c.signIn(demo.Logins[0]))
	c.send(path, event("hold-started", begin),
		event("hold-event", map[string]any{"hold": begin["hold"], "at_ms": 0, "event": "contact"}),
		event("hold-event", map[string]any{"hold": begin["hold"], "at_ms": 2000, "event": "release"}))
	read := func(c *caller, path string) api.OpenVisit {
		var v api.OpenVisit
		require.Equal(t, 200, c.call("GET", path, nil, &v).StatusCode)
		return v
	}
	here := read(c, path)
	today := func(v api.OpenVisit) (s float64) {
		for _, u := range v.HandUses {
			if u.Day == v.Today && u.Contact == "thumb-pad" {
				s += u.Seconds
			}
		}
		return s
	}
	elsewhere, _ := c.sendable(c.signIn(demo.Logins[0]))
	before := today(here)
	after := today(read(c, elsewhere))
	assert.Greater(t, after, before+1.9, "seen from another visit; a visit's own holds are the browser's to add")
	colleague := c.as(demo.Logins[1])
	theirs, _ := colleague.sendable(colleague.signIn(demo.Logins[1]))
	assert.NotEqual(t, after, today(read(colleague, theirs)))
}
