package api_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"image"
	"image/png"
	"io"
	"maps"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/calc"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/demo"
	"mokren/store"
	"mokren/store/storetest"
)

type caller struct {
	t    *testing.T
	base string
	http *http.Client
	head map[string]string
}

func newCaller(t *testing.T, o api.Options) *caller {
	t.Helper()
	c, _ := newCallerWithStore(t, o)
	return c
}

// again is another browser on the same server.
func (c *caller) again() *caller {
	jar, _ := cookiejar.New(nil)
	return &caller{c.t, c.base, &http.Client{Jar: jar}, nil}
}

func newCallerWithStore(t *testing.T, o api.Options) (*caller, *store.Store) {
	t.Helper()
	st := storetest.Open(t)
	require.NoError(t, demo.Fill(context.Background(), st, time.Now()))
	if o.SignInsPerMinute == 0 {
		o.SignInsPerMinute = 1000
	}
	h, err := api.New(st, o)
	require.NoError(t, err)
	srv := httptest.NewServer(h)
	t.Cleanup(srv.Close)
	jar, _ := cookiejar.New(nil)
	return &caller{t, srv.URL, &http.Client{Jar: jar}, nil}, st
}

// call sends a body as it is (string) or as JSON and decodes the answer.
func (c *caller) call(method, path string, body, out any) *http.Response {
	c.t.Helper()
	var r io.Reader
	switch b := body.(type) {
	case nil:
	case string:
		r = strings.NewReader(b)
	default:
		raw, err := json.Marshal(b)
		require.NoError(c.t, err)
		r = bytes.NewReader(raw)
	}
	req, err := http.NewRequest(method, c.base+path, r)
	require.NoError(c.t, err)
	req.Header.Set("Content-Type", "application/json")
	for k, v := range c.head {
		req.Header.Set(k, v)
	}
	res, err := c.http.Do(req)
	require.NoError(c.t, err)
	defer res.Body.Close()
	raw, err := io.ReadAll(res.Body)
	require.NoError(c.t, err)
	described().check(c.t, method, path, res, raw)
	if out != nil {
		require.NoError(c.t, json.Unmarshal(raw, out), "%s", raw)
	}
	res.Body = io.NopCloser(bytes.NewReader(raw))
	return res
}

// read reads an address as a browser does: not by the caller of the tests, which holds each answer against
// the API's description.
func (c *caller) read(path string) {
	c.t.Helper()
	res, err := c.http.Get(c.base + path)
	require.NoError(c.t, err)
	defer res.Body.Close()
	require.Equal(c.t, http.StatusOK, res.StatusCode)
	_, err = io.Copy(io.Discard, res.Body)
	require.NoError(c.t, err)
}

func (c *caller) signIn(l demo.Login) api.Me {
	c.t.Helper()
	var me api.Me
	res := c.call("POST", "/api/session", map[string]string{"email": l.Email, "password": l.Password}, &me)
	require.Equal(c.t, 200, res.StatusCode)
	return me
}

type problem struct {
	Status int    `json:"status"`
	Detail string `json:"detail"`
	Errors []struct {
		Location string `json:"location"`
		Message  string `json:"message"`
	} `json:"errors"`
}

func TestSessions(t *testing.T) {
	c := newCaller(t, api.Options{})
	var p problem
	res := c.call("POST", "/api/session", map[string]string{"email": demo.Logins[0].Email, "password": "wrong"}, &p)
	assert.Equal(t, 401, res.StatusCode)
	me := c.signIn(demo.Logins[0])
	assert.Equal(t, "Ines Calder", me.Name)
	res = c.call("GET", "/api/session", nil, nil)
	assert.Equal(t, 200, res.StatusCode)
	require.Equal(t, 204, c.call("DELETE", "/api/session", nil, nil).StatusCode)
	assert.Equal(t, 401, c.call("GET", "/api/session", nil, nil).StatusCode)

	res = c.call("POST", "/api/session", map[string]string{
		"email":    demo.Logins[0].Email,
		"password": demo.Logins[0].Password,
	}, nil)
	cookie := res.Cookies()[0]
	assert.True(t, cookie.HttpOnly)
	assert.Equal(t, http.SameSiteStrictMode, cookie.SameSite)
}

