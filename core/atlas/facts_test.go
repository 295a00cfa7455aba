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
		assert.Subset(t, moves(m.Slack), []ids.Movement{"shoulder.abduction", "shoulder.external-rotation", "cervical.lateral-flexion"})
	})
	t.Run("levator scapulae", func(t *testing.T) {
		m := muscle(t, "levator-scapulae")
		assert.Equal(t, ids.Landmark("scapula-spine-root"), m.Find[0].Landmark, "the ridge is found first")
		assert.Equal(t, ids.Landmark("scapula-superior-angle"), m.Find[1].Landmark)
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
		assert.Contains(t, g.Restricts, ids.Movement("ankle.dorsiflexion-knee-straight"))
		assert.NotContains(t, g.Restricts, ids.Movement("ankle.dorsiflexion-knee-bent"), "knee straight against knee bent tells them apart")
		assert.Contains(t, s.Restricts, ids.Movement("ankle.dorsiflexion-knee-bent"))
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
	})
}
