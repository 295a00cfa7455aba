package store

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"github.com/google/uuid"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/points"
	"mokren/core/treat"
	"mokren/core/visit"
)

// Record is what a client's visits left behind, by visit.
type Record struct {
	// Points of each visit; the other maps go by visit in the same way.
	Points   map[uuid.UUID][]visit.TreatedPoint
	Ranges   map[uuid.UUID][]visit.Range
	Consents map[uuid.UUID][]visit.ConsentRecorded
	Told     map[uuid.UUID]ClientReport
}

// ClientReport is what the client said and drew at a visit.
type ClientReport struct {
	PainCM2 *float64
	visit.InterviewNoted
}

// Record reads the points of a client's visits with what their holds came to,
// readings and consents, with as many statements for one visit as for hundreds.
func (t *Tx) Record(ctx context.Context, client uuid.UUID, visits []Visit, now time.Time) (Record, error) {
	var out Record
	if err := t.refresh(ctx, client, now); err != nil {
		return out, err
	}
	of := make([]uuid.UUID, len(visits))
	for i, v := range visits {
		of[i] = v.ID
	}
	var err error
	if out.Points, err = t.treated(ctx, of); err != nil {
		return out, err
	}
	if out.Ranges, err = t.readings(ctx, of); err != nil {
		return out, err
	}
	if out.Consents, err = t.consents(ctx, of); err != nil {
		return out, err
	}
	out.Told, err = t.told(ctx, of)
	return out, err
}

// treatedQuery reads the points of visits, each with what its holds came to.
const treatedQuery = `select p.visit_id, p.id, p.identity, p.muscle, p.side, p.site, p.view, p.x,
		p.y, p.grade, p.nprs::float8, p.after_nprs::float8, p.after_grade, coalesce(h.holds, 0) as holds,
		coalesce(h.pressure_ms, 0) as pressure_ms, coalesce(h.parts, 0) as parts, coalesce(h.outcome, '') as outcome, coalesce(h.result, '') as result,
		p.ppt_kpa, coalesce(p.activity, '') as activity, p.answer, h.protocols,
		coalesce(h.lengthened, false) as lengthened
		from charted_point p
		left join (select visit_id, point_id, count(*) as holds, sum(pressure_ms)::bigint as pressure_ms,
				sum(parts) as parts, (array_agg(outcome order by started_at desc, id desc))[1] as outcome,
				(array_agg(result order by started_at desc, id desc))[1] as result,
				to_json(array_agg(distinct protocol)) as protocols,
				(array_agg(lengthened order by started_at desc, id desc))[1] as lengthened
			from hold where visit_id = any ($1) and status <> 'aside' group by visit_id, point_id) h
			on h.visit_id = p.visit_id and h.point_id = p.id
		where p.visit_id = any ($1) order by p.visit_id, p.place`

// treated are points with the sums of their holds. What was rejected counts
// nowhere; the last hold's outcome is the point's.
func (t *Tx) treated(ctx context.Context, visits []uuid.UUID) (map[uuid.UUID][]visit.TreatedPoint, error) {
	var rows []struct {
		Visit      uuid.UUID       `db:"visit_id"`
		ID         string          `db:"id"`
		Identity   string          `db:"identity"`
		Muscle     string          `db:"muscle"`
		Side       string          `db:"side"`
		Site       string          `db:"site"`
		View       string          `db:"view"`
		X          float64         `db:"x"`
		Y          float64         `db:"y"`
		Grade      *int            `db:"grade"`
		NPRS       sql.NullFloat64 `db:"nprs"`
		After      sql.NullFloat64 `db:"after_nprs"`
		AfterGrade sql.NullInt64   `db:"after_grade"`
		Holds      int             `db:"holds"`
		MS         int64           `db:"pressure_ms"`
		Parts      int             `db:"parts"`
		Outcome    string          `db:"outcome"`
		Result     string          `db:"result"`
		PPT        *float64        `db:"ppt_kpa"`
		Activity   string          `db:"activity"`
		Answer     []byte          `db:"answer"`
		Protocols  []byte          `db:"protocols"`
		Lengthened bool            `db:"lengthened"`
	}
	err := t.tx.SelectContext(ctx, &rows, treatedQuery, visits)
	if err != nil {
		return nil, found("reading a client's points", err)
	}
	out := map[uuid.UUID][]visit.TreatedPoint{}
	for _, r := range rows {
		p := visit.TreatedPoint{
			SecondsS: float64(r.MS) / 1000, Holds: r.Holds, Parts: r.Parts, Outcome: treat.Outcome(r.Outcome),
			Result: r.Result, Lengthened: r.Lengthened,
		}
		p.Point, p.Identity = visit.UUID(r.ID), visit.UUID(r.Identity)
		p.Muscle, p.Side, p.Site = ids.Muscle(r.Muscle), ids.Side(r.Side), r.Site
		p.View, p.X, p.Y = body.View(r.View), r.X, r.Y
		p.Grade, p.NPRS, p.AfterNPRS = r.Grade, number(r.NPRS), number(r.After)
		if r.AfterGrade.Valid {
			grade := int(r.AfterGrade.Int64)
			p.AfterGrade = &grade
		}
		p.PPT, p.Activity = r.PPT, points.Activity(r.Activity)
		var answer visit.SpotAnswer
		if err := errors.Join(readIf(r.Protocols, &p.Protocols), readIf(r.Answer, &answer)); err != nil {
			return nil, found("reading by what a point was pressed, and what was answered", err)
		}
		p.Referral = answer.Places
		out[r.Visit] = append(out[r.Visit], p)
	}
	return out, nil
}

