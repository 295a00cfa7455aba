package store

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"hash/fnv"
	"slices"
	"strconv"
	"time"

	"github.com/google/uuid"

	"mokren/core/record"
	"mokren/core/visit"
)

// tablesOf is the reading of the log that the tables hold; raised when rows
// change, so that older ones are written anew when they are next read.
const projectionVersion = 12

// row is one row of a table, by column.
type row map[string]any

// table is one part of a visit's present state.
type table struct {
	name string
	rows func(Visit, visit.State) []row
}

// tables of a visit; docs/data-model.md tells who reads which.
var tables = []table{
	{"hold", holdRows},
	{"range_reading", rangeRows},
	{"hold_sign", signRows},
	{"consent", consentRows},
	{"step_use", stepRows},
}

// project writes the tables that are the log's present state: one statement for each whose rows
// differ from what was written last, and one for the visit. A key in a hold changes one table
// of seven, so most of them cost a checksum and nothing more. It reports whether a pad's words wait
// for the visit.
func (t *Tx) project(
	ctx context.Context, v Visit, version int64, s visit.State, vc visit.Context,
) (wordsWait bool, err error) {
	var written map[string]string
	kept := v.tablesSum
	if kept == nil { // a visit that came in by a file
		if err := t.tx.GetContext(ctx, &kept, `select tables_sum from visit where id = $1`, v.ID); err != nil {
			return false, found("reading what a visit's tables hold", err)
		}
	}
	if err := json.Unmarshal(kept, &written); err != nil {
		return false, fmt.Errorf("reading the checksums of a visit's tables: %w", err)
	}
	parts, left, err := t.present(ctx, v, s, vc)
	if err != nil {
		return false, err
	}
	for _, p := range parts {
		if sum := checksum(p.rows); cmp.Or(written[p.table], none) != sum {
			if err := t.rewrite(ctx, p.table, v.ID, p.rows); err != nil {
				return false, err
			}
			written[p.table] = sum
		}
	}
	return t.projectVisit(ctx, v, version, s, left, vc.NowMS, written)
}

// part is a visit's rows of one table, as JSON.
type part struct {
	table string
	rows  []byte
}

// present gives what each table holds of a visit, and what it leaves to the next.
func (t *Tx) present(
	ctx context.Context, v Visit, s visit.State, vc visit.Context,
) (parts []part, left visit.LeftOff, err error) {
	searched, err := t.suspicionRows(ctx, v, s, vc)
	if err != nil {
		return nil, left, err
	}
	left = s.LeftOff()
	list := append(slices.Clone(tables),
		table{"charted_point", func(Visit, visit.State) []row { return pointRows(v, s, left.Points) }},
		table{"pain_drawing", func(Visit, visit.State) []row { return drawingRows(s, vc) }},
		table{"suspicion", func(Visit, visit.State) []row { return searched }})
	for _, table := range list {
		rows, err := json.Marshal(t.owned(v, table.rows(v, s)))
		if err != nil {
			return nil, left, err
		}
		parts = append(parts, part{table.name, rows})
	}
	return parts, left, nil
}

// owned numbers the rows and says whose they are.
func (t *Tx) owned(v Visit, rows []row) []row {
	for i, r := range rows {
		r["practice_id"], r["client_id"], r["visit_id"], r["place"] = t.who.Practice, v.ClientID, v.ID, i
	}
	return rows
}

// none is the checksum of a table in which a visit has no row.
var none = checksum([]byte("[]"))

// checksum tells whether rows differ from what was written last. It guards against needless work
// only, so 64 bits without cryptography will do: a clash would leave a stale table until the
// next change.
func checksum(rows []byte) string {
	h := fnv.New64a()
	h.Write(rows) //nolint:errcheck // never fails
	return strconv.FormatUint(h.Sum64(), 36)
}

// rewrite replaces a visit's rows of one table. The insert reads the count, so
// that it begins when the rows of before are gone.
func (t *Tx) rewrite(ctx context.Context, table string, visitID uuid.UUID, rows []byte) error {
	_, err := t.tx.ExecContext(ctx, `with old as (delete from `+table+` where visit_id = $1 returning 1),
		gone as (select count(*) from old)
		insert into `+table+`
		select r.* from gone, jsonb_populate_recordset(null::`+table+`, $2) r`, visitID, rows)
	if err != nil {
		return fmt.Errorf("writing a visit's %s: %w", table, err)
	}
	return nil
}