func TestAnotherSiteCannotAct(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	c.head = map[string]string{"Origin": "https://elsewhere.example", "Sec-Fetch-Site": "cross-site"}
	assert.Equal(t, 403, c.call("DELETE", "/api/session", nil, nil).StatusCode)
	c.head = nil
	assert.Equal(t, 200, c.call("GET", "/api/session", nil, nil).StatusCode)
}

func TestSignInIsLimited(t *testing.T) {
	c := newCaller(t, api.Options{SignInsPerMinute: 3})
	last := 0
	for range 5 {
		last = c.call("POST", "/api/session", map[string]string{"email": "x@y.example", "password": "z"},
			nil).StatusCode
	}
	assert.Equal(t, 429, last)
}

// Wrong input on every endpoint: the field is named.
func TestWrongInputNamesTheField(t *testing.T) {
	c := newCaller(t, api.Options{})
	id, vid := uuid.NewString(), uuid.NewString()
	good := map[string]any{"id": id, "given_name": "A", "family_name": "B", "revision": 0}
	with := func(k string, v any) map[string]any {
		m := map[string]any{}
		for a, b := range good {
			m[a] = b
		}
		m[k] = v
		return m
	}
	var p problem
	res := c.call("POST", "/api/session", map[string]any{"email": "nobody", "password": ""}, &p)
	assert.Equal(t, 422, res.StatusCode)
	assert.Equal(t, "body.email", p.Errors[0].Location)
	c.signIn(demo.Logins[0])
	for _, x := range []struct {
		method, path string
		body         any
		field        string
	}{
		{"PUT", "/api/clients/" + id, with("given_name", ""), "body.given_name"},
		{"PUT", "/api/clients/" + id, `{"id":"x","work":"\ud83d"}`, "body.work"},
		{"GET", "/api/clients?q=%00", nil, "query"},
		{"PUT", "/api/clients/" + id, with("given_name", "  "), "body.given_name"},
		{"PUT", "/api/clients/" + id, with("work", "a\x00b"), "body.work"},
		{"PUT", "/api/clients/" + id, with("height_cm", 20), "body.height_cm"},
		{"PUT", "/api/clients/" + id, with("born_on", "2020-02-31"), "body.born_on"},
		{"PUT", "/api/clients/" + id, with("born_on", "yesterday"), "body.born_on"},
		{"PUT", "/api/clients/" + id, with("born_on", "2999-01-01"), "body.born_on"},
		{"PUT", "/api/clients/" + id, with("nickname", "x"), "body.nickname"},
		{"PUT", "/api/clients/" + id, with("Given_Name", "x"), "body.Given_Name"},
		{"PUT", "/api/clients/" + id, with("id", uuid.NewString()), "body.id"},
		{"PUT", "/api/clients/not-an-id", good, "path.id"},
		{"GET", "/api/day?date=2026-02-30", nil, "query.date"},
		{"GET", "/api/day?date=today", nil, "query.date"},
		{"PUT", "/api/visits/" + vid, map[string]any{"id": vid, "client": id, "starts_at": "soon"}, "body.starts_at"},
		{"PUT", "/api/visits/" + vid, map[string]any{
			"id": vid, "client": id, "starts_at": "2026-01-01T10:00:00Z",
			"minutes": 1,
		}, "body.minutes"},
		{"POST", "/api/visits/" + vid + "/events", map[string]any{"events": []any{}}, "body.events"},
		{"POST", "/api/calc/change", map[string]any{"measure": "nprs", "before": 12, "after": 3}, "$.before"},
		{"POST", "/api/calc/palpate", map[string]any{"muscle": "soleus", "side": "up"}, "$.side"},
		{"POST", "/api/calc/under", map[string]any{"view": "top", "x": 1, "y": 1}, "$.view"},
		{"POST", "/api/calc/coach", `{"t":0,"event":"start","protocol":"x"}`, "line 1: $.protocol"},
	} {
		var p problem
		res := c.call(x.method, x.path, x.body, &p)
		assert.Equal(t, 422, res.StatusCode, "%s %s %v", x.method, x.path, x.body)
		found := false
		for _, e := range p.Errors {
			found = found || e.Location == x.field || e.Location+"."+lastWord(e.Message) == x.field
		}
		assert.True(t, found, "%s %s: %s not named in %+v", x.method, x.path, x.field, p)
	}
	assert.Equal(t, 404, c.call("GET", "/api/figure/above", nil, nil).StatusCode)
	assert.Equal(t, 404, c.call("GET", "/api/nothing", nil, nil).StatusCode)
	assert.Equal(t, 404, c.call("GET", "/api/visits/"+uuid.NewString(), nil, nil).StatusCode)
	assert.Equal(t, 413, c.call("PUT", "/api/clients/"+id, `{"id":"`+strings.Repeat("x", 5<<20)+`"}`, nil).StatusCode)
}

