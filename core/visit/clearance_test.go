package visit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/safety"
	"mokren/core/visit"
)

func answers(q ids.Question, a string, side ids.Side) visit.ScreeningAnswered {
	return visit.ScreeningAnswered{Answers: []visit.ScreenedAnswer{{Question: q, Answer: a, Side: side}}}
}

// corrected says no, and why the answer of a moment ago was a mistake.
func corrected(q ids.Question) visit.ScreeningAnswered {
	s := answers(q, "no", "")
	s.Answers[0].Corrects = "Touched by mistake."
	return s
}

// after lets so many minutes pass in the log.
func (l *log) after(minutes int64) { l.ms += minutes * 60_000 }

// stopped reports whether the answers of a log allow no treatment.
func (l *log) stopped() bool { return visit.Reduce(asked(), l.events).Screening.NoTreatment }

// A plain no lifts nothing that only a clearance lifts, whoever says it.
func TestANoLiftsNoEmergencyAndNoReferral(t *testing.T) {
	for _, c := range []struct {
		name, answer string
		question     ids.Question
		by           string
	}{
		{"a therapist's no after a refer-first yes", "yes", "calf-warm-swollen", therapist},
		{"the same therapist's no, at once, without a reason", "yes", "fever", therapist},
		{"a student's no after a refer-first yes", "yes", "calf-warm-swollen", student},
		{"a colleague's no after an emergency yes", "yes", "clot-breathless", colleague},
		{"an owner's no after what was not known", "unknown", "fever", owner},
		{"a no to a tear, which a clinician clears", "yes", "acute-muscle-tear", therapist},
	} {
		t.Run(c.name, func(t *testing.T) {
			l := &log{}
			l.add("a", "screening-answered", 0, answers(c.question, c.answer, ""))
			l.after(6)
			l.write("b", c.by, "screening-answered", 0, answers(c.question, "no", ""))
			assert.True(t, l.stopped())
		})
	}
}

// Another side's yes stands beside the first one, and does not take its place.
func TestAYesOfTheOtherSideLiftsNone(t *testing.T) {
	l := &log{}
	l.add("a", "screening-answered", 0, answers("calf-warm-swollen", "yes", ids.Left))
	l.after(6) // at once it would be a correction
	l.add("a", "screening-answered", 0, answers("calf-warm-swollen", "yes", ids.Right))
	l.add("a", "screening-cleared", 0, visit.ScreeningCleared{
		Question: "calf-warm-swollen", Side: ids.Right, By: "Dr Example", On: "today",
	})
	s := visit.Reduce(asked(), l.events).Screening
	require.Len(t, s.Rules, 1)
	assert.Equal(t, ids.Left, s.Rules[0].Side)
	l.add("a", "screening-cleared", 0, visit.ScreeningCleared{
		Question: "calf-warm-swollen", By: "Dr Example", On: "today",
	})
	assert.False(t, l.stopped(), "a clearance without a side is of every side")
}

// Who has given a wrong answer corrects it within five minutes, and not once a hold
// rests on it.
func TestAMistakenAnswerIsCorrectedForFiveMinutes(t *testing.T) {
	for _, c := range []struct {
		name    string
		by      string
		minutes int64
		stops   bool
	}{
		{"the author, at once", therapist, 0, false},
		{"the author, at 4 minutes", therapist, 4, false},
		{"the author, after 5 minutes", therapist, 5, true}, // one second has passed by itself
		{"somebody else, at once", colleague, 0, true},
	} {
		t.Run(c.name, func(t *testing.T) {
			l := &log{}
			l.add("a", "screening-answered", 0, answers("fever", "yes", ""))
			l.after(c.minutes)
			l.write("a", c.by, "screening-answered", 0, corrected("fever"))
			assert.Equal(t, c.stops, l.stopped())
		})
	}
	// Not once a hold rests on it; one that was begun before does not.
	for _, after := range []bool{false, true} {
		l := &log{}
		l.agreeAll("a", "soleus")
		l.add("a", "point-charted", 0, charted(500, "soleus"))
		hold := func() { l.add("a", "hold-started", 0, started(600, 500, "soleus")) }
		if !after {
			hold()
		}
		fracture := answers("healing-fracture", "yes", ids.Left)
		fracture.Answers[0].Regions = []ids.Region{"volar-forearm"}
		l.add("a", "screening-answered", 0, fracture)
		if after {
			hold()
		}
		l.add("a", "screening-answered", 0, corrected("healing-fracture"))
		s := visit.Reduce(asked(), l.events)
		require.Equal(t, visit.Live, s.Holds[0].Status, s.Holds[0].Why)
		assert.Len(t, s.Screening.Rules, map[bool]int{true: 1}[after])
	}
	// An undo is no way round it.
	l := &log{}
	e := l.add("a", "screening-answered", 0, answers("fever", "yes", ""))
	l.after(5)
	l.add("a", "event-undone", 0, visit.EventUndone{Event: visit.UUID(e.ID)})
	s := visit.Reduce(asked(), l.events)
	assert.True(t, s.Screening.NoTreatment)
	assert.Contains(t, s.Rejected[0].Reason, "record a clearance")
}

