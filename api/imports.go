package api

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/visit"
	"mokren/exchange"
	"mokren/exchange/fhirr4"
	"mokren/store"
)

// Preview is what a file comes to; taken in when it says so.
type Preview struct {
	exchange.Report
	// Import is the import's id once it was taken in.
	Import string             `json:"import,omitempty" format:"uuid"`
	Counts store.ImportCounts `json:"counts"`
}

// ImportOut is one import of the list.
type ImportOut struct {
	ID     string             `json:"id" format:"uuid"`
	At     string             `json:"at" format:"date-time"`
	By     string             `json:"by"`
	Kind   string             `json:"kind"`
	File   string             `json:"file"`
	Counts store.ImportCounts `json:"counts"`
	Undone bool               `json:"undone"`
}

func (s *server) registerImports(a huma.API) {
	in := op("import", http.MethodPost, "/api/imports",
		"Look at a file, or take it in: all of it or nothing", 401, 403, 409, 410, 413, 422)
	in.MaxBodyBytes, in.SkipValidateBody = exchange.MaxArchiveBytes, true
	in.Middlewares = huma.Middlewares{s.onePhoto(a)}
	in.RequestBody = &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{
		"application/octet-stream": {Schema: &huma.Schema{Type: "string", Format: "binary"}},
	}}
	huma.Register(a, in, s.takeIn)
	huma.Register(a, op("imports", http.MethodGet, "/api/imports", "What was taken in, the latest first", 401, 403),
		s.imports)
	huma.Register(a, silent(op("undo-import", http.MethodPost, "/api/imports/{id}/undo",
		"Take out again what an import brought, while nobody has worked on it", 401, 403, 404, 409)), s.undoImport)
}

// errJustLooking rolls a preview back.
var errJustLooking = errors.New("just looking")

type importIn struct {
	Kind    string   `query:"kind" required:"true" enum:"archive,fhir,clients-csv,readings-csv,vcard,icalendar"`
	File    string   `query:"file" maxLength:"200" doc:"its name, for the list"`
	Take    bool     `query:"take" doc:"without it, it is only looked at"`
	Leave   []int    `query:"leave" maxItems:"5000" doc:"rows or entries that stay out, by their number"`
	Columns []string `query:"column,explode" maxItems:"500" doc:"of a table: NAME=FIELD says what a column is, NAME= leaves it out"`
	Day     string   `query:"day" enum:"ymd,dmy,mdy" default:"ymd" doc:"of a table: how days are written; YYYY-MM-DD is always read"`
	RawBody []byte
}

// choices are what was said of the file; a time without a zone is the practice's.
func (in *importIn) choices(tx *store.Tx, zone *time.Location) exchange.Choices {
	c := exchange.Choices{
		Leave: map[int]bool{}, Columns: map[string]string{}, Day: in.Day, Zone: zone,
		Space: visit.UUID(tx.Who().Practice.String()),
	}
	for _, n := range in.Leave {
		c.Leave[n] = true
	}
	for _, said := range in.Columns {
		i := strings.LastIndex(said, "=")
		c.Columns[said[:max(0, i)]] = said[i+1:]
	}
	return c
}

