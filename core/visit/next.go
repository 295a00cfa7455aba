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
	out.Next = append(out.Next, s.firstPlanned(ctx, earlier, planned, max(h.EndedMS, h.StartedMS))...)
	return out
}

// hasHold reports whether a hold at a point counts.
func (s State) hasHold(p UUID) bool {
	return slices.ContainsFunc(s.Holds, func(h Hold) bool { return h.Point == p && h.Status != HoldRejected })
}

// firstPlanned gives the first points in the order in which they are pressed, as it is at the
// end of the hold.
func (s State) firstPlanned(ctx Context, earlier []FoundPoint, list []PointWhy, atMS int64) []PointWhy {
	order, err := s.Offers(ctx, earlier, atMS)
	if err != nil {
		order = nil // as charted
	}
	rank := func(p PointWhy) int {
		return slices.IndexFunc(order, func(o Offer) bool { return o.Point == p.Point })
	}
	stable.Sort(list, func(a, b PointWhy) int { return rank(a) - rank(b) })
	list = list[:min(len(list), maxPlannedNext)]
	for i := range list {
		if k := rank(list[i]); s.Plan != nil && k >= 0 && order[k].Planned {
			list[i].Why = "Next in the plan."
		}
	}
	return list
}
