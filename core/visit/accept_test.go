package visit_test

import (
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/rights"
	"mokren/core/safety"
	"mokren/core/sequence"
	"mokren/core/treat"
	"mokren/core/visit"
)

// pressedAt is a visit with consent, a point and one hold with some events.
func pressedAt(muscle ids.Muscle, signs ...string) *log {
	l := &log{}
	l.agreeAll("a", muscle)
	l.add("a", "point-charted", 0, charted(500, muscle))
	l.add("a", "hold-started", 0, started(600, 500, muscle))
	l.add("a", "hold-event", 0, happened(600, 0, "contact", nil))
	for i, s := range signs {
		l.add("a", "hold-event", 0, happened(600, int64(1000*(i+1)), s, nil))
	}
	return l
}

func holdOf(s visit.State, hold int) visit.Hold {
	for _, h := range s.Holds {
		if h.ID == visit.UUID(uid(hold)) {
			return h
		}
	}
	return visit.Hold{}
}

// D1: facts of the record stand over every answer, and a client's own word adds
// caution and lifts none.
func TestD1FactsOfTheRecordWin(t *testing.T) {
	answer := func(by, q, a string) visit.ScreeningAnswered {
		return visit.ScreeningAnswered{By: by, Answers: []visit.ScreenedAnswer{{Question: ids.Question(q), Answer: a}}}
	}
	minor := asked()
	minor.Born = []string{"1960-01-01"}
	thinner := carried(asked(), safety.Answer{Question: "anticoagulant", Answer: "yes", DaysAgo: 30})
	for _, c := range []struct {
		name string
		ctx  visit.Context
		say  visit.ScreeningAnswered
		rule ids.Question
		want bool
	}{
		{"born too late, the client says no", minor, answer("client", "minor", "no"), "minor", true},
		{"born too late, the therapist says no", minor, answer("therapist", "minor", "no"), "minor", true},
		{"a carried yes, the client says no", thinner, answer("client", "anticoagulant", "no"), "anticoagulant", true},
		{
			"a carried yes, the therapist's no", thinner, answer("therapist", "anticoagulant", "no"), "anticoagulant",
			false,
		},
		{
			"nothing known, the client says yes", asked(), answer("client", "anticoagulant", "yes"), "anticoagulant",
			true,
		},
	} {
		t.Run(c.name, func(t *testing.T) {
			l := &log{}
			l.add("a", "screening-answered", 0, c.say)
			found := false
			for _, r := range visit.Reduce(c.ctx, l.events).Screening.Rules {
				found = found || r.ID == c.rule
			}
			assert.Equal(t, c.want, found)
		})
	}
	// The audit's way round: the client's "no" opened the hold without a guardian.
	l := &log{}
	l.agree("a")
	l.add("a", "screening-answered", 0, answer("client", "minor", "no"))
	l.add("a", "point-charted", 0, charted(500, "soleus"))
	l.add("a", "hold-started", 0, started(600, 500, "soleus"))
	assert.Contains(t, holdOf(visit.Reduce(minor, l.events), 600).Why, "under age")
}

// A clearance counts for answers older than itself, and names a clinician.
func TestAClearanceCountsForWhatCameBeforeIt(t *testing.T) {
	cleared := visit.ScreeningCleared{Question: "calf-warm-swollen", By: "Dr Example", On: "today"}
	l := &log{}
	l.add("a", "screening-answered", 0, yes("calf-warm-swollen", ids.Left))
	l.add("a", "screening-cleared", 0, cleared)
	assert.False(t, visit.Reduce(asked(), l.events).Screening.NoTreatment)
	l.add("a", "screening-answered", 0, yes("calf-warm-swollen", ids.Left))
	assert.True(t, visit.Reduce(asked(), l.events).Screening.NoTreatment, "said again after it")
	cleared.By = "  "
	l.add("a", "screening-cleared", 0, cleared)
	assert.Contains(t, visit.Reduce(asked(), l.events).Rejected[0].Reason, "$.body.by")
}

// D3: closed means closed, whatever follows, on every device, for every point
// of the site and every visit of the day.
func TestD3ClosedMeansClosed(t *testing.T) {
	for name, signs := range map[string][]string{
		"unwell, then a stop":              {"unwell", "client-stop"},
		"skin, then a stop":                {"skin-reaction", "client-stop"},
		"third pulse, then a stop":         {"pulse", "contact", "pulse", "contact", "pulse", "client-stop"},
		"a second nerve sign after a stop": {"nerve-sign", "client-stop", "nerve-sign"},
		"unwell, then undone":              {"unwell", "undo"},
	} {
		t.Run(name, func(t *testing.T) {
			l := pressedAt("soleus", signs...)
			l.add("a", "hold-started", 0, started(601, 500, "soleus"))
			near := charted(501, "soleus").Place
			near.AlongPct += 2
			l.add("b", "point-charted", 0, chartedAt(501, "soleus", near))
			l.add("b", "hold-started", 0, started(602, 501, "soleus"))
			s := visit.Reduce(asked(), l.events)
			assert.NotEmpty(t, s.Points[0].Closed)
			assert.Equal(t, visit.HoldRejected, holdOf(s, 601).Status)
			assert.Equal(t, visit.HoldRejected, holdOf(s, 602).Status, "a new point at the same place, another device")
			assert.Equal(t, visit.Live, holdOf(s, 600).Status, "the hold itself stands")
		})
	}
	for name, signs := range map[string][]string{
		"only a stop":                 {"client-stop"},
		"one nerve sign":              {"nerve-sign"},
		"a nerve sign taken back":     {"nerve-sign", "undo", "contact", "nerve-sign"},
		"two pulses":                  {"pulse", "contact", "pulse"},
		"a pulse and a nerve sign":    {"pulse", "contact", "nerve-sign"},
		"a nerve sign, then a twitch": {"nerve-sign", "twitch"},
	} {
		l := pressedAt("soleus", signs...)
		l.add("a", "hold-started", 0, started(601, 500, "soleus"))
		assert.Equal(t, visit.Live, holdOf(visit.Reduce(asked(), l.events), 601).Status, name)
	}
	// Signs of one site count over its holds.
	l := pressedAt("soleus", "nerve-sign")
	l.add("a", "hold-started", 0, started(601, 500, "soleus"))
	l.add("a", "hold-event", 0, happened(601, 0, "contact", nil))
	l.add("a", "hold-event", 0, happened(601, 900, "nerve-sign", nil))
	l.add("a", "hold-started", 0, started(602, 500, "soleus"))
	assert.Contains(t, holdOf(visit.Reduce(asked(), l.events), 602).Why, "nerve sign twice")
	// Far along the same muscle is another site.
	l = pressedAt("soleus", "nerve-sign", "nerve-sign")
	far := charted(501, "soleus").Place
	far.AlongPct, far.AcrossMM = 25, 0
	l.add("a", "point-charted", 0, chartedAt(501, "soleus", far))
	st := started(601, 501, "soleus")
	l.add("a", "hold-started", 0, st)
	assert.Equal(t, visit.Live, holdOf(visit.Reduce(asked(), l.events), 601).Status)
}

