package assess

import (
	"cmp"
	"math"
	"slices"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/stable"
)

// prior odds are low and equal.
const prior = 0.08

// hypothesis collects log-odds by group; a group's second finding counts half,
// the third a quarter, for and against apart, so that three flags of one short
// muscle are not three proofs.
type hypothesis struct {
	muscle *atlas.Muscle
	side   ids.Side
	// list are its reasons in the order in which they were found, damped when they are added
	// up.
	list []grouped
	// conf is the confidence once it was worked out; tests are weighed by it.
	conf float64
}

type grouped struct {
	group string
	Why
}

// add keeps a reason as natural log-odds. A ratio of one is no reason and is not listed.
func (h *hypothesis) add(group, finding string, ratio float64, text string) {
	if ratio != 1 {
		h.list = append(h.list, grouped{group, Why{finding, math.Log(ratio), text}})
	}
}

// byWeight puts the strongest first; ties by name, so that sums do not depend
// on the order of findings.
func byWeight(a, b Why) int {
	return cmp.Or(cmp.Compare(math.Abs(b.Effect), math.Abs(a.Effect)), cmp.Compare(a.Finding, b.Finding))
}

// reasons damps each group and gives the sum of log-odds with every reason.
func (h *hypothesis) reasons() (sum float64, why []Why) {
	list := slices.Clone(h.list)
	stable.Sort(list, func(a, b grouped) int {
		return cmp.Or(cmp.Compare(a.group, b.group), cmp.Compare(sign(a.Effect), sign(b.Effect)),
			byWeight(a.Why, b.Why))
	})
	why = make([]Why, len(list))
	weight := 1.0
	for i, w := range list {
		if i > 0 && list[i-1].group == w.group && sign(list[i-1].Effect) == sign(w.Effect) {
			weight /= 2
		} else {
			weight = 1
		}
		why[i] = w.Why
		why[i].Effect *= weight
	}
	stable.Sort(why, byWeight)
	for _, w := range why {
		sum += w.Effect
	}
	return sum, why
}

// sign keeps reasons for and against apart when a group is damped.
func sign(v float64) int {
	if v < 0 {
		return -1
	}
	return 1
}

var priorLog = math.Log(prior / (1 - prior))

// confidence turns the sum of log-odds into a share between 0 and 1, neither of which it
// reaches.
func (h *hypothesis) confidence() float64 {
	sum, _ := h.reasons()
	return 1 / (1 + math.Exp(-(priorLog + sum)))
}
