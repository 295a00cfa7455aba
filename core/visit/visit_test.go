package visit_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/assess"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
)

func TestOrderOfArrivalDoesNotMatter(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var l log
		l.add("a", "point-charted", 0, charted(500, "soleus"))
		l.add("a", "hold-started", 0, started(600, 500, "soleus"))
		l.add("a", "hold-event", 0, happened(600, 0, "contact", nil))
		l.add("b", "hold-event", 0, happened(600, 3000, "score", 6))
		l.add("a", "hold-event", 0, happened(600, 9000, "score", 5))
		l.add("a", "point-rechecked", 0, visit.PointRechecked{Point: visit.UUID(uid(500)), NPRS: 3})
		l.add("b", "note-written", 0, visit.NoteWritten{Text: "x"})
		want := visit.Reduce(asked(), l.events)
		mixed := append([]visit.Event{}, l.events...)
		mixed = append(mixed, l.events[2], l.events[0]) // sent twice
		r := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 1))
		r.Shuffle(len(mixed), func(i, j int) { mixed[i], mixed[j] = mixed[j], mixed[i] })
		assert.Equal(t, want, visit.Reduce(asked(), mixed))
	})
}

func TestLateValuesOfThePadAreSortedIn(t *testing.T) {
	var l log
	l.agree("a")
	l.add("a", "point-charted", 0, charted(500, "soleus"))
	l.add("a", "hold-started", 0, started(600, 500, "soleus"))
	l.add("a", "hold-event", 0, happened(600, 0, "contact", nil))
	l.add("a", "hold-event", 0, happened(600, 30_000, "release", nil))
	l.add("pad", "hold-event", 0, happened(600, 3_000, "score", 6))
	s := visit.Reduce(asked(), l.events)
	require.Len(t, s.Holds, 1)
	assert.Equal(t, 1, len(s.Holds[0].Summary.Stages), "the pad's number came in before the release")
}

func TestWhatCannotStandIsKeptAside(t *testing.T) {
	stop := started(601, 500, "soleus")
	wrong := started(602, 500, "infraspinatus")
	old := started(604, 500, "soleus")
	old.Start.Rules = "1999-01"
	for _, c := range []struct {
		name  string
		build func(*log)
		field string
	}{
		{"unknown type", func(l *log) { l.add("a", "point-painted", 0, struct{}{}) }, "$.type"},
		{
			"unknown field", func(l *log) { l.add("a", "note-written", 0, map[string]any{"text": "x", "txt": "y"}) },
			"$.body.txt",
		},
		{"no such point", func(l *log) {
			l.add("a", "point-rechecked", 0,
				visit.PointRechecked{Point: visit.UUID(uid(1)), NPRS: 3})
		}, "$.body.point"},
		{"not an id", func(l *log) {
			l.add("a", "point-rechecked", 0, map[string]any{"point": "'; drop table", "nprs": 3})
		}, "$.body.point"},
		{"number out of range", func(l *log) {
			l.add("a", "point-rechecked", 0, map[string]any{"point": uid(500), "nprs": 11})
		}, "$.body.nprs"},
		{"removing a pressed point", func(l *log) {
			l.add("a", "hold-started", 0, stop)
			l.add("a", "point-removed", 0, visit.PointRemoved{Point: visit.UUID(uid(500))})
		}, "$.body.point"},
		{"another muscle under a hold", func(l *log) {
			l.add("a", "hold-started", 0, stop)
			l.add("a", "point-corrected", 0, charted(500, "infraspinatus"))
		}, "$.body.muscle"},
		{"undo inside a hold's log", func(l *log) {
			e := l.add("a", "hold-started", 0, stop)
			l.add("a", "event-undone", 0, visit.EventUndone{Event: visit.UUID(e.ID)})
		}, "$.body.event"},
		{"schema of the future", func(l *log) {
			l.add("a", "note-written", 0, visit.NoteWritten{Text: "x"})
			l.events[len(l.events)-1].Schema = 2
		}, "$.schema"},
	} {
		t.Run(c.name, func(t *testing.T) {
			var l log
			l.add("a", "point-charted", 0, charted(500, "soleus"))
			l.add("a", "point-charted", 0, charted(501, "suboccipitals"))
			c.build(&l)
			s := visit.Reduce(asked(), l.events)
			require.Len(t, s.Rejected, 1)
			assert.Contains(t, s.Rejected[0].Reason, c.field)
			assert.Len(t, s.Points, 2)
		})
	}
	high := started(603, 500, "soleus")
	high.Start.Limits.Hard = 9
	for _, c := range []struct {
		start visit.HoldStarted
		why   string
	}{
		{wrong, "another muscle or side"},
		{old, "$.body.start.rules_version"},
		{high, "the protocol's"},
	} {
		var l log
		l.agree("a")
		l.add("a", "point-charted", 0, charted(500, "soleus"))
		l.add("a", "hold-started", 0, c.start)
		s := visit.Reduce(asked(), l.events)
		require.Len(t, s.Holds, 1)
		assert.Equal(t, visit.HoldRejected, s.Holds[0].Status)
		assert.Contains(t, s.Holds[0].Why, c.why)
	}
}

