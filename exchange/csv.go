package exchange

import (
	"bytes"
	"context"
	"encoding/csv"
	"fmt"
	"io"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"mokren/core/ids"
	"mokren/core/visit"
)

// MaxTableRows is what is read of a table.
const MaxTableRows = 20_000

// cell makes text harmless where a table is opened in a spreadsheet: what would
// be a formula begins with an apostrophe, behind spaces and in wide signs too, and behind what
// another spreadsheet takes for the end of a cell. Numbers and telephones stay what they are.
func cell(s string) string { return pieces(s, guarded) }

// uncell takes the apostrophes of cell off again.
func uncell(s string) string {
	return pieces(s, func(part string) string {
		if len(part) > 1 && part[0] == '\'' && guarded(part[1:]) == part {
			return part[1:]
		}
		return part
	})
}

// pieces changes each part of a cell that a table with other separators would make a cell of.
func pieces(s string, change func(string) string) string {
	var b strings.Builder
	from := 0
	for i := range len(s) {
		if s[i] == ';' || s[i] == '\t' && i > 0 {
			b.WriteString(change(s[from:i]))
			b.WriteByte(s[i])
			from = i + 1
		}
	}
	b.WriteString(change(s[from:]))
	return b.String()
}

// telephone is one with its country: no spreadsheet computes more with it than a number.
var telephone = regexp.MustCompile(`^\+[0-9][0-9 ()/.-]*$`)

func guarded(s string) string {
	first, _ := utf8.DecodeRuneInString(strings.TrimLeft(s, " "))
	if len(s) > 1 && s[0] == '\'' && guarded(s[1:]) != s[1:] {
		return "'" + s // so that taking one off gives what was there
	}
	if s == "" || !strings.ContainsRune("=+-@\t\r|＝＋－＠", first) || telephone.MatchString(s) {
		return s
	}
	if _, err := strconv.ParseFloat(s, 64); err == nil {
		return s
	}
	return "'" + s
}

// table is a CSV with a header, in UTF-8.
type table struct {
	header []string
	rows   [][]string
}

func (t *table) add(cells ...string) { t.rows = append(t.rows, cells) }

