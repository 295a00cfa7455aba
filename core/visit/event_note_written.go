package visit

import "mokren/core/rights"

var noteWritten = kind{
	name: "note-written",
	body: func() Body { return new(NoteWritten) },
	by:   rights.Role.Clinical,
}

// NoteWritten is the therapist's free note on the visit.
type NoteWritten struct {
	Text string `json:"text" maxLength:"20000"`
}

func (b *NoteWritten) sets(Event) []thing { return []thing{{"note", "note"}} }

func (b *NoteWritten) apply(r *reducer, _ Event) error {
	r.state.Note = b.Text
	return nil
}

func (b *NoteWritten) timeline() string { return "Remarks written" }
