package note_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/note"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
)

func p[T any](v T) *T { return &v }

const left = ids.Left

// aVisit has something of everything that a note tells.
func aVisit() note.Visit {
	found := visit.PointCharted{Point: "a", Identity: "a", Muscle: "soleus", Side: left, Palpation: visit.Palpation{
		Band: "yes", Grade: p(3), NPRS: p(7.0), Referral: []ids.Region{"heel"}, Familiar: "yes", Twitch: p(true),
	}}
	hold := visit.Hold{
		ID: "h", Point: "a", StartedMS: 13*3_600_000 + 5*60_000, Status: visit.Kept, Contact: "thumb-pad",
		Position: "side-lying-left", MuscleSet: "slack",
		Start: treat.Start{Protocol: "graded-stages", Muscle: "soleus", Side: left},
		Summary: treat.Summary{
			Outcome: treat.Released, PressureS: 41.5, OverrunS: 2, Eased: 1, Signs: []string{"pulse"},
			Stages: []treat.StageRecord{{Stage: 1}, {Stage: 2}}, Limits: safety.Limits{Target: 5, Soft: 7, Hard: 9},
			Trace: []treat.TracePoint{{T: 5, Score: 6}, {T: 20, Score: 3.5}},
		},
	}
	return note.Visit{OffsetMin: 60, State: visit.State{
		Reason: "calf after running",
		Interview: &visit.InterviewNoted{
			Now:        p(6.0),
			Best:       p(0.0),
			Activities: []visit.Activity{{Name: "stairs", Score: 4}},
		},
		Answers: []visit.GivenAnswer{{ScreenedAnswer: visit.ScreenedAnswer{
			Question: "anticoagulant", Answer: "yes", Note: "since May",
		}}},
		Points: []visit.Point{{FoundPoint: visit.FoundPoint{PointCharted: found, AfterNPRS: p(3.0), AfterGrade: p(2)}}},
		Holds:  []visit.Hold{hold},
		Ranges: []visit.Range{{
			Movement: "ankle.dorsiflexion-knee-bent", Side: left, Before: p(9.0), After: p(14.0),
			Trials: []float64{8, 10},
			Tool:   "inclinometer",
		}},
		Searched: []visit.MuscleSearched{{Muscle: "popliteus", Side: left, Result: "nothing"}},
		Next:     "start with the outer calf",
	}}
}

// Holds, their seconds and their scores are there; what was said and measured too, with its units.
func TestANoteIsCompleteAndExact(t *testing.T) {
	n := note.Write(aVisit())
	assert.Equal(t, strings.TrimSpace(`
Reason for the visit: calf after running.
Pain, 0–10: now 6, best 0.
Function (0 unable, 10 as before the problem): stairs 4.
Screening, answered yes: anticoagulant; since May.`), n.Subjective)
	assert.Equal(t, strings.TrimSpace(`
Ankle dorsiflexion knee bent, left: 9° (mean of 8, 10); after treatment 14°; by inclinometer.
Soleus, left: tenderness 3 of 4, score 7 of 10, taut band, local twitch, felt in heel, the pain that the client came with.
Searched: Popliteus, left: no point found.
Pressed at 14:05, Soleus, left: graded stages, thumb pad, lying on the left side, muscle on slack; target 5, ceilings 7 and 9; `+
		`42 s of pressure in 2 steps, 2 s over the limit; eased once; pulse; released, 6 → 3.5.
Recheck, Soleus, left: score 7 → 3, tenderness 3 → 2.`), n.Objective)
	assert.Contains(t, n.Assessment, "Soleus, left: active trigger point.")
	assert.Contains(t, n.Assessment,
		"Ankle dorsiflexion knee bent, left: 9° → 14°, clearly better.")
	assert.Contains(t, n.Assessment, "Score, Soleus, left: 7 → 3, clearly better.")
	assert.Contains(t, n.Plan, "Next time: start with the outer calf.")
	assert.Contains(t, n.Plan, "Stretch at home: Soleus, left:")
	assert.Contains(t, n.Plan, "Next visit: Some places still hurt when pressed: come again in 3 to 7 days")
}

// Two answers that ask for the same care are one line, and a remark ends in one stop.
func TestANoteSaysAThingOnce(t *testing.T) {
	v := aVisit()
	v.State.Screening.Rules = []safety.AppliedRule{
		{Outcome: safety.Adapt, Text: "A guardian consents."}, {Outcome: safety.Adapt, Text: "A guardian consents."},
	}
	v.State.Points[0].Note = "Slow to let go."
	n := note.Write(v)
	assert.Equal(t, 1, strings.Count(n.Assessment, "Precaution: A guardian consents."))
	assert.Contains(t, n.Objective, "Slow to let go.\n")
}

// What was not asked is not said: an empty visit claims nothing.
func TestAnEmptyVisitClaimsNothing(t *testing.T) {
	n := note.Write(note.Visit{})
	assert.Equal(t, "The client's story was not taken down.", n.Subjective)
	assert.Equal(t, "Nothing was measured, charted or pressed.", n.Objective)
	assert.Equal(t, "Nothing was found that would be judged.", n.Assessment)
}

// A hold that was set aside is told, with its reason, and counts nowhere.
func TestAHoldSetAsideIsToldAsSuch(t *testing.T) {
	v := aVisit()
	v.State.Holds[0].Status, v.State.Holds[0].Why = visit.HoldRejected, "No consent."
	n := note.Write(v)
	assert.Contains(t, n.Objective, "Set aside: No consent.")
	assert.NotContains(t, n.Objective, "42 s")
	assert.NotContains(t, n.Plan, "Stretch")
}

// Every gauge that the core reads stands in the note by its name, with its unit.
func TestGaugesAreToldWithTheirUnits(t *testing.T) {
	v := note.Visit{}
	for _, g := range assess.Gauges() {
		pair := visit.GaugePair{Gauge: g.ID, Side: g.Sides[0], Before: p(12.0), After: p(20.5)}
		if g.Unit == "" {
			pair = visit.GaugePair{Gauge: g.ID, Side: g.Sides[0], Kind: "apical"}
		}
		v.State.Gauges = append(v.State.Gauges, pair)
	}
	assert.Equal(t, strings.TrimSpace(`
Toe-touch: 12 cm; after treatment 20.5 cm.
Weight-bearing lunge, left: 12°; after treatment 20.5°.
Straight-leg raise, left: 12°; after treatment 20.5°.
Breathing at rest: apical.`), note.Write(v).Objective)
}
