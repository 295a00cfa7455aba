package store

import (
	"context"
	"encoding/json"
	"fmt"

	"mokren/core/ids"
	"mokren/core/treat"
)

// OwnProtocols gives the practice's own copies of protocols by their ids.
func (t *Tx) OwnProtocols(ctx context.Context) (map[string]treat.OwnProtocol, error) {
	var rows []struct {
		ID       string          `db:"id"`
		Name     string          `db:"name"`
		Protocol string          `db:"protocol"`
		Numbers  json.RawMessage `db:"numbers"`
	}
	out := map[string]treat.OwnProtocol{}
	err := t.tx.SelectContext(ctx, &rows, `select id, protocol, name, numbers from own_protocol order by name`)
	if err != nil {
		return out, found("reading the practice's protocols", err)
	}
	for _, r := range rows {
		own := treat.OwnProtocol{Protocol: ids.Protocol(r.Protocol), Name: r.Name}
		if err := json.Unmarshal(r.Numbers, &own.Numbers); err != nil {
			return out, fmt.Errorf("reading the numbers of %s: %w", r.Name, err)
		}
		out[r.ID] = own
	}
	return out, nil
}

// PutProtocol keeps an own copy; nil forgets it. Holds keep the plan they were
// begun with.
func (t *Tx) PutProtocol(ctx context.Context, id string, own *treat.OwnProtocol) error {
	if own == nil {
		_, err := t.tx.ExecContext(ctx, `delete from own_protocol where id = $1`, id)
		return found("forgetting a protocol", err)
	}
	numbers, err := json.Marshal(own.Numbers)
	if err != nil {
		return err
	}
	_, err = t.tx.ExecContext(ctx, `insert into own_protocol (practice_id, id, protocol, name, numbers)
		values ($1, $2, $3, $4, $5)
		on conflict (practice_id, id) do update set protocol = excluded.protocol, name = excluded.name,
			numbers = excluded.numbers`,
		t.who.Practice, id, own.Protocol, own.Name, numbers)
	return found("keeping a protocol", err)
}
