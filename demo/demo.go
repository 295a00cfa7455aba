package demo

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"
	"time"

	"github.com/google/uuid"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/safety"
	"mokren/core/visit"
	"mokren/store"
)

// Login is one way into the demo practice.
type Login struct{ Name, Email, Password string }

// Logins are printed when the demo starts: the owner, a therapist, a student, the
// front desk, and the other students of the class.
var Logins = []Login{
	{"Ines Calder", "ines@alder-room.example", "quiet-hands-7"},
	{"Tomas Vey", "tomas@alder-room.example", "warm-oil-12"},
	{"Lio Marek", "lio@alder-room.example", "first-steps-3"},
	{"Mara Quist", "mara@alder-room.example", "front-door-8"},
	{"Nuri Adan", "nuri@alder-room.example", "slow-breath-4"},
	{"Sanna Brook", "sanna@alder-room.example", "even-thumbs-9"},
	{"Pavel Oriel", "pavel@alder-room.example", "new-towels-6"},
}

var (
	practice = uuid.MustParse("0190a000-0000-7000-8000-000000000001")
	ines     = uuid.MustParse("0190a000-0000-7000-8000-000000000011")
	tomas    = uuid.MustParse("0190a000-0000-7000-8000-000000000012")
	lio      = uuid.MustParse("0190a000-0000-7000-8000-000000000013")
	mara     = uuid.MustParse("0190a000-0000-7000-8000-000000000014")
	nuri     = uuid.MustParse("0190a000-0000-7000-8000-000000000015")
	sanna    = uuid.MustParse("0190a000-0000-7000-8000-000000000016")
	pavel    = uuid.MustParse("0190a000-0000-7000-8000-000000000017")
)

const zone = "Europe/Vienna"

// Fill makes the demo practice unless it is there, and sees to it that today
// has appointments.
func Fill(ctx context.Context, st *store.Store, now time.Time) error {
	loc, err := time.LoadLocation(zone)
	if err != nil {
		return err
	}
	now = now.In(loc)
	who := store.Principal{Practice: practice, Person: ines, Role: rights.Owner}
	as := func(fn func(*store.Tx) error) error {
		return st.As(ctx, who, store.Action{Verb: "write", Kind: "demo"}, fn)
	}
	err = as(func(tx *store.Tx) error {
		_, err := tx.Person(ctx, ines)
		if !errors.Is(err, store.ErrNotFound) {
			return errors.Join(err, staff(ctx, tx, now)) // an older demo had fewer
		}
		if err := tx.NewPractice(ctx, "The Alder Room", zone); err != nil {
			return err
		}
		if err := staff(ctx, tx, now); err != nil {
			return err
		}
		for i, c := range people {
			if err := c.fill(ctx, tx, i, now); err != nil {
				return fmt.Errorf("demo client %s: %w", c.family, err)
			}
		}
		return ahead(ctx, tx, now)
	})
	if err != nil {
		return err
	}
	if err := as(func(tx *store.Tx) error { return today(ctx, tx, now) }); err != nil {
		return err
	}
	return practised(ctx, st, now)
}