// A student's answer adds caution and takes none away.
func TestAStudentsNoReplacesNoYes(t *testing.T) {
	l := &log{}
	l.add("a", "screening-answered", 0, answers("anticoagulant", "yes", ""))
	l.after(6)
	l.write("b", student, "screening-answered", 0, answers("anticoagulant", "no", ""))
	assert.Equal(t, safety.Adapt, visit.Reduce(asked(), l.events).Screening.Outcome)
	l.write("b", colleague, "screening-answered", 0, answers("anticoagulant", "no", ""))
	assert.Equal(t, safety.Clear, visit.Reduce(asked(), l.events).Screening.Outcome)
}

// What a clearance may rest on, by what was answered.
func TestTheBasisOfAClearance(t *testing.T) {
	const reason = "She meant the other knee, years ago."
	for _, c := range []struct {
		name     string
		question ids.Question
		answer   string
		basis    visit.Basis
		note     string
		refused  string
	}{
		{"a clinician, an emergency", "clot-breathless", "yes", record.ByClinician, "", ""},
		{"no basis is a clinician's", "clot-breathless", "yes", "", "", ""},
		{"resolved, an emergency", "clot-breathless", "yes", record.ByResolved, "", "Only a clinician"},
		{"mistaken, an emergency", "clot-breathless", "yes", record.ByMistaken, reason, "Only a clinician"},
		{"resolved, an emergency that was not known", "clot-breathless", "unknown", record.ByResolved, "", ""},
		{"resolved, a fever", "fever", "yes", record.ByResolved, "", ""},
		{"resolved, a swollen joint", "swollen-joint", "yes", record.ByResolved, "", ""},
		{"resolved, a clot", "recent-clot", "yes", record.ByResolved, "", "A clinician clears this one"},
		{"resolved, a clot that was not known", "recent-clot", "unknown", record.ByResolved, "", ""},
		{"mistaken, with its reason", "recent-clot", "yes", record.ByMistaken, reason, ""},
		{"mistaken, without a reason", "recent-clot", "yes", record.ByMistaken, "oh", "$.body.note"},
		{"on nothing known", "recent-clot", "yes", "hearsay", "", "$.body.basis"},
	} {
		t.Run(c.name, func(t *testing.T) {
			l := &log{}
			l.add("a", "screening-answered", 0, answers(c.question, c.answer, ""))
			l.after(10)
			if c.answer == "unknown" && c.basis == record.ByResolved {
				l.add("a", "screening-answered", 0, answers(c.question, "no", ""))
			}
			l.add("a", "screening-cleared", 0, visit.ScreeningCleared{
				Question: c.question, Basis: c.basis, By: "Runa Holt", On: "today", Note: c.note,
			})
			s := visit.Reduce(asked(), l.events)
			assert.Equal(t, c.refused != "", s.Screening.NoTreatment)
			if c.refused != "" {
				assert.Contains(t, s.Rejected[0].Reason, c.refused)
			}
		})
	}
	// What was carried from an earlier visit is cleared on the same grounds.
	ctx := carried(asked(), safety.Answer{Question: "clot-breathless", Answer: "yes", DaysAgo: 3})
	l := &log{}
	l.add("a", "screening-cleared", 0, visit.ScreeningCleared{
		Question: "clot-breathless", Basis: record.ByResolved, By: "Runa Holt", On: "today",
	})
	assert.True(t, visit.Reduce(ctx, l.events).Screening.NoTreatment)
}