func TestASiteClosedTodayTakesNoMoreHolds(t *testing.T) {
	for sign, closed := range map[string]bool{"unwell": true, "skin-reaction": true, "client-stop": false} {
		for _, ended := range []bool{false, true} {
			var l log
			l.agree("a")
			l.add("a", "point-charted", 0, charted(500, "soleus"))
			l.add("a", "hold-started", 0, started(600, 500, "soleus"))
			l.add("a", "hold-event", 0, happened(600, 0, "contact", nil))
			l.add("a", "hold-event", 0, happened(600, 4000, sign, nil))
			want := visit.Live
			if ended {
				l.add("a", "hold-ended", 0, visit.HoldEnded{
					Hold: visit.UUID(uid(600)), Outcome: "stopped", PressureMS: 4000,
				})
				want = visit.Kept
			}
			l.add("a", "hold-started", 0, started(601, 500, "soleus"))
			s := visit.Reduce(asked(), l.events)
			assert.Empty(t, s.Rejected, sign)
			assert.Equal(t, want, s.Holds[0].Status, sign)
			assert.Equal(t, treat.Outcome("stopped"), s.Holds[0].Summary.Outcome, sign)
			assert.Equal(t, closed, s.Points[0].Closed != "", sign)
			assert.Equal(t, closed, s.Holds[1].Status == visit.HoldRejected, sign)
		}
	}
}

func TestUndoAndItsUndo(t *testing.T) {
	var l log
	e := l.add("a", "point-charted", 0, charted(500, "soleus"))
	u := l.add("a", "event-undone", 0, visit.EventUndone{Event: visit.UUID(e.ID)})
	assert.Empty(t, visit.Reduce(asked(), l.events).Points)
	l.add("a", "event-undone", 0, visit.EventUndone{Event: visit.UUID(u.ID)})
	s := visit.Reduce(asked(), l.events)
	assert.Len(t, s.Points, 1)
	assert.Empty(t, s.Rejected)
}

func TestConflicts(t *testing.T) {
	measure := func(v float64) visit.RangeMeasured {
		return visit.RangeMeasured{Movement: "cervical.rotation", Side: ids.Left, Moment: "before", Active: &v}
	}
	var l log
	l.add("a", "range-measured", 0, measure(60)) // version 1
	l.add("b", "range-measured", 0, measure(70)) // had not seen it
	s := visit.Reduce(asked(), l.events)
	require.Len(t, s.Conflicts, 1)
	assert.Equal(t, "range:cervical.rotation:left:before", s.Conflicts[0].Key)
	assert.InDelta(t, 70, *s.Ranges[0].Before, 0, "the later shows meanwhile")
	l.add("a", "range-measured", 2, measure(65)) // saw both
	s = visit.Reduce(asked(), l.events)
	assert.Empty(t, s.Conflicts)
	assert.InDelta(t, 65, *s.Ranges[0].Before, 0)

	var seen log
	seen.add("a", "range-measured", 0, measure(60))
	seen.add("b", "range-measured", 1, measure(70))
	assert.Empty(t, visit.Reduce(asked(), seen.events).Conflicts, "the second had seen the first")
	var same log
	same.add("a", "range-measured", 0, measure(60))
	same.add("a", "range-measured", 0, measure(62))
	assert.Empty(t, visit.Reduce(asked(), same.events).Conflicts, "one device corrects itself")
}

