package exchange

import (
	"bytes"
	"context"
	"encoding/csv"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"mokren/core/visit"
)

// MaxTableRows is what is read of a table.
const MaxTableRows = 20_000

// cell makes text harmless where a table is opened in a spreadsheet: what would
// be a formula begins with an apostrophe, behind spaces and in wide signs too. Numbers
// stay numbers.
func cell(s string) string {
	first, _ := utf8.DecodeRuneInString(strings.TrimLeft(s, " "))
	if s == "" || !strings.ContainsRune("=+-@\t\r|＝＋－＠", first) {
		return s
	}
	if _, err := strconv.ParseFloat(s, 64); err == nil {
		return s
	}
	return "'" + s
}

// uncell takes the apostrophe of cell off again.
func uncell(s string) string {
	if len(s) > 1 && s[0] == '\'' && cell(s[1:]) == s {
		return s[1:]
	}
	return s
}

// table is a CSV with a header, in UTF-8.
type table struct {
	header []string
	rows   [][]string
}

func (t *table) add(cells ...string) { t.rows = append(t.rows, cells) }

func (t *table) bytes() ([]byte, error) {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	for _, r := range append([][]string{t.header}, t.rows...) {
		safe := make([]string, len(r))
		for i, c := range r {
			safe[i] = cell(c)
		}
		if err := w.Write(safe); err != nil {
			return nil, fmt.Errorf("writing a table: %w", err)
		}
	}
	w.Flush()
	return b.Bytes(), w.Error()
}

// Table gives rows under a header as CSV, harmless where it is opened in a
// spreadsheet.
func Table(header []string, rows [][]string) ([]byte, error) {
	t := table{header: header, rows: rows}
	return t.bytes()
}

// read reads a table by the names of its columns, in any order. Unknown columns
// are left out and named; wanted ones must be there. each gets a row and gives
// what is wrong with it.
func read(
	ctx context.Context, raw []byte, wanted, known []string, r *Report, each func(n int, of func(string) string),
) {
	raw = bytes.TrimPrefix(raw, []byte("\xef\xbb\xbf"))
	if !utf8.Valid(raw) || bytes.IndexByte(raw, 0) >= 0 {
		r.problem("file", "", "A table is text in UTF-8; this is something else.")
		return
	}
	in := csv.NewReader(stoppable(ctx, raw))
	in.FieldsPerRecord = -1
	if first, _, _ := bytes.Cut(raw, []byte("\n")); bytes.Count(first, []byte(";")) > bytes.Count(first, []byte(",")) {
		in.Comma = ';'
	}
	header, err := in.Read()
	if err != nil {
		r.problem("file", "", "The file has no header.")
		return
	}
	if len(header) > maxColumns {
		r.problem("header", fmt.Sprint(len(header), " columns"), fmt.Sprintf("At most %d columns.", maxColumns))
		return
	}
	at := columns(header, wanted, known, r)
	if !r.Fine() {
		return
	}
	for n := 2; ; n++ {
		cells, err := in.Read()
		if err == io.EOF {
			return
		}
		if err != nil {
			r.add(Problem{Row: n, Field: "row", Text: "The row cannot be read: " + err.Error()})
			return
		}
		if n > MaxTableRows {
			r.problem("file", "", fmt.Sprintf("More than %d rows.", MaxTableRows))
			return
		}
		if long := longest(cells); long > maxCell {
			r.add(Problem{Row: n, Field: "row", Text: fmt.Sprintf("A cell of %d bytes; at most %d.", long, maxCell)})
			continue
		}
		if len(cells) > len(header) {
			r.add(Problem{Row: n, Field: "row", Text: fmt.Sprintf("%d cells under %d names.", len(cells), len(header))})
			continue
		}
		each(n, func(name string) string {
			i, ok := at[name]
			if !ok || i >= len(cells) {
				return ""
			}
			return strings.TrimSpace(uncell(cells[i]))
		})
	}
}

// A table of a practice has a few dozen columns, and a note is the longest cell.
const (
	maxColumns = 500
	maxCell    = 64 << 10
)

func longest(cells []string) (n int) {
	for _, c := range cells {
		n = max(n, len(c))
	}
	return n
}

func columns(header, wanted, known []string, r *Report) map[string]int {
	at := map[string]int{}
	for i, h := range header {
		name, _, _ := strings.Cut(strings.ToLower(strings.TrimSpace(uncell(h))), " [") // units stand in bounds
		if _, twice := at[name]; twice {
			r.problem("header", name, "The name of a column is there twice.")
		}
		at[name] = i
		if !contains(known, name) {
			r.leave("column " + h + perhaps(name, known))
		}
	}
	for _, w := range wanted {
		if _, ok := at[w]; !ok {
			r.problem("header", w, "This column is missing.")
		}
	}
	return at
}

