package safety_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"mokren/core/ids"
	"mokren/core/safety"
)

func TestSiteCeilings(t *testing.T) {
	for muscle, want := range map[ids.Muscle]safety.Limits{
		"sternocleidomastoid-sternal": {Target: 4, Soft: 5, Hard: 6, CapMS: 10_000},
		"suboccipitals":               {Target: 4, Soft: 5, Hard: 6, CapMS: 120_000},
		"subscapularis":               {Target: 4, Soft: 5, Hard: 6, CapMS: 120_000},
		"psoas-major":                 {Target: 4, Soft: 5, Hard: 6, CapMS: 120_000},
		"pectineus":                   {Target: 4, Soft: 5, Hard: 6, CapMS: 120_000},
		"popliteus":                   {Target: 4, Soft: 5, Hard: 6, CapMS: 120_000},
		"scalenus-posterior":          {Target: 4, Soft: 4, Hard: 5, CapMS: 120_000},
		"coccyx-region":               {Target: 3, Soft: 4, Hard: 5, CapMS: 120_000},
		"soleus":                      safety.Open,
		"":                            safety.Open,
	} {
		got, where := safety.Site(muscle)
		assert.Equal(t, want, got, muscle)
		assert.Equal(t, want != safety.Open, where != "", "a ceiling says where it comes from")
	}
}

func TestTheStrictestWins(t *testing.T) {
	limits := rapid.Custom(func(t *rapid.T) safety.Limits {
		n := func() float64 { return float64(rapid.IntRange(0, 10).Draw(t, "n")) }
		return safety.Limits{
			Target: n(), Soft: n(), Hard: n(),
			CapMS: rapid.Int64Range(1, safety.MaxCapMS).Draw(t, "cap"),
		}
	})
	rapid.Check(t, func(t *rapid.T) {
		a, b, c := limits.Draw(t, "a"), limits.Draw(t, "b"), limits.Draw(t, "c")
		s := a.Strictest(b)
		assert.Equal(t, s, b.Strictest(a), "order does not matter")
		assert.Equal(t, s.Strictest(c), a.Strictest(b.Strictest(c)), "nor does grouping")
		assert.True(t, s.Within(a) && s.Within(b))
		assert.True(t, a.Within(a) && a.Within(safety.Open))
	})
}
