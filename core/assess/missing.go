package assess

import (
	"cmp"

	"mokren/core/stable"
)

// Missing is a kind of finding that has not been taken yet.
type Missing struct {
	Evidence string `json:"evidence"`
	Name     string `json:"name"`
	Text     string `json:"text" doc:"what to do"`
	// Step of the visit in which it is taken.
	Step string `json:"step" enum:"draw,measure,suspect"`
}

// mostTelling is how many kinds are named.
const mostTelling = 3

// missing names the kinds of finding that nobody has taken yet, the most
// telling first: by how much the finding raises a muscle when it is there.
func missing(f Findings, w Weights) []Missing {
	out := []Missing{}
	offer := func(taken bool, m Missing) {
		if !taken {
			out = append(out, m)
		}
	}
	offer(len(f.Pain) > 0, Missing{
		"referral", "The pain drawing", "Let the client paint where it hurts: it is held against every usual pattern.",
		"draw",
	})
	offer(len(f.ROM) > 0, Missing{
		"restricted-pull", "Range of the joints nearby", "Measure both sides, and ask whether it pulls or pinches.",
		"measure",
	})
	offer(len(f.Tests) > 0, Missing{
		"length-test", "A length test", "Of the region that hurts; both sides.", "suspect",
	})
	offer(len(f.Posture) > 0, Missing{"posture", "Posture", "Heights and turns of shoulders and pelvis.", "measure"})
	offer(len(f.Signs) > 0, Missing{"squat", "The squat", "Heels, knees, back and arms.", "measure"})
	stable.Sort(out, func(a, b Missing) int {
		return cmp.Compare(w.of(b.Evidence).Plus, w.of(a.Evidence).Plus)
	})
	return out[:min(mostTelling, len(out))]
}