func lastWord(s string) string { f := strings.Fields(s); return f[len(f)-1] }

func TestAClientRegisteredTwiceIsOne(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	id := uuid.NewString()
	body := map[string]any{"id": id, "given_name": "Twice", "family_name": "Sent", "revision": 0}
	for range 2 {
		require.Equal(t, 200, c.call("PUT", "/api/clients/"+id, body, nil).StatusCode)
	}
	var list struct{ Items []api.Client }
	c.call("GET", "/api/clients?q=Twice", nil, &list)
	assert.Len(t, list.Items, 1)
	body["given_name"] = "Other"
	assert.Equal(t, 409, c.call("PUT", "/api/clients/"+id, body, nil).StatusCode, "another content under the same id")
	var kept api.Course
	c.call("GET", "/api/clients/"+id, nil, &kept)
	assert.Equal(t, "Twice", kept.Client.GivenName)
	body["revision"] = 7
	assert.Equal(t, 409, c.call("PUT", "/api/clients/"+id, body, nil).StatusCode)
}

// aClient is a new one of the practice.
func (c *caller) aClient(given, family string) (id string) {
	c.t.Helper()
	id = uuid.NewString()
	body := map[string]any{"id": id, "given_name": given, "family_name": family, "revision": 0}
	require.Equal(c.t, 200, c.call("PUT", "/api/clients/"+id, body, nil).StatusCode)
	return id
}

// A visit whose answer was lost is sent again, whatever the clock's precision.
func TestAVisitSentTwiceIsTheSame(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	client, id := c.aClient("Fine", "Clock"), uuid.NewString()
	body := map[string]any{"id": id, "client": client, "starts_at": "2026-03-02T09:00:00.123456789Z"}
	for range 2 {
		var kept api.Visit
		require.Equal(t, 200, c.call("PUT", "/api/visits/"+id, body, &kept).StatusCode)
		assert.Equal(t, id, kept.ID)
	}
	body["starts_at"] = "2026-03-02T09:00:01Z"
	assert.Equal(t, 409, c.call("PUT", "/api/visits/"+id, body, nil).StatusCode, "another start is another visit")
}

// sendable makes a visit with a point and returns a maker of events.
func (c *caller) sendable(me api.Me) (path string, event func(kind string, body any) map[string]any) {
	c.t.Helper()
	id, vid, device := c.aClient("E", "V"), uuid.NewString(), uuid.NewString()
	require.Equal(c.t, 200, c.call("PUT", "/api/visits/"+vid,
		map[string]any{"id": vid, "client": id, "starts_at": time.Now().Format(time.RFC3339)}, nil).StatusCode)
	seq := 0
	return "/api/visits/" + vid, func(kind string, body any) map[string]any {
		seq++
		return map[string]any{
			"id": uuid.NewString(), "client": id, "visit": vid, "author": me.ID, "device": device,
			"seq": seq, "device_ms": 1000 * seq, "seen": 0, "schema": 1, "type": kind, "body": body,
		}
	}
}

type answer struct {
	Version  int64         `json:"version"`
	Receipts []api.Receipt `json:"receipts"`
}

