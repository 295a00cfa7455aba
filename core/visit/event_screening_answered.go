package visit

import (
	"fmt"
	"slices"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/rights"
	"mokren/core/safety"
)

var screeningAnswered = kind{
	name: "screening-answered",
	body: func() Body { return new(ScreeningAnswered) },
	by:   rights.Role.Clinical,
}

// ScreeningAnswered answers questions of the screening; a later answer counts.
type ScreeningAnswered struct {
	Answers []ScreenedAnswer `json:"answers" minItems:"1" maxItems:"200"`
	// By tells who answered: the therapist, or the client on an own device.
	By string `json:"by,omitempty" enum:"therapist,client"`
}

// ScreenedAnswer is one answer with where and since when.
type ScreenedAnswer struct {
	Question ids.Question `json:"question"`
	// Answer unknown counts as yes where a yes stops the treatment.
	Answer string `json:"answer" enum:"yes,no,unknown"`
	// Side and Regions are asked for where the rule closes places.
	Side    ids.Side     `json:"side,omitempty"`
	Regions []ids.Region `json:"regions,omitempty" maxItems:"100"`
	Since   string       `json:"since,omitempty" maxLength:"100"`
	// HappenedOn is the day of an injury, an operation, an injection or a clot; DueOn
	// that of a birth. Absent means the strictest.
	HappenedOn string `json:"happened_on,omitempty" format:"date" maxLength:"10"`
	DueOn      string `json:"due_on,omitempty" format:"date" maxLength:"10"`
	// Note in the client's or the therapist's words; it decides nothing.
	Note string `json:"note,omitempty" maxLength:"2000"`
	// Corrects is why an answer given within the last five minutes, by the same person,
	// was a mistake. Without it a no lifts nothing that stays until it is cleared.
	Corrects string `json:"corrects,omitempty" maxLength:"500"`
}

// Check implements decode.Checker: days of the calendar.
func (a ScreenedAnswer) Check() *decode.Error {
	for _, f := range []struct{ path, v string }{{"$.happened_on", a.HappenedOn}, {"$.due_on", a.DueOn}} {
		if f.v != "" && !record.IsDate(f.v) {
			return &decode.Error{Path: f.path, Given: fmt.Sprintf("%q", f.v), Allowed: "a day, YYYY-MM-DD"}
		}
	}
	return nil
}

func (b *ScreeningAnswered) remember(j *Validator, e Event) { j.said[e.ID] = b }

// facts: one for each answer, so that each ages and is cleared by itself.
func (b *ScreeningAnswered) facts(at record.Stamp) []record.Fact {
	out := make([]record.Fact, len(b.Answers))
	for i, a := range b.Answers {
		out[i] = record.Fact{Stamp: at, Answer: &record.Said{
			Answer: safety.Answer{
				Question: a.Question, Answer: a.Answer, Side: a.Side, Regions: a.Regions, By: b.By,
			},
			HappenedOn: a.HappenedOn, DueOn: a.DueOn, Corrects: a.Corrects != "",
		}}
	}
	return out
}

// protects: a no can lift something, so it adds no caution.
func (b *ScreeningAnswered) protects() bool {
	return !slices.ContainsFunc(b.Answers, func(a ScreenedAnswer) bool { return a.Answer == "no" })
}

func (b *ScreeningAnswered) carries(j *Validator) string { return j.underHolds() }

// sets: each question is a thing of its own, so that two devices conflict only where they
// answer the same one.
func (b *ScreeningAnswered) sets(Event) []thing {
	out := make([]thing, len(b.Answers))
	for i, a := range b.Answers {
		out[i] = thing{"answer to " + string(a.Question), "screen:" + string(a.Question)}
	}
	return out
}

// apply does nothing: the answers that stand are the client's record's to say.
func (b *ScreeningAnswered) apply(*reducer, Event) error { return nil }

// timeline counts the questions and says whose word it was.
func (b *ScreeningAnswered) timeline() string {
	by := ""
	if b.By == "client" {
		by = ", by the client"
	}
	return fmt.Sprintf("Screening: %d questions answered%s", len(b.Answers), by)
}

// underHolds tells that a hold of this visit rests on what was asked and agreed, or "".
func (j *Validator) underHolds() string {
	if len(j.holds) > 0 {
		return "A hold rests on it: answer again, or withdraw for what is to come."
	}
	return ""
}