// After "unwell" the whole neck is closed, and nothing at all is pressed before
// the screening was asked again.
func TestD3UnwellClosesTheNeckAndAsksAgain(t *testing.T) {
	l := pressedAt("soleus", "unwell")
	l.agreeAll("a", "upper-trapezius")
	l.add("a", "point-charted", 0, charted(501, "splenius-capitis"))
	l.add("a", "point-charted", 0, charted(502, "infraspinatus"))
	l.add("a", "hold-started", 0, started(601, 502, "infraspinatus"))
	s := visit.Reduce(asked(), l.events)
	assert.True(t, s.ScreenAgain)
	assert.Contains(t, holdOf(s, 601).Why, "ask the screening again")
	var again visit.ScreeningAnswered
	for _, q := range safety.Questions() {
		again.Answers = append(again.Answers, visit.ScreenedAnswer{Question: q.ID, Answer: "no"})
	}
	l.add("a", "screening-answered", 0, again)
	l.add("a", "hold-started", 0, started(602, 502, "infraspinatus"))
	l.add("a", "hold-started", 0, started(603, 501, "splenius-capitis"))
	s = visit.Reduce(asked(), l.events)
	assert.False(t, s.ScreenAgain)
	assert.Equal(t, visit.Live, holdOf(s, 602).Status, holdOf(s, 602).Why)
	assert.Contains(t, holdOf(s, 603).Why, "The neck is closed for today")
}

// A skin reaction closes the region; a sign of another visit of the day counts
// like one of this.
func TestD3RegionsAndOtherVisitsOfTheDay(t *testing.T) {
	at := charted(500, "soleus")
	ctx := asked()
	ctx.Signs = []visit.Pressed{
		{
			Spot: visit.Spot{
				Muscle: "gastrocnemius-medial",
				Side:   ids.Left,
				Where:  where(at),
			},
			Sign: "skin-reaction",
			AtMS: 1,
		},
	}
	l := pressedAt("soleus")
	assert.Contains(t, holdOf(visit.Reduce(ctx, l.events), 600).Why, "the skin reacted here")
	ctx.Signs[0].Where = []safety.Place{{Region: "scapula", Side: ids.Left}}
	assert.Equal(t, visit.Live, holdOf(visit.Reduce(ctx, l.events), 600).Status)
	nerve := visit.Pressed{
		Spot: visit.Spot{Muscle: at.Muscle, Side: at.Side, Place: at.Place},
		Sign: "nerve-sign",
		AtMS: 1,
	}
	ctx.Signs = []visit.Pressed{nerve, nerve}
	assert.Contains(t, holdOf(visit.Reduce(ctx, l.events), 600).Why, "nerve sign twice")
}

// D4: what a hold rests on is not taken back, by nobody.
func TestD4WhatWasDoneCannotBeUndone(t *testing.T) {
	for _, kind := range []string{
		"visit-opened", "screening-answered", "consent-recorded", "point-charted",
		"hold-started", "hold-event", "screening-cleared", "block-overridden", "point-moved",
	} {
		t.Run(kind, func(t *testing.T) {
			l := &log{}
			l.add("a", "visit-opened", 0, visit.VisitOpened{})
			l.add(
				"a",
				"screening-answered",
				0,
				visit.ScreeningAnswered{Answers: []visit.ScreenedAnswer{{Question: "fever", Answer: "no"}}},
			)
			l.add(
				"a",
				"screening-cleared",
				0,
				visit.ScreeningCleared{Question: "fever", By: "Dr Example", On: "today"},
			)
			l.agree("a")
			c := charted(500, "soleus")
			l.add("a", "point-charted", 0, c)
			l.add(
				"a",
				"point-moved",
				0,
				visit.PointMoved{Point: c.Point, Figure: c.Figure, View: c.View, X: c.X, Y: c.Y, Place: c.Place},
			)
			l.add(
				"a",
				"block-overridden",
				0,
				visit.BlockOverridden{Point: c.Point, Reason: "A reason of more than ten letters."},
			)
			l.add("a", "hold-started", 0, started(600, 500, "soleus"))
			l.add("a", "hold-event", 0, happened(600, 0, "contact", nil))
			before := visit.Reduce(asked(), l.events)
			require.Empty(t, before.Rejected)
			target := ""
			for _, e := range l.events {
				if e.Type == kind {
					target = e.ID
				}
			}
			l.add("a", "event-undone", 0, visit.EventUndone{Event: visit.UUID(target)})
			s := visit.Reduce(asked(), l.events)
			require.Len(t, s.Rejected, 1, "refused, and shown")
			assert.Equal(t, before.Holds, s.Holds)
			assert.Equal(t, before.Points, s.Points)
			assert.Equal(t, before.Consents, s.Consents)
		})
	}
}

