package api_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"net/http"
	"os"
	"runtime"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/demo"
	"mokren/exchange"
	"mokren/store"
)

// elsewhere is an empty practice on the same server, with a caller signed in as
// its owner.
func (c *caller) elsewhere(st *store.Store) *caller {
	c.t.Helper()
	who := store.Principal{Practice: uuid.New(), Person: uuid.New(), Role: "owner"}
	login := demo.Login{Email: uuid.NewString() + "@elsewhere.example", Password: "quiet-hands-7"}
	require.NoError(c.t, st.As(c.t.Context(), who, store.Action{Verb: "test", Kind: "test"}, func(tx *store.Tx) error {
		if err := tx.NewPractice(c.t.Context(), "Elsewhere", "Europe/Vienna"); err != nil {
			return err
		}
		return tx.NewPerson(c.t.Context(), who.Person, "Otta Vries", "owner", login.Email, login.Password)
	}))
	other := c.again()
	other.signIn(login)
	return other
}

func (c *caller) file(path string) []byte {
	c.t.Helper()
	res := c.call("GET", path, nil, nil)
	require.Equal(c.t, 200, res.StatusCode, path)
	raw, err := io.ReadAll(res.Body)
	require.NoError(c.t, err)
	return raw
}

func (c *caller) takeIn(kind, file string, raw []byte, take bool) api.Preview {
	c.t.Helper()
	var p api.Preview
	path := fmt.Sprintf("/api/imports?kind=%s&file=%s", kind, file)
	if take {
		path += "&take=true"
	}
	res := c.call("POST", path, string(raw), &p)
	require.Equal(c.t, 200, res.StatusCode, "%+v", p)
	return p
}

type clientList struct {
	Items []api.Client `json:"items"`
}

// Every client of the demo: out, into an empty practice, out again: the same
// bytes. Looking at a file stores nothing; an undone import leaves nothing.
func TestEveryClientGoesOutAndInAndOutAgain(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	other := c.elsewhere(st)
	var all, none clientList
	c.call("GET", "/api/clients", nil, &all)
	require.Greater(t, len(all.Items), 10)
	var first api.Preview
	for i, of := range all.Items {
		raw := c.file("/api/clients/" + of.ID + "/export/archive")
		looked := other.takeIn("archive", "x.json", raw, false)
		require.Empty(t, looked.Problems)
		assert.Empty(t, looked.Import)
		other.call("GET", "/api/clients/"+of.ID, nil, nil)
		taken := other.takeIn("archive", "x.json", raw, true)
		require.Empty(t, taken.Problems)
		require.NotEmpty(t, taken.Import)
		assert.Zero(t, taken.Counts.Aside, "every event stands as it stood")
		again := other.file("/api/clients/" + of.ID + "/export/archive")
		require.Equal(t, string(raw), string(again), "%s %s", of.GivenName, of.FamilyName)
		if i == 0 {
			first = taken
		}
	}
	twice := other.takeIn("archive", "x.json", c.file("/api/clients/"+all.Items[0].ID+"/export/archive"), true)
	require.NotEmpty(t, twice.Problems, "an import adds, it never writes over")
	assert.Contains(t, twice.Problems[0].Text, "here already")

	require.Equal(t, 204, other.call("POST", "/api/imports/"+first.Import+"/undo", nil, nil).StatusCode)
	assert.Equal(t, 404, other.call("GET", "/api/clients/"+all.Items[0].ID, nil, nil).StatusCode)
	other.call("GET", "/api/clients", nil, &none)
	assert.Len(t, none.Items, len(all.Items)-1)
	whole := c.file("/api/practice/export/archive")
	assert.Equal(t, string(whole), string(c.file("/api/practice/export/archive")))
}

