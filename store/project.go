package store

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mokren/core/body"
	"mokren/core/visit"
)

// project writes the tables that are the log's present state.
func (t *Tx) project(ctx context.Context, client, visitID uuid.UUID, version int64, s visit.State) error {
	var errs []error
	exec := func(q string, args ...any) {
		if _, err := t.tx.ExecContext(ctx, q, args...); err != nil && errs == nil {
			errs = append(errs, err)
		}
	}
	exec(`update visit set version = $2, opened_at = $3, closed_at = $4, reason = coalesce(nullif($5, ''), reason)
		where id = $1`,
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
		exec(`insert into range_reading (practice_id, client_id, visit_id, movement, side, before_deg, after_deg)
			values ($1, $2, $3, $4, $5, $6, $7)`,
			t.who.Practice, client, visitID, r.Movement, r.Side, r.Before, r.After)
	}
	exec(`delete from screening where visit_id = $1`, visitID)
	// A clearance of what was carried comes before this visit's own answers.
	for i, c := range s.Cleared {
		exec(`insert into screening (practice_id, client_id, visit_id, place, question, answer, side, regions, note)
			values ($1, $2, $3, $4, $5, 'cleared', '', '{}', $6)`,
			t.who.Practice, client, visitID, i, c.Question, c.By+", "+c.On+": "+c.Note)
	}
	for i, a := range s.Answers {
		exec(`insert into screening (practice_id, client_id, visit_id, place, question, answer, side, regions, note,
			answered_by, cleared)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)`,
			t.who.Practice, client, visitID, len(s.Cleared)+i, a.Question, a.Answer, a.Side, texts(a.Regions), a.Note,
			cmp.Or(a.By, "therapist"), a.Cleared)
	}
	exec(`delete from hold_sign where visit_id = $1`, visitID)
	for i, p := range s.Pressed {
		spot, err := json.Marshal(p.Spot)
		if err != nil {
			return err
		}
		exec(`insert into hold_sign (practice_id, client_id, visit_id, place, hold_id, sign, at, spot)
			values ($1, $2, $3, $4, $5, $6, $7, $8)`,
			t.who.Practice, client, visitID, i, p.Hold, p.Sign, time.UnixMilli(p.AtMS), spot)
	}
	exec(`delete from consent where visit_id = $1`, visitID)
	for _, c := range s.Consents {
		exec(`insert into consent (practice_id, client_id, visit_id, area, given, given_by, chaperone, note)
			values ($1, $2, $3, $4, $5, $6, $7, $8)`,
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
		exec(`insert into pain_drawing (practice_id, client_id, visit_id, figure, cells, strokes)
			values ($1, $2, $3, $4, $5, $6)`,
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
