package visit

import (
	"mokren/core/ids"
	"mokren/core/progress"
)

// Comparison is one thing that was read at both of two dates.
type Comparison struct {
	Kind string `json:"kind"               enum:"point,movement,score"`
	// ID is a point's identity, a movement, or a measure with its name.
	ID   string   `json:"id"`
	Name string   `json:"name"`
	Side ids.Side `json:"side,omitempty"`
	Unit string   `json:"unit"`
	// Before and After are the values at the two dates, in Unit.
	Before float64 `json:"before"`
	After  float64 `json:"after"`
	// Change is nil where the thing was read at one of the dates only.
	Change  *progress.Change `json:"change,omitempty"`
	OnlyNow bool             `json:"only_now,omitempty"                             doc:"not read at the earlier date"`
	Gone    bool             `json:"gone,omitempty"                                 doc:"not read at the later date"`
}

// Compare sets what was read on one visit beside what was read on another: numbers
// when found, ranges before treatment, the client's own scores.
func (h History) Compare(earlier, later string) []Comparison {
	out := []Comparison{}
	add := func(c Comparison, m ids.Measure, at map[string]*float64) {
		if c.judge(m, at[earlier], at[later]) {
			out = append(out, c)
		}
	}
	for _, p := range h.Points {
		at := map[string]*float64{}
		for _, v := range p.Visits {
			at[v.Visit] = v.Before
		}
		add(Comparison{Kind: "point", ID: string(p.Identity), Name: p.Name, Side: p.Side, Unit: "of 10"}, "nprs", at)
	}
	for _, r := range h.Ranges {
		at := map[string]*float64{}
		for _, v := range r.Visits {
			at[v.Visit] = v.Before
		}
		id := string(r.Movement)
		movement := Comparison{Kind: "movement", ID: id, Name: id, Side: r.Side, Unit: "°"}
		add(movement, "rom."+ids.Measure(r.Movement), at)
	}
	for _, s := range h.Scores {
		at := map[string]*float64{}
		for _, v := range s.Visits {
			at[v.Visit] = &v.Value
		}
		add(Comparison{Kind: "score", ID: s.Name, Name: s.Name, Unit: s.Unit}, s.Measure, at)
	}
	return out
}

// judge sets the values; it reports whether there is any.
func (c *Comparison) judge(m ids.Measure, a, b *float64) bool {
	switch {
	case a == nil && b == nil:
		return false
	case a == nil:
		c.After, c.OnlyNow = *b, true
	case b == nil:
		c.Before, c.Gone = *a, true
	default:
		c.Before, c.After = *a, *b
		if change, err := progress.Pair(m, *a, *b); err == nil {
			c.Change = &change
		}
	}
	return true
}