// A warm swollen calf stops every hold, sent in whatever order and by whatever
// program; nothing that the API takes gets round it but a clinician's clearance.
func TestAWarmCalfStopsEverythingThroughTheAPI(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	path, event := c.sendable(me)
	var all []map[string]any
	for _, q := range safety.Questions() {
		all = append(all, map[string]any{"question": q.ID, "answer": "no"})
	}
	point := uuid.NewString()
	trapezius, err := atlas.Get("upper-trapezius")
	require.NoError(t, err)
	where := trapezius.PressedAt("", "right")
	start, err := treat.NewStart(treat.Request{
		Protocol: "graded-stages", Muscle: "upper-trapezius", Side: "right", Where: where,
	})
	require.NoError(t, err)
	var v struct{ State visit.State }
	statuses := func(events ...any) (out []visit.HoldStatus) {
		require.Equal(t, 200, c.call("POST", path+"/events", map[string]any{"events": events}, nil).StatusCode)
		c.call("GET", path, nil, &v)
		for _, h := range v.State.Holds {
			out = append(out, h.Status)
		}
		return out
	}
	begin := func() map[string]any {
		adapted, err := start.Adapt(v.State.Screening.Limits, where)
		require.NoError(t, err)
		return event("hold-started", map[string]any{
			"hold": uuid.NewString(), "point": point, "start": adapted, "contact": "pincer",
		})
	}
	statuses(event("screening-answered", map[string]any{"answers": all}),
		event("consent-recorded", map[string]any{"area": "visit", "given": true}),
		event("point-charted", charted(t, point, "upper-trapezius", "right")))
	assert.Equal(t, []visit.HoldStatus{visit.Live}, statuses(begin()))
	yes := map[string]any{"answers": []any{map[string]any{
		"question": "calf-warm-swollen", "answer": "yes",
		"side": "left",
	}}}
	got := statuses(event("screening-answered", yes),
		event("block-overridden", map[string]any{"point": point, "reason": "It is far away from the calf."}), begin())
	assert.Equal(t, []visit.HoldStatus{visit.Live, visit.HoldRejected}, got, "the neck too, and no override lifts it")
	assert.Contains(t, v.State.Holds[1].Why, "same-day medical care")
	no := map[string]any{"answers": []any{map[string]any{
		"question": "calf-warm-swollen", "answer": "no", "corrects": "Touched by mistake.",
	}}}
	got = statuses(event("screening-answered", no), begin())
	assert.Equal(t, visit.Live, got[2], "a slip, called one at once")
	got = statuses(event("screening-answered", yes),
		event("screening-cleared", map[string]any{
			"question": "calf-warm-swollen", "by": "Dr Example",
			"on": "today",
		}), begin())
	assert.Equal(t, visit.Live, got[3], "cleared")
}

func TestFrontEndIsServed(t *testing.T) {
	c := newCaller(t, api.Options{})
	res := c.call("GET", "/clients/whatever", nil, nil)
	assert.Equal(t, 200, res.StatusCode)
	assert.Contains(t, res.Header.Get("Content-Type"), "text/html")
	assert.Contains(t, res.Header.Get("Content-Security-Policy"), "default-src 'self'")
	assert.Equal(t, 404, c.call("GET", "/assets/none.js", nil, nil).StatusCode)
	res = c.call("GET", "/assets/../../api.go", nil, nil)
	body, _ := io.ReadAll(res.Body)
	assert.NotContains(t, string(body), "package api", "nothing outside the front end is served")
}

// The front end's types are made from this description; it must be fresh.
func TestTheDescriptionIsFresh(t *testing.T) {
	want, err := os.ReadFile("../ui/openapi.json")
	require.NoError(t, err)
	got, err := api.OpenAPI()
	require.NoError(t, err)
	assert.JSONEq(t, string(want), string(got), "run `make types`")
	for _, p := range []string{
		"/api/calc/coach", "/api/calc/change", "/api/calc/palpate", "/api/session",
		"/api/visits/{id}/events",
	} {
		assert.Contains(t, string(got), fmt.Sprintf("%q", p))
	}
}

// Two tablets set the same thing without seeing each other: a clear conflict,
// not a lost update.
func TestTwoDevicesInConflict(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	path, event := c.sendable(me)
	reading := func(v float64) map[string]any {
		return map[string]any{"movement": "cervical.rotation", "side": "left", "moment": "before", "active_deg": v}
	}
	a := event("range-measured", reading(60))
	b := event("range-measured", reading(72))
	b["device"] = uuid.NewString()
	for _, e := range []map[string]any{a, b} {
		require.Equal(t, 200, c.call("POST", path+"/events", map[string]any{"events": []any{e}}, nil).StatusCode)
	}
	var v struct{ State visit.State }
	c.call("GET", path, nil, &v)
	require.Len(t, v.State.Conflicts, 1)
	assert.Len(t, v.State.Rejected, 0)
	settled := event("range-measured", reading(66))
	settled["seen"] = 2
	require.Equal(t, 200, c.call("POST", path+"/events", map[string]any{"events": []any{settled}}, nil).StatusCode)
	var after struct{ State visit.State }
	c.call("GET", path, nil, &after)
	assert.Empty(t, after.State.Conflicts)
	assert.InDelta(t, 66, *after.State.Ranges[0].Before, 0)
}