func (s *server) takeIn(ctx context.Context, in *importIn) (*oneOut[Preview], error) {
	verb := "preview"
	if in.Take {
		verb = "import"
	}
	// A path in a name says nothing here, and is kept nowhere.
	name := in.File[strings.LastIndexAny(in.File, `/\`)+1:]
	what := action(verb, "file", in.Kind)
	var out Preview
	_, err := signed(ctx, s, what, func(tx *store.Tx) (struct{}, error) {
		var archive exchange.Archive
		var err error
		if archive, out.Report, err = s.understand(ctx, tx, in); err != nil {
			return struct{}{}, err
		}
		if !out.Fine() || in.Kind != "archive" && len(archive.Clients)+len(archive.Visits) == 0 {
			return struct{}{}, errJustLooking
		}
		sum := sha256.Sum256(in.RawBody)
		id, counts, err := tx.Import(ctx, store.Incoming{
			Kind: in.Kind, File: name, SHA256: sum[:], Archive: archive, Now: s.now(),
		})
		if errors.Is(err, store.ErrThere) || errors.Is(err, store.ErrUnfit) {
			out.Problems = append(out.Problems, exchange.Problem{Field: "file", Text: sentence(err)})
			return struct{}{}, errJustLooking
		}
		if err != nil {
			return struct{}{}, err
		}
		out.Counts = counts
		if !in.Take {
			return struct{}{}, errJustLooking
		}
		out.Import = id.String()
		return struct{}{}, nil
	})
	if err != nil && !errors.Is(err, errJustLooking) {
		return nil, err
	}
	out.fill()
	if err == nil {
		return &oneOut[Preview]{out}, nil
	}
	// Looking at a file leaves a trace too, though nothing was stored.
	what.Verb = "preview"
	_, err = signed(ctx, s, what, func(*store.Tx) (struct{}, error) { return struct{}{}, nil })
	return &oneOut[Preview]{out}, err
}

func sentence(err error) string {
	s := err.Error()
	return strings.ToUpper(s[:1]) + s[1:] + "."
}

// fill lets lists be lists.
func (p *Preview) fill() {
	p.Problems = append([]exchange.Problem{}, p.Problems...)
	p.Left = append([]exchange.OmittedCount{}, p.Left...)
	p.Shown = append([]string{}, p.Shown...)
}

// understand reads a file by its kind. What is here already is named and left out, so that a file
// that comes twice adds nothing.
func (s *server) understand(
	ctx context.Context, tx *store.Tx, in *importIn,
) (a exchange.Archive, r exchange.Report, err error) {
	zone, err := zoneOf(ctx, tx)
	if err != nil {
		return a, r, err
	}
	me, said, raw := visit.UUID(tx.Who().Person.String()), in.choices(tx, zone), in.RawBody
	switch in.Kind {
	case "archive":
		a, r = exchange.ReadArchive(raw)
		return a, r, ctx.Err()
	case "fhir":
		a, r = fhirr4.Read(raw, me, said)
	case "clients-csv":
		a, r = exchange.ReadClientsCSV(ctx, raw, said)
	case "vcard":
		a, r = exchange.ReadVCards(ctx, raw, said)
	case "readings-csv":
		return s.readings(ctx, tx, raw, me, said)
	case "icalendar":
		return s.appointments(ctx, tx, raw, me, said)
	}
	if err = ctx.Err(); err != nil {
		return a, r, err // nobody waits for it any more
	}
	if err = notHere(ctx, tx, &a, &r); err == nil && in.Kind != "fhir" {
		err = namesakes(ctx, tx, &a, &r)
	}
	r.Clients, r.Visits = len(a.Clients), len(a.Visits)
	return a, r, err
}

// notHere leaves out, and names, clients and visits whose ids are here.
func notHere(ctx context.Context, tx *store.Tx, a *exchange.Archive, r *exchange.Report) error {
	var of []visit.UUID
	for _, c := range a.Clients {
		of = append(of, c.ID)
	}
	for _, v := range a.Visits {
		of = append(of, v.ID)
	}
	here, err := tx.Here(ctx, of)
	if err != nil {
		return err
	}
	leaveClients(a, r, func(c exchange.ArchiveClient) string {
		if _, there := here[c.ID]; there {
			return "client who is here already"
		}
		return ""
	})
	a.Visits = slices.DeleteFunc(a.Visits, func(v exchange.ArchiveVisit) bool {
		_, there := here[v.ID]
		if there {
			r.Leave("visit that is here already", 0)
		}
		return there
	})
	return nil
}

// leaveClients leaves those out of whom something is to be said.
func leaveClients(a *exchange.Archive, r *exchange.Report, why func(exchange.ArchiveClient) string) {
	var kept []exchange.ArchiveClient
	var rows []int
	for i, c := range a.Clients {
		if words := why(c); words != "" {
			r.Leave(words+": "+c.GivenName+" "+c.FamilyName, r.RowOf(i))
			continue
		}
		kept, rows = append(kept, c), append(rows, r.RowOf(i))
	}
	a.Clients = kept
	r.Restand(rows)
}

// namesakes leaves out clients of a name and birth date that are here. Where one of both has no
// birth date, nobody can tell whether they are one: that is a problem.
func namesakes(ctx context.Context, tx *store.Tx, a *exchange.Archive, r *exchange.Report) error {
	all, err := tx.Everyone(ctx)
	if err != nil {
		return err
	}
	born := map[string][]string{}
	for _, c := range all {
		on := ""
		if c.BornOn.Valid {
			on = c.BornOn.Time.Format(time.DateOnly)
		}
		name := plainName(c.GivenName + " " + c.FamilyName)
		born[name] = append(born[name], on)
	}
	for i, c := range a.Clients {
		days := born[plainName(c.GivenName+" "+c.FamilyName)]
		if len(days) > 0 && !slices.Contains(days, c.BornOn) && (c.BornOn == "" || slices.Contains(days, "")) {
			r.Add(exchange.Problem{
				Row: r.RowOf(i), Field: "given_name", Given: c.GivenName + " " + c.FamilyName,
				Text: "A client of this name is here, and a birth date is missing: the same person? Leave the " +
					"entry out, or add the date.",
			})
		}
	}
	leaveClients(a, r, func(c exchange.ArchiveClient) string {
		if slices.Contains(born[plainName(c.GivenName+" "+c.FamilyName)], c.BornOn) {
			return "client of this name and birth date who is here already"
		}
		return ""
	})
	return nil
}

// plainName is a name as it is compared: without case, with single spaces.
func plainName(s string) string { return strings.ToLower(strings.Join(strings.Fields(s), " ")) }

// finder finds a client by id, or by full name and, where it is given, birth date;
// two of a name are nobody.
func finder(ctx context.Context, tx *store.Tx) (func(exchange.Reading) visit.UUID, error) {
	all, err := tx.Everyone(ctx)
	if err != nil {
		return nil, err
	}
	return func(x exchange.Reading) visit.UUID {
		var found visit.UUID
		name := plainName(x.Given + " " + x.Family)
		for _, c := range all {
			born := ""
			if c.BornOn.Valid {
				born = c.BornOn.Time.Format(time.DateOnly)
			}
			called := name == plainName(c.GivenName+" "+c.FamilyName) ||
				name == plainName(c.FamilyName+", "+c.GivenName)
			byName := called && (x.Born == "" || x.Born == born)
			if x.Client != c.ID.String() && (x.Client != "" || !byName) {
				continue
			}
			if found != "" {
				return ""
			}
			found = visit.UUID(c.ID.String())
		}
		return found
	}, nil
}

// readings makes a visit of each client's day.
func (s *server) readings(
	ctx context.Context, tx *store.Tx, raw []byte, me visit.UUID, said exchange.Choices,
) (a exchange.Archive, r exchange.Report, err error) {
	list, r := exchange.ReadReadingsCSV(ctx, raw, said)
	if err = ctx.Err(); err != nil {
		return a, r, err
	}
	find, err := finder(ctx, tx)
	if err != nil {
		return a, r, err
	}
	type day struct {
		client visit.UUID
		on     time.Time
	}
	told := map[day][]exchange.Measure{}
	var order []day
	for _, x := range list {
		d := day{find(x), x.Day}
		if d.client == "" {
			r.Add(exchange.Problem{
				Row: x.Row, Field: "client_id", Given: strings.TrimSpace(x.Client + " " + x.Given + " " + x.Family),
				Text: "No one client of this practice.",
			})
			continue
		}
		if x.Day.After(s.now()) {
			r.Add(exchange.Problem{
				Row: x.Row, Field: "date", Given: x.Day.Format(time.DateOnly), Text: "A day that has been.",
			})
		}
		if told[d] == nil {
			order = append(order, d)
		}
		told[d] = append(
			told[d],
			exchange.Measure{Movement: x.Movement, Side: x.Side, Moment: x.Moment, Value: x.Value},
		)
	}
	for _, d := range order {
		v := exchange.OnDay(d.client, d.on, said.Zone)
		// The same values of the same day are the same visit, so that they come in once.
		v.ID = said.Known("readings", "", fmt.Sprint(d.client, d.on.Format(time.DateOnly), told[d]))
		a.Visits = append(a.Visits, exchange.ReadWords(v, me, told[d]))
	}
	err = notHere(ctx, tx, &a, &r)
	r.Visits = len(a.Visits)
	return a, r, err
}

// appointments are booked for clients of the same name; events of nobody here are named.
func (s *server) appointments(
	ctx context.Context, tx *store.Tx, raw []byte, me visit.UUID, said exchange.Choices,
) (a exchange.Archive, r exchange.Report, err error) {
	list, r := exchange.ReadCalendar(ctx, raw, said, s.now())
	if err = ctx.Err(); err != nil {
		return a, r, err
	}
	find, err := finder(ctx, tx)
	if err != nil {
		return a, r, err
	}
	of := make([]visit.UUID, len(list))
	for i, x := range list {
		of[i] = visit.UUID(x.ID)
	}
	here, err := tx.Here(ctx, of)
	if err != nil {
		return a, r, err
	}
	for _, x := range list {
		when := func(t time.Time) string { return t.In(said.Zone).Format("2 January 2006, 15:04") }
		if booked, there := here[visit.UUID(x.ID)]; there {
			if booked.IsZero() || booked.Equal(x.Start) {
				r.Leave("appointment that is here already", x.Entry)
			} else {
				r.Leave(fmt.Sprintf("appointment that was moved, from %s to %s: move it in the diary", when(booked),
					when(x.Start)), x.Entry)
			}
			continue
		}
		client := find(exchange.Reading{Given: x.Client})
		if client == "" {
			r.Leave("event that names no one client here: "+x.Client, x.Entry)
			continue
		}
		v := exchange.ArchiveVisit{
			ID: visit.UUID(x.ID), Client: client, Therapist: me, StartsAt: x.Start.UTC().Format(time.RFC3339Nano),
			Minutes: x.Minutes, Room: x.Room, Status: x.Status, Series: visit.UUID(x.Series),
			Events: []visit.Event{},
		}
		if e := exchange.Valid(v); e != nil {
			r.Add(exchange.Problem{
				Row: x.Entry, Field: strings.TrimPrefix(e.Path, "$."), Given: e.Given,
				Text: e.Allowed,
			})
			continue
		}
		a.Visits = append(a.Visits, v)
	}
	r.Visits = len(a.Visits)
	return a, r, nil
}

func (s *server) imports(ctx context.Context, _ *struct{}) (*listOut[ImportOut], error) {
	show := func(i store.ImportResult) ImportOut {
		out := ImportOut{
			ID: i.ID.String(), At: i.At.UTC().Format(time.RFC3339), By: i.By, Kind: i.Kind, File: i.File,
			Undone: i.Undone != nil,
		}
		if err := json.Unmarshal(i.Counts, &out.Counts); err != nil {
			out.File += fmt.Sprintf(" (%v)", err)
		}
		return out
	}
	return list(ctx, s, action("list", "import", ""), show, func(tx *store.Tx) ([]store.ImportResult, error) {
		return tx.Imports(ctx)
	})
}

func (s *server) undoImport(ctx context.Context, in *ByID) (*struct{}, error) {
	return done(ctx, s, action("undo", "import", in.ID), func(tx *store.Tx) error {
		err := tx.UndoImport(ctx, in.uuid())
		if errors.Is(err, store.ErrWorkedOn) {
			return huma.Error409Conflict("Somebody has worked on what this import brought; it stays.")
		}
		return err
	})
}