// A yes that arrives after a clearance was written before it on another device: it is
// not lifted by what did not know of it.
func TestAClearanceLiftsNothingThatArrivedLater(t *testing.T) {
	l := &log{}
	l.add("a", "screening-answered", 0, answers("fever", "yes", ""))
	l.after(10)
	l.add("a", "screening-cleared", 0, visit.ScreeningCleared{Question: "fever", By: "Dr Example", On: "today"})
	require.False(t, l.stopped())
	l.add("b", "screening-answered", 0, answers("fever", "yes", ""))
	l.last().DeviceMS -= 5 * 60_000
	l.last().HappenedMS = l.last().DeviceMS
	assert.True(t, l.stopped())
}

// What was yes is asked singly, however the rest of its group is answered.
func TestWhatWasYesIsAskedSingly(t *testing.T) {
	s := safety.Screen([]safety.Answer{
		{Question: "pregnancy", Answer: "yes", DaysAgo: 20},
		{Question: "fever", Answer: "no", DaysAgo: 20},
		{Question: "osteoporosis", Answer: "yes", DaysAgo: 20},
	})
	assert.Contains(t, s.Missing, ids.Question("pregnancy"), "asked again at each visit")
	assert.Contains(t, s.Missing, ids.Question("fever"))
	assert.Equal(t, []ids.Question{"pregnancy"}, s.Singly)
}

// An override is of one point where it lay, and of what was known: a correction that
// moves it, and a caution that comes later, end it.
func TestAnOverrideDoesNotTravel(t *testing.T) {
	veins := visit.ScreenedAnswer{Question: "varicose-veins", Answer: "yes", Side: ids.Left}
	for _, m := range []ids.Muscle{"soleus", "semimembranosus"} {
		for _, p := range where(charted(1, m)) {
			veins.Regions = append(veins.Regions, p.Region)
		}
	}
	override := visit.BlockOverridden{Point: visit.UUID(uid(500)), Reason: "The vein is two hands away."}
	felt := charted(500, "soleus")
	harder := felt
	seven := 7.0
	harder.NPRS = &seven
	for _, c := range []struct {
		name   string
		then   func(l *log)
		stands bool
	}{
		{"nothing changes", func(*log) {}, true},
		{"what was felt is corrected", func(l *log) { l.add("a", "point-corrected", 0, harder) }, true},
		{"it is another muscle", func(l *log) {
			l.add("a", "point-corrected", 0, charted(500, "semimembranosus"))
		}, false},
		{"a later yes of another question", func(l *log) {
			l.add("b", "screening-answered", 0, visit.ScreeningAnswered{Answers: []visit.ScreenedAnswer{{
				Question: "open-skin", Answer: "yes", Side: ids.Left, Regions: veins.Regions,
			}}})
		}, false},
		{"and overridden again", func(l *log) {
			l.add("a", "point-corrected", 0, charted(500, "semimembranosus"))
			l.add("a", "block-overridden", 0, override)
		}, true},
	} {
		t.Run(c.name, func(t *testing.T) {
			l := &log{}
			l.agreeAll("a", "soleus")
			l.agreeAll("a", "semimembranosus")
			l.add("a", "screening-answered", 0, visit.ScreeningAnswered{Answers: []visit.ScreenedAnswer{veins}})
			l.add("a", "point-charted", 0, felt)
			require.NotEmpty(t, visit.Reduce(asked(), l.events).Points[0].Blocked)
			l.add("a", "block-overridden", 0, override)
			require.Empty(t, visit.Reduce(asked(), l.events).Points[0].Blocked)
			c.then(l)
			assert.Equal(t, c.stands, visit.Reduce(asked(), l.events).Points[0].Blocked == "")
		})
	}
}