// projectVisit writes what a visit's own row holds of its state: times, signature, what lists ask
// for. What a visit does not have stays NULL, so that "the latest that has one" finds it.
func (t *Tx) projectVisit(
	ctx context.Context, v Visit, version int64, s visit.State, left visit.LeftOff, nowMS int64,
	written map[string]string,
) (wordsWait bool, err error) {
	sums, err := json.Marshal(written)
	if err != nil {
		return false, err
	}
	latest := map[string]any{}
	for column, of := range map[string]struct {
		v     any
		there bool
	}{
		"interview": {s.Interview, s.Interview != nil},
		"ranges":    {s.Ranges, len(s.Ranges) > 0},
		"gauges":    {s.Gauges, len(s.Gauges) > 0},
		"posture":   {s.Posture, len(s.Posture) > 0},
		"left_off":  {left, len(left.Points) > 0 || len(left.Searched) > 0 || left.Next != ""},
	} {
		if !of.there {
			continue // stays NULL, so that the latest one is found
		}
		if latest[column], err = json.Marshal(of.v); err != nil {
			return false, err
		}
	}
	var signedAt sql.NullTime
	var signedBy *string
	awaits := s.Signed != nil && s.Signed.ByStudent && s.Signed.Counter == nil
	if s.Signed != nil {
		signedAt, signedBy = moment(s.Signed.AtMS), &s.Signed.Author
	}
	var from, to sql.NullTime
	if s.ClosedMS > 0 {
		next := s.Aftercare(nil).Next
		from = sql.NullTime{Time: v.StartsAt.AddDate(0, 0, next.FromDays), Valid: true}
		to = sql.NullTime{Time: v.StartsAt.AddDate(0, 0, next.ToDays), Valid: true}
	}
	err = t.tx.GetContext(ctx, &wordsWait, `update visit set version = $2, opened_at = $3, closed_at = $4,
		reason = coalesce(nullif($5, ''), reason), interview = $6, ranges = $7, gauges = $8, tables_of = $9,
		tables_sum = $10, left_off = $11, signed_at = $12, signed_by = $13,
		next_from = $14, next_to = $15, awaits_counter = $16, posture = $17 where id = $1
		returning exists (select from pad_word w where w.visit_id = visit.id and not taken and at > $18)`,
		v.ID, version, moment(s.OpenedMS), moment(s.ClosedMS), s.Reason, latest["interview"], latest["ranges"],
		latest["gauges"], projectionVersion, sums, latest["left_off"], signedAt, signedBy,
		from, to, awaits, latest["posture"], time.UnixMilli(nowMS).Add(-wordWaits))
	return wordsWait, found("writing a visit's state", err)
}

// refresh writes a client's tables anew where an older program wrote them. A newer
// one's are left: the two may run side by side for a while.
func (t *Tx) refresh(ctx context.Context, client uuid.UUID, now time.Time) error {
	var old []uuid.UUID
	err := t.tx.SelectContext(ctx, &old, `select id from visit
		where client_id = $1 and version > 0 and tables_of < $2 order by starts_at`, client, projectionVersion)
	if err != nil {
		return found("looking for tables of an older program", err)
	}
	for _, id := range old {
		if err := t.reproject(ctx, id, now); err != nil {
			return err
		}
	}
	return nil
}

// reproject computes a visit's tables anew from its log, under its lock.
func (t *Tx) reproject(ctx context.Context, id uuid.UUID, now time.Time) error {
	v, err := t.lockVisit(ctx, id)
	if err != nil {
		return err
	}
	log, err := t.Events(ctx, id)
	if err != nil {
		return err
	}
	vc, err := t.VisitContext(ctx, v, now)
	if err != nil {
		return err
	}
	_, err = t.project(ctx, v, v.Version, visit.Reduce(vc, log), vc)
	return err
}

