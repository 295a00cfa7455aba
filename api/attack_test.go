package api_test

import (
	"context"
	"encoding/json"
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
	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/demo"
	"mokren/devices/clientpad"
	"mokren/exchange"
)

// The attacks of the second audit, by their numbers.

// life is a client whose visits are booked for any day.
type life struct {
	*caller
	me     api.Me
	client string
	seq    map[string]int
}

func (c *caller) life(me api.Me) *life {
	return &life{c, me, c.aClient("Attacked", "Client"), map[string]int{}}
}

// visit books one so many days from today, and charts a point.
func (l *life) visit(days int) (path, point string) {
	l.t.Helper()
	id := uuid.NewString()
	require.Equal(l.t, 200, l.call("PUT", "/api/visits/"+id, map[string]any{
		"id": id, "client": l.client, "starts_at": time.Now().AddDate(0, 0, days).Format(time.RFC3339),
	}, nil).StatusCode)
	path, point = "/api/visits/"+id, uuid.NewString()
	l.say(path, "visit-opened", visit.VisitOpened{})
	l.say(path, "point-charted", charted(l.t, point, "soleus", ids.Left))
	return path, point
}

func (l *life) say(path, kind string, body any) api.Receipt {
	l.t.Helper()
	return l.sayBy(l.caller, l.me, path, kind, body)
}

func (l *life) sayBy(by *caller, me api.Me, path, kind string, body any) api.Receipt {
	l.t.Helper()
	device := uuid.NewSHA1(uuid.MustParse(l.client), []byte(me.ID)).String()
	l.seq[device]++
	now := time.Now().UnixMilli()
	var got api.EventAnswer
	res := by.call("POST", path+"/events", map[string]any{"sent_ms": now, "events": []any{map[string]any{
		"id": uuid.NewString(), "client": l.client, "visit": strings.TrimPrefix(path, "/api/visits/"), "author": me.ID,
		"device": device, "seq": l.seq[device], "device_ms": now, "seen": 0, "schema": 1, "type": kind, "body": body,
	}}}, &got)
	require.Equal(l.t, 200, res.StatusCode)
	return got.Receipts[0]
}

// ready answers everything no and gives every consent, a guardian's.
func (l *life) ready(path string) {
	l.t.Helper()
	var all visit.ScreeningAnswered
	for _, q := range safety.Questions() {
		all.Answers = append(all.Answers, visit.ScreenedAnswer{Question: q.ID, Answer: "no"})
	}
	require.Equal(l.t, "stored", l.say(path, "screening-answered", all).Result)
	l.say(path, "consent-recorded", visit.ConsentRecorded{Area: safety.WholeVisit, Given: true, By: "client"})
}

// hold tries one, with limits low enough for a first visit.
func (l *life) hold(path, point string) api.Receipt {
	l.t.Helper()
	return l.say(path, "hold-started", lowHold(l.t, point))
}

func TestAttack1TheAppointmentDecidesNothing(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	for _, days := range [][2]int{{0, 1800}, {0, -30}, {30, 0}, {0, 0}} {
		l := c.life(me)
		first, _ := l.visit(days[0])
		l.ready(first)
		l.say(first, "screening-answered", visit.ScreeningAnswered{Answers: []visit.ScreenedAnswer{
			{Question: "clot-breathless", Answer: "yes"},
		}})
		second, point := l.visit(days[1])
		l.ready(second)
		assert.Contains(t, l.hold(second, point).Reason, "Possible clot", days)
		l.say(first, "screening-cleared", visit.ScreeningCleared{
			Question: "clot-breathless", By: "Dr Orr", On: "today",
		})
		require.Equal(t, "stored", l.hold(second, point).Result, days)
		// A newer yes is lifted by no older clearance, however its visit is dated.
		l.say(second, "screening-answered", visit.ScreeningAnswered{Answers: []visit.ScreenedAnswer{
			{Question: "clot-breathless", Answer: "yes"},
		}})
		third, point := l.visit(days[0] - 5)
		l.ready(third)
		assert.Contains(t, l.hold(third, point).Reason, "Possible clot", days)
	}
	// Fourteen years old, in a visit that is booked for 2031.
	l := c.life(me)
	born := time.Now().AddDate(-14, 0, 0).Format(time.DateOnly)
	require.Equal(t, 200, c.call("PUT", "/api/clients/"+l.client, map[string]any{
		"id": l.client, "given_name": "Young", "family_name": "Client", "revision": 1, "born_on": born,
	}, nil).StatusCode)
	path, point := l.visit(1800)
	l.ready(path)
	assert.Contains(t, l.hold(path, point).Reason, "under age")
	// A visit that is dated 85 days back asks what each visit asks.
	l = c.life(me)
	before, _ := l.visit(-86)
	l.ready(before)
	path, point = l.visit(-85)
	l.say(path, "consent-recorded", visit.ConsentRecorded{Area: safety.WholeVisit, Given: true})
	assert.Contains(t, l.hold(path, point).Reason, "not complete")
}

