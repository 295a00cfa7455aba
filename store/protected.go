package store

import (
	"context"
	"time"

	"github.com/google/uuid"

	"mokren/core/record"
	"mokren/core/visit"
)

// protected keeps the events that make a client's safety record, as they were read last: of a record of
// hundreds of visits only what came since is read. It is a cache of this process (recent.go), used only
// while the record has as many events as it and what came since: events are added and erased, and never
// change.
type protected struct{ kept *recent[safetyLog] }

// mostProtecting events of all clients are kept, some 1 kB each.
const mostProtecting = 50_000

// safetyLog is in the order of arrival.
type safetyLog struct {
	said []said
	last time.Time
}

// said is an event and what it says; shared, and not to be changed.
type said struct {
	event visit.Event
	body  visit.Body
}

func newProtected() protected { return protected{newRecent[safetyLog](mostProtecting)} }

func (p protected) drop(client uuid.UUID) {
	p.kept.drop(func(id uuid.UUID, _ safetyLog) bool { return id == client })
}

// protecting are the events that make a safety record; visit_event_safety is their index.
const protecting = `verdict = 'accepted' and type in ('visit-opened', 'screening-answered', 'screening-cleared',
	'consent-recorded', 'event-undone', 'hold-started')`

// wholeFor: of so long the record is whole, for holds that a device has not sent yet.
const wholeFor = 24 * time.Hour

// history reads the client's safety record, which has so many events, for holds that began at from or
// later: what arrived since is whole. Older facts are reduced to those that still count, for a record
// grows over years.
func (t *Tx) history(ctx context.Context, c visit.Context, v Visit, events int, from time.Time) ([]record.Fact, error) {
	log, err := t.safetyLog(ctx, v.ClientID, events)
	if err != nil {
		return nil, err
	}
	facts := make([]record.Fact, 0, len(log.said))
	for _, s := range log.said {
		facts = append(facts, c.Facts(s.event, s.body)...)
	}
	return record.Others(c.Client, facts, v.ID.String(), from.Add(-wholeFor).UnixMilli()), nil
}

// safetyLog gives a safety record of so many events: what is kept of it and what came since, or all of it.
func (t *Tx) safetyLog(ctx context.Context, client uuid.UUID, events int) (safetyLog, error) {
	log, ok := t.protected.kept.get(client)
	if ok && len(log.said) == events {
		return log, nil
	}
	since, err := t.readSafetyLog(ctx, client, log.last)
	if err != nil {
		return log, err
	}
	if n := len(log.said); n > 0 {
		if n+len(since.said) == events {
			since.said = append(log.said[:n:n], since.said...)
		} else if since, err = t.readSafetyLog(ctx, client, time.Time{}); err != nil {
			return log, err
		}
	}
	t.afterwards(func() { t.protected.kept.keep(client, since, len(since.said)) })
	return since, nil
}

// readSafetyLog reads what arrived after a moment.
func (t *Tx) readSafetyLog(ctx context.Context, client uuid.UUID, after time.Time) (log safetyLog, err error) {
	var rows []eventRow
	// A hold counts by its place in the order; its body is long, and not needed.
	err = t.tx.SelectContext(ctx, &rows, `select id, client_id, visit_id, author_id, device_id, seq, device_ms,
			received_at, seen, version, schema, type, case type when 'hold-started' then '{}' else body end as body,
			happened_ms, clock, hold_at_ms, verdict, why, null::jsonb as result
		from visit_event where client_id = $1 and received_at > $2 and `+protecting+`
		order by received_at, visit_id, version`, client, after)
	if err != nil {
		return log, found("reading a client's safety record", err)
	}
	for _, r := range rows {
		e, err := r.event()
		if err != nil {
			return log, err
		}
		var body visit.Body = &visit.HoldStarted{}
		if e.Type != "hold-started" {
			if body, err = e.Decode(); err != nil {
				body = nil // of a program to come: it says nothing to this one
			}
		}
		e.Body = nil
		log.said, log.last = append(log.said, said{e, body}), r.ReceivedAt
	}
	return log, nil
}
