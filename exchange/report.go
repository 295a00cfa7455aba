package exchange

import (
	"errors"
	"fmt"
	"strings"

	"mokren/core/decode"
	"mokren/core/visit"
)

// Report tells what a file comes to before anything is taken in.
type Report struct {
	Clients  int       `json:"clients"`
	Visits   int       `json:"visits"`
	Readings int       `json:"readings" doc:"single readings of a table"`
	Problems []Problem `json:"problems" doc:"with any of them nothing is taken in"`
	// Left is what the file has and Mokren does not understand.
	Left []OmittedCount `json:"left"`
	// Shown are the first few rows as they would be taken in.
	Shown []string `json:"shown"`
}

// Problem is one thing that is wrong with a file.
type Problem struct {
	Row   int    `json:"row,omitempty" doc:"of a table, the header being 1"`
	Field string `json:"field"`
	Given string `json:"given,omitempty"`
	Text  string `json:"text"`
}

// OmittedCount is so many things of a kind that are not understood.
type OmittedCount struct {
	What string `json:"what"`
	N    int    `json:"n"`
}

// mostProblems are told; a broken file says the same a thousand times.
const mostProblems = 50

func (r *Report) problem(field, given, text string) {
	r.add(Problem{Field: field, Given: given, Text: text})
}

func (r *Report) add(p Problem) {
	if len(p.Given) > 80 {
		p.Given = strings.ToValidUTF8(p.Given[:80], "") + "…"
	}
	if len(r.Problems) < mostProblems {
		r.Problems = append(r.Problems, p)
	}
}

func (r *Report) names(field string, id visit.UUID, known map[visit.UUID]bool, wanted string) {
	if !known[id] {
		r.problem(field, string(id), wanted)
	}
}

func (r *Report) leave(what string) {
	for i := range r.Left {
		if r.Left[i].What == what {
			r.Left[i].N++
			return
		}
	}
	r.Left = append(r.Left, OmittedCount{what, 1})
}

// mostShown rows are shown before an import.
const mostShown = 8

func (r *Report) show(format string, args ...any) {
	if len(r.Shown) < mostShown {
		r.Shown = append(r.Shown, fmt.Sprintf(format, args...))
	}
}

// Fine tells that nothing stands against taking it in.
func (r Report) Fine() bool { return len(r.Problems) == 0 }

func refused(err error) Report {
	var r Report
	var se *decode.Error
	if errors.As(err, &se) {
		r.problem(se.Path, se.Given, "allowed: "+se.Allowed)
	} else {
		r.problem("$", "", err.Error())
	}
	return r
}

func blank(s string) bool { return strings.TrimSpace(s) == "" }
