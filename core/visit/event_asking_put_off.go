package visit

import (
	"slices"

	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/safety"
)

var askingPutOff = kind{
	name: "asking-put-off",
	body: func() Body { return new(AskingPutOff) },
	by:   rights.Role.Clinical,
}

// AskingPutOff is why hands were on before consent and screening were asked for; no
// hold begins by it.
type AskingPutOff struct {
	Reason string `json:"reason" minLength:"3" maxLength:"300"`
	// Areas are the sensitive areas that it waits with; another is asked for anew.
	Areas []safety.Area `json:"areas,omitempty" maxItems:"10"`
}

// apply keeps the latest reason, and every area that was put off.
func (b *AskingPutOff) apply(r *reducer, e Event) error {
	s := &r.state
	put := &PutOff{AtMS: e.At(), Author: e.Author, Text: b.Reason}
	if s.PutOff != nil {
		put.Areas = slices.Clone(s.PutOff.Areas)
	}
	for _, a := range b.Areas {
		put.Areas = ids.With(put.Areas, a)
	}
	s.PutOff = put
	return nil
}

func (b *AskingPutOff) timeline() string { return "Screening and consent asked later: " + b.Reason }
