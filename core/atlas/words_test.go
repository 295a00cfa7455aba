package atlas

import (
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
)

// Words that measure, in finger-widths and hands of four; half a finger either
// way is as true as a hand can be.
const (
	hand = 4 * FingerWidthCM
	half = FingerWidthCM / 2
)

// measured is what a site's words, or a step's, say of its distance from a
// place: a landmark, or an edge beside it, in cm at 170 cm.
type measured struct {
	muscle   ids.Muscle
	site     string
	landmark ids.Landmark
	out      float64 // from the landmark to what is measured from, view units
	down     float64
	least    float64
	most     float64
}

// justBy is "just above", "just below", "just before": within a finger.
func justBy(m ids.Muscle, site string, l ids.Landmark, out, down float64) measured {
	return measured{m, site, l, out, down, 0, FingerWidthCM}
}

func fingers(m ids.Muscle, site string, n float64, l ids.Landmark, out, down float64) measured {
	return measured{m, site, l, out, down, n * FingerWidthCM, n * FingerWidthCM}
}

var measuring = []measured{
	fingers("suboccipitals", "middle", 1, "C1", 0, -2),
	fingers("splenius-cervicis", "angle", 2, "C7", 0, 10),
	fingers("pectoralis-minor", "upper", 2, "coracoid", 0, 0),
	fingers("pronator-teres", "middle", 2, "medial-epicondyle", 0, 0),
	fingers("brachialis", "outer", 3, "lateral-epicondyle", 0, 0),
	fingers("extensor-carpi-radialis", "upper", 3, "lateral-epicondyle", 0, 0),
	fingers("extensor-digitorum-longus", "upper", 3, "fibular-head", 0, 0),
	fingers("fibularis-longus", "upper", 3, "fibular-head", 0, 0),
	fingers("psoas-major", "belly", 4, "navel", 35, 0),
	fingers("infraspinatus", "upper-inner", 1, "scapula-spine-root", 0, 0),
	fingers("flexor-hallucis-brevis", "middle", 2, "metatarsal-head-1", 0, 0),
	fingers("quadratus-plantae", "middle", 1, "calcaneus", 2, -110),
	{"brachioradialis", "upper", "lateral-epicondyle", 0, 0, 2 * FingerWidthCM, 3 * FingerWidthCM},
	{"triceps-brachii", "lower", "olecranon", 0, 0, 2 * FingerWidthCM, 3 * FingerWidthCM},
	{"lumbar-erector-spinae", "upper", "L1", 0, 6, 2 * FingerWidthCM, 3 * FingerWidthCM},
	{"achilles-tendon", "middle", "calcaneus", 0, -10, 2, 6},
	{"sartorius", "upper", "asis", 0, 0, hand, hand},
	{"rectus-femoris", "upper", "asis", 0, 0, hand, hand},
	{"rectus-femoris", "lower", "patella", 4, -14, hand, hand},
	{"vastus-medialis", "lower", "patella", -10, -8, hand, hand},
	{"vastus-intermedius", "upper", "asis", 0, 0, 3 * hand, 3 * hand},
	{"adductor-longus", "upper", "pubic-symphysis", 0, 0, hand, hand},
	{"fibularis-brevis", "lower", "lateral-malleolus", 0, 0, hand, hand},
	{"flexor-hallucis-longus", "lower", "lateral-malleolus", 0, 0, 1.5 * hand, 1.5 * hand},
	{"flexor-digitorum-longus", "upper", "fibular-head", -32, -11, 1.5 * hand, 1.5 * hand},
	{"flexor-digitorum", "middle", "medial-epicondyle", 0, 0, 1.5 * hand, 1.5 * hand},
	justBy("splenius-capitis", "upper", "mastoid", 0, 0),
	justBy("masseter", "deep", "tragus", 0, 0),
	justBy("temporalis", "front", "tragus", 155, 5),
	justBy("sternocleidomastoid-sternal", "lower", "clavicle-medial", 0, 0),
	justBy("levator-scapulae", "corner", "scapula-superior-angle", 0, 0),
	justBy("quadratus-lumborum", "rib-edge", "rib-12-tip", 0, 0),
	justBy("quadratus-lumborum", "crest-edge", "iliac-crest", -18, 4),
	justBy("external-oblique", "crest", "iliac-crest", 0, 0),
	justBy("gastrocnemius-lateral", "upper", "fibular-head", -10, -18),
}

