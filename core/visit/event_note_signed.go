package visit

import (
	"strings"

	"mokren/core/decode"
	"mokren/core/rights"
)

var noteSigned = kind{
	name:   "note-signed",
	body:   func() Body { return new(NoteSigned) },
	by:     rights.Role.Clinical,
	stays:  staysWritten,
	closed: takesAlways,
}

// NoteSigned is the note as it was signed, word for word: what the core would
// write tomorrow does not change it.
type NoteSigned struct {
	NoteText
	Name string `json:"name" maxLength:"200" doc:"as it stands under the note"`
}

// Check implements decode.Checker: somebody signs.
func (b NoteSigned) Check() *decode.Error { return signs(b.Name) }

// signs refuses a signature without a name: the printed note shows it beside the date.
func signs(name string) *decode.Error {
	if strings.TrimSpace(name) == "" {
		return &decode.Error{Path: "$.name", Given: `""`, Allowed: "the name of who signs"}
	}
	return nil
}

// admit: a note is signed once, when the visit is closed and no finding can change under
// it.
func (b *NoteSigned) admit(j *Validator, _ *Event) error {
	if why := j.signedAlready(); why != "" {
		return because(why)
	}
	if j.closed == nil {
		return because("A note is signed when its visit is closed.")
	}
	return nil
}

func (b *NoteSigned) remember(j *Validator, e Event) { j.signed = &e }

// apply keeps the text as it was signed. What the record learns later does not change it.
func (b *NoteSigned) apply(r *reducer, e Event) error {
	r.state.Signed = &SignedNote{
		DatedNote: DatedNote{e.At(), e.Author, b.NoteText}, Name: b.Name,
		ByStudent: r.ctx.Roles[e.Author] == rights.Student,
	}
	return nil
}

func (b *NoteSigned) timeline() string { return "Note signed" }
