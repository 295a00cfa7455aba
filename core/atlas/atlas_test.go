package atlas

import (
	"encoding/json"
	"math"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/ids"
)

// The files are read strictly here; the program trusts what passed.
func TestTheWholeAtlasHolds(t *testing.T) {
	require.NoError(t, Verify(files()))
	for _, id := range ids.Muscles() {
		_, err := Get(id)
		assert.NoError(t, err)
	}
}

// A file in the folder is a muscle of the atlas, once scripts/atlas-files has seen it.
func TestEveryFileIsEmbedded(t *testing.T) {
	folder, err := os.ReadDir("data")
	require.NoError(t, err)
	for _, f := range folder {
		assert.Contains(t, files(), ids.Muscle(strings.TrimSuffix(f.Name(), ".json")))
	}
	assert.Len(t, files(), len(folder))
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
					_, off, ok := m.OnFibre(s.View, p, side, 170)
					require.True(t, ok)
					assert.LessOrEqual(t, off, 0.2, "site %s lies outside the muscle", s.Site)
					assert.GreaterOrEqual(t, len(g.Landmarks), 1, "a guide starts from a landmark")
					assert.GreaterOrEqual(t, len(g.Steps), 5)
					for _, n := range g.Near {
						assert.NotEmpty(t, n.Sign)
						assert.NotEmpty(t, n.Tier)
					}
					for _, r := range append(append([]ids.Region{}, g.Referral.Essential...), g.Referral.Spillover...) {
						assert.True(t, drawn[r], "%s is nowhere on the figure", r)
					}
				}
			}
			for text, list := range map[string][]string{
				"innervation": {m.Innervation}, "caution": m.Cautions, "source": m.Sources,
			} {
				for _, x := range list {
					assert.NotEmpty(t, strings.TrimSpace(x), text)
				}
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

// Who opposes in the stronger action and helps in a weaker one stands in both
// lists; every muscle of an oblique belly or a splenius has somebody against it.
func TestWhoHelpsAndOpposesStandsInBoth(t *testing.T) {
	for _, c := range []struct{ id, both ids.Muscle }{
		{"tibialis-posterior", "fibularis-longus"},
		{"abductor-hallucis", "adductor-hallucis"},
		{"lower-trapezius", "rhomboids"},
		{"sternocleidomastoid-sternal", "splenius-capitis"},
	} {
		syn, ant := muscle(t, c.id).Relations()
		assert.Contains(t, syn, c.both, "%s", c.id)
		assert.Contains(t, ant, c.both, "%s", c.id)
	}
	for _, id := range []ids.Muscle{"external-oblique", "splenius-capitis", "splenius-cervicis"} {
		_, ant := muscle(t, id).Relations()
		assert.NotEmpty(t, ant, "%s", id)
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
	assert.InDelta(t, a.DepthCM*200/150, b.DepthCM, 0.1)
}

// What a file speaks of is in the guide of each site.
func TestNoStructureIsDropped(t *testing.T) {
	for _, m := range All() {
		for _, s := range m.Sites {
			g, err := m.Palpate(ids.Right, s.ID, 170, 0)
			require.NoError(t, err)
			for _, n := range m.Near {
				assert.True(t, slices.ContainsFunc(g.Near,
					func(x NearBy) bool { return x.Structure == n.Structure }), "%s %s: %s", m.ID, s.ID, n.Structure)
			}
		}
	}
}

func TestAWrongFileFailsWithFileAndField(t *testing.T) {
	good := files()["soleus"]
	for name, c := range map[string]struct {
		change func(map[string]any)
		field  string
	}{
		"unknown landmark": {
			func(m map[string]any) { m["find"].([]any)[0].(map[string]any)["landmark"] = "elbow" },
			"$.find[0].landmark",
		},
		"no such part": {
			func(m map[string]any) { m["sites"].([]any)[0].(map[string]any)["fibre"] = 7 },
			"$.sites[0].fibre",
		},
		"off the figure": {func(m map[string]any) {
			m["parts"].([]any)[0].(map[string]any)["origin"].([]any)[0].(map[string]any)["out"] = 300
		}, "$.parts[0].origin[0]"},
		"all tendon": {func(m map[string]any) {
			m["parts"].([]any)[0].(map[string]any)["tendon_pct"] = []any{60, 40}
		}, "$.parts[0].tendon_pct"},
		"a site beside its part": {
			func(m map[string]any) { m["sites"].([]any)[0].(map[string]any)["across_mm"] = 140 },
			"$.sites[0].across_mm",
		},
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
			changed := files()
			changed["soleus"] = raw
			err := Verify(changed)
			require.ErrorContains(t, err, "data/soleus.json")
			assert.ErrorContains(t, err, c.field)
		})
	}
}

// Whatever place of a muscle is touched, its part, its share of the length and
// its mm across lead back there.
func TestAPlaceSurvivesTheWayToTheFigureAndBack(t *testing.T) {
	for _, m := range All() {
		for i := range m.Parts {
			for _, side := range []ids.Side{ids.Left, ids.Right} {
				s := m.Parts[i].sheet(side)
				for _, at := range [][2]float64{{0.1, 0.5}, {0.5, 0.2}, {0.6, 0.5}, {0.9, 0.85}} {
					p := s.at(at[0], at[1])
					f, off, ok := m.OnFibre(s.view, p, side, 170)
					require.True(t, ok)
					assert.Less(t, off, 0.3, "%s part %d is left", m.ID, i)
					v, q := m.OnFigure(f, side, 170)
					assert.Equal(t, s.view, v)
					assert.Less(t, q.Distance(p)*v.CMPerUnit(170)*10, 0.8, "%s %v", m.ID, at)
				}
			}
		}
	}
}

func TestSameSpotAtItsBoundaries(t *testing.T) {
	m, err := Get("infraspinatus")
	require.NoError(t, err)
	s := m.Parts[0].sheet(ids.Left)
	mmPerPct := s.length() * s.view.CMPerUnit(170) * 10 / 100
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
