package visit

import (
	"fmt"
	"strings"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/rights"
	"mokren/core/safety"
	"mokren/core/wording"
)

var screeningCleared = kind{
	name: "screening-cleared",
	body: func() Body { return new(ScreeningCleared) },
	by:   rights.Role.Licensed,
}

// ScreeningCleared lifts the answers to a question that arrived before it. A
// licensed person records it, and says on what it rests; nothing else lifts a yes,
// or an answer that is not known, on an emergency or refer-first question.
type ScreeningCleared struct {
	Question ids.Question `json:"question"`
	// Side limits it to answers of this side; absent is every side.
	Side  ids.Side `json:"side,omitempty"`
	Basis Basis    `json:"basis,omitempty" enum:"clinician,resolved,mistaken" doc:"clinician when left out"`
	By    string   `json:"by" maxLength:"200" doc:"the clinician; the therapist for another basis"`
	On    string   `json:"on" maxLength:"40" doc:"when"`
	Note  string   `json:"note,omitempty" maxLength:"2000" doc:"the reason, for a mistaken answer"`
}

// Basis is what a clearance rests on.
type Basis = record.Basis

// leastReason is how many letters a reason has at least.
const leastReason = 10

// Check implements decode.Checker.
func (c ScreeningCleared) Check() *decode.Error {
	for _, f := range []struct{ path, v string }{{"$.by", c.By}, {"$.on", c.On}} {
		if strings.TrimSpace(f.v) == "" {
			return &decode.Error{Path: f.path, Given: "nothing", Allowed: "who cleared it, and when"}
		}
	}
	if c.Basis == record.ByMistaken && len(strings.TrimSpace(c.Note)) < leastReason {
		return &decode.Error{
			Path: "$.note", Given: fmt.Sprintf("%q", c.Note),
			Allowed: "why the answer was wrong, at least ten letters",
		}
	}
	return nil
}

// clearance is the part of it that the safety record needs: question, side and basis.
func (c ScreeningCleared) clearance() *record.Clearance {
	return &record.Clearance{Question: c.Question, Side: c.Side, Basis: c.Basis}
}

// admit tells why a clearance on its basis does not lift what stands, or nil.
func (b *ScreeningCleared) admit(j *Validator, e *Event) error {
	stands := j.record.At(record.Query{Stamp: j.ctx.stamp(*e), Now: true}).Clearable(*b.clearance())
	if stands == nil {
		return nil
	}
	q, _ := safety.FindQuestion(b.Question)
	switch {
	case stands.Answer.Answer == "unknown":
		return because("Ask again and record the no first: your own examination lifts what is no longer unknown.")
	case q.Outcome == safety.Emergency:
		return because("Only a clinician clears an emergency: name who, and when.")
	}
	return because("Your own examination lifts a fever, a swollen joint and what was not known. " +
		"A clinician clears this one; or say why the answer was a mistake.")
}

// facts: it lifts what arrived before it, and nothing that comes later.
func (b *ScreeningCleared) facts(at record.Stamp) []record.Fact {
	return []record.Fact{{Stamp: at, Clearance: b.clearance()}}
}

func (b *ScreeningCleared) carries(j *Validator) string { return j.underHolds() }

// apply lists it with its basis; it stays to be seen also when a new answer has ended it.
func (b *ScreeningCleared) apply(r *reducer, _ Event) error {
	r.state.Cleared = append(r.state.Cleared, *b)
	return nil
}

// timeline names the question and who cleared it.
func (b *ScreeningCleared) timeline() string {
	return fmt.Sprintf("Cleared: %s, by %s", wording.Plain(b.Question), b.By)
}
