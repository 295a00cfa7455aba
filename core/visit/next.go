package visit

import (
	"cmp"
	"slices"

	"mokren/core/stable"
	"mokren/core/treat"
)

// maxPlannedNext of the points that were not pressed yet are offered after a hold.
const maxPlannedNext = 2

// NextAfter is what may come after a hold.
type NextAfter struct {
	Next []PointWhy `json:"next"`
	// Closed are the points that must not be pressed again today.
	Closed []PointWhy `json:"closed"`
}

// PointWhy is a point with a reason in words.
type PointWhy struct {
	Point UUID   `json:"point"`
	Why   string `json:"why"`
}

// NextAfter gives what may come after a hold: another angle at the same point, its
// satellites, then what the plan has next. What made the client, or a sign, end the hold is
// not offered again at once.
func (s State) NextAfter(ctx Context, earlier []FoundPoint, hold UUID) NextAfter {
	out := NextAfter{Next: []PointWhy{}, Closed: []PointWhy{}}
	i := slices.IndexFunc(s.Holds, func(h Hold) bool { return h.ID == hold })
	if i < 0 {
		return out
	}
	h := s.Holds[i]
	var planned []PointWhy
	work := s.Work(ctx, earlier, nil).Points
	for k, p := range s.Points {
		why := cmp.Or(p.Closed, p.Blocked)
		switch {
		case why != "":
			out.Closed = append(out.Closed, PointWhy{p.Point, why})
		case p.Point == h.Point:
			if h.Summary.Outcome != treat.Stopped {
				out.Next = append([]PointWhy{{p.Point, "Repeat from another angle"}}, out.Next...)
			}
		case work[k].Role == "satellite" && work[k].Of == h.Point:
			out.Next = append(out.Next, PointWhy{p.Point, "A satellite, inside the referral of this point."})
		case !s.hasHold(p.Point):
			planned = append(planned, PointWhy{p.Point, "Charted, not pressed yet."})
		}
	}
	out.Next = append(out.Next, s.firstPlanned(planned)...)
	return out
}

// hasHold reports whether a hold at a point counts.
func (s State) hasHold(p UUID) bool {
	return slices.ContainsFunc(s.Holds, func(h Hold) bool { return h.Point == p && h.Status != HoldRejected })
}

// firstPlanned gives the first points by the order of the plan; what is not in the plan
// comes after it, as charted.
func (s State) firstPlanned(list []PointWhy) []PointWhy {
	var planned []UUID
	if s.Plan != nil {
		planned = s.Plan.Order
	}
	rank := func(p PointWhy) int {
		if i := slices.Index(planned, p.Point); i >= 0 {
			return i
		}
		return len(planned)
	}
	stable.Sort(list, func(a, b PointWhy) int { return rank(a) - rank(b) })
	list = list[:min(len(list), maxPlannedNext)]
	for i := range list {
		if slices.Contains(planned, list[i].Point) {
			list[i].Why = "Next in the plan."
		}
	}
	return list
}
