package atlas

import (
	"encoding/json"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/solid"
)

// square is a sheet of 100 by 40 units on the middle of the back.
func square(t *testing.T) *sheet {
	t.Helper()
	at := func(x, y float64) Anchor { return Anchor{Landmark: "T7", Out: x, Down: y - 263} }
	p := Part{
		View:   "back",
		Origin: []Anchor{at(20, 263), at(60, 263)}, Insertion: []Anchor{at(20, 363), at(60, 363)},
	}
	return p.lay(ids.Right)
}

func TestASheetIsInterpolatedBetweenItsBorders(t *testing.T) {
	s := square(t)
	middle := body.Back.Width() / 2
	for _, c := range []struct{ t, u, x, y float64 }{
		{0, 0, 20, 263}, {0, 1, 60, 263}, {1, 0, 20, 363}, {1, 1, 60, 363}, {0.5, 0.5, 40, 313}, {0.25, 0.75, 50, 288},
	} {
		p := s.at(c.t, c.u)
		assert.InDelta(t, middle+c.x, p.X, 0.01, "%+v", c)
		assert.InDelta(t, c.y, p.Y, 0.01, "%+v", c)
	}
	assert.InDelta(t, 40, s.width(0.5), 0.01)
	assert.InDelta(t, 100, s.length(), 0.01)
	assert.InDelta(t, 1, s.outward, 0, "across grows outward")
	assert.InDelta(t, 20, s.acrossTo(0.5, 1), 0.01)
	beyond := s.across(0.5, 35)
	assert.InDelta(t, middle+75, beyond.X, 0.01, "beyond an edge it goes straight on")
}

// The nearest place in a sheet is never further off than any other place.
func TestTheNearestPlaceIsTheNearest(t *testing.T) {
	all := All()
	rapid.Check(t, func(t *rapid.T) {
		m := rapid.SampledFrom(all).Draw(t, "muscle")
		s := m.Parts[rapid.IntRange(0, len(m.Parts)-1).Draw(t, "part")].sheet(ids.Left)
		share := rapid.Float64Range(0, 1)
		p := body.Point{
			X: s.even().low.X + (s.even().high.X-s.even().low.X)*share.Draw(t, "x"),
			Y: s.even().low.Y + (s.even().high.Y-s.even().low.Y)*share.Draw(t, "y"),
		}
		_, _, off := s.near(p)
		other := s.at(share.Draw(t, "along"), share.Draw(t, "across"))
		assert.LessOrEqual(t, off, other.Distance(p)+0.5, "%s", m.ID)
	})
}

// Both sides of the body are mirror images, edges and all.
func TestSheetsAreMirrorImages(t *testing.T) {
	for _, m := range All() {
		for i := range m.Parts {
			l, r := m.Parts[i].sheet(ids.Left), m.Parts[i].sheet(ids.Right)
			require.Equal(t, l.view.Mirrored(), r.view)
			for _, at := range [][2]float64{{0, 0}, {0.3, 1}, {0.7, 0.4}} {
				p, q := l.view.MirroredPoint(l.at(at[0], at[1])), r.at(at[0], at[1])
				assert.InDelta(t, p.X, q.X, 1e-6, "%s", m.ID)
				assert.InDelta(t, p.Y, q.Y, 1e-6, "%s", m.ID)
			}
		}
	}
}

// Places of figure version 2 lie where they lay, or on today's sheet at its nearest.
func TestPlacesOfFigure2AreCarried(t *testing.T) {
	const cm = 170
	require.Greater(t, len(parts2()), 5)
	stayed, all := 0, 0
	for _, m := range All() {
		same := FibrePlace{AlongPct: 40, AcrossMM: 1}
		now, ok := m.Carry(Figure2, same, ids.Left, cm)
		require.True(t, ok)
		if _, moved := parts2()[m.ID]; !moved {
			assert.Equal(t, same, now, "%s lies as it lay", m.ID)
		}
		for i, part := range parts2()[m.ID] {
			for _, side := range []ids.Side{ids.Left, ids.Right} {
				for _, pct := range []float64{10, 50, 90} {
					old := FibrePlace{Fibre: i, AlongPct: pct, AcrossMM: 2}
					now, ok := m.Carry(Figure2, old, side, cm)
					require.True(t, ok, "%s part %d at %.0f %%", m.ID, i, pct)
					v, p := m.OnFigure(now, side, cm)
					assert.Empty(t, m.Carries(v, p, now, side, cm), "%s", m.ID)
					was, at := part.onFigure(old, side, cm)
					require.Equal(t, was, v)
					if all++; p.Distance(at)*v.CMPerUnit(cm)*10 < 5 {
						stayed++
					}
				}
			}
		}
	}
	assert.Greater(t, float64(stayed)/float64(all), 0.7, "most lie where they lay")
	m := muscle(t, "subscapularis")
	_, ok := m.Carry(Figure2, FibrePlace{Fibre: 7}, ids.Left, cm)
	assert.False(t, ok, "a part that never was")
}