// D4: undo reaches one's own events only, and after the visit is closed only
// addenda are written.
func TestD4UndoIsOnesOwnAndClosedTakesAddenda(t *testing.T) {
	l := &log{}
	e := l.add("a", "note-written", 0, visit.NoteWritten{Text: "mine"})
	l.write("b", colleague, "event-undone", 1, visit.EventUndone{Event: visit.UUID(e.ID)})
	s := visit.Reduce(asked(), l.events)
	assert.Equal(t, "mine", s.Note)
	assert.Contains(t, s.Rejected[0].Reason, "one's own")
	l.add("a", "visit-closed", 1, visit.VisitClosed{})
	l.add("a", "note-written", 3, visit.NoteWritten{Text: "changed"})
	l.add("a", "event-undone", 3, visit.EventUndone{Event: visit.UUID(e.ID)})
	l.write("b", colleague, "addendum-written", 3, visit.Addendum{Text: "seen again"})
	l.add("a", "point-charted", 3, charted(500, "soleus"))
	s = visit.Reduce(asked(), l.events)
	assert.Equal(t, "mine", s.Note)
	assert.Empty(t, s.Points)
	require.Len(t, s.Addenda, 1)
	assert.Equal(t, "seen again", s.Addenda[0].Text)
	assert.Len(t, s.Rejected, 4)
	assert.Contains(t, s.Rejected[1].Reason, "addendum")
	// What its own person's other device wrote before it closed still belongs to it, with
	// a remark; somebody else's, who was not there, does not.
	for _, c := range []struct {
		by   string
		kept int
	}{{therapist, 1}, {colleague, 0}} {
		m := &log{events: slices.Clone(l.events), seq: maps.Clone(l.seq), ms: l.ms}
		late := m.write("c", c.by, "range-measured", 0, visit.RangeMeasured{
			Movement: "cervical.rotation", Side: ids.Left, Moment: "before", Active: new(float64),
		})
		m.last().DeviceMS = 500
		s := visit.Reduce(asked(), judged(visit.Today(), asked(), m.events))
		assert.Len(t, s.Ranges, c.kept)
		require.Len(t, s.Late, c.kept)
		if c.kept > 0 {
			assert.Equal(t, late.ID, s.Late[0].Event)
		}
	}
}

// A closed visit takes what protects the client from anybody, and nothing that permits.
func TestAClosedVisitTakesWhatProtectsTheClient(t *testing.T) {
	closed := pressedAt("soleus")
	closed.add("a", "hold-event", 0, happened(600, 30_000, "release", nil))
	closed.add("a", "hold-ended", 0, visit.HoldEnded{
		Hold: visit.UUID(uid(600)), Outcome: "unchanged", PressureMS: 28_000,
	})
	closed.add("a", "visit-closed", 0, visit.VisitClosed{})
	for _, c := range []struct {
		name, device, by, kind string
		body                   any
		taken                  bool
	}{
		{"a yes", "z", student, "screening-answered", answers("fever", "yes", ""), true},
		{"a no", "z", student, "screening-answered", answers("fever", "no", ""), false},
		{"a withdrawal", "z", student, "consent-recorded", visit.ConsentRecorded{Area: safety.WholeVisit}, true},
		{
			"a consent", "z", student, "consent-recorded",
			visit.ConsentRecorded{Area: safety.WholeVisit, Given: true},
			false,
		},
		{"a reaction", "z", colleague, "reaction-noted", visit.ReactionNoted{Since: "worse"}, true},
		{"a sign", "z", colleague, "hold-event", happened(600, 20_000, "nerve-sign", nil), true},
		{"a number of somebody else", "z", colleague, "hold-event", happened(600, 20_000, "score", 1), false},
		{"a number by the author's device id", "a", student, "hold-event", happened(600, 20_000, "score", 1), false},
		{
			"a number of its own device, after the end", "a", therapist, "hold-event",
			happened(600, 20_000, "score", 1), false,
		},
		{"a note that is dated back", "z", student, "note-written", visit.NoteWritten{Text: "better"}, false},
	} {
		l := &log{events: slices.Clone(closed.events), seq: maps.Clone(closed.seq), ms: closed.ms}
		l.write(c.device, c.by, c.kind, 0, c.body)
		if c.device == "z" {
			l.last().DeviceMS = 1500
		}
		before := visit.Reduce(asked(), closed.events)
		s := visit.Reduce(asked(), judged(visit.Today(), asked(), l.events))
		assert.Equal(t, c.taken, len(s.Rejected) == len(before.Rejected), c.name)
		assert.Equal(t, before.Holds[0].Summary.Outcome, s.Holds[0].Summary.Outcome, c.name)
		assert.Equal(t, c.taken, len(s.Late) == 1, c.name)
	}
}

// A number of the client's pad counts for ten minutes after the hold's end, if it was said
// before it; the hold's own device says nothing more of it.
func TestNumbersThatComeTooLateChangeNothing(t *testing.T) {
	for _, c := range []struct {
		name, device string
		at, minutes  int64
		counts       bool
	}{
		{"the pad's, in time", "pad", 25_000, 9, true},
		{"the pad's, eleven minutes later", "pad", 25_000, 11, false},
		{"the pad's, said after the end", "pad", 70_000, 1, false},
		{"its own device's, after its end", "a", 25_000, 1, false},
	} {
		l := pressedAt("soleus")
		l.add("a", "hold-event", 0, happened(600, 2000, "score", 6))
		l.ms += 45_000
		l.add("a", "hold-event", 0, happened(600, 40_000, "release", nil))
		l.add("a", "hold-ended", 0, visit.HoldEnded{
			Hold: visit.UUID(uid(600)), Outcome: "unchanged", PressureMS: 32_000,
		})
		end := l.ms
		l.add(c.device, "hold-event", 0, happened(600, c.at, "score", 3))
		for i := range l.events {
			l.events[i].ReceivedMS = l.events[i].DeviceMS
		}
		l.last().ReceivedMS = end + c.minutes*60_000
		s := visit.Reduce(asked(), judged(visit.Today(), asked(), l.events))
		assert.Equal(t, c.counts, s.Holds[0].Summary.Outcome == treat.Reduced, c.name)
		assert.Equal(t, !c.counts, len(s.Rejected) == 1, "%s: %v", c.name, s.Rejected)
	}
}

