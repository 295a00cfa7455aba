package progress_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/progress"
)

// The slope lies within its range; three readings have none; one wild value
// among many moves neither end far.
func TestTheRangeOfATrend(t *testing.T) {
	assert.Nil(t, progress.TrendOf(series(8, 6, 4)))
	few := progress.TrendOf(series(8, 6, 5, 3))
	require.NotNil(t, few)
	assert.InDelta(t, -1.75, few.PerWeek, 0.26)
	assert.InDelta(t, -2, few.Low, 1e-9, "of four readings all slopes are within chance")
	assert.InDelta(t, -1, few.High, 1e-9)
	calm := []float64{}
	for i := range 20 {
		calm = append(calm, 100+float64(i)+float64(i%3))
	}
	straight := progress.TrendOf(series(calm...))
	calm[10] = 0
	wild := progress.TrendOf(series(calm...))
	assert.InDelta(t, straight.PerWeek, wild.PerWeek, 0.03)
	assert.InDelta(t, straight.Low, wild.Low, 0.1)
	assert.InDelta(t, straight.High, wild.High, 0.1)
}

// Of many series with a known slope the range holds it about 95 times in 100.
func TestTheRangeHoldsTheTrueSlope(t *testing.T) {
	r := rand.New(rand.NewPCG(13, 2))
	held := 0
	const tries = 2000
	for range tries {
		v := make([]float64, 12)
		for i := range v {
			v[i] = 90 - 1.5*float64(i) + 2*r.NormFloat64()
		}
		s := make([]progress.Reading, len(v))
		for i, x := range v {
			s[i] = progress.Reading{Day: float64(7 * i), Value: x}
		}
		if trend := progress.TrendOf(s); trend.Low <= -1.5 && -1.5 <= trend.High {
			held++
		}
	}
	assert.InDelta(t, 0.95, float64(held)/tries, 0.025)
}

// Known values of Wilson's interval, and what few are worth.
func TestShares(t *testing.T) {
	s := progress.ShareOf(8, 10)
	assert.InDelta(t, 0.490, s.Low, 0.001)
	assert.InDelta(t, 0.943, s.High, 0.001)
	assert.False(t, s.Few)
	assert.True(t, progress.ShareOf(7, 7).Few)
	none := progress.ShareOf(0, 0)
	assert.Equal(t, 0.0, none.Low)
	assert.Equal(t, 1.0, none.High)
	all := progress.ShareOf(20, 20)
	assert.Equal(t, 1.0, all.High)
	assert.InDelta(t, 0.839, all.Low, 0.001)
}

// Seconds a point of drop are named from three on, and only where it fell.
func TestWhatWorked(t *testing.T) {
	fell := progress.TreatmentResult{Protocol: "pulses", Before: 7, After: 4, PressedS: 60}
	stood := progress.TreatmentResult{Protocol: "slow-ramp", Before: 5, After: 5, PressedS: 60, N: 5}
	got := progress.WhatWorked([]progress.TreatmentResult{fell, stood, fell})
	require.Len(t, got, 2)
	assert.Equal(t, "slow-ramp", string(got[0].Protocol), "the one with most behind it first")
	assert.Nil(t, got[0].SecondsPerPoint)
	assert.Nil(t, got[1].SecondsPerPoint, "two are too few")
	got = progress.WhatWorked([]progress.TreatmentResult{fell, fell, fell})
	require.NotNil(t, got[0].SecondsPerPoint)
	assert.InDelta(t, 20, *got[0].SecondsPerPoint, 1e-9)
	assert.Equal(t, 3, got[0].Clear.Yes)
	assert.InDelta(t, 3, got[0].Drop, 1e-9)
}