// Places of figure version 1 stay on their muscle; where the muscle did not
// move, they stay within 5 mm of where they were.
func TestPlacesOfFigure1AreCarried(t *testing.T) {
	var file map[ids.Muscle][]line1
	require.NoError(t, json.Unmarshal(figure1File, &file))
	for id := range file {
		muscle(t, id)
	}
	const cm = 170
	stayed, all := 0, 0
	for id := range file {
		m := muscle(t, id)
		for i, l := range file[id] {
			require.GreaterOrEqual(t, len(l.Line), 2)
			for _, side := range []ids.Side{ids.Left, ids.Right} {
				for _, pct := range []float64{10, 30, 50, 70, 90} {
					old := FibrePlace{Fibre: i, AlongPct: pct, AcrossMM: 2}
					now, ok := m.Carry(Figure1, old, side, cm)
					require.True(t, ok, "%s fibre %d at %.0f %%", m.ID, i, pct)
					was, at := l.at(old, side, cm)
					v, p := m.OnFigure(now, side, cm)
					require.Equal(t, was, v)
					assert.Empty(t, m.Carries(v, p, now, side, cm), "%s", m.ID)
					_, off, _ := m.OnFibre(was, at, side, cm)
					if all++; off < 0.1 {
						stayed++
						assert.Less(t, p.Distance(at)*v.CMPerUnit(cm)*10, 5.0, "%s moved", m.ID)
					}
				}
			}
		}
	}
	assert.Greater(t, float64(stayed)/float64(all), 0.8, "most muscles lie where they lay")
	m := muscle(t, "soleus")
	_, ok := m.Carry("figure-0", FibrePlace{}, ids.Left, cm)
	assert.False(t, ok, "a figure that never was")
	_, ok = m.Carry(Figure1, FibrePlace{Fibre: 2}, ids.Left, cm)
	assert.False(t, ok, "a fibre that never was")
}

// A sheet begins and ends on bone: pressing at its ends comes to the bone, or close by.
// What ends in a sheet of sinew, or deeper than a hand reaches, is named.
func TestSheetsReachTheirBones(t *testing.T) {
	const withinMM = 13
	not := map[string]string{
		"internal-oblique insertion":      "the belly's sheath",
		"vastus-intermedius origin":       "the femur, deeper than a hand reaches",
		"adductor-longus insertion":       "the back of the femur, deeper than a hand reaches",
		"semitendinosus insertion":        "the inner shin: seen from behind it is on the far side",
		"gastrocnemius-medial insertion":  "Achilles' tendon",
		"gastrocnemius-lateral insertion": "Achilles' tendon",
		"flexor-hallucis-longus origin":   "the back of the fibula, under soleus",
		"flexor-digitorum-longus origin":  "the back of the shin, under soleus",
		"tibialis-posterior origin":       "between the bones, under soleus",
	}
	used := map[string]bool{}
	for _, m := range All() {
		if m.Kind != "muscle" {
			continue
		}
		for end, name := range []string{"origin", "insertion"} {
			key := string(m.ID) + " " + name
			gap := m.toBoneMM(end)
			if not[key] != "" && gap > withinMM {
				used[key] = true
				continue
			}
			assert.LessOrEqual(t, gap, float64(withinMM), key)
		}
	}
	for key := range not {
		assert.True(t, used[key], "%s reaches bone: take it off the list", key)
	}
}

// toBoneMM is how near the bone a press at an end of the muscle comes, 0 the origin.
func (m *Muscle) toBoneMM(end int) float64 {
	gap := math.Inf(1)
	for i := range m.Parts {
		s := m.Parts[i].sheet(ids.Left)
		for k := range 5 {
			l, ok := pressed(s.view, s.at(float64(end), float64(k)/4), ids.Left, m.Parts[i].Behind != "")
			if ok {
				g, _ := l.ToBone()
				gap = min(gap, g*solid.MMPerUnit)
			}
		}
	}
	return gap
}
