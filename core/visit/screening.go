package visit

import (
	"fmt"
	"slices"
	"strings"

	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/safety"
	"mokren/core/strict"
)

type (
	// Screened answers questions of the screening; a later answer counts.
	Screened struct {
		Answers []ScreenedAnswer `json:"answers" minItems:"1" maxItems:"200"`
		// By tells who answered: the therapist, or the client on an own device.
		By string `json:"by,omitempty" enum:"therapist,client"`
	}
	// ScreenedAnswer is one answer with where and since when.
	ScreenedAnswer struct {
		Question ids.Question `json:"question"`
		Answer   string       `json:"answer" enum:"yes,no,unknown"`
		Side     ids.Side     `json:"side,omitempty"`
		Regions  []ids.Region `json:"regions,omitempty" maxItems:"100"`
		Since    string       `json:"since,omitempty" maxLength:"100"`
		// HappenedOn is the day of an injury, an operation, an injection or a clot; DueOn
		// that of a birth. Absent means the strictest.
		HappenedOn string `json:"happened_on,omitempty" format:"date" maxLength:"10"`
		DueOn      string `json:"due_on,omitempty" format:"date" maxLength:"10"`
		Note       string `json:"note,omitempty" maxLength:"2000"`
		// Corrects is why an answer given within the last five minutes, by the same person,
		// was a mistake. Without it a no lifts nothing that stays until it is cleared.
		Corrects string `json:"corrects,omitempty" maxLength:"500"`
	}
	// ScreeningCleared lifts the answers to a question that arrived before it. A
	// licensed person records it, and says on what it rests; nothing else lifts a yes,
	// or an answer that is not known, on an emergency or refer-first question.
	ScreeningCleared struct {
		Question ids.Question `json:"question"`
		// Side limits it to answers of this side; absent is every side.
		Side  ids.Side `json:"side,omitempty"`
		Basis Basis    `json:"basis,omitempty" enum:"clinician,resolved,mistaken" doc:"clinician when left out"`
		By    string   `json:"by" maxLength:"200" doc:"the clinician; the therapist for another basis"`
		On    string   `json:"on" maxLength:"40" doc:"when"`
		Note  string   `json:"note,omitempty" maxLength:"2000" doc:"the reason, for a mistaken answer"`
	}
	// BlockOverridden is a licensed person's decision to press in a blocked
	// place all the same, with the reason. It never lifts refer-first or
	// emergency, nor questions that were not asked.
	BlockOverridden struct {
		Point UUID `json:"point"`
		// Questions are the answers that it names; absent, those that stand.
		Questions []ids.Question `json:"questions,omitempty" maxItems:"100"`
		Reason    string         `json:"reason" maxLength:"2000"`
	}
)

// Basis is what a clearance rests on.
type Basis = record.Basis

// Check implements strict.Checker: days of the calendar.
func (a ScreenedAnswer) Check() *strict.Error {
	for _, f := range []struct{ path, v string }{{"$.happened_on", a.HappenedOn}, {"$.due_on", a.DueOn}} {
		if f.v != "" && !record.IsDate(f.v) {
			return &strict.Error{Path: f.path, Given: fmt.Sprintf("%q", f.v), Allowed: "a day, YYYY-MM-DD"}
		}
	}
	return nil
}

// leastReason is how many letters a reason has at least.
const leastReason = 10

// Check implements strict.Checker.
func (c ScreeningCleared) Check() *strict.Error {
	for _, f := range []struct{ path, v string }{{"$.by", c.By}, {"$.on", c.On}} {
		if strings.TrimSpace(f.v) == "" {
			return &strict.Error{Path: f.path, Given: "nothing", Allowed: "who cleared it, and when"}
		}
	}
	if c.Basis == record.ByMistaken && len(strings.TrimSpace(c.Note)) < leastReason {
		return &strict.Error{
			Path: "$.note", Given: fmt.Sprintf("%q", c.Note),
			Allowed: "why the answer was wrong, at least ten letters",
		}
	}
	return nil
}

func (c ScreeningCleared) clearance() *record.Clearance {
	return &record.Clearance{Question: c.Question, Side: c.Side, Basis: c.Basis}
}

// clearable tells why a clearance on its basis does not lift what stands, or nil.
func (j *Judge) clearable(e Event, b *ScreeningCleared) error {
	stands := j.record.At(record.Query{Stamp: j.ctx.stamp(e), Now: true}).Clearable(*b.clearance())
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

// Check implements strict.Checker.
func (b BlockOverridden) Check() *strict.Error {
	if len(strings.TrimSpace(b.Reason)) < leastReason {
		return &strict.Error{
			Path: "$.reason", Given: fmt.Sprintf("%q", b.Reason),
			Allowed: "the clinical reason, at least ten letters",
		}
	}
	return nil
}

// Given is an answer with whose word it is, and whether it was cleared since.
type Given struct {
	ScreenedAnswer
	By      string `json:"by,omitempty" enum:"therapist,client"`
	Cleared bool   `json:"cleared,omitempty"`
}

// given are the answers of this visit that count, as they were written.
func (j *Judge) given(k record.Judged) []Given {
	out := []Given{}
	for _, a := range k.Standing() {
		b, ok := j.said[a.Event].(*Screened)
		if !ok {
			continue
		}
		i := slices.IndexFunc(b.Answers, func(x ScreenedAnswer) bool {
			return x.Question == a.Question && x.Answer == a.Answer.Answer && x.Side == a.Side
		})
		if i >= 0 {
			out = append(out, Given{b.Answers[i], b.By, a.Cleared})
		}
	}
	return out
}

// agreed are this visit's latest words on the visit and each area.
func (j *Judge) agreed(k record.Judged) []Consented {
	out := []Consented{}
	for _, a := range k.Consents() {
		if b, ok := j.said[a.Event].(*Consented); ok {
			out = append(out, *b)
		}
	}
	return out
}

func (r *reducer) screened(e Event, b *Screened) {
	for _, a := range b.Answers {
		r.sets("answer to "+string(a.Question), "screen:"+string(a.Question), e)
	}
}