// staff makes who is missing of the people.
func staff(ctx context.Context, tx *store.Tx, now time.Time) error {
	until := func(days int) sql.NullTime { return sql.NullTime{Time: now.AddDate(0, 0, days), Valid: true} }
	ofTomas := uuid.NullUUID{UUID: tomas, Valid: true}
	for _, p := range []struct {
		store.Person
		login Login
	}{
		{store.Person{ID: ines, Role: rights.Owner, Licence: "State 20417", LicenceUntil: until(500)}, Logins[0]},
		{store.Person{ID: tomas, Role: rights.Therapist, Licence: "State 31180", LicenceUntil: until(40)}, Logins[1]},
		{store.Person{ID: lio, Role: rights.Student, Supervisor: ofTomas}, Logins[2]},
		{store.Person{ID: mara, Role: rights.FrontDesk}, Logins[3]},
		{store.Person{ID: nuri, Role: rights.Student, Supervisor: ofTomas}, Logins[4]},
		{store.Person{ID: sanna, Role: rights.Student, Supervisor: ofTomas}, Logins[5]},
		{store.Person{ID: pavel, Role: rights.Student, Supervisor: ofTomas}, Logins[6]},
	} {
		_, err := tx.Person(ctx, p.ID)
		if errors.Is(err, store.ErrNotFound) {
			p.Name = p.login.Name
			err = tx.NewPerson(ctx, p.ID, p.Name, p.Role, p.login.Email, p.login.Password)
			if err == nil {
				err = tx.PutPerson(ctx, p.Person)
			}
			// The student is new here and is offered the trial visit; the others know their way.
			if err == nil && p.Role != rights.Student {
				err = tx.SetIntroduced(ctx, p.ID)
			}
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// today books the day's list when it is not there yet; what was booked ahead has a
// room.
func today(ctx context.Context, tx *store.Tx, now time.Time) error {
	from := time.Date(now.Year(), now.Month(), now.Day(), 0, 0, 0, 0, now.Location())
	list, err := tx.VisitsBetween(ctx, from, from.AddDate(0, 0, 1))
	if err != nil || slices.ContainsFunc(list, func(v store.Visit) bool { return !v.Series.Valid && v.Room == "" }) {
		return err
	}
	booked := func(client uuid.UUID) bool {
		return slices.ContainsFunc(list, func(v store.Visit) bool { return v.ClientID == client })
	}
	for i, c := range people {
		if c.today == "" || booked(clientID(i)) {
			continue
		}
		at, err := time.ParseInLocation("2006-01-02 15:04", from.Format(time.DateOnly)+" "+c.today, now.Location())
		if err != nil {
			return err
		}
		v := store.Visit{
			ID:        id(),
			ClientID:  clientID(i),
			Therapist: c.by,
			StartsAt:  at,
			Minutes:   60,
			Reason:    c.reason,
		}
		if err := tx.NewVisit(ctx, v); err != nil {
			return err
		}
	}
	return nil
}

func clientID(i int) uuid.UUID {
	return uuid.MustParse(fmt.Sprintf("0190a000-0000-7000-8000-0000000001%02x", i))
}

func id() uuid.UUID { return uuid.Must(uuid.NewV7()) }

// person is an invented client and how this body answers treatment.
type person struct {
	given, family string
	age           int
	height        float64
	work          string
	complaint     string
	kind          string            // of pain; empty is an ache
	yes           []ids.Question    // of the screening
	activity      string            // that the client wants back
	told          visit.ClientStory // the rest of the story
	phone         string
	emergency     string
	guardian      string // of a minor
	hand          string // dominant
	cautions      []string
	by            uuid.UUID
	today         string // time of today's appointment
	reason        string
	weeksAgo      []float64 // visits
	spots         []spot
	ranges        []motion
}

// spot is a point with its number at each visit, before treatment.
type spot struct {
	muscle   ids.Muscle
	side     ids.Side
	site     string
	numbers  []float64 // one per visit; 0 means not found that day
	release  float64   // points per 10 s that a hold brings
	familiar string
	referral []ids.Region
	note     string
}

// motion is a movement measured at each visit, before treatment, with the gain
// that a visit brings.
type motion struct {
	movement ids.Movement
	side     ids.Side
	degrees  []float64
	gain     float64
}

// scribe writes events as one device would.
type scribe struct {
	visit, client, author, device uuid.UUID
	seq                           int64
	now                           time.Time
	events                        []visit.Event
}

func (s *scribe) write(kind string, body any) {
	b, err := json.Marshal(body)
	if err != nil {
		panic(err) // our own types
	}
	s.seq++
	s.events = append(s.events, visit.Event{
		ID: id().String(), Client: s.client.String(), Visit: s.visit.String(),
		Author: s.author.String(), Device: s.device.String(),
		Seq: s.seq, DeviceMS: s.now.UnixMilli(), Schema: visit.SchemaVersion, Type: kind, Body: b,
	})
}

func (s *scribe) wait(d time.Duration) { s.now = s.now.Add(d) }

// batch is what was written, sent when the last of it was.
func (s *scribe) batch() store.Batch {
	return store.Batch{Events: s.events, Now: s.now, SentMS: s.now.UnixMilli()}
}

func (p person) fill(ctx context.Context, tx *store.Tx, i int, now time.Time) error {
	cid := clientID(i)
	born := time.Date(now.Year()-p.age, time.Month(i%12+1), 3+2*i%25, 0, 0, 0, 0, time.UTC)
	if err := tx.PutClient(ctx, store.Client{
		ID: cid, GivenName: p.given, FamilyName: p.family,
		BornOn:   sql.NullTime{Time: born, Valid: true},
		HeightCM: sql.NullFloat64{Float64: p.height, Valid: true}, Work: p.work, Complaint: p.complaint,
		Phone: p.phone, Emergency: p.emergency, Guardian: p.guardian, Hand: p.hand,
		Cautions: append([]string{}, p.cautions...),
	}); err != nil {
		return err
	}
	rnd := rand.New(rand.NewPCG(uint64(i), 7))
	identities := make([]uuid.UUID, len(p.spots))
	for n, weeks := range p.weeksAgo {
		day := now.AddDate(0, 0, -int(weeks*7))
		at := time.Date(day.Year(), day.Month(), day.Day(), 9+i%7, 0, 0, 0, now.Location())
		v := store.Visit{ID: id(), ClientID: cid, Therapist: p.by, StartsAt: at, Minutes: 60, Reason: p.reason}
		if err := tx.NewVisit(ctx, v); err != nil {
			return err
		}
		s := &scribe{visit: v.ID, client: cid, author: p.by, device: id(), now: at}
		s.write("visit-opened", visit.VisitOpened{Reason: p.reason})
		p.tell(s, n)
		limits := p.screen(s, n)
		p.consent(s, n)
		p.draw(s, n)
		p.measure(s, n, "before")
		for k, sp := range p.spots {
			if n >= len(sp.numbers) || sp.numbers[n] == 0 {
				continue
			}
			s.wait(2 * time.Minute)
			if err := sp.treat(s, rnd, n, &identities[k], p.height, limits); err != nil {
				return err
			}
		}
		p.measure(s, n, "after")
		s.wait(5 * time.Minute)
		s.write("visit-closed", visit.VisitClosed{})
		done, err := tx.Append(ctx, v.ID, s.batch())
		if err != nil {
			return err
		}
		if now.Sub(at) > signedAfter {
			if err := p.sign(ctx, tx, s, done.State); err != nil {
				return err
			}
		}
		if err := p.photographed(ctx, tx, v, i, n); err != nil {
			return err
		}
	}
	return nil
}

// photographed: one client was, at the first and the latest visit.
func (p person) photographed(ctx context.Context, tx *store.Tx, v store.Visit, i, n int) error {
	last := len(p.weeksAgo) - 1
	if i != 0 || n != 0 && n != last {
		return nil
	}
	l := lean{shoulders: 7, roll: 2}
	if n == last {
		l = lean{shoulders: 2.5, roll: -1.5}
	}
	for _, view := range []body.View{body.Front, body.Back} {
		if err := photo(ctx, tx, v, view, l, p.height); err != nil {
			return err
		}
	}
	return nil
}

// tell notes the story: numbers that follow the first point's, and an activity
// that comes back as they fall.
func (p person) tell(s *scribe, n int) {
	if len(p.spots) == 0 || n >= len(p.spots[0].numbers) {
		return
	}
	worst := p.spots[0].numbers[n]
	now, best := max(0, worst-2), max(0, worst-4)
	i := p.told.InterviewNoted
	i.Complaint, i.Now, i.Worst, i.Best = p.complaint, &now, &worst, &best
	if p.activity != "" {
		i.Activities = []visit.Activity{{Name: p.activity, Score: int(max(0, 10-worst))}}
	}
	s.wait(2 * time.Minute)
	s.write("interview-noted", i)
	if len(p.told.Loads) > 0 {
		s.write("loads-declared", visit.LoadsDeclared{Loads: p.told.Loads})
	}
}

// screen answers every question: no, but for what is known of this client. It
// gives the limits that follow.
func (p person) screen(s *scribe, n int) safety.Adaptation {
	var b visit.ScreeningAnswered
	answers := []safety.Answer{}
	for _, q := range safety.Questions() {
		a := "no"
		if slices.Contains(p.yes, q.ID) || q.ID == "first-visit" && n == 0 {
			a = "yes"
		}
		b.Answers = append(b.Answers, visit.ScreenedAnswer{Question: q.ID, Answer: a})
		answers = append(answers, safety.Answer{Question: q.ID, Answer: a})
	}
	s.wait(3 * time.Minute)
	s.write("screening-answered", b)
	return safety.Screen(answers).Limits
}

// consent is asked for the visit, and for each sensitive area that is worked on.
func (p person) consent(s *scribe, n int) {
	s.wait(30 * time.Second)
	by := "client"
	if p.age < 18 {
		by = "guardian"
	}
	s.write("consent-recorded", visit.ConsentRecorded{Area: safety.WholeVisit, Given: true, By: by})
	asked := map[safety.Area]bool{}
	for _, sp := range p.spots {
		if n >= len(sp.numbers) || sp.numbers[n] == 0 {
			continue
		}
		m, err := atlas.Get(sp.muscle)
		if err != nil {
			panic(err) // the demo's own muscles
		}
		site, _ := m.Site(sp.site)
		place := site.Place(p.height)
		view, at := m.OnFigure(place, sp.side, p.height)
		for _, a := range safety.SensitiveAreas(sp.muscle, m.PressedThrough(place, sp.side, view, at)) {
			if !asked[a] {
				asked[a] = true
				s.write("consent-recorded", visit.ConsentRecorded{Area: a, Given: true, By: by, Chaperone: "declined"})
			}
		}
	}
}

// draw paints where it hurts: the referred zones, as strong as the number and
// shrinking toward their middle as it falls.
func (p person) draw(s *scribe, n int) {
	var strokes []visit.Stroke
	for _, sp := range p.spots {
		if n >= len(sp.numbers) || sp.numbers[n] == 0 {
			continue
		}
		for _, r := range sp.referral {
			cells := middle(r, sp.side, sp.numbers[n]/8)
			if len(cells) > 0 {
				strokes = append(strokes, visit.Stroke{Kind: p.pain(), Intensity: int(sp.numbers[n]), Cells: cells})
			}
		}
	}
	if len(strokes) > 0 {
		s.wait(time.Minute)
		s.write("drawing-painted", visit.DrawingPainted{Figure: body.Version, Strokes: strokes, By: "client"})
	}
}

func (p person) pain() string {
	if p.kind == "" {
		return "ache"
	}
	return p.kind
}

// middle gives a share of a region's cells, those nearest its middle, in the
// view that shows most of it.
func middle(r ids.Region, side ids.Side, share float64) []string {
	var best []body.Cell
	for _, v := range body.Views {
		var cells []body.Cell
		for _, c := range body.Cells(v) {
			if c.Region == r && (c.Side == side || c.Side == ids.Midline) {
				cells = append(cells, c.Cell)
			}
		}
		if len(cells) > len(best) {
			best = cells
		}
	}
	if len(best) == 0 {
		return nil
	}
	set := body.CellSet{}
	for _, c := range best {
		set[c] = true
	}
	at, _ := set.Centre(best[0].View)
	slices.SortStableFunc(best, func(a, b body.Cell) int {
		return cmp.Compare(a.Center().Distance(at),
			b.Center().Distance(at))
	})
	var out []string
	for _, c := range best[:max(1, int(float64(len(best))*min(1, share)))] {
		out = append(out, c.String())
	}
	return out
}

func (p person) measure(s *scribe, n int, moment string) {
	for _, m := range p.ranges {
		if n >= len(m.degrees) {
			continue
		}
		s.wait(20 * time.Second)
		deg := m.degrees[n]
		if moment == "after" {
			deg += m.gain
		}
		tool := "inclinometer"
		if m.movement == "jaw.opening" { // a distance between the teeth
			tool = "ruler"
		}
		s.write("range-measured", visit.RangeMeasured{
			Movement: m.movement, Side: m.side, Moment: moment, Active: &deg, Tool: tool,
		})
	}
}

func (sp spot) treat(s *scribe, rnd *rand.Rand, n int, identity *uuid.UUID, height float64,
	limits safety.Adaptation,
) error {
	m, err := atlas.Get(sp.muscle)
	if err != nil {
		return err
	}
	site, _ := m.Site(sp.site)
	place := site.Place(height)
	view, at := m.OnFigure(place, sp.side, height)
	number := sp.numbers[n]
	pid := id()
	if *identity == uuid.Nil {
		*identity = pid
	}
	s.write("point-charted", visit.PointCharted{
		Point: visit.UUID(pid.String()), Identity: visit.UUID(identity.String()),
		Muscle: sp.muscle, Side: sp.side, Site: sp.site,
		Figure: body.Version, View: view, X: at.X, Y: at.Y, Place: place, Palpation: sp.felt(number),
	})
	s.wait(30 * time.Second)
	after := press(s, rnd, hand{pid, m, m.PressedThrough(place, sp.side, view, at)}, sp, n, number, limits)
	s.wait(90 * time.Second)
	s.write("point-rechecked", visit.PointRechecked{Point: visit.UUID(pid.String()), NPRS: after})
	return nil
}

// felt is what hand and client say of a spot at a number.
func (sp spot) felt(number float64) visit.Palpation {
	out := visit.Palpation{
		Band: "yes", Grade: new(gradeFor(number)), NPRS: &number, Referral: sp.referral, Familiar: sp.familiar,
		NoReferral: len(sp.referral) == 0, Asked: "openly", Note: sp.note,
	}
	switch {
	case number >= 7:
		out.Twitch, out.Nodule = new(true), "pea"
	case number >= 5:
		out.Nodule = "grain"
	}
	return out
}

func gradeFor(number float64) int {
	switch {
	case number >= 8:
		return 3
	case number >= 5:
		return 2
	case number >= 2:
		return 1
	}
	return 0
}