// D6: what enables a hold counts only when it was there: no date makes
// anything valid, and what forbids counts by either order.
func TestD6NothingBecomesValidByADate(t *testing.T) {
	consent := visit.ConsentRecorded{Area: safety.WholeVisit, Given: true}
	for _, c := range []struct {
		name  string
		build func(l *log)
		want  visit.HoldStatus
	}{
		{"consent sent after the hold, dated before it", func(l *log) {
			l.add("a", "hold-started", 0, started(600, 500, "soleus"))
			l.add("b", "consent-recorded", 0, consent)
			l.last().DeviceMS = 1
		}, visit.HoldRejected},
		{"consent of another device, arrived before but later by the clock", func(l *log) {
			l.add("b", "consent-recorded", 0, consent)
			l.last().DeviceMS = 1_000_000
			l.add("a", "hold-started", 0, started(600, 500, "soleus"))
		}, visit.HoldRejected},
		{"consent of another device, before by both", func(l *log) {
			l.add("b", "consent-recorded", 0, consent)
			l.add("a", "hold-started", 0, started(600, 500, "soleus"))
		}, visit.Live},
		{"consent of the same device, its clock set back between", func(l *log) {
			l.add("a", "consent-recorded", 0, consent)
			l.last().DeviceMS = 900_000
			l.add("a", "hold-started", 0, started(600, 500, "soleus"))
		}, visit.Live},
		{"a withdrawal of another device, arrived before but later by the clock", func(l *log) {
			l.add("a", "consent-recorded", 0, consent)
			l.add("b", "consent-recorded", 0, visit.ConsentRecorded{Area: safety.WholeVisit})
			l.last().DeviceMS = 9_000_000
			l.add("a", "hold-started", 0, started(600, 500, "soleus"))
		}, visit.HoldRejected},
		{"a yes of another device, arrived before but later by the clock", func(l *log) {
			l.add("a", "consent-recorded", 0, consent)
			l.add("b", "screening-answered", 0, yes("fever", ""))
			l.last().DeviceMS = 9_000_000
			l.add("a", "hold-started", 0, started(600, 500, "soleus"))
		}, visit.HoldRejected},
		{"a clearance sent after the hold, dated before it", func(l *log) {
			l.add("a", "consent-recorded", 0, consent)
			l.add("a", "screening-answered", 0, yes("fever", ""))
			l.add("a", "hold-started", 0, started(600, 500, "soleus"))
			l.add("b", "screening-cleared", 0, visit.ScreeningCleared{Question: "fever", By: "Dr Example", On: "today"})
			l.last().DeviceMS = 1
		}, visit.HoldRejected},
	} {
		t.Run(c.name, func(t *testing.T) {
			l := &log{}
			l.add("a", "point-charted", 0, charted(500, "soleus"))
			c.build(l)
			h := holdOf(visit.Reduce(asked(), l.events), 600)
			assert.Equal(t, c.want, h.Status, h.Why)
		})
	}
}

// What is learned later is a remark beside an accepted hold and takes nothing
// away.
func TestLearnedLaterIsARemark(t *testing.T) {
	l := pressedAt("soleus", "release")
	l.add("b", "consent-recorded", 0, visit.ConsentRecorded{Area: safety.WholeVisit})
	l.last().DeviceMS = 1500
	s := visit.Reduce(asked(), l.events)
	h := holdOf(s, 600)
	assert.Equal(t, visit.Live, h.Status)
	require.Len(t, h.Remarks, 1)
	assert.Contains(t, h.Remarks[0], "Learned after it began: No consent")
	l = pressedAt("soleus", "release")
	l.add("a", "consent-recorded", 0, visit.ConsentRecorded{Area: safety.WholeVisit})
	assert.Empty(t, holdOf(visit.Reduce(asked(), l.events), 600).Remarks, "withdrawn for what is to come")
}

// D6: a clock that is off is marked and corrected from the difference seen on
// arrival.
func TestD6ClocksAreCorrectedOnArrival(t *testing.T) {
	const now, hour = int64(1_800_000_000_000), int64(3_600_000)
	for _, c := range []struct {
		name         string
		sent, device int64
		at           int64
		mark         string
	}{
		{"right", now - 40, now - 1000, now - 1000, ""},
		{"right, and offline for an hour", now - 40, now - hour, now - hour, ""},
		{"500 years ahead", 0, now + 500*365*24*hour, now, visit.ClockAhead},
		{"an hour ahead, told", now + hour, now + hour - 5000, now - 5000, visit.ClockAhead},
		{"an hour behind, told", now - hour, now - hour - 5000, now - 5000, visit.ClockBehind},
		{"longer ago than is believed, not told", 0, 1000, now, visit.ClockBehind},
	} {
		a := visit.Arrival{NowMS: now, SentMS: c.sent}
		e := a.Receive(nil, []visit.Event{{ID: uid(1), Device: "a", Seq: 1, DeviceMS: c.device}})[0]
		assert.InDelta(t, c.at, e.HappenedMS, 100, c.name)
		assert.Equal(t, c.mark, e.Clock, c.name)
		assert.Equal(t, now, e.ReceivedMS)
	}
	// A device never goes back before its own.
	a := visit.Arrival{NowMS: now, SentMS: now}
	known := []visit.Event{{ID: uid(1), Device: "a", Seq: 1, HappenedMS: now - 10}}
	assert.Equal(
		t,
		now-10,
		a.Receive(visit.HeardIn(known),
			[]visit.Event{{ID: uid(2), Device: "a", Seq: 2, DeviceMS: now - hour}})[0].HappenedMS,
	)
}

// D6: a log longer than the time since the hold began is cut to it.
func TestD6ALogLongerThanTheTimeSince(t *testing.T) {
	l := &log{}
	l.agree("a")
	l.add("a", "point-charted", 0, charted(500, "soleus"))
	l.add("a", "hold-started", 0, started(600, 500, "soleus"))
	l.add("a", "hold-event", 0, happened(600, 0, "contact", nil))
	l.add("a", "hold-event", 0, happened(600, 86_400_000, "release", nil))
	for i := range l.events {
		l.events[i].ReceivedMS, l.events[i].HappenedMS = 1_800_000_000_000, 1_800_000_000_000-1000
	}
	ctx := asked()
	for i := range ctx.History {
		ctx.History[i].SaidMS = l.events[0].HappenedMS
	}
	h := holdOf(visit.Reduce(ctx, l.events), 600)
	assert.Equal(t, visit.Live, h.Status)
	assert.InDelta(t, 1, h.Summary.PressureS, 1e-9)
	require.NotEmpty(t, h.Remarks)
	assert.Contains(t, h.Remarks[0], "longer than the time since")
}

