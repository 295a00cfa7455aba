package exchange_test

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/exchange"
)

// Files of testdata/foreign were written by tools that are not ours: make.mjs and make.py there say
// by which.
func foreign(t *testing.T, name string) []byte {
	t.Helper()
	raw, err := os.ReadFile(filepath.Join("testdata", "foreign", name))
	require.NoError(t, err)
	return raw
}

var newYear = time.Date(2031, 1, 1, 0, 0, 0, 0, time.UTC)

func vienna(t *testing.T) exchange.Choices {
	t.Helper()
	zone, err := time.LoadLocation("Europe/Vienna")
	require.NoError(t, err)
	return exchange.Choices{Zone: zone, Space: "0190a000-0000-7000-8000-000000000001"}
}

func starts(list []exchange.Appointment) []string {
	var out []string
	for _, a := range list {
		out = append(out, a.Start.UTC().Format(time.RFC3339))
	}
	return out
}

func leftOf(r exchange.Report) map[string][]string {
	out := map[string][]string{}
	for _, l := range r.Left {
		out[l.What] = l.At
	}
	return out
}

// A zone that only the file knows is read as the file describes it, in winter, in summer and on the
// day between; whole days and what is too short are named with their place.
func TestAZoneOfTheFile(t *testing.T) {
	got, r := exchange.ReadCalendar(t.Context(), foreign(t, "zone-of-the-file.ics"), vienna(t), newYear)
	require.Empty(t, r.Problems)
	assert.Equal(t, []string{
		"2031-01-15T08:00:00Z", "2031-07-15T07:00:00Z", "2031-03-30T01:30:00Z", "2031-02-02T08:00:00Z",
	}, starts(got))
	assert.Equal(t, "Anna Maria Berg", got[0].Client)
	assert.Equal(t, map[string][]string{
		"event of a whole day":                            {"4, Closed"},
		"event of 0 minutes; an appointment has 5 to 480": {"6, Anna Maria Berg"},
	}, leftOf(r))
}

// A zone that nobody knows is a problem with its value and name; left out, the rest comes in.
func TestAZoneThatNobodyKnows(t *testing.T) {
	raw := foreign(t, "unknown-zone.ics")
	_, r := exchange.ReadCalendar(t.Context(), raw, vienna(t), newYear)
	require.Len(t, r.Problems, 1)
	assert.Equal(t, 1, r.Problems[0].Row)
	assert.Equal(t, "20310115T090000 in Somewhere Standard Time", r.Problems[0].Given)
	c := vienna(t)
	c.Leave = map[int]bool{1: true}
	got, r := exchange.ReadCalendar(t.Context(), raw, c, newYear)
	require.Empty(t, r.Problems)
	assert.Equal(t, []string{"2031-01-16T08:00:00Z"}, starts(got))
	assert.Equal(t, map[string][]string{"entry that you left out": {"1"}}, leftOf(r))
}

// What repeats is booked: without what was excepted, with what was moved, each with an id that the
// same file gives again.
func TestWhatRepeats(t *testing.T) {
	raw := foreign(t, "repeating.ics")
	got, r := exchange.ReadCalendar(t.Context(), raw, vienna(t), newYear)
	require.Empty(t, r.Problems)
	assert.Equal(t, []string{
		"2031-01-14T08:00:00Z", "2031-02-25T08:00:00Z", "2031-03-11T08:00:00Z", // not 28 January, 11 February
		"2031-01-29T10:00:00Z",
		"2031-01-02T07:00:00Z", "2031-02-06T07:00:00Z", "2031-03-06T07:00:00Z", "2031-04-03T06:00:00Z",
		"2031-05-01T06:00:00Z",
	}, starts(got))
	for _, a := range got[:4] {
		assert.Equal(t, got[0].Series, a.Series, "all of one series, the moved one too")
	}
	assert.Equal(t, map[string][]string{
		"repetition that is no series here, booked one by one": {"3, Anna Maria Berg"},
	}, leftOf(r))
	again, _ := exchange.ReadCalendar(t.Context(), raw, vienna(t), newYear)
	assert.Equal(t, got, again)
	later, r := exchange.ReadCalendar(t.Context(), raw, vienna(t), newYear.AddDate(0, 2, 0))
	assert.Equal(t, got[2].ID, later[0].ID, "known again after some have been")
	assert.Contains(t, leftOf(r), "what a series had before today")
	other := vienna(t)
	other.Space = "0190a000-0000-7000-8000-000000000002"
	elsewhere, _ := exchange.ReadCalendar(t.Context(), raw, other, newYear)
	assert.NotEqual(t, got[0].ID, elsewhere[0].ID, "another practice's are others")
}

// With a byte order mark, or in Latin-1, a calendar is read as well.
func TestCalendarsOfAnyCharset(t *testing.T) {
	for _, name := range []string{"generated.ics", "latin1.ics"} {
		got, r := exchange.ReadCalendar(t.Context(), foreign(t, name), vienna(t), newYear)
		require.Empty(t, r.Problems, name)
		require.Len(t, got, 1, name)
		assert.Equal(t, "Zimmer Süd", got[0].Room, name)
		assert.Contains(t, leftOf(r), "event of a whole day", name)
	}
}