// The day is the practice's day: Vienna is ahead of UTC.
func TestTheDayIsThePracticesDay(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	id, vid := c.aClient("Late", "Hour"), uuid.NewString()
	require.Equal(t, 200, c.call("PUT", "/api/visits/"+vid,
		map[string]any{"id": vid, "client": id, "starts_at": "2040-06-30T22:30:00Z"}, nil).StatusCode)
	on := func(date string) []api.Visit {
		var day api.Day
		require.Equal(t, 200, c.call("GET", "/api/day?date="+date, nil, &day).StatusCode)
		assert.Equal(t, date, day.Date)
		return day.Items
	}
	assert.Empty(t, on("2040-06-30"))
	there := on("2040-07-01")
	require.Len(t, there, 1)
	assert.Equal(t, "2040-07-01T00:30:00+02:00", there[0].StartsAt, "by the clock on the wall")
}

// The API answers exactly as the command line does.
func TestCalcOverHTTPIsTheSameCore(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	for _, k := range calc.List() {
		want, err := calc.Run(k.Name, []byte(k.Example))
		require.NoError(t, err)
		res := c.call("POST", "/api/calc/"+k.Name, k.Example, nil)
		got, _ := io.ReadAll(res.Body)
		assert.Equal(t, 200, res.StatusCode)
		assert.Equal(t, string(want), string(got), k.Name)
	}
}

func aVisit(c *caller) string {
	var day struct{ Items []api.Visit }
	require.Equal(c.t, 200, c.call("GET", "/api/day", nil, &day).StatusCode)
	require.NotEmpty(c.t, day.Items)
	return day.Items[0].ID
}