// readings are the ranges of some visits, read at once.
func (t *Tx) readings(ctx context.Context, visits []uuid.UUID) (map[uuid.UUID][]visit.Range, error) {
	var rows []struct {
		Visit    uuid.UUID       `db:"visit_id"`
		Movement string          `db:"movement"`
		Side     string          `db:"side"`
		Before   sql.NullFloat64 `db:"before_deg"`
		After    sql.NullFloat64 `db:"after_deg"`
		Pain     *float64        `db:"pain"`
	}
	err := t.tx.SelectContext(ctx, &rows, `select visit_id, movement, side, before_deg, after_deg,
		pain::float8 as pain from range_reading
		where visit_id = any ($1) order by visit_id, place`, visits)
	if err != nil {
		return nil, found("reading a client's ranges", err)
	}
	out := map[uuid.UUID][]visit.Range{}
	for _, r := range rows {
		out[r.Visit] = append(out[r.Visit], visit.Range{
			Movement: ids.Movement(r.Movement), Side: ids.Side(r.Side),
			Before: number(r.Before), After: number(r.After), AfterPain: r.Pain,
		})
	}
	return out, nil
}

// consents are those of some visits, read at once, in the order in which they were recorded.
func (t *Tx) consents(ctx context.Context, visits []uuid.UUID) (map[uuid.UUID][]visit.ConsentRecorded, error) {
	var rows []struct {
		Visit uuid.UUID `db:"visit_id"`
		visit.ConsentRecorded
	}
	err := t.tx.SelectContext(ctx, &rows, `select visit_id, area, given, given_by as by, chaperone, note from consent
		where visit_id = any ($1) order by visit_id, place`, visits)
	if err != nil {
		return nil, found("reading a client's consents", err)
	}
	out := map[uuid.UUID][]visit.ConsentRecorded{}
	for _, r := range rows {
		out[r.Visit] = append(out[r.Visit], r.ConsentRecorded)
	}
	return out, nil
}

// told is what the client said and drew.
func (t *Tx) told(ctx context.Context, visits []uuid.UUID) (map[uuid.UUID]ClientReport, error) {
	var rows []struct {
		Visit     uuid.UUID `db:"id"`
		Interview []byte    `db:"interview"`
		Area      *float64  `db:"area_cm2"`
	}
	err := t.tx.SelectContext(ctx, &rows, `select v.id, v.interview, d.area_cm2 from visit v
		left join pain_drawing d on d.practice_id = v.practice_id and d.visit_id = v.id
		where v.id = any ($1) and (v.interview is not null or d.area_cm2 is not null)`, visits)
	if err != nil {
		return nil, found("reading what a client said", err)
	}
	out := map[uuid.UUID]ClientReport{}
	for _, r := range rows {
		said := ClientReport{PainCM2: r.Area}
		if err := readIf(r.Interview, &said.InterviewNoted); err != nil {
			return nil, found("reading a story", err)
		}
		out[r.Visit] = said
	}
	return out, nil
}

// number is a value that may be NULL.
func number(n sql.NullFloat64) *float64 {
	if !n.Valid {
		return nil
	}
	return &n.Float64
}