// What somebody has worked on stays when its import is undone.
func TestAnImportThatWasWorkedOnStays(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	other := c.elsewhere(st)
	csv := "given_name,family_name,born_on\nWren,Alder,1990-02-03\n"
	taken := other.takeIn("clients-csv", "a.csv", []byte(csv), true)
	require.Empty(t, taken.Problems)
	var got clientList
	other.call("GET", "/api/clients", nil, &got)
	require.Len(t, got.Items, 1)
	changed := got.Items[0]
	changed.Work = "Weaver"
	require.Equal(t, 200, other.call("PUT", "/api/clients/"+changed.ID, map[string]any{
		"id": changed.ID, "given_name": "Wren", "family_name": "Alder", "born_on": "1990-02-03", "work": "Weaver",
		"revision": changed.Revision,
	}, nil).StatusCode)
	assert.Equal(t, 409, other.call("POST", "/api/imports/"+taken.Import+"/undo", nil, nil).StatusCode)
	var list struct {
		Items []api.ImportOut `json:"items"`
	}
	other.call("GET", "/api/imports", nil, &list)
	require.Len(t, list.Items, 1)
	assert.False(t, list.Items[0].Undone)
	assert.Equal(t, 1, list.Items[0].Counts.Clients)
}

// FHIR out and in: what is understood is equal, the rest is listed.
func TestFHIROutAndIn(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	other := c.elsewhere(st)
	var all clientList
	c.call("GET", "/api/clients", nil, &all)
	compared := 0
	for _, of := range all.Items {
		raw := c.file("/api/clients/" + of.ID + "/export/fhir")
		taken := other.takeIn("fhir", "b.json", raw, true)
		require.Empty(t, taken.Problems)
		var was, is api.Course
		c.call("GET", "/api/clients/"+of.ID+"?all=true", nil, &was)
		other.call("GET", "/api/clients/"+of.ID+"?all=true", nil, &is)
		assert.Equal(t, was.Client.GivenName+was.Client.FamilyName+was.Client.BornOn+was.Client.Phone+was.Client.Email,
			is.Client.GivenName+is.Client.FamilyName+is.Client.BornOn+is.Client.Phone+is.Client.Email)
		assert.Equal(t, was.Client.HeightCM, is.Client.HeightCM)
		require.Equal(t, len(was.Visits), len(is.Visits))
		for i := range was.Visits {
			assert.Equal(t, was.Visits[i].ID, is.Visits[i].ID)
			assert.Equal(t, was.Visits[i].StartsAt, is.Visits[i].StartsAt)
			assert.Equal(t, was.Visits[i].Minutes, is.Visits[i].Minutes)
		}
		read := readingsOf(is)
		for _, v := range was.Visits {
			if v.OpenedAt == nil {
				// Taken in, a visit with readings counts as opened; here it was not yet.
				maps.DeleteFunc(read, func(k string, _ float64) bool { return strings.HasPrefix(k, v.ID) })
			}
		}
		assert.Equal(t, readingsOf(was), read)
		compared += len(read)
		if len(was.History.Points) > 0 {
			assert.NotEmpty(t, taken.Left, "points and holds are listed")
		}
	}
	assert.Greater(t, compared, 100)
}

func readingsOf(c api.Course) map[string]float64 {
	out := map[string]float64{}
	for _, r := range c.History.Ranges {
		for _, v := range r.Visits {
			if v.Before != nil {
				out[fmt.Sprint(v.Visit, r.Movement, r.Side, "before")] = *v.Before
			}
			if v.After != nil {
				out[fmt.Sprint(v.Visit, r.Movement, r.Side, "after")] = *v.After
			}
		}
	}
	for _, s := range c.History.Scores {
		if s.Measure == "nprs" {
			for _, v := range s.Visits {
				out[v.Visit+"now"] = v.Value
			}
		}
	}
	return out
}

