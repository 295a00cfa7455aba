package calc_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/calc"
	"mokren/core/ids"
)

// Longus colli lies behind the carotid artery: it is told of, and no way leads to pressing it.
func TestNoWayLeadsToPressingLongusColli(t *testing.T) {
	told, err := calc.Palpate(calc.PalpateIn{Muscle: "longus-colli", Side: ids.Left})
	require.NoError(t, err)
	assert.Empty(t, told.Sites)
	assert.Empty(t, told.Contacts)
	assert.Nil(t, told.Protocol)
	assert.NotEmpty(t, told.Steps)
	assert.Contains(t, told.Antagonists, ids.Muscle("semispinalis-capitis"))
	assert.Empty(t, told.Near, "nowhere to measure from")

	found, err := calc.Atlas(atlas.Query{Text: "longus colli"})
	require.NoError(t, err)
	require.NotEmpty(t, found.Muscles)
	assert.Equal(t, "anatomy", found.Muscles[0].Kind)
	assert.NotNil(t, found.Muscles[0].Sites)

	for y := 100.0; y < 200; y += 4 {
		for x := 0.0; x <= 40; x += 4 {
			touched, err := calc.Under(calc.TouchIn{View: body.Front, X: x, Y: y})
			require.NoError(t, err)
			assert.False(t, slices.ContainsFunc(touched.Muscles, func(c atlas.Candidate) bool {
				return c.Muscle == "longus-colli"
			}), "%v, %v", x, y)
		}
	}

	for name, in := range map[string]string{
		"palpate": `{"muscle":"longus-colli","side":"left","site":"middle"}`,
		"near":    `{"muscle":"longus-colli","side":"left","site":"middle"}`,
		"judge":   `{"points":[{"id":"a","muscle":"longus-colli","side":"left","site":""}]}`,
		"plan": `{"minutes":60,"points":[{"id":"a","muscle":"longus-colli","side":"left",
			"activity":"active","role":"primary"}]}`,
	} {
		_, err := calc.Run(name, []byte(in))
		assert.ErrorContains(t, err, "a muscle that may be pressed", name)
	}
}