func TestAClientsOwnDevice(t *testing.T) {
	at := time.Now()
	c := newCaller(t, api.Options{Now: func() time.Time { return at }})
	c.signIn(demo.Logins[0])
	visitID := aVisit(c)
	var link api.NewLink
	require.Equal(t, 200, c.call("POST", "/api/visits/"+visitID+"/link", nil, &link).StatusCode)

	phone := &caller{t, c.base, &http.Client{}, nil} // no session
	raw := map[string]any{}
	require.Equal(t, 200, phone.call("GET", "/api/pad/"+link.Code, nil, &raw).StatusCode)
	assert.ElementsMatch(t, []string{"practice", "height_cm", "activities", "expires_at"},
		slices.Collect(maps.Keys(raw)), "no name, nothing else of the record")
	assert.Equal(t, 401, phone.call("GET", "/api/visits/"+visitID, nil, nil).StatusCode)

	entry := uuid.NewString()
	path := "/api/pad/" + link.Code + "/drawings/" + entry
	for in, field := range map[string]string{
		`{"figure":"figure-1","strokes":[{"kind":"ache","intensity":11,"cells":[]}]}`:              "$.strokes[0].intensity",
		`{"figure":"figure-1","strokes":[{"kind":"itch","intensity":5,"cells":[]}]}`:               "$.strokes[0].kind",
		`{"figure":"figure-1","strokes":[{"kind":"ache","intensity":5,"cells":["back:900,900"]}]}`: "$.strokes[0].cells[0]",
		`{"figure":"figure-2","strokes":[{"kind":"ache","intensity":5,"cells":["back:30,0"]}]}`:    "$.strokes[0].cells[0]",
		`{"figure":"figure-3","strokes":[{"kind":"ache","intensity":5,"cells":["back:30,0"]}]}`:    "$.strokes[0].cells[0]",
		`{"figure":"figure-0","strokes":[{"kind":"ache","intensity":5,"cells":["back:-4,31"]}]}`:   "$.figure",
		`{"strokes":[]}`: "$.",
	} {
		var p problem
		assert.Equal(t, 422, phone.call("PUT", path, in, &p).StatusCode, in)
		require.NotEmpty(t, p.Errors, in)
		assert.Contains(t, p.Errors[0].Location, field)
	}
	good := `{"figure":"figure-1","strokes":[{"kind":"ache","intensity":5,"cells":["back:-4,31","back:-4,32"]}],"by":"client"}`
	for range 2 {
		require.Equal(t, 204, phone.call("PUT", path, good, nil).StatusCode)
	}
	var waiting struct{ Items []api.Submission }
	require.Equal(t, 200, c.call("GET", "/api/visits/"+visitID+"/entries", nil, &waiting).StatusCode)
	require.Len(t, waiting.Items, 1)
	assert.Len(t, waiting.Items[0].Drawing.Strokes[0].Cells, 2)
	require.Equal(t, 204, c.call("POST", "/api/visits/"+visitID+"/entries/"+entry+"/taken", nil, nil).StatusCode)
	assert.Equal(t, 409, phone.call("PUT", path, good, nil).StatusCode, "taken in already")
	waits := func() int {
		c.call("GET", "/api/visits/"+visitID+"/entries", nil, &waiting)
		return len(waiting.Items)
	}
	assert.Zero(t, waits())
	require.Equal(t, 204, c.call("DELETE", "/api/visits/"+visitID+"/entries/"+entry+"/taken", nil, nil).StatusCode)
	assert.Equal(t, 1, waits(), "brought back")
	require.Equal(t, 204, c.call("POST", "/api/visits/"+visitID+"/entries/"+entry+"/taken", nil, nil).StatusCode)

	// The story and the answers come the same way, checked by the same rules.
	pad := "/api/pad/" + link.Code
	var p problem
	require.Equal(t, 422, phone.call("PUT", pad+"/stories/"+uuid.NewString(),
		`{"complaint":"Heel","best":6,"worst":2}`, &p).StatusCode)
	assert.Equal(t, "$.best", p.Errors[0].Location)
	require.Equal(t, 422, phone.call("PUT", pad+"/answers/"+uuid.NewString(),
		`{"answers":[{"question":"shoe-size","answer":"no"}]}`, &p).StatusCode)
	assert.Contains(t, p.Errors[0].Location, "$.answers[0].question")
	story := `{"complaint":"Heel in the morning","worst":7,"activities":[{"name":"Stairs","score":4}],"loads":["running"]}`
	require.Equal(t, 204, phone.call("PUT", pad+"/stories/"+uuid.NewString(), story, nil).StatusCode)
	require.Equal(t, 204, phone.call("PUT", pad+"/answers/"+uuid.NewString(),
		`{"answers":[{"question":"fever","answer":"no"}],"by":"client"}`, nil).StatusCode)
	require.Equal(t, 200, c.call("GET", "/api/visits/"+visitID+"/entries", nil, &waiting).StatusCode)
	require.Len(t, waiting.Items, 2)
	assert.Equal(t, "Stairs", waiting.Items[0].Story.Activities[0].Name)
	assert.Equal(t, []ids.Load{"running"}, waiting.Items[0].Story.Loads)
	assert.Equal(t, "no", waiting.Items[1].Answers.Answers[0].Answer)

	assert.Equal(t, 404, phone.call("GET", "/api/pad/BBBBBBBB", nil, nil).StatusCode)
	at = at.Add(31 * time.Minute)
	assert.Equal(t, 404, phone.call("GET", "/api/pad/"+link.Code, nil, nil).StatusCode, "its time is over")
	assert.Equal(t, 404, phone.call("PUT", path, good, nil).StatusCode)
}

func TestCodesCannotBeTried(t *testing.T) {
	c := newCaller(t, api.Options{})
	for range 60 {
		require.Equal(t, 404, c.call("GET", "/api/pad/BBBBBBBB", nil, nil).StatusCode)
	}
	assert.Equal(t, 429, c.call("GET", "/api/pad/BBBBBBBB", nil, nil).StatusCode)
	assert.Equal(t, 401, c.call("GET", "/api/session", nil, nil).StatusCode, "the rest is not held up")
}

