package store

import (
	"context"
	"fmt"

	"mokren/core/assess"
)

// Weights gives the practice's own likelihood ratios.
func (t *Tx) Weights(ctx context.Context) (assess.Weights, error) {
	var rows []struct {
		ID    string  `db:"evidence"`
		Plus  float64 `db:"plus"`
		Minus float64 `db:"minus"`
	}
	out := assess.Weights{}
	if err := t.tx.SelectContext(ctx, &rows, `select evidence, plus, minus from evidence_weight`); err != nil {
		return out, found("reading the practice's weights", err)
	}
	for _, r := range rows {
		out[r.ID] = assess.Ratio{Plus: r.Plus, Minus: r.Minus}
	}
	return out, nil
}

// PutWeight sets one ratio; nil goes back to what was shipped.
func (t *Tx) PutWeight(ctx context.Context, id string, r *assess.Ratio) error {
	var err error
	if r == nil {
		_, err = t.tx.ExecContext(ctx, `delete from evidence_weight where evidence = $1`, id)
	} else {
		_, err = t.tx.ExecContext(ctx, `insert into evidence_weight (practice_id, evidence, plus, minus,
			person_id) values ($1, $2, $3, $4, $5)
			on conflict (practice_id, evidence) do update set plus = excluded.plus, minus = excluded.minus,
			person_id = excluded.person_id, updated_at = now()`,
			t.who.Practice, id, r.Plus, r.Minus, t.who.Person)
	}
	if err != nil {
		return fmt.Errorf("setting a weight: %w", err)
	}
	return nil
}

// Thresholds gives the practice's own thresholds of posture flags.
func (t *Tx) Thresholds(ctx context.Context) (assess.Thresholds, error) {
	var rows []struct {
		ID    string  `db:"threshold"`
		Value float64 `db:"value"`
	}
	out := assess.Thresholds{}
	if err := t.tx.SelectContext(ctx, &rows, `select threshold, value from posture_threshold`); err != nil {
		return out, found("reading the practice's thresholds", err)
	}
	for _, r := range rows {
		out[r.ID] = r.Value
	}
	return out, nil
}

// PutThreshold sets one threshold; nil goes back to what was shipped.
func (t *Tx) PutThreshold(ctx context.Context, id string, v *float64) error {
	var err error
	if v == nil {
		_, err = t.tx.ExecContext(ctx, `delete from posture_threshold where threshold = $1`, id)
	} else {
		_, err = t.tx.ExecContext(ctx, `insert into posture_threshold (practice_id, threshold, value,
			person_id) values ($1, $2, $3, $4)
			on conflict (practice_id, threshold) do update set value = excluded.value, person_id = excluded.person_id,
			updated_at = now()`,
			t.who.Practice, id, *v, t.who.Person)
	}
	if err != nil {
		return fmt.Errorf("setting a threshold: %w", err)
	}
	return nil
}