func (t *table) bytes() ([]byte, error) {
	// What a spreadsheet of any country needs to read the letters and lines (RFC 4180).
	b := bytes.NewBufferString("\ufeff")
	w := csv.NewWriter(b)
	w.UseCRLF = true
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

// read reads a table by the names of its columns, in any order, or by what they were said to be.
// Unknown columns are left out and named; wanted ones must be there. each gets a row and gives
// what is wrong with it.
func read(
	ctx context.Context, raw []byte, c Choices, wanted, known []string, r *Report, each func(n int,
		of func(string) string),
) {
	raw, ok := textOf(raw, false, r)
	if !ok {
		return
	}
	comma, skipped, raw := separator(raw)
	in := csv.NewReader(stoppable(ctx, raw))
	in.FieldsPerRecord, in.Comma = -1, comma
	header, err := in.Read()
	if err != nil {
		r.problem("file", "", "The file has no header.")
		return
	}
	if len(header) > maxColumns {
		r.problem("header", fmt.Sprint(len(header), " columns"), fmt.Sprintf("At most %d columns.", maxColumns))
		return
	}
	at := columns(header, c, wanted, known, r)
	if !r.Fine() {
		return
	}
	for n := 2 + skipped; ; n++ {
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
		if c.left(r, n) {
			continue
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

// separator is a comma, a semicolon or a tab, by which of them the header has most; a line that
// names it, as spreadsheets write it before the header, is taken off.
func separator(raw []byte) (comma rune, skipped int, rest []byte) {
	first, behind, _ := bytes.Cut(raw, []byte("\n"))
	line := strings.TrimRight(string(first), "\r")
	if named, ok := strings.CutPrefix(strings.ToLower(strings.Trim(line, `"`)), "sep="); ok && len(named) == 1 {
		return rune(named[0]), 1, behind
	}
	comma = ','
	for _, c := range ";\t" {
		if strings.Count(line, string(c)) > strings.Count(line, string(comma)) {
			comma = c
		}
	}
	return comma, 0, raw
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

func columns(header []string, c Choices, wanted, known []string, r *Report) map[string]int {
	at := map[string]int{}
	r.Fields = known
	for i, h := range header {
		h = strings.TrimSpace(uncell(h))
		name, _, _ := strings.Cut(strings.ToLower(h), " [") // units stand in brackets
		if said, ok := c.Columns[h]; ok {
			name = said
			if name != "" && !contains(known, name) {
				r.problem("columns", name, "One of "+strings.Join(known, ", ")+".")
			}
		}
		field := name
		if !contains(known, name) {
			field = ""
			r.leave("column "+h+perhaps(name, known), "")
		} else if _, twice := at[name]; twice {
			r.problem("header", name, "Two columns are taken for the same.")
		}
		r.Columns = append(r.Columns, Column{h, field})
		if field != "" {
			at[name] = i
		}
	}
	for _, w := range wanted {
		if _, ok := at[w]; !ok {
			r.problem("header", w, "No column is this. Name it so in the file, or say which column it is.")
		}
	}
	return at
}

// dayOf reads a day as it was said to be written, and as a standard day always.
func (c Choices) dayOf(s string) (time.Time, error) {
	if t, err := time.Parse(time.DateOnly, s); err == nil {
		return t, nil
	}
	var layouts []string
	switch c.Day {
	case "dmy":
		layouts = []string{"2.1.2006", "2/1/2006", "2-1-2006", "2. 1. 2006"}
	case "mdy":
		layouts = []string{"1/2/2006", "1-2-2006", "1.2.2006"}
	default:
		layouts = []string{"2006/1/2", "2006-1-2", "2006.1.2", "2006. 1. 2."}
	}
	for _, l := range layouts {
		if t, err := time.Parse(l, s); err == nil {
			return t, nil
		}
	}
	return time.Time{}, fmt.Errorf("not a day: %q", s)
}

// dayWanted says how a day is to be written.
func (c Choices) dayWanted() string {
	switch c.Day {
	case "dmy":
		return "a day, as 31.12.2026, 31/12/2026 or YYYY-MM-DD"
	case "mdy":
		return "a day, as 12/31/2026 or YYYY-MM-DD"
	}
	return "a day, YYYY-MM-DD; choose how days are written"
}

// finite reads a number with a point or a decimal comma.
func finite(s string) (float64, bool) {
	v, err := strconv.ParseFloat(strings.ReplaceAll(s, ",", "."), 64)
	return v, err == nil && !math.IsInf(v, 0) && !math.IsNaN(v)
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

// unitOf is degrees, but for the jaw, whose opening is a distance.
func unitOf(m ids.Movement) string {
	if m == "jaw.opening" {
		return "mm"
	}
	return "deg"
}

func number(v *float64) string {
	if v == nil {
		return ""
	}
	return strconv.FormatFloat(*v, 'f', -1, 64)
}

// ReadClientsCSV reads clients; each gets an id of its own.
func ReadClientsCSV(ctx context.Context, raw []byte, ch Choices) (Archive, Report) {
	var a Archive
	var r Report
	before := map[string]int{}
	read(ctx, raw, ch, []string{"given_name", "family_name"}, clientColumns, &r, func(n int, of func(string) string) {
		c := ArchiveClient{
			ID: newID(), GivenName: of("given_name"), FamilyName: of("family_name"), BornOn: of("born_on"),
			Hand: of("dominant_hand"), Work: of("work"), Complaint: of("complaint"), Phone: of("phone"),
			Email: of("email"), Emergency: of("emergency_contact"), Guardian: of("guardian"), Revision: 1,
		}
		bad := len(r.Problems)
		if c.BornOn != "" {
			day, err := ch.dayOf(c.BornOn)
			if err != nil {
				r.add(Problem{n, "born_on", c.BornOn, ch.dayWanted()})
			}
			c.BornOn = day.Format(time.DateOnly)
		}
		if s := of("height_cm"); s != "" {
			v, ok := finite(s)
			if !ok {
				r.add(Problem{n, "height_cm", s, "a number of cm"})
			}
			c.HeightCM = &v
		}
		if len(r.Problems) > bad {
			return
		}
		if e := valid(c); e != nil {
			r.add(Problem{n, strings.TrimPrefix(e.Path, "$."), e.Given, e.Allowed})
			return
		}
		if at, twice := before[same(c)]; twice {
			r.add(Problem{
				n, "given_name", c.GivenName + " " + c.FamilyName, fmt.Sprintf("The same client as in row %d.", at),
			})
			return
		}
		before[same(c)] = n
		a.Clients, r.rows = append(a.Clients, c), append(r.rows, n)
		r.show("%s %s %s", c.GivenName, c.FamilyName, c.BornOn)
	})
	r.Clients = len(a.Clients)
	if r.Fine() && r.Clients == 0 {
		r.problem("file", "", "There is no row below the header.")
	}
	return a, r
}

// same is equal for two entries of one person.
func same(c ArchiveClient) string {
	return strings.ToLower(c.GivenName + "\n" + c.FamilyName + "\n" + c.BornOn)
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
func ReadReadingsCSV(ctx context.Context, raw []byte, ch Choices) ([]Reading, Report) {
	var out []Reading
	var r Report
	wanted := []string{"date", "measure", "value"}
	read(ctx, raw, ch, wanted, readingColumns, &r, func(n int, of func(string) string) {
		x := Reading{
			Row: n, Client: of("client_id"), Given: of("given_name"), Family: of("family_name"), Born: of("born_on"),
			Side: of("side"), Moment: of("moment"),
		}
		bad := func(field, given, allowed string) { r.add(Problem{n, field, given, allowed}) }
		var err error
		before := len(r.Problems)
		if x.Day, err = ch.dayOf(of("date")); err != nil {
			bad("date", of("date"), ch.dayWanted())
		}
		var ok bool
		if x.Value, ok = finite(of("value")); !ok {
			bad("value", of("value"), "a number")
		}
		if x.Born != "" {
			day, err := ch.dayOf(x.Born)
			if err != nil {
				bad("born_on", x.Born, ch.dayWanted())
			}
			x.Born = day.Format(time.DateOnly)
		}
		if len(r.Problems) > before {
			return
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
			"before",
			"after",
			"passive",
			"unit [UCUM, of before, after and passive]",
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
					unitOf(x.Movement),
					number(x.BeforePain),
					x.Tool,
				)
			}
		},
	},
}
