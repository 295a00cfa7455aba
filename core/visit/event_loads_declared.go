package visit

import (
	"mokren/core/ids"
	"mokren/core/rights"
)

var loadsDeclared = kind{
	name: "loads-declared",
	body: func() Body { return new(LoadsDeclared) },
	by:   rights.Role.Clinical,
}

// LoadsDeclared are the work and sport loads.
type LoadsDeclared struct {
	Loads []ids.Load `json:"loads" maxItems:"50"`
}

func (b *LoadsDeclared) sets(Event) []thing { return []thing{{"loads", "loads"}} }

// apply replaces the list, which the page always sends whole.
func (b *LoadsDeclared) apply(r *reducer, _ Event) error {
	r.state.Loads = b.Loads
	return nil
}

func (b *LoadsDeclared) timeline() string { return "Loads declared" }