func TestAttack9AStudentPressesUnderAMemberOfToday(t *testing.T) {
	c, _ := ownPractice(t, api.Options{})
	therapist, whom := c.joined("Ilo Brandt", rights.Therapist)
	student, pupil := c.joined("Ann Lund", rights.Student)
	var me api.Me
	c.call("GET", "/api/session", nil, &me)
	l := c.life(me)
	path, point := l.visit(0)
	l.ready(path)
	try := func() api.Receipt {
		h := lowHold(t, point)
		h.Under = visit.UUID(whom.ID)
		return l.sayBy(student, pupil, path, "hold-started", h)
	}
	require.Equal(t, "stored", try().Result)
	to := map[string]string{"to": me.ID}
	require.Equal(t, 200, c.call("POST", "/api/people/"+whom.ID+"/leave", to, nil).StatusCode)
	assert.Contains(t, try().Reason, "names the therapist")
	assert.Equal(t, 401, therapist.call("GET", "/api/session", nil, nil).StatusCode)
}

func TestAttack11ABirthDateChangesWhenALicensedPersonConfirmsIt(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	desk := c.as(demo.Logins[3])
	l := c.life(me)
	revision := 1
	put := func(by *caller, born string, confirmed bool) (out api.Client) {
		require.Equal(t, 200, by.call("PUT", "/api/clients/"+l.client, map[string]any{
			"id": l.client, "given_name": "Young", "family_name": "Client", "revision": revision, "born_on": born,
			"born_confirmed": confirmed,
		}, &out).StatusCode)
		revision++
		return out
	}
	put(c, "2013-03-03", false)
	path, point := l.visit(0)
	l.ready(path)
	require.Contains(t, l.hold(path, point).Reason, "under age")
	assert.Equal(t, "2013-03-03", put(desk, "1980-03-03", true).BornWas, "the front desk confirms nothing")
	assert.Contains(t, l.hold(path, point).Reason, "under age")
	put(desk, "1981-03-03", false)
	assert.Contains(t, l.hold(path, point).Reason, "under age", "a second change forgets nothing")
	assert.Equal(t, "2013-03-03", put(c, "1981-03-03", false).BornWas, "another field was changed")
	assert.Empty(t, put(c, "1981-03-03", true).BornWas)
	assert.Equal(t, "stored", l.hold(path, point).Result)
}

func TestAttack16AWithdrawalFromASlowTabletCounts(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	l := c.life(me)
	path, point := l.visit(0)
	l.ready(path)
	late := time.Now().Add(-time.Hour).UnixMilli()
	e := map[string]any{
		"id": uuid.NewString(), "client": l.client, "visit": strings.TrimPrefix(path, "/api/visits/"), "author": me.ID,
		"device": uuid.NewString(), "seq": 1, "device_ms": late, "seen": 0, "schema": 1, "type": "consent-recorded",
		"body": visit.ConsentRecorded{Area: safety.WholeVisit},
	}
	require.Equal(t, 200, c.send(path, e).StatusCode) // and does not say what its clock shows
	assert.Contains(t, l.hold(path, point).Reason, "No consent")
}

func TestHoldsInCancelledVisitsAndOfArchivedClientsAreRefused(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	l := c.life(me)
	path, point := l.visit(0)
	l.ready(path)
	require.Less(t, c.call("POST", "/api/clients/"+l.client+"/archive", nil, nil).StatusCode, 300)
	assert.Contains(t, l.hold(path, point).Reason, "archived")
	require.Less(t, c.call("POST", "/api/clients/"+l.client+"/restore", nil, nil).StatusCode, 300)
	assert.Equal(t, "stored", l.hold(path, point).Result)
}

