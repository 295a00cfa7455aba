package device_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/device"
)

// stream feeds angles at 20 a second and collects what is taken.
type stream struct {
	w     device.Watch
	t     int64
	taken []device.SteadyReading
}

func (s *stream) feed(seconds, deg float64, distance *float64) {
	for i := range int(seconds * 20) {
		s.t += 50
		// A tremor of ± 0.2°.
		sample := device.Sample{TMS: s.t, Deg: deg + 0.2*math.Sin(float64(i)), DistanceCM: distance}
		if got := s.w.Add(sample); got != nil {
			s.taken = append(s.taken, *got)
		}
	}
}

func (s *stream) move(seconds, from, to float64) {
	n := int(seconds * 20)
	for i := range n {
		s.t += 50
		if got := s.w.Add(device.Sample{TMS: s.t, Deg: from + (to-from)*float64(i+1)/float64(n)}); got != nil {
			s.taken = append(s.taken, *got)
		}
	}
}

func TestARangeIsTakenOnceAtItsEnd(t *testing.T) {
	s := stream{w: device.Watch{Mode: device.Range}}
	s.feed(3, 0, nil)
	assert.Empty(t, s.taken, "the rest is no reading")
	s.move(1, 0, 42)
	s.feed(5, 42, nil)
	require.Len(t, s.taken, 1, "held on, it is still one reading")
	assert.InDelta(t, 42, s.taken[0].Deg, 0.1)
	s.move(1, 42, 30)
	s.feed(2, 30, nil)
	assert.Len(t, s.taken, 1, "not from the middle: it goes back to the rest first")
	s.move(1, 30, 0)
	s.feed(2, 0, nil)
	s.move(1, 0, 38)
	s.feed(2, 38, nil)
	require.Len(t, s.taken, 2)
	assert.InDelta(t, 38, s.taken[1].Deg, 0.1)
}

func TestPostureIsTakenWhileBothTipsTouch(t *testing.T) {
	s := stream{w: device.Watch{Mode: device.Posture}}
	d := 34.2
	s.feed(3, 0, nil)
	assert.Empty(t, s.taken)
	s.feed(3, -3.4, &d)
	require.Len(t, s.taken, 1)
	assert.InDelta(t, -3.4, s.taken[0].Deg, 0.1)
	assert.InDelta(t, 34.2, *s.taken[0].DistanceCM, 0.01)
	s.feed(1, -3.4, nil)
	s.feed(0.9, -3.1, &d)
	assert.Len(t, s.taken, 1, "just short of a second")
	s.feed(0.3, -3.1, &d)
	assert.Len(t, s.taken, 2)
}

func TestATremblingHandIsNotSteady(t *testing.T) {
	s := stream{w: device.Watch{Mode: device.Range}}
	s.feed(2, 0, nil)
	s.move(1, 0, 40)
	for i := range 100 {
		s.t += 50
		assert.Nil(t, s.w.Add(device.Sample{TMS: s.t, Deg: 40 + 0.7*float64(i%2)}))
	}
	// A stream that pauses begins anew: two halves of a second are no second.
	s.feed(0.6, 40, nil)
	s.t += 800
	s.feed(0.6, 40, nil)
	assert.Empty(t, s.taken)
}

// Whatever is streamed, in whatever batches: no reading without a second's
// rest within the bounds, and what is kept stays small.
func TestNoReadingWithoutRest(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w := device.Watch{Mode: device.Range}
		var all []device.Sample
		var at int64
		for range rapid.IntRange(1, 300).Draw(t, "n") {
			at += rapid.Int64Range(0, 120).Draw(t, "ms")
			s := device.Sample{TMS: at, Deg: rapid.SampledFrom([]float64{0, 0.2, 0.4, 20, 20.3, 20.6, 40}).Draw(t,
				"deg")}
			all = append(all, s)
			got := w.Add(s)
			assert.LessOrEqual(t, len(w.Recent), 400)
			assert.True(t, w.Share >= 0 && w.Share <= 1)
			if got == nil {
				continue
			}
			for i := len(all) - 1; i >= 0 && at-all[i].TMS <= 1000; i-- {
				assert.InDelta(t, got.Deg, all[i].Deg, 0.65)
			}
		}
	})
}
