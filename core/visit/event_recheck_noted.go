package visit

import (
	"fmt"

	"mokren/core/rights"
)

var recheckNoted = kind{
	name: "recheck-noted",
	body: func() Body { return new(RecheckNoted) },
	by:   rights.Role.Clinical,
}

// RecheckNoted is what the client says and shows after treatment: the activities that are
// wanted back, scored again, and how the client stands and walks.
type RecheckNoted struct {
	Activities []Activity `json:"activities,omitempty" maxItems:"3"`
	// Walk is how the client stands and walks; absent where it was not looked at.
	Walk string `json:"walk,omitempty" enum:"easier,the same,stiff,painful,unsteady"`
	Note string `json:"note,omitempty" maxLength:"1000"`
}

func (b *RecheckNoted) sets(Event) []thing { return []thing{{"recheck", "recheck"}} }

// apply replaces the whole: the page sends it whole, so that two editors see a conflict.
func (b *RecheckNoted) apply(r *reducer, _ Event) error {
	r.state.After = b
	return nil
}

func (b *RecheckNoted) timeline() string {
	if b.Walk == "" {
		return fmt.Sprintf("Rechecked: %d of the client's activities", len(b.Activities))
	}
	return "Rechecked: stands and walks " + b.Walk
}
