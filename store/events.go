package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mokren/core/treat"
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
	HappenedMS int64     `db:"happened_ms"`
	Clock      string    `db:"clock"`
	HoldAtMS   *int64    `db:"hold_at_ms"`
	Verdict    string    `db:"verdict"`
	Why        string    `db:"why"`
	Result     []byte    `db:"result"`
}

const eventColumns = `id, client_id, visit_id, author_id, device_id, seq, device_ms, received_at, seen, version,
	schema, type, body, happened_ms, clock, hold_at_ms, verdict, why, result from visit_event`

// event reads a row, with its verdict and, of a hold's end, what it came to.
func (r eventRow) event() (visit.Event, error) {
	e := visit.Event{
		ID: r.ID.String(), Client: r.Client.String(), Visit: r.Visit.String(),
		Author: r.Author.String(), Device: r.Device.String(),
		Seq: r.Seq, DeviceMS: r.DeviceMS, ReceivedMS: r.ReceivedAt.UnixMilli(), Seen: r.Seen, Version: r.Version,
		Schema: r.Schema, Type: r.Type, Body: r.Body,
		HappenedMS: r.HappenedMS, Clock: r.Clock, HoldAtMS: r.HoldAtMS, Verdict: r.Verdict, Why: r.Why,
	}
	if r.Result == nil {
		return e, nil
	}
	e.Result = &treat.Summary{}
	if err := json.Unmarshal(r.Result, e.Result); err != nil {
		return e, fmt.Errorf("reading the result kept with event %s: %w", e.ID, err)
	}
	return e, nil
}

// Events gives a visit's log in the order of arrival.
func (t *Tx) Events(ctx context.Context, visitID uuid.UUID) ([]visit.Event, error) {
	return t.events(ctx, `where visit_id = $1 order by version`, visitID)
}

// events reads a log by a condition on its rows.
func (t *Tx) events(ctx context.Context, condition string, args ...any) ([]visit.Event, error) {
	var rows []eventRow
	if err := t.tx.SelectContext(ctx, &rows, `select `+eventColumns+` `+condition, args...); err != nil {
		return nil, found("reading a visit's log", err)
	}
	out := make([]visit.Event, len(rows))
	for i, r := range rows {
		var err error
		if out[i], err = r.event(); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// insert keeps judged events, in one statement.
func (t *Tx) insert(ctx context.Context, events []visit.Event) error {
	rows := make([]row, len(events))
	for i, e := range events {
		rows[i] = row{
			"practice_id": t.who.Practice, "id": e.ID, "client_id": e.Client, "visit_id": e.Visit,
			"author_id": e.Author, "device_id": e.Device, "seq": e.Seq, "device_ms": e.DeviceMS,
			"received_at": time.UnixMilli(e.ReceivedMS), "seen": e.Seen, "version": e.Version, "schema": e.Schema,
			"type": e.Type, "body": e.Body, "happened_ms": e.HappenedMS, "clock": e.Clock,
			"hold_at_ms": e.HoldAtMS, "verdict": e.Verdict, "why": e.Why, "result": e.Result,
		}
	}
	raw, err := json.Marshal(rows)
	if err != nil {
		return fmt.Errorf("writing events: %w", err)
	}
	_, err = t.tx.ExecContext(ctx, `insert into visit_event
		select * from jsonb_populate_recordset(null::visit_event, $1)`, raw)
	return found("storing events", err)
}
