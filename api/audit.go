package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/exchange"
	"mokren/store"
)

// AuditLine is who did or was refused what, when, of whom.
type AuditLine struct {
	ID      int64  `json:"id"`
	At      string `json:"at" format:"date-time"`
	Person  string `json:"person"`
	Verb    string `json:"verb"`
	Kind    string `json:"kind"`
	Subject string `json:"subject,omitempty"`
	Client  string `json:"client,omitempty"`
	Name    string `json:"name,omitempty" doc:"the client's"`
	Refused bool   `json:"refused,omitempty"`
}

// AuditFilter narrows the audit down.
type AuditFilter struct {
	Person string `query:"person" format:"uuid"`
	Client string `query:"client" format:"uuid"`
	From   string `query:"from" pattern:"^([0-9]{4}-[0-9]{2}-[0-9]{2})?$"`
	To     string `query:"to" pattern:"^([0-9]{4}-[0-9]{2}-[0-9]{2})?$" doc:"this day is in it"`
	Before int64  `query:"before" doc:"the line to go on before; without it the latest come first"`
}

// A page of the audit, and a file of it.
const (
	auditPage = 100
	auditFile = 100_000
)

func (s *server) registerAudit(a huma.API) {
	huma.Register(a, op("audit", http.MethodGet, "/api/audit", "Who did or was refused what, the latest first",
		401, 403, 422), s.audit)
	huma.Register(a, op("audit-file", http.MethodGet, "/api/audit/csv", "The same as a CSV file", 401, 403, 422),
		s.auditFile)
}

// wanted reads what is asked for, in the practice's days.
func (in AuditFilter) wanted(zone *time.Location, limit int) (store.AuditFilter, error) {
	w := store.AuditFilter{Before: in.Before, Limit: limit, To: time.Date(9999, 1, 1, 0, 0, 0, 0, time.UTC)}
	for id, into := range map[string]*uuid.NullUUID{in.Person: &w.Person, in.Client: &w.Client} {
		if id != "" {
			*into = uuid.NullUUID{UUID: uuid.MustParse(id), Valid: true}
		}
	}
	for _, f := range []struct {
		name, day string
		into      *time.Time
		on        int
	}{{"query.from", in.From, &w.From, 0}, {"query.to", in.To, &w.To, 1}} {
		if f.day == "" {
			continue
		}
		day, err := time.ParseInLocation(time.DateOnly, f.day, zone)
		if err != nil {
			return w, invalid(f.name, f.day, "a day of the calendar, YYYY-MM-DD")
		}
		*f.into = dayAfter(day, f.on)
	}
	return w, nil
}

func auditOut(a store.AuditEntry) AuditLine {
	out := AuditLine{
		ID: a.ID, At: a.At.UTC().Format(time.RFC3339), Person: a.Person, Verb: a.Verb, Kind: a.Kind, Subject: a.Subject,
		Name: a.Name, Refused: a.Outcome == "refused",
	}
	if a.Client.Valid {
		out.Client = a.Client.UUID.String()
	}
	return out
}

func (s *server) audited(ctx context.Context, in *AuditFilter, limit int) ([]AuditLine, error) {
	return signed(ctx, s, action("read", "audit", ""), func(tx *store.Tx) ([]AuditLine, error) {
		zone, err := zoneOf(ctx, tx)
		if err != nil {
			return nil, err
		}
		w, err := in.wanted(zone, limit)
		if err != nil {
			return nil, err
		}
		rows, err := tx.Audit(ctx, w)
		out := []AuditLine{}
		for _, r := range rows {
			out = append(out, auditOut(r))
		}
		return out, err
	})
}

func (s *server) audit(ctx context.Context, in *AuditFilter) (*listOut[AuditLine], error) {
	list, err := s.audited(ctx, in, auditPage)
	return &listOut[AuditLine]{Items[AuditLine]{list}}, err
}

func (s *server) auditFile(ctx context.Context, in *AuditFilter) (*fileOut, error) {
	list, err := s.audited(ctx, in, auditFile)
	if err != nil {
		return nil, err
	}
	var rows [][]string
	for _, a := range list {
		outcome := "done"
		if a.Refused {
			outcome = "refused"
		}
		rows = append(rows, []string{a.At, a.Person, a.Verb, a.Kind, a.Subject, a.Client, a.Name, outcome})
	}
	raw, err := exchange.Table(
		[]string{"at [RFC 3339]", "person", "verb", "kind", "subject", "client_id", "client", "outcome"}, rows,
	)
	return fileOf("audit.csv", csvKind, raw), err
}
