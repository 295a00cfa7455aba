package atlas

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/body"
	"mokren/core/ids"
)

func found(w Query) []ids.Muscle {
	var out []ids.Muscle
	for _, m := range Search(w) {
		out = append(out, m.ID)
	}
	return out
}

func TestSearchForgivesTyping(t *testing.T) {
	for asked, want := range map[string]ids.Muscle{
		"infraspinatus": "infraspinatus", "Infraspinatis": "infraspinatus", "trapezus lower": "lower-trapezius",
		"quadratus lumb": "quadratus-lumborum",
		"pirifromis":     "piriformis", "musculus soleus": "soleus", "great toe abductor": "abductor-hallucis",
		"levater scap": "levator-scapulae",
	} {
		got := found(Query{Text: asked})
		require.NotEmpty(t, got, "%q", asked)
		assert.Equal(t, want, got[0], "%q", asked)
	}
	assert.Empty(t, found(Query{Text: "xylophone"}))
	assert.Len(t, found(Query{}), len(ids.Muscles()), "no wish, all muscles")
}

func TestSearchNarrows(t *testing.T) {
	for _, m := range Search(Query{Region: "trunk", Position: "supine", Action: "hip.flexion"}) {
		assert.Equal(t, "trunk", m.Region)
		assert.Contains(t, m.Positions, ids.Position("supine"))
		assert.Contains(t, m.Actions, Motion{Movement: "hip.flexion"})
	}
	assert.Equal(t, []ids.Muscle{"psoas-major", "iliacus"}, found(Query{Region: "trunk", Action: "hip.flexion"}))
}

// A touched place: the muscles that send pain there come first, on the side
// that hurts, and their scores fall.
func TestWhereItHurts(t *testing.T) {
	touch := func(v body.View, region ids.Region, side ids.Side) []Match {
		var in body.CellSet = map[body.Cell]bool{}
		for _, c := range body.Cells(v) {
			if c.Region == region && (c.Side == side || c.Side == ids.Midline) {
				in[c.Cell] = true
			}
		}
		p, ok := in.Centre(v)
		require.True(t, ok)
		return Hurts(v, p, 170)
	}
	place := func(list []Match, m ids.Muscle, side ids.Side) int {
		for i, x := range list {
			if x.Muscle == m && x.Side == side {
				return i
			}
		}
		return len(list)
	}
	for _, c := range []struct {
		view   body.View
		region ids.Region
		muscle ids.Muscle
	}{
		{body.Front, "anterior-shoulder", "infraspinatus"},
		{body.HeadLeft, "temple", "temporalis"},
		{body.SoleLeft, "heel", "quadratus-plantae"},
		{body.Back, "medial-scapular-border", "rhomboids"},
		{body.Front, "anterior-knee", "rectus-femoris"},
		{body.LeftSide, "lateral-ankle", "fibularis-longus"},
		{body.HeadLeft, "jaw", "masseter"},
		{body.Back, "lumbar-spine", "psoas-major"},
		{body.SoleLeft, "metatarsal-heads", "flexor-digitorum-brevis"},
	} {
		got := touch(c.view, c.region, ids.Left)
		assert.Less(t, place(got, c.muscle, ids.Left), 6, "%s for %s: %v", c.muscle, c.region, got[:min(6, len(got))])
		for i := 1; i < len(got); i++ {
			assert.LessOrEqual(t, got[i].Score, got[i-1].Score)
		}
	}
	left := touch(body.Back, "upper-calf", ids.Left)
	require.NotEmpty(t, left)
	for _, m := range left {
		assert.Equal(t, ids.Left, m.Side, "one side's pattern does not explain the other side")
	}
	both := touch(body.Back, "sacrum", ids.Left)
	assert.Less(t, place(both, "lumbar-multifidus", ids.Right), len(both), "a midline place belongs to both sides")
	assert.Empty(t, Hurts(body.Back, body.Point{X: 2, Y: 2}, 170), "off the figure")
}

func BenchmarkWhereItHurts(b *testing.B) {
	All()
	for b.Loop() {
		Hurts(body.Back, body.Point{X: 212, Y: 150}, 170)
	}
}
