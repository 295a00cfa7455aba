package progress_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/progress"
)

// Both kinds are counted, with how often the score fell clearly; where there is only one kind
// nothing is compared.
func TestLengtheningIsCompared(t *testing.T) {
	one := func(before, after float64, lengthened bool, n int) progress.TreatmentResult {
		return progress.TreatmentResult{Protocol: "pulses", Before: before, After: after, Lengthened: lengthened, N: n}
	}
	assert.Nil(t, progress.LengtheningAfter(nil))
	assert.Nil(t, progress.LengtheningAfter([]progress.TreatmentResult{one(6, 2, true, 0)}))
	got := progress.LengtheningAfter([]progress.TreatmentResult{
		one(6, 2, true, 0), one(6, 5, true, 0), one(5, 4, false, 3),
	})
	require.NotNil(t, got)
	assert.Equal(t, [2]int{1, 2}, [2]int{got.With.Clear.Yes, got.With.Clear.Of})
	assert.InDelta(t, 2.5, got.With.Drop, 1e-9)
	assert.Equal(t, [2]int{0, 3}, [2]int{got.Without.Clear.Yes, got.Without.Clear.Of})
	assert.InDelta(t, 1, got.Without.Drop, 1e-9)
}
