package visit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/visit"
)

// found charts a point with what was felt.
func found(point int, muscle ids.Muscle, felt visit.Palpation) visit.PointCharted {
	c := charted(point, muscle)
	c.Palpation = felt
	return c
}

func TestWhatWasNotSaidStaysUnsaid(t *testing.T) {
	l := &log{}
	l.add("a", "point-charted", 0, found(500, "soleus", visit.Palpation{}))
	s := visit.Reduce(asked(), l.events)
	require.Len(t, s.Points, 1)
	p := s.Points[0]
	assert.Empty(t, p.Band)
	assert.Nil(t, p.Grade)
	assert.Nil(t, p.NPRS)
	assert.Nil(t, p.Twitch)
	w := s.Work(asked(), nil, nil)
	assert.Equal(t, "tender-spot", string(w.Points[0].Certainty))
	assert.Len(t, w.Points[0].Judged.Unsaid, 4)
}

func TestANumberOfAnotherScaleIsKeptAsGiven(t *testing.T) {
	for _, c := range []struct {
		given float64
		scale string
		nprs  float64
		aside bool
	}{
		{3.5, "0-5", 7, false},
		{0, "0-5", 0, false},
		{5.5, "0-5", 11, true},
		{1, "1-10", 0, false},
		{10, "1-10", 10, false},
		{4, "1-10", 3.5, false},
		{0.5, "1-10", 0, true},
		{3, "0-5", 3, true}, // not what it comes to
	} {
		l := &log{}
		l.add(
			"a",
			"point-charted",
			0,
			found(500, "soleus", visit.Palpation{Given: &c.given, Scale: c.scale, NPRS: &c.nprs}),
		)
		s := visit.Reduce(asked(), l.events)
		assert.Len(t, s.Rejected, map[bool]int{true: 1}[c.aside], "%v on %s", c.given, c.scale)
	}
}

// What waits is what was open then: a later sensitive area is not among it.
func TestAskingPutOffKeepsItsAreas(t *testing.T) {
	l := &log{}
	l.add("a", "asking-put-off", 0, visit.AskingPutOff{Reason: "Asked on paper.", Areas: []safety.Area{"groin"}})
	l.add("b", "asking-put-off", 5, visit.AskingPutOff{
		Reason: "Cannot answer just now.", Areas: []safety.Area{"chest", "groin"},
	})
	put := visit.Reduce(asked(), l.events).PutOff
	require.NotNil(t, put)
	assert.Equal(t, "Cannot answer just now.", put.Text)
	assert.Equal(t, []safety.Area{"groin", "chest"}, put.Areas)
}

func TestASearchIsRecordedAndTakenBack(t *testing.T) {
	l := &log{}
	searched := func(result string) {
		l.add("a", "muscle-searched", 0, visit.MuscleSearched{Muscle: "soleus", Side: "left", Result: result})
	}
	suspects := []assess.Suspect{
		{Muscle: "soleus", Side: "left", Confidence: 0.9, Ready: true, Raised: true},
		{Muscle: "infraspinatus", Side: "left", Confidence: 0.3, Raised: true},
		{Muscle: "popliteus", Side: "left", Confidence: 0.8, Raised: true, Blocked: true},
		{Muscle: "temporalis", Side: "left", Confidence: 0.08},
	}
	list := func() []visit.SearchItem { return visit.Reduce(asked(), l.events).Work(asked(), nil, suspects).Search }
	require.Len(t, list(), 2, "neither what is blocked nor what nothing speaks for")
	assert.Equal(t, ids.Muscle("soleus"), list()[0].Muscle)
	searched("nothing")
	assert.Equal(t, "nothing", list()[0].Result)
	searched("not-reachable")
	assert.Equal(t, "not-reachable", list()[0].Result)
	searched("open")
	assert.Empty(t, list()[0].Result)
	l.add("a", "point-charted", 0, charted(500, "soleus"))
	assert.Equal(t, "found", list()[0].Result)
}

func TestASpotIsMergedAndSplitByHandAndThatIsTakenBack(t *testing.T) {
	l := &log{}
	l.add("a", "point-charted", 0, charted(500, "soleus"))
	earlier := visit.UUID(uid(300))
	e := l.add("a", "point-identified", 0, visit.PointIdentified{Point: visit.UUID(uid(500)), Identity: earlier})
	identity := func() visit.UUID { return visit.Reduce(asked(), l.events).Points[0].Identity }
	assert.Equal(t, earlier, identity())
	undo := l.add("a", "event-undone", 0, visit.EventUndone{Event: visit.UUID(e.ID)})
	assert.Equal(t, visit.UUID(uid(500)), identity())
	l.add("a", "event-undone", 0, visit.EventUndone{Event: visit.UUID(undo.ID)})
	assert.Equal(t, earlier, identity())
	l.add("a", "point-identified", 0, visit.PointIdentified{Point: visit.UUID(uid(500))})
	assert.Equal(t, visit.UUID(uid(500)), identity(), "split: a spot of its own")
	l.add("a", "point-identified", 0, visit.PointIdentified{Point: visit.UUID(uid(501))})
	assert.Len(t, visit.Reduce(asked(), l.events).Rejected, 1, "no such point")
}