func TestCourseCountsNoHoldSetAside(t *testing.T) {
	make := func(consent bool) visit.State {
		var l log
		if consent {
			l.agree("a")
		}
		l.add("a", "point-charted", 0, charted(500, "soleus"))
		l.add("a", "hold-started", 0, started(600, 500, "soleus"))
		l.add("a", "hold-event", 0, happened(600, 0, "contact", nil))
		l.add("a", "hold-event", 0, happened(600, 5000, "release", nil))
		l.add("a", "hold-ended", 0, visit.HoldEnded{Hold: visit.UUID(uid(600)), Outcome: "unchanged", PressureMS: 5000})
		l.add("a", "point-rechecked", 0, visit.PointRechecked{Point: visit.UUID(uid(500)), NPRS: 4})
		return visit.Reduce(asked(), l.events)
	}
	h := visit.Course([]visit.VisitContribution{
		{Visit: "2", Day: 7, Date: "2026-01-08", Points: make(false).Treated()},
		{Visit: "1", Day: 0, Date: "2026-01-01", Points: make(true).Treated()},
	}, 40)
	require.Len(t, h.Points, 1)
	v := h.Points[0].Visits
	require.Len(t, v, 2)
	assert.Equal(t, "1", v[0].Visit, "oldest first")
	assert.InDelta(t, 5, v[0].SecondsS, 1e-9)
	assert.Zero(t, v[1].SecondsS)
	assert.InDelta(t, 4, *v[0].After, 0)
	assert.False(t, h.Points[0].Number.Meaningful)
}

// The last stroke counts in each cell; 0 erases; an undo takes a stroke back
// and its own undo brings it again.
func TestThePainDrawing(t *testing.T) {
	l := &log{}
	l.add(uid(1), "drawing-painted", 0, visit.DrawingPainted{
		Figure:  body.Version,
		Strokes: []visit.Stroke{{"ache", 4, []string{"back:-4,31", "back:-4,32"}}},
	})
	b := l.add(uid(1), "drawing-painted", 0, visit.DrawingPainted{
		Figure:  body.Version,
		Strokes: []visit.Stroke{{"sharp", 8, []string{"back:-4,32"}}}, By: "client",
	})
	s := visit.Reduce(asked(), l.events)
	assert.Equal(t, []visit.Stroke{{"ache", 4, []string{"back:-4,31"}}, {"sharp", 8, []string{"back:-4,32"}}},
		s.Drawing)
	u := l.add(uid(1), "event-undone", 0, visit.EventUndone{Event: visit.UUID(b.ID)})
	assert.Equal(t, []visit.Stroke{{"ache", 4, []string{"back:-4,31", "back:-4,32"}}},
		visit.Reduce(asked(), l.events).Drawing)
	l.add(uid(1), "event-undone", 0, visit.EventUndone{Event: visit.UUID(u.ID)})
	assert.Len(t, visit.Reduce(asked(), l.events).Drawing, 2)
	l.add(uid(1), "drawing-painted", 0, visit.DrawingPainted{
		Figure:  body.Version,
		Strokes: []visit.Stroke{{"ache", 0, []string{"back:-4,31", "back:-4,32"}}},
	})
	assert.Empty(t, visit.Reduce(asked(), l.events).Drawing)
	l.add(uid(1), "drawing-painted", 0, visit.DrawingPainted{
		Figure:  body.Version,
		Strokes: []visit.Stroke{{"ache", 5, []string{"back:900,2"}}},
	})
	l.add(uid(1), "drawing-painted", 0, visit.DrawingPainted{
		Figure:  "figure-0",
		Strokes: []visit.Stroke{{"ache", 5, []string{"back:-4,31"}}},
	})
	s = visit.Reduce(asked(), l.events)
	assert.Len(t, s.Rejected, 2, "off the figure, and of another figure: kept aside")
}