func TestOwnAtlasOverHTTP(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	var own api.OwnAtlas
	require.Equal(t, 200, c.call("PUT", "/api/atlas/soleus/note", map[string]any{"text": "Ours", "revision": 0},
		&own).StatusCode)
	require.Len(t, own.Notes, 1)
	assert.Equal(t, "Ines Calder", own.Notes[0].By)
	assert.Equal(t, 409, c.call("PUT", "/api/atlas/soleus/note", map[string]any{"text": "Late", "revision": 0},
		nil).StatusCode)
	id := uuid.NewString()
	site := map[string]any{
		"id": id, "name": "Ours",
		"place": map[string]any{"fibre": 0, "along_pct": 30, "across_mm": 2},
	}
	require.Equal(t, 200, c.call("PUT", "/api/atlas/soleus/sites/"+id, site, &own).StatusCode)
	require.Len(t, own.Sites, 1)
	spare := map[string]any{"id": uuid.NewString(), "name": "Spare", "place": site["place"]}
	at := "/api/atlas/soleus/sites/" + spare["id"].(string)
	require.Equal(t, 200, c.call("PUT", at, spare, nil).StatusCode)
	require.Equal(t, 200, c.call("DELETE", at, nil, &own).StatusCode)
	require.Len(t, own.Sites, 1)
	for name, x := range map[string]struct {
		method, path string
		body         any
		status       int
	}{
		"no such muscle": {"PUT", "/api/atlas/biceps/note", map[string]any{"text": "x", "revision": 0}, 404},
		"no such fibre": {
			"PUT", "/api/atlas/soleus/sites/" + id,
			map[string]any{
				"id": id, "name": "x",
				"place": map[string]any{"fibre": 9, "along_pct": 30, "across_mm": 2},
			},
			422,
		},
		"no name": {
			"PUT", "/api/atlas/soleus/sites/" + id,
			map[string]any{
				"id": id, "name": " ",
				"place": map[string]any{"fibre": 0, "along_pct": 30, "across_mm": 2},
			},
			422,
		},
		"off the fibre": {
			"PUT", "/api/atlas/soleus/sites/" + id,
			map[string]any{
				"id": id, "name": "x",
				"place": map[string]any{"fibre": 0, "along_pct": 130, "across_mm": 2},
			},
			422,
		},
		"gone already": {"DELETE", "/api/atlas/soleus/sites/" + uuid.NewString(), nil, 404},
	} {
		assert.Equal(t, x.status, c.call(x.method, x.path, x.body, nil).StatusCode, name)
	}
	require.Equal(t, 200, c.call("DELETE", "/api/atlas/soleus", nil, &own).StatusCode)
	assert.Empty(t, own.Notes)
	assert.Empty(t, own.Sites)
	var me api.Me
	require.Equal(t, 200, c.call("PUT", "/api/me/finger", map[string]any{"cm": 2.1}, &me).StatusCode)
	require.NotNil(t, me.FingerCM)
	assert.InDelta(t, 2.1, *me.FingerCM, 1e-9)
	assert.Equal(t, 422, c.call("PUT", "/api/me/finger", map[string]any{"cm": 9}, nil).StatusCode)
}

func TestFiguresAsFiles(t *testing.T) {
	c := newCaller(t, api.Options{})
	res := c.call("GET", "/api/figure/left/svg?layers=muscles,landmarks&only=soleus&side=left", nil, nil)
	require.Equal(t, 200, res.StatusCode)
	assert.Equal(t, "image/svg+xml", res.Header.Get("Content-Type"))
	b, _ := io.ReadAll(res.Body)
	assert.True(t, strings.HasPrefix(string(b), "<svg"))
	var l api.Lattice
	require.Equal(t, 200, c.call("GET", "/api/figure/back/lattice", nil, &l).StatusCode)
	assert.Greater(t, len(l.Cells), 1000)
	var p problem
	assert.Equal(t, 422, c.call("GET", "/api/figure/left/svg?layers=hair", nil, &p).StatusCode)
	assert.Contains(t, p.Errors[0].Location, "$.layers[0]")
	assert.Equal(t, 404, c.call("GET", "/api/figure/top/lattice", nil, nil).StatusCode)
}

