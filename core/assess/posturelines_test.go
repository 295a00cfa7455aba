package assess_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/assess"
	"mokren/core/ids"
)

// Every posture measure can be touched on the body, on each side where it is read on each, and no
// two lines of a view lie on each other.
func TestEveryPostureMeasureHasALine(t *testing.T) {
	sides := map[ids.Measure]map[ids.Side]bool{}
	lines := assess.PostureLines()
	for _, l := range lines {
		if sides[l.Measure] == nil {
			sides[l.Measure] = map[ids.Side]bool{}
		}
		sides[l.Measure][l.Side] = true
	}
	for _, m := range []ids.Measure{
		"shoulder-height", "pelvis-height", "craniovertebral-angle", "shoulder-girdle-rotation", "pelvis-rotation",
		"side-curve", "lumbar-curve",
	} {
		assert.Equal(t, map[ids.Side]bool{ids.Midline: true}, sides[m], "%s", m)
	}
	for _, m := range []ids.Measure{
		"pelvic-tilt", "scapula-distance", "scapular-upward-rotation", "acromion-to-table",
	} {
		assert.Equal(t, map[ids.Side]bool{ids.Left: true, ids.Right: true}, sides[m], "%s", m)
	}
	for i, a := range lines {
		for _, b := range lines[:i] {
			if a.View == b.View {
				assert.NotEqual(t, [4]float64{a.X1, a.Y1, a.X2, a.Y2}, [4]float64{b.X1, b.Y1, b.X2, b.Y2},
					"%s and %s", a.Measure, b.Measure)
			}
		}
	}
}
