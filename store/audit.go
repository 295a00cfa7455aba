package store

import (
	"context"
	"time"

	"github.com/google/uuid"
)

// AuditEntry is one line of the audit: who did or was refused what, when, of whom.
type AuditEntry struct {
	ID int64     `db:"id"`
	At time.Time `db:"at"`
	// Person who did it, by name; a person who has left keeps theirs.
	Person string `db:"person"`
	// Verb, Kind and Subject say what was done to what.
	Verb    string        `db:"verb"`
	Kind    string        `db:"kind"`
	Subject string        `db:"subject"`
	Client  uuid.NullUUID `db:"client_id"`
	Name    string        `db:"name"` // the client's; empty where nobody's record was touched
	// Outcome is done or refused; a refusal leaves its row too.
	Outcome string `db:"outcome"`
}

// AuditFilter narrows the audit down; zero values ask for everything.
type AuditFilter struct {
	Person, Client uuid.NullUUID
	From, To       time.Time
	// Before is the line before which to go on; 0 begins with the latest.
	Before int64
	Limit  int
}

// Audit lists what happened, the latest first.
func (t *Tx) Audit(ctx context.Context, w AuditFilter) ([]AuditEntry, error) {
	out := []AuditEntry{}
	err := t.tx.SelectContext(ctx, &out, `select a.id, a.at, coalesce(p.name, 'a client, by a code') as person, a.verb,
			a.kind, a.subject, a.client_id, coalesce(c.given_name || ' ' || c.family_name, '') as name, a.outcome
		from audit a
		left join person p on p.practice_id = a.practice_id and p.id = a.person_id
		left join client c on c.practice_id = a.practice_id and c.id = a.client_id
		where ($1::uuid is null or a.person_id = $1) and ($2::uuid is null or a.client_id = $2)
			and a.at >= $3 and a.at < $4 and ($5 = 0 or a.id < $5)
		order by a.id desc limit $6`, w.Person, w.Client, w.From, w.To, w.Before, w.Limit)
	return out, found("reading the audit", err)
}
