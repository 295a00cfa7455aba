package visit

import (
	"fmt"

	"mokren/core/decode"
	"mokren/core/record"
	"mokren/core/rights"
	"mokren/core/safety"
)

var consentRecorded = kind{
	name: "consent-recorded",
	body: func() Body { return new(ConsentRecorded) },
	by:   rights.Role.Clinical,
}

// ConsentRecorded records what the client, or a guardian, agreed to or withdrew. The
// latest word on an area counts; a withdrawal stops every hold that would
// begin after it.
type ConsentRecorded struct {
	Area      safety.Area `json:"area" enum:"visit,groin,buttock,chest,abdomen,axilla,coccyx"`
	Given     bool        `json:"given"`
	By        string      `json:"by,omitempty" enum:"client,guardian" doc:"the client when left out"`
	Chaperone string      `json:"chaperone,omitempty" enum:"declined,present" doc:"what became of the offer; needed with a consent for a sensitive area"`
	Note      string      `json:"note,omitempty" maxLength:"500"`
}

// Check implements decode.Checker: a chaperone is offered for every sensitive
// area.
func (c ConsentRecorded) Check() *decode.Error {
	if c.Given && c.Area != safety.WholeVisit && c.Chaperone == "" {
		return &decode.Error{
			Path: "$.chaperone", Given: "nothing",
			Allowed: "declined or present: a chaperone is offered for this area",
		}
	}
	return nil
}

func (c *ConsentRecorded) remember(j *Validator, e Event) { j.said[e.ID] = c }

// facts: what was agreed to counts for this visit, and a withdrawal from then on.
func (c *ConsentRecorded) facts(at record.Stamp) []record.Fact {
	return []record.Fact{{Stamp: at, Consent: &record.Consent{Area: c.Area, Given: c.Given, By: c.By}}}
}

// protects: a withdrawal does.
func (c *ConsentRecorded) protects() bool { return !c.Given }

func (c *ConsentRecorded) carries(j *Validator) string { return j.underHolds() }

// sets: two devices that record different words on one area are a conflict.
func (c *ConsentRecorded) sets(Event) []thing {
	return []thing{{"consent for the " + string(c.Area), "consent:" + string(c.Area)}}
}

// apply does nothing: what is agreed is the client's record's to say.
func (c *ConsentRecorded) apply(*reducer, Event) error { return nil }

// timeline tells a withdrawal apart from an agreement, since it stops the work.
func (c *ConsentRecorded) timeline() string {
	if !c.Given {
		return fmt.Sprintf("Consent withdrawn: %s", c.Area)
	}
	return fmt.Sprintf("Consent: %s", c.Area)
}