// D7: a student presses under a therapist who countersigns, and decides nothing
// alone.
func TestD7AStudentsHold(t *testing.T) {
	l := &log{}
	l.agree("a")
	l.add("a", "point-charted", 0, charted(500, "soleus"))
	alone, under := started(600, 500, "soleus"), started(601, 500, "soleus")
	under.Under = visit.UUID(therapist)
	l.write("s", student, "hold-started", 0, alone)
	l.write("s", student, "hold-started", 0, under)
	other := started(602, 500, "soleus")
	other.Under = visit.UUID(student)
	l.write("s", student, "hold-started", 0, other)
	l.write(
		"s",
		student,
		"screening-cleared",
		0,
		visit.ScreeningCleared{Question: "fever", By: "Dr Example", On: "today"},
	)
	l.write("s", student, "hold-countersigned", 0, visit.HoldCountersigned{Hold: visit.UUID(uid(601))})
	s := visit.Reduce(asked(), l.events)
	assert.Equal(t, visit.HoldRejected, holdOf(s, 600).Status)
	assert.Equal(t, visit.HoldRejected, holdOf(s, 602).Status, "a student does not supervise")
	require.Equal(t, visit.Live, holdOf(s, 601).Status)
	assert.Contains(t, holdOf(s, 601).Remarks[0], "Not countersigned")
	assert.Len(t, s.Rejected, 2)
	l.add("a", "hold-countersigned", 0, visit.HoldCountersigned{Hold: visit.UUID(uid(601))})
	h := holdOf(visit.Reduce(asked(), l.events), 601)
	assert.Equal(t, therapist, h.Countersigned)
	assert.Empty(t, h.Remarks)
}

// D7: every type of event has a row, and a role without the right is refused.
func TestD7EveryEventTypeByRole(t *testing.T) {
	var types []string
	for k := range visit.Types() {
		types = append(types, k)
	}
	assert.Len(t, types, len(visit.Kinds()))
	roles := map[rights.Role]string{
		rights.Owner: owner, rights.Therapist: therapist, rights.Student: student, rights.FrontDesk: desk,
		rights.Nobody: uid(999),
	}
	for _, kind := range types {
		for role, author := range roles {
			l := &log{}
			l.write("a", author, kind, 0, map[string]any{})
			e := visit.Today().Validator(asked()).Admit(withBody(l.events[0], kind))
			refused := e.Verdict == visit.Rejected && len(e.Why) > 4 && e.Why[:9] == "This role"
			assert.Equal(t, !visit.MayWrite(role, kind), refused, "%s by %s: %s", kind, role, e.Why)
		}
	}
}

// withBody gives an event a body that reads, where an empty one does not.
func withBody(e visit.Event, kind string) visit.Event {
	l := &log{}
	c := charted(500, "soleus")
	bodies := map[string]any{
		"point-charted":     c,
		"client-note-added": visit.ClientNoteAdded{Text: "It pulls."},
		"point-corrected":   c,
		"point-removed":     visit.PointRemoved{Point: c.Point},
		"point-moved": visit.PointMoved{
			Point:  c.Point,
			Figure: c.Figure,
			View:   c.View,
			X:      c.X,
			Y:      c.Y,
			Place:  c.Place,
		},
		"point-rechecked":    visit.PointRechecked{Point: c.Point},
		"hold-started":       started(600, 500, "soleus"),
		"hold-event":         happened(600, 0, "contact", nil),
		"hold-ended":         visit.HoldEnded{Hold: c.Point, Outcome: "released"},
		"hold-countersigned": visit.HoldCountersigned{Hold: c.Point},
		"range-measured": visit.RangeMeasured{
			Movement: "cervical.rotation",
			Side:     "left",
			Moment:   "before",
			Felt:     "pull",
		},
		"screening-answered": yes("fever", ""),
		"screening-cleared":  visit.ScreeningCleared{Question: "fever", By: "Dr Example", On: "today"},
		"block-overridden":   visit.BlockOverridden{Point: c.Point, Reason: "A reason of ten letters and more."},
		"consent-recorded":   visit.ConsentRecorded{Area: "visit", Given: true},
		"drawing-painted": visit.DrawingPainted{
			Figure:  body.Version,
			Strokes: []visit.Stroke{{Kind: "ache", Intensity: 3, Cells: heel()}},
		},
		"test-done":      visit.TestDone{Test: "lift-off", Side: "left", Result: "positive"},
		"sign-seen":      visit.SignSeen{Sign: "squat-knees-in", Side: "left"},
		"loads-declared": visit.LoadsDeclared{Loads: []ids.Load{"running"}},
		"posture-read": visit.PostureRead{
			Posture: assess.Posture{Measure: "shoulder-height", HighSide: "left", Degrees: new(float64)},
		},
		"gauge-read": visit.GaugeRead{
			Gauge:  assess.Gauge{ID: "toe-touch", Side: "midline", Value: new(float64)},
			Moment: "before",
		},
		"note-written":       visit.NoteWritten{Text: "x"},
		"note-drafted":       visit.NoteDrafted{},
		"note-signed":        visit.NoteSigned{Name: "T. Hart"},
		"note-countersigned": visit.NoteCountersigned{Name: "T. Hart"},
		"addendum-written":   visit.Addendum{Text: "x"},
		"event-undone":       visit.EventUndone{Event: c.Point},
		"point-identified":   visit.PointIdentified{Point: c.Point},
		"threshold-measured": visit.ThresholdMeasured{
			Point: c.Point, Trials: []float64{200}, TipCM2: 1,
		},
		"judgement-made":  visit.JudgementMade{Point: c.Point},
		"protocol-chosen": visit.ProtocolChosen{Point: c.Point},
		"muscle-searched": visit.MuscleSearched{Muscle: "soleus", Side: "left", Result: "nothing"},
		"plan-made":       visit.PlanMade{Minutes: 45},
		"next-noted":      visit.NextNoted{Text: "x"},
		"asking-put-off": visit.AskingPutOff{
			Reason: "Found by chance while draping.", Areas: []safety.Area{"groin"},
		},
		"reaction-noted": visit.ReactionNoted{Since: "better"},
		"recheck-noted":  visit.RecheckNoted{Walk: "easier"},
		"sequence-begun": visit.SequenceBegun{Run: c.Point, Name: "x", Steps: []visit.RunStep{
			{
				Technique: "breathing-together", Where: "posterior-neck", Side: "midline",
				Dose: sequence.Dose{Breaths: new(5)},
			},
		}},
		"sequence-event": visit.SequenceHappened{Run: c.Point, Step: 1, Event: "begin"},
		"letter-written": visit.Letter{To: "Dr. Ilo Brandt", Text: "x"},
		"incident-recorded": visit.Incident{
			Happened: "A fall from the table.", Done: "Looked after.", Told: "The owner.",
		},
	}
	if b, ok := bodies[kind]; ok {
		e.Body = l.write("x", e.Author, kind, 0, b).Body
	}
	return e
}

