package api_test

import (
	"net/http"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/demo"
)

// send posts events in one batch.
func (c *caller) send(path string, events ...any) *http.Response {
	c.t.Helper()
	return c.call("POST", path+"/events", map[string]any{"events": events}, nil)
}

// charted is a point at a muscle's first site.
func charted(t *testing.T, point string, muscle ids.Muscle, side ids.Side) visit.PointCharted {
	t.Helper()
	m, err := atlas.Get(muscle)
	require.NoError(t, err)
	site := m.Sites[0]
	place := site.Place(body.DefaultHeightCM)
	view, at := m.OnFigure(place, side, body.DefaultHeightCM)
	n := 6.0
	return visit.PointCharted{
		Point: visit.UUID(point), Muscle: muscle, Side: side, Figure: body.Version, View: view, X: at.X, Y: at.Y,
		Place: place, Palpation: visit.Palpation{Band: "yes", Grade: new(2), NPRS: &n, Familiar: "yes"},
	}
}

func TestSafetyHoldsInTheAPI(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	path, event := c.sendable(me)
	point := uuid.NewString()
	start, err := treat.NewStart(treat.Request{Protocol: "graded-stages", Muscle: "suboccipitals", Side: "left"})
	require.NoError(t, err)
	raised, long := start, start
	raised.Limits.Soft, raised.Limits.Hard = 7, 8
	long.Limits.CapMS = 180_000
	begin := func(s treat.Start) map[string]any {
		return event("hold-started", map[string]any{"hold": uuid.NewString(), "point": point, "start": s})
	}
	var a api.EventAnswer
	res := c.call("POST", path+"/events", map[string]any{"events": []any{
		event("point-charted", charted(t, point, "suboccipitals", "left")), begin(raised), begin(long), begin(start),
	}}, &a)
	require.Equal(t, 200, res.StatusCode)
	results := []string{}
	for _, r := range a.Receipts {
		results = append(results, r.Result)
	}
	assert.Equal(t, []string{"stored", "aside", "aside", "aside"}, results)
	assert.Contains(t, a.Receipts[1].Reason, "$.body.start.limits")
	assert.Contains(t, a.Receipts[2].Reason, "cap_ms")
	assert.Contains(t, a.Receipts[3].Reason, "screening is not complete")
	var v struct{ State visit.State }
	c.call("GET", path, nil, &v)
	assert.Len(t, v.State.Holds, 2, "those that can be read are shown as holds")
	assert.Len(t, v.State.Rejected, 1, "kept and shown, not dropped")
}

// D5, D9: each event is answered for itself, a bad one with its field, and holds
// up no other.
func TestD5EachEventIsAnsweredForItself(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	path, event := c.sendable(me)
	note := func() map[string]any { return event("note-written", map[string]any{"text": "good"}) }
	with := func(k string, v any) map[string]any {
		e := note()
		e[k] = v
		return e
	}
	bad := []struct {
		event any
		field string
	}{
		{with("id", "x"), "$.id"},
		{with("seq", 0), "$.seq"},
		{with("seq", 1e18), "$.seq"},
		{with("schema", 3e9), "$.schema"},
		{with("device_ms", 9e15), "$.device_ms"},
		{with("visit", uuid.NewString()), "$.visit"},
		{with("author", uuid.NewString()), "$.author"},
		{with("client", uuid.NewString()), "$.client"},
		{with("extra", 1), "$.extra"},
		{with("body", map[string]any{"text": "a\x00b"}), "$.body"},
		{[]int{1}, "$"},
		{nil, "$"},
	}
	var batch []any
	for _, b := range bad {
		batch = append(batch, b.event, note())
	}
	var a api.EventAnswer
	require.Equal(t, 200, c.call("POST", path+"/events", map[string]any{"events": batch}, &a).StatusCode)
	require.Len(t, a.Receipts, len(batch))
	for i, b := range bad {
		assert.Equal(t, "refused", a.Receipts[2*i].Result, b.field)
		assert.Contains(t, a.Receipts[2*i].Reason, b.field)
		assert.Equal(t, "stored", a.Receipts[2*i+1].Result, "behind %s", b.field)
	}
	// What JSON itself writes otherwise.
	for _, text := range []string{`"\ud83d"`, `"\u0000"`} {
		e := `{"events":[{"id":"` + uuid.NewString() + `","body":{"text":` + text + `}}]}`
		require.Equal(t, 200, c.call("POST", path+"/events", e, &a).StatusCode)
		assert.Equal(t, "refused", a.Receipts[0].Result)
		assert.Contains(t, a.Receipts[0].Reason, "$.body")
	}
	tiny := `{"events":[{"id":"` + uuid.NewString() + `","body":{"n":1e-20000}}]}`
	require.Equal(t, 200, c.call("POST", path+"/events", tiny, &a).StatusCode)
	assert.Equal(t, "refused", a.Receipts[0].Result)
}

// A batch is answered with what is new since the version that the sender has.
func TestABatchIsAnsweredWithWhatIsNew(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	path, event := c.sendable(me)
	var a api.EventAnswer
	first := event("note-written", map[string]any{"text": "one"})
	c.call("POST", path+"/events", map[string]any{"events": []any{first}}, &a)
	require.Equal(t, int64(1), a.Version)
	c.call("POST", path+"/events", map[string]any{
		"since":  1,
		"events": []any{event("note-written", map[string]any{"text": "two"})},
	}, &a)
	require.Len(t, a.Events, 1)
	assert.Equal(t, int64(2), a.Events[0].Version)
	assert.InDelta(t, time.Now().UnixMilli(), a.NowMS, 60_000)
	a = api.EventAnswer{}
	c.call("POST", path+"/events", map[string]any{"since": 2, "events": []any{first}}, &a)
	assert.Equal(t, "stored-before", a.Receipts[0].Result)
	assert.Empty(t, a.Events)
	other := map[string]any{}
	for k, v := range first {
		other[k] = v
	}
	other["body"] = map[string]any{"text": "another"}
	c.call("POST", path+"/events", map[string]any{"since": 2, "events": []any{other}}, &a)
	assert.Equal(t, "refused", a.Receipts[0].Result)
	require.NotNil(t, a.Receipts[0].Stored, "both are shown")
	assert.JSONEq(t, `{"text":"one"}`, string(a.Receipts[0].Stored.Body))
}

// What meets other content under its id is a 409 with both, never a silent 200.
func TestOtherContentIsAConflictThatShowsBoth(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	id, vid := uuid.NewString(), uuid.NewString()
	client := map[string]any{"id": id, "given_name": "Con", "family_name": "Flict", "revision": 0}
	booking := map[string]any{"id": vid, "client": id, "starts_at": "2041-01-01T10:00:00Z"}
	for range 2 {
		require.Equal(t, 200, c.call("PUT", "/api/clients/"+id, client, nil).StatusCode)
		require.Equal(t, 200, c.call("PUT", "/api/visits/"+vid, booking, nil).StatusCode)
	}
	client["given_name"], booking["starts_at"] = "Other", "2041-01-02T10:00:00Z"
	for path, body := range map[string]any{"/api/clients/" + id: client, "/api/visits/" + vid: booking} {
		var p struct {
			Errors []struct {
				Location string
				Value    map[string]any
			}
		}
		require.Equal(t, 409, c.call("PUT", path, body, &p).StatusCode)
		require.NotEmpty(t, p.Errors)
		assert.Equal(t, "stored", p.Errors[0].Location)
		assert.Contains(t, []any{id, vid}, p.Errors[0].Value["id"])
	}
}
