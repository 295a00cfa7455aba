package visit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/sequence"
	"mokren/core/visit"
)

// kneading is a step at a calf.
func kneading(side ids.Side) visit.RunStep {
	return visit.RunStep{
		Technique: "kneading", Where: "soleus", Side: side, Position: "prone", Contact: "palm",
		Dose: sequence.Dose{Seconds: new(45.0)}, Seconds: 45,
	}
}

func begun(run int, steps ...visit.RunStep) visit.SequenceBegun {
	return visit.SequenceBegun{Run: visit.UUID(uid(run)), Name: "Calf", Steps: steps}
}

func stepped(run, step int, event string, took float64) visit.SequenceHappened {
	out := visit.SequenceHappened{Run: visit.UUID(uid(run)), Step: step, Event: event}
	if event == "done" || event == "stop" {
		out.Seconds = &took
	}
	return out
}

// A run is what its events come to, in whatever order they arrive; the note says it in one line,
// and a side that was begun and not finished is told of.
func TestASequenceIsRunAndTold(t *testing.T) {
	l := &log{}
	l.agreeAll("a", "soleus")
	l.add("a", "sequence-begun", 0, begun(700, kneading(ids.Left), kneading(ids.Right), kneading(ids.Left)))
	l.add("a", "sequence-event", 0, stepped(700, 1, "begin", 0))
	l.add("a", "sequence-event", 0, stepped(700, 1, "done", 50))
	s := visit.Reduce(asked(), l.events)
	require.Empty(t, s.Rejected)
	require.Len(t, s.Runs, 1)
	assert.Equal(t, 1, s.Runs[0].At)
	assert.Equal(t, "done", s.Runs[0].Steps[0].Outcome)
	assert.Equal(t, []string{"Kneading, Soleus, right"}, s.OneSided)
	assert.Equal(t, "Calf: 1 of 3 steps, 50 s, left side.", s.Runs[0].Words())

	l.add("b", "sequence-event", 0, stepped(700, 2, "begin", 0))
	l.add("b", "sequence-event", 0, stepped(700, 2, "done", 40))
	l.add("b", "sequence-event", 0, stepped(700, 3, "skip", 0))
	s = visit.Reduce(asked(), l.events)
	assert.Empty(t, s.OneSided)
	assert.Equal(t, "Calf: 2 of 3 steps, 2 min, both sides; left out: kneading, soleus, left.", s.Runs[0].Words())
	l.add("b", "sequence-event", 0, stepped(700, 4, "begin", 0))
	assert.Len(t, visit.Reduce(asked(), l.events).Rejected, 1, "there is no fourth step")
}

// A step that presses passes what a hold passes, when the sequence begins and at each beginning.
func TestEveryStepPassesTheRulesOfAHold(t *testing.T) {
	why := func(l *log) string {
		s := visit.Reduce(asked(), l.events)
		if len(s.Rejected) == 0 {
			return ""
		}
		return s.Rejected[len(s.Rejected)-1].Reason
	}
	bare := &log{}
	bare.agreeAll("a", "soleus")
	bare.add("a", "consent-recorded", 0, visit.ConsentRecorded{Area: "visit", Given: false})
	bare.add("a", "sequence-begun", 0, begun(700, kneading(ids.Left)))
	assert.Contains(t, why(bare), "No consent")

	closed := pressedAt("soleus", "skin-reaction")
	closed.add("a", "sequence-begun", 0, begun(700, kneading(ids.Left)))
	assert.Contains(t, why(closed), "Closed for today")

	blocked := &log{}
	blocked.agreeAll("a", "soleus")
	blocked.add("a", "screening-answered", 0, visit.ScreeningAnswered{Answers: []visit.ScreenedAnswer{
		{Question: "open-skin", Answer: "yes", Side: "left", Regions: []ids.Region{"upper-calf", "lower-calf"}},
	}})
	blocked.add("a", "sequence-begun", 0, begun(700, kneading(ids.Left)))
	assert.Contains(t, why(blocked), "Blocked by the screening")

	l := &log{}
	l.agreeAll("a", "soleus")
	bad := kneading(ids.Left)
	bad.Contact = "elbow"
	l.add("a", "sequence-begun", 0, begun(700, bad))
	assert.Contains(t, why(l), "contact")
	long := kneading(ids.Left)
	long.Dose.Seconds = new(900.0)
	l.add("a", "sequence-begun", 0, begun(701, long))
	assert.Contains(t, why(l), "$.body.steps[0].dose.seconds")
}

