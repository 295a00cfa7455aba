package visit

import (
	"fmt"
	"strings"

	"mokren/core/decode"
	"mokren/core/rights"
)

var visitClosed = kind{
	name:  "visit-closed",
	body:  func() Body { return new(VisitClosed) },
	by:    rights.Role.Clinical,
	stays: staysWritten,
}

// VisitClosed ends the visit.
type VisitClosed struct {
	// NotTreated: nothing was pressed, for a reason of the screening; Advised is what
	// the client was told to do.
	NotTreated bool   `json:"not_treated,omitempty"`
	Advised    string `json:"advised,omitempty" maxLength:"2000"`
}

// Check implements decode.Checker: who is sent away was told what to do.
func (b VisitClosed) Check() *decode.Error {
	if b.NotTreated && len(strings.TrimSpace(b.Advised)) < leastReason {
		return &decode.Error{
			Path: "$.advised", Given: fmt.Sprintf("%q", b.Advised),
			Allowed: "what the client was advised, at least ten letters",
		}
	}
	return nil
}

// remember keeps the first closing: what comes after it is judged as late.
func (b *VisitClosed) remember(j *Validator, e Event) {
	if j.closed == nil {
		j.closed = &e
	}
}

// apply ends the visit, with what was advised where nothing was treated.
func (b *VisitClosed) apply(r *reducer, e Event) error {
	r.state.ClosedMS, r.state.NotTreated = e.At(), b.Advised
	return nil
}

// timeline tells whether anything was treated.
func (b *VisitClosed) timeline() string {
	if b.NotTreated {
		return "Visit closed as not treated"
	}
	return "Visit closed"
}
