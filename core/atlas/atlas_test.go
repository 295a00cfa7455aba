package atlas

import (
	"encoding/json"
	"math"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/ids"
)

func TestEveryFileLoads(t *testing.T) {
	all, err := load()
	require.NoError(t, err)
	assert.Len(t, all, 8)
	for _, id := range []ids.Muscle{"upper-trapezius", "levator-scapulae", "infraspinatus", "quadratus-lumborum",
		"gluteus-minimus", "gastrocnemius-medial", "soleus", "flexor-digitorum-brevis"} {
		assert.Contains(t, all, id)
	}
}

// By rule, for every muscle: sites lie on the figure and inside the muscle's
// own width, on both sides; relations that have data on both ends agree.
func TestAtlasIsConsistent(t *testing.T) {
	for _, m := range All() {
		t.Run(string(m.ID), func(t *testing.T) {
			for _, side := range []ids.Side{ids.Left, ids.Right} {
				g, err := m.Palpate(side, "", 170)
				require.NoError(t, err)
				for _, s := range g.Sites {
					f := body.Draw(s.View)
					p := body.Point{X: s.X, Y: s.Y}
					assert.True(t, f.Contains(p), "site %s %s is off the figure: %v", s.Site, side, p)
					assert.Equal(t, side, s.View.SideAt(p), "site %s on the wrong side", s.Site)
					fp, off, ok := m.OnFibre(s.View, p, side, 170)
					require.True(t, ok)
					assert.LessOrEqual(t, off, m.Fibres[fp.Fibre].SpreadMM/2+1)
				}
				for _, n := range g.Near {
					assert.Greater(t, n.DistanceCM, 0.0)
				}
			}
			for _, n := range m.MistakenFor {
				if o, err := Get(n.Muscle); err == nil {
					known := false
					for _, b := range o.MistakenFor {
						known = known || b.Muscle == m.ID
					}
					assert.True(t, known, "%s is mistaken for %s, which does not know it", m.ID, n.Muscle)
				}
			}
			for _, a := range m.Actions {
				if strings.HasSuffix(string(a), ".lateral-flexion") || strings.HasSuffix(string(a), ".rotation") {
					continue // these have a side: toward shortens, away lengthens
				}
				for _, p := range m.Tension {
					assert.NotEqual(t, a, p.Movement, "tension shortens the muscle")
				}
			}
			for _, a := range m.Antagonists {
				assert.NotContains(t, m.Synergists, a)
			}
			for _, e := range m.EaseFirst {
				if o, err := Get(e); err == nil {
					assert.LessOrEqual(t, o.Layer, m.Layer, "deeper muscle eased first")
				}
			}
		})
	}
}

func TestAWrongFileFailsWithFileAndField(t *testing.T) {
	good, err := data.ReadFile("data/soleus.json")
	require.NoError(t, err)
	for name, c := range map[string]struct {
		change func(map[string]any)
		field  string
	}{
		"unknown landmark": {func(m map[string]any) { m["find"].([]any)[0].(map[string]any)["landmark"] = "elbow" }, "$.find[0].landmark"},
		"no such fibre":    {func(m map[string]any) { m["sites"].([]any)[0].(map[string]any)["fibre"] = 7 }, "$.sites[0].fibre"},
		"off the figure": {func(m map[string]any) {
			m["fibres"].([]any)[0].(map[string]any)["path"].([]any)[0].(map[string]any)["out"] = 300
		}, "$.fibres[0].path[0]"},
		"field missing":  {func(m map[string]any) { delete(m, "innervation") }, "$.innervation"},
		"field misspelt": {func(m map[string]any) { m["latinn"] = "x" }, "$.latinn"},
		"other name":     {func(m map[string]any) { m["id"] = "piriformis" }, "$.id"},
	} {
		t.Run(name, func(t *testing.T) {
			var m map[string]any
			require.NoError(t, json.Unmarshal(good, &m))
			c.change(m)
			raw, _ := json.Marshal(m)
			_, err := read(fstest.MapFS{"data/soleus.json": {Data: raw}})
			require.ErrorContains(t, err, "data/soleus.json")
			assert.ErrorContains(t, err, c.field)
		})
	}
}

func TestAPlaceSurvivesTheWayToTheFigureAndBack(t *testing.T) {
	for _, m := range All() {
		for fi := range m.Fibres {
			for _, side := range []ids.Side{ids.Left, ids.Right} {
				in := FibrePlace{fi, 60, 3}
				v, p := m.OnFigure(in, side, 170)
				out, off, ok := m.OnFibre(v, p, side, 170)
				require.True(t, ok)
				assert.LessOrEqual(t, off, 3.01)
				if out.Fibre == fi {
					assert.InDelta(t, 60, out.AlongPct, 1.5, "%s %s", m.ID, side)
					assert.InDelta(t, 3, out.AcrossMM, 0.2, "%s %s", m.ID, side)
				}
			}
		}
	}
}

func TestSameSpotAtItsBoundaries(t *testing.T) {
	m, err := Get("infraspinatus")
	require.NoError(t, err)
	l := m.Fibres[0].Line(ids.Left)
	mmPerPct := l.length() * l.View.CMPerUnit(170) * 10 / 100
	a := FibrePlace{0, 40, 0}
	for _, c := range []struct {
		alongMM, acrossMM float64
		same              bool
	}{{0, 0, true}, {14.9, 0, true}, {15.1, 0, false}, {-14.9, -9.9, true}, {0, 10.1, false}, {0, 10, true}} {
		b := FibrePlace{0, 40 + c.alongMM/mmPerPct, c.acrossMM}
		assert.Equal(t, c.same, m.SameSpot(a, b, ids.Left, 170), "%+v", c)
	}
}

func TestUnderATouchOnTheCalf(t *testing.T) {
	for _, side := range []ids.Side{ids.Left, ids.Right} {
		m, _ := Get("gastrocnemius-medial")
		v, p := m.OnFigure(FibrePlace{0, 45, -4}, side, 170)
		c := Under(v, p, 170)
		require.NotEmpty(t, c)
		assert.Equal(t, ids.Muscle("gastrocnemius-medial"), c[0].Muscle)
		assert.Equal(t, "inner-belly", c[0].Site)
		assert.Equal(t, side, c[0].Side)
	}
	assert.Empty(t, Under(body.Front, body.Point{X: 240, Y: 60}, 170), "no muscle data on the face yet")
}

func TestStrumLiesAcrossTrace(t *testing.T) {
	for _, m := range All() {
		for _, s := range m.Sites {
			l, _ := m.Palpate(ids.Left, s.ID, 170)
			r, _ := m.Palpate(ids.Right, s.ID, 170)
			assert.InDelta(t, 90, math.Abs(l.StrumDeg-l.TraceDeg), 0.2)
			if l.Sites[0].View == body.Back {
				assert.InDelta(t, 0, math.Mod(l.StrumDeg+r.StrumDeg, 180), 0.3, "%s: sides are mirror images", m.ID)
			}
		}
	}
}
