package body

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/ids"
)

func TestLandmarksLieOnTheFigure(t *testing.T) {
	names := map[ids.Landmark]bool{}
	for _, v := range Views {
		f := Draw(v)
		for _, l := range LandmarksOf(v) {
			names[l.ID] = true
			assert.Nil(t, l.ID.Check())
			assert.True(t, f.Contains(l.Point), "%s %s %s lies off the figure", v, l.ID, l.Side)
			if l.Side != ids.Midline {
				assert.Equal(t, l.Side, v.SideAt(l.Point), "%s %s", v, l.ID)
			}
		}
	}
	assert.GreaterOrEqual(t, len(names), 60)
}

// The heights that published proportions give, in thousandths above ground.
func TestProportions(t *testing.T) {
	for _, c := range []struct {
		view  View
		id    ids.Landmark
		above float64
	}{{Front, "acromion", 818}, {Back, "greater-trochanter", 530}, {Back, "iliac-crest", 585}, {Front, "patella", 285}, {Back, "lateral-malleolus", 47}, {Front, "lateral-epicondyle", 620}, {Front, "radial-styloid", 485}} {
		p, err := FindLandmark(c.view, c.id, ids.Left)
		require.NoError(t, err)
		assert.InDelta(t, c.above, 1000-p.Y, 8, "%s", c.id)
	}
}

// Palpation's levels: crest line L4, PSIS S2, T7 at the lower scapular angle,
// T3 at the root of the scapular spine, T12 halfway between crest and angle.
func TestLevelsMatchTheirLandmarks(t *testing.T) {
	y := func(id ids.Landmark) float64 {
		p, err := FindLandmark(Back, id, ids.Right)
		require.NoError(t, err)
		return p.Y
	}
	assert.InDelta(t, y("iliac-crest"), y("L4"), 3)
	assert.InDelta(t, y("psis"), y("S2"), 1)
	assert.InDelta(t, y("scapula-inferior-angle"), y("T7"), 1)
	assert.InDelta(t, y("scapula-spine-root"), y("T3"), 1)
	assert.InDelta(t, (y("iliac-crest")+y("scapula-inferior-angle"))/2, y("T12"), 2)
	order := strings.Fields("C1 C2 C3 C4 C5 C6 C7 T1 T2 T3 T4 T5 T6 T7 T8 T9 T10 T11 T12 L1 L2 L3 L4 L5 S2")
	for i := 1; i < len(order); i++ {
		assert.Less(t, y(ids.Landmark(order[i-1])), y(ids.Landmark(order[i])))
	}
}

func TestEveryCellHasOneRegionAndItsMirrorImage(t *testing.T) {
	regions := map[ids.Region]bool{}
	for _, v := range Views {
		cells := Cells(v)
		require.NotEmpty(t, cells)
		for _, n := range cells {
			require.Nil(t, n.Region.Check(), "%s", n.Cell)
			regions[n.Region] = true
			back, err := ParseCell(n.Cell.String())
			require.NoError(t, err)
			assert.Equal(t, n.Cell, back)
			assert.Equal(t, n.Cell, CellAt(v, n.Cell.Center()))
			if v.sole() {
				assert.Equal(t, v.side(true), n.Side)
				continue
			}
			m, ok := RegionOf(n.Cell.mirrored())
			if assert.True(t, ok, "%s has no mirror image", n.Cell) {
				assert.Equal(t, n.Region, m.Region)
				if n.Cell != n.Cell.mirrored() {
					assert.Equal(t, n.Side.Other(), m.Side)
				}
			}
		}
	}
	for _, s := range append(append(append([]seed{}, frontSeeds...), backSeeds...), soleSeeds...) {
		assert.True(t, regions[s.region], "no cell is called %s", s.region)
	}
}

func TestCellsAreAboutTwelveMillimetres(t *testing.T) {
	for _, v := range Views {
		assert.InDelta(t, 12, v.CellSize()*v.CMPerUnit(172)*10, 0.5, "%s", v)
	}
	assert.InDelta(t, Front.CM2(170)/Front.CM2(85), 4, 1e-9, "area goes with the square of the height")
}

func TestCellAtFindsTheNearestCell(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v := rapid.SampledFrom(Views).Draw(t, "view")
		p := Point{rapid.Float64Range(0, v.Width()).Draw(t, "x"), rapid.Float64Range(0, 1000).Draw(t, "y")}
		c := CellAt(v, p)
		d := c.Center().Distance(p)
		for _, n := range []Cell{{v, c.Q + 1, c.R}, {v, c.Q - 1, c.R}, {v, c.Q, c.R + 1}, {v, c.Q, c.R - 1}, {v, c.Q + 1, c.R - 1}, {v, c.Q - 1, c.R + 1}} {
			assert.LessOrEqual(t, d, n.Center().Distance(p)+1e-9)
		}
	})
}

func TestBadCellIdsAreRefused(t *testing.T) {
	for _, s := range []string{"", "front", "front:1", "front:1,2,3", "top:1,2", "front:01,2", "front:a,b", "front: 1,2"} {
		_, err := ParseCell(s)
		assert.Error(t, err, "%q", s)
	}
}

func TestSVGDrawsEveryShape(t *testing.T) {
	for _, v := range Views {
		svg := SVG(v)
		f := Draw(v)
		assert.Equal(t, 2*len(f.Shapes)+len(f.Inner), strings.Count(svg, "<path"))
		assert.True(t, strings.HasSuffix(svg, "</svg>"))
	}
}