// An unwell client stops a warm-up as it stops a hold: nothing more is begun before the screening
// was asked again, and a sign closes the place for the day.
func TestAnUnwellClientStopsASequence(t *testing.T) {
	l := &log{}
	l.agreeAll("a", "soleus")
	breath := visit.RunStep{
		Technique: "breathing-together", Where: "posterior-neck", Side: "midline",
		Dose: sequence.Dose{Breaths: new(5)}, Seconds: 25,
	}
	l.add("a", "sequence-begun", 0, begun(700, kneading(ids.Left), kneading(ids.Right), breath))
	l.add("a", "sequence-event", 0, stepped(700, 1, "begin", 0))
	l.add("a", "sequence-event", 0, stepped(700, 1, "unwell", 0))
	l.add("a", "sequence-event", 0, stepped(700, 1, "stop", 12))
	for step := 2; step <= 3; step++ {
		l.add("a", "sequence-event", 0, stepped(700, step, "begin", 0))
	}
	s := visit.Reduce(asked(), l.events)
	require.Len(t, s.Rejected, 2)
	assert.True(t, s.ScreenAgain)
	assert.Contains(t, s.Rejected[0].Reason, "unwell")
	assert.Equal(t, []string{"unwell"}, s.Runs[0].Steps[0].Signs)
	l.add("a", "hold-started", 0, started(600, 500, "soleus"))
	assert.NotEqual(t, visit.Live, holdOf(visit.Reduce(asked(), l.events), 600).Status)
}

// What the offers lay out may be begun as it is: planning and admission ask the same rules.
func TestAnOfferMayBeBegun(t *testing.T) {
	l := &log{}
	l.agreeAll("a", "soleus")
	l.add("a", "point-charted", 0, charted(500, "soleus"))
	s := visit.Reduce(asked(), l.events)
	offers := s.SequenceOffers(ids.Left, nil, nil)
	require.Len(t, offers, len(ids.Sequences()))
	assert.Equal(t, ids.Sequence("calf-and-sole"), offers[0].Sequence, "the point lies there")
	for i, o := range offers {
		b := visit.SequenceBegun{Run: visit.UUID(uid(700 + i)), Sequence: o.Sequence, Name: o.Name}
		for _, x := range o.Laid.Steps {
			b.Steps = append(b.Steps, visit.RunStep{
				Technique: x.Technique, Where: x.Where, Side: x.Side, Position: x.Position, Contact: x.Contact,
				Dose: x.Dose, Seconds: x.Seconds, Text: x.Text, Point: visit.UUID(x.Point),
			})
		}
		if len(b.Steps) == 0 {
			continue
		}
		l.add("a", "sequence-begun", 0, b)
		s = visit.Reduce(asked(), l.events)
		require.Empty(t, s.Rejected, "%s", o.Sequence)
		assert.Len(t, o.Words, len(o.Laid.Steps))
	}
}

// What a hand did in a sequence counts toward its load; a step without a contact does not.
func TestHandsInASequenceCount(t *testing.T) {
	l := &log{}
	l.agreeAll("a", "soleus")
	breath := visit.RunStep{
		Technique: "breathing-together", Where: "posterior-neck", Side: "midline",
		Dose: sequence.Dose{Breaths: new(5)}, Seconds: 25,
	}
	l.add("a", "sequence-begun", 0, begun(700, kneading(ids.Left), breath, kneading(ids.Right)))
	for n := 1; n <= 2; n++ {
		l.add("a", "sequence-event", 0, stepped(700, n, "begin", 0))
		l.add("a", "sequence-event", 0, stepped(700, n, "done", 40))
	}
	l.add("a", "sequence-event", 0, stepped(700, 3, "skip", 0))
	uses := visit.Reduce(asked(), l.events).Runs[0].HandUses()
	require.Len(t, uses, 1)
	assert.Equal(t, ids.Contact("palm"), uses[0].Contact)
	assert.InDelta(t, 40, uses[0].Seconds, 1e-9)
}
