package store

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"
)

// ErrHeld: the law wants a record to be kept.
var ErrHeld = errors.New("this record is held by law")

// HoldByLaw keeps a client's record from being erased; an empty reason ends that.
func (t *Tx) HoldByLaw(ctx context.Context, client uuid.UUID, reason string) error {
	t.touch(client)
	var one uuid.UUID
	err := t.tx.GetContext(ctx, &one, `update client set legal_hold = $2 where id = $1 returning id`, client, reason)
	return found("holding a record", err)
}

// Erase takes a client's record out of the database for good, photographs, links and
// the log included; a tombstone without a name stays.
func (t *Tx) Erase(ctx context.Context, client uuid.UUID, reason string) error {
	t.touch(client)
	var hold string
	err := t.tx.GetContext(ctx, &hold, `select legal_hold from client where id = $1 for update`, client)
	if err != nil {
		return found("looking for a client", err)
	}
	if hold != "" {
		return ErrHeld
	}
	t.afterwards(func() { t.ongoing.drop(client); t.protected.drop(client) })
	_, err = t.tx.ExecContext(ctx, `select client_erase($1, $2)`, client, reason)
	return found("erasing a record", err)
}

// ErrErased: the record of this id was erased, and it does not come back.
var ErrErased = errors.New("this record was erased")

// notErased keeps an erased id from being used again.
func (t *Tx) notErased(ctx context.Context, client string) error {
	var gone bool
	err := t.tx.GetContext(ctx, &gone, `select exists (select from erasure where client_id = $1::uuid)`, client)
	if err == nil && gone {
		return ErrErased
	}
	return found("looking for an erasure", err)
}

// Erasure is what stays of an erased record.
type Erasure struct {
	Client uuid.UUID `db:"client_id"`
	At     time.Time `db:"at"`
	By     string    `db:"by"`
	Reason string    `db:"reason"`
	Visits int       `db:"visits"`
	Events int       `db:"events"`
}

// Erasures lists what was erased, the latest first.
func (t *Tx) Erasures(ctx context.Context) ([]Erasure, error) {
	out := []Erasure{}
	err := t.tx.SelectContext(ctx, &out, `select e.client_id, e.at, p.name as by, e.reason, e.visits, e.events
		from erasure e join person p on p.practice_id = e.practice_id and p.id = e.person_id
		order by e.at desc, e.client_id limit 500`)
	return out, found("listing what was erased", err)
}
