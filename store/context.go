package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"

	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/rights"
	"mokren/core/visit"
)

// VisitContext is what a visit's log is read against now: the client's safety record but
// for this visit's own facts, who is who, what other visits of these days have met on the
// body, and the practice's own thresholds.
func (t *Tx) VisitContext(ctx context.Context, v Visit, now time.Time) (visit.Context, error) {
	around, err := t.around(ctx, v, now)
	if err != nil {
		return visit.Context{}, err
	}
	out, err := around.context(v, now)
	if err != nil {
		return out, err
	}
	out.History, err = t.history(ctx, out, v, around.Protecting, now)
	return out, err
}

// surroundings are what a visit's log is read against, but for the safety record.
type surroundings struct {
	HeightCM sql.NullFloat64 `db:"height_cm"`
	BornOn   sql.NullTime    `db:"born_on"`
	BornWas  sql.NullTime    `db:"born_was"`
	Archived sql.NullTime    `db:"archived_at"`
	// People are all whom the record names: those who are gone have no membership now.
	People     []byte       `db:"people"`
	Thresholds []byte       `db:"thresholds"`
	Protocol   ids.Protocol `db:"protocol"`
	// OffsetMin is how far the practice's clock is east of UTC, in minutes.
	OffsetMin int `db:"offset_min"`
	// Signs and Treated are those of the client's other visits.
	Signs   []byte `db:"signs"`
	Treated []byte `db:"treated"`
	// GrownMS is when the client's record last grew.
	GrownMS int64 `db:"grown_ms"`
	// Protects tells one safety record of the client's other visits from another: events are
	// added and erased, and never change.
	Protects string `db:"protects"`
	// Protecting counts the events of the client's safety record.
	Protecting int `db:"protecting"`
	// Stored are the ids of events that arrive and that the record has already.
	Stored textList `db:"stored"`
}

// daysLately: what the hands met is read so far back; the core looks at one day.
const daysLately = 3

// around reads a visit's surroundings in one question, for it is asked at each event.
func (t *Tx) around(ctx context.Context, v Visit, now time.Time, arriving ...visit.Event) (surroundings, error) {
	var out surroundings
	ids := make([]string, len(arriving))
	for i, e := range arriving {
		ids[i] = e.ID
	}
	err := t.tx.GetContext(ctx, &out, `select c.height_cm, c.born_on, c.born_was, c.archived_at, p.protocol,
			coalesce((select jsonb_agg(jsonb_build_object('id', id, 'role', role,
				'gone', left_at is not null or elsewhere) order by id) from person), '[]') as people,
			coalesce((select jsonb_object_agg(threshold, value) from posture_threshold), '{}') as thresholds,
			(extract(epoch from ($4::timestamptz at time zone p.time_zone)
				- ($4::timestamptz at time zone 'UTC')) / 60)::int as offset_min,
			coalesce((select jsonb_agg(jsonb_build_object('sign', sign, 'at_ms', floor(extract(epoch from at) * 1000),
					'hold', hold_id, 'spot', spot) order by at, visit_id, place) from hold_sign
				where client_id = $1 and visit_id <> $2 and at > $4::timestamptz - $5 * interval '1 day'),
				'[]') as signs,
			coalesce((select jsonb_agg(jsonb_build_object('at_ms', floor(extract(epoch from started_at) * 1000),
					'hold', id, 'spot', spot) order by started_at, visit_id, place) from hold
				where client_id = $1 and visit_id <> $2 and treats and status <> 'aside'
					and started_at > $4::timestamptz - $5 * interval '1 day'), '[]') as treated,
			-- The latest, not the maximum of all: an index gives it however many there are.
			coalesce((select floor(extract(epoch from received_at) * 1000)::bigint from visit_event
				where client_id = $1 order by received_at desc limit 1), 0) as grown_ms,
			safety.protects, safety.protecting,
			(select coalesce(jsonb_agg(id), '[]')::text from visit_event where id = any ($6)) as stored
		from client c, practice p, (select count(*) as protecting, count(*) filter (where visit_id <> $2) || ' '
				|| coalesce(max(received_at) filter (where visit_id <> $2)::text, '') as protects
			from visit_event where client_id = $1 and `+protecting+`) safety
		where c.id = $1 and p.id = $3`,
		v.ClientID, v.ID, t.who.Practice, now, daysLately, ids)
	if err == nil {
		t.touch(v.ClientID)
	}
	return out, found("reading what a visit stands in", err)
}

// arrival is when a batch arrives. One record, one order: what a client's visits receive
// arrives one after the other, whichever copy of the program takes it.
func (s surroundings) arrival(now time.Time) time.Time {
	if next := time.UnixMilli(s.GrownMS + 1); now.Before(next) {
		return next
	}
	return now
}

// context is what they say to a visit, without the safety record.
func (s surroundings) context(v Visit, now time.Time) (visit.Context, error) {
	out := visit.Context{
		Visit: v.ID.String(), NowMS: now.UnixMilli(), Cancelled: v.Status == "cancelled",
		Archived: s.Archived.Valid, Protocol: s.Protocol,
		Roles: map[string]rights.Role{}, Signs: []visit.Pressed{}, Treated: []record.Treatment{},
	}
	out.HeightCM, out.OffsetMin = s.HeightCM.Float64, s.OffsetMin
	for _, born := range []sql.NullTime{s.BornOn, s.BornWas} {
		if born.Valid {
			out.Born = append(out.Born, born.Time.Format(time.DateOnly))
		}
	}
	if s.BornOn.Valid {
		out.Age = ageOn(s.BornOn.Time, now)
	}
	var people []struct {
		ID   string
		Role rights.Role
		Gone bool
	}
	type met struct {
		Sign string
		AtMS int64 `json:"at_ms"`
		Hold string
		Spot record.Spot
	}
	var signs, treated []met
	err := errors.Join(json.Unmarshal(s.People, &people), json.Unmarshal(s.Thresholds, &out.Thresholds),
		json.Unmarshal(s.Signs, &signs), json.Unmarshal(s.Treated, &treated))
	if err != nil {
		return out, found("reading what a visit stands in", err)
	}
	for _, p := range people {
		if out.Roles[p.ID] = p.Role; p.Gone {
			out.Gone = append(out.Gone, p.ID)
		}
	}
	for _, m := range signs {
		out.Signs = append(out.Signs, visit.Pressed{Sign: m.Sign, AtMS: m.AtMS, Hold: m.Hold, Spot: m.Spot})
	}
	for _, m := range treated {
		out.Treated = append(out.Treated, record.Treatment{Hold: m.Hold, AtMS: m.AtMS, Spot: m.Spot})
	}
	return out, nil
}

// ageOn counts whole years. A birthday on 29 February is reached on 1 March in other years.
func ageOn(born, day time.Time) int {
	age := day.Year() - born.Year()
	if born.AddDate(age, 0, 0).After(day) {
		age--
	}
	return age
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
