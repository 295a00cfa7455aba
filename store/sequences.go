package store

import (
	"context"
	"encoding/json"
	"fmt"

	"mokren/core/sequence"
)

// OwnSequences gives the practice's own sequences by their ids.
func (t *Tx) OwnSequences(ctx context.Context) (map[string]sequence.OwnSequence, error) {
	var rows []struct {
		ID   string          `db:"id"`
		Name string          `db:"name"`
		Body json.RawMessage `db:"body"`
	}
	out := map[string]sequence.OwnSequence{}
	if err := t.tx.SelectContext(ctx, &rows, `select id, name, body from own_sequence`); err != nil {
		return out, found("reading the practice's sequences", err)
	}
	for _, r := range rows {
		var own sequence.OwnSequence
		if err := json.Unmarshal(r.Body, &own); err != nil {
			return out, fmt.Errorf("reading the steps of %s: %w", r.Name, err)
		}
		out[r.ID] = own
	}
	return out, nil
}

// PutSequence keeps an own sequence; nil deletes it. A run keeps the steps that it was begun with.
func (t *Tx) PutSequence(ctx context.Context, id string, own *sequence.OwnSequence) error {
	if own == nil {
		_, err := t.tx.ExecContext(ctx, `delete from own_sequence where id = $1`, id)
		return found("deleting a sequence", err)
	}
	body, err := json.Marshal(own)
	if err != nil {
		return err
	}
	_, err = t.tx.ExecContext(ctx, `insert into own_sequence (practice_id, id, name, body) values ($1, $2, $3, $4)
		on conflict (practice_id, id) do update set name = excluded.name, body = excluded.body`,
		t.who.Practice, id, own.Name, body)
	return found("keeping a sequence", err)
}
