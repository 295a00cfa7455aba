package api_test

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/demo"
	"mokren/store"
	"mokren/store/storetest"
)

// statements counts what is sent to PostgreSQL.
type statements struct {
	n atomic.Int64
	// kept are those since keep was set, with what was handed to them.
	keep atomic.Bool
	mu   sync.Mutex
	kept []pgx.TraceQueryStartData
	// done is told when one has its answer, when it is set.
	done func(sql string)
	last string
}

func (s *statements) TraceQueryStart(ctx context.Context, _ *pgx.Conn, d pgx.TraceQueryStartData) context.Context {
	s.n.Add(1)
	if s.done != nil {
		s.last = d.SQL
	}
	if s.keep.Load() {
		s.mu.Lock()
		s.kept = append(s.kept, d)
		s.mu.Unlock()
	}
	return ctx
}

func (s *statements) TraceQueryEnd(context.Context, *pgx.Conn, pgx.TraceQueryEndData) {
	if s.done != nil {
		s.done(s.last)
	}
}

// longCare is a practice with two clients, one with few earlier visits and one
// with hundreds.
type longCare struct {
	*caller
	sent  *statements
	st    *store.Store
	h     http.Handler
	who   store.Principal
	seq   int64
	spots []visit.PointCharted // where points are found again and again
	// points of a visit, and holds at each.
	points, holds int
}

const few, many = 3, 300

func newLongCare(t *testing.T) *longCare {
	t.Helper()
	return newLongCareIn(t, storetest.URL())
}

// newLongCareIn is a practice of its own in a database.
func newLongCareIn(t *testing.T, database string) *longCare {
	t.Helper()
	c := &longCare{sent: &statements{}, points: 2, holds: 1}
	cfg, err := pgx.ParseConfig(database)
	require.NoError(t, err)
	cfg.Tracer = c.sent
	c.st, err = store.Open(stdlib.RegisterConnConfig(cfg))
	require.NoError(t, err)
	t.Cleanup(func() { c.st.Close() })
	c.h, err = api.New(c.st, api.Options{SignInsPerMinute: 1000})
	require.NoError(t, err)
	srv := httptest.NewServer(c.h)
	t.Cleanup(srv.Close)
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	// Those who write side by side keep their connections, as browsers do.
	kept := &http.Transport{MaxIdleConnsPerHost: 64}
	t.Cleanup(kept.CloseIdleConnections)
	c.caller = &caller{t, srv.URL, &http.Client{Jar: jar, Transport: kept}, nil}
	c.who = store.Principal{Practice: uuid.New(), Person: uuid.New(), Role: rights.Therapist}
	login := demo.Login{Email: uuid.NewString() + "@long.example", Password: "quiet-hands-7"}
	c.as(func(tx *store.Tx) error {
		require.NoError(t, tx.NewPractice(t.Context(), "Long care", "Europe/Vienna"))
		return tx.NewPerson(t.Context(), c.who.Person, "One Person", "therapist", login.Email, login.Password)
	})
	c.signIn(login)
	for _, m := range []ids.Muscle{"soleus", "gastrocnemius-medial", "gastrocnemius-lateral"} {
		c.spots = append(c.spots, charted(t, uuid.NewString(), m, "left"), charted(t, uuid.NewString(), m, "right"))
	}
	return c
}

func (c *longCare) as(fn func(*store.Tx) error) {
	c.t.Helper()
	require.NoError(c.t, c.st.As(c.t.Context(), c.who, store.Action{Verb: "write", Kind: "test"}, fn))
}

// client has so many earlier visits, a week apart, and one today.
func (c *longCare) client(visits int) (client, today uuid.UUID) {
	client = uuid.New()
	c.as(func(tx *store.Tx) error {
		return tx.PutClient(c.t.Context(), store.Client{ID: client, GivenName: "Ada", FamilyName: "Long"})
	})
	rnd := rand.New(rand.NewPCG(7, 7))
	for i := range visits {
		c.visit(client, time.Now().AddDate(0, 0, -7*(visits-i)), i == 0, rnd)
	}
	return client, c.visit(client, time.Now().Add(-time.Minute), false, rnd)
}

