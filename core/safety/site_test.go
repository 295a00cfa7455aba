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
		"sternocleidomastoid-sternal": {Target: 4, Soft: 5, Hard: 6, CapMS: 30_000},
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
		got, where := safety.Site(muscle, nil)
		assert.Equal(t, want, got, muscle)
		assert.Equal(t, want != safety.Open, where != "", "a ceiling says where it comes from")
	}
}

// The place pressed has ceilings too, whatever muscle it is pressed for.
func TestCeilingsByPlace(t *testing.T) {
	at := func(r ids.Region) []safety.Place { return []safety.Place{{Region: r, Side: ids.Left}} }
	guarded := safety.Limits{Target: 4, Soft: 5, Hard: 6, CapMS: 120_000}
	for region, want := range map[ids.Region]safety.Limits{
		"axilla": guarded, "lateral-neck": guarded, "suboccipital": guarded, "groin": guarded, "popliteal": guarded,
		"epigastrium": guarded, "umbilical": guarded, "lower-abdomen": guarded,
		"anterior-neck": {Target: 4, Soft: 5, Hard: 6, CapMS: 30_000},
		"coccyx":        {Target: 3, Soft: 4, Hard: 5, CapMS: 120_000},
		"upper-calf":    safety.Open,
	} {
		got, where := safety.Site("soleus", at(region))
		assert.Equal(t, want, got, region)
		assert.Equal(t, want != safety.Open, where != "", region)
	}
	got, where := safety.Site("scalenus-medius", at("anterior-neck"))
	assert.Equal(t, safety.Limits{Target: 4, Soft: 4, Hard: 5, CapMS: 30_000}, got, "the strictest of each")
	assert.Equal(t, "the scalenes and the front of the neck", where)
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