func TestASpotJustBeyondTheToleranceIsOfferedNotMerged(t *testing.T) {
	m := muscleOf("soleus")
	here := charted(500, "soleus")
	near := here
	near.Point, near.Identity = visit.UUID(uid(300)), visit.UUID(uid(300))
	near.Place.AcrossMM += 15
	far := near
	far.Identity = visit.UUID(uid(301))
	far.Place.AcrossMM += 15
	require.True(t, m.PerhapsSameSpot(here.Place, near.Place, "left", 170))
	l := &log{}
	l.add("a", "point-charted", 0, here)
	s := visit.Reduce(asked(), l.events)
	w := s.Work(asked(), []visit.FoundPoint{{PointCharted: near}, {PointCharted: far}}, nil)
	require.Len(t, w.Points[0].Perhaps, 1)
	assert.Equal(t, near.Identity, w.Points[0].Perhaps[0].Identity)
	assert.Equal(t, visit.UUID(uid(500)), s.Points[0].Identity)
}

func TestAThresholdBelowTheOtherSideIsACriterion(t *testing.T) {
	l := &log{}
	l.add("a", "point-charted", 0, found(500, "soleus", visit.Palpation{}))
	id := visit.UUID(uid(500))
	l.add("a", "threshold-measured", 0, visit.ThresholdMeasured{Point: id, Trials: []float64{200, 210, 190}, TipCM2: 1})
	l.add("a", "threshold-measured", 0, visit.ThresholdMeasured{
		Point: id, Other: true, Trials: []float64{396}, TipCM2: 1,
	})
	s := visit.Reduce(asked(), l.events)
	assert.InDelta(t, 200, s.Points[0].Threshold.KPa, 1e-9)
	assert.InDelta(t, 5, s.Points[0].Threshold.CV, 1e-9)
	w := s.Work(asked(), nil, nil)
	assert.Equal(t, []string{"hypersensitive"}, w.Points[0].Judged.Criteria, "196 kPa below")
}

func TestTheTherapistsJudgementStandsBesideTheComputedOne(t *testing.T) {
	l := &log{}
	l.add("a", "point-charted", 0, charted(500, "soleus"))
	id := visit.UUID(uid(500))
	l.add("a", "judgement-made", 0, visit.JudgementMade{
		Point: id, Activity: "latent", Reason: "Felt only under hard pressure.",
	})
	w := visit.Reduce(asked(), l.events).Work(asked(), nil, nil).Points[0]
	assert.Equal(t, "latent", string(w.Activity))
	assert.Equal(t, "active", string(w.Judged.Activity))
	l.add("a", "judgement-made", 0, visit.JudgementMade{Point: id, Activity: "latent"})
	assert.Len(t, visit.Reduce(asked(), l.events).Rejected, 1, "without a reason it does not stand")
	l.add("a", "judgement-made", 0, visit.JudgementMade{Point: id})
	w = visit.Reduce(asked(), l.events).Work(asked(), nil, nil).Points[0]
	assert.Equal(t, "active", string(w.Activity), "taken back")
}

func TestThisClientsOwnMapCountsFromTheSecondTimeOn(t *testing.T) {
	heel, temple := safety.Place{Region: "heel", Side: "left"}, safety.Place{Region: "temple", Side: "left"}
	c := charted(500, "soleus")
	c.Identity = visit.UUID(uid(300))
	l := &log{}
	l.add("a", "point-charted", 0, c)
	s := visit.Reduce(asked(), l.events)
	own := func(answers ...visit.SpotAnswer) []safety.Place {
		before := visit.FoundPoint{PointCharted: c, Answers: answers, Own: visit.OwnMap(answers)}
		return s.Work(asked(), []visit.FoundPoint{before}, nil).Points[0].Own
	}
	once := visit.SpotAnswer{Places: []safety.Place{heel, temple}}
	assert.Empty(t, own(once), "once may be chance")
	assert.Equal(t, []safety.Place{heel}, own(once, visit.SpotAnswer{Places: []safety.Place{heel}}))
}

