package visit

import (
	"fmt"
	"strings"

	"mokren/core/strict"
)

// The bodies of the events that frame a visit. The others stand with what they
// do: points, holds, screening, consent, what is found.
type (
	// Opened begins the visit.
	Opened struct {
		Reason string `json:"reason,omitempty" maxLength:"500"`
	}
	// Incident is what went wrong, what was done, and who was told; it is written for any
	// visit, closed or not.
	Incident struct {
		Happened string `json:"happened" maxLength:"4000"`
		Done     string `json:"done" maxLength:"4000"`
		Told     string `json:"told" maxLength:"1000" doc:"who was told, and when"`
	}
	// Addendum is what is added to a visit after it was closed.
	Addendum struct {
		Text string `json:"text" maxLength:"20000"`
	}
	// Noted is the therapist's free note on the visit.
	Noted struct {
		Text string `json:"text" maxLength:"20000"`
	}
	// NoteText is the note in its four parts.
	NoteText struct {
		Subjective string `json:"subjective" maxLength:"20000"`
		Objective  string `json:"objective" maxLength:"20000"`
		Assessment string `json:"assessment" maxLength:"20000"`
		Plan       string `json:"plan" maxLength:"20000"`
	}
	// NoteDrafted is the note as the therapist has edited it.
	NoteDrafted struct{ NoteText }
	// NoteSigned is the note as it was signed, word for word: what the core would
	// write tomorrow does not change it.
	NoteSigned struct {
		NoteText
		Name string `json:"name" maxLength:"200" doc:"as it stands under the note"`
	}
	// NoteCountersigned is a licensed person's word on a student's signed note.
	NoteCountersigned struct {
		Name string `json:"name" maxLength:"200" doc:"as it stands under the note"`
	}
	// Undone takes an earlier event of the visit back.
	Undone struct {
		Event UUID `json:"event"`
	}
	// Closed ends the visit.
	Closed struct {
		// NotTreated: nothing was pressed, for a reason of the screening; Advised is what
		// the client was told to do.
		NotTreated bool   `json:"not_treated,omitempty"`
		Advised    string `json:"advised,omitempty" maxLength:"2000"`
	}
)

// Check implements strict.Checker: every part is said.
func (b Incident) Check() *strict.Error {
	for _, f := range []struct{ path, v, what string }{
		{"$.happened", b.Happened, "what happened"},
		{"$.done", b.Done, "what was done"},
		{"$.told", b.Told, "who was told; nobody, if so"},
	} {
		if strings.TrimSpace(f.v) == "" {
			return &strict.Error{Path: f.path, Given: "nothing", Allowed: f.what}
		}
	}
	return nil
}

// Check implements strict.Checker: who is sent away was told what to do.
func (b Closed) Check() *strict.Error {
	if b.NotTreated && len(strings.TrimSpace(b.Advised)) < leastReason {
		return &strict.Error{
			Path: "$.advised", Given: fmt.Sprintf("%q", b.Advised),
			Allowed: "what the client was advised, at least ten letters",
		}
	}
	return nil
}

// Check implements strict.Checker: somebody signs.
func (b NoteSigned) Check() *strict.Error { return signs(b.Name) }

// Check implements strict.Checker: somebody countersigns.
func (b NoteCountersigned) Check() *strict.Error { return signs(b.Name) }

func signs(name string) *strict.Error {
	if strings.TrimSpace(name) == "" {
		return &strict.Error{Path: "$.name", Given: `""`, Allowed: "the name of who signs"}
	}
	return nil
}
