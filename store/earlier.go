package store

import (
	"context"
	"encoding/json"
	"errors"
	"time"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/visit"
)

// Earlier is what a visit needs of the client's earlier ones.
type Earlier struct {
	// Points are the spots of earlier visits, each as it was found last, the
	// latest first.
	Points []visit.FoundPoint
	// Ranges, Gauges, Posture and Interview are of the latest visit that has any.
	Ranges    []visit.Range
	Gauges    []visit.GaugePair
	Posture   []assess.Posture
	Interview *visit.InterviewNoted
	// Left is what the latest visit that left anything has left.
	Left *visit.LeftOff
	// Drawings are the latest few, the latest first.
	Drawings []Drawing
}

// Drawing is a visit's pain drawing.
type Drawing struct {
	Visit    string
	StartsAt time.Time
	Strokes  []visit.Stroke
}

// drawingsKept: so many earlier drawings can be laid beside today's.
const drawingsKept = 4

// before limits a query to the opened visits before v.
const before = `v.client_id = $1 and v.starts_at < $2 and v.id <> $3 and v.opened_at is not null`

// Earlier reads what a visit needs of earlier ones, with as many statements for
// one of them as for hundreds.
func (t *Tx) Earlier(ctx context.Context, v Visit, now time.Time) (Earlier, error) {
	out := Earlier{
		Points: []visit.FoundPoint{}, Ranges: []visit.Range{}, Gauges: []visit.GaugePair{}, Posture: []assess.Posture{},
		Drawings: []Drawing{},
	}
	if err := t.refresh(ctx, v.ClientID, now); err != nil {
		return out, err
	}
	for _, read := range []func(context.Context, Visit, *Earlier) error{
		t.earlierPoints, t.earlierStory, t.earlierDrawings,
	} {
		if err := read(ctx, v, &out); err != nil {
			return out, err
		}
	}
	return out, nil
}

// earlierPoints gives each spot once, as it was found last, with when it was first found, what
// helped, and what the client has said of it.
func (t *Tx) earlierPoints(ctx context.Context, v Visit, out *Earlier) error {
	var rows []pointRow
	err := t.tx.SelectContext(ctx, &rows, `with spot as (select identity, min(charted_ms) as first_ms,
				max(treated_ms) as treated_ms,
				coalesce((array_agg(worked order by starts_at desc) filter (where worked <> ''))[1], '') as worked,
				coalesce(jsonb_agg(answer order by charted_ms) filter (where answer is not null), '[]') as answers,
				(array_agg(visit_id order by starts_at desc, place desc))[1] as visit_id,
				(array_agg(id order by starts_at desc, place desc))[1] as id
			from charted_point
			where client_id = $1 and starts_at < $2 and visit_id <> $3 group by identity)
		select charted, charted_ms, after_nprs::float8, after_grade, first_ms, spot.treated_ms, spot.worked, answers
		from spot join charted_point p using (visit_id, id)
		order by p.starts_at desc, visit_id, place`, v.ClientID, v.StartsAt, v.ID)
	if err != nil {
		return found("reading the points of earlier visits", err)
	}
	out.Points, err = foundPoints(rows)
	return err
}

// pointRow is a point with all that was charted.
type pointRow struct {
	// Charted is the event's body, as it was written.
	Charted    []byte   `db:"charted"`
	ChartedMS  int64    `db:"charted_ms"`
	AfterNPRS  *float64 `db:"after_nprs"`
	AfterGrade *int     `db:"after_grade"`
	// FirstMS is when the spot was first found, TreatedMS when it was pressed last.
	FirstMS   int64  `db:"first_ms"`
	TreatedMS int64  `db:"treated_ms"`
	Worked    string `db:"worked"`
	// Answers are what the client has said of it over visits.
	Answers []byte `db:"answers"`
}

