package visit

import (
	"cmp"

	"mokren/core/record"
	"mokren/core/rights"
)

var visitOpened = kind{
	name:  "visit-opened",
	body:  func() Body { return new(VisitOpened) },
	by:    rights.Role.Clinical,
	stays: staysWritten,
}

// VisitOpened begins the visit.
type VisitOpened struct {
	Reason string `json:"reason,omitempty" maxLength:"500"`
}

// apply keeps the first opening; a second device that opens it changes the reason only.
func (b *VisitOpened) apply(r *reducer, e Event) error {
	r.state.OpenedMS = cmp.Or(r.state.OpenedMS, e.At())
	r.state.Reason = b.Reason
	return nil
}

// facts: from here on what this visit is asked counts as asked today.
func (b *VisitOpened) facts(at record.Stamp) []record.Fact {
	return []record.Fact{{Stamp: at, Opened: true}}
}

func (b *VisitOpened) timeline() string { return "Visit opened" }
