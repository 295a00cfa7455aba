package store

import (
	"context"
	"time"

	"github.com/google/uuid"
)

// Device is where a person is signed in.
type Device struct {
	ID      uuid.UUID `db:"id"`
	Session []byte    `db:"session"` // the hash that the session is kept by
	// Agent is what the browser says it is, in a line.
	Agent   string    `db:"agent"`
	Address string    `db:"address"`
	At      time.Time `db:"at"`
	// Expires is when its session ends by itself.
	Expires time.Time `db:"expiry"`
}

// SignedIn notes where someone signed in. Devices whose session is gone go with it.
func (t *Tx) SignedIn(ctx context.Context, session []byte, agent, address string) error {
	_, err := t.tx.ExecContext(ctx, `delete from device d where person_id = $1
		and at < now() - interval '1 minute' and not exists (select from session s where s.token = d.session)`, t.who.Person)
	if err != nil {
		return found("forgetting old devices", err)
	}
	_, err = t.tx.ExecContext(ctx, `insert into device (practice_id, person_id, id, session, agent, address)
		values ($1, $2, $3, $4, left($5, 300), $6) on conflict (session) do nothing`,
		t.who.Practice, t.who.Person, uuid.New(), session, agent, address)
	return found("noting a device", err)
}

// Devices lists where who acts is signed in, the latest first.
func (t *Tx) Devices(ctx context.Context) ([]Device, error) {
	out := []Device{}
	err := t.tx.SelectContext(ctx, &out, `select d.id, d.session, d.agent, d.address, d.at, s.expiry
		from device d join session s on s.token = d.session
		where d.person_id = $1 and s.expiry > now() order by d.at desc, d.id`, t.who.Person)
	return out, found("listing devices", err)
}

// EndDevice signs one of the own devices out.
func (t *Tx) EndDevice(ctx context.Context, id uuid.UUID) error {
	var session []byte
	err := t.tx.GetContext(ctx, &session, `delete from device where person_id = $1 and id = $2 returning session`,
		t.who.Person, id)
	if err != nil {
		return found("looking for a device", err)
	}
	_, err = t.tx.ExecContext(ctx, `delete from session where token = $1`, session)
	return found("ending a session", err)
}

// EndSessions signs a person out everywhere, but for one session.
func (t *Tx) EndSessions(ctx context.Context, person uuid.UUID, but []byte) error {
	_, err := t.tx.ExecContext(ctx, `with gone as (delete from device
			where person_id = $1 and session is distinct from $2 returning session)
		delete from session where token in (select session from gone)`, person, but)
	return found("ending sessions", err)
}