func yes(q ids.Question, side ids.Side, regions ...ids.Region) visit.ScreeningAnswered {
	return visit.ScreeningAnswered{
		Answers: []visit.ScreenedAnswer{{Question: q, Answer: "yes", Side: side, Regions: regions}},
	}
}

// The reducer refuses a hold that the screening does not allow, whatever
// screen, import or outbox it came from.
func TestTheScreeningRulesOverHolds(t *testing.T) {
	const dev = "d"
	hold := func(ctx visit.Context, muscle ids.Muscle, before ...func(l *log)) visit.Hold {
		l := &log{}
		l.agree(dev)
		for _, a := range safety.SensitiveAreas(muscle, nil) {
			l.add(dev, "consent-recorded", 0, visit.ConsentRecorded{Area: a, Given: true, Chaperone: "declined"})
		}
		l.add(dev, "point-charted", 0, charted(10, muscle))
		for _, f := range before {
			f(l)
		}
		l.add(dev, "hold-started", 0, started(20, 10, muscle))
		s := visit.Reduce(ctx, l.events)
		require.Len(t, s.Holds, 1)
		return s.Holds[0]
	}
	say := func(kind string, b any) func(*log) { return func(l *log) { l.add(dev, kind, 0, b) } }
	assert.Equal(t, visit.Live, hold(asked(), "soleus").Status)

	h := hold(visit.Context{Roles: asked().Roles}, "soleus")
	assert.Equal(t, visit.HoldRejected, h.Status, "not asked is not clear")
	assert.Contains(t, h.Why, "not complete")

	h = hold(asked(), "soleus", say("screening-answered", yes("calf-warm-swollen", ids.Left)))
	assert.Equal(t, visit.HoldRejected, h.Status, "a warm swollen calf stops everything")
	h = hold(asked(), "upper-trapezius", say("screening-answered", yes("calf-warm-swollen", ids.Left)))
	assert.Equal(t, visit.HoldRejected, h.Status)
	h = hold(asked(), "soleus", say("screening-answered", yes("calf-warm-swollen", ids.Left)),
		say("block-overridden", visit.BlockOverridden{
			Point:  visit.UUID(uid(10)),
			Reason: "I believe it is only a bruise.",
		}))
	assert.Equal(t, visit.HoldRejected, h.Status, "no override lifts refer-first")
	h = hold(asked(), "soleus", say("screening-answered", yes("calf-warm-swollen", ids.Left)),
		say("screening-cleared", visit.ScreeningCleared{
			Question: "calf-warm-swollen", By: "Dr Example",
			On: "yesterday",
		}))
	assert.Equal(t, visit.Live, h.Status, "cleared by a clinician")

	earlier := carried(asked(), safety.Answer{
		Question: "recent-clot", Answer: "yes", Side: ids.Left, DaysAgo: 40,
	})
	h = hold(earlier, "soleus", say("screening-answered",
		visit.ScreeningAnswered{Answers: []visit.ScreenedAnswer{{Question: "recent-clot", Answer: "no"}}}))
	assert.Equal(t, visit.HoldRejected, h.Status, "it stays until cleared, on later visits too")

	calf := []ids.Region{"lower-calf", "upper-calf", "achilles", "medial-leg", "lateral-leg"}
	raw := say("screening-answered", yes("open-skin", ids.Left, calf...))
	h = hold(asked(), "soleus", raw, say("block-overridden",
		visit.BlockOverridden{Point: visit.UUID(uid(10)), Reason: "The graze is two hands away."}))
	assert.Equal(t, visit.HoldRejected, h.Status, "nobody presses on open skin")
	skin := say("screening-answered", yes("varicose-veins", ids.Left, calf...))
	h = hold(asked(), "soleus", skin)
	assert.Equal(t, visit.HoldRejected, h.Status)
	assert.Contains(t, h.Why, "Blocked")
	h = hold(asked(), "soleus", skin, say("block-overridden",
		visit.BlockOverridden{Point: visit.UUID(uid(10)), Reason: "The vein is two hands away."}))
	assert.Equal(t, visit.Live, h.Status, "a licensed override with its reason")
	stranger := asked()
	stranger.Roles = nil
	h = hold(stranger, "soleus", skin, say("block-overridden",
		visit.BlockOverridden{Point: visit.UUID(uid(10)), Reason: "The graze is two hands away."}))
	assert.Equal(t, visit.HoldRejected, h.Status, "not licensed")
	h = hold(asked(), "soleus", skin, say("block-overridden",
		visit.BlockOverridden{Point: visit.UUID(uid(10)), Reason: "ok"}))
	assert.Equal(t, visit.HoldRejected, h.Status, "no reason")

	h = hold(asked(), "soleus", say("screening-answered", yes("first-visit", "")))
	assert.Equal(t, visit.HoldRejected, h.Status, "limits above what the screening allows")
	h = hold(asked(), "soleus", say("screening-answered", yes("diabetes-sensory-loss", "")))
	assert.Contains(t, h.Why, "cannot steer")
	h = hold(asked(), "psoas-major", say("screening-answered", yes("anticoagulant", "")))
	assert.Contains(t, h.Why, "no deep abdomen")

	l := &log{}
	l.agree(dev)
	l.add(dev, "point-charted", 0, charted(10, "soleus"))
	l.add(dev, "screening-answered", 0, yes("first-visit", ""))
	st := started(20, 10, "soleus")
	st.Start = adapted(t, st.Start, visit.Reduce(asked(), l.events).Screening.Limits)
	assert.Equal(t, []float64{5, 6, 7}, []float64{st.Start.Limits.Target, st.Start.Limits.Soft, st.Start.Limits.Hard})
	l.add(dev, "hold-started", 0, st)
	assert.Equal(t, visit.Live, visit.Reduce(asked(), l.events).Holds[0].Status)
}

