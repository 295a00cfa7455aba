package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mokren/core/visit"
)

// VisitFault is a visit whose tables are not what its log comes to.
type VisitFault struct {
	Visit uuid.UUID
	// Tables that differ, as they stand beside what the whole log gives today.
	Tables []string
}

// CheckVisits holds the tables of every visit of the practice against its whole log. A visit in
// which one writes is gone on with and not read anew (ongoing.go), so this is where an error of that
// would show. Visits that an older program wrote are written anew when they are next read, and left out.
// It changes nothing.
func (t *Tx) CheckVisits(ctx context.Context, now time.Time) (looked int, faults []VisitFault, err error) {
	var list []uuid.UUID
	err = t.tx.SelectContext(ctx, &list, `select id from visit where version > 0 and tables_of = $1 order by starts_at, id`,
		projectionVersion)
	if err != nil {
		return 0, nil, found("listing visits", err)
	}
	for _, id := range list {
		differs, err := t.checkVisit(ctx, id, now)
		if err != nil {
			return looked, faults, fmt.Errorf("checking visit %s: %w", id, err)
		}
		looked++
		if len(differs) > 0 {
			faults = append(faults, VisitFault{id, differs})
		}
	}
	return looked, faults, nil
}

func (t *Tx) checkVisit(ctx context.Context, id uuid.UUID, now time.Time) (differs []string, err error) {
	v, err := t.Visit(ctx, id)
	if err != nil {
		return nil, err
	}
	log, err := t.Events(ctx, id)
	if err != nil {
		return nil, err
	}
	vc, err := t.VisitContext(ctx, v, now)
	if err != nil {
		return nil, err
	}
	parts, _, err := t.present(ctx, v, visit.Reduce(vc, log), vc)
	if err != nil {
		return nil, err
	}
	for _, p := range parts {
		stands, err := t.stands(ctx, p, id)
		if err != nil {
			return nil, err
		}
		if !stands {
			differs = append(differs, p.table)
		}
	}
	return differs, nil
}

// stands reports whether a visit's rows of a table are those of a part, column by column as
// PostgreSQL would write them.
func (t *Tx) stands(ctx context.Context, p part, id uuid.UUID) (same bool, err error) {
	err = t.tx.GetContext(ctx, &same, `select coalesce((select jsonb_agg(to_jsonb(r) order by r.place) from `+p.table+` r
			where r.visit_id = $1), '[]') = coalesce((select jsonb_agg(to_jsonb(w) order by w.place)
			from jsonb_populate_recordset(null::`+p.table+`, $2) w), '[]')`, id, json.RawMessage(p.rows))
	return same, found("reading a visit's "+p.table, err)
}
