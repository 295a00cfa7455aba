package api

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

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
		"Look at a file, or take it in: all of it or nothing", 401, 403, 409, 413, 422)
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
	Kind    string `query:"kind" required:"true" enum:"archive,fhir,clients-csv,readings-csv,vcard,icalendar"`
	File    string `query:"file" maxLength:"200" doc:"its name, for the list"`
	Take    bool   `query:"take" doc:"without it, it is only looked at"`
	RawBody []byte
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
		if archive, out.Report, err = s.understand(ctx, tx, in.Kind, in.RawBody); err != nil {
			return struct{}{}, err
		}
		if !out.Fine() {
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

// understand reads a file by its kind.
func (s *server) understand(
	ctx context.Context, tx *store.Tx, kind string, raw []byte,
) (a exchange.Archive, r exchange.Report, err error) {
	me := visit.UUID(tx.Who().Person.String())
	switch kind {
	case "archive":
		a, r = exchange.ReadArchive(raw)
	case "fhir":
		a, r = fhirr4.Read(raw, me)
	case "clients-csv":
		a, r = exchange.ReadClientsCSV(ctx, raw)
	case "vcard":
		a, r = exchange.ReadVCards(ctx, raw)
	case "readings-csv":
		return s.readings(ctx, tx, raw, me)
	case "icalendar":
		return s.appointments(ctx, tx, raw, me)
	}
	if err = ctx.Err(); err != nil {
		return a, r, err // nobody waits for it any more
	}
	if kind == "clients-csv" || kind == "vcard" {
		err = s.alreadyHere(ctx, tx, a, &r)
	}
	return a, r, err
}

// alreadyHere names those of a table who are clients already.
func (s *server) alreadyHere(ctx context.Context, tx *store.Tx, a exchange.Archive, r *exchange.Report) error {
	find, err := finder(ctx, tx)
	if err != nil {
		return err
	}
	for i, c := range a.Clients {
		if find(exchange.Reading{Given: c.GivenName, Family: c.FamilyName, Born: c.BornOn}) != "" {
			r.Problems = append(r.Problems, exchange.Problem{
				Row: i + 2, Field: "given_name", Given: c.GivenName + " " + c.FamilyName,
				Text: "A client of this name and birth date is here already.",
			})
		}
	}
	return nil
}

// finder finds a client by id, or by name and, where it is given, birth date;
// two of a name are nobody.
func finder(ctx context.Context, tx *store.Tx) (func(exchange.Reading) visit.UUID, error) {
	all, err := tx.Everyone(ctx)
	if err != nil {
		return nil, err
	}
	return func(x exchange.Reading) visit.UUID {
		var found visit.UUID
		for _, c := range all {
			born := ""
			if c.BornOn.Valid {
				born = c.BornOn.Time.Format(time.DateOnly)
			}
			byName := strings.EqualFold(c.GivenName, x.Given) && strings.EqualFold(c.FamilyName, x.Family) &&
				(x.Born == "" || x.Born == born)
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
	ctx context.Context, tx *store.Tx, raw []byte, me visit.UUID,
) (a exchange.Archive, r exchange.Report, err error) {
	list, r := exchange.ReadReadingsCSV(ctx, raw)
	if !r.Fine() {
		return a, r, nil
	}
	find, err := finder(ctx, tx)
	if err != nil {
		return a, r, err
	}
	zone, err := zoneOf(ctx, tx)
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
			r.Problems = append(r.Problems, exchange.Problem{
				Row: x.Row, Field: "client_id", Given: strings.TrimSpace(x.Client + " " + x.Given + " " + x.Family),
				Text: "No one client of this practice.",
			})
			continue
		}
		if x.Day.After(s.now()) {
			r.Problems = append(r.Problems, exchange.Problem{
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
		a.Visits = append(a.Visits, exchange.ReadWords(exchange.OnDay(d.client, d.on, zone), me, told[d]))
	}
	r.Visits = len(a.Visits)
	return a, r, nil
}

// appointments are booked for clients of the same name.
func (s *server) appointments(
	ctx context.Context, tx *store.Tx, raw []byte, me visit.UUID,
) (a exchange.Archive, r exchange.Report, err error) {
	zone, err := zoneOf(ctx, tx)
	if err != nil {
		return a, r, err
	}
	list, r := exchange.ReadCalendar(ctx, raw, zone)
	find, err := finder(ctx, tx)
	if err != nil {
		return a, r, err
	}
	for i, x := range list {
		given, family, _ := strings.Cut(x.Client, " ")
		client := find(exchange.Reading{Given: given, Family: family})
		if client == "" {
			r.Problems = append(r.Problems, exchange.Problem{
				Row: i + 1, Field: "SUMMARY", Given: x.Client, Text: "The full name of one client of this practice.",
			})
			continue
		}
		id := visit.UUID(uuid.Must(uuid.NewV7()).String())
		if visit.UUID(x.ID).Check() == nil {
			id = visit.UUID(x.ID)
		}
		a.Visits = append(a.Visits, exchange.ArchiveVisit{
			ID: id, Client: client, Therapist: me, StartsAt: x.Start.UTC().Format(time.RFC3339Nano), Minutes: x.Minutes,
			Room: x.Room, Status: x.Status,
		})
	}
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
