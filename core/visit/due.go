package visit

import (
	"cmp"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/stable"
)

// Recheck is one thing that was not as it should be when a visit ended, to be looked at
// when the client comes again.
type Recheck struct {
	Muscle   ids.Muscle   `json:"muscle,omitempty" doc:"of a point"`
	Movement ids.Movement `json:"movement,omitempty" doc:"of a range"`
	Name     string       `json:"name,omitempty" doc:"the muscle's"`
	Side     ids.Side     `json:"side"`
	Value    float64      `json:"value" doc:"number of a point 0-10, degrees of a range"`
}

// calm: a point at or below this number is not asked for again (handbook 7: resolved).
const calm = 2

// DueAgain lists what the latest visit left: points above calm by their last number,
// the worst first, then movements that are short. age in years adapts the reference
// ranges; 0 is unknown.
func DueAgain(points []FoundPoint, ranges []Range, age int) []Recheck {
	out := []Recheck{}
	for _, p := range points {
		number := cmp.Or(p.AfterNPRS, p.NPRS)
		if number == nil || *number <= calm {
			continue
		}
		r := Recheck{Muscle: p.Muscle, Side: p.Side, Name: string(p.Muscle), Value: *number}
		if m, err := atlas.Get(p.Muscle); err == nil {
			r.Name = m.Name
		}
		out = append(out, r)
	}
	stable.Sort(out, func(a, b Recheck) int { return cmp.Compare(b.Value, a.Value) })
	for _, r := range ranges {
		now := cmp.Or(r.After, r.Before)
		if now == nil {
			continue
		}
		var other *float64
		for _, o := range ranges {
			if o.Movement == r.Movement && o.Side != r.Side {
				other = cmp.Or(o.After, o.Before)
			}
		}
		if progress.Flag(r.Movement, *now, other, age).Flagged {
			out = append(out, Recheck{Movement: r.Movement, Side: r.Side, Value: *now})
		}
	}
	return out
}
