package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"

	"github.com/google/uuid"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/visit"
)

// UnsignedNote is a closed visit whose note nobody has signed, or a student's that nobody
// has countersigned.
type UnsignedNote struct {
	Visit     uuid.UUID `db:"id"`
	Client    uuid.UUID `db:"client_id"`
	Name      string    `db:"name"`
	Therapist string    `db:"therapist"`
	StartsAt  time.Time `db:"starts_at"`
	// Awaits tells that it is signed and waits for the second name.
	Awaits bool `db:"awaits_counter"`
}

// UnsignedNotes lists them, the oldest first.
func (t *Tx) UnsignedNotes(ctx context.Context) ([]UnsignedNote, error) {
	out := []UnsignedNote{}
	err := t.tx.SelectContext(ctx, &out, `select v.id, v.client_id, c.given_name || ' ' || c.family_name as name,
			p.name as therapist, v.starts_at, v.awaits_counter
		from visit v join client c on c.practice_id = v.practice_id and c.id = v.client_id
		join person p on p.practice_id = v.practice_id and p.id = v.therapist_id
		where v.closed_at is not null and (v.signed_at is null or v.awaits_counter)
		order by v.closed_at, v.id limit 100`)
	return out, found("listing unsigned notes", err)
}

// Due is a client whose next visit was proposed and is not booked.
type Due struct {
	Client uuid.UUID    `db:"client_id"`
	Name   string       `db:"name"`
	From   time.Time    `db:"next_from"`
	To     time.Time    `db:"next_to"`
	BornOn sql.NullTime `db:"born_on"`
	// Left and Read are what the latest visit left, and its ranges, as JSON.
	Left []byte `db:"left_off"`
	Read []byte `db:"ranges"`
}

// Rechecks are what the latest visit asks to be looked at again.
func (d Due) Rechecks(age int) ([]visit.Recheck, error) {
	var left visit.LeftOff
	var ranges []visit.Range
	if err := errors.Join(readIf(d.Left, &left), readIf(d.Read, &ranges)); err != nil {
		return nil, found("reading what a visit left", err)
	}
	points := make([]visit.FoundPoint, len(left.Points))
	for i, p := range left.Points {
		points[i] = p.FoundPoint
	}
	return visit.DueAgain(points, ranges, age), nil
}

// DueClients lists those whose time has come by a day, the most overdue first. Who has
// not come for a year is not waited for. What a visit proposes is after it, so a year before
// bounds both.
func (t *Tx) DueClients(ctx context.Context, now time.Time) ([]Due, error) {
	out := []Due{}
	err := t.tx.SelectContext(ctx, &out, `select d.client_id, c.given_name || ' ' || c.family_name as name,
			d.next_from, d.next_to, c.born_on, v.left_off, v.ranges
		from client_due d join client c on c.practice_id = d.practice_id and c.id = d.client_id
		join visit v on v.practice_id = d.practice_id and v.id = d.visit_id
		where d.next_from <= $1::date and d.next_to >= ($1::timestamptz - interval '1 year')::date and d.starts_at > $1::timestamptz - interval '1 year' and c.archived_at is null
			and not exists (select from visit n where n.practice_id = d.practice_id and n.client_id = d.client_id
				and n.starts_at > $1 and n.status = 'booked')
		order by d.next_to, name limit 50`, now)
	return out, found("listing who is due", err)
}

// Spot is the numbers of one spot of a client over visits.
type Spot struct {
	Client uuid.UUID
	Name   string
	Muscle ids.Muscle
	Side   ids.Side
	// Numbers are the scores at test pressure, over visits.
	Numbers []progress.Reading
}

// livelyDays is how far back a client's last visit may lie to be of the view.
const livelyDays = 90