func TestWhatWorkedLastTimeIsSuggested(t *testing.T) {
	c := charted(500, "infraspinatus")
	c.Identity = visit.UUID(uid(300))
	l := &log{}
	l.add("a", "point-charted", 0, c)
	before := visit.FoundPoint{PointCharted: c, Worked: "pulses"}
	w := visit.Reduce(asked(), l.events).Work(asked(), []visit.FoundPoint{before}, nil).Points[0]
	assert.Equal(t, ids.Protocol("pulses"), w.Suggested.Protocol)
	l.add("a", "protocol-chosen", 0, visit.ProtocolChosen{Point: c.Point, Protocol: "slack-hold"})
	w = visit.Reduce(asked(), l.events).Work(asked(), []visit.FoundPoint{before}, nil).Points[0]
	assert.Equal(t, ids.Protocol("pulses"), w.Suggested.Protocol)
	require.NotNil(t, w.Taken)
	assert.Equal(t, ids.Protocol("slack-hold"), w.Taken.Protocol)
}

// threePoints are active and lie in one position; a plan of 25 minutes has room
// for them.
func threePoints(l *log) {
	for i, m := range ids.List[ids.Muscle]("infraspinatus gluteus-medius soleus") {
		l.add("a", "point-charted", 0, charted(500+i, m))
	}
}

func planning(t *testing.T, l *log, minutesOn float64) visit.PlanState {
	t.Helper()
	s := visit.Reduce(asked(), l.events)
	p, err := s.Planning(asked(), nil, s.Work(asked(), nil, nil), nil, s.PlanMS+int64(minutesOn*60_000))
	require.NoError(t, err)
	return p
}

func treatedIn(p visit.PlanState) (out []string) {
	for _, s := range p.Steps {
		if s.Kind == "treat" {
			out = append(out, s.Point)
		}
	}
	return out
}

func TestThePlanFlowsAgainFromTheRealTime(t *testing.T) {
	l := &log{}
	threePoints(l)
	assert.False(t, planning(t, l, 0).Accepted)
	l.add("a", "plan-made", 0, visit.PlanMade{Minutes: 32})
	first := planning(t, l, 0)
	assert.True(t, first.Accepted)
	require.Len(t, treatedIn(first), 3)
	assert.Empty(t, first.Says)
	later := planning(t, l, 17)
	assert.Less(t, len(treatedIn(later)), 3, "fifteen minutes left, ten of them to end")
	assert.Contains(t, later.Says, "15 minutes left: drop ")
	l.add("a", "plan-made", 0, visit.PlanMade{
		Minutes: 32, Order: []visit.UUID{visit.UUID(uid(502)), visit.UUID(uid(500))},
		Dropped: []visit.UUID{visit.UUID(uid(501))},
	})
	by := planning(t, l, 0)
	assert.Equal(t, []string{uid(502), uid(500)}, treatedIn(by))
	l.add("a", "plan-made", 0, visit.PlanMade{Minutes: 32, Order: []visit.UUID{visit.UUID(uid(999))}})
	assert.Len(t, visit.Reduce(asked(), l.events).Rejected, 1, "a plan is of this visit's points")
	l.add("a", "point-removed", 0, visit.PointRemoved{Point: visit.UUID(uid(502))})
	assert.Equal(t, []string{uid(500)}, treatedIn(planning(t, l, 0)), "what was taken away leaves the plan")
}

func TestAVisitLeavesWhereItStopped(t *testing.T) {
	l := &log{}
	l.agreeAll("a", "infraspinatus")
	threePoints(l)
	l.add("a", "plan-made", 0, visit.PlanMade{Minutes: 40, Dropped: []visit.UUID{visit.UUID(uid(501))}})
	l.add("a", "hold-started", 0, started(600, 500, "infraspinatus"))
	for _, e := range []visit.HoldHappened{
		happened(600, 0, "contact", nil), happened(600, 3000, "score", 6), happened(600, 24_000, "score", 2),
		happened(600, 26_000, "release", nil),
	} {
		l.add("a", "hold-event", 0, e)
	}
	l.add("a", "next-noted", 0, visit.NextNoted{Text: "Look at the other hip."})
	s := visit.Reduce(asked(), l.events)
	left := s.LeftOff()
	require.Len(t, left.Points, 3)
	require.Len(t, left.Points[0].Holds, 1)
	assert.Equal(t, "graded-stages", left.Points[0].Holds[0].Protocol)
	assert.InDelta(t, 26, left.Points[0].Holds[0].PressureS, 1e-9)
	assert.Equal(t, "Left out by hand.", left.Points[1].LeftOut)
	assert.Equal(t, "Not reached.", left.Points[2].LeftOut)
	assert.Equal(t, "Look at the other hip.", left.Next)
	protocol, at := s.LetGo(visit.UUID(uid(500)))
	assert.Equal(t, "graded-stages", protocol)
	assert.Positive(t, at)
}