// foundPoints reads rows into the shape that the core knows.
func foundPoints(rows []pointRow) ([]visit.FoundPoint, error) {
	out := make([]visit.FoundPoint, len(rows))
	for i, r := range rows {
		out[i] = visit.FoundPoint{
			ChartedMS: r.ChartedMS, AfterNPRS: r.AfterNPRS, AfterGrade: r.AfterGrade, FirstMS: r.FirstMS,
			TreatedMS: r.TreatedMS, Worked: ids.Protocol(r.Worked),
		}
		if err := readIf(r.Answers, &out[i].Answers); err != nil {
			return nil, found("reading what was answered", err)
		}
		out[i].Own = visit.OwnMap(out[i].Answers)
		if err := json.Unmarshal(r.Charted, &out[i].PointCharted); err != nil {
			return nil, found("reading what was charted", err)
		}
	}
	return out, nil
}

// LastPoints are those of a client's latest visit that has any.
func (t *Tx) LastPoints(ctx context.Context, v Visit) ([]visit.FoundPoint, error) {
	var rows []pointRow
	err := t.tx.SelectContext(ctx, &rows, `select charted, charted_ms, after_nprs::float8, after_grade
		from charted_point where visit_id = $1 order by place`, v.ID)
	if err != nil {
		return nil, found("reading the points of the last visit", err)
	}
	return foundPoints(rows)
}

// EarlierInterview is the latest of the visits before v; nil without one.
func (t *Tx) EarlierInterview(ctx context.Context, v Visit, now time.Time) (*visit.InterviewNoted, error) {
	var out Earlier
	if err := t.refresh(ctx, v.ClientID, now); err != nil {
		return nil, err
	}
	err := t.earlierStory(ctx, v, &out)
	return out.Interview, err
}

// earlierStory reads the latest interview, ranges and gauges.
func (t *Tx) earlierStory(ctx context.Context, v Visit, out *Earlier) error {
	var row struct {
		Interview []byte `db:"interview"`
		Ranges    []byte `db:"ranges"`
		Gauges    []byte `db:"gauges"`
		Posture   []byte `db:"posture"`
		Left      []byte `db:"left_off"`
	}
	err := t.tx.GetContext(ctx, &row, `select
		(select v.interview from visit v where `+before+` and v.interview is not null
			order by v.starts_at desc limit 1) as interview,
		(select v.ranges from visit v where `+before+` and v.ranges is not null
			order by v.starts_at desc limit 1) as ranges,
		(select v.gauges from visit v where `+before+` and v.gauges is not null
			order by v.starts_at desc limit 1) as gauges,
		(select v.posture from visit v where `+before+` and v.posture is not null
			order by v.starts_at desc limit 1) as posture,
		(select v.left_off from visit v where `+before+` and v.left_off is not null
			order by v.starts_at desc limit 1) as left_off`, v.ClientID, v.StartsAt, v.ID)
	if err != nil {
		return found("reading the story of earlier visits", err)
	}
	return errors.Join(
		readIf(row.Interview, &out.Interview), readIf(row.Ranges, &out.Ranges), readIf(row.Gauges, &out.Gauges),
		readIf(row.Posture, &out.Posture), readIf(row.Left, &out.Left),
	)
}

// readIf reads JSON, where there is any.
func readIf(raw []byte, dst any) error {
	if raw == nil {
		return nil
	}
	return json.Unmarshal(raw, dst)
}

// earlierDrawings are the latest pain drawings, to lay beside today's.
func (t *Tx) earlierDrawings(ctx context.Context, v Visit, out *Earlier) error {
	var rows []struct {
		Visit    string    `db:"visit_id"`
		StartsAt time.Time `db:"starts_at"`
		Strokes  []byte    `db:"strokes"`
	}
	err := t.tx.SelectContext(ctx, &rows, `select d.visit_id, v.starts_at, d.strokes from pain_drawing d
		join visit v on v.practice_id = d.practice_id and v.id = d.visit_id
		where `+before+` order by v.starts_at desc, v.id limit $4`, v.ClientID, v.StartsAt, v.ID, drawingsKept)
	if err != nil {
		return found("reading the drawings of earlier visits", err)
	}
	for _, r := range rows {
		d := Drawing{Visit: r.Visit, StartsAt: r.StartsAt}
		if err := json.Unmarshal(r.Strokes, &d.Strokes); err != nil {
			return found("reading an earlier drawing", err)
		}
		out.Drawings = append(out.Drawings, d)
	}
	return nil
}
