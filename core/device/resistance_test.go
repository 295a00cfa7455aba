package device_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/device"
)

const seeds = 1000

// pressing plays a press of 5 s at 20 Hz through a curve, with 5 % of noise.
func pressing(seed uint64, noise float64, curve func(mm float64) float64) []device.DepthForce {
	r := rand.New(rand.NewPCG(seed, 5))
	out := make([]device.DepthForce, 100)
	for i := range out {
		mm := 25 * float64(i) / float64(len(out)-1)
		out[i] = device.DepthForce{DepthMM: mm, N: math.Max(0, curve(mm)*(1+noise*r.NormFloat64()))}
	}
	return out
}

func found(t *testing.T, s []device.DepthForce) device.Resistance {
	t.Helper()
	r, err := device.FirstResistance(s)
	require.NoError(t, err)
	return r
}

// The knee of two slopes and of an exponential, under 5 % noise, within half a
// millimetre in at least 95 of 100 seeds. The exponential's knee is where two
// lines meet that are fitted to it without noise.
func TestFirstResistanceIsFound(t *testing.T) {
	soft := func(mm float64) float64 { return 0.4*mm + 1.6*math.Max(0, mm-12) }
	late := func(mm float64) float64 { return 0.6*mm + 2.4*math.Max(0, mm-17) }
	grows := func(mm float64) float64 { return 0.8 * (math.Exp(0.16*mm) - 1) }
	for name, c := range map[string]struct {
		curve func(float64) float64
		knee  float64
	}{
		"two slopes":     {soft, 12},
		"two slopes far": {late, 17},
		"exponential":    {grows, *found(t, pressing(0, 0, grows)).DepthMM},
	} {
		near := 0
		for seed := range uint64(seeds) {
			r := found(t, pressing(seed, 0.05, c.curve))
			if r.Found && math.Abs(*r.DepthMM-c.knee) <= 0.5 {
				near++
			}
		}
		assert.GreaterOrEqual(t, near, seeds*95/100, name)
	}
}

func TestNoResistanceOnAStraightLine(t *testing.T) {
	none := 0
	for seed := range uint64(seeds) {
		if !found(t, pressing(seed, 0.05, func(mm float64) float64 { return 0.9 * mm })).Found {
			none++
		}
	}
	assert.GreaterOrEqual(t, none, seeds*95/100)
}

// The later slope is at least twice the earlier.
func TestResistanceAtItsBoundary(t *testing.T) {
	bent := func(times float64) func(float64) float64 {
		return func(mm float64) float64 { return mm + (times-1)*math.Max(0, mm-12) }
	}
	assert.False(t, found(t, pressing(0, 0, bent(1.98))).Found)
	r := found(t, pressing(0, 0, bent(2.02)))
	require.True(t, r.Found)
	assert.InDelta(t, 2.02, *r.Ratio, 0.01)
	assert.InDelta(t, 12, *r.DepthMM, 0.2)
	assert.InDelta(t, 12, *r.N, 0.3)
	_, err := device.FirstResistance(make([]device.DepthForce, 19))
	assert.ErrorContains(t, err, "$.samples")
}
