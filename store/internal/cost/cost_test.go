package cost_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/store/internal/cost"
)

// What the programs hash with, unless a test program asks for less.
func TestThePriceOfATry(t *testing.T) {
	assert.EqualValues(t, 64*1024, cost.Hashing.Memory, "KiB")
	assert.EqualValues(t, 3, cost.Hashing.Iterations)
	assert.EqualValues(t, 2, cost.Hashing.Parallelism)
	assert.Equal(t, 18, cost.ScryptLogN)
}
