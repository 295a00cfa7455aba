package visit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/visit"
)

// Of two dates what was read at both is judged; what was read at one is said.
func TestTwoDatesCompared(t *testing.T) {
	day := func(i int, numbers map[int]float64) visit.VisitContribution {
		d := visit.VisitContribution{Visit: uid(i), Day: float64(i)}
		for p, n := range numbers {
			c := charted(p, "soleus")
			c.Identity, c.NPRS = c.Point, &n
			d.Points = append(d.Points, visit.TreatedPoint{FoundPoint: visit.FoundPoint{PointCharted: c}})
		}
		return d
	}
	h := visit.Course([]visit.VisitContribution{
		day(
			1,
			map[int]float64{500: 7, 501: 5},
		), day(2, map[int]float64{500: 6}), day(3, map[int]float64{500: 3, 502: 4}),
	}, 40)
	by := map[string]visit.Comparison{}
	for _, c := range h.Compare(uid(1), uid(3)) {
		by[c.ID] = c
	}
	require.Len(t, by, 3)
	assert.Equal(t, "clearly better", by[uid(500)].Change.Text)
	assert.InDelta(t, -4, by[uid(500)].Change.Delta, 0)
	assert.True(t, by[uid(501)].Gone)
	assert.True(t, by[uid(502)].OnlyNow)
	assert.Nil(t, by[uid(502)].Change)
	assert.Empty(t, h.Compare(uid(8), uid(9)))
}
