package body

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/ids"
)

// An authored point comes back from where it was put, on either side.
func TestPlacingAndBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v := rapid.SampledFrom(Views).Draw(t, "view")
		p := Point{rapid.Float64Range(0, 80).Draw(t, "x"), rapid.Float64Range(0, 190).Draw(t, "y")}
		for _, s := range []ids.Side{ids.Left, ids.Right} {
			if v.OneSided() && v.side(true) != s {
				continue
			}
			back := v.authored(v.place(p, s))
			assert.InDelta(t, p.X, back.X, 1e-9, "%s", v)
			assert.InDelta(t, p.Y, back.Y, 1e-9, "%s", v)
		}
	})
}

// The left side's view is the mirror image of the right side's.
func TestSideViewsAreMirrorImages(t *testing.T) {
	for _, v := range []View{LeftSide, HeadLeft, SoleLeft} {
		o := v.mirrorView()
		a, b := Draw(v), Draw(o)
		require.Len(t, b.Shapes, len(a.Shapes))
		for i := range a.Shapes {
			for k, p := range a.Shapes[i].Outline() {
				q := o.mirror(b.Shapes[i].Outline()[k])
				assert.InDelta(t, p.X, q.X, 1e-6)
				assert.InDelta(t, p.Y, q.Y, 1e-6)
			}
		}
		left, right := LandmarksOf(v), LandmarksOf(o)
		require.Len(t, right, len(left))
		for i := range left {
			assert.Equal(t, left[i].ID, right[i].ID)
			assert.InDelta(t, left[i].X, o.mirror(right[i].Point).X, 1e-6)
		}
	}
}

// From the side the client faces the named way: the notch lies before the
// spine, seen from the left toward the picture's left.
func TestSideViewsFaceTheRightWay(t *testing.T) {
	for v, sign := range map[View]float64{LeftSide: -1, RightSide: 1, HeadLeft: -1, HeadRight: 1} {
		front, err := FindLandmark(v, "sternal-notch", ids.Midline)
		require.NoError(t, err)
		back, err := FindLandmark(v, "C7", ids.Midline)
		require.NoError(t, err)
		assert.Positive(t, (front.X-back.X)*sign, "%s", v)
	}
}

func TestBonesLieOnTheFigure(t *testing.T) {
	for _, v := range []View{Front, Back, LeftSide, HeadLeft, SoleLeft} {
		f := Draw(v)
		for _, l := range innerLines(boneFile().in(v)) {
			off := 0
			for _, p := range l.pts {
				if !f.Contains(v.place(p, v.side(true))) {
					off++
				}
			}
			assert.LessOrEqual(t, off, 2, "%s in %s leaves the figure", l.id, v)
		}
	}
}

func TestALineIsWalkedInEvenSteps(t *testing.T) {
	line := []Point{{100, 100}, {100, 200}, {100, 300}}
	steps := walk(line, 14)
	require.Len(t, steps, 15)
	for i := 1; i < len(steps); i++ {
		assert.InDelta(t, 200.0/14, steps[i].Distance(steps[i-1]), 0.5, "even steps")
	}
	bent := walk([]Point{{0, 0}, {50, 80}, {20, 160}}, 10)
	assert.Equal(t, Point{0, 0}, bent[0])
	assert.InDelta(t, 160, bent[10].Y, 1e-9)
}

func TestCloseUpsAreAtTheirScale(t *testing.T) {
	assert.InDelta(t, 170, Front.CMPerUnit(170)*1000, 1e-9)
	assert.InDelta(t, 34, HeadLeft.CMPerUnit(170)*1000, 1e-9, "a fifth of the height")
	assert.InDelta(t, 25.84, SoleRight.CMPerUnit(170)*1000, 1e-9, "the length of the foot")
	// The same landmarks are as far apart in the close-up as in the side view.
	far := func(v View) float64 {
		a, err := FindLandmark(v, "tragus", ids.Left)
		require.NoError(t, err)
		b, err := FindLandmark(v, "acromion", ids.Left)
		require.NoError(t, err)
		return a.Distance(b) * v.CMPerUnit(170)
	}
	assert.InDelta(t, far(LeftSide), far(HeadLeft), 1e-9)
}

// A hand beside the thigh is never called hip, and an arm before the chest
// never chest.
func TestPartsInTheSideView(t *testing.T) {
	for region, at := range map[ids.Region]Point{
		"lateral-upper-arm": {16, 310}, "dorsal-forearm": {52, 450}, "lateral-hip": {0, 490},
		"lateral-thigh": {0, 620}, "lateral-leg": {-8, 830},
		"ear": {-8, 70}, "jaw": {28, 116}, "occiput": {-50, 50}, "lateral-ankle": {-6, 948},
	} {
		got, side := regionAt(LeftSide, LeftSide.place(at, ids.Left))
		assert.Equal(t, region, got)
		assert.Equal(t, ids.Left, side)
	}
	n, ok := RegionOf(CellAt(LeftSide, LeftSide.place(sideHand.at(Point{-4, 40}), ids.Left)))
	require.True(t, ok)
	assert.Equal(t, ids.Region("dorsal-hand"), n.Region)
}

func TestAreaGoesWithTheView(t *testing.T) {
	one := func(v View) float64 {
		return CellSet{Cells(v)[0].Cell: true}.AreaCM2(170)
	}
	for _, v := range Views {
		assert.InDelta(t, one(Front), one(v), 0.02, "a cell is 12 mm in every view: %s", v)
	}
	assert.InDelta(t, math.Sqrt(3)/2*1.19*1.19, one(Front), 0.01)
}

// A cell is named alike whether it is asked for alone or with all the others.
func TestACellAloneIsNamedAsWithTheOthers(t *testing.T) {
	for _, v := range Views {
		all := Cells(v)
		lattices.Delete(v)
		for i := 0; i < len(all); i += 17 {
			alone, ok := RegionOf(all[i].Cell)
			require.True(t, ok)
			assert.Equal(t, all[i], alone)
		}
		beside := Cell{v, -60, 1}
		_, ok := RegionOf(beside)
		assert.False(t, ok)
	}
}
