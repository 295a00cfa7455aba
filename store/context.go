package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/rights"
	"mokren/core/visit"
)

// VisitContext is what a visit's log is read against now: the client's safety record but
// for this visit's own facts, who is who, what other visits of these days have met on the
// body, and the practice's own thresholds.
func (t *Tx) VisitContext(ctx context.Context, v Visit, now time.Time) (visit.Context, error) {
	return t.contextFor(ctx, v, now, now)
}

// contextFor reads for holds that began at from or later: what arrived since is whole. Older facts
// are reduced to those that still count, for a client's record grows over years and is read at
// each event.
func (t *Tx) contextFor(ctx context.Context, v Visit, from, now time.Time) (visit.Context, error) {
	out := visit.Context{Visit: v.ID.String(), NowMS: now.UnixMilli(), Cancelled: v.Status == "cancelled"}
	c, err := t.Client(ctx, v.ClientID)
	if err != nil {
		return out, err
	}
	out.Archived = c.Archived.Valid
	if err := t.practiceContext(ctx, &out, now); err != nil {
		return out, err
	}
	if out.Signs, err = t.signsLately(ctx, v, now); err != nil {
		return out, err
	}
	if out.Treated, err = t.treatedLately(ctx, v, now); err != nil {
		return out, err
	}
	out.HeightCM = c.HeightCM.Float64
	for _, born := range []struct {
		on    time.Time
		valid bool
	}{{c.BornOn.Time, c.BornOn.Valid}, {c.BornWas.Time, c.BornWas.Valid}} {
		if born.valid {
			out.Born = append(out.Born, born.on.Format(time.DateOnly))
		}
	}
	if c.BornOn.Valid {
		out.Age = ageOn(c.BornOn.Time, now)
	}
	out.History, err = t.history(ctx, out, v, from)
	return out, err
}

// ageOn counts whole years. A birthday on 29 February is reached on 1 March in other years.
func ageOn(born, day time.Time) int {
	age := day.Year() - born.Year()
	if born.AddDate(age, 0, 0).After(day) {
		age--
	}
	return age
}

// practiceContext reads what a practice gives to every visit of it, in one question: the roles of
// everybody whom the record names (gone have no membership now), the practice's thresholds, its
// default protocol, and how far its clock is east of UTC, in minutes.
func (t *Tx) practiceContext(ctx context.Context, out *visit.Context, now time.Time) error {
	var row struct {
		People     []byte       `db:"people"`
		Thresholds []byte       `db:"thresholds"`
		Protocol   ids.Protocol `db:"protocol"`
		OffsetMin  int          `db:"offset_min"`
	}
	err := t.tx.GetContext(ctx, &row, `select coalesce((select jsonb_agg(jsonb_build_object('id', id, 'role', role,
				'gone', left_at is not null or elsewhere) order by id) from person), '[]') as people,
			coalesce((select jsonb_object_agg(threshold, value) from posture_threshold), '{}') as thresholds, protocol,
			(extract(epoch from ($1::timestamptz at time zone time_zone)
				- ($1::timestamptz at time zone 'UTC')) / 60)::int as offset_min
		from practice where id = $2`, now, t.who.Practice)
	if err != nil {
		return found("reading what a practice gives to its visits", err)
	}
	out.Protocol, out.OffsetMin = row.Protocol, row.OffsetMin
	var people []struct {
		ID   string
		Role rights.Role
		Gone bool
	}
	err = errors.Join(json.Unmarshal(row.People, &people), json.Unmarshal(row.Thresholds, &out.Thresholds))
	if err != nil {
		return found("reading who is who", err)
	}
	out.Roles = map[string]rights.Role{}
	for _, p := range people {
		if out.Roles[p.ID] = p.Role; p.Gone {
			out.Gone = append(out.Gone, p.ID)
		}
	}
	return nil
}

// wholeFor: of so long the record is whole, for holds that a device has not sent yet.
const wholeFor = 24 * time.Hour