// Cards of every version: names whole, telephones found, what is left out named with its card.
func TestCardsOfEveryVersion(t *testing.T) {
	for _, x := range []struct {
		file  string
		want  []string
		left  []string
		phone string
	}{
		{
			"card-2.1-quoted.vcf",
			[]string{"Jörg Ägidius Müller-Lüdenscheidt 1971-03-09", "Zoë Straße "},
			[]string{"second telephone 0512 998877"},
			"+43 660 1234567",
		},
		{"card-2.1-latin1.vcf", []string{"Käthe Groß "}, nil, "0660 1"},
		{
			"card-3.0.vcf",
			[]string{"Jörg Karl Müller 1971-03-09"},
			[]string{"second telephone 0512 998877", "title Dr.", "field NOTE", "field ORG"},
			"+43 660 1234567",
		},
		{
			"card-4.0.vcf",
			[]string{"Jörg Karl Müller 1971-03-09"},
			[]string{"second telephone 0512 998877", "title Dr.", "field NOTE", "field ORG"},
			"+43 660 1234567",
		},
		{"organisation.vcf", nil, []string{"card of an organisation or group: Hospital Ltd"}, ""},
	} {
		a, r := exchange.ReadVCards(t.Context(), foreign(t, x.file), vienna(t))
		require.Empty(t, r.Problems, x.file)
		assert.Equal(t, x.want, r.Shown, x.file)
		for _, l := range x.left {
			assert.Equal(t, []string{"1"}, leftOf(r)[l], "%s: %s, in %v", x.file, l, r.Left)
		}
		if x.phone != "" {
			assert.Equal(t, x.phone, a.Clients[0].Phone, x.file)
		}
	}
}

// A table of a spreadsheet: its own separators and charset, columns by hand, local days and numbers.
func TestTablesOfSpreadsheets(t *testing.T) {
	for _, name := range []string{"clients-excel.csv", "clients-tab-utf16.txt"} {
		c := vienna(t)
		_, r := exchange.ReadClientsCSV(t.Context(), foreign(t, name), c)
		require.Len(t, r.Problems, 2, name)
		assert.Equal(t, "header", r.Problems[0].Field, name)
		require.Len(t, r.Columns, 5, name)
		assert.Equal(t, exchange.Column{Name: "Größe"}, r.Columns[3], name)
		c.Columns = map[string]string{
			"Vorname": "given_name", "Nachname": "family_name", "geboren": "born_on", "Größe": "height_cm",
			"Telefon": "phone",
		}
		_, r = exchange.ReadClientsCSV(t.Context(), foreign(t, name), c)
		require.Len(t, r.Problems, 2, name)
		assert.Equal(t, "born_on", r.Problems[0].Field, "%s: how days are written is not guessed", name)
		c.Day = "dmy"
		a, r := exchange.ReadClientsCSV(t.Context(), foreign(t, name), c)
		require.Empty(t, r.Problems, name)
		require.Len(t, a.Clients, 2, name)
		assert.Equal(t, "1971-03-09", a.Clients[0].BornOn, name)
		assert.InDelta(t, 168.5, *a.Clients[0].HeightCM, 0, name)
		assert.Equal(t, "+43 660 1", a.Clients[0].Phone, name)
		assert.Equal(t, "1980-12-01", a.Clients[1].BornOn, name)
	}
}

// The same client twice in one file, and a number that is none, are problems of their row.
func TestATableNamesItsBadRows(t *testing.T) {
	table := "given_name,family_name,born_on,height_cm\nAda,Ro,1990-02-03,Inf\nBo,Li,,170\nbo,LI,,\n"
	_, r := exchange.ReadClientsCSV(t.Context(), []byte(table), exchange.Choices{})
	require.Len(t, r.Problems, 2)
	assert.Equal(t, exchange.Problem{Row: 2, Field: "height_cm", Given: "Inf", Text: "a number of cm"}, r.Problems[0])
	assert.Equal(t, 4, r.Problems[1].Row)
	assert.Contains(t, r.Problems[1].Text, "row 3")
	a, r := exchange.ReadClientsCSV(t.Context(), []byte(table), exchange.Choices{Leave: map[int]bool{2: true, 4: true}})
	require.Empty(t, r.Problems)
	assert.Len(t, a.Clients, 1)
}

// What goes out is read by a spreadsheet of any country, and comes back as it was.
func TestATableGoesOutAndIn(t *testing.T) {
	want := exchange.ArchiveClient{
		ID: "0190b000-0000-7000-8000-000000000001", GivenName: "a;=1+1", FamilyName: "'=x", Phone: "+43 660 1234567",
		Work: "=cmd|' /C calc'!A0", Revision: 1,
	}
	raw, err := exchange.WriteClientsCSV(exchange.Archive{Clients: []exchange.ArchiveClient{want}})
	require.NoError(t, err)
	assert.Contains(t, string(raw), "\ufeffid,")
	assert.Contains(t, string(raw), ",+43 660 1234567,", "a telephone stays one")
	assert.NotContains(t, string(raw), ";=1", "no formula for those who part cells by semicolons")
	a, r := exchange.ReadClientsCSV(t.Context(), raw, exchange.Choices{})
	require.Empty(t, r.Problems)
	got := a.Clients[0]
	got.ID = want.ID
	assert.Equal(t, want, got)
}

// A semicolon within a name comes back.
func TestACardWithASemicolonComesBack(t *testing.T) {
	want := exchange.ArchiveClient{
		ID: "0190b000-0000-7000-8000-000000000001", GivenName: "a;=1+1", FamilyName: `b\c, d`, Revision: 1,
	}
	raw, err := exchange.WriteVCards(exchange.Archive{Clients: []exchange.ArchiveClient{want}})
	require.NoError(t, err)
	a, r := exchange.ReadVCards(t.Context(), raw, exchange.Choices{})
	require.Empty(t, r.Problems)
	assert.Equal(t, want, a.Clients[0])
}
