package visit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/visit"
)

// A stiff shoulder is led in the order of the handbook, and gently where its
// painful stage was answered; a shoulder short in another order is not.
func TestAStiffShoulderIsLed(t *testing.T) {
	read := func(er, ab, ir float64) *log {
		l := &log{}
		l.agree("a")
		for mv, deg := range map[ids.Movement]float64{
			"shoulder.external-rotation": er, "shoulder.abduction": ab, "shoulder.internal-rotation": ir,
		} {
			l.add("a", "range-measured", 0, map[string]any{
				"movement": mv, "side": "left", "moment": "before", "active_deg": deg, "passive_deg": deg,
			})
		}
		return l
	}
	led := func(l *log) []visit.Guidance { return visit.Reduce(asked(), l.events).Work(asked(), nil, nil).Led }
	l := read(30, 100, 60)
	got := led(l)
	require.Len(t, got, 1)
	assert.EqualValues(t, "left", got[0].Side)
	assert.Contains(t, got[0].Arm, "90°")
	order := []ids.Muscle{}
	for _, s := range got[0].Order {
		order = append(order, s.Muscle)
		assert.NotEmpty(t, s.Name)
	}
	assert.Equal(t, []ids.Muscle{
		"pectoralis-major", "pectoralis-minor", "biceps-brachii", "infraspinatus", "subscapularis", "teres-major",
		"teres-minor",
	}, order)
	l.add("a", "screening-answered", 0, yes("stiff-shoulder-painful", ""))
	assert.Contains(t, led(l)[0].Arm, "30–40°, supported")
	assert.Empty(t, led(read(85, 100, 30)), "inward turn most: not the capsule's order")
}
