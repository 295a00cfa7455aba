package store

import (
	"context"
	"maps"
	"slices"
	"time"

	"github.com/google/uuid"

	"mokren/core/record"
	"mokren/core/visit"
)

// protected keeps clients' safety records as they were read last: of a record of hundreds of visits only
// what came since is read and reduced. It is a cache of this process (recent.go), used only while the
// record has as many events as it and what came since: events are added and erased, and never change.
type protected struct{ kept *recent[safetyLog] }

// mostFacts of all clients are kept, some 400 bytes each.
const mostFacts = 100_000

// safetyLog is in the order of arrival. What is kept is shared, and not to be changed.
type safetyLog struct {
	// events counts those that were read; an event may make many facts, or none to this program.
	events int
	// last is when the last of them arrived: a client's events arrive one batch after the other, each at
	// a time of its own (surroundings.arrival).
	last  time.Time
	facts []record.Fact
	// licensed tells of each author what the facts say of them.
	licensed map[string]bool
	// past is what the older facts come to.
	past record.Past
}

// holds reports whether the authors are still what the facts say of them.
func (l safetyLog) holds(c visit.Context) bool {
	for author, licensed := range l.licensed {
		if c.Roles[author].Licensed() != licensed {
			return false
		}
	}
	return true
}

// and is a log with what came after it.
func (l safetyLog) and(o safetyLog) safetyLog {
	o.events += l.events
	o.facts = append(slices.Clip(l.facts), o.facts...)
	maps.Copy(o.licensed, l.licensed)
	o.past = l.past
	return o
}

func newProtected() protected { return protected{newRecent[safetyLog](mostFacts)} }

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
	log, ok := t.protected.kept.get(v.ClientID)
	if !ok || !log.holds(c) {
		log = safetyLog{}
	}
	if log.events != events {
		since, err := t.readSafetyLog(ctx, c, v.ClientID, log.last)
		if err == nil && log.events > 0 {
			if since = log.and(since); since.events != events {
				since, err = t.readSafetyLog(ctx, c, v.ClientID, time.Time{})
			}
		}
		if err != nil {
			return nil, err
		}
		log = since
	}
	others, past := log.past.Others(c.Client, log.facts, v.ID.String(), from.Add(-wholeFor).UnixMilli())
	log.past = past
	t.afterwards(func() { t.protected.kept.keep(v.ClientID, log, len(log.facts)) })
	return others, nil
}

// readSafetyLog reads what arrived after a moment.
func (t *Tx) readSafetyLog(
	ctx context.Context, c visit.Context, client uuid.UUID, after time.Time,
) (log safetyLog, err error) {
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
	log.licensed = map[string]bool{}
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
		log.events, log.last = log.events+1, r.ReceivedAt
		log.licensed[e.Author] = c.Roles[e.Author].Licensed()
		log.facts = append(log.facts, c.Facts(e, body)...)
	}
	return log, nil
}
