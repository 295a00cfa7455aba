package visit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/visit"
)

// again lists what is to be looked at again, with whether it has been.
func again(s visit.State) map[string]bool {
	out := map[string]bool{}
	for _, x := range s.Recheck {
		name := x.Kind
		for _, of := range []string{
			string(x.Movement), x.Gauge, string(x.Measure), string(x.Sign), x.Activity, string(x.Side),
		} {
			if of != "" {
				name += " " + of
			}
		}
		out[name] = x.Done
	}
	return out
}

func TestWhatWasNotRightIsLookedAtAgainAndNothingElse(t *testing.T) {
	l := pressedAt("soleus")
	l.add("a", "point-charted", 0, charted(501, "gastrocnemius-medial")) // charted, not pressed
	read := func(b visit.RangeMeasured) { l.add("a", "range-measured", 0, b) }
	short := func(side ids.Side, deg float64, moment string) visit.RangeMeasured {
		return visit.RangeMeasured{
			Movement: "cervical.rotation", Side: side, Active: &deg, Moment: moment, Tool: "inclinometer",
		}
	}
	read(short(ids.Left, 50, "before"))
	read(short(ids.Right, 78, "before"))
	usual := short(ids.Left, 45, "before")
	usual.Movement = "cervical.lateral-flexion"
	read(usual)
	slope := 3.2
	l.add("a", "posture-read", 0, visit.PostureRead{
		Posture: assess.Posture{Measure: "shoulder-height", HighSide: ids.Right, Degrees: &slope},
	})
	l.add("a", "sign-seen", 0, visit.SignSeen{Sign: "squat-knees-in", Side: ids.Left, Present: true})
	l.add("a", "threshold-measured", 0, visit.ThresholdMeasured{
		Point: visit.UUID(uid(500)), Trials: []float64{169}, TipCM2: 1,
	})
	l.add("a", "interview-noted", 0, visit.InterviewNoted{Activities: []visit.Activity{
		{Name: "Run for the bus", Score: 4}, {Name: "Sleep", Score: 10},
	}})
	s := visit.Reduce(asked(), l.events)
	require.Empty(t, s.Rejected)
	assert.Equal(t, map[string]bool{
		"point left": false, "threshold left": false, "range cervical.rotation left": false,
		"posture shoulder-height": false, "sign squat-knees-in left": false, "activity Run for the bus": false,
		"walk": false,
	}, again(s))

	level := 1.0
	read(short(ids.Left, 70, "after"))
	l.add("a", "posture-read", 0, visit.PostureRead{
		Posture: assess.Posture{Measure: "shoulder-height", HighSide: ids.Right, Degrees: &level}, Moment: "after",
	})
	l.add("a", "sign-seen", 0, visit.SignSeen{Sign: "squat-knees-in", Side: ids.Left, Moment: "after"})
	l.add("a", "threshold-measured", 0, visit.ThresholdMeasured{
		Point: visit.UUID(uid(500)), Trials: []float64{260}, TipCM2: 1, Moment: "after",
	})
	l.add("a", "point-rechecked", 0, visit.PointRechecked{Point: visit.UUID(uid(500)), NPRS: 2})
	l.add("a", "recheck-noted", 0, visit.RecheckNoted{
		Activities: []visit.Activity{{Name: "Run for the bus", Score: 6}}, Walk: "easier",
	})
	s = visit.Reduce(asked(), l.events)
	require.Empty(t, s.Rejected)
	for what, done := range again(s) {
		assert.Equal(t, what != "range cervical.rotation left", done, what)
	}
	read(short(ids.Right, 78, "after"))
	s = visit.Reduce(asked(), l.events)
	assert.True(t, again(s)["range cervical.rotation left"], "both sides were read again")

	assert.Equal(t, []float64{slope, level}, []float64{*s.Posture[0].Degrees, *s.PostureAfter[0].Degrees})
	assert.True(t, s.PostureFlags[0].Flagged, "what was before stays as it was")
	assert.Len(t, s.Signs, 1)
	assert.InDelta(t, 169, s.Points[0].Threshold.KPa, 1e-9)
	assert.InDelta(t, 260, s.Points[0].ThresholdAfter.KPa, 1e-9)
	assert.InDelta(t, slope, *s.Findings(asked(), nil, 0).Posture[0].Degrees, 1e-9, "suspects are of before")
}

func TestNothingDoneIsNothingToLookAtAgain(t *testing.T) {
	assert.Empty(t, visit.Reduce(asked(), (&log{}).events).Recheck)
}