// A damaged or hostile file of each kind is refused with its reason, in bounded
// memory, and nothing of it is stored.
func TestHostileFilesAreRefused(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	other := c.elsewhere(st)
	var all clientList
	c.call("GET", "/api/clients", nil, &all)
	archive := c.file("/api/clients/" + all.Items[0].ID + "/export/archive")
	fhir := c.file("/api/clients/" + all.Items[0].ID + "/export/fhir")
	card := c.file("/api/clients/" + all.Items[0].ID + "/export/vcard")
	calendar := string(exchange.WriteCalendar("x", []exchange.Appointment{{
		ID: "a", Minutes: 60, Start: time.Now(), Client: "No One",
	}}))
	png := []byte("\x89PNG\r\n\x1a\n\x00\x00\x00\rIHDR")
	deep := []byte(strings.Repeat("[", 200_000))
	bomb := []byte(`<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><x>&b;</x>`)
	forged := bytes.Replace(archive, []byte(`"version":1,"people"`), []byte(`"version":1,"admin":true,"people"`), 1)
	foreign := bytes.ReplaceAll(archive, []byte(`"clients":[{"id":"`+all.Items[0].ID), []byte(`"clients":[{"id":"`+
		uuid.NewString()))
	for _, x := range []struct {
		kind, name string
		raw        []byte
		says       string
	}{
		{"archive", "cut off", archive[:len(archive)/2], "$"},
		{"archive", "a picture", png, "$"},
		{"archive", "deep", deep, "$"},
		{"archive", "entities", bomb, "$"},
		{"archive", "unknown field", forged, "$.admin"},
		{"archive", "of another client", foreign, "client"},
		{"archive", "another format", []byte(`{"format":"x","version":1,"people":[],"clients":[],"visits":[],"photos":[]}`), "$.format"},
		{"fhir", "cut off", fhir[:len(fhir)/2], "resourceType"},
		{"fhir", "a picture", png, "file"},
		{"fhir", "entities", bomb, "resourceType"},
		{"fhir", "not a bundle", []byte(`{"resourceType":"Patient"}`), "resourceType"},
		{"fhir", "nobody's", []byte(`{"resourceType":"Bundle","type":"collection","entry":[{"resource":{"resourceType":
			"Encounter","status":"finished","class":{},"subject":{"reference":"Patient/x"}}}]}`), "subject"},
		{"clients-csv", "a picture", png, "file"},
		{"clients-csv", "no names", []byte("phone\n1\n"), "header"},
		{"clients-csv", "a day that is none", []byte("given_name,family_name,born_on\nA,B,1990-02-31\n"), "born_on"},
		{"clients-csv", "an open quote", []byte("given_name,family_name\n\"A,B\n"), "row"},
		{"clients-csv", "nobody", []byte("given_name,family_name\n"), "file"},
		{
			"readings-csv", "nobody's", []byte("given_name,family_name,date,measure,value\nA,B,2026-01-02,nprs,4\n"),
			"client_id",
		},
		{
			"readings-csv", "no such movement",
			[]byte("client_id,date,measure,side,value\nx,2026-01-02,rom.ear.flexion,left,4\n"), "movement",
		},
		{"readings-csv", "too much", []byte("client_id,date,measure,value\nx,2026-01-02,nprs,11\n"), "value"},
		{"vcard", "a picture", png, "file"},
		{"vcard", "cut off", card[:len(card)-12], "card"},
		{"icalendar", "a picture", png, "file"},
		{"icalendar", "cut off", []byte(calendar[:len(calendar)-30]), "file"},
	} {
		p := other.takeIn(x.kind, "../../etc/passwd", x.raw, true)
		if assert.NotEmpty(t, p.Problems, "%s, %s", x.kind, x.name) {
			assert.Contains(t, p.Problems[0].Field, x.says, "%s, %s: %+v", x.kind, x.name, p.Problems[0])
		}
		assert.Empty(t, p.Import)
	}
	nobody := other.takeIn("icalendar", "x.ics", []byte(calendar), true)
	assert.Empty(t, nobody.Problems)
	assert.Contains(t, nobody.Left[0].What, "No One", "an event of nobody here is named and left out")
	assert.Empty(t, nobody.Import, "what brings nothing is no import")
	var none clientList
	other.call("GET", "/api/clients", nil, &none)
	assert.Empty(t, none.Items)
}

// endless reads as so many bytes without holding them.
type endless struct{ left int }

func (e *endless) Read(p []byte) (int, error) {
	if e.left <= 0 {
		return 0, io.EOF
	}
	n := min(len(p), e.left)
	for i := range p[:n] {
		p[i] = '['
	}
	e.left -= n
	return n, nil
}

func TestAnEndlessFileIsRefusedInBoundedMemory(t *testing.T) {
	c, _ := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	runtime.GC()
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	req, err := http.NewRequest("POST", c.base+"/api/imports?kind=archive", &endless{200 << 20})
	require.NoError(t, err)
	res, err := c.http.Do(req)
	if err == nil {
		defer res.Body.Close()
		assert.Equal(t, 413, res.StatusCode)
	} else {
		assert.Contains(t, err.Error(), "connection", "the server hangs up on what it will not read")
	}
	runtime.ReadMemStats(&after)
	assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(400<<20))
}

