package visit

import (
	"fmt"
	"strings"

	"mokren/core/rights"
	"mokren/core/strict"
)

var visitClosed = kind{
	name:  "visit-closed",
	body:  func() Body { return new(Closed) },
	by:    rights.Role.Clinical,
	stays: staysWritten,
}

// Closed ends the visit.
type Closed struct {
	// NotTreated: nothing was pressed, for a reason of the screening; Advised is what
	// the client was told to do.
	NotTreated bool   `json:"not_treated,omitempty"`
	Advised    string `json:"advised,omitempty" maxLength:"2000"`
}

// Check implements strict.Checker: who is sent away was told what to do.
func (b Closed) Check() *strict.Error {
	if b.NotTreated && len(strings.TrimSpace(b.Advised)) < leastReason {
		return &strict.Error{
			Path: "$.advised", Given: fmt.Sprintf("%q", b.Advised),
			Allowed: "what the client was advised, at least ten letters",
		}
	}
	return nil
}

func (b *Closed) remember(j *Validator, e Event) {
	if j.closed == nil {
		j.closed = &e
	}
}

func (b *Closed) apply(r *reducer, e Event) error {
	r.state.ClosedMS, r.state.NotTreated = e.At(), b.Advised
	return nil
}

func (b *Closed) timeline() string {
	if b.NotTreated {
		return "Visit closed as not treated"
	}
	return "Visit closed"
}
