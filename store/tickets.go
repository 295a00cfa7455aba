package store

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mokren/core/rights"
)

// Kinds of one-time links.
const (
	ToJoin  = "join"
	ToReset = "reset"
	ToSetUp = "set-up"
)

// ticketLasts so long before it must be used.
var ticketLasts = map[string]time.Duration{ToJoin: 7 * 24 * time.Hour, ToReset: 24 * time.Hour, ToSetUp: 24 * time.Hour}

// Ticket is a one-time link: it lets someone choose a password.
type Ticket struct {
	Kind     string        `db:"kind"`
	Practice uuid.NullUUID `db:"practice_id"`
	Person   uuid.NullUUID `db:"person_id"`
	Email    string        `db:"email"`
}

// ticketHash is what is stored of a link, so that the database opens none.
func ticketHash(secret string) []byte {
	h := sha256.Sum256([]byte(secret))
	return h[:]
}

// newSecret is 192 random bits, beyond guessing, in letters that an address may have.
func newSecret() string {
	b := make([]byte, 24)
	rand.Read(b) //nolint:errcheck // never fails
	return base64.RawURLEncoding.EncodeToString(b)
}

// NewTicket makes a person's link, in place of an earlier one; the secret is shown
// once and kept nowhere.
func (t *Tx) NewTicket(ctx context.Context, kind string, person uuid.UUID, email string, now time.Time,
) (secret string, until time.Time, err error) {
	secret, until = newSecret(), now.Add(ticketLasts[kind])
	_, err = t.tx.ExecContext(ctx, `select ticket_put($1, $2, $3, $4, $5)`, ticketHash(secret), kind, person, email, until)
	return secret, until, found("making a link", err)
}

// HasPractice tells whether anybody can sign in at all.
func (s *Store) HasPractice(ctx context.Context) (any bool, err error) {
	err = s.db.GetContext(ctx, &any, `select practice_any()`)
	return any, found("looking for a practice", err)
}

// NewSetUpTicket makes the link by which the first practice is set up.
func (s *Store) NewSetUpTicket(ctx context.Context) (string, error) {
	secret := newSecret()
	_, err := s.db.ExecContext(ctx, `select ticket_put($1, $2, null, '', $3)`, ticketHash(secret), ToSetUp,
		time.Now().Add(ticketLasts[ToSetUp]))
	return secret, found("making the link of the first start", err)
}

// FindTicket looks a link up, outside any practice.
func (s *Store) FindTicket(ctx context.Context, secret string) (Ticket, error) {
	var out Ticket
	err := s.db.GetContext(ctx, &out, `select * from ticket_find($1)`, ticketHash(secret))
	return out, found("looking up a link", err)
}

// Principal acts for whoever holds the link.
func (k Ticket) Principal() Principal {
	return Principal{Practice: k.Practice.UUID, Person: k.Person.UUID, Role: rights.Nobody}
}

// UseTicket spends a link within a transaction of its practice.
func (t *Tx) UseTicket(ctx context.Context, secret string) error {
	var fresh bool
	if err := t.tx.GetContext(ctx, &fresh, `select ticket_use($1)`, ticketHash(secret)); err != nil {
		return found("using a link", err)
	}
	if !fresh {
		return fmt.Errorf("using a link: %w", ErrNotFound)
	}
	return nil
}

// InvitedAs is the e-mail that a person was asked to join by.
func (t *Tx) InvitedAs(ctx context.Context, person uuid.UUID) (email string, err error) {
	err = t.tx.GetContext(ctx, &email, `select coalesce(ticket_email($1), '')`, person)
	if err == nil && email == "" {
		err = ErrNotFound
	}
	return email, found("looking for an invitation", err)
}

// Redeem chooses a password by a link: the first one of who joins, or a new one, which
// switches the second factor off and ends every session.
func (t *Tx) Redeem(ctx context.Context, k Ticket, secret, password string) error {
	if err := t.UseTicket(ctx, secret); err != nil {
		return err
	}
	person := k.Person.UUID
	if k.Kind == ToJoin {
		return t.newLogin(ctx, person, k.Email, password)
	}
	var email string
	if err := t.tx.GetContext(ctx, &email, `select email from login_list() where person_id = $1`, person); err != nil {
		return found("looking up a login", err)
	}
	return errors.Join(t.SetPassword(ctx, person, password), t.DropSecondFactor(ctx, person),
		t.EndSessions(ctx, person, nil), t.reopen(ctx, email))
}

// Reset makes a link for whoever signs in by an e-mail: the way back in for an owner
// who is alone, from the server's own command line.
func (s *Store) Reset(ctx context.Context, email string, now time.Time) (secret string, err error) {
	var l login
	if err := s.db.GetContext(ctx, &l, `select practice_id, person_id, password_hash, totp_secret,
		totp_on from login_look($1)`, email); err != nil {
		return "", found("looking up a login", err)
	}
	who := Principal{Practice: l.Practice, Person: l.Person, Role: rights.Nobody}
	what := Action{Verb: "reset", Kind: "person", Subject: l.Person.String()}
	err = s.As(ctx, who, what, func(tx *Tx) error {
		secret, _, err = tx.NewTicket(ctx, ToReset, l.Person, email, now)
		return err
	})
	return secret, err
}
