package visit

import (
	"cmp"

	"mokren/core/record"
	"mokren/core/rights"
)

var visitOpened = kind{
	name:  "visit-opened",
	body:  func() Body { return new(Opened) },
	by:    rights.Role.Clinical,
	stays: staysWritten,
}

// Opened begins the visit.
type Opened struct {
	Reason string `json:"reason,omitempty" maxLength:"500"`
}

func (b *Opened) apply(r *reducer, e Event) error {
	r.state.OpenedMS = cmp.Or(r.state.OpenedMS, e.At())
	r.state.Reason = b.Reason
	return nil
}

func (b *Opened) facts(at record.Stamp) []record.Fact {
	return []record.Fact{{Stamp: at, Opened: true}}
}

func (b *Opened) timeline() string { return "Visit opened" }
