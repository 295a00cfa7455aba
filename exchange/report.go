package exchange

import (
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/google/uuid"

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
	// Columns are those of a table, with what each is taken for.
	Columns []Column `json:"columns,omitempty"`
	// Fields are what a column of this kind of table can be taken for.
	Fields []string `json:"fields,omitempty"`
	// rows are where the clients of the archive stand in the file.
	rows []int
}

// Column is one of a table, as its header calls it.
type Column struct {
	Name  string `json:"name"`
	Field string `json:"field" doc:"empty: left out"`
}

// Choices are what whoever takes a file in has said of it.
type Choices struct {
	// Leave are entries that stay out, by their number in the file.
	Leave map[int]bool
	// Columns says what a table's columns are, where their names do not; "" leaves one out.
	Columns map[string]string
	// Day is how days are written in a table: ymd (as always read), dmy or mdy.
	Day string
	// Zone is the practice's: a time that has none is in it.
	Zone *time.Location
	// Space keeps ids of this practice apart from those of others who take the same file in.
	Space visit.UUID
}

func (c Choices) zone() *time.Location {
	if c.Zone == nil {
		return time.UTC
	}
	return c.Zone
}

// left tells whether an entry is to stay out, and says so in the report.
func (c Choices) left(r *Report, n int) bool {
	if c.Leave[n] {
		r.leave("entry that you left out", strconv.Itoa(n))
	}
	return c.Leave[n]
}

// known makes the same id of the same foreign name every time, so that a file that comes twice is
// known again; a UUID stays itself.
func (c Choices) known(kind, foreign string) visit.UUID {
	if u, err := uuid.Parse(foreign); err == nil && u.Variant() == uuid.RFC4122 {
		return visit.UUID(u.String())
	}
	space := uuid.NameSpaceURL
	if u, err := uuid.Parse(string(c.Space)); err == nil {
		space = u
	}
	return visit.UUID(uuid.NewSHA1(space, []byte(kind+" "+foreign)).String())
}

// Known is the id of a foreign resource: what is called a UUID keeps it.
func (c Choices) Known(kind, id, key string) visit.UUID {
	if _, err := uuid.Parse(id); err == nil {
		return c.known(kind, id)
	}
	return c.known(kind, key)
}

// Stands notes where the next client of the archive stands in its file.
func (r *Report) Stands(row int) { r.rows = append(r.rows, row) }

// Restand says anew where the clients of the archive stand, after some were left out.
func (r *Report) Restand(rows []int) { r.rows = rows }

// RowOf is where a client of the archive stands in its file.
func (r Report) RowOf(client int) int {
	if client < len(r.rows) {
		return r.rows[client]
	}
	return 0
}

// Problem is one thing that is wrong with a file.
type Problem struct {
	Row   int    `json:"row,omitempty" doc:"of a table, the header being 1; of other files which entry, from 1"`
	Field string `json:"field"`
	Given string `json:"given,omitempty"`
	Text  string `json:"text"`
}

// OmittedCount is so many things of a kind that are not understood.
type OmittedCount struct {
	What string `json:"what"`
	N    int    `json:"n"`
	// At are the first places where they stand: numbers of rows or entries.
	At []string `json:"at,omitempty"`
}

// mostLeft kinds of things that are left out are told apart.
const mostLeft = 200

// mostPlaces of what is left out are named; its number tells of the others.
const mostPlaces = 10

// mostProblems are told; a broken file says the same a thousand times.
const mostProblems = 50

func (r *Report) problem(field, given, text string) {
	r.add(Problem{Field: field, Given: given, Text: text})
}

// Add names a problem.
func (r *Report) Add(p Problem) { r.add(p) }

// Show adds a row to those that are shown.
func (r *Report) Show(format string, args ...any) { r.show(format, args...) }

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

// Leave names something that the file has and that is not taken in, with its place.
func (r *Report) Leave(what string, at int) {
	place := ""
	if at > 0 {
		place = strconv.Itoa(at)
	}
	r.leave(what, place)
}

func (r *Report) leave(what, at string) {
	if len(r.Left) >= mostLeft {
		what = "more of other kinds"
	}
	i := slices.IndexFunc(r.Left, func(l OmittedCount) bool { return l.What == what })
	if i < 0 {
		i = len(r.Left)
		r.Left = append(r.Left, OmittedCount{What: what})
	}
	r.Left[i].N++
	if at != "" && len(r.Left[i].At) < mostPlaces {
		r.Left[i].At = append(r.Left[i].At, at)
	}
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
