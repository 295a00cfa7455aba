package visit

import (
	"mokren/core/safety"
	"mokren/core/strict"
)

// Consented records what the client, or a guardian, agreed to or withdrew. The
// latest word on an area counts; a withdrawal stops every hold that would
// begin after it.
type Consented struct {
	Area      safety.Area `json:"area" enum:"visit,groin,buttock,chest,abdomen,axilla,coccyx"`
	Given     bool        `json:"given"`
	By        string      `json:"by,omitempty" enum:"client,guardian" doc:"the client when left out"`
	Chaperone string      `json:"chaperone,omitempty" enum:"declined,present" doc:"what became of the offer; needed with a consent for a sensitive area"`
	Note      string      `json:"note,omitempty" maxLength:"500"`
}

// Check implements strict.Checker: a chaperone is offered for every sensitive
// area.
func (c Consented) Check() *strict.Error {
	if c.Given && c.Area != safety.WholeVisit && c.Chaperone == "" {
		return &strict.Error{
			Path: "$.chaperone", Given: "nothing",
			Allowed: "declined or present: a chaperone is offered for this area",
		}
	}
	return nil
}
