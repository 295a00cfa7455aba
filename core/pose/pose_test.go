package pose_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/atlas"
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

// joints are a muscle's joint positions as the pose has them.
func joints(list []atlas.JointPosition) []pose.Joint {
	out := make([]pose.Joint, len(list))
	for i, j := range list {
		out[i] = pose.Joint{Movement: j.Movement, Toward: j.Toward, Deg: j.Deg}
	}
	return out
}

// notDrawn are positions of jaw, thumb, spread fingers and breath: no joint of the figure.
var notDrawn = []string{
	"adductor-pollicis slack", "adductor-pollicis tension", "diaphragm slack", "diaphragm tension", "digastric slack",
	"digastric tension", "first-dorsal-interosseous slack", "first-dorsal-interosseous tension",
	"lateral-pterygoid slack", "lateral-pterygoid tension", "masseter slack", "masseter tension",
	"medial-pterygoid slack", "medial-pterygoid tension", "opponens-pollicis slack", "opponens-pollicis tension",
	"serratus-posterior-inferior slack", "serratus-posterior-inferior tension", "temporalis slack",
	"temporalis tension",
}

// Every position that lengthens or shortens a muscle is drawn where the figure has the joint, each
// joint to the degree that the atlas says, and none claims degrees that are not known.
func TestEveryPositionOfTheAtlasIsDrawn(t *testing.T) {
	var missing []string
	drawn, exact, unseen := 0, 0, 0
	for _, m := range atlas.All() {
		for set, list := range map[string][]atlas.JointPosition{"tension": m.Tension, "slack": m.Slack} {
			for _, side := range []ids.Side{ids.Left, ids.Right} {
				d, err := pose.Position(joints(list), side, m.Positions[0])
				if err != nil {
					if side == ids.Left {
						missing = append(missing, string(m.ID)+" "+set)
					}
					continue
				}
				drawn++
				unseen += len(d.Unseen)
				assert.Equal(t, len(list), len(d.Turns)+len(d.Twists)+len(d.Shifts)+len(d.Unseen), "%s %s", m.ID, set)
				for _, x := range d.Turns {
					if x.Deg == nil {
						continue
					}
					exact++
					is := bearing(pose.Ray{From: x.Pivot, To: x.After}) - bearing(pose.Ray{From: x.Pivot, To: x.Before})
					off := math.Mod(is*x.Sense-*x.Deg+720+180, 360) - 180
					assert.InDelta(t, 0, off, 1, "%s %s %s", m.ID, set, x.Movement)
				}
				for _, p := range []float64{d.Frame.Width, d.Frame.Height} {
					assert.True(t, p > 50 && p < 1200, "%s %s: %v", m.ID, set, d.Frame)
				}
			}
		}
	}
	slices.Sort(missing)
	assert.Equal(t, notDrawn, missing)
	t.Logf("%d drawn, %d angles to the degree, %d movements only named", drawn, exact, unseen)
	assert.Positive(t, exact)
}

// Toward the other side is the opposite of toward one's own, and the other side its mirror image.
func TestAPositionHasASide(t *testing.T) {
	deg := 25.0
	bend := func(toward string, side ids.Side) pose.JointTurn {
		joint := pose.Joint{Movement: "cervical.lateral-flexion", Toward: toward, Deg: &deg}
		d, err := pose.Position([]pose.Joint{joint}, side, "")
		require.NoError(t, err)
		return d.Turns[0]
	}
	own, other, right := bend("own", ids.Left), bend("other", ids.Left), bend("own", ids.Right)
	// One looks at the person: their left is on the picture's right.
	assert.Greater(t, own.After.X, own.Pivot.X)
	assert.Less(t, other.After.X, other.Pivot.X)
	assert.InDelta(t, -own.After.X, right.After.X, 1e-9)
	_, err := pose.Position([]pose.Joint{{Movement: "jaw.opening"}}, ids.Left, "")
	assert.ErrorContains(t, err, "a joint of the figure")
}