// LivelySpots gives the spots of clients who came lately, with their numbers over
// all visits.
func (t *Tx) LivelySpots(ctx context.Context, now time.Time) ([]Spot, error) {
	var rows []struct {
		Client  uuid.UUID `db:"client_id"`
		Name    string    `db:"name"`
		Muscle  string    `db:"muscle"`
		Side    string    `db:"side"`
		Numbers []byte    `db:"numbers"`
	}
	err := t.tx.SelectContext(ctx, &rows, `with lively as (select distinct client_id from visit
			where opened_at is not null and starts_at between $1::timestamptz - $2 * interval '1 day' and $1)
		select s.client_id, c.given_name || ' ' || c.family_name as name, s.muscle, s.side, s.numbers
		from (select p.practice_id, p.client_id, min(p.muscle) as muscle, min(p.side) as side,
				jsonb_agg(jsonb_build_object('day', extract(epoch from p.starts_at) / 86400, 'value', p.nprs)
					order by p.starts_at) as numbers
			from charted_point p join lively l on l.client_id = p.client_id where p.nprs is not null
			group by p.practice_id, p.client_id, p.identity having count(*) > 1) s
		join client c on c.practice_id = s.practice_id and c.id = s.client_id
		where c.archived_at is null order by name, s.client_id`, now, livelyDays)
	if err != nil {
		return nil, found("reading how clients fare", err)
	}
	out := make([]Spot, len(rows))
	for i, r := range rows {
		out[i] = Spot{Client: r.Client, Name: r.Name, Muscle: ids.Muscle(r.Muscle), Side: ids.Side(r.Side)}
		if err := json.Unmarshal(r.Numbers, &out[i].Numbers); err != nil {
			return nil, found("reading the numbers of a spot", err)
		}
	}
	return out, nil
}

// TreatedByMuscle gives what was found before and after by one protocol alone, over
// all clients: alike rows are counted once, with how many.
func (t *Tx) TreatedByMuscle(ctx context.Context) (map[ids.Muscle][]progress.TreatmentResult, error) {
	return counted(t, "treated", func() (map[ids.Muscle][]progress.TreatmentResult, error) {
		return t.treatedByMuscle(ctx)
	})
}

func (t *Tx) treatedByMuscle(ctx context.Context) (map[ids.Muscle][]progress.TreatmentResult, error) {
	var rows []struct {
		Muscle   string  `db:"muscle"`
		Protocol string  `db:"protocol"`
		Before   float64 `db:"before"`
		After    float64 `db:"after"`
		Seconds  float64 `db:"seconds"`
		N        int     `db:"n"`
	}
	err := t.tx.SelectContext(ctx, &rows, `select p.muscle, h.protocol, p.nprs::float8 as before,
			p.after_nprs::float8 as after, avg(h.ms)::float8 / 1000 as seconds, count(*) as n
		from charted_point p join (select visit_id, point_id, min(protocol) as protocol, sum(pressure_ms) as ms from hold
			where status <> 'aside' group by visit_id, point_id having count(distinct protocol) = 1) h
			on h.visit_id = p.visit_id and h.point_id = p.id
		where p.nprs is not null and p.after_nprs is not null group by 1, 2, 3, 4`)
	if err != nil {
		return nil, found("reading what worked", err)
	}
	out := map[ids.Muscle][]progress.TreatmentResult{}
	for _, r := range rows {
		m := ids.Muscle(r.Muscle)
		out[m] = append(out[m], progress.TreatmentResult{
			Protocol: ids.Protocol(r.Protocol), Before: r.Before, After: r.After, PressedS: r.Seconds, N: r.N,
		})
	}
	return out, nil
}

// Suspicions gives what the list said and what was found, over all clients.
func (t *Tx) Suspicions(ctx context.Context) ([]assess.SearchTally, error) {
	return counted(t, "suspicions", func() ([]assess.SearchTally, error) { return t.suspicions(ctx) })
}

func (t *Tx) suspicions(ctx context.Context) ([]assess.SearchTally, error) {
	var rows []struct {
		Region     string   `db:"region"`
		Confidence float64  `db:"confidence"`
		Findings   textList `db:"findings"`
		Found      int      `db:"found"`
		InVain     int      `db:"in_vain"`
	}
	err := t.tx.SelectContext(ctx, &rows, `select region, round(confidence::numeric, 2)::float8 as confidence,
			to_json(findings)::text as findings, count(*) filter (where found) as found,
			count(*) filter (where not found) as in_vain
		from suspicion group by 1, 2, 3`)
	if err != nil {
		return nil, found("reading what the list said", err)
	}
	out := make([]assess.SearchTally, len(rows))
	for i, r := range rows {
		out[i] = assess.SearchTally{
			Region: r.Region, Confidence: r.Confidence, Findings: r.Findings, Found: r.Found, InVain: r.InVain,
		}
	}
	return out, nil
}

// RefreshAll writes tables of an older program anew, of so many clients at once.
func (t *Tx) RefreshAll(ctx context.Context, now time.Time) error {
	var old []uuid.UUID
	err := t.tx.SelectContext(ctx, &old, `select distinct client_id from visit
		where version > 0 and tables_of < $1 limit 200`, projectionVersion)
	if err != nil {
		return found("looking for tables of an older program", err)
	}
	for _, c := range old {
		if err := t.refresh(ctx, c, now); err != nil {
			return err
		}
	}
	return nil
}
