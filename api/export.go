package api

import (
	"context"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/record"
	"mokren/core/rights"
	"mokren/core/visit"
	"mokren/exchange"
	"mokren/exchange/fhirr4"
	"mokren/store"
)

// fileOut is a file to keep.
type fileOut struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

// fileOf names a file after what is in it, never after a client.
func fileOf(name, kind string, raw []byte) *fileOut {
	return &fileOut{kind, fmt.Sprintf(`attachment; filename="mokren-%s"`, name), raw}
}

// format is one way of writing an archive.
type format struct {
	name, ending, kind string
	write              func(exchange.Archive, map[visit.UUID]visit.State) ([]byte, error)
}

const (
	csvKind  = "text/csv; charset=utf-8; header=present"
	jsonKind = "application/json"
	fhirKind = "application/fhir+json"
	zipKind  = "application/zip"
)

var formats = []format{
	{"archive", "archive.json", jsonKind, plainly(exchange.WriteArchive)},
	{"fhir", "fhir.json", fhirKind, func(
		a exchange.Archive, states map[visit.UUID]visit.State,
	) ([]byte, error) {
		return fhirr4.Write(a, states, nil)
	}},
	{"fhir-ndjson", "fhir.ndjson", "application/fhir+ndjson", fhirr4.WriteLines},
	{"vcard", "clients.vcf", "text/vcard; charset=utf-8", plainly(exchange.WriteVCards)},
	{"clients-csv", "clients.csv", csvKind, plainly(exchange.WriteClientsCSV)},
	{"body-svg", "body.svg", "image/svg+xml", exchange.WriteBodyMap},
	tableFormat("visits"), tableFormat("points"), tableFormat("holds"), tableFormat("ranges"),
}

func plainly(write func(exchange.Archive) ([]byte, error)) func(
	exchange.Archive, map[visit.UUID]visit.State,
) ([]byte, error) {
	return func(a exchange.Archive, _ map[visit.UUID]visit.State) ([]byte, error) { return write(a) }
}

func tableFormat(name string) format {
	return format{name + "-csv", name + ".csv", csvKind, func(
		a exchange.Archive, states map[visit.UUID]visit.State,
	) ([]byte, error) {
		return exchange.WriteTable(name, a, states)
	}}
}

// ExportFormat is a format's name in the address.
type ExportFormat struct {
	Format string `path:"format" enum:"archive,fhir,fhir-ndjson,vcard,clients-csv,visits-csv,points-csv,holds-csv,ranges-csv"`
}

func (s *server) registerExport(a huma.API) {
	one := op("export-client", http.MethodGet, "/api/clients/{id}/export/{format}",
		"A client's record as a file: archive, FHIR R4 (Bundle or NDJSON), vCard, a CSV table, a body map, or "+
			"everything as a zip", 401, 404)
	huma.Register(a, one, s.exportClient)
	all := op("export-practice", http.MethodGet, "/api/practice/export/{format}",
		"All clients of the practice as a file", 401)
	huma.Register(a, all, s.exportPractice)
}

func (s *server) exportClient(ctx context.Context, in *struct {
	ByID
	Format string `path:"format" enum:"archive,fhir,fhir-ndjson,vcard,clients-csv,visits-csv,points-csv,holds-csv,ranges-csv,body-svg,everything"`
},
) (*fileOut, error) {
	return signed(ctx, s, clientAction("export", in.ByID), func(tx *store.Tx) (*fileOut, error) {
		switch in.Format {
		case "everything":
			return s.accessFile(ctx, tx, in.uuid())
		case "fhir":
			return s.clientFHIR(ctx, tx, in.uuid())
		}
		return export(ctx, tx, in.Format, in.uuid())
	})
}

func (s *server) exportPractice(ctx context.Context, in *ExportFormat) (*fileOut, error) {
	return signed(ctx, s, action("export", "practice", in.Format), func(tx *store.Tx) (*fileOut, error) {
		return export(ctx, tx, in.Format)
	})
}

func export(ctx context.Context, tx *store.Tx, name string, of ...uuid.UUID) (*fileOut, error) {
	a, err := tx.Export(ctx, of...)
	if err != nil {
		return nil, err
	}
	for _, f := range formats {
		if f.name != name {
			continue
		}
		var states map[visit.UUID]visit.State
		if strings.HasPrefix(name, "fhir") || name == "body-svg" || strings.HasSuffix(name, "-csv") &&
			name != "clients-csv" {
			states = statesOf(a)
		}
		raw, err := f.write(a, states)
		return fileOf(f.ending, f.kind, raw), err
	}
	return nil, invalid("path.format", name, "a format of the list")
}

// statesOf replays an archive's visits as they were judged.
func statesOf(a exchange.Archive) map[visit.UUID]visit.State {
	roles, heights := map[string]rights.Role{}, map[visit.UUID]float64{}
	for _, p := range a.People {
		roles[string(p.ID)] = p.Role
	}
	for _, c := range a.Clients {
		if c.HeightCM != nil {
			heights[c.ID] = *c.HeightCM
		}
	}
	out := map[visit.UUID]visit.State{}
	for _, v := range a.Visits {
		out[v.ID] = visit.Reduce(visit.Context{
			Client: record.Client{HeightCM: heights[v.Client]}, Roles: roles,
		}, v.Events)
	}
	return out
}
