package visit

import (
	"mokren/core/decode"
	"mokren/core/rights"
)

var noteCountersigned = kind{
	name:   "note-countersigned",
	body:   func() Body { return new(NoteCountersigned) },
	by:     rights.Role.Licensed,
	stays:  staysWritten,
	closed: takesAlways,
}

// NoteCountersigned is a licensed person's word on a student's signed note.
type NoteCountersigned struct {
	Name string `json:"name" maxLength:"200" doc:"as it stands under the note"`
}

// Check implements decode.Checker: somebody countersigns.
func (b NoteCountersigned) Check() *decode.Error { return signs(b.Name) }

// admit: a countersignature stands for a student's text, and for one version of it.
func (b *NoteCountersigned) admit(j *Validator, _ *Event) error {
	if j.signed == nil || j.ctx.Roles[j.signed.Author] != rights.Student || j.counter != nil {
		return because("A student's signed note is countersigned, once.")
	}
	return nil
}

func (b *NoteCountersigned) remember(j *Validator, e Event) { j.counter = &e }

// apply puts the name beside the signature it stands for.
func (b *NoteCountersigned) apply(r *reducer, e Event) error {
	if r.state.Signed != nil { // a log from elsewhere may say anything
		r.state.Signed.Counter = &Countersignature{e.At(), e.Author, b.Name}
	}
	return nil
}

func (b *NoteCountersigned) timeline() string { return "Note countersigned" }
