package atlas

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
)

func muscle(t *testing.T, id ids.Muscle) *Muscle {
	t.Helper()
	m, err := Get(id)
	require.NoError(t, err)
	return m
}

func moves(list []JointPosition) []ids.Movement {
	var out []ids.Movement
	for _, p := range list {
		out = append(out, p.Movement)
	}
	return out
}

func said(m *Muscle) string {
	var all []string
	for _, s := range m.Find {
		all = append(all, s.Text)
	}
	for _, n := range m.MistakenFor {
		all = append(all, n.Tell)
	}
	for _, n := range m.Near {
		all = append(all, n.Text)
	}
	all = append(all, m.Cautions...)
	all = append(all, m.Strum, m.Trace, m.Confirm.Text, m.Usual.Why)
	return strings.ToLower(strings.Join(all, " "))
}

// The facts that practitioners rely on; the atlas must agree with each.
func TestFactsThatPractitionersRelyOn(t *testing.T) {
	t.Run("upper trapezius", func(t *testing.T) {
		m := muscle(t, "upper-trapezius")
		assert.Equal(t, ids.Contact("pincer"), m.Contacts[0], "the free edge is taken between thumb and fingers")
		var regions []ids.Region
		for _, s := range m.Sites {
			regions = append(append(regions, s.Essential...), s.Spillover...)
		}
		assert.Subset(t, regions, []ids.Region{"posterior-neck", "mastoid", "temple", "jaw"})
		assert.Subset(t, moves(m.Slack), []ids.Movement{
			"shoulder.abduction", "shoulder.external-rotation",
			"cervical.lateral-flexion",
		})
	})
	t.Run("levator scapulae", func(t *testing.T) {
		m := muscle(t, "levator-scapulae")
		assert.Equal(t, ids.Landmark("scapula-spine-root"), m.Find[0].Landmark, "the ridge is found first")
		assert.Equal(t, ids.Landmark("scapula-superior-angle"), m.Find[1].Landmark)
		assert.Contains(t, m.Restricts, Motion{"cervical.rotation", "own"}, "limits turning to its own side")
		assert.Contains(t, said(m), "45°")
		assert.Contains(t, said(m), "hairline")
		assert.Contains(t, m.EaseFirst, ids.Muscle("upper-trapezius"), "trapezius before levator")
		near := []ids.Structure{}
		for _, n := range m.Near {
			near = append(near, n.Structure)
		}
		assert.Subset(t, near, []ids.Structure{"spinal-accessory-nerve", "dorsal-scapular-nerve"})
		assert.Subset(t, moves(m.Tension), []ids.Movement{"cervical.flexion", "cervical.lateral-flexion"})
	})
	t.Run("infraspinatus", func(t *testing.T) {
		m := muscle(t, "infraspinatus")
		s, ok := m.Site("upper-inner")
		require.True(t, ok)
		assert.Equal(t, []ids.Region{"anterior-shoulder"}, s.Essential, "felt deep in the front of the shoulder")
		assert.Contains(t, said(m), "strokes along the inner border from the lower angle up")
	})
	t.Run("quadratus lumborum", func(t *testing.T) {
		m := muscle(t, "quadratus-lumborum")
		assert.Equal(t, ids.Movement("pelvis.hike"), m.Confirm.Movement)
		assert.Contains(t, m.Confirm.Text, "10 s")
		assert.True(t, slices.ContainsFunc(m.Near, func(n Near) bool { return n.Structure == "kidney" }))
		assert.Equal(t, ids.Contact("forearm"), m.Contacts[0])
		assert.Contains(t, said(m), "easily missed")
		assert.Contains(t, said(m), "drag the back into extension")
		assert.NotContains(t, moves(m.Tension), ids.Movement("lumbar.extension"))
	})
	t.Run("gluteus minimus", func(t *testing.T) {
		m := muscle(t, "gluteus-minimus")
		assert.Equal(t, ids.Landmark("greater-trochanter"), m.Find[0].Landmark)
		assert.Contains(t, said(m), "no bone pressed on bone")
		assert.Contains(t, said(m), "slight upward angle")
	})
	t.Run("calf", func(t *testing.T) {
		g, s := muscle(t, "gastrocnemius-medial"), muscle(t, "soleus")
		assert.Contains(t, g.Restricts, Motion{Movement: "ankle.dorsiflexion-knee-straight"})
		assert.NotContains(t, g.Restricts, Motion{Movement: "ankle.dorsiflexion-knee-bent"},
			"knee straight against knee bent tells them apart")
		assert.Contains(t, s.Restricts, Motion{Movement: "ankle.dorsiflexion-knee-bent"})
		assert.Contains(t, s.EaseFirst, ids.Muscle("gastrocnemius-medial"), "gastrocnemius before soleus")
		for _, m := range []*Muscle{g, s} {
			assert.Contains(t, said(m), "clot", "screen for clots")
		}
		assert.Contains(t, said(g), "do not jam")
		near := []ids.Structure{}
		for _, n := range s.Near {
			near = append(near, n.Structure)
		}
		assert.Subset(t, near, []ids.Structure{"small-saphenous-vein", "sural-nerve", "tibial-nerve"})
	})
	t.Run("flexor digitorum brevis", func(t *testing.T) {
		m := muscle(t, "flexor-digitorum-brevis")
		assert.Len(t, m.Sites, 2, "two sites in the mid-sole")
		for _, s := range m.Sites {
			assert.Equal(t, []ids.Region{"metatarsal-heads"}, s.Essential, "not the sore spot")
		}
		assert.Equal(t, ids.Protocol("broad-first"), m.Usual.Protocol)
		assert.Contains(t, said(m), "never press it on stretch")
		assert.Equal(t, ids.Muscle("quadratus-plantae"), m.MistakenFor[0].Muscle)
		assert.Contains(t, said(muscle(t, "quadratus-plantae")), "deeper and nearer the heel")
	})
	// The others by what their files say, do and come after.
	for _, c := range []struct {
		id    ids.Muscle
		says  []string
		ease  []ids.Muscle
		near  []ids.Structure
		proto ids.Protocol
	}{
		{"supraspinatus", []string{"painful arc"}, []ids.Muscle{"upper-trapezius"}, nil, ""},
		{"teres-minor", []string{"arm resting, turned outward"}, nil, []ids.Structure{"axillary-nerve"}, ""},
		{
			"teres-major",
			[]string{"acts like latissimus", "client resists"},
			[]ids.Muscle{"latissimus-dorsi"},
			nil,
			"resisted-lengthening",
		},
		{
			"subscapularis",
			[]string{
				"if only the outermost band jumps, that is teres major: go deeper",
				"no cross-friction", "come out slowly", "stiff shoulder",
			},
			[]ids.Muscle{"latissimus-dorsi", "teres-major"},
			[]ids.Structure{"axillary-vessels", "axillary-plexus", "axillary-lymph-nodes"},
			"hold-to-release",
		},
		{"latissimus-dorsi", []string{"free edge", "armpit"}, nil, nil, ""},
		{
			"pectoralis-minor",
			[]string{"tender coracoid goes with the stiff shoulder", "through pectoralis major"},
			[]ids.Muscle{"pectoralis-major"},
			nil, "",
		},
		{
			"sternocleidomastoid-sternal",
			[]string{
				"never poke", "about 5 s, at most 10 s",
				"after whiplash only indirect", "medically explained first",
			},
			nil,
			[]ids.Structure{"carotid-sinus"},
			"brief-holds",
		},
		{"sternocleidomastoid-clavicular", []string{"never poke"}, nil, []ids.Structure{"jugular-vein"}, "brief-holds"},
		{
			"scalenus-anterior",
			[]string{
				"lift the head", "first rib should rise", "never both sides at once",
				"at most 4 of 10", "ask about the arm",
			},
			[]ids.Muscle{"sternocleidomastoid-sternal", "upper-trapezius"},
			[]ids.Structure{"subclavian-artery", "brachial-plexus"},
			"hold-to-release",
		},
		{
			"scalenus-medius",
			[]string{"forearm's angle", "chest-breathers"},
			nil,
			[]ids.Structure{"brachial-plexus"},
			"hold-to-release",
		},
		{"scalenus-posterior", []string{"out of reach", "keep off levator"}, nil, nil, "hold-to-release"},
		{"suboccipitals", []string{
			"broad pressure is best borne", "rolling the head or the eyes", "small circles",
			"client chooses",
		}, nil, []ids.Structure{"vertebral-artery", "greater-occipital-nerve"}, "hold-to-release"},
		{"serratus-anterior", []string{"unbearable: lighten or leave", "arm overhead"}, nil, nil, ""},
		{"rhomboids", []string{"under its edge", "raised border"}, nil, nil, ""},
		{"diaphragm", []string{"on the out-breath", "both sides are possible"}, nil, nil, "breath-sink"},
		{"rectus-abdominis", []string{"treat it at the ends", "half a sit-up", "grasped and kneaded"}, nil, nil, ""},
		{"thoracic-erector-spinae", []string{"between spinous and transverse", "90 s"}, nil, nil, ""},
		{
			"psoas-major",
			[]string{
				"four finger-widths", "sink a little with every out-breath", "about 10 s",
				"foot lifted off the table", "two or three times, toes drawn up",
			},
			[]ids.Muscle{"iliacus"},
			[]ids.Structure{"external-iliac-vessels"},
			"breath-sink",
		},
		{"iliacus", []string{"over the crest", "sweep"}, nil, nil, "breath-sink"},
		{"tensor-fasciae-latae", []string{
			"middle of this triangle", "does not tighten by itself",
			"no bone pressed on bone",
		}, nil, nil, ""},
		{
			"piriformis",
			[]string{"between", "sacrum", "trochanter"},
			[]ids.Muscle{"gluteus-maximus"},
			[]ids.Structure{"sciatic-nerve"},
			"",
		},
		{"deep-hip-rotators", []string{"broad contact, rotate the bent leg"}, nil, nil, "press-and-move"},
		{
			"biceps-femoris",
			[]string{"sitting bone", "broad contact while the client moves"},
			nil, nil,
			"press-and-move",
		},
		{"adductor-longus", nil, nil, nil, "contract-relax"},
		{"gastrocnemius-lateral", []string{"do not jam", "slight upward angle", "clot"}, nil, nil, ""},
		{"plantar-fascia", []string{"toes and foot curled"}, nil, nil, "broad-first"},
		{"achilles-tendon", nil, nil, nil, ""},
		{"opponens-pollicis", []string{"gather the flesh and follow the direction of ease"}, nil, nil, ""},
		{
			"sacroiliac-region",
			[]string{"walks the legs alternately", "no muscle of its own"},
			nil, nil,
			"press-and-move",
		},
		{
			"coccyx-region",
			[]string{"sacrum compressed toward it", "consent"},
			nil,
			[]ids.Structure{"coccyx-tip"},
			"slack-hold",
		},
		{"quadratus-plantae", nil, nil, nil, "broad-first"},
	} {
		t.Run(string(c.id), func(t *testing.T) {
			m := muscle(t, c.id)
			for _, w := range c.says {
				assert.Contains(t, said(m), w)
			}
			assert.Subset(t, m.EaseFirst, c.ease)
			for _, n := range c.near {
				assert.True(t, slices.ContainsFunc(m.Near, func(x Near) bool { return x.Structure == n }), "%s", n)
			}
			if c.proto != "" {
				assert.Equal(t, c.proto, m.Usual.Protocol)
			}
		})
	}
	assert.Len(t, muscle(t, "subscapularis").Sites, 3, "three sites of rising difficulty")
	assert.Equal(t, "not on large bodies", muscle(t, "subscapularis").Sites[2].Reach)
	assert.Contains(t, muscle(t, "psoas-major").Sites[0].Essential, ids.Region("lumbar-spine"), "along the low back")
	assert.Subset(t, muscle(t, "iliacus").Sites[0].Essential, []ids.Region{"anterior-hip", "anterior-thigh"},
		"hip and front of thigh")
	assert.Contains(t, muscle(t, "achilles-tendon").Slack[0].Text, "heel compressed")
	for _, id := range []ids.Muscle{"plantar-fascia", "achilles-tendon", "sacroiliac-region", "coccyx-region"} {
		assert.Equal(t, "contact", muscle(t, id).Kind)
	}
}
