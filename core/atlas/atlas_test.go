package atlas

import (
	"encoding/json"
	"math"
	"slices"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
)

// The files are read strictly here; the program trusts what passed.
func TestTheWholeAtlasHolds(t *testing.T) {
	require.NoError(t, Verify(data))
	for _, id := range ids.Muscles() {
		_, err := Get(id)
		assert.NoError(t, err)
	}
}

// By rule, for every muscle, site and side: the site lies inside the muscle's
// own width, on its side; every referral region is drawn somewhere; the guide
// is complete.
func TestEveryGuideIsComplete(t *testing.T) {
	drawn := map[ids.Region]bool{}
	for _, v := range body.Views {
		for _, c := range body.Cells(v) {
			drawn[c.Region] = true
		}
	}
	for _, m := range All() {
		t.Run(string(m.ID), func(t *testing.T) {
			for _, site := range m.Sites {
				for _, side := range []ids.Side{ids.Left, ids.Right} {
					g, err := m.Palpate(side, site.ID, 170, 0)
					require.NoError(t, err)
					require.Len(t, g.Sites, 1)
					s := g.Sites[0]
					p := body.Point{X: s.X, Y: s.Y}
					assert.Equal(t, side, s.View.SideAt(p), "site %s on the wrong side", s.Site)
					fp, off, ok := m.OnFibre(s.View, p, side, 170)
					require.True(t, ok)
					assert.LessOrEqual(t, off, m.Fibres[fp.Fibre].SpreadMM/2+1)
					assert.GreaterOrEqual(t, len(g.Landmarks), 1, "a guide starts from a landmark")
					assert.GreaterOrEqual(t, len(g.Steps), 5)
					for _, n := range g.Near {
						assert.GreaterOrEqual(t, n.DistanceCM, 0.0)
						assert.NotEmpty(t, n.Sign)
					}
					for _, r := range append(append([]ids.Region{}, g.Referral.Essential...), g.Referral.Spillover...) {
						assert.True(t, drawn[r], "%s is nowhere on the figure", r)
					}
				}
			}
			for text, list := range map[string][]string{
				"draping": {m.Draping}, "strum": {m.Strum},
				"trace": {m.Trace}, "innervation": {m.Innervation}, "caution": m.Cautions, "source": m.Sources,
			} {
				for _, x := range list {
					assert.NotEmpty(t, strings.TrimSpace(x), text)
				}
			}
			syn, ant := m.Relations()
			for _, a := range ant {
				assert.NotContains(t, syn, a)
			}
			for _, e := range m.EaseFirst {
				o, err := Get(e)
				require.NoError(t, err)
				if m.Kind == "muscle" { // a tendon waits for its muscles, whatever their depth
					assert.LessOrEqual(t, o.Layer, m.Layer, "deeper muscle eased first")
				}
			}
		})
	}
}

func TestRelationsAreMutual(t *testing.T) {
	for _, m := range All() {
		if m.Corrections != nil {
			continue
		}
		syn, _ := m.Relations()
		for _, id := range syn {
			o, _ := Get(id)
			back, _ := o.Relations()
			assert.Contains(t, back, m.ID, "%s helps %s but not the other way", id, m.ID)
		}
	}
	syn, ant := muscle(t, "soleus").Relations()
	assert.Contains(t, syn, ids.Muscle("gastrocnemius-medial"))
	assert.Contains(t, ant, ids.Muscle("tibialis-anterior"))
}

// A structure within reach of a site is in the guide even when the muscle's
// file does not speak of it.
func TestNoFileCanForgetAStructure(t *testing.T) {
	for _, m := range All() {
		for _, s := range m.Sites {
			v, p := m.OnFigure(FibrePlace{s.Fibre, s.AlongPct, s.AcrossMM}, ids.Left, 170)
			g, err := m.Palpate(ids.Left, s.ID, 170, 0)
			require.NoError(t, err)
			for _, sh := range safety.Shapes(v) {
				if sh.Side == ids.Right || sh.Distance(p)*v.CMPerUnit(170) > 4 {
					continue
				}
				assert.True(t, slices.ContainsFunc(g.Near,
					func(n NearBy) bool { return n.Structure == sh.Structure }), "%s %s: %s", m.ID, s.ID, sh.Structure)
			}
		}
	}
}

