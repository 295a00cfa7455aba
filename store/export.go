package store

import (
	"context"
	"database/sql"
	"encoding/base64"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"mokren/core/rights"
	"mokren/core/visit"
	"mokren/exchange"
)

// Export gives clients with all that is known of them; without ids all clients
// of the practice, put away ones too.
func (t *Tx) Export(ctx context.Context, clients ...uuid.UUID) (exchange.Archive, error) {
	var a exchange.Archive
	if len(clients) == 1 {
		t.touch(clients[0])
	}
	for _, read := range []func(context.Context, []uuid.UUID, *exchange.Archive) error{
		t.exportPractice, t.exportClients, t.exportVisits, t.exportPhotos, t.exportPeople,
	} {
		if err := read(ctx, clients, &a); err != nil {
			return a, err
		}
	}
	a.Sort()
	return a, nil
}

// among limits a query to some clients; without any it reads everyone's. The two are
// different statements, so that each has its own plan.
func among(column string, of []uuid.UUID) (where string, args []any) {
	if len(of) == 0 {
		return "", nil
	}
	return ` where ` + column + ` = any ($1)`, []any{of}
}

// exportClients reads the clients of an archive. One that is not in this practice is an error:
// an archive that lacks somebody silently would be taken for whole.
func (t *Tx) exportClients(ctx context.Context, of []uuid.UUID, a *exchange.Archive) error {
	var rows []Client
	where, args := among("c.id", of)
	err := t.tx.SelectContext(ctx, &rows, `select `+clientColumns+` from client c`+where, args...)
	if err != nil {
		return found("reading the clients of an archive", err)
	}
	if len(of) > 0 && len(rows) < len(of) {
		return found("reading the clients of an archive", sql.ErrNoRows)
	}
	for _, c := range rows {
		out := exchange.ArchiveClient{
			ID: visit.UUID(c.ID.String()), GivenName: c.GivenName, FamilyName: c.FamilyName, Work: c.Work,
			Complaint: c.Complaint, Cautions: c.Cautions, Hand: c.Hand, Phone: c.Phone, Email: c.Email,
			Emergency: c.Emergency, Guardian: c.Guardian, Archived: c.Archived.Valid, Revision: c.Revision,
		}
		if c.BornOn.Valid {
			out.BornOn = c.BornOn.Time.Format(time.DateOnly)
		}
		if c.HeightCM.Valid {
			out.HeightCM = &c.HeightCM.Float64
		}
		a.Clients = append(a.Clients, out)
	}
	return nil
}

// exportVisits reads visits with their logs, which are the record.
func (t *Tx) exportVisits(ctx context.Context, of []uuid.UUID, a *exchange.Archive) error {
	var rows []Visit
	where, args := among("c.id", of)
	err := t.tx.SelectContext(ctx, &rows, `select `+visitColumns+where, args...)
	if err != nil {
		return found("reading the visits of an archive", err)
	}
	if len(of) > 0 {
		// Events have an index by visit, and need none by client.
		where = `where visit_id in (select id from visit where client_id = any ($1))`
	}
	events, err := t.events(ctx, where+` order by version`, args...)
	if err != nil {
		return err
	}
	byVisit := map[string][]visit.Event{}
	for _, e := range events {
		byVisit[e.Visit] = append(byVisit[e.Visit], e)
	}
	for _, v := range rows {
		series := ""
		if v.Series.Valid {
			series = v.Series.UUID.String()
		}
		a.Visits = append(a.Visits, exchange.ArchiveVisit{
			ID: visit.UUID(v.ID.String()), Client: visit.UUID(v.ClientID.String()),
			Therapist: visit.UUID(v.Therapist.String()), StartsAt: v.StartsAt.UTC().Format(time.RFC3339Nano),
			Minutes: v.Minutes, Reason: v.Reason, Room: v.Room, Status: v.Status, Series: visit.UUID(series),
			Events: append([]visit.Event{}, byVisit[v.ID.String()]...),
		})
	}
	return nil
}

// exportPhotos reads photographs with what was measured on them; removed ones stay out.
func (t *Tx) exportPhotos(ctx context.Context, of []uuid.UUID, a *exchange.Archive) error {
	var rows []struct {
		ID       uuid.UUID `db:"id"`
		Client   uuid.UUID `db:"client_id"`
		Visit    uuid.UUID `db:"visit_id"`
		By       uuid.UUID `db:"person_id"`
		View     string    `db:"view"`
		Revision int64     `db:"revision"`
		Removed  bool      `db:"removed"`
		Marks    []byte    `db:"marks"`
		JPEG     []byte    `db:"jpeg"`
	}
	where, args := among("client_id", of)
	err := t.tx.SelectContext(ctx, &rows, `select id, client_id, visit_id, person_id, view, revision, marks, jpeg,
		removed_at is not null as removed from photo`+where, args...)
	if err != nil {
		return found("reading the photographs of an archive", err)
	}
	for _, p := range rows {
		a.Photos = append(a.Photos, exchange.ArchivePhoto{
			ID: visit.UUID(p.ID.String()), Client: visit.UUID(p.Client.String()), Visit: visit.UUID(p.Visit.String()),
			By: visit.UUID(p.By.String()), View: p.View, Revision: p.Revision, Removed: p.Removed,
			Marks: json.RawMessage(p.Marks), JPEG: base64.StdEncoding.EncodeToString(p.JPEG),
		})
	}
	return nil
}

// exportPeople names those whom the rest names, and nobody else.
func (t *Tx) exportPeople(ctx context.Context, _ []uuid.UUID, a *exchange.Archive) error {
	named := map[visit.UUID]bool{}
	for _, v := range a.Visits {
		named[v.Therapist] = true
		for _, e := range v.Events {
			named[visit.UUID(e.Author)] = true
		}
	}
	for _, p := range a.Photos {
		named[p.By] = true
	}
	var people []struct {
		ID   string      `db:"id"`
		Name string      `db:"name"`
		Role rights.Role `db:"role"`
	}
	if err := t.tx.SelectContext(ctx, &people, `select id::text, name, role from person`); err != nil {
		return found("reading the people of an archive", err)
	}
	for _, p := range people {
		if named[visit.UUID(p.ID)] {
			a.People = append(a.People, exchange.ArchivePerson{ID: visit.UUID(p.ID), Name: p.Name, Role: p.Role})
		}
	}
	return nil
}