// D14: numbers that come in after the end are sorted in and replayed, and a
// claim that differs is a remark.
func TestD14LateNumbersAreSortedInAfterTheEnd(t *testing.T) {
	l := pressedAt("soleus")
	l.add("a", "hold-event", 0, happened(600, 2000, "score", 6))
	l.add("a", "hold-event", 0, happened(600, 40_000, "release", nil))
	l.add(
		"a",
		"hold-ended",
		0,
		visit.HoldEnded{Hold: visit.UUID(uid(600)), Outcome: "unchanged", PressureMS: 32_000, Stages: new(1)},
	)
	h := holdOf(visit.Reduce(asked(), l.events), 600)
	require.Equal(t, visit.Kept, h.Status)
	require.Equal(t, treat.Unchanged, h.Summary.Outcome)
	l.add("pad", "hold-event", 0, happened(600, 25_000, "score", 3))
	h = holdOf(visit.Reduce(asked(), l.events), 600)
	assert.Equal(t, visit.Kept, h.Status)
	assert.Equal(t, treat.Reduced, h.Summary.Outcome)
	require.Len(t, h.Remarks, 2)
	assert.Contains(t, h.Remarks[0], "the device had said unchanged")
	assert.Contains(t, h.Remarks[1], "after the end")
}

// D15: the place pressed has ceilings of its own, and a point is on its muscle.
func TestD15CeilingsByPlaceAndPointsOnTheirMuscle(t *testing.T) {
	l := &log{}
	l.agree("a")
	c := charted(500, "soleus")
	neck := charted(500, "sternocleidomastoid-sternal")
	c.View, c.X, c.Y = neck.View, neck.X, neck.Y
	l.add("a", "point-charted", 0, c)
	s := visit.Reduce(asked(), l.events)
	assert.Empty(t, s.Points)
	assert.Contains(t, s.Rejected[0].Reason, "$.body.place")
	other := charted(501, "soleus")
	other.Side = ids.Right
	l.add("a", "point-charted", 0, other)
	assert.Len(t, visit.Reduce(asked(), l.events).Rejected, 2, "the other side")
	wild := charted(502, "soleus")
	wild.Place.Fibre = 9
	l.add("a", "point-charted", 0, wild)
	assert.Len(t, visit.Reduce(asked(), l.events).Rejected, 3, "a fibre that is not there")

	// A muscle without ceilings of its own, pressed in the armpit.
	latissimus := muscleOf("latissimus-dorsi")
	for i := range latissimus.Parts {
		for pct := 0.0; pct <= 100; pct += 5 {
			at := chartedAt(503, "latissimus-dorsi", atlas.FibrePlace{Fibre: i, AlongPct: pct})
			limits, _ := safety.Site("latissimus-dorsi", where(at))
			places := where(at)
			for i, p := range places {
				if i == 0 { // the region; after it what is to be kept off there
					_, from := safety.Site("latissimus-dorsi", places[:1])
					assert.Equal(t, p.Region == "axilla", from == "the armpit", "%v", p)
				}
				danger := slices.ContainsFunc(places, func(p safety.Place) bool { return p.Tier == safety.Danger })
				assert.Equal(t, p.Region == "axilla" || p.Region == "posterior-lower-ribs" || danger,
					limits.Hard == 6, "%v", p)
			}
		}
	}
}

// Every usual site of the atlas is a place on its muscle.
func TestEveryUsualSiteIsAPlaceOnItsMuscle(t *testing.T) {
	for _, m := range atlas.All() {
		for _, s := range m.Sites {
			for _, side := range []ids.Side{ids.Left, ids.Right} {
				f := s.Place(184)
				v, p := m.OnFigure(f, side, 184)
				assert.Empty(t, m.Carries(v, p, f, side, 184), "%s %s %s", m.ID, s.ID, side)
			}
		}
	}
}

// A hold names the position and the contact where they matter, and neither may
// be one that is forbidden.
func TestPositionsAndContactsThatAreForbidden(t *testing.T) {
	hold := func(ctx visit.Context, muscle ids.Muscle, contact ids.Contact, pos ids.Position, set string) visit.Hold {
		l := &log{}
		l.agreeAll("a", muscle)
		l.add("a", "point-charted", 0, charted(500, muscle))
		h := started(600, 500, muscle)
		h.Start = adapted(t, h.Start, visit.Reduce(ctx, l.events).Screening.Limits)
		h.Contact, h.Position, h.MuscleSet = contact, pos, set
		l.add("a", "hold-started", 0, h)
		return holdOf(visit.Reduce(ctx, l.events), 600)
	}
	with := func(q ids.Question) visit.Context {
		return carried(asked(), safety.Answer{Question: q, Answer: "yes"})
	}
	pregnant, thinner := with("pregnancy"), with("anticoagulant")
	for _, c := range []struct {
		name    string
		ctx     visit.Context
		muscle  ids.Muscle
		contact ids.Contact
		pos     ids.Position
		set     string
		why     string
	}{
		{"pregnant, face-down", pregnant, "infraspinatus", "thumb-pad", "prone", "", "position"},
		{"pregnant, nobody said how", pregnant, "infraspinatus", "thumb-pad", "", "", "Name the client's position"},
		{"pregnant, on the side", pregnant, "infraspinatus", "thumb-pad", "side-lying-right", "", ""},
		{"an elbow in the neck", asked(), "scalenus-medius", "elbow", "supine", "", "Not with the elbow"},
		{"nobody said with what", asked(), "scalenus-medius", "", "supine", "", "Name the contact"},
		{"knuckles on the scalenes", asked(), "scalenus-medius", "knuckle", "supine", "", "Not with the knuckle"},
		{"fingers on the scalenes", asked(), "scalenus-medius", "fingertips", "supine", "", ""},
		{"an elbow in the buttock", asked(), "gluteus-maximus", "elbow", "prone", "", ""},
		{
			"blood thinner, thumb on tension", thinner, "infraspinatus", "thumb-pad", "prone", "tension",
			"slack or with a broad",
		},
		{"blood thinner, thumb in slack", thinner, "infraspinatus", "thumb-pad", "prone", "slack", ""},
		{"blood thinner, palm on tension", thinner, "infraspinatus", "palm", "prone", "tension", ""},
	} {
		h := hold(c.ctx, c.muscle, c.contact, c.pos, c.set)
		assert.Equal(t, c.why != "", h.Status == visit.HoldRejected, "%s: %s", c.name, h.Why)
		assert.Contains(t, h.Why, c.why, c.name)
	}
	// Both are shown where one chooses.
	l := &log{}
	l.add("a", "point-charted", 0, charted(500, "suboccipitals"))
	p := visit.Reduce(pregnant, l.events).Points[0]
	assert.NotEmpty(t, p.Contacts)
	for _, x := range p.Positions {
		assert.Equal(t, x.ID == "prone" || x.ID == "supine", x.Why != "", x.ID)
	}
}

