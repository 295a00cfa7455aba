package visit

import (
	"cmp"
	"slices"

	"mokren/core/ids"
	"mokren/core/points"
	"mokren/core/stable"
)

// Offer is what a hold at a point would begin with, so that one touch begins it. It is what the
// plan, the protocol and the place come to; the therapist may choose otherwise.
type Offer struct {
	Point     UUID         `json:"point"`
	Protocol  ids.Protocol `json:"protocol,omitempty" doc:"absent where nothing is pressed"`
	Contact   ids.Contact  `json:"contact,omitempty"`
	Position  ids.Position `json:"position,omitempty"`
	MuscleSet string       `json:"muscle_set,omitempty" enum:"tension,slack"`
	// Planned: it is a step of the session that is still to come.
	Planned bool `json:"planned"`
	// Ready: nothing stands against beginning it now.
	Ready bool `json:"ready"`
}

// Offers lists every point in the order in which they are pressed: what the plan has next, then
// what it has not and what was not pressed yet, then what was.
func (s State) Offers(ctx Context, earlier []FoundPoint, nowMS int64) ([]Offer, error) {
	work := s.Work(ctx, earlier, nil)
	planned, err := s.Planning(ctx, earlier, work, nil, nowMS)
	if err != nil {
		return nil, err
	}
	out := make([]Offer, len(s.Points))
	rank := map[UUID]int{}
	for i, p := range s.Points {
		o := s.offer(p, work.Points[i].counts())
		// Behind every step of the plan, and what was pressed behind that.
		rank[p.Point] = len(planned.Steps)
		if s.hasHold(p.Point) {
			rank[p.Point]++
		}
		for k, step := range planned.Steps {
			if step.Kind == "treat" && step.Point == string(p.Point) {
				rank[p.Point], o.Planned = k, true
				if free(p.Positions, string(step.Position)) {
					o.Position = step.Position
				}
			}
		}
		out[i] = o
	}
	stable.Sort(out, func(a, b Offer) int { return cmp.Compare(rank[a.Point], rank[b.Point]) })
	return out, nil
}

// counts is the suggestion that counts: the therapist's choice where the rules allow it.
func (w PointWork) counts() points.Suggestion {
	if w.Taken != nil && !w.Taken.Blocked {
		return *w.Taken
	}
	return w.Suggested
}

// offer is a hold at a point as the place and the protocol want it. The client stays as they
// lie, where that is possible.
func (s State) offer(p Point, by points.Suggestion) Offer {
	o := Offer{Point: p.Point}
	if by.Blocked {
		return o
	}
	o.Protocol, o.MuscleSet = by.Protocol, by.Set
	// The protocol's contacts in their order; the place's own where it allows none of them.
	for _, c := range by.Contacts {
		if o.Contact == "" && free(p.Contacts, string(c)) {
			o.Contact = c
		}
	}
	o.Contact = cmp.Or(o.Contact, ids.Contact(firstFree(p.Contacts)))
	if n := len(s.Holds); n > 0 && free(p.Positions, string(s.Holds[n-1].Position)) {
		o.Position = s.Holds[n-1].Position
	}
	o.Position = cmp.Or(o.Position, ids.Position(firstFree(p.Positions)))
	o.Ready = p.Closed == "" && p.Blocked == "" && o.Contact != "" && o.Position != ""
	return o
}

// A choice may be listed and barred: the page shows it with its reason, and offers another.

// free reports whether a choice is there and nothing speaks against it.
func free(list []Choice, id string) bool {
	return slices.ContainsFunc(list, func(c Choice) bool { return c.ID == id && c.Why == "" })
}

// firstFree is the first choice that nothing speaks against, or "".
func firstFree(list []Choice) string {
	for _, c := range list {
		if c.Why == "" {
			return c.ID
		}
	}
	return ""
}
