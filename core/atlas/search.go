package atlas

import (
	"cmp"
	"slices"
	"strings"
	"unicode"

	"mokren/core/ids"
	"mokren/core/stable"
)

// Query narrows the list of muscles; empty fields do not narrow.
type Query struct {
	Text     string       `json:"text,omitempty" maxLength:"100" doc:"Latin or common name, with typing errors"`
	Region   string       `json:"region,omitempty" enum:"head-and-neck,shoulder-girdle,arm-and-hand,trunk,hip-and-thigh,leg-and-foot"`
	Action   ids.Movement `json:"action,omitempty"`
	Position ids.Position `json:"position,omitempty" doc:"reachable in this position of the client"`
}

// Search lists the muscles that fit, the best match of the text first, else
// in the order of the body.
func Search(w Query) []*Muscle {
	type hit struct {
		m    *Muscle
		cost int
	}
	var hits []hit
	words := fold(w.Text)
	for _, m := range All() {
		if w.Region != "" && m.Region != w.Region ||
			w.Action != "" && !slices.ContainsFunc(m.Actions, func(a Motion) bool { return a.Movement == w.Action }) ||
			w.Position != "" && !slices.Contains(m.Positions, w.Position) {
			continue
		}
		if cost, ok := matches(words, m); ok {
			hits = append(hits, hit{m, cost})
		}
	}
	stable.Sort(hits, func(a, b hit) int { return cmp.Compare(a.cost, b.cost) })
	out := make([]*Muscle, len(hits))
	for i, h := range hits {
		out[i] = h.m
	}
	return out
}

// fold splits a text into plain lower-case words.
func fold(s string) []string {
	return strings.FieldsFunc(strings.ToLower(s),
		func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) })
}

// matches: every word asked for must be near the beginning of some word of the
// names; the cost adds up the letters that are wrong.
func matches(asked []string, m *Muscle) (cost int, ok bool) {
	names := fold(m.Name + " " + m.Latin + " " + string(m.ID))
	for _, a := range asked {
		best := -1
		for _, n := range names {
			if d := prefixDistance([]rune(a), []rune(n)); d <= tolerance(len(a)) && (best < 0 || d < best) {
				best = d
			}
		}
		if best < 0 {
			return 0, false
		}
		cost += best
	}
	return cost, true
}

// tolerance: how many letters may be wrong in a word of n letters.
func tolerance(n int) int {
	switch {
	case n <= 2:
		return 0
	case n <= 5:
		return 1
	case n <= 9:
		return 2
	}
	return 3
}

// prefixDistance is the least number of letters to change, add, drop or swap
// with a neighbour so that a begins b.
func prefixDistance(a, b []rune) int {
	b = b[:min(len(b), len(a)+3)]
	before, prev, cur := make([]int, len(b)+1), make([]int, len(b)+1), make([]int, len(b)+1)
	for j := range prev {
		prev[j] = j
	}
	for i := 1; i <= len(a); i++ {
		cur[0] = i
		for j := 1; j <= len(b); j++ {
			step := 1
			if a[i-1] == b[j-1] {
				step = 0
			}
			cur[j] = min(prev[j]+1, cur[j-1]+1, prev[j-1]+step)
			if i > 1 && j > 1 && a[i-1] == b[j-2] && a[i-2] == b[j-1] {
				cur[j] = min(cur[j], before[j-2]+1)
			}
		}
		before, prev, cur = prev, cur, before
	}
	return slices.Min(prev)
}
