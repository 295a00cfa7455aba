package plan

import (
	"math/bits"
	"slices"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/stable"
)

// SearchTarget is a muscle to be searched.
type SearchTarget struct {
	Muscle     ids.Muscle `json:"muscle"`
	Side       ids.Side   `json:"side"`
	Confidence float64    `json:"confidence"`
	// Ready: above the line, and to be searched before all others.
	Ready bool `json:"ready"`
}

// SearchStop is a muscle in the order of the search, with how the client lies.
type SearchStop struct {
	SearchTarget
	Position ids.Position `json:"position"`
	Turn     bool         `json:"turn" doc:"the client turns before it"`
}

// SearchOrder puts muscles in the order in which the client turns least: those
// above the line first, in as few positions as will do; then the others,
// beginning as the client lies. In one position the likelier comes first.
func SearchOrder(list []SearchTarget, avoid []ids.Position) []SearchStop {
	out := []SearchStop{}
	lying := ids.Position("")
	for _, ready := range [2]bool{true, false} {
		var part []SearchTarget
		for _, w := range list {
			if w.Ready == ready {
				part = append(part, w)
			}
		}
		for _, s := range inPositions(part, avoid, lying) {
			s.Turn = lying != "" && s.Position != lying
			lying = s.Position
			out = append(out, s)
		}
	}
	return out
}

// inPositions covers the muscles with the fewest positions, tried one by one;
// of equals the ones that begin as the client lies, then the likeliest first.
func inPositions(list []SearchTarget, avoid []ids.Position, lying ids.Position) []SearchStop {
	may := make([]uint, len(list))
	for i, w := range list {
		m, err := atlas.Get(w.Muscle)
		if err != nil {
			continue
		}
		for _, p := range m.Lying(w.Side, avoid) {
			may[i] |= 1 << slices.Index(lyings, p)
		}
	}
	set := fewest(may, lying)
	groups := map[ids.Position][]SearchTarget{}
	for i, w := range list {
		if may[i]&set == 0 {
			continue // it can be reached in no position that is allowed
		}
		p := lyings[bits.TrailingZeros(may[i]&set)]
		if lying != "" && may[i]&set&(1<<slices.Index(lyings, lying)) != 0 {
			p = lying
		}
		groups[p] = append(groups[p], w)
	}
	turns := slices.DeleteFunc(slices.Clone(lyings), func(p ids.Position) bool { return len(groups[p]) == 0 })
	for _, g := range groups {
		stable.Sort(g, func(a, b SearchTarget) int { return likelier(a, b) })
	}
	stable.Sort(turns, func(a, b ids.Position) int {
		if a == lying || b == lying {
			if a == lying {
				return -1
			}
			return 1
		}
		return likelier(groups[a][0], groups[b][0])
	})
	var out []SearchStop
	for _, p := range turns {
		for _, w := range groups[p] {
			out = append(out, SearchStop{SearchTarget: w, Position: p})
		}
	}
	return out
}

// likelier orders by confidence, the highest first.
func likelier(a, b SearchTarget) int {
	switch {
	case a.Confidence > b.Confidence:
		return -1
	case a.Confidence < b.Confidence:
		return 1
	}
	return 0
}

// fewest positions, as a set, in which every muscle can be reached; one that
// holds the present position is preferred.
func fewest(may []uint, lying ids.Position) uint {
	best, cost := uint(0), 1<<10
	for set := uint(1); set < 1<<len(lyings); set++ {
		if slices.ContainsFunc(may, func(m uint) bool { return m != 0 && m&set == 0 }) {
			continue
		}
		c := bits.OnesCount(set) * 2
		if lying != "" && set&(1<<slices.Index(lyings, lying)) == 0 {
			c++
		}
		if c < cost {
			best, cost = set, c
		}
	}
	return best
}