// perhaps names the known columns that share a word with one that is not known, so that a
// header is mended rather than its column lost: "born" is perhaps born_on.
func perhaps(name string, known []string) string {
	words := strings.FieldsFunc(name, func(c rune) bool { return !unicode.IsLetter(c) })
	var like []string
	for _, k := range known {
		if slices.ContainsFunc(strings.Split(k, "_"), func(w string) bool { return contains(words, w) }) {
			like = append(like, k)
		}
	}
	if len(like) == 0 {
		return ""
	}
	return ", perhaps " + strings.Join(like, " or ")
}

func contains(list []string, s string) bool {
	for _, x := range list {
		if x == s {
			return true
		}
	}
	return false
}

var clientColumns = []string{
	"id", "given_name", "family_name", "born_on", "height_cm", "dominant_hand", "work", "complaint", "phone", "email",
	"emergency_contact", "guardian",
}

// WriteClientsCSV gives the clients of an archive as a table.
func WriteClientsCSV(a Archive) ([]byte, error) {
	t := table{header: []string{
		"id", "given_name", "family_name", "born_on [YYYY-MM-DD]", "height_cm [cm]", "dominant_hand", "work",
		"complaint",
		"phone", "email", "emergency_contact", "guardian",
	}}
	for _, c := range a.Clients {
		t.add(
			string(c.ID),
			c.GivenName,
			c.FamilyName,
			c.BornOn,
			number(c.HeightCM),
			c.Hand,
			c.Work,
			c.Complaint,
			c.Phone,
			c.Email,
			c.Emergency,
			c.Guardian,
		)
	}
	return t.bytes()
}

func number(v *float64) string {
	if v == nil {
		return ""
	}
	return strconv.FormatFloat(*v, 'f', -1, 64)
}

// ReadClientsCSV reads clients; each gets an id of its own.
func ReadClientsCSV(ctx context.Context, raw []byte) (Archive, Report) {
	var a Archive
	var r Report
	read(ctx, raw, []string{"given_name", "family_name"}, clientColumns, &r, func(n int, of func(string) string) {
		c := ArchiveClient{
			ID: newID(), GivenName: of("given_name"), FamilyName: of("family_name"), BornOn: of("born_on"),
			Hand: of("dominant_hand"), Work: of("work"), Complaint: of("complaint"), Phone: of("phone"),
			Email: of("email"), Emergency: of("emergency_contact"), Guardian: of("guardian"), Revision: 1,
		}
		if s := of("height_cm"); s != "" {
			v, err := strconv.ParseFloat(strings.ReplaceAll(s, ",", "."), 64)
			if err != nil {
				r.add(Problem{n, "height_cm", s, "a number of cm"})
			}
			c.HeightCM = &v
		}
		if e := valid(c); e != nil {
			r.add(Problem{n, strings.TrimPrefix(e.Path, "$."), e.Given, e.Allowed})
			return
		}
		a.Clients = append(a.Clients, c)
		r.show("%s %s %s", c.GivenName, c.FamilyName, c.BornOn)
	})
	r.Clients = len(a.Clients)
	if r.Fine() && r.Clients == 0 {
		r.problem("file", "", "There is no row below the header.")
	}
	return a, r
}

// Reading is one row of a table of readings, of a client who is here already.
type Reading struct {
	Row                 int
	Client              string // id, or
	Given, Family, Born string
	Day                 time.Time
	Movement, Side      string // of a range; else the number of the pain
	Moment              string
	Value               float64
}

var readingColumns = []string{
	"client_id", "given_name", "family_name", "born_on", "date", "measure", "side", "moment", "value",
}

// ReadReadingsCSV reads ranges of motion (measure rom.<movement>, degrees) and
// pain numbers (measure nprs, 0–10) of clients by id, or by name and birth date.
func ReadReadingsCSV(ctx context.Context, raw []byte) ([]Reading, Report) {
	var out []Reading
	var r Report
	wanted := []string{"date", "measure", "value"}
	read(ctx, raw, wanted, readingColumns, &r, func(n int, of func(string) string) {
		x := Reading{
			Row: n, Client: of("client_id"), Given: of("given_name"), Family: of("family_name"), Born: of("born_on"),
			Side: of("side"), Moment: of("moment"),
		}
		bad := func(field, given, allowed string) { r.add(Problem{n, field, given, allowed}) }
		var err error
		if x.Day, err = time.Parse(time.DateOnly, of("date")); err != nil {
			bad("date", of("date"), "a day, YYYY-MM-DD")
		}
		if x.Value, err = strconv.ParseFloat(strings.ReplaceAll(of("value"), ",", "."), 64); err != nil {
			bad("value", of("value"), "a number")
		}
		if x.Client == "" && (x.Given == "" || x.Family == "") {
			bad("client_id", "", "an id, or given_name and family_name")
		}
		if x.Moment == "" {
			x.Moment = "before"
		}
		measure := of("measure")
		move, rom := strings.CutPrefix(measure, "rom.")
		switch {
		case rom:
			x.Movement = move
			if x.Side == "" {
				x.Side = "midline"
			}
			body := visit.RangeMeasured{}
			if e := readInto(map[string]any{
				"movement": move, "side": x.Side, "moment": x.Moment, "active_deg": x.Value,
			}, &body); e != nil {
				bad(strings.TrimPrefix(e.Path, "$."), e.Given, e.Allowed)
			}
		case measure == "nprs":
			if x.Value < 0 || x.Value > 10 || x.Value*2 != float64(int(x.Value*2)) {
				bad("value", of("value"), "0 to 10 in steps of 0.5")
			}
		default:
			bad("measure", measure, "nprs or rom.<movement>")
		}
		out = append(out, x)
		r.show("%s: %s %s %v", x.Day.Format(time.DateOnly), measure, x.Side, x.Value)
	})
	r.Readings = len(out)
	return out, r
}