func TestWhatIsFoundReachesTheSuspects(t *testing.T) {
	l := &log{}
	deg := func(v float64) *float64 { return &v }
	l.add("d", "drawing-painted", 0, visit.DrawingPainted{
		Figure:  body.Version,
		Strokes: []visit.Stroke{{Kind: "ache", Intensity: 7, Cells: heel()}},
	})
	l.add("d", "range-measured", 0, visit.RangeMeasured{
		Movement: "ankle.dorsiflexion-knee-bent", Side: ids.Left,
		Moment: "before", Active: deg(8), Passive: deg(9), Felt: "pull", FeltAt: "lower-calf",
	})
	l.add("d", "test-done", 0, visit.TestDone{Test: "calf-length-knee-bent", Side: ids.Left, Result: "negative"})
	l.add("d", "test-done", 0, visit.TestDone{Test: "calf-length-knee-bent", Side: ids.Left, Result: "positive"})
	l.add("d", "sign-seen", 0, visit.SignSeen{Sign: "squat-heels-lift", Side: ids.Midline, Present: true})
	l.add("d", "loads-declared", 0, visit.LoadsDeclared{Loads: []ids.Load{"running"}})
	l.add("d", "posture-read", 0, visit.PostureRead{Posture: assess.Posture{
		Measure:  "shoulder-height",
		HighSide: ids.Right, Degrees: deg(4),
	}})
	best, worst := 3.0, 2.0
	l.add("d", "interview-noted", 0, visit.InterviewNoted{Best: &best, Worst: &worst})
	l.add("d", "test-done", 0, visit.TestDone{Test: "lift-off", Side: ids.Midline, Result: "positive"})
	s := visit.Reduce(asked(), l.events)
	require.Len(t, s.Rejected, 2, "a best above the worst, a test of no side: kept aside")
	require.Len(t, s.Tests, 1, "the later result counts")
	assert.Equal(t, "positive", s.Tests[0].Result)
	assert.True(t, s.PostureFlags[0].Flagged)
	assert.Equal(t, ids.Region("lower-calf"), s.Findings(asked(), nil, 0).ROM[0].FeltAt)
	r := assess.Rank(s.Findings(asked(), nil, 0), nil)
	assert.Equal(t, ids.Muscle("soleus"), r.Suspects[0].Muscle)
	assert.Equal(t, ids.Left, r.Suspects[0].Side)
	assert.True(t, r.Suspects[0].Ready)
	l.add("d", "sign-seen", 0, visit.SignSeen{Sign: "squat-heels-lift", Side: ids.Midline})
	assert.Empty(t, visit.Reduce(asked(), l.events).Signs)
	l.add("d", "screening-answered", 0, yes("calf-warm-swollen", ids.Left))
	s = visit.Reduce(asked(), l.events)
	assert.True(t, assess.Rank(s.Findings(asked(), nil, 0), nil).Suspects[0].Blocked)
}