func TestDistancesFollowHeightAndFinger(t *testing.T) {
	m := muscle(t, "psoas-major")
	small, _ := m.Palpate(ids.Left, "belly", 150, 0)
	tall, _ := m.Palpate(ids.Left, "belly", 200, 2)
	find := func(g Guide, id ids.Structure) NearBy {
		i := slices.IndexFunc(g.Near, func(n NearBy) bool { return n.Structure == id })
		require.GreaterOrEqual(t, i, 0)
		return g.Near[i]
	}
	a, b := find(small, "abdominal-aorta"), find(tall, "abdominal-aorta")
	assert.Greater(t, b.DistanceCM, a.DistanceCM)
	assert.InDelta(t, b.DistanceCM/2, b.Fingers, 0.06)
}

func TestAWrongFileFailsWithFileAndField(t *testing.T) {
	good, err := data.ReadFile("data/soleus.json")
	require.NoError(t, err)
	for name, c := range map[string]struct {
		change func(map[string]any)
		field  string
	}{
		"unknown landmark": {
			func(m map[string]any) { m["find"].([]any)[0].(map[string]any)["landmark"] = "elbow" },
			"$.find[0].landmark",
		},
		"no such fibre": {
			func(m map[string]any) { m["sites"].([]any)[0].(map[string]any)["fibre"] = 7 },
			"$.sites[0].fibre",
		},
		"off the figure": {func(m map[string]any) {
			m["fibres"].([]any)[0].(map[string]any)["path"].([]any)[0].(map[string]any)["out"] = 300
		}, "$.fibres[0].path[0]"},
		"field missing":  {func(m map[string]any) { delete(m, "innervation") }, "$.innervation"},
		"field misspelt": {func(m map[string]any) { m["latinn"] = "x" }, "$.latinn"},
		"other name":     {func(m map[string]any) { m["id"] = "piriformis" }, "$.id"},
		"no side of a side-bend": {func(m map[string]any) {
			m["restricts"] = []any{map[string]any{"movement": "cervical.rotation"}}
		}, "$.restricts[0].toward"},
		"tension shortens": {func(m map[string]any) {
			m["tension"].([]any)[0].(map[string]any)["movement"] = "ankle.plantarflexion"
		}, "$.tension[0]"},
		"slack lengthens": {func(m map[string]any) {
			m["slack"].([]any)[0].(map[string]any)["movement"] = "ankle.dorsiflexion-knee-bent"
		}, "$.slack[0]"},
		"confirms by another action": {func(m map[string]any) {
			m["confirm"].(map[string]any)["movement"] = "hip.flexion"
		}, "$.confirm.movement"},
		"structure elsewhere": {func(m map[string]any) {
			m["near"].([]any)[0].(map[string]any)["structure"] = "thyroid"
		}, "$.near[0].structure"},
		"not known by the other": {func(m map[string]any) {
			m["mistaken_for"] = append(m["mistaken_for"].([]any),
				map[string]any{"muscle": "temporalis", "tell": "far away"})
		}, ".muscle"},
		"easing in a circle": {
			func(m map[string]any) { m["ease_first"] = []any{"tibialis-posterior"} },
			"$.ease_first[0]",
		},
		"no pattern": {
			func(m map[string]any) { delete(m["sites"].([]any)[0].(map[string]any), "essential") },
			"$.sites[0].essential",
		},
	} {
		t.Run(name, func(t *testing.T) {
			var m map[string]any
			require.NoError(t, json.Unmarshal(good, &m))
			c.change(m)
			raw, _ := json.Marshal(m)
			files := fstest.MapFS{}
			for _, o := range All() {
				name := "data/" + string(o.ID) + ".json"
				b, err := data.ReadFile(name)
				require.NoError(t, err)
				files[name] = &fstest.MapFile{Data: b}
			}
			files["data/soleus.json"] = &fstest.MapFile{Data: raw}
			err := Verify(files)
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
				if out.Fibre == fi { // where two fibres cross, the nearer one may be the other
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
	assert.Empty(t, Under(body.Front, body.Point{X: 240, Y: 60}, 170), "no muscle of the face in the front view")
}

func TestStrumLiesAcrossTrace(t *testing.T) {
	for _, m := range All() {
		for _, s := range m.Sites {
			l, _ := m.Palpate(ids.Left, s.ID, 170, 0)
			r, _ := m.Palpate(ids.Right, s.ID, 170, 0)
			assert.InDelta(t, 90, math.Abs(l.StrumDeg-l.TraceDeg), 0.2)
			if l.Sites[0].View == body.Back {
				assert.InDelta(t, 0, math.Mod(l.StrumDeg+r.StrumDeg, 180), 0.3, "%s: sides are mirror images", m.ID)
			}
		}
	}
}
