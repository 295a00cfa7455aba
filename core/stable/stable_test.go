package stable_test

import (
	"cmp"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/stable"
)

type card struct{ rank, drawn int }

// Sorted as the standard library's stable sorting does it, whatever the list.
func TestEqualOnesStayAsTheyWere(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 27))
	byRank := func(a, b card) int { return cmp.Compare(a.rank, b.rank) }
	for n := range 300 {
		list := make([]card, n)
		for i := range list {
			list[i] = card{rank: r.IntN(1 + n/3), drawn: i}
		}
		want := slices.Clone(list)
		slices.SortStableFunc(want, byRank)
		stable.Sort(list, byRank)
		assert.Equal(t, want, list)
	}
}
