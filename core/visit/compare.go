package visit

import (
	"mokren/core/ids"
	"mokren/core/progress"
)

// Compared is one thing that was read at both of two dates.
type Compared struct {
	Kind    string           `json:"kind" enum:"point,movement,score"`
	ID      string           `json:"id"`
	Name    string           `json:"name"`
	Side    ids.Side         `json:"side,omitempty"`
	Unit    string           `json:"unit"`
	Before  float64          `json:"before"`
	After   float64          `json:"after"`
	Change  *progress.Change `json:"change,omitempty"`
	OnlyNow bool             `json:"only_now,omitempty" doc:"not read at the earlier date"`
	Gone    bool             `json:"gone,omitempty" doc:"not read at the later date"`
}

// Compare sets what was read on one visit beside what was read on another: numbers
// when found, ranges before treatment, the client's own scores.
func (h History) Compare(earlier, later string) []Compared {
	out := []Compared{}
	add := func(c Compared, m ids.Measure, a, b *float64) {
		switch {
		case a == nil && b == nil:
			return
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
		out = append(out, c)
	}
	for _, p := range h.Points {
		var a, b *float64
		for _, v := range p.Visits {
			switch v.Visit {
			case earlier:
				a = v.Before
			case later:
				b = v.Before
			}
		}
		add(Compared{Kind: "point", ID: string(p.Identity), Name: p.Name, Side: p.Side, Unit: "of 10"}, "nprs", a, b)
	}
	for _, r := range h.Ranges {
		var a, b *float64
		for _, v := range r.Visits {
			switch v.Visit {
			case earlier:
				a = v.Before
			case later:
				b = v.Before
			}
		}
		id := string(r.Movement)
		add(Compared{Kind: "movement", ID: id, Name: id, Side: r.Side, Unit: "°"}, "rom."+ids.Measure(r.Movement), a, b)
	}
	for _, s := range h.Scores {
		var a, b *float64
		for _, v := range s.Visits {
			switch v.Visit {
			case earlier:
				a = new(v.Value)
			case later:
				b = new(v.Value)
			}
		}
		add(Compared{Kind: "score", ID: s.Name, Name: s.Name, Unit: s.Unit}, s.Measure, a, b)
	}
	return out
}
