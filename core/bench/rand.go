package bench

import "math/rand/v2"

// dice are an explicit generator: the same seed and purpose give the same throws everywhere. Only
// whole numbers are thrown.
type dice struct{ pcg *rand.PCG }

// Purposes keep the throws of one thing apart from those of another, so that a change of one leaves
// the others as they were.
const (
	forFindings uint64 = 1 + iota
	forLandmarks
	forCase
	forAnswers
	forTwitch
	forRegion
)

func newDice(seed int64, purpose uint64) dice {
	return dice{rand.NewPCG(uint64(seed), purpose)} //nolint:gosec // any bits are a seed
}

// below gives 0 to n-1.
func (d dice) below(n int) int { return int(d.pcg.Uint64() % uint64(n)) } //nolint:gosec // n is small and positive

// about gives -n to n.
func (d dice) about(n int) int { return d.below(2*n+1) - n }

// chance is true so many times of a hundred.
func (d dice) chance(pct int) bool { return d.below(100) < pct }