func TestAttack6AStrangerClosesNobodysSignIn(t *testing.T) {
	c, login := ownPractice(t, api.Options{})
	wrong := func(email string) (last int) {
		for range 11 {
			last = signInStatus(c, email, "wrong-words-here", "")
		}
		return last
	}
	assert.Equal(t, 429, wrong(login.Email))
	assert.Equal(t, 429, wrong(newEmail()), "no answer tells whether a name exists")
	assert.Equal(t, 429, signInStatus(c, login.Email, login.Password, ""), "from there, not for a while")
	body := map[string]string{"email": login.Email, "password": login.Password}
	assert.Equal(t, 200, c.call("POST", "/api/session", body, nil).StatusCode, "a device that has signed in before")
	body["password"] = "wrong-words-here"
	last := 0
	for range 11 {
		last = c.call("POST", "/api/session", body, nil).StatusCode
	}
	assert.Equal(t, 429, last, "it guesses no more than others")
	email := newEmail()
	id, path := c.invite("Ilo Brandt", rights.Therapist, email)
	require.Equal(t, 200, c.again().join(path, "slow-green-hills").StatusCode)
	assert.Equal(t, 429, wrong(email))
	var link api.OneTimeLink
	require.Equal(t, 200, c.call("POST", "/api/people/"+id+"/reset", nil, &link).StatusCode)
	require.Equal(t, 200, c.again().join("/api"+link.Path, "slow-blue-hills").StatusCode)
	assert.Equal(t, 200, signInStatus(c, email, "slow-blue-hills", ""), "a link always works")
}

func TestAttack7WhoLeavesHearsNothingMore(t *testing.T) {
	c, _ := ownPractice(t, api.Options{})
	var me api.Me
	c.call("GET", "/api/session", nil, &me)
	gone, whom := c.joined("Ilo Brandt", rights.Therapist)
	l := gone.life(whom)
	path, _ := l.visit(0)
	var calendar api.CalendarSettings
	on := map[string]any{"on": true, "names": true}
	require.Equal(t, 200, gone.call("PUT", "/api/calendar", on, &calendar).StatusCode)
	require.Equal(t, 200, c.again().call("GET", calendar.Path, nil, nil).StatusCode)
	var code api.NewLink
	require.Equal(t, 200, gone.call("POST", path+"/hand", nil, &code).StatusCode)
	ctx, cancel := context.WithTimeout(t.Context(), time.Minute)
	defer cancel()
	wire, _, err := websocket.Dial(ctx, "ws"+strings.TrimPrefix(c.base, "http")+path+"/wire",
		&websocket.DialOptions{HTTPClient: gone.http})
	require.NoError(t, err)
	defer wire.CloseNow() //nolint:errcheck // the end either way
	pad := clientpad.New(c.base, code.Code)
	go pad.Run(ctx)

	to := map[string]string{"to": me.ID}
	require.Equal(t, 200, c.call("POST", "/api/people/"+whom.ID+"/leave", to, nil).StatusCode)
	res := c.again().call("GET", calendar.Path, nil, nil)
	assert.Equal(t, 404, res.StatusCode)
	assert.Equal(t, "no-store", res.Header.Get("Cache-Control"))
	assert.Equal(t, 404, c.again().call("GET", "/api/hand/"+code.Code, nil, nil).StatusCode)
	for { // what was under way when they left may still come; then the wire is over
		var h api.Heard
		if err = wsjson.Read(ctx, wire, &h); err != nil {
			break
		}
		assert.Empty(t, h.Events)
	}
	assert.NoError(t, ctx.Err(), "the wire ends by itself")
}

func TestAttack15APadSaysFewWordsASecond(t *testing.T) {
	c := newCaller(t, api.Options{})
	path, event, begin := aHold(t, c, c.signIn(demo.Logins[0]))
	c.send(path, event("hold-started", begin))
	var link api.NewLink
	c.call("POST", path+"/hand", nil, &link)
	ctx, cancel := context.WithTimeout(t.Context(), time.Minute)
	defer cancel()
	wire, _, err := websocket.Dial(ctx, "ws"+strings.TrimPrefix(c.base, "http")+"/api/hand/"+link.Code+"/wire", nil)
	require.NoError(t, err)
	defer wire.CloseNow() //nolint:errcheck // the end either way
	from, taken := time.Now(), 0
	for range 60 {
		require.NoError(t, wsjson.Write(ctx, wire, map[string]any{"id": uuid.NewString(), "kind": "score", "value": 5}))
		var answer struct{ ID, Refused string }
		require.NoError(t, wsjson.Read(ctx, wire, &answer))
		require.Empty(t, answer.Refused)
		if answer.ID != "" {
			taken++
		}
	}
	seconds := int(time.Since(from).Seconds()) + 2
	assert.LessOrEqual(t, taken, 5*seconds)
	assert.Positive(t, taken)
}

