package assess_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/progress"
)

// A practice's own usual tilt says which way a pelvis is tipped, in the flag and
// in the evidence alike.
func TestAPracticesOwnPelvicTiltCountsInTheEvidence(t *testing.T) {
	deg := 15.0
	weighs := func(own assess.Thresholds, m ids.Muscle) bool {
		f := assess.Findings{
			Posture:    []assess.Posture{{Measure: "pelvic-tilt", Side: ids.Left, Degrees: &deg}},
			Thresholds: own,
		}
		for _, s := range assess.Rank(f, nil).Suspects {
			if s.Muscle == m && s.Side == ids.Left && len(s.Why) > 0 {
				return true
			}
		}
		return false
	}
	assert.True(t, weighs(nil, "psoas-major"), "above the usual 10: tipped forward")
	own := assess.Thresholds{"pelvic-tilt-usual": 20}
	assert.False(t, weighs(own, "psoas-major"))
	assert.True(t, weighs(own, "semitendinosus"), "below the practice's 20: tipped back")
}

// Differences are said as they were read, without the dust of binary fractions.
func TestDifferencesAreSaidPlainly(t *testing.T) {
	other := 45.3
	assert.Contains(t, progress.Flag("ankle.plantarflexion", 35, &other, 0).Reason, "10.3° less than the other side")
	a, b := 43.5, 38.2
	flags := assess.GaugeFlags([]assess.Gauge{
		{
			ID:    "weight-bearing-lunge",
			Side:  ids.Left,
			Value: &b,
		},
		{ID: "weight-bearing-lunge", Side: ids.Right, Value: &a},
	})
	assert.Contains(t, flags[0]+flags[1], "5.3")
	assert.NotContains(t, flags[0]+flags[1], "99999")
}