func TestPhotographsThroughTheAPI(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	visitID := aVisit(c)
	put := func(body string) (*http.Response, problem) {
		var p problem
		res := c.call("PUT", "/api/visits/"+visitID+"/photos/"+uuid.NewString()+"?view=front", body, nil)
		raw, _ := io.ReadAll(res.Body)
		_ = json.Unmarshal(raw, &p)
		return res, p
	}
	for name, body := range map[string]string{"text": "this is no picture", "12 MB": strings.Repeat("x", 12<<20)} {
		res, p := put(body)
		assert.Contains(t, []int{413, 422}, res.StatusCode, name)
		assert.NotEmpty(t, p.Detail, name)
	}
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, image.NewGray(image.Rect(0, 0, 300, 500))))
	id := uuid.NewString()
	var photo api.StoredPhoto
	require.Equal(t, 200, c.call("PUT", "/api/visits/"+visitID+"/photos/"+id+"?view=front", b.String(),
		&photo).StatusCode)
	assert.Equal(t, []int{300, 500}, []int{photo.Width, photo.Height})
	assert.Equal(t, 422, c.call("PUT", "/api/visits/"+visitID+"/photos/"+id+"?view=top", b.String(), nil).StatusCode)
	res := c.call("GET", "/api/photos/"+id+"/thumb", nil, nil)
	assert.Equal(t, "image/jpeg", res.Header.Get("Content-Type"))
	assert.Contains(t, res.Header.Get("Cache-Control"), "private")
	res = c.call("GET", "/api/photos/"+id+"/image", nil, nil)
	assert.Equal(t, "image/jpeg", res.Header.Get("Content-Type"))
	var away api.StoredPhoto
	require.Equal(t, 200, c.call("POST", "/api/photos/"+id+"/remove", nil, &away).StatusCode)
	require.Equal(t, 200, c.call("POST", "/api/photos/"+id+"/restore", nil, &away).StatusCode)
	marks := `{"view":"front","plumb":[[10,10],[10,490]],"landmarks":{"acromion-left":[200,100],"acromion-right":[100,100]}}`
	require.Equal(t, 200, c.call("PUT", "/api/photos/"+id+"/marks?revision=1", marks, &photo).StatusCode)
	assert.InDelta(t, 0, photo.Measured.Angles["shoulder-height"], 1e-9)
	assert.Equal(t, 409, c.call("PUT", "/api/photos/"+id+"/marks?revision=1", marks, nil).StatusCode,
		"marked by someone else meanwhile")
	var p problem
	assert.Equal(t, 422, c.call("PUT", "/api/photos/"+id+"/marks?revision=2",
		`{"view":"front","plumb":[[10,10],[10,10]],"landmarks":{}}`, &p).StatusCode)
	assert.Contains(t, p.Errors[0].Location, "$.plumb")
	stranger := &caller{t, c.base, &http.Client{}, nil}
	assert.Equal(t, 401, stranger.call("GET", "/api/photos/"+id+"/image", nil, nil).StatusCode)
}

func TestOwnWeightsAndThresholdsOverHTTP(t *testing.T) {
	c := newCaller(t, api.Options{})
	c.signIn(demo.Logins[0])
	var w api.Weights
	require.Equal(t, 200, c.call("PUT", "/api/evidence/referral", map[string]any{"plus": 20, "minus": 0.4},
		&w).StatusCode)
	assert.InDelta(t, 20, w.Weights["referral"].Plus, 0)
	assert.Equal(t, 422, c.call("PUT", "/api/evidence/referral", map[string]any{"plus": 80, "minus": 0.4},
		nil).StatusCode, "within bounds")
	assert.Equal(t, 404, c.call("PUT", "/api/evidence/horoscope", map[string]any{"plus": 2, "minus": 0.4},
		nil).StatusCode)
	var own api.OwnThresholds
	require.Equal(t, 200, c.call("PUT", "/api/thresholds/shoulder-height", map[string]any{"value": 5}, &own).StatusCode)
	assert.Equal(t, assess.Thresholds{"shoulder-height": 5}, own.Thresholds)
	var p problem
	assert.Equal(t, 422, c.call("PUT", "/api/thresholds/shoulder-height", map[string]any{"value": 11}, &p).StatusCode)
	assert.Equal(t, "$.value", p.Errors[0].Location)
	stranger := &caller{t, c.base, &http.Client{}, nil}
	assert.Equal(t, 401, stranger.call("PUT", "/api/thresholds/shoulder-height", map[string]any{"value": 11},
		nil).StatusCode, "who it is comes before what is wrong")
	assert.Equal(t, 404, c.call("PUT", "/api/thresholds/shoe-size", map[string]any{"value": 5}, nil).StatusCode)
	var open struct{ Context visit.Context }
	require.Equal(t, 200, c.call("GET", "/api/visits/"+aVisit(c), nil, &open).StatusCode)
	assert.Equal(t, own.Thresholds, open.Context.Thresholds, "the visit is read with them")
	own = api.OwnThresholds{}
	require.Equal(t, 200, c.call("DELETE", "/api/thresholds/shoulder-height", nil, &own).StatusCode)
	assert.Empty(t, own.Thresholds)

	w = api.Weights{}
	require.Equal(t, 200, c.call("DELETE", "/api/evidence/referral", nil, &w).StatusCode)
	assert.Empty(t, w.Weights)
}