// firstSite is where a muscle's first usual site is pressed, on the left.
func firstSite(t *testing.T, id ids.Muscle) []safety.Place {
	t.Helper()
	m, err := atlas.Get(id)
	require.NoError(t, err)
	return m.PressedAt("", ids.Left)
}

// lowHold is a hold at a soleus that a first visit and a client under age allow.
func lowHold(t *testing.T, point string) visit.HoldStarted {
	t.Helper()
	where := firstSite(t, "soleus")
	start, err := treat.NewStart(treat.Request{
		Protocol: "graded-stages", Muscle: "soleus", Side: ids.Left, Where: where,
	})
	require.NoError(t, err)
	start, err = start.Adapt(safety.Adaptation{Down: 1}, where)
	require.NoError(t, err)
	return visit.HoldStarted{
		Hold: visit.UUID(uuid.NewString()), Point: visit.UUID(point), Start: start, Contact: "thumb-pad",
		Position: "prone", MuscleSet: "slack",
	}
}

// An archive signs for nobody who works here.
func TestAttack10AnArchiveSignsForNoColleague(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	colleague := c.again().signIn(demo.Logins[1])
	client, id, device := uuid.NewString(), uuid.NewString(), uuid.NewString()
	event := func(seq int, author, kind string, body any) visit.Event {
		raw, err := json.Marshal(body)
		require.NoError(t, err)
		return visit.Event{
			ID: uuid.NewString(), Client: client, Visit: id, Author: author, Device: device, Seq: int64(seq),
			Version: int64(seq), DeviceMS: time.Now().UnixMilli(), Schema: 1, Type: kind, Body: raw,
			Verdict: visit.Accepted,
		}
	}
	a := exchange.Archive{
		Format: "mokren-archive", Version: 1,
		People: []exchange.ArchivePerson{
			{ID: visit.UUID(me.ID), Name: "Ines Calder", Role: "owner"},
			{ID: visit.UUID(colleague.ID), Name: "Tomas Vey", Role: "therapist"},
		},
		Clients: []exchange.ArchiveClient{{ID: visit.UUID(client), GivenName: "Taken", FamilyName: "In", Revision: 1}},
		Visits: []exchange.ArchiveVisit{{
			ID: visit.UUID(id), Client: visit.UUID(client), Therapist: visit.UUID(me.ID),
			StartsAt: time.Now().UTC().Format(time.RFC3339), Minutes: 60,
			Events: []visit.Event{
				event(1, colleague.ID, "visit-closed", visit.VisitClosed{}),
				event(2, colleague.ID, "note-signed", visit.NoteSigned{Name: "Tomas Vey"}),
			},
		}},
	}
	p := c.takeIn("archive", "signed.json", must(exchange.WriteArchive(a)), true)
	require.Empty(t, p.Problems)
	assert.Equal(t, 1, p.Counts.Aside)
	var open api.OpenVisit
	require.Equal(t, 200, c.call("GET", "/api/visits/"+id, nil, &open).StatusCode)
	assert.Nil(t, open.State.Signed)
	assert.NotZero(t, open.State.ClosedMS)
}

// What went wrong is written for a closed visit too, and printed; not by the front desk.
func TestAnIncidentIsRecordedAndPrinted(t *testing.T) {
	c := newCaller(t, api.Options{})
	me := c.signIn(demo.Logins[0])
	l := c.life(me)
	path, _ := l.visit(0)
	assert.Equal(t, 404, c.call("GET", path+"/print/incident", nil, nil).StatusCode)
	l.say(path, "visit-closed", visit.VisitClosed{})
	fall := visit.Incident{Happened: "A fall from the table.", Done: "Looked after, ice.", Told: "The owner, at noon."}
	require.Equal(t, "stored", l.say(path, "incident-recorded", fall).Result)
	assert.Contains(t, l.say(path, "incident-recorded", visit.Incident{Happened: "x", Done: "y"}).Reason, "told")
	assert.Equal(t, 403, c.as(demo.Logins[3]).send(path, map[string]any{"id": "x"}).StatusCode)
	raw := c.file(path + "/print/incident")
	assert.Equal(t, "%PDF", string(raw[:4]))
	var open api.OpenVisit
	c.call("GET", path, nil, &open)
	require.Len(t, open.State.Incidents, 1)
	assert.Equal(t, fall, open.State.Incidents[0].Incident)
}

