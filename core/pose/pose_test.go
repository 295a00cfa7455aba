package pose_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/pose"
	"mokren/core/progress"
)

func Example() {
	d, _ := pose.Draw("knee.flexion", ids.Right)
	fmt.Println(d.Start, "· hold still:", d.Keep, "·", d.Moving[0].Part, d.Moving[1].Part, d.Sense)
	// Output: Face down · hold still: the thigh · shank foot 1
}

// bearing is the direction of a line, clockwise from the picture's right.
func bearing(l pose.Ray) float64 {
	return math.Atan2(l.To.Y-l.From.Y, l.To.X-l.From.X) * 180 / math.Pi
}

// Every movement that has a reference in degrees is drawn, within its box, on both sides.
func TestEveryReferenceRangeIsDrawn(t *testing.T) {
	for _, m := range progress.MeasurableMovements() {
		d, err := pose.Draw(m.Movement, ids.Left)
		if m.Movement == "jaw.opening" {
			assert.ErrorContains(t, err, "$.movement", "a distance, no turn")
			continue
		}
		require.NoError(t, err, "%s", m.Movement)
		assert.NotEmpty(t, d.Keep)
		assert.NotEmpty(t, d.Moving, "%s", m.Movement)
		assert.NotEmpty(t, d.Still, "%s", m.Movement)
		assert.InDelta(t, 1, math.Abs(d.Sense), 0, "%s", m.Movement)
		for _, p := range []body.Point{d.Pivot, d.Zero.To} {
			assert.True(t, p.X >= d.Frame.X && p.X <= d.Frame.X+d.Frame.Width, "%s", m.Movement)
			assert.True(t, p.Y >= d.Frame.Y && p.Y <= d.Frame.Y+d.Frame.Height, "%s", m.Movement)
		}
	}
}

// A limb ends where the words say: so many degrees from its zero, on the side to which one bends.
func TestALimbEndsWhereTheDegreesSay(t *testing.T) {
	for m, want := range map[ids.Movement]float64{
		// From the side, looking right; 0 is the picture's right, 90 down, −90 up.
		"shoulder.flexion":   90 - 180, // the arm overhead
		"elbow.flexion":      90 - 150,
		"wrist.extension":    0 - 70,
		"hip.flexion":        0 - 120, // on the back, feet to the right: the knee over the chest
		"knee.flexion":       180 + 135,
		"shoulder.abduction": 90 - 180,
	} {
		deg := map[ids.Movement]float64{
			"shoulder.flexion": 180, "elbow.flexion": 150, "wrist.extension": 70, "hip.flexion": 120,
			"knee.flexion": 135, "shoulder.abduction": 180,
		}[m]
		side := ids.Right
		if m == "shoulder.abduction" {
			side = ids.Left
		}
		d, err := pose.Draw(m, side)
		require.NoError(t, err)
		off := math.Mod(bearing(d.Zero)+d.Sense*deg-want+720+180, 360) - 180
		assert.InDelta(t, 0, off, 1, "%s: zero at %v, sense %v", m, bearing(d.Zero), d.Sense)
	}
}

// The other side is the mirror image.
func TestTheOtherSideIsTheMirrorImage(t *testing.T) {
	for _, m := range []ids.Movement{"knee.flexion", "hip.abduction", "cervical.lateral-flexion"} {
		l, err := pose.Draw(m, ids.Left)
		require.NoError(t, err)
		r, err := pose.Draw(m, ids.Right)
		require.NoError(t, err)
		assert.InDelta(t, -l.Sense, r.Sense, 0, "%s", m)
		assert.InDelta(t, -l.Pivot.X, r.Pivot.X, 1e-9, "%s", m)
		assert.InDelta(t, l.Pivot.Y, r.Pivot.Y, 1e-9, "%s", m)
	}
}