// history reads the client's safety record: of other visits, without what was replaced
// before anything that is judged now began.
func (t *Tx) history(ctx context.Context, c visit.Context, v Visit, from time.Time) ([]record.Fact, error) {
	var rows []eventRow
	// A hold counts by its place in the order; its body is long, and not needed.
	err := t.tx.SelectContext(ctx, &rows, `select id, client_id, visit_id, author_id, device_id, seq, device_ms,
			received_at, seen, version, schema, type, case type when 'hold-started' then '{}' else body end as body,
			happened_ms, clock, hold_at_ms, verdict, why, null::jsonb as result
		from visit_event where client_id = $1 and verdict = 'accepted' and type in ('visit-opened',
			'screening-answered', 'screening-cleared', 'consent-recorded', 'event-undone', 'hold-started')
		order by received_at, visit_id, version`, v.ClientID)
	if err != nil {
		return nil, found("reading a client's safety record", err)
	}
	var facts []record.Fact
	for _, r := range rows {
		e, err := r.event()
		if err != nil {
			return nil, err
		}
		if e.Type == "hold-started" {
			facts = append(facts, c.Facts(e, &visit.HoldStarted{})...)
			continue
		}
		if b, err := e.Decode(); err == nil {
			facts = append(facts, c.Facts(e, b)...)
		}
	}
	return record.Others(c.Client, facts, v.ID.String(), from.Add(-wholeFor).UnixMilli()), nil
}

// daysLately: what the hands met is read so far back; the core looks at one day.
const daysLately = 3

// signsLately are those of the client's other visits.
func (t *Tx) signsLately(ctx context.Context, v Visit, now time.Time) ([]visit.Pressed, error) {
	var rows []struct {
		Sign string    `db:"sign"`
		At   time.Time `db:"at"`
		Hold string    `db:"hold_id"`
		Spot []byte    `db:"spot"`
	}
	err := t.tx.SelectContext(ctx, &rows, `select sign, at, hold_id::text, spot from hold_sign
		where client_id = $1 and visit_id <> $2 and at > $3::timestamptz - $4 * interval '1 day'
		order by at, visit_id, place`, v.ClientID, v.ID, now, daysLately)
	if err != nil {
		return nil, found("reading the day's signs", err)
	}
	out := []visit.Pressed{}
	for _, r := range rows {
		p := visit.Pressed{Sign: r.Sign, AtMS: r.At.UnixMilli(), Hold: r.Hold}
		if err := json.Unmarshal(r.Spot, &p.Spot); err != nil {
			return nil, fmt.Errorf("reading where a sign was: %w", err)
		}
		out = append(out, p)
	}
	return out, nil
}

// treatedLately are the treatments of the client's other visits.
func (t *Tx) treatedLately(ctx context.Context, v Visit, now time.Time) ([]record.Treatment, error) {
	var rows []struct {
		ID   string    `db:"id"`
		At   time.Time `db:"started_at"`
		Spot []byte    `db:"spot"`
	}
	err := t.tx.SelectContext(ctx, &rows, `select id::text, started_at, spot from hold
		where client_id = $1 and visit_id <> $2 and treats and status <> 'aside'
			and started_at > $3::timestamptz - $4 * interval '1 day'
		order by started_at, visit_id, place`, v.ClientID, v.ID, now, daysLately)
	if err != nil {
		return nil, found("reading what was treated today", err)
	}
	out := []record.Treatment{}
	for _, r := range rows {
		d := record.Treatment{Hold: r.ID, AtMS: r.At.UnixMilli()}
		if err := json.Unmarshal(r.Spot, &d.Spot); err != nil {
			return nil, fmt.Errorf("reading where a hold was: %w", err)
		}
		out = append(out, d)
	}
	return out, nil
}

// arrival is when a batch arrives. One record, one order: what a client's visits receive
// arrives one after the other, whichever copy of the program takes it.
func (t *Tx) arrival(ctx context.Context, client uuid.UUID, now time.Time) (time.Time, error) {
	var last int64
	// The latest one, not the maximum of all: an index gives it however many there are.
	err := t.tx.GetContext(ctx, &last, `select coalesce((select (extract(epoch from received_at) * 1000)::bigint
		from visit_event where client_id = $1 order by received_at desc limit 1), 0)`, client)
	if next := time.UnixMilli(last + 1); now.Before(next) {
		now = next
	}
	return now, found("reading when a client's record last grew", err)
}

// earliest is when the first hold of a batch began, as its device says.
func earliest(events []visit.Event, now time.Time) time.Time {
	out := now
	for _, e := range events {
		if at := time.UnixMilli(e.At()); e.Type == "hold-started" && at.Before(out) {
			out = at
		}
	}
	return out
}