// pointRows are the points as later visits ask for them: what was found, what let go, what the
// client said.
func pointRows(v Visit, s visit.State, left []visit.LeftPoint) []row {
	rows := make([]row, len(s.Points))
	for i, p := range s.Points {
		worked, treated := s.LetGo(p.Point)
		rows[i] = row{
			"id": p.Point, "identity": p.Identity, "muscle": p.Muscle, "side": p.Side, "site": p.Site,
			"view": p.View, "x": p.X, "y": p.Y, "grade": p.Grade, "nprs": p.NPRS, "after_nprs": p.AfterNPRS,
			"after_grade": p.AfterGrade, "charted_ms": p.ChartedMS, "charted": p.PointCharted,
			"starts_at": v.StartsAt, "worked": worked, "treated_ms": treated, "answer": p.Answer(p.ChartedMS),
			"activity": left[i].Activity,
		}
		if p.Threshold != nil {
			rows[i]["ppt_kpa"] = p.Threshold.KPa
		}
	}
	return rows
}

// holdRows are what lists and the hand's load ask for; the log of a hold stays in the events.
func holdRows(_ Visit, s visit.State) []row {
	rows := make([]row, len(s.Holds))
	for i, h := range s.Holds {
		rows[i] = row{
			"id": h.ID, "point_id": h.Point, "started_at": time.UnixMilli(h.StartedMS), "status": h.Status,
			"outcome": h.Summary.Outcome, "result": h.Result, "pressure_ms": int64(h.Summary.PressureS*1000 + 0.5),
			"parts": h.Summary.Count(), "contact": h.Contact, "protocol": h.Start.Protocol, "author_id": h.Author,
			"hand_ms": int64((h.Summary.PressureS+h.Summary.OverrunS)*1000 + 0.5),
			"spot":    h.Spot, "treats": h.Summary.Treats(record.LeastPressedS), "lengthened": s.LengthenedAfter(h),
		}
	}
	return rows
}

// rangeRows are the ranges before and after; pain is that of the later reading where it has
// one.
func rangeRows(_ Visit, s visit.State) []row {
	rows := make([]row, len(s.Ranges))
	for i, r := range s.Ranges {
		rows[i] = row{
			"movement": r.Movement, "side": r.Side, "before_deg": r.Before, "after_deg": r.After,
			"pain": cmp.Or(r.AfterPain, r.BeforePain),
		}
	}
	return rows
}

// signRows are signs with where the hand was, for the day's other visits.
func signRows(_ Visit, s visit.State) []row {
	rows := make([]row, len(s.Pressed))
	for i, p := range s.Pressed {
		rows[i] = row{"hold_id": p.Hold, "sign": p.Sign, "at": time.UnixMilli(p.AtMS), "spot": p.Spot}
	}
	return rows
}

// stepRows are the steps of sequences in which a hand pressed, for its load.
func stepRows(_ Visit, s visit.State) []row {
	rows := []row{}
	for _, r := range s.Runs {
		for _, u := range r.HandUses() {
			rows = append(rows, row{
				"started_at": time.UnixMilli(u.AtMS), "author_id": r.Author, "contact": u.Contact,
				"hand_ms": int64(u.Seconds*1000 + 0.5),
			})
		}
	}
	return rows
}

// consentRows are the latest words on each area.
func consentRows(_ Visit, s visit.State) []row {
	rows := make([]row, len(s.Consents))
	for i, c := range s.Consents {
		rows[i] = row{
			"area": c.Area, "given": c.Given, "given_by": cmp.Or(c.By, "client"), "chaperone": c.Chaperone,
			"note": c.Note,
		}
	}
	return rows
}

// drawingRows is one row, or none where nothing was painted.
func drawingRows(s visit.State, vc visit.Context) []row {
	if len(s.Drawing) == 0 {
		return []row{}
	}
	return []row{{"strokes": s.Drawing, "area_cm2": s.PainCM2(vc)}}
}

// moment is NULL for a time that has not come.
func moment(ms int64) sql.NullTime {
	return sql.NullTime{Time: time.UnixMilli(ms), Valid: ms > 0}
}