// What a version of the rules, a figure and the ceilings were when a hold was
// accepted is not asked again.
func TestANewLawLeavesOldHolds(t *testing.T) {
	l := pressedAt("soleus")
	l.add("a", "hold-event", 0, happened(600, 2000, "score", 6))
	l.add("a", "hold-event", 0, happened(600, 30_000, "score", 4))
	l.add("a", "hold-event", 0, happened(600, 33_000, "release", nil))
	l.add(
		"a",
		"hold-ended",
		0,
		visit.HoldEnded{Hold: visit.UUID(uid(600)), Outcome: "reduced", PressureMS: 33_000, Stages: new(1)},
	)
	stored := judged(visit.Today(), asked(), l.events)
	before := visit.Today().Reduce(asked(), stored)
	law := visit.Rules{
		Coach:  "2099-01",
		Figure: "figure-3",
		Site: func(ids.Muscle, []safety.Place) (safety.Limits, string) {
			return safety.Limits{Target: 1, Soft: 1, Hard: 1, CapMS: 10_000}, "everywhere"
		},
	}
	after := law.Reduce(asked(), stored)
	assert.Equal(t, before.Holds[0].Summary, after.Holds[0].Summary)
	assert.Equal(t, visit.Kept, after.Holds[0].Status)
	assert.Empty(t, after.Holds[0].Remarks)
	assert.Len(t, after.Points, 1)
	assert.Equal(t, "figure-3", after.Points[0].Figure, "carried onto the new figure")
	// A new hold is judged by the new law.
	l.add("a", "hold-started", 0, started(601, 500, "soleus"))
	again := law.Validator(asked())
	for _, e := range stored {
		again.Replay(e)
	}
	assert.Equal(t, visit.Rejected, again.Admit(*l.last()).Verdict)
}

// Rules that no program knows any more leave what was stored, marked.
func TestRulesThatCannotBeReplayedShowWhatWasStored(t *testing.T) {
	l := pressedAt("soleus")
	l.add("a", "hold-event", 0, happened(600, 2000, "score", 6))
	l.add("a", "hold-event", 0, happened(600, 25_000, "release", nil))
	l.add(
		"a",
		"hold-ended",
		0,
		visit.HoldEnded{Hold: visit.UUID(uid(600)), Outcome: "unchanged", PressureMS: 25_000, Stages: new(1)},
	)
	stored := judged(visit.Today(), asked(), l.events)
	require.NotNil(t, stored[len(stored)-1].Result, "kept with the ending")
	for i := range stored {
		if stored[i].Type == "hold-started" {
			h := started(600, 500, "soleus")
			h.Start.Rules = "1999-01"
			stored[i].Body = (&log{}).add("x", "hold-started", 0, h).Body
		}
	}
	h := visit.Reduce(asked(), stored).Holds[0]
	assert.Equal(t, visit.Kept, h.Status)
	assert.InDelta(t, 25, h.Summary.PressureS, 1e-9)
	assert.Contains(t, h.Remarks[0], "cannot replay")
}

// A place of an older figure is carried by its fibres.
func TestPlacesOfTheFirstFigureAreCarriedByTheirFibres(t *testing.T) {
	c := charted(500, "soleus")
	c.Figure, c.X, c.Y, c.View = "figure-0", 3, 4, "front"
	l := &log{}
	l.add("a", "point-charted", 0, c)
	l.last().Verdict = visit.Accepted
	p := visit.Reduce(asked(), l.events).Points[0]
	want := charted(500, "soleus")
	assert.Equal(t, want.View, p.View)
	assert.InDelta(t, want.X, p.X, 1e-9)
	assert.InDelta(t, want.Y, p.Y, 1e-9)
	assert.Equal(t, body.Version, p.Figure)
	// What is newly charted is placed on today's figure.
	l.add("a", "point-charted", 0, chartedAs(501, "figure-0"))
	assert.Contains(t, visit.Reduce(asked(), l.events).Rejected[0].Reason, "$.body.figure")
}

// What a tablet charted on figure version 1, and sends only now, is taken and
// lies where it lay; the event keeps what was written.
func TestAPlaceOfFigure1IsTakenAndCarried(t *testing.T) {
	old := charted(500, "soleus")
	old.Figure, old.X, old.Y = "figure-1", 184.5, 837
	old.Place = atlas.FibrePlace{Fibre: 0, AlongPct: 50}
	l := &log{}
	l.agree("a")
	l.add("a", "point-charted", 0, old)
	s := visit.Reduce(asked(), l.events)
	require.Empty(t, s.Rejected)
	p := s.Points[0]
	assert.Equal(t, body.Version, p.Figure)
	assert.Equal(t, body.Back, p.View)
	mm := body.Back.CMPerUnit(170) * 10
	assert.Less(t, body.Point{X: p.X, Y: p.Y}.Distance(body.Point{X: 187, Y: 846})*mm, 12.0, "the same place")
	assert.NotEqual(t, old.Place, p.Place, "in the sheet's own measures")
	b := started(600, 500, "soleus")
	b.Start, _ = treat.NewStart(treat.Request{
		Protocol: "graded-stages", Muscle: "soleus", Side: ids.Left,
		Where: muscleOf("soleus").PressedThrough(p.Place, p.Side, p.View, body.Point{X: p.X, Y: p.Y}),
	})
	l.add("a", "hold-started", 0, b)
	assert.NotEqual(t, visit.HoldRejected, holdOf(visit.Reduce(asked(), l.events), 600).Status)
	old.Point, old.Place.Fibre = visit.UUID(uid(501)), 7
	l.add("a", "point-charted", 0, old)
	assert.Len(t, visit.Reduce(asked(), l.events).Rejected, 1, "a fibre that figure 1 did not have")
}