// WriteTable gives one table of an archive's visits: visits, points, holds or
// ranges. states are the visits as they stand, by id.
func WriteTable(name string, a Archive, states map[visit.UUID]visit.State) ([]byte, error) {
	write, ok := tables[name]
	if !ok {
		return nil, fmt.Errorf("no table %q", name)
	}
	t := table{header: write.header}
	for _, v := range a.Visits {
		write.rows(&t, v, states[v.ID])
	}
	return t.bytes()
}

var tables = map[string]struct {
	header []string
	rows   func(*table, ArchiveVisit, visit.State)
}{
	"visits": {
		[]string{
			"visit_id",
			"client_id",
			"starts_at [RFC 3339]",
			"minutes [min]",
			"reason",
			"status",
			"closed",
			"signed_by",
		},
		func(t *table, v ArchiveVisit, s visit.State) {
			signed := ""
			if s.Signed != nil {
				signed = s.Signed.Name
			}
			t.add(string(v.ID), string(v.Client), v.StartsAt, strconv.Itoa(v.Minutes), v.Reason, v.Status,
				strconv.FormatBool(s.ClosedMS > 0), signed)
		},
	},
	"points": {
		[]string{
			"visit_id", "client_id", "point_id", "identity", "muscle", "side", "site", "taut_band",
			"tenderness [grade 0-4]", "nprs [0-10]", "nprs_after [0-10]", "ppt [kPa]", "familiar", "referral",
		},
		func(t *table, v ArchiveVisit, s visit.State) {
			for _, p := range s.Points {
				grade, ppt := "", ""
				if p.Grade != nil {
					grade = strconv.Itoa(*p.Grade)
				}
				if p.Threshold != nil {
					ppt = number(&p.Threshold.KPa)
				}
				var felt []string
				for _, f := range p.Referral {
					felt = append(felt, string(f))
				}
				t.add(
					string(v.ID),
					string(v.Client),
					string(p.Point),
					string(p.Identity),
					string(p.Muscle),
					string(p.Side),
					p.Site,
					p.Band,
					grade,
					number(p.NPRS),
					number(p.AfterNPRS),
					ppt,
					p.Familiar,
					strings.Join(felt, " "),
				)
			}
		},
	},
	"holds": {
		[]string{
			"visit_id", "client_id", "hold_id", "point_id", "started_at [RFC 3339]", "protocol", "contact", "position",
			"target [0-10]", "soft_ceiling [0-10]", "hard_ceiling [0-10]", "pressure [s]", "overrun [s]", "parts",
			"outcome",
			"status", "rules_version",
		},
		func(t *table, v ArchiveVisit, s visit.State) {
			for _, h := range s.Holds {
				x := h.Summary
				t.add(
					string(v.ID),
					string(v.Client),
					string(h.ID),
					string(h.Point),
					time.UnixMilli(h.StartedMS).UTC().Format(time.RFC3339),
					string(h.Start.Protocol),
					string(h.Contact),
					string(h.Position),
					number(&x.Limits.Target),
					number(&x.Limits.Soft),
					number(&x.Limits.Hard),
					number(
						&x.PressureS,
					),
					number(&x.OverrunS),
					strconv.Itoa(x.Count()),
					string(x.Outcome),
					string(h.Status),
					h.Start.Rules,
				)
			}
		},
	},
	"ranges": {
		[]string{
			"visit_id",
			"client_id",
			"movement",
			"side",
			"before [deg]",
			"after [deg]",
			"passive [deg]",
			"pain [0-10]",
			"tool",
		},
		func(t *table, v ArchiveVisit, s visit.State) {
			for _, x := range s.Ranges {
				t.add(
					string(v.ID),
					string(v.Client),
					string(x.Movement),
					string(x.Side),
					number(x.Before),
					number(x.After),
					number(x.Passive),
					number(x.BeforePain),
					x.Tool,
				)
			}
		},
	},
}
