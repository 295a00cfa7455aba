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

// apply replaces the free text; two who wrote it unseen are a conflict.
func (b *NoteWritten) apply(r *reducer, _ Event) error {
	r.state.Note = b.Text
	return nil
}

func (b *NoteWritten) timeline() string { return "Remarks written" }
