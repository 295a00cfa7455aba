package visit

import (
	"fmt"
	"strings"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/rights"
)

var blockOverridden = kind{
	name: "block-overridden",
	body: func() Body { return new(BlockOverridden) },
	by:   rights.Role.Licensed,
}

// BlockOverridden is a licensed person's decision to press in a blocked
// place all the same, with the reason. It never lifts refer-first or
// emergency, nor questions that were not asked.
type BlockOverridden struct {
	Point UUID `json:"point"`
	// Questions are the answers that it names; absent, those that stand.
	Questions []ids.Question `json:"questions,omitempty" maxItems:"100"`
	Reason    string         `json:"reason" maxLength:"2000"`
}

// Check implements decode.Checker.
func (b BlockOverridden) Check() *decode.Error {
	if len(strings.TrimSpace(b.Reason)) < leastReason {
		return &decode.Error{
			Path: "$.reason", Given: fmt.Sprintf("%q", b.Reason),
			Allowed: "the clinical reason, at least ten letters",
		}
	}
	return nil
}

// admit asks for a licence: an override presses where the client's answers say not to.
func (b *BlockOverridden) admit(j *Validator, e *Event) error {
	if !j.ctx.licensed(e.Author) {
		return because("A licensed member of this practice overrides a block.")
	}
	return nil
}

func (b *BlockOverridden) about() UUID { return b.Point }

// facts: the override is of this point and of the answers it names, so a later answer ends it.
func (b *BlockOverridden) facts(at record.Stamp) []record.Fact {
	return []record.Fact{{Stamp: at, Override: &record.Override{Point: string(b.Point), Questions: b.Questions}}}
}

func (b *BlockOverridden) carries(j *Validator) string { return j.underHolds() }

// apply lists it; whether it still lifts anything the client's record decides.
func (b *BlockOverridden) apply(r *reducer, _ Event) error {
	r.state.Overrides = append(r.state.Overrides, *b)
	return nil
}

func (b *BlockOverridden) timeline() string { return "Block overridden: " + b.Reason }