// A claim in an archive gets round no rule: a hold that the law would not have let
// stands aside here, with the reason.
func TestAnArchiveGetsRoundNoRule(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	other := c.elsewhere(st)
	var all clientList
	c.call("GET", "/api/clients", nil, &all)
	for _, of := range all.Items {
		var a exchange.Archive
		require.NoError(t, json.Unmarshal(c.file("/api/clients/"+of.ID+"/export/archive"), &a))
		consents := 0
		for i := range a.Visits {
			for k, e := range a.Visits[i].Events {
				if e.Type == "consent-recorded" {
					// The consent is taken out of the archive; the hold still claims to stand.
					a.Visits[i].Events[k].Type = "next-noted"
					a.Visits[i].Events[k].Body = json.RawMessage(`{"text":"x"}`)
					consents++
				}
			}
		}
		holds := strings.Count(string(must(exchange.WriteArchive(a))), `"type":"hold-started"`)
		if consents == 0 || holds == 0 {
			continue
		}
		p := other.takeIn("archive", "x.json", must(exchange.WriteArchive(a)), true)
		require.Empty(t, p.Problems)
		assert.GreaterOrEqual(t, p.Counts.Aside, holds, "no hold stands without consent")
		return
	}
	t.Fatal("no client of the demo has a hold")
}

func must(raw []byte, err error) []byte {
	if err != nil {
		panic(err)
	}
	return raw
}

// A table of readings becomes visits of their days; formulas are text, both ways.
func TestTablesInAndOut(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	other := c.elsewhere(st)
	people := "given_name;family_name;born_on;work\n=cmd|'/c calc';Alder;1990-02-03;@sum\n"
	require.Empty(t, other.takeIn("clients-csv", "a.csv", []byte(people), true).Problems)
	out := string(other.file("/api/practice/export/clients-csv"))
	assert.Contains(t, out, "'=cmd|'/c calc'")
	assert.Contains(t, out, "'@sum")
	var got clientList
	other.call("GET", "/api/clients", nil, &got)
	require.Len(t, got.Items, 1)
	assert.Equal(t, "=cmd|'/c calc'", got.Items[0].GivenName)
	id := got.Items[0].ID
	readings := "client_id,date,measure,side,moment,value\n" +
		id + ",2026-01-05,rom.cervical.rotation,left,before,55\n" +
		id + ",2026-01-05,rom.cervical.rotation,left,after,63\n" +
		id + ",2026-01-12,nprs,,,4.5\n"
	p := other.takeIn("readings-csv", "r.csv", []byte(readings), true)
	require.Empty(t, p.Problems)
	assert.Equal(t, 2, p.Counts.Visits)
	var course api.Course
	other.call("GET", "/api/clients/"+id, nil, &course)
	require.Len(t, course.History.Ranges, 1)
	assert.InDelta(t, 63, *course.History.Ranges[0].Visits[0].After, 0)
	require.Len(t, course.History.Scores, 1)
	assert.InDelta(t, 4.5, course.History.Scores[0].Visits[0].Value, 0)
	assert.Equal(t, "2026-01-12", course.History.Scores[0].Visits[0].Date)
}