// visit is one of care as it usually is: asked (everything at the first), agreed,
// measured, two points pressed and asked again.
func (c *longCare) visit(client uuid.UUID, at time.Time, first bool, rnd *rand.Rand) uuid.UUID {
	id, device := uuid.New(), uuid.NewString()
	event := func(kind string, body any) visit.Event {
		raw, err := json.Marshal(body)
		require.NoError(c.t, err)
		c.seq++
		return visit.Event{
			ID: uuid.Must(uuid.NewV7()).String(), Client: client.String(), Visit: id.String(),
			Author: c.who.Person.String(), Device: device, Seq: c.seq, DeviceMS: at.UnixMilli() + c.seq, Schema: 1,
			Type: kind, Body: raw,
		}
	}
	var asked visit.ScreeningAnswered
	for _, q := range safety.Questions() {
		if first || q.EachVisit || rnd.IntN(12) == 0 {
			asked.Answers = append(asked.Answers, visit.ScreenedAnswer{Question: q.ID, Answer: "no"})
		}
	}
	bend := float64(20 + rnd.IntN(15))
	events := []visit.Event{
		event("visit-opened", visit.VisitOpened{}),
		event("screening-answered", asked),
		event("consent-recorded", visit.ConsentRecorded{Area: "visit", Given: true}),
		event("range-measured", visit.RangeMeasured{
			Movement: "ankle.dorsiflexion-knee-bent", Side: "left", Moment: "before", Active: &bend,
		}),
	}
	for range c.points {
		p := c.spots[rnd.IntN(len(c.spots))]
		p.Identity, p.Point = p.Point, visit.UUID(uuid.NewString())
		n := float64(rnd.IntN(8))
		p.NPRS = &n
		events = append(events, event("point-charted", p))
		for range c.holds {
			events = append(events, c.press(event, p)...)
		}
		events = append(events, event("point-rechecked", visit.PointRechecked{Point: p.Point, NPRS: n / 2}))
	}
	c.as(func(tx *store.Tx) error {
		require.NoError(c.t, tx.NewVisit(c.t.Context(), store.Visit{
			ID: id, ClientID: client, Therapist: c.who.Person, StartsAt: at, Minutes: 60,
		}))
		_, err := tx.Append(c.t.Context(), id, store.Batch{Events: events, Now: at.Add(time.Hour)})
		return err
	})
	return id
}

func (c *longCare) press(event func(string, any) visit.Event, p visit.PointCharted) []visit.Event {
	start, err := treat.NewStart(treat.Request{
		Protocol: "graded-stages", Muscle: p.Muscle, Side: p.Side, Where: firstSite(c.t, p.Muscle),
	})
	require.NoError(c.t, err)
	hold := visit.UUID(uuid.NewString())
	out := []visit.Event{event("hold-started", visit.HoldStarted{
		Hold: hold, Point: p.Point, Start: start, Contact: "thumb-over-thumb", Position: "prone",
	})}
	for _, h := range []visit.HoldHappened{
		{AtMS: 0, Event: "contact"},
		{AtMS: 3000, Event: "score", Value: json.RawMessage(`5`)},
		{AtMS: 15000, Event: "score", Value: json.RawMessage(`2`)},
		{AtMS: 16000, Event: "release"},
	} {
		h.Hold = hold
		out = append(out, event("hold-event", h))
	}
	return append(out, event("hold-ended", visit.HoldEnded{
		Hold: hold, Outcome: "released", PressureMS: 16000, Stages: new(1),
	}))
}

// analyze does at once what PostgreSQL does by itself after a while.
func (c *longCare) analyze() {
	db := adminDB(c.t)
	defer db.Close() // the bench of 32 writers needs the places
	_, err := db.Exec(`analyze`)
	require.NoError(c.t, err)
}

// get reads an address and tells how many statements that took.
func (c *longCare) get(path string) (body []byte, sent int64) {
	c.t.Helper()
	before := c.sent.n.Load()
	res := c.call("GET", path, nil, nil)
	require.Equal(c.t, 200, res.StatusCode)
	raw, err := io.ReadAll(res.Body)
	require.NoError(c.t, err)
	return raw, c.sent.n.Load() - before
}

