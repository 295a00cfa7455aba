package store_test

import (
	"context"
	"database/sql"
	"encoding/json"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/store"
	"mokren/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

var ctx = context.Background()

type practice struct {
	st     *store.Store
	who    store.Principal
	client uuid.UUID
	visit  uuid.UUID
	device string
	seq    int64
}

func newPractice(t *testing.T, email string) *practice {
	t.Helper()
	p := &practice{st: storetest.Open(t), who: store.Principal{
		Practice: uuid.New(), Person: uuid.New(),
		Role: rights.Therapist,
	}, client: uuid.New(), visit: uuid.New(), device: uuid.NewString()}
	p.as(t, func(tx *store.Tx) error {
		require.NoError(t, tx.NewPractice(ctx, "Test room", "Europe/Vienna"))
		require.NoError(t, tx.NewPerson(ctx, p.who.Person, "Test Person", "therapist", email, "secret-words"))
		require.NoError(t, tx.PutClient(ctx, store.Client{ID: p.client, GivenName: "Ada", FamilyName: "Test_%name"}))
		return tx.NewVisit(ctx, store.Visit{
			ID: p.visit, ClientID: p.client, Therapist: p.who.Person,
			StartsAt: time.Now(), Minutes: 60,
		})
	})
	return p
}

// contextOf is what a visit's log is read against.
func contextOf(tx *store.Tx, id uuid.UUID) (visit.Context, error) {
	v, err := tx.Visit(ctx, id)
	if err != nil {
		return visit.Context{}, err
	}
	return tx.VisitContext(ctx, v, time.Now())
}

func (p *practice) as(t *testing.T, fn func(*store.Tx) error) {
	t.Helper()
	require.NoError(t, p.st.As(ctx, p.who, store.Action{Verb: "write", Kind: "test"}, fn))
}

func (p *practice) event(kind string, body any) visit.Event {
	b, _ := json.Marshal(body)
	p.seq++
	return visit.Event{
		ID: uuid.Must(uuid.NewV7()).String(), Client: p.client.String(), Visit: p.visit.String(),
		Author: p.who.Person.String(), Device: p.device,
		Seq: p.seq, DeviceMS: time.Now().Add(-time.Minute).UnixMilli(), Schema: 1, Type: kind, Body: b,
	}
}

func batch(events ...visit.Event) store.Batch { return store.Batch{Events: events, Now: time.Now()} }

func admin(t *testing.T) *sqlx.DB {
	t.Helper()
	raw, err := sqlx.Open("pgx", storetest.AdminURL())
	require.NoError(t, err)
	t.Cleanup(func() { raw.Close() })
	return raw
}

func (p *practice) consent(area safety.Area) visit.Event {
	return p.event("consent-recorded", visit.ConsentRecorded{Area: area, Given: true, Chaperone: "declined"})
}

func (p *practice) hold(hold, point string) visit.Event {
	m, place, view, at := onTheCalf()
	start, err := treat.NewStart(treat.Request{
		Protocol: "graded-stages", Muscle: m.ID, Side: "left", Where: m.PressedThrough(place, "left", view, at),
	})
	if err != nil {
		panic(err)
	}
	return p.event("hold-started", visit.HoldStarted{
		Hold: visit.UUID(
			hold,
		), Point: visit.UUID(point), Start: start, Contact: "thumb-over-thumb", Position: "prone",
	})
}

// screened answers every question with no; what the record knows (a first
// visit) is answered by the record.
func (p *practice) screened() visit.Event {
	var b visit.ScreeningAnswered
	for _, q := range safety.Questions() {
		b.Answers = append(b.Answers, visit.ScreenedAnswer{Question: q.ID, Answer: "no"})
	}
	return p.event("screening-answered", b)
}

// onTheCalf is the middle of the left soleus.
func onTheCalf() (m *atlas.Muscle, place atlas.FibrePlace, view body.View, at body.Point) {
	m, err := atlas.Get("soleus")
	if err != nil {
		panic(err)
	}
	place = atlas.FibrePlace{AlongPct: 50}
	view, at = m.OnFigure(place, "left", body.DefaultHeightCM)
	return m, place, view, at
}

func (p *practice) point(id string) visit.Event {
	n := 6.0
	_, place, view, at := onTheCalf()
	return p.event("point-charted", visit.PointCharted{
		Point: visit.UUID(id), Muscle: "soleus", Side: "left", Figure: body.Version, View: view, X: at.X, Y: at.Y,
		Place: place, Palpation: visit.Palpation{Band: "yes", Grade: new(2), NPRS: &n, Familiar: "yes"},
	})
}

func TestRowsOfAnotherPracticeAreOutOfReach(t *testing.T) {
	a, b := newPractice(t, "a@rls.example"), newPractice(t, "b@rls.example")
	a.as(t, func(tx *store.Tx) error {
		_, err := tx.Append(ctx, a.visit, batch(
			a.event("visit-opened", visit.VisitOpened{}),
			a.point(uuid.NewString()),
		))
		return err
	})
	b.as(t, func(tx *store.Tx) error {
		_, err := tx.Client(ctx, a.client)
		assert.ErrorIs(t, err, store.ErrNotFound)
		_, err = tx.Visit(ctx, a.visit)
		assert.ErrorIs(t, err, store.ErrNotFound)
		log, err := tx.Events(ctx, a.visit)
		assert.NoError(t, err)
		assert.Empty(t, log)
		return nil
	})
	err := b.st.As(ctx, b.who, store.Action{Verb: "write", Kind: "visit"}, func(tx *store.Tx) error {
		_, err := tx.Append(ctx, a.visit, batch(a.event("note-written", visit.NoteWritten{Text: "x"})))
		return err
	})
	assert.ErrorIs(t, err, store.ErrNotFound)

	// Beneath every query: the app role itself sees nothing without a practice,
	// writes nothing into another one, and cannot switch the policy off.
	raw, err := sqlx.Open("pgx", storetest.URL())
	require.NoError(t, err)
	defer raw.Close()
	var tables []string
	require.NoError(t, raw.Select(&tables,
		`select table_name from information_schema.columns where table_schema = 'public'
			and column_name = 'practice_id' and table_name not in ('login') order by 1`))
	assert.Contains(t, tables, "visit_event")
	for _, table := range append(tables, "practice") {
		var n int
		require.NoError(t, raw.Get(&n, `select count(*) from `+table), table)
		assert.Zero(t, n, "%s is readable without a practice", table)
	}
	_, err = raw.Exec(`insert into client (practice_id, id, given_name, family_name) values ($1, $2, 'x', 'y')`,
		a.who.Practice, uuid.New())
	assert.ErrorContains(t, err, "row-level security")
	_, err = raw.Exec(`alter table client disable row level security`)
	assert.Error(t, err)
	_, err = raw.Exec(`select * from login`)
	assert.ErrorContains(t, err, "permission denied")
	_, err = raw.Exec(`delete from visit_event`)
	assert.ErrorContains(t, err, "permission denied")
	var bypass bool
	require.NoError(t, raw.Get(&bypass, `select rolbypassrls or rolsuper from pg_roles where rolname = current_user`))
	assert.False(t, bypass)
}

// The owner is held by the policies too, and every table of health data has one.
func TestEveryTableForcesRowSecurity(t *testing.T) {
	raw, err := sqlx.Open("pgx", storetest.OwnerURL())
	require.NoError(t, err)
	defer raw.Close()
	var open []string
	require.NoError(t, raw.Select(&open,
		`select relname from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace
			and not relforcerowsecurity order by 1`))
	assert.Equal(
		t,
		[]string{
			"attempt",
			"calendar_link",
			"client_name",
			"client_word",
			"door",
			"goose_db_version",
			"known_device",
			"link",
			"login",
			"rate",
			"session",
			"ticket",
		},
		open,
		"the only tables without a practice",
	)
}

func TestSignIn(t *testing.T) {
	p := newPractice(t, "sign@in.example")
	who, err := p.st.SignIn(ctx, store.SignIn{Email: "Sign@In.example ", Password: "secret-words"})
	require.NoError(t, err)
	assert.Equal(t, p.who, who)
	for _, c := range [][2]string{{"sign@in.example", "wrong"}, {"nobody@in.example", "secret-words"}, {"", ""}} {
		_, err := p.st.SignIn(ctx, store.SignIn{Email: c[0], Password: c[1], From: "test"})
		assert.ErrorIs(t, err, store.ErrSignIn)
	}
	h, err := store.HashPassword("a")
	require.NoError(t, err)
	again, err := store.HashPassword("a")
	require.NoError(t, err)
	assert.NotEqual(t, h, again, "salted")
	assert.Contains(t, h, "$argon2id$")
}

func TestSendingTwiceStoresOnce(t *testing.T) {
	p := newPractice(t, "twice@x.example")
	id := uuid.NewString()
	sent := batch(p.event("visit-opened", visit.VisitOpened{}), p.point(id))
	var first, second store.AppendResult
	p.as(t, func(tx *store.Tx) (err error) { first, err = tx.Append(ctx, p.visit, sent); return err })
	p.as(t, func(tx *store.Tx) (err error) { second, err = tx.Append(ctx, p.visit, sent); return err })
	assert.Equal(t, first.State, second.State)
	for i := range sent.Events {
		assert.Equal(t, store.Stored, first.Receipts[i].Result)
		assert.Equal(t, store.StoredBefore, second.Receipts[i].Result)
	}
	p.as(t, func(tx *store.Tx) error {
		log, err := tx.Events(ctx, p.visit)
		require.NoError(t, err)
		require.Len(t, log, 2)
		assert.Equal(t, []int64{1, 2}, []int64{log[0].Version, log[1].Version})
		v, err := tx.Visit(ctx, p.visit)
		assert.Equal(t, int64(2), v.Version)
		assert.True(t, v.OpenedAt.Valid)
		return err
	})
	raw, err := sqlx.Open("pgx", storetest.AdminURL())
	require.NoError(t, err)
	defer raw.Close()
	var n int
	require.NoError(t, raw.Get(&n, `select count(*) from charted_point where id = $1`, id))
	assert.Equal(t, 1, n)
}

// What the log replays to is what the tables hold, whatever was claimed.
func TestTheReplayStandsNotTheClaim(t *testing.T) {
	p := newPractice(t, "aside@x.example")
	point, hold := uuid.NewString(), uuid.NewString()
	p.as(t, func(tx *store.Tx) error {
		_, err := tx.Append(ctx, p.visit, batch(
			p.screened(), p.consent("visit"), p.point(point), p.hold(hold, point),
			p.event("hold-event", visit.HoldHappened{Hold: visit.UUID(hold), AtMS: 0, Event: "contact"}),
			p.event("hold-event", visit.HoldHappened{Hold: visit.UUID(hold), AtMS: 5000, Event: "release"}),
			p.event("hold-ended", visit.HoldEnded{
				Hold: visit.UUID(hold), Outcome: "released", PressureMS: 60_000, Stages: new(3),
			}),
		))
		return err
	})
	var row struct {
		Status  string `db:"status"`
		Outcome string `db:"outcome"`
		MS      int64  `db:"pressure_ms"`
	}
	require.NoError(t, admin(t).Get(&row, `select status, outcome, pressure_ms from hold where id = $1`, hold))
	assert.Equal(t, "kept", row.Status)
	assert.Equal(t, "unchanged", row.Outcome)
	assert.Equal(t, int64(5000), row.MS)
}

func TestEveryAccessLeavesATrace(t *testing.T) {
	p := newPractice(t, "audit@x.example")
	require.NoError(t, p.st.As(ctx, p.who, store.Action{
		Verb: "read", Kind: "client", Subject: p.client.String(),
		Client: uuid.NullUUID{UUID: p.client, Valid: true},
	}, func(*store.Tx) error { return nil }))
	raw, err := sqlx.Open("pgx", storetest.AdminURL())
	require.NoError(t, err)
	defer raw.Close()
	var n int
	require.NoError(t, raw.Get(
		&n,
		`select count(*) from audit where client_id = $1 and verb = 'read' and person_id = $2`,
		p.client,
		p.who.Person,
	))
	assert.Equal(t, 1, n)
}

func TestAClientChangedMeanwhileIsNotOverwritten(t *testing.T) {
	p := newPractice(t, "stale@x.example")
	p.as(t, func(tx *store.Tx) error {
		c, err := tx.Client(ctx, p.client)
		require.NoError(t, err)
		c.Complaint, c.HeightCM = "first", sql.NullFloat64{Float64: 170, Valid: true}
		require.NoError(t, tx.PutClient(ctx, c))
		c.Complaint = "second, from an old page"
		assert.ErrorIs(t, tx.PutClient(ctx, c), store.ErrStale)
		list, err := tx.Clients(ctx, "test_%", sql.NullTime{}, false)
		require.NoError(t, err)
		require.Len(t, list, 1, "wildcards in the search text are only text")
		assert.Equal(t, "first", list[0].Complaint)
		list, err = tx.Clients(ctx, "%%zz", sql.NullTime{}, false)
		assert.Empty(t, list)
		return err
	})
}

func TestALinkOpensOneVisitForAWhile(t *testing.T) {
	p := newPractice(t, "link@x.example")
	var code string
	p.as(t, func(tx *store.Tx) (err error) {
		code, err = tx.NewLink(ctx, p.client, p.visit, "intake", time.Now().Add(time.Minute))
		return err
	})
	require.Len(t, code, 8)
	for _, written := range []string{
		code, strings.ToLower(code), code[:4] + " " + code[4:],
		code[:4] + "-" + code[4:],
	} {
		l, err := p.st.FindLink(ctx, written, time.Now())
		require.NoError(t, err, "%q", written)
		assert.Equal(t, p.visit, l.Visit)
		assert.Equal(t, p.who.Practice, l.Principal().Practice)
	}
	_, err := p.st.FindLink(ctx, code, time.Now().Add(2*time.Minute))
	assert.ErrorIs(t, err, store.ErrNotFound, "its time is over")
	_, err = p.st.FindLink(ctx, "BCDFGHJK", time.Now())
	assert.ErrorIs(t, err, store.ErrNotFound)

	raw, err := sqlx.Open("pgx", storetest.URL())
	require.NoError(t, err)
	defer raw.Close()
	_, err = raw.Exec(`select * from link`)
	assert.ErrorContains(t, err, "permission denied", "codes are reached through the functions only")
	_, err = raw.Exec(`select link_put('\x00', $1, $1, $1, $1, 'drawing', now())`, uuid.New())
	assert.ErrorContains(t, err, "own practice")
}

func TestAnEntryWaitsUntilItIsTaken(t *testing.T) {
	p := newPractice(t, "entry@x.example")
	e := store.Submission{
		ID: uuid.New(), Client: p.client, Visit: p.visit, Kind: "drawing",
		Body: []byte(`{"figure":"figure-1","strokes":[]}`),
	}
	waiting := func() (out []store.Submission) {
		p.as(t, func(tx *store.Tx) (err error) {
			out, err = tx.Submissions(ctx, p.visit)
			return err
		})
		return out
	}
	for range 2 { // handed in twice is once
		p.as(t, func(tx *store.Tx) error { return tx.PutSubmission(ctx, e, "BCDFGHJK") })
	}
	require.Len(t, waiting(), 1)
	p.as(t, func(tx *store.Tx) error { return tx.TakeSubmission(ctx, p.visit, e.ID) })
	assert.Empty(t, waiting())
	err := p.st.As(ctx, p.who, store.Action{Verb: "write", Kind: "test"},
		func(tx *store.Tx) error { return tx.PutSubmission(ctx, e, "BCDFGHJK") })
	assert.ErrorIs(t, err, store.ErrStale, "what was taken in is not changed behind the therapist's back")
}

func TestThePracticesOwnAtlas(t *testing.T) {
	a, b := newPractice(t, "atlas-a@x.example"), newPractice(t, "atlas-b@x.example")
	site := store.AtlasSite{ID: uuid.New(), Muscle: "soleus", Name: "Ours", AlongPct: 40}
	a.as(t, func(tx *store.Tx) error {
		require.NoError(t, tx.PutAtlasNote(ctx, store.AtlasNote{Muscle: "soleus", Text: "one"}))
		require.NoError(t, tx.PutAtlasNote(ctx, store.AtlasNote{Muscle: "soleus", Text: "two", Revision: 1}))
		return tx.PutAtlasSite(ctx, site)
	})
	err := a.st.As(ctx, a.who, store.Action{Verb: "write", Kind: "test"}, func(tx *store.Tx) error {
		return tx.PutAtlasNote(ctx, store.AtlasNote{Muscle: "soleus", Text: "late", Revision: 1})
	})
	assert.ErrorIs(t, err, store.ErrStale)
	see := func(p *practice) (notes []store.AtlasNote, sites []store.AtlasSite) {
		p.as(t, func(tx *store.Tx) (err error) {
			notes, err = tx.AtlasNotes(ctx)
			require.NoError(t, err)
			sites, err = tx.AtlasSites(ctx)
			return err
		})
		return notes, sites
	}
	notes, sites := see(a)
	require.Len(t, notes, 1)
	assert.Equal(t, "two", notes[0].Text)
	require.Len(t, sites, 1)
	notes, sites = see(b)
	assert.Empty(t, notes, "another practice's notes are out of reach")
	assert.Empty(t, sites)
	a.as(t, func(tx *store.Tx) error { return tx.RemoveAtlasSite(ctx, "soleus", site.ID) })
	a.as(t, func(tx *store.Tx) error { return tx.PutAtlasSite(ctx, site) }) // and back
	_, sites = see(a)
	assert.Len(t, sites, 1)
	a.as(t, func(tx *store.Tx) error { return tx.RestoreAtlas(ctx, "soleus") })
	notes, sites = see(a)
	assert.Empty(t, notes)
	assert.Empty(t, sites)
}

func TestTheDrawingIsKeptBesideTheLog(t *testing.T) {
	p := newPractice(t, "draw@x.example")
	p.as(t, func(tx *store.Tx) error {
		_, err := tx.Append(ctx, p.visit, batch(
			p.event("visit-opened", visit.VisitOpened{}),
			p.event("drawing-painted", visit.DrawingPainted{
				Figure:  body.Version,
				Strokes: []visit.Stroke{{Kind: "ache", Intensity: 4, Cells: []string{"back:-4,31", "back:-4,32"}}},
			}),
			p.event("drawing-painted", visit.DrawingPainted{
				Figure:  body.Version,
				Strokes: []visit.Stroke{{Kind: "ache", Intensity: 0, Cells: []string{"back:-4,32"}}},
			}),
		))
		return err
	})
	raw, err := sqlx.Open("pgx", storetest.AdminURL())
	require.NoError(t, err)
	defer raw.Close()
	var cells int
	require.NoError(
		t,
		raw.Get(
			&cells,
			`select jsonb_array_length(strokes->0->'cells') from pain_drawing where visit_id = $1`,
			p.visit,
		),
	)
	assert.Equal(t, 1, cells)
}

// A yes of an earlier visit blocks a later one until it is cleared; the record
// itself says whether this is the first visit.
func TestScreeningIsCarriedToLaterVisits(t *testing.T) {
	p := newPractice(t, "screen@x.example")
	later := uuid.New()
	p.as(t, func(tx *store.Tx) error {
		yes := visit.ScreeningAnswered{Answers: []visit.ScreenedAnswer{{
			Question: "calf-warm-swollen", Answer: "yes",
			Side: "left", Regions: []ids.Region{"upper-calf"},
		}}}
		_, err := tx.Append(ctx, p.visit, batch(
			p.event("visit-opened", visit.VisitOpened{}), p.screened(),
			p.event("screening-answered", yes),
		))
		require.NoError(t, err)
		return tx.NewVisit(ctx, store.Visit{
			ID: later, ClientID: p.client, Therapist: p.who.Person,
			StartsAt: time.Now().AddDate(0, 0, 7), Minutes: 60,
		})
	})
	see := func() (first, second visit.Context) {
		p.as(t, func(tx *store.Tx) (err error) {
			first, err = contextOf(tx, p.visit)
			require.NoError(t, err)
			second, err = contextOf(tx, later)
			return err
		})
		return first, second
	}
	first, second := see()
	assert.Equal(t, map[string]rights.Role{p.who.Person.String(): rights.Therapist}, second.Roles)
	firstVisit := func(c visit.Context) bool {
		return slices.ContainsFunc(visit.Reduce(c, nil).Screening.Rules, func(r safety.AppliedRule) bool {
			return r.ID == "first-visit"
		})
	}
	assert.True(t, firstVisit(first))
	assert.False(t, firstVisit(second))
	second.NowMS += 7 * 24 * 3_600_000
	s := visit.Reduce(second, nil).Screening
	assert.True(t, s.NoTreatment)
	assert.Contains(t, s.Missing, ids.Question("fever"), "asked at every visit")
	assert.NotContains(t, s.Missing, ids.Question("cancer-history"), "a week old")
	p.as(t, func(tx *store.Tx) error {
		_, err := tx.Append(ctx, p.visit, batch(p.event("screening-cleared",
			visit.ScreeningCleared{Question: "calf-warm-swollen", By: "Dr Example", On: "Monday"})))
		return err
	})
	_, second = see()
	assert.False(t, visit.Reduce(second, nil).Screening.NoTreatment)
}

// What comes in late for an earlier visit changes nothing that was accepted in a
// later one: it is a remark there. The consents are kept beside the log.
func TestLateEventsAreARemarkInLaterVisits(t *testing.T) {
	p := newPractice(t, "late@x.example")
	first := p.visit
	p.as(t, func(tx *store.Tx) error {
		_, err := tx.Append(ctx, first, batch(p.event("visit-opened", visit.VisitOpened{}), p.screened()))
		return err
	})
	p.visit = uuid.New()
	point, hold := uuid.NewString(), uuid.NewString()
	p.as(t, func(tx *store.Tx) error {
		require.NoError(t, tx.NewVisit(ctx, store.Visit{
			ID: p.visit, ClientID: p.client, Therapist: p.who.Person, StartsAt: time.Now().Add(time.Hour), Minutes: 60,
		}))
		_, err := tx.Append(ctx, p.visit, batch(
			p.event("visit-opened", visit.VisitOpened{}), p.screened(), p.consent("visit"),
			p.event("consent-recorded", visit.ConsentRecorded{
				Area: "groin", Given: true, By: "guardian",
				Chaperone: "present",
			}),
			p.event("consent-recorded", visit.ConsentRecorded{Area: "groin"}),
			p.point(point), p.hold(hold, point),
		))
		return err
	})
	second := p.visit
	raw := admin(t)
	var consents []string
	require.NoError(t, raw.Select(&consents,
		`select area || ' ' || given || ' ' || given_by from consent where visit_id = $1 order by area`, second))
	assert.Equal(t, []string{"groin false client", "visit true client"}, consents, "the latest word")
	seen := func() visit.Hold {
		var s visit.State
		p.as(t, func(tx *store.Tx) error {
			log, err := tx.Events(ctx, second)
			require.NoError(t, err)
			vc, err := contextOf(tx, second)
			s = visit.Reduce(vc, log)
			return err
		})
		require.Len(t, s.Holds, 1)
		return s.Holds[0]
	}
	assert.Equal(t, visit.Live, seen().Status, seen().Why)
	assert.Empty(t, seen().Remarks)
	p.visit = first
	p.as(t, func(tx *store.Tx) error {
		late := p.event("screening-answered", visit.ScreeningAnswered{
			Answers: []visit.ScreenedAnswer{{Question: "weight-loss", Answer: "yes"}},
		})
		late.Device, late.DeviceMS = uuid.NewString(), late.DeviceMS-60_000
		_, err := tx.Append(ctx, first, batch(late))
		return err
	})
	assert.Equal(t, visit.Live, seen().Status, "accepted stays accepted")
	require.Len(t, seen().Remarks, 1)
	assert.Contains(t, seen().Remarks[0], "Learned after it began")
}

func TestClientsAreFoundWithTypingErrorsAndByBirthDate(t *testing.T) {
	p := newPractice(t, "find@x.example")
	born := sql.NullTime{Time: time.Date(1979, 3, 4, 0, 0, 0, 0, time.UTC), Valid: true}
	mina := store.Client{
		ID: uuid.New(), GivenName: "Wilhelmina", FamilyName: "Asperen", BornOn: born, Hand: "left",
		Phone: "0100", Emergency: "Brother, 0200", Guardian: "",
	}
	p.as(t, func(tx *store.Tx) error { return tx.PutClient(ctx, mina) })
	find := func(text string, day sql.NullTime, archived bool) (names []string) {
		p.as(t, func(tx *store.Tx) error {
			list, err := tx.Clients(ctx, text, day, archived)
			for _, c := range list {
				names = append(names, c.FamilyName)
			}
			return err
		})
		return names
	}
	for _, text := range []string{"Wilhelmina", "wilhemina", "Aspern", "asperen wil"} {
		assert.Contains(t, find(text, sql.NullTime{}, false), "Asperen", text)
	}
	assert.Empty(t, find("Xavier", sql.NullTime{}, false))
	assert.Equal(t, []string{"Asperen"}, find("", born, false))
	var alike []store.Client
	p.as(t, func(tx *store.Tx) (err error) {
		alike, err = tx.Alike(
			ctx,
			store.Client{ID: uuid.New(), GivenName: "Mina", FamilyName: "Asperen", BornOn: born},
		)
		return err
	})
	require.Len(t, alike, 1)
	assert.Equal(t, "left", alike[0].Hand)
	p.as(t, func(tx *store.Tx) error { return tx.ArchiveClient(ctx, mina.ID, true) })
	assert.Empty(t, find("Asperen", sql.NullTime{}, false))
	assert.Equal(t, []string{"Asperen"}, find("Asperen", sql.NullTime{}, true))
	p.as(t, func(tx *store.Tx) error { return tx.ArchiveClient(ctx, mina.ID, false) })
	assert.Equal(t, []string{"Asperen"}, find("Asperen", sql.NullTime{}, false))
}
