package store

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"

	"mokren/core/body"
	"mokren/core/visit"
)

type eventRow struct {
	ID         uuid.UUID `db:"id"`
	Client     uuid.UUID `db:"client_id"`
	Visit      uuid.UUID `db:"visit_id"`
	Author     uuid.UUID `db:"author_id"`
	Device     uuid.UUID `db:"device_id"`
	Seq        int64     `db:"seq"`
	DeviceMS   int64     `db:"device_ms"`
	ReceivedAt time.Time `db:"received_at"`
	Seen       int64     `db:"seen"`
	Version    int64     `db:"version"`
	Schema     int       `db:"schema"`
	Type       string    `db:"type"`
	Body       []byte    `db:"body"`
}

func (r eventRow) event() visit.Event {
	return visit.Event{
		ID: r.ID.String(), Client: r.Client.String(), Visit: r.Visit.String(),
		Author: r.Author.String(), Device: r.Device.String(),
		Seq: r.Seq, DeviceMS: r.DeviceMS, ReceivedMS: r.ReceivedAt.UnixMilli(), Seen: r.Seen, Version: r.Version,
		Schema: r.Schema, Type: r.Type, Body: r.Body,
	}
}

// Events gives a visit's log in the order of arrival.
func (t *Tx) Events(ctx context.Context, visitID uuid.UUID) ([]visit.Event, error) {
	var rows []eventRow
	err := t.tx.SelectContext(ctx, &rows, `select id, client_id, visit_id, author_id, device_id, seq, device_ms,
		received_at, seen, version, schema, type, body
		from visit_event where visit_id = $1 order by version`, visitID)
	out := make([]visit.Event, len(rows))
	for i, r := range rows {
		out[i] = r.event()
	}
	return out, found("reading a visit's log", err)
}

// Append stores new events of one visit, recomputes the visit's state from the
// whole log and writes its tables. Events that are stored already are left as
// they are, so sending twice is the same as once.
func (t *Tx) Append(ctx context.Context, visitID uuid.UUID, events []visit.Event) (visit.State, error) {
	// One writer at a time per visit gives every event its own version.
	var client uuid.UUID
	var version int64
	err := t.tx.QueryRowContext(ctx, `select client_id, version from visit where id = $1 for update`,
		visitID).Scan(&client, &version)
	if err != nil {
		return visit.State{}, found("locking a visit", err)
	}
	for _, e := range events {
		if e.Client != client.String() {
			return visit.State{}, fmt.Errorf("event %s names another client: %w", e.ID, ErrNotFound)
		}
		r, err := t.tx.ExecContext(ctx, `insert into visit_event (practice_id, id, client_id, visit_id, author_id,
			device_id, seq, device_ms, seen, version, schema, type, body)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13) on conflict (practice_id, id) do nothing`,
			t.who.Practice, e.ID, client, visitID, e.Author, e.Device, e.Seq, e.DeviceMS, e.Seen, version+1, e.Schema,
			e.Type, []byte(e.Body))
		if err != nil {
			return visit.State{}, fmt.Errorf("storing event %s: %w", e.ID, err)
		}
		if n, _ := r.RowsAffected(); n == 1 {
			version++
		}
	}
	log, err := t.Events(ctx, visitID)
	if err != nil {
		return visit.State{}, err
	}
	vc, err := t.VisitContext(ctx, visitID)
	if err != nil {
		return visit.State{}, err
	}
	s := visit.Reduce(vc, log)
	if err := t.project(ctx, client, visitID, version, s); err != nil {
		return s, err
	}
	if slices.ContainsFunc(events, func(e visit.Event) bool { return carries[e.Type] }) {
		err = t.reproject(ctx, client, visitID)
	}
	return s, err
}

// carries are the events that later visits are read against.
var carries = map[string]bool{
	"screening-answered": true, "screening-cleared": true, "visit-opened": true,
	"event-undone": true,
}

// reproject writes the tables of the visits after one whose screening came in
// late: a hold there may now be one that should not have begun.
func (t *Tx) reproject(ctx context.Context, client, from uuid.UUID) error {
	var later []struct {
		ID      uuid.UUID `db:"id"`
		Version int64     `db:"version"`
	}
	err := t.tx.SelectContext(ctx, &later, `select v.id, v.version from visit v join visit f on f.id = $2
		where v.client_id = $1 and v.id <> $2 and v.starts_at > f.starts_at
		and v.opened_at is not null order by v.starts_at, v.id for update of v`, client, from)
	if err != nil {
		return found("finding later visits", err)
	}
	for _, v := range later {
		log, err := t.Events(ctx, v.ID)
		if err != nil {
			return err
		}
		vc, err := t.VisitContext(ctx, v.ID)
		if err != nil {
			return err
		}
		if err := t.project(ctx, client, v.ID, v.Version, visit.Reduce(vc, log)); err != nil {
			return err
		}
	}
	return nil
}

