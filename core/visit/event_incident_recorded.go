package visit

import (
	"strings"

	"mokren/core/decode"
	"mokren/core/rights"
)

var incidentRecorded = kind{
	name:   "incident-recorded",
	body:   func() Body { return new(Incident) },
	by:     rights.Role.Clinical,
	stays:  staysWritten,
	closed: takesAlways,
}

// Incident is what went wrong, what was done, and who was told; it is written for any
// visit, closed or not.
type Incident struct {
	Happened string `json:"happened" maxLength:"4000"`
	Done     string `json:"done" maxLength:"4000"`
	Told     string `json:"told" maxLength:"1000" doc:"who was told, and when"`
}

// Check implements decode.Checker: every part is said.
func (b Incident) Check() *decode.Error {
	for _, f := range []struct{ path, v, what string }{
		{"$.happened", b.Happened, "what happened"},
		{"$.done", b.Done, "what was done"},
		{"$.told", b.Told, "who was told; nobody, if so"},
	} {
		if strings.TrimSpace(f.v) == "" {
			return &decode.Error{Path: f.path, Given: "nothing", Allowed: f.what}
		}
	}
	return nil
}

// apply adds it to the visit, closed or not: an incident is recorded whenever it is known.
func (b *Incident) apply(r *reducer, e Event) error {
	r.state.Incidents = append(r.state.Incidents, DatedIncident{e.At(), e.Author, *b})
	return nil
}

func (b *Incident) timeline() string { return "Incident recorded: " + b.Happened }