// The Lows of the second attack's last row that the door answers for.
func TestAttack19GuessesWithinASessionAreCounted(t *testing.T) {
	c, l := ownPractice(t, api.Options{})
	off := func(password string) int {
		return c.call("POST", "/api/me/second-factor/off", map[string]string{"password": password}, nil).StatusCode
	}
	for range 9 {
		require.Equal(t, 422, off("wrong-words-here"))
	}
	// Other doors count with it: ten in all, wherever the password is asked for again.
	change := map[string]string{"now": "wrong-words-here", "new": "quite-other-words"}
	require.Equal(t, 422, c.call("PUT", "/api/me/password", change, nil).StatusCode)
	assert.Equal(t, 429, off(l.Password), "the right one too, for a quarter of an hour")
	assert.Equal(t, 200, signInStatus(c, l.Email, l.Password, ""), "the front door counts for itself")
}

func TestAttack19AForeignTherapistIsNamed(t *testing.T) {
	c, _ := ownPractice(t, api.Options{})
	other, _ := ownPractice(t, api.Options{})
	var stranger api.Me
	other.call("GET", "/api/session", nil, &stranger)
	var p problem
	booking := map[string]any{
		"id": uuid.NewString(), "client": c.aClient("Ana", "Book"), "therapist": stranger.ID,
		"date": "2027-03-01", "time": "10:00", "minutes": 60,
	}
	res := c.call("POST", "/api/bookings", booking, &p)
	require.Equal(t, 422, res.StatusCode)
	require.NotEmpty(t, p.Errors)
	assert.Equal(t, "body.therapist", p.Errors[0].Location)
}

func TestAttack19AnIntakeCodeEndsTheOneBefore(t *testing.T) {
	c := newCaller(t, api.Options{})
	path, _ := c.sendable(c.signIn(demo.Logins[0]))
	var first, second api.NewLink
	require.Equal(t, 200, c.call("POST", path+"/link", nil, &first).StatusCode)
	pad := func(l api.NewLink) int { return c.again().call("GET", "/api/pad/"+l.Code, nil, nil).StatusCode }
	require.Equal(t, 200, pad(first))
	require.Equal(t, 200, c.call("POST", path+"/link", nil, &second).StatusCode)
	assert.Equal(t, 404, pad(first))
	assert.Equal(t, 200, pad(second))
}

func TestAttack19AWireLooksAtTheScheme(t *testing.T) {
	c := newCaller(t, api.Options{})
	path, _ := c.sendable(c.signIn(demo.Logins[0]))
	host := strings.TrimPrefix(c.base, "http://")
	for origin, want := range map[string]int{"https://" + host: 403, "http://" + host: 101, "http://elsewhere": 403} {
		_, res, _ := websocket.Dial(t.Context(), "ws://"+host+path+"/wire", &websocket.DialOptions{
			HTTPClient: c.http, HTTPHeader: http.Header{"Origin": {origin}},
		})
		require.NotNil(t, res, origin)
		assert.Equal(t, want, res.StatusCode, origin)
	}
}

// Signing out ends a wire at once, not with its next ping.
func TestAttack7SigningOutEndsAWire(t *testing.T) {
	c := newCaller(t, api.Options{})
	path, _ := c.sendable(c.signIn(demo.Logins[0]))
	ctx, cancel := context.WithTimeout(t.Context(), 15*time.Second) // well before a ping
	defer cancel()
	wire, _, err := websocket.Dial(ctx, "ws"+strings.TrimPrefix(c.base, "http")+path+"/wire",
		&websocket.DialOptions{HTTPClient: c.http})
	require.NoError(t, err)
	defer wire.CloseNow() //nolint:errcheck // the end either way
	require.Less(t, c.call("DELETE", "/api/session", nil, nil).StatusCode, 300)
	var h api.Heard
	require.Error(t, wsjson.Read(ctx, wire, &h))
	assert.NoError(t, ctx.Err(), "the wire ends by itself")
}
