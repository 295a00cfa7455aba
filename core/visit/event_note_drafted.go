package visit

import "mokren/core/rights"

var noteDrafted = kind{
	name:   "note-drafted",
	body:   func() Body { return new(NoteDrafted) },
	by:     rights.Role.Clinical,
	closed: takesAlways,
}

// NoteText is the note in its four parts.
type NoteText struct {
	Subjective string `json:"subjective" maxLength:"20000"`
	Objective  string `json:"objective" maxLength:"20000"`
	Assessment string `json:"assessment" maxLength:"20000"`
	Plan       string `json:"plan" maxLength:"20000"`
}

// NoteDrafted is the note as the therapist has edited it.
type NoteDrafted struct{ NoteText }

func (b *NoteDrafted) admit(j *Validator, _ *Event) error { return words(j.signedAlready()) }

func (b *NoteDrafted) sets(Event) []thing { return []thing{{"text of the note", "note-text"}} }

// apply keeps every draft: a text that somebody has edited is never lost to another's.
func (b *NoteDrafted) apply(r *reducer, e Event) error {
	r.state.Drafts = append(r.state.Drafts, DatedNote{e.At(), e.Author, b.NoteText})
	return nil
}

func (b *NoteDrafted) timeline() string { return "Note edited" }

// signedAlready tells why a note takes no other text, or "": from its signing on only
// addenda are written.
func (j *Validator) signedAlready() string {
	if j.signed != nil {
		return "The note is signed; write an addendum instead."
	}
	return ""
}
