package note

import (
	"fmt"
	"strings"

	"mokren/core/assess"
	"mokren/core/visit"
)

// Visit is what a note is written from.
type Visit struct {
	State   visit.State        `json:"state"`
	Context visit.Context      `json:"context"`
	Earlier []visit.FoundPoint `json:"earlier"`
	// Suspects are the ranking's; they have a say in what a point is.
	Suspects []assess.Suspect `json:"suspects,omitempty"`
	// OffsetMin is how far the practice's clock was ahead of UTC at the visit.
	OffsetMin int `json:"offset_min"`
}

// Write gives the note of a visit. A part of which nothing is known says so: a
// reader can tell "not asked" from "nothing found".
func Write(v Visit) visit.NoteText {
	w := writer{Visit: v, work: v.State.Work(v.Context, v.Earlier, v.Suspects)}
	return visit.NoteText{
		Subjective: w.subjective(),
		Objective:  w.objective(),
		Assessment: w.assessment(),
		Plan:       w.plan(),
	}
}

type writer struct {
	Visit
	work visit.Working
}

// clock is a moment by the practice's clock.
func (w *writer) clock(ms int64) string {
	const day = 24 * 60
	minute := (ms/60_000 + int64(w.OffsetMin)) % day
	return fmt.Sprintf("%02d:%02d", minute/60, minute%60)
}

// lines gathers a section.
type lines struct{ list []string }

// add leaves out what has nothing to say.
func (l *lines) add(line string) {
	if line != "" {
		l.list = append(l.list, line)
	}
}

// labelled adds "Label: what." where there is something.
func (l *lines) labelled(label, what string) {
	if what = strings.TrimSpace(what); what != "" {
		l.add(label + ": " + stop(what))
	}
}

// text is the lines, or what is said where there are none.
func (l *lines) text(empty string) string {
	if len(l.list) == 0 {
		return empty
	}
	return strings.Join(l.list, "\n")
}

// stop ends a sentence that has no end yet.
func stop(s string) string {
	if strings.ContainsAny(s[len(s)-1:], ".!?…") {
		return s
	}
	return s + "."
}
