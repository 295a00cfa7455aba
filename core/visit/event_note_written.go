package visit

import "mokren/core/rights"

var noteWritten = kind{
	name: "note-written",
	body: func() Body { return new(Noted) },
	by:   rights.Role.Clinical,
}

// Noted is the therapist's free note on the visit.
type Noted struct {
	Text string `json:"text" maxLength:"20000"`
}

func (b *Noted) sets(Event) []thing { return []thing{{"note", "note"}} }

func (b *Noted) apply(r *reducer, _ Event) error {
	r.state.Note = b.Text
	return nil
}

func (b *Noted) timeline() string { return "Remarks written" }
