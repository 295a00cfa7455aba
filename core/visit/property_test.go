package visit_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
)

// server is the record as it would be: it judges what arrives and keeps it.
type server struct {
	law    visit.Rules
	ctx    visit.Context
	now    int64
	stored []visit.Event
	// going is the same record, read once and gone on with.
	going *visit.Ongoing
}

func (s *server) receive(batch ...visit.Event) {
	a := visit.Arrival{NowMS: s.now}
	j := s.law.Validator(s.ctx)
	for _, e := range s.stored {
		j.Replay(e)
	}
	going := s.ongoing()
	for _, e := range a.Receive(visit.HeardIn(s.stored), batch) {
		e.Version = int64(len(s.stored) + 1)
		s.stored = append(s.stored, j.Admit(e))
		going.Admit(e)
	}
}

// ongoing goes on with what was read, as long as nothing around it has changed.
func (s *server) ongoing() *visit.Ongoing {
	if s.going == nil || !s.going.At(s.ctx) {
		s.going = s.law.Ongoing(s.ctx, s.stored)
	}
	return s.going
}

// random plays a visit: any events of three devices, early and late, honest and
// not, while people, rules, figure and ceilings change.
type random struct {
	t      *rapid.T
	s      *server
	seq    map[string]int64
	n      int
	points []int
	of     map[int]ids.Muscle // each point's
	holds  []int
	later  []visit.Event // written and not sent yet
}

var (
	lowCeilings = func(ids.Muscle, []safety.Place) (safety.Limits, string) {
		return safety.Limits{Target: 2, Soft: 2, Hard: 3, CapMS: 20_000}, "everywhere"
	}
	muscles = []ids.Muscle{"soleus", "infraspinatus", "suboccipitals", "upper-trapezius"}
)

func (r *random) event() visit.Event {
	t := r.t
	r.n++
	device := rapid.SampledFrom([]string{"a", "b", "pad"}).Draw(t, "device")
	r.seq[device]++
	kind, body := r.body()
	raw, err := json.Marshal(body)
	require.NoError(t, err)
	skew := rapid.SampledFrom([]int64{0, 0, 0, -5_000, 7_000, -90_000_000, 4_000_000_000_000}).Draw(t, "skew")
	return visit.Event{
		ID:     uid(10_000 + r.n),
		Client: uid(900),
		Visit:  uid(901),
		Device: device,
		Seq:    r.seq[device],
		Author: rapid.SampledFrom([]string{therapist, therapist, therapist, colleague, student, desk}).
			Draw(t, "author"),
		DeviceMS: max(0, r.s.now+skew),
		Schema:   1,
		Type:     kind,
		Body:     raw,
		Seen:     rapid.Int64Range(0, int64(len(r.s.stored))).Draw(t, "seen"),
	}
}

