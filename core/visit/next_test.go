package visit_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/visit"
)

// whys gives the points of a list with their reasons.
func whys(list []visit.PointWhy) map[string]string {
	out := map[string]string{}
	for _, p := range list {
		out[string(p.Point)] = p.Why
	}
	return out
}

// hold writes a whole hold at a point that ends by a word.
func (l *log) hold(id, point int, s visit.HoldStarted, ends string) {
	l.add("a", "hold-started", 0, s)
	l.add("a", "hold-event", 0, happened(id, 0, "contact", nil))
	l.add("a", "hold-event", 0, happened(id, 4000, "score", 6))
	l.add("a", "hold-event", 0, happened(id, 20_000, ends, nil))
	l.add("a", "hold-ended", 0, visit.HoldEnded{Hold: visit.UUID(uid(id)), Outcome: "unchanged"})
}

func TestWhatComesAfterAHold(t *testing.T) {
	ctx := asked()
	var l log
	l.agree("a")
	for n, m := range map[int]string{50: "soleus", 51: "tibialis-anterior", 52: "infraspinatus", 53: "deltoid-middle"} {
		l.add("a", "point-charted", 0, charted(n, ids.Muscle(m)))
	}
	l.add("a", "plan-made", 0, visit.PlanMade{
		Minutes: 45, Order: []visit.UUID{visit.UUID(uid(50)), visit.UUID(uid(53)), visit.UUID(uid(51))},
	})
	l.hold(70, 50, started(70, 50, "soleus"), "release")
	s := visit.Reduce(ctx, l.events)
	require.Empty(t, s.Rejected)
	next := s.NextAfter(ctx, nil, visit.UUID(uid(70)))
	require.Len(t, next.Next, 3)
	assert.Equal(t, visit.PointWhy{Point: visit.UUID(uid(50)), Why: "Repeat from another angle"}, next.Next[0])
	assert.Equal(t, visit.PointWhy{Point: visit.UUID(uid(53)), Why: "Next in the plan."}, next.Next[1], "as planned")
	assert.Equal(t, visit.UUID(uid(51)), next.Next[2].Point, "two of the plan at most")
	assert.Empty(t, next.Closed)
	assert.Empty(t, s.NextAfter(ctx, nil, visit.UUID(uid(99))).Next, "no such hold")

	// What the client has stopped is not offered again at once.
	stopped := log{events: l.events[:len(l.events)-5], seq: l.seq, ms: l.ms}
	stopped.hold(70, 50, started(70, 50, "soleus"), "client-stop")
	s = visit.Reduce(ctx, stopped.events)
	assert.NotContains(t, whys(s.NextAfter(ctx, nil, visit.UUID(uid(70))).Next), uid(50))
}

// A site takes two treatments in a day, whichever of its points they were at.
func TestAThirdPointOfOneSiteIsNotOffered(t *testing.T) {
	ctx := asked()
	var l log
	l.agree("a")
	for _, n := range []int{50, 51, 52} {
		l.add("a", "point-charted", 0, charted(n, "soleus"))
	}
	l.hold(70, 50, started(70, 50, "soleus"), "release")
	l.hold(71, 51, started(71, 51, "soleus"), "release")
	s := visit.Reduce(ctx, l.events)
	next := s.NextAfter(ctx, nil, visit.UUID(uid(71)))
	assert.Empty(t, next.Next)
	assert.Contains(t, whys(next.Closed), uid(52))
}