// A muscle that is never pressed is neither charted, on any figure, nor searched, nor held.
func TestWhatIsNeverPressedIsNotTaken(t *testing.T) {
	const deep = ids.Muscle("longus-colli")
	c := chartedAt(500, deep, atlas.FibrePlace{AlongPct: 50})
	earlier := c
	earlier.Figure = "figure-2"
	l := &log{}
	l.agree("a")
	l.add("a", "point-charted", 0, c)
	l.add("a", "point-charted", 0, earlier)
	l.add("a", "muscle-searched", 0, visit.MuscleSearched{Muscle: deep, Side: ids.Left, Result: "nothing"})
	s := visit.Reduce(asked(), l.events)
	require.Len(t, s.Rejected, 3)
	for _, r := range s.Rejected {
		assert.Contains(t, r.Reason, "muscle")
		assert.Contains(t, r.Reason, "may be pressed")
	}
	_, err := treat.NewStart(treat.Request{Protocol: "graded-stages", Muscle: deep, Side: ids.Left})
	assert.ErrorContains(t, err, "may be pressed")
}

func chartedAs(point int, figure string) visit.PointCharted {
	c := charted(point, "soleus")
	c.Figure = figure
	return c
}

// judged gives events the verdicts that they get in the order of arrival.
func judged(law visit.Rules, ctx visit.Context, events []visit.Event) []visit.Event {
	j := law.Validator(ctx)
	out := make([]visit.Event, len(events))
	for i, e := range events {
		out[i] = j.Admit(e)
	}
	return out
}

// Age lowers the usual range on the screen and in the ranking alike.
func TestAgeLowersTheUsualRangeInTheRankingToo(t *testing.T) {
	deg := 63.0
	l := &log{}
	l.add(
		"a",
		"range-measured",
		0,
		visit.RangeMeasured{Movement: "cervical.rotation", Side: ids.Left, Moment: "before", Active: &deg},
	)
	young, old := asked(), asked()
	young.Age, old.Age = 40, 70
	reasons := func(ctx visit.Context) (n int) {
		for _, s := range assess.Rank(visit.Reduce(ctx, l.events).Findings(ctx, nil, 0), nil).Suspects {
			n += len(s.Why)
		}
		return n
	}
	assert.True(t, progress.Flag("cervical.rotation", deg, nil, young.Age).Flagged)
	assert.False(t, progress.Flag("cervical.rotation", deg, nil, old.Age).Flagged)
	assert.Positive(t, reasons(young))
	assert.Zero(t, reasons(old))
}

// A fibre that is not there is no spot, and no panic.
func TestSameSpotWithAFibreThatIsNotThere(t *testing.T) {
	p := visit.FoundPoint{PointCharted: charted(500, "soleus")}
	p.Place.Fibre = 9
	assert.Empty(t, visit.SameSpotAs([]visit.FoundPoint{p}, "soleus", ids.Left, p.Place, 170))
}

// A protocol that takes a joint to its end is refused where the answers forbid that, and
// the same point by another protocol is not.
func TestAProtocolThatStretchesAsksTheAnswers(t *testing.T) {
	for _, c := range []struct {
		protocol ids.Protocol
		status   visit.HoldStatus
		why      string
	}{
		{"contract-relax", visit.HoldRejected, "No forced range of a shoulder in its painful stage."},
		{"graded-stages", visit.Live, ""},
	} {
		l := &log{}
		l.agreeAll("a", "infraspinatus")
		l.add("a", "screening-answered", 0, answers("stiff-shoulder-painful", "yes", ""))
		l.add("a", "point-charted", 0, charted(500, "infraspinatus"))
		b := started(600, 500, "infraspinatus")
		s, err := treat.NewStart(treat.Request{
			Protocol: c.protocol, Muscle: "infraspinatus", Side: ids.Left,
			Where: where(charted(1, "infraspinatus")),
		})
		require.NoError(t, err)
		b.Start = s
		l.add("a", "hold-started", 0, b)
		h := visit.Reduce(asked(), l.events).Holds[0]
		assert.Equal(t, c.status, h.Status, c.protocol)
		assert.Equal(t, c.why, h.Why, c.protocol)
	}
}

// What the client says is kept word for word, in the order of saying; it can be undone, and
// a closed visit takes it no more.
func TestWhatTheClientSays(t *testing.T) {
	ctx := asked()
	var l log
	first := l.add("a", "client-note-added", 0, visit.ClientNoteAdded{Text: "It pulls on stairs.", Step: "find"})
	l.add("b", "client-note-added", 0, visit.ClientNoteAdded{Text: "Better already."})
	s := visit.Reduce(ctx, l.events)
	require.Len(t, s.ClientNotes, 2)
	assert.Equal(t, "It pulls on stairs.", s.ClientNotes[0].Text)
	assert.Equal(t, "find", s.ClientNotes[0].Step)
	assert.Equal(t, therapist, s.ClientNotes[0].Author)
	assert.Empty(t, s.Conflicts, "two notes stand side by side")
	assert.Equal(t, "The client: “Better already.”", visit.Timeline(ctx, l.events)[1].Text)

	l.add("a", "event-undone", 0, visit.EventUndone{Event: visit.UUID(first.ID)})
	assert.Len(t, visit.Reduce(ctx, l.events).ClientNotes, 1)
	l.add("a", "client-note-added", 0, visit.ClientNoteAdded{Text: " "})
	l.add("a", "visit-closed", 0, visit.VisitClosed{})
	l.add("a", "client-note-added", 0, visit.ClientNoteAdded{Text: "Too late."})
	s = visit.Reduce(ctx, l.events)
	assert.Len(t, s.ClientNotes, 1)
	require.Len(t, s.Rejected, 2)
	assert.Contains(t, s.Rejected[0].Reason, "$.body.text")
	assert.Contains(t, s.Rejected[1].Reason, "closed")
}