// The words of a site's name agree with where it is plotted.
func TestWordsThatMeasureAgreeWithThePlace(t *testing.T) {
	listed := map[string]bool{}
	for _, c := range measuring {
		m := muscle(t, c.muscle)
		s, ok := m.Site(c.site)
		require.True(t, ok, "%s %s", c.muscle, c.site)
		listed[string(c.muscle)+" "+c.site] = true
		for _, side := range []ids.Side{ids.Left, ids.Right} {
			v, p := m.OnFigure(s.Place(170), side, 170)
			from, err := body.FindLandmark(v, c.landmark, side)
			require.NoError(t, err, "%s %s", c.muscle, c.site)
			cm := p.Distance(body.Offset(v, from, side, c.out, c.down)) * v.CMPerUnit(170)
			assert.GreaterOrEqual(t, cm, c.least-half, "%s: %q is plotted %.1f cm away", c.muscle, s.Name, cm)
			assert.LessOrEqual(t, cm, c.most+half, "%s: %q is plotted %.1f cm away", c.muscle, s.Name, cm)
		}
	}
	measures := regexp.MustCompile(`(?i)\b(fingers?|finger-widths?|hands?) (above|below|from|beside)|\bjust (above|below|under|before)|\bcm\b`)
	for _, m := range All() {
		for _, s := range m.Sites {
			if measures.MatchString(s.Name) {
				assert.True(t, listed[string(m.ID)+" "+s.ID], "%s: %q measures, and nothing checks it", m.ID, s.Name)
			}
		}
	}
}

func TestMeasuresInWords(t *testing.T) {
	for n, want := range map[float64]string{
		1: "one finger", 1.3: "one finger", 1.5: "one to two fingers", 1.7: "two fingers", 3.34: "three fingers",
		3.36: "three to four fingers", 4: "four fingers",
	} {
		assert.Equal(t, want, inFingers(n), "%v", n)
	}
	for n, want := range map[float64]string{
		0.1: "half a hand", 0.8: "a hand", 1.2: "a hand", 1.4: "a hand and a half", 2: "two hands",
		2.6: "two and a half hands",
	} {
		assert.Equal(t, want, inHands(n), "%v", n)
	}
	measured := 0
	for _, m := range All() {
		for _, s := range m.Sites {
			assert.NotContains(t, s.Name, "{", "%s", m.ID)
			if s.Measure != nil {
				measured++
			}
		}
		for _, st := range m.Find {
			assert.NotContains(t, st.Text, "{", "%s", m.ID)
		}
	}
	assert.Greater(t, measured, 15)
}

// Of two sites the one that is called lower lies lower, the deeper further in,
// the one in front further forward.
func TestSitesLieTheWayTheyAreCalled(t *testing.T) {
	place := func(m ids.Muscle, site string) (body.View, body.Point) {
		mu := muscle(t, m)
		s, ok := mu.Site(site)
		require.True(t, ok, "%s %s", m, site)
		return mu.OnFigure(s.Place(170), ids.Left, 170)
	}
	for _, c := range []struct {
		muscle      ids.Muscle
		lower, than string
	}{
		{"subscapularis", "deep", "outer-border"},
		{"psoas-major", "belly", "higher"},
		{"psoas-major", "lower", "belly"},
		{"iliacus", "lower", "hollow"},
		{"soleus", "lower-inner", "upper-outer"},
		{"soleus", "lower-outer", "upper-outer"},
		{"rectus-femoris", "lower", "upper"},
		{"rectus-abdominis", "lower", "upper"},
		{"sartorius", "lower", "upper"},
		{"vastus-medialis", "lower", "upper"},
		{"lumbar-erector-spinae", "lower", "upper"},
		{"thoracic-erector-spinae", "lower", "upper"},
		{"lumbar-multifidus", "low", "middle"},
		{"sternocleidomastoid-sternal", "middle", "upper"},
		{"gluteus-maximus", "lower", "upper"},
		{"rhomboids", "lower", "border"},
	} {
		_, a := place(c.muscle, c.lower)
		_, b := place(c.muscle, c.than)
		v, _ := place(c.muscle, c.lower)
		assert.Greater(t, (a.Y-b.Y)*v.CMPerUnit(170), 0.9, "%s: %s is not below %s", c.muscle, c.lower, c.than)
	}
	middle := body.Front.Width() / 2
	_, outer := place("subscapularis", "outer-border")
	_, deep := place("subscapularis", "deep")
	assert.Greater(t, outer.X-deep.X, 5.0, "deeper is further inward")
	assert.Greater(t, deep.X, middle)
	_, front := place("gluteus-medius", "front")
	_, between := place("gluteus-medius", "middle")
	assert.Less(t, front.X, between.X, "seen from the left, forward is to the left")
}