func TestOnlyWhatNothingRestsOnIsUndoable(t *testing.T) {
	ctx := asked()
	var l log
	l.agree("a")
	consent := l.last().ID
	chart := l.add("a", "point-charted", 0, charted(50, "soleus")).ID
	search := l.add("a", "muscle-searched", 0,
		visit.MuscleSearched{Muscle: "iliacus", Side: "left", Result: "nothing"}).ID
	threshold := l.add("a", "threshold-measured", 0,
		visit.ThresholdMeasured{Point: visit.UUID(uid(50)), Trials: []float64{200}, TipCM2: 1}).ID
	all := []string{consent, chart, search, threshold}
	undoable := func() []string { return visit.Undoable(ctx, l.events, all, l.ms+1000) }
	assert.Equal(t, all, undoable())

	l.hold(70, 50, started(70, 50, "soleus"), "release")
	assert.Equal(t, []string{search, threshold}, undoable(), "consent and chart carry a hold")

	undone := l.add("a", "event-undone", 0, visit.EventUndone{Event: visit.UUID(search)}).ID
	assert.Equal(t, []string{threshold}, undoable(), "once is enough")
	assert.Equal(t, []string{undone}, visit.Undoable(ctx, l.events, []string{undone}, l.ms+1000), "redo")

	l.add("a", "visit-closed", 0, visit.VisitClosed{})
	assert.Empty(t, undoable())
	assert.Empty(t, visit.Undoable(ctx, l.events, []string{"none", ""}, l.ms))
}

func TestAPreviewSaysWhyAndWritesNothing(t *testing.T) {
	ctx := asked()
	var l log
	l.add("a", "point-charted", 0, charted(50, "soleus"))
	before := len(l.events)
	e := l.add("a", "hold-started", 0, started(70, 50, "soleus"))
	e.Version = 0
	l.events = l.events[:before]
	assert.Contains(t, visit.Preview(ctx, l.events, e), "No consent", "no consent yet")
	l.seq["a"]--
	l.add("a", "consent-recorded", 0, visit.ConsentRecorded{Area: safety.WholeVisit, Given: true})
	e.Seq = 9
	assert.Empty(t, visit.Preview(ctx, l.events, e))
	assert.Len(t, l.events, before+1)
}

// Each kind can be written by a page, and what may never be undone is not called undoable.
func TestKinds(t *testing.T) {
	kinds := map[string]bool{}
	for _, k := range visit.Kinds() {
		kinds[k.Type] = k.Undoable
	}
	assert.Len(t, kinds, len(visit.Types()))
	for _, never := range []string{"hold-started", "hold-event", "visit-closed", "note-signed", "event-undone"} {
		assert.False(t, kinds[never], never)
	}
	for _, may := range []string{"point-charted", "plan-made", "judgement-made", "threshold-measured"} {
		assert.True(t, kinds[may], may)
	}
}

// The timeline tells a visit in words: no id of ours, what was undone as undone, what was
// rejected with its reason.
func TestTheTimelineIsInWords(t *testing.T) {
	ctx := asked()
	var l log
	l.agree("a")
	l.add("a", "range-measured", 0, visit.RangeMeasured{
		Movement: "ankle.dorsiflexion-knee-bent", Side: "left", Moment: "before", Active: new(12.0),
	})
	chart := l.add("a", "point-charted", 0, charted(50, "soleus")).ID
	l.hold(70, 50, started(70, 50, "soleus"), "release")
	search := l.add("a", "muscle-searched", 0,
		visit.MuscleSearched{Muscle: "gluteus-minimus", Side: "left", Result: "not-reachable"}).ID
	l.add("a", "event-undone", 0, visit.EventUndone{Event: visit.UUID(search)})
	l.add("a", "event-undone", 0, visit.EventUndone{Event: visit.UUID(chart)}) // a hold rests on it
	l.write("a", student, "screening-cleared", 0,
		visit.ScreeningCleared{Question: "fever", By: "Dr Example", On: "today"})
	var texts []string
	for _, e := range visit.Timeline(ctx, l.events) {
		texts = append(texts, e.Text)
		assert.NotRegexp(t, `[a-z]-[a-z]|\.[a-z]|_`, strings.ReplaceAll(e.Text, "Dr Example", ""), e.Type)
		assert.Equal(t, e.Type == "muscle-searched", e.Undone, e.Text)
		assert.Equal(t, e.Type == "screening-cleared", e.Rejected != "", e.Text+": "+e.Rejected)
	}
	assert.Equal(t, []string{
		"Consent: visit", "Range measured: ankle dorsiflexion knee bent, left, before",
		"Point charted: Soleus, left, 6 of 10",
		"Hold begun: graded stages, Soleus, left", "Hold ended: unchanged",
		"Searched: Gluteus minimus, left: not reachable", "Cleared: fever, by Dr Example",
	}, texts)
}
