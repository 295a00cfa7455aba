package visit

import (
	"fmt"
	"slices"

	"mokren/core/plan"
	"mokren/core/rights"
)

var planMade = kind{
	name: "plan-made",
	body: func() Body { return new(PlanMade) },
	by:   rights.Role.Clinical,
}

// PlanMade is the session as the therapist has accepted it. Without an order
// the best one is taken.
type PlanMade struct {
	// Minutes of the whole session, counted from when they were said.
	Minutes float64      `json:"minutes" minimum:"5" maximum:"240"`
	Blocks  *plan.Blocks `json:"blocks,omitempty"`
	// Order is the therapist's own; empty lets the core choose.
	Order []UUID `json:"order,omitempty" maxItems:"60"`
	// Must be treated, Dropped must not: wishes within what safety allows.
	Must    []UUID `json:"must,omitempty" maxItems:"60"`
	Dropped []UUID `json:"dropped,omitempty" maxItems:"60"`
}

// admit: a plan is of this visit's points.
func (b *PlanMade) admit(j *Validator, _ *Event) error {
	for _, id := range slices.Concat(b.Order, b.Must, b.Dropped) {
		if j.points[id] == nil {
			return noPoint(id)
		}
	}
	return nil
}

func (b *PlanMade) sets(Event) []thing { return []thing{{"plan", "plan"}} }

// apply keeps what the therapist wants. Its minutes begin to run anew only when they were
// changed.
func (b *PlanMade) apply(r *reducer, e Event) error {
	s := &r.state
	if s.Plan == nil || s.Plan.Minutes != b.Minutes {
		s.PlanMS = e.At()
	}
	s.Plan = b
	return nil
}

func (b *PlanMade) timeline() string { return fmt.Sprintf("Session planned: %v minutes", b.Minutes) }