func (r *random) body() (string, any) {
	t := r.t
	muscle := rapid.SampledFrom(muscles).Draw(t, "muscle")
	point := func() int { return anyOf(t, r.points) }
	hold := func() int { return anyOf(t, r.holds) }
	switch rapid.IntRange(0, 13).Draw(t, "kind") {
	case 0, 1:
		r.points = append(r.points, 20_000+r.n)
		r.of[20_000+r.n] = muscle
		return "point-charted", charted(20_000+r.n, muscle)
	case 2, 3:
		r.holds = append(r.holds, 30_000+r.n)
		p := point()
		if right, ok := r.of[p]; ok && rapid.IntRange(0, 5).Draw(t, "right muscle") > 0 {
			muscle = right
		}
		h := started(30_000+r.n, p, muscle)
		h.Under = visit.UUID(rapid.SampledFrom([]string{"", therapist}).Draw(t, "under"))
		return "hold-started", h
	case 4, 5, 6:
		kind := rapid.SampledFrom([]string{
			"contact",
			"score",
			"score",
			"release",
			"nerve-sign",
			"pulse",
			"unwell",
			"skin-reaction",
			"client-stop",
			"undo",
		}).Draw(t, "happened")
		at := rapid.SampledFrom([]int64{0, 1000, 5000, 30_000, 80_000_000}).Draw(t, "at")
		if kind == "score" {
			return "hold-event", happened(hold(), at, kind, rapid.IntRange(0, 10).Draw(t, "score"))
		}
		return "hold-event", happened(hold(), at, kind, nil)
	case 7:
		return "hold-ended", visit.HoldEnded{
			Hold:       visit.UUID(uid(hold())),
			Outcome:    "released",
			PressureMS: 1,
			Stages:     new(1),
		}
	case 8:
		return "consent-recorded", visit.ConsentRecorded{
			Area:  "visit",
			Given: rapid.IntRange(0, 4).Draw(t, "given") > 0,
		}
	case 9:
		q := rapid.SampledFrom([]ids.Question{"fever", "open-skin", "anticoagulant"}).Draw(t, "question")
		return "screening-answered", visit.ScreeningAnswered{
			By: rapid.SampledFrom([]string{"", "client"}).Draw(t, "by"),
			Answers: []visit.ScreenedAnswer{{
				Question: q, Answer: rapid.SampledFrom([]string{"no", "no", "yes"}).Draw(t, "answer"),
				Side: ids.Left, Regions: []ids.Region{"upper-calf"},
			}},
		}
	case 10:
		return "screening-cleared", visit.ScreeningCleared{Question: "fever", By: "Dr Example", On: "today"}
	case 11:
		if len(r.s.stored) == 0 {
			return "note-written", visit.NoteWritten{}
		}
		i := rapid.IntRange(0, len(r.s.stored)-1).Draw(t, "undo")
		return "event-undone", visit.EventUndone{Event: visit.UUID(r.s.stored[i].ID)}
	case 12:
		c := charted(point(), muscle)
		return "point-moved", visit.PointMoved{
			Point:  c.Point,
			Figure: c.Figure,
			View:   c.View,
			X:      c.X,
			Y:      c.Y,
			Place:  c.Place,
		}
	}
	if rapid.IntRange(0, 9).Draw(t, "close") == 0 {
		return "visit-closed", visit.VisitClosed{}
	}
	return "note-written", visit.NoteWritten{Text: fmt.Sprint(r.n)}
}

func anyOf(t *rapid.T, list []int) int {
	if len(list) == 0 {
		return 1
	}
	return rapid.SampledFrom(list).Draw(t, "which")
}

// change lets something of the world be otherwise from here on.
func (r *random) change() {
	r.s.going = nil // other rules read the log anew
	s := r.s
	switch rapid.IntRange(0, 5).Draw(r.t, "change") {
	case 0:
		s.law.Coach = rapid.SampledFrom([]string{treat.RulesVersion, "2099-01"}).Draw(r.t, "rules")
	case 1:
		s.law.Figure = rapid.SampledFrom([]string{"figure-1", "figure-2"}).Draw(r.t, "figure")
	case 2:
		s.law.Site = lowCeilings
	case 3:
		s.law = visit.Today()
	case 4:
		role := rapid.SampledFrom(rights.Roles).Draw(r.t, "role")
		roles := map[string]rights.Role{}
		for k, v := range s.ctx.Roles {
			roles[k] = v
		}
		roles[therapist] = role
		s.ctx.Roles = roles
	case 5:
		s.ctx.Born = []string{"2020-01-01"}
	}
}

// Nothing accepted is lost, nothing refused becomes accepted, and no hold is
// accepted at a place that was closed, whatever happens afterwards.
func TestAcceptedStaysAccepted(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := &server{law: visit.Today(), ctx: asked(), now: 1_800_000_000_000}
		r := &random{t: t, s: s, seq: map[string]int64{}, of: map[int]ids.Muscle{20_000: "soleus"}}
		// Begin where holds are possible, so that most of them are.
		for _, b := range []any{visit.ConsentRecorded{Area: "visit", Given: true}, charted(20_000, "soleus")} {
			raw, err := json.Marshal(b)
			require.NoError(t, err)
			kind := map[bool]string{true: "consent-recorded", false: "point-charted"}[r.n == 0]
			r.n++
			r.seq["a"]++
			s.receive(visit.Event{
				ID: uid(10_000 + r.n), Client: uid(900), Visit: uid(901), Device: "a", Seq: r.seq["a"],
				Author: therapist, DeviceMS: s.now, Schema: 1, Type: kind, Body: raw,
			})
		}
		r.points = []int{20_000}
		verdicts := map[string]visit.HoldStatus{}
		for range rapid.IntRange(5, 40).Draw(t, "steps") {
			s.now += rapid.Int64Range(0, 60_000).Draw(t, "passes")
			switch e := r.event(); rapid.IntRange(0, 9).Draw(t, "when") {
			case 0:
				r.change()
				r.later = append(r.later, e)
			case 1, 2:
				r.later = append(r.later, e)
			case 3:
				s.receive(append(r.later, e)...)
				r.later = nil
			default:
				s.receive(e)
			}
			check(t, s, verdicts)
		}
		s.receive(r.later...)
		check(t, s, verdicts)
		for range 3 {
			r.change()
			check(t, s, verdicts)
		}
	})
}