// The same file twice adds nothing, of each kind, and says so; what is bad in one is left out by
// its number, and the rest comes in.
func TestTheSameFileTwiceAddsNothing(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	other := c.elsewhere(st)
	csv := "given_name,family_name,born_on\nAnna Maria,Berg,1990-02-03\nBo,,\n"
	assert.Len(t, other.takeIn("clients-csv", "a.csv", []byte(csv), true).Problems, 1)
	first := other.takeIn("clients-csv", "a.csv&leave=3", []byte(csv), true)
	require.Empty(t, first.Problems)
	assert.Equal(t, 1, first.Counts.Clients)
	foreign := func(name string) []byte {
		raw, err := os.ReadFile("../exchange/testdata/foreign/" + name)
		require.NoError(t, err)
		return raw
	}
	patient := `{"resourceType":"Bundle","type":"collection","entry":[
		{"resource":{"resourceType":"Patient","id":"7","name":[{"family":"Moor","given":["Ira"]}]}},
		{"resource":{"resourceType":"Encounter","id":"9","status":"finished","class":{"code":"AMB"},
			"subject":{"reference":"Patient/7"},"period":{"start":"2026-01-05T09:00:00Z"}}}]}`
	reading := "given_name,family_name,date,measure,value\nAnna Maria,Berg,2026-01-02,nprs,4\n"
	for _, x := range []struct {
		kind, name string
		raw        []byte
	}{
		{"clients-csv", "a.csv&leave=3", []byte(csv)},
		{"vcard", "a.vcf", foreign("card-4.0.vcf")},
		{"vcard", "b.vcf", foreign("card-2.1-latin1.vcf")},
		{"icalendar", "a.ics", foreign("zone-of-the-file.ics")},
		{"icalendar", "b.ics", foreign("latin1.ics")},
		{"fhir", "a.json", []byte(patient)},
		{"readings-csv", "r.csv", []byte(reading)},
	} {
		once := other.takeIn(x.kind, x.name, x.raw, true)
		require.Empty(t, once.Problems, x.name)
		assert.Equal(t, x.kind != "clients-csv", once.Import != "", "%s: %+v", x.name, once)
		twice := other.takeIn(x.kind, x.name, x.raw, true)
		require.Empty(t, twice.Problems, x.name)
		assert.Empty(t, twice.Import, x.name)
		assert.Zero(t, twice.Clients+twice.Visits, x.name)
		assert.Contains(t, fmt.Sprint(twice.Left), "here already", x.name)
	}
}

// An appointment whose event was moved since is shown as moved, with both times, and stays where the
// diary has it.
func TestAMovedAppointmentIsShownAsMoved(t *testing.T) {
	c, st := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	other := c.elsewhere(st)
	other.takeIn("clients-csv", "a.csv", []byte("given_name,family_name\nAnna Maria,Berg\n"), true)
	event := func(start string, sequence int) []byte {
		return fmt.Appendf(nil, "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:a1\r\n"+
			"DTSTAMP:20310101T000000Z\r\nDTSTART:%s\r\nDURATION:PT1H\r\nSEQUENCE:%d\r\nSUMMARY:Berg, Anna Maria\r\n"+
			"END:VEVENT\r\nEND:VCALENDAR\r\n", start, sequence)
	}
	require.NotEmpty(t, other.takeIn("icalendar", "a.ics", event("20310115T080000Z", 0), true).Import)
	moved := other.takeIn("icalendar", "a.ics", event("20310116T100000Z", 1), true)
	require.Empty(t, moved.Problems)
	assert.Empty(t, moved.Import)
	require.Len(t, moved.Left, 1)
	assert.Contains(t, moved.Left[0].What, "moved, from 15 January 2031, 09:00 to 16 January 2031, 11:00")
}

// A client's whole record is one zip, with an index that names every file in it.
func TestAClientsWholeRecord(t *testing.T) {
	c, _ := newCallerWithStore(t, api.Options{})
	c.signIn(demo.Logins[0])
	var all clientList
	c.call("GET", "/api/clients", nil, &all)
	raw := c.file("/api/clients/" + all.Items[0].ID + "/export/everything")
	z, err := zip.NewReader(bytes.NewReader(raw), int64(len(raw)))
	require.NoError(t, err)
	in := map[string]string{}
	for _, f := range z.File {
		r, err := f.Open()
		require.NoError(t, err)
		b, err := io.ReadAll(r)
		require.NoError(t, err)
		in[f.Name] = string(b)
	}
	for _, name := range []string{
		"record.fhir.json", "record.json", "points.csv", "progress.pdf", "contact.vcf",
		"body.svg",
	} {
		assert.NotEmpty(t, in[name], name)
	}
	notes := 0
	for name := range in {
		if name != "INDEX.txt" {
			assert.Contains(t, in["INDEX.txt"], name, "every file is explained")
		}
		if strings.HasSuffix(name, "-note.pdf") {
			notes++
			assert.True(t, strings.HasPrefix(in[name], "%PDF"))
		}
	}
	assert.Positive(t, notes)
	assert.Equal(t, in["record.json"], string(c.file("/api/clients/"+all.Items[0].ID+"/export/archive")))
}
