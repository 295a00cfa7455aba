package store

import (
	"context"
	"crypto/rand"
	"encoding/base64"
	"time"

	"github.com/google/uuid"
)

// CalendarLink is a subscription: a person's appointments, for whoever has the
// secret.
type CalendarLink struct {
	Names  bool      `db:"names"`
	MadeAt time.Time `db:"made_at"`
}

// NewCalendarLink makes a person's link, in place of an earlier one; the secret is
// shown once and kept nowhere.
func (t *Tx) NewCalendarLink(ctx context.Context, names bool) (string, error) {
	b := make([]byte, 24)
	if _, err := rand.Read(b); err != nil {
		return "", err
	}
	secret := base64.RawURLEncoding.EncodeToString(b)
	_, err := t.tx.ExecContext(ctx, `select calendar_put($1, $2, $3, $4)`, codeHash(secret), t.who.Practice,
		t.who.Person, names)
	return secret, found("making a calendar link", err)
}

// DropCalendarLink takes a person's link back.
func (t *Tx) DropCalendarLink(ctx context.Context) error {
	_, err := t.tx.ExecContext(ctx, `select calendar_put(null, $1, $2, false)`, t.who.Practice, t.who.Person)
	return found("taking a calendar link back", err)
}

// OwnCalendarLink tells whether there is one.
func (t *Tx) OwnCalendarLink(ctx context.Context) (*CalendarLink, error) {
	var list []CalendarLink
	err := t.tx.SelectContext(ctx, &list, `select * from calendar_known($1, $2)`, t.who.Practice, t.who.Person)
	if err != nil || len(list) == 0 {
		return nil, found("looking for a calendar link", err)
	}
	return &list[0], nil
}

// Subscription is whose calendar a secret opens.
type Subscription struct {
	Practice uuid.UUID `db:"practice_id"`
	Person   uuid.UUID `db:"person_id"`
	Names    bool      `db:"names"`
}

// FindCalendar looks a secret up, outside any practice.
func (s *Store) FindCalendar(ctx context.Context, secret string) (Subscription, error) {
	var out Subscription
	err := s.db.GetContext(ctx, &out, `select * from calendar_find($1)`, codeHash(secret))
	return out, found("looking up a calendar", err)
}
