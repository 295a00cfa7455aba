package progress

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// The selection finds the median that looking at every pair finds, also where
// days and values repeat.
func TestTheSlopeOfManyReadingsIsTheMedianOfAllPairs(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(fewReadings+1, fewReadings+200).Draw(t, "n")
		levels := rapid.SampledFrom([]int{1, 2, 11, 1000}).Draw(t, "levels")
		days := rapid.SampledFrom([]int{1, 3, 40, 4000}).Draw(t, "days")
		r := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 3))
		s := make([]Reading, n)
		day := 0.0
		for i := range s {
			day += float64(r.IntN(days)) / 7
			s[i] = Reading{Day: day, Value: float64(r.IntN(levels)) / 3}
		}
		all := slopesOfPairs(s)
		slices.Sort(all)
		got, ok := theilSen(s)
		require.Equal(t, len(all) > 0, ok)
		if !ok {
			return
		}
		// Keys are sums of floats, so that of slopes a millionth apart a neighbour
		// may be taken: a rank of tens of thousands, here or there by two.
		k := len(all)
		const rounded = 1e-6
		assert.GreaterOrEqual(t, got, 7*all[max(0, (k-1)/2-2)]-rounded)
		assert.LessOrEqual(t, got, 7*all[min(k-1, k/2+2)]+rounded)
	})
}

// D8: thirty thousand readings used to keep a core busy for half a minute.
func BenchmarkChangeOf30000Readings(b *testing.B) {
	r := rand.New(rand.NewPCG(1, 2))
	s := make([]Reading, 30_000)
	for i := range s {
		s[i] = Reading{Day: float64(i) / 3, Value: float64(r.IntN(21)) / 2}
	}
	for b.Loop() {
		if _, err := Series("nprs", s); err != nil {
			b.Fatal(err)
		}
	}
}
