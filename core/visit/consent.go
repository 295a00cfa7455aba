package visit

import (
	"slices"

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

func (r *reducer) consent(e Event, b *Consented) {
	r.sets("consent for the "+string(b.Area), "consent:"+string(b.Area), e)
	r.state.Consents = slices.DeleteFunc(r.state.Consents, func(c Consented) bool { return c.Area == b.Area })
	r.state.Consents = append(r.state.Consents, *b)
}

// consentSinceMS is when this rule came (25 November 2026, Unix ms). Holds that
// the server had received before were begun under a form on paper; they stand.
// The server's time counts, so no device can place itself before it.
const consentSinceMS = 1_795_564_800_000

func beforeConsentRule(e Event) bool { return e.ReceivedMS > 0 && e.ReceivedMS < consentSinceMS }

// consentMissing tells which consent a hold at this point still needs, and in
// words; both are empty when none does.
func (r *reducer) consentMissing(p Point, s safety.Screening) (safety.Area, string) {
	given := func(a safety.Area) (Consented, bool) {
		i := slices.IndexFunc(r.state.Consents, func(c Consented) bool { return c.Area == a && c.Given })
		if i < 0 {
			return Consented{}, false
		}
		return r.state.Consents[i], true
	}
	whole, ok := given(safety.WholeVisit)
	if !ok {
		return safety.WholeVisit, "No consent to today's treatment is recorded."
	}
	minor := slices.ContainsFunc(s.Rules, func(a safety.Applied) bool { return a.ID == "minor" })
	const underAge = "The client is under age: a guardian's consent is needed."
	if minor && whole.By != "guardian" {
		return safety.WholeVisit, underAge
	}
	for _, a := range safety.SensitiveAreas(p.Muscle, p.where()) {
		switch c, ok := given(a); {
		case !ok:
			return a, "The " + string(a) + " needs a consent of its own, and none is recorded."
		case minor && c.By != "guardian":
			return a, underAge
		}
	}
	return "", ""
}
