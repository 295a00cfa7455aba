package device_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/device"
)

// A suitable pressure makes the tissue less tender, overpressing more; the way
// from depth to force and back is the same.
func TestTissueAnswersToPressure(t *testing.T) {
	calf := device.Calf()
	n := calf.TenderN
	assert.InDelta(t, 6, calf.Number(n), 1e-9)
	assert.InDelta(t, n, calf.Force(calf.Depth(n)), 1e-6)
	assert.Less(t, calf.After(20, n).Number(n), 5.1)
	assert.Greater(t, calf.After(5, 1.5*n).Number(n), 6.0)
	assert.InDelta(t, 6, calf.After(60, 0.2*n).Number(n), 1e-9, "hardly touched, nothing changes")
}

// What a pad's samples come to: the knee of the simulated tissue, the band about
// it or about the force at the last number, and how steady the hand is.
func TestReadPad(t *testing.T) {
	calf := device.Calf()
	calf.NoduleN = 0
	var press []device.PadSample
	at := 0.0
	for mm := 0.0; mm <= 15; mm += 0.15 {
		press = append(press, device.PadSample{T: at, DepthMM: mm, N: calf.Force(mm)})
		at += 0.05
	}
	r := device.ReadPad(press, 0)
	require.NotNil(t, r.First)
	require.True(t, r.First.Found)
	assert.InDelta(t, calf.KneeMM, *r.First.DepthMM, 0.5)
	assert.False(t, r.In, "deeper than the first resistance")
	assert.Equal(t, "resistance", r.By)
	held := press
	for range 80 {
		held = append(held, device.PadSample{T: at, DepthMM: 15, N: 16})
		at += 0.05
	}
	r = device.ReadPad(held, 16)
	assert.True(t, r.In)
	assert.Zero(t, r.CV, "a steady hand")
	assert.InDelta(t, 13.6, *r.Low, 1e-9)
	assert.False(t, device.ReadPad(held, 20).In)
	assert.False(t, device.ReadPad(nil, 0).Touching)
}