// check replays the record as it stands and compares with what every hold was
// said to be when it arrived.
func check(t *rapid.T, s *server, verdicts map[string]visit.HoldStatus) {
	state := s.law.Reduce(s.ctx, s.stored)
	// What was gone on with is what the whole comes to.
	require.JSONEq(t, inJSON(t, state), inJSON(t, s.ongoing().State()))
	require.JSONEq(t, inJSON(t, s.stored), inJSON(t, s.ongoing().Log()))
	shown := map[string]visit.Hold{}
	for _, h := range state.Holds {
		shown[string(h.ID)] = h
	}
	for _, e := range s.stored {
		if e.Type != "hold-started" {
			continue
		}
		b, err := e.Decode()
		require.NoError(t, err)
		h, there := shown[string(b.(*visit.HoldStarted).Hold)]
		require.True(t, there, "a hold is gone: %s", e.Why)
		require.Equal(t, e.Verdict == visit.Rejected, h.Status == visit.HoldRejected, "%s: %s", e.ID, h.Why)
		status := visit.Accepted
		if h.Status == visit.HoldRejected {
			status = visit.Rejected
		}
		if was, ok := verdicts[e.ID]; ok {
			require.Equal(t, was, visit.HoldStatus(status), "a verdict changed")
		}
		verdicts[e.ID] = visit.HoldStatus(status)
		if h.Status == visit.HoldRejected {
			continue
		}
		_, found := pointOf(state, h.Point)
		require.True(t, found, "an accepted hold without its point")
	}
	for _, e := range s.stored {
		require.NotEmpty(t, e.Verdict)
	}
}

func inJSON(t require.TestingT, v any) string {
	raw, err := json.Marshal(v)
	require.NoError(t, err)
	return string(raw)
}

func pointOf(s visit.State, id visit.UUID) (visit.Point, bool) {
	for _, p := range s.Points {
		if p.Point == id {
			return p, true
		}
	}
	return visit.Point{}, false
}

// Whatever was pressed before, no hold that begins after a closing sign at its
// site is accepted.
func TestNoHoldAfterAClosingSign(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := pressedAt("soleus")
		closed := false
		nerves, pulses := 0, 0
		for i := range rapid.IntRange(1, 12).Draw(t, "n") {
			kind := rapid.SampledFrom([]string{
				"score", "nerve-sign", "pulse", "unwell", "skin-reaction",
				"client-stop", "release", "contact",
			}).
				Draw(t, "kind")
			switch kind {
			case "nerve-sign":
				nerves++
			case "pulse":
				pulses++
			case "unwell", "skin-reaction":
				closed = true
			}
			var value any
			if kind == "score" {
				value = 5
			}
			l.add(
				rapid.SampledFrom([]string{"a", "b"}).Draw(t, "device"),
				"hold-event",
				0,
				happened(600, int64(100*i), kind, value),
			)
		}
		closed = closed || nerves >= 2 || pulses >= 3
		l.add("a", "hold-started", 0, started(601, 500, "soleus"))
		s := visit.Reduce(asked(), l.events)
		require.Equal(t, closed, holdOf(s, 601).Status == visit.HoldRejected, holdOf(s, 601).Why)
		require.Equal(t, closed, s.Points[0].Closed != "")
	})
}