func heel() (cells []string) {
	for _, c := range body.Cells(body.SoleLeft) {
		if c.Region == "heel" {
			cells = append(cells, c.Cell.String())
		}
	}
	return cells
}

// Up to three trials: their mean is the reading, and a mean that is not theirs
// is refused with its field.
func TestTheMeanOfTheTrialsCounts(t *testing.T) {
	deg := func(v float64) *float64 { return &v }
	l := &log{}
	m := visit.RangeMeasured{
		Movement: "cervical.rotation",
		Side:     ids.Left,
		Moment:   "before",
		Trials:   []float64{61, 62, 64},
	}
	require.Nil(t, m.Check())
	l.add("a", "range-measured", 0, m)
	m.Moment, m.Trials = "after", []float64{70, 71}
	l.add("a", "range-measured", 1, m)
	r := visit.Reduce(asked(), l.events).Ranges[0]
	assert.Equal(t, deg(62.3), r.Before, "to a tenth")
	assert.Equal(t, []float64{61, 62, 64}, r.Trials)
	assert.Equal(t, deg(70.5), r.After)
	assert.Equal(t, []float64{70, 71}, r.AfterTrials)
	require.NotNil(t, r.Change)
	assert.InDelta(t, 8.2, r.Change.Delta, 1e-9)

	m.Active = deg(70.4) // what a screen may have rounded is refused past 0.05
	require.NotNil(t, m.Check())
	assert.Equal(t, "$.active_deg", m.Check().Path)
	m.Active = deg(70.45)
	assert.Nil(t, m.Check())
	m.Active, m.Trials = nil, []float64{70, 361}
	assert.Equal(t, "$.trials[1]", m.Check().Path)
	m.Trials = nil
	assert.Equal(t, "$.active_deg", m.Check().Path, "nothing was read")
	m.Pain = deg(4)
	assert.Nil(t, m.Check(), "what it hurts stands without degrees")
}

// The page says when it was attended last: time stops there, not at the last key and not
// when somebody came back.
func TestAHoldEndsAtItsLastSign(t *testing.T) {
	ended := func(sign *int64) visit.Hold {
		l := &log{}
		l.agree("a")
		l.add("a", "point-charted", 0, charted(500, "soleus"))
		l.add("a", "hold-started", 0, started(600, 500, "soleus"))
		l.add("a", "hold-event", 0, happened(600, 0, "contact", nil))
		l.add("a", "hold-event", 0, happened(600, 3000, "score", 6))
		l.ms += 1_800_000
		l.add("a", "hold-ended", 0, visit.HoldEnded{
			Hold: visit.UUID(uid(600)), Outcome: "unchanged", PressureMS: 23_000, LastSignMS: sign,
		})
		return holdOf(visit.Reduce(asked(), l.events), 600)
	}
	h := ended(new(int64(23_000)))
	assert.InDelta(t, 23, h.Summary.PressureS, 1e-9)
	assert.Zero(t, h.Summary.OverrunS)
	assert.InDelta(t, 3, ended(nil).Summary.PressureS, 1e-9, "without it the log's last event")
	far := ended(new(int64(86_400_000)))
	assert.Less(t, far.Summary.OverrunS, 1810.0, "no later than the end was written")
}