// project writes the tables that are the log's present state.
func (t *Tx) project(ctx context.Context, client, visitID uuid.UUID, version int64, s visit.State) error {
	var errs []error
	exec := func(q string, args ...any) {
		if _, err := t.tx.ExecContext(ctx, q, args...); err != nil && errs == nil {
			errs = append(errs, err)
		}
	}
	exec(`update visit set version = $2, opened_at = $3, closed_at = $4, reason = coalesce(nullif($5, ''), reason) where id = $1`,
		visitID, version, moment(s.OpenedMS), moment(s.ClosedMS), s.Reason)
	exec(`delete from charted_point where visit_id = $1`, visitID)
	for _, p := range s.Points {
		exec(`insert into charted_point (practice_id, id, client_id, visit_id, identity, muscle, side, site, figure,
			view, x, y, fibre, along_pct, across_mm, grade, nprs, after_nprs)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18)`,
			t.who.Practice, p.Point, client, visitID, p.Identity, p.Muscle, p.Side, p.Site, p.Figure, p.View, p.X,
			p.Y, p.Place.Fibre, p.Place.AlongPct, p.Place.AcrossMM, p.Grade, p.NPRS, p.AfterNPRS)
	}
	exec(`delete from hold where visit_id = $1`, visitID)
	for _, h := range s.Holds {
		sum, err := json.Marshal(h.Summary)
		if err != nil {
			return err
		}
		exec(`insert into hold (practice_id, id, client_id, visit_id, point_id, started_at, protocol, rules_version,
			status, why, outcome, pressure_ms, overrun_ms, stages, summary)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15)`,
			t.who.Practice, h.ID, client, visitID, h.Point, time.UnixMilli(h.StartedMS), h.Start.Protocol,
			h.Start.Rules, h.Status, h.Why, h.Summary.Outcome,
			int64(h.Summary.PressureS*1000+0.5), int64(h.Summary.OverrunS*1000+0.5), len(h.Summary.Stages), sum)
	}
	exec(`delete from range_reading where visit_id = $1`, visitID)
	for _, r := range s.Ranges {
		exec(`insert into range_reading (practice_id, client_id, visit_id, movement, side, before_deg, after_deg) values ($1, $2, $3, $4, $5, $6, $7)`,
			t.who.Practice, client, visitID, r.Movement, r.Side, r.Before, r.After)
	}
	exec(`delete from screening where visit_id = $1`, visitID)
	for i, a := range s.Answers {
		exec(`insert into screening (practice_id, client_id, visit_id, place, question, answer, side, regions, note) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
			t.who.Practice, client, visitID, i, a.Question, a.Answer, a.Side, texts(a.Regions), a.Note)
	}
	for i, c := range s.Cleared {
		exec(`insert into screening (practice_id, client_id, visit_id, place, question, answer, side, regions, note) values ($1, $2, $3, $4, $5, 'cleared', '', '{}', $6)`,
			t.who.Practice, client, visitID, len(s.Answers)+i, c.Question, c.By+", "+c.On+": "+c.Note)
	}
	exec(`delete from consent where visit_id = $1`, visitID)
	for _, c := range s.Consents {
		exec(`insert into consent (practice_id, client_id, visit_id, area, given, given_by, chaperone, note) values ($1, $2, $3, $4, $5, $6, $7, $8)`,
			t.who.Practice, client, visitID, c.Area, c.Given, cmp.Or(c.By, "client"), c.Chaperone, c.Note)
	}
	exec(`delete from pain_drawing where visit_id = $1`, visitID)
	if len(s.Drawing) > 0 {
		cells := 0
		for _, k := range s.Drawing {
			cells += len(k.Cells)
		}
		raw, err := json.Marshal(s.Drawing)
		if err != nil {
			return err
		}
		exec(`insert into pain_drawing (practice_id, client_id, visit_id, figure, cells, strokes) values ($1, $2, $3, $4, $5, $6)`,
			t.who.Practice, client, visitID, body.Version, cells, raw)
	}
	if len(errs) > 0 {
		return fmt.Errorf("writing a visit's tables: %w", errors.Join(errs...))
	}
	return nil
}

func moment(ms int64) sql.NullTime {
	return sql.NullTime{Time: time.UnixMilli(ms), Valid: ms > 0}
}
