package device

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// ramp rises evenly by some N/s for some seconds, 20 samples a second.
func ramp(perS, seconds, stop float64) Trial {
	t := Trial{StoppedT: stop}
	for i := 0; float64(i)/20 <= seconds; i++ {
		at := float64(i) / 20
		t.Samples = append(t.Samples, Force{at, perS * at})
	}
	return t
}

func TestPPT(t *testing.T) {
	got, err := MeasurePPT([]Trial{ramp(4, 8, 6), ramp(4, 8, 6.5), ramp(4, 8, 5.5)}, 1)
	require.NoError(t, err)
	assert.Equal(t, []float64{240, 260, 220}, got.Trials, "N/cm² times ten")
	assert.InDelta(t, 240, got.KPa, 1e-6)
	assert.InDelta(t, 8.333, got.CV, 1e-3)
	assert.False(t, got.Wide)
	assert.InDelta(t, 40, got.Ramp[0], 1e-6)
	half, err := MeasurePPT([]Trial{ramp(4, 8, 6)}, 0.5)
	require.NoError(t, err)
	assert.InDelta(t, 480, half.KPa, 1e-6, "half the tip is twice the pressure")
	assert.Zero(t, half.CV, "one trial has no spread")
	between, err := MeasurePPT([]Trial{ramp(4, 8, 6.025)}, 1)
	require.NoError(t, err)
	assert.InDelta(t, 241, between.KPa, 1e-6, "between two samples")
}

func TestASpreadOverTwentyPercentIsSaid(t *testing.T) {
	at, over := []float64{80, 100, 120}, []float64{79, 100, 121}
	_, cv := MeanCV(at)
	assert.InDelta(t, 20, cv, 1e-6)
	_, cv = MeanCV(over)
	assert.Greater(t, cv, WideCV)
	wide, err := MeasurePPT([]Trial{ramp(4, 9, 4), ramp(4, 9, 6), ramp(4, 9, 8)}, 1)
	require.NoError(t, err)
	assert.True(t, wide.Wide)
}

func TestAPPTTrialNamesWhatIsWrong(t *testing.T) {
	late := ramp(4, 2, 3)
	_, err := MeasurePPT([]Trial{ramp(4, 2, 1), late}, 1)
	assert.ErrorContains(t, err, "$.trials[1].stopped_at_t")
	twice := Trial{Samples: []Force{{0, 0}, {0, 1}}}
	_, err = MeasurePPT([]Trial{twice}, 1)
	assert.ErrorContains(t, err, "$.trials[0].samples[1].t")
}