// Opening a visit, and a client's course, take as many statements for three
// earlier visits as for three hundred.
func TestStatementsDoNotGrowWithTheHistory(t *testing.T) {
	c := newLongCare(t)
	few, fewVisit := c.client(few)
	long, longVisit := c.client(30)
	for name, paths := range map[string][2]string{
		"opening": {"/api/visits/" + fewVisit.String(), "/api/visits/" + longVisit.String()},
		"course":  {"/api/clients/" + few.String(), "/api/clients/" + long.String()},
	} {
		c.get(paths[0]) // the first reads more: types of the connection, and the safety record
		c.get(paths[1])
		_, one := c.get(paths[0])
		_, other := c.get(paths[1])
		assert.Equal(t, one, other, name)
		assert.Positive(t, one, name)
		t.Logf("%s: %d statements", name, one)
	}
}

// What the tables say of a client is what a replay of every visit says.
// over is a spot as it was found last, with what earlier visits say of it.
func over(before visit.FoundPoint, s visit.State, p visit.Point) visit.FoundPoint {
	now := p.FoundPoint
	now.FirstMS = cmp.Or(before.FirstMS, p.ChartedMS)
	worked, treated := s.LetGo(p.Point)
	now.Worked, now.TreatedMS = cmp.Or(ids.Protocol(worked), before.Worked), max(before.TreatedMS, treated)
	now.Answers = before.Answers
	if a := p.Answer(p.ChartedMS); a != nil {
		now.Answers = append(now.Answers, *a)
	}
	now.Own = visit.OwnMap(now.Answers)
	return now
}

func TestTheTablesSayWhatTheLogsSay(t *testing.T) {
	c := newLongCare(t)
	client, today := c.client(5)
	var course api.Course
	raw, _ := c.get("/api/clients/" + client.String())
	require.NoError(t, json.Unmarshal(raw, &course))
	var open api.OpenVisit
	raw, _ = c.get("/api/visits/" + today.String())
	require.NoError(t, json.Unmarshal(raw, &open))
	zone, err := time.LoadLocation("Europe/Vienna")
	require.NoError(t, err)
	var dated []visit.VisitContribution
	seen := map[visit.UUID]visit.FoundPoint{}
	c.as(func(tx *store.Tx) error {
		visits, err := tx.VisitsOf(t.Context(), client)
		require.NoError(t, err)
		for _, v := range visits {
			vc, err := tx.VisitContext(t.Context(), v, time.Now())
			require.NoError(t, err)
			log, err := tx.Events(t.Context(), v.ID)
			require.NoError(t, err)
			s := visit.Reduce(vc, log)
			require.Len(t, s.Holds, 2)
			dated = append(dated, visit.VisitContribution{
				Visit: v.ID.String(), Day: float64(v.StartsAt.Unix()) / 86400,
				Date: v.StartsAt.In(zone).Format(time.DateOnly), Points: s.Treated(), Ranges: s.Ranges,
			})
			if v.ID != today {
				for _, p := range s.Points {
					seen[p.Identity] = over(seen[p.Identity], s, p)
				}
			}
		}
		return nil
	})
	assert.Equal(t, visit.Course(dated, 0), course.History)
	require.Len(t, open.Earlier, len(seen))
	for _, p := range open.Earlier {
		assert.Equal(t, seen[p.Identity], p, "each spot as it was found last")
	}
	assert.Equal(t, dated[len(dated)-2].Ranges, open.Ranges, "those of the visit before")
}

// TestBenchHistory measures by turns, so that both see the same machine.
func TestBenchHistory(t *testing.T) {
	if os.Getenv("MOKREN_BENCH") == "" {
		t.Skip("make bench runs it")
	}
	c := newLongCare(t)
	short, shortVisit := c.client(few)
	long, longVisit := c.client(many)
	c.analyze()
	for _, k := range []struct{ name, few, many string }{
		{"opening a visit", "/api/visits/" + shortVisit.String(), "/api/visits/" + longVisit.String()},
		{"a client's course", "/api/clients/" + short.String(), "/api/clients/" + long.String()},
	} {
		var times [2]time.Duration
		const rounds = 60
		for i := range rounds + 10 {
			for j, path := range []string{k.few, k.many} {
				began := time.Now()
				c.read(path)
				if i >= 10 {
					times[j] += time.Since(began)
				}
			}
		}
		a, b := times[0]/rounds, times[1]/rounds
		fmt.Printf("%-20s %3d earlier visits %.2f ms, %d: %.2f ms, ratio %.2f (limit 1.5)\n", k.name, few,
			a.Seconds()*1000, many, b.Seconds()*1000, b.Seconds()/a.Seconds())
	}
}