// No site lies on a bone that is felt under the skin, on the arm that hangs in
// front, or nearer to the structure that its words keep off than they say.
func TestNoSiteLiesWhereNobodyMayPress(t *testing.T) {
	bones := []ids.Landmark{
		"olecranon", "lateral-epicondyle", "medial-epicondyle", "asis", "psis", "patella", "lateral-malleolus",
		"medial-malleolus", "acromion", "coracoid", "greater-trochanter", "ischial-tuberosity", "fibular-head",
		"tibial-tuberosity", "mastoid", "radial-styloid", "ulnar-styloid", "pubic-symphysis", "xiphoid",
	}
	const bone = 0.8 // cm
	for _, m := range All() {
		if m.Kind == "contact" {
			continue
		}
		for _, s := range m.Sites {
			v, p := m.OnFigure(s.Place(170), ids.Left, 170)
			for _, id := range bones {
				if l, err := body.FindLandmark(v, id, ids.Left); err == nil {
					assert.Greater(t, l.Distance(p)*v.CMPerUnit(170), bone, "%s %s lies on the %s", m.ID, s.ID, id)
				}
			}
			arm := m.Region == "arm-and-hand" || m.Region == "shoulder-girdle"
			n, ok := body.RegionOf(body.CellAt(v, p))
			require.True(t, ok, "%s %s lies off the figure", m.ID, s.ID)
			if v == body.LeftSide && !arm {
				assert.NotContains(t, []ids.Region{
					"lateral-upper-arm", "lateral-elbow", "radial-forearm", "dorsal-forearm", "dorsal-hand",
				}, n.Region, "%s %s lies on the hanging arm", m.ID, s.ID)
			}
		}
	}
	// The nerve over the deep rotators is truly over them.
	for _, c := range []struct {
		muscle    ids.Muscle
		site      string
		structure ids.Structure
		within    float64
	}{
		{"deep-hip-rotators", "middle", "sciatic-nerve", 2},
		{"adductor-magnus", "middle", "femoral-vessels-and-nerve", 3.5},
		{"sartorius", "lower", "femoral-vessels-and-nerve", 6},
		{"scalenus-anterior", "middle", "brachial-plexus", 1},
	} {
		g, err := muscle(t, c.muscle).Palpate(ids.Left, c.site, 170, 0)
		require.NoError(t, err)
		for _, n := range g.Near {
			if n.Structure == c.structure {
				require.NotNil(t, n.DistanceCM)
				assert.LessOrEqual(t, n.DistanceCM, c.within, "%s: %s", c.muscle, c.structure)
				assert.Greater(t, n.DistanceCM, 0.3, "%s: on the %s itself", c.muscle, c.structure)
			}
		}
	}
}

// Places that are guarded whatever the muscle: the fold of the armpit, the side
// of the neck, groin and hollow of the knee.
func TestCeilingsFollowThePlace(t *testing.T) {
	for _, c := range []struct {
		muscle ids.Muscle
		site   string
	}{
		{"subscapularis", "outer-border"},
		{"splenius-cervicis", "upper"},
		{"scalenus-medius", "middle"},
		{"pectineus", "middle"},
		{"popliteus", "lower"},
		{"pectoralis-major", "fold"},
		{"teres-major", "outer"},
		{"coracobrachialis", "upper"},
		{"splenius-capitis", "upper"},
		{"sartorius", "upper"},
		{"gastrocnemius-lateral", "upper"},
		{"psoas-major", "belly"},
	} {
		m := muscle(t, c.muscle)
		s, _ := m.Site(c.site)
		v, p := m.OnFigure(s.Place(170), ids.Left, 170)
		limits, where := safety.Site(c.muscle, m.PressedThrough(s.Place(170), ids.Left, v, p))
		assert.LessOrEqual(t, limits.Target, 4.0, "%s %s", c.muscle, c.site)
		assert.NotEmpty(t, where)
	}
}

// The way off is computed from where everything lies; a file's words name no direction
// that could be another.
func TestNoFileNamesAWayOff(t *testing.T) {
	for _, m := range All() {
		for _, n := range m.Near {
			assert.NotRegexp(t, `\bmove\b|means (in|out|up|down|back|forward|to)`, n.Text, "%s %s", m.ID, n.Structure)
		}
	}
}
