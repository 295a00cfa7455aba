package atlas

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/ids"
)

// Whoever touches a usual site is offered its muscle among the first few, in
// every view and on both sides.
func TestATouchOnASiteOffersItsMuscle(t *testing.T) {
	first, all := 0, 0
	for _, m := range All() {
		for _, s := range m.Sites {
			for _, side := range []ids.Side{ids.Left, ids.Right} {
				v, p := m.OnFigure(s.Place(170), side, 170)
				list := Under(v, p, 170)
				place := -1
				for i, c := range list {
					if c.Muscle == m.ID {
						place = i
						break
					}
				}
				require.GreaterOrEqual(t, place, 0, "%s %s is not offered", m.ID, s.ID)
				assert.Less(t, place, 8, "%s %s", m.ID, s.ID)
				assert.Equal(t, side, list[place].Side)
				all++
				if place < 4 {
					first++
				}
			}
		}
	}
	assert.Greater(t, float64(first)/float64(all), 0.9, "within the four that the screen offers")
}

// Away from usual sites what is nearer to the surface is offered first.
func TestATouchOffersTheSurfaceFirst(t *testing.T) {
	compared := 0
	for _, c := range body.Cells(body.Back) {
		list := Under(body.Back, c.Cell.Center(), 170)
		for i := 1; i < len(list); i++ {
			a, b := list[i-1], list[i]
			if a.siteMM > meantMM && a.OffMM <= edgeMM && b.OffMM <= edgeMM && b.siteMM > meantMM {
				compared++
				assert.LessOrEqual(t, a.Layer, b.Layer, "%v: %s before %s", c.Cell, a.Muscle, b.Muscle)
			}
		}
	}
	assert.Greater(t, compared, 500)
}

func TestOppositesUndoOneAnother(t *testing.T) {
	for a, b := range opposites {
		assert.Nil(t, a.Check())
		assert.Nil(t, b.Check())
		assert.NotEqual(t, a, b)
	}
	o, ok := Opposite("shoulder.flexion")
	assert.True(t, ok)
	assert.Equal(t, ids.Movement("shoulder.extension"), o)
	_, ok = Opposite("cervical.rotation")
	assert.False(t, ok, "a turn is undone by the same turn the other way")
	assert.True(t, opposed(Motion{"cervical.rotation", "own"}, Motion{"cervical.rotation", "other"}))
	assert.False(t, opposed(Motion{"cervical.rotation", "own"}, Motion{"cervical.rotation", "own"}))
	assert.True(t, opposed(Motion{Movement: "ankle.plantarflexion"},
		Motion{Movement: "ankle.dorsiflexion-knee-straight"}))
}

func TestPlacesAndMidline(t *testing.T) {
	m := muscle(t, "soleus")
	for _, side := range []ids.Side{ids.Left, ids.Right} {
		require.NotEmpty(t, m.Places(side))
		for _, p := range m.Places(side) {
			assert.Equal(t, side, p.Side)
		}
	}
	assert.True(t, m.At("lower-calf") || m.At("upper-calf"))
	assert.False(t, m.At("jaw"))
	for _, r := range []ids.Region{
		"sacrum", "coccyx", "vertex", "sternum", "umbilical", "lumbar-spine",
		"upper-thoracic-spine",
	} {
		assert.True(t, MidlineRegion(r), "%s", r)
	}
	assert.False(t, MidlineRegion("heel"))
}

// The tensor's place is the middle of its triangle, in the side view.
func TestTheTensorsTriangle(t *testing.T) {
	m := muscle(t, "tensor-fasciae-latae")
	v, p := m.OnFigure(m.Sites[0].Place(170), ids.Left, 170)
	require.Equal(t, body.LeftSide, v)
	var x, y float64
	for _, id := range []ids.Landmark{"asis", "greater-trochanter", "iliac-crest"} {
		q, err := body.FindLandmark(v, id, ids.Left)
		require.NoError(t, err)
		x, y = x+q.X/3, y+q.Y/3
	}
	assert.Less(t, p.Distance(body.Point{X: x, Y: y})*v.CMPerUnit(170), 0.5, "within half a centimetre of the middle")
}

func TestGuideDrawsWhatItSays(t *testing.T) {
	for _, m := range All() {
		g, err := m.Palpate(ids.Right, "", 180, 2)
		require.NoError(t, err)
		if !m.IsPressed() {
			assert.Empty(t, g.Draw, m.ID)
			continue
		}
		kinds := map[string]int{}
		for _, d := range g.Draw {
			kinds[d.Kind]++
			assert.NotEmpty(t, d.Text)
			if d.Kind == "landmark" {
				assert.NotEmpty(t, d.View)
				f := body.Draw(d.View)
				assert.True(t, f.Contains(d.At), "%s %s", m.ID, d.Label)
			}
		}
		for _, k := range []string{"site", "strum", "trace", "confirm"} {
			assert.Equal(t, 1, kinds[k], "%s %s", m.ID, k)
		}
		assert.Equal(t, len(g.Landmarks), kinds["landmark"])
	}
}
