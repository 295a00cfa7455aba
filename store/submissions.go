package store

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"errors"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"

	"mokren/core/rights"
)

// Link lets a client's own device enter one thing for one visit, for a short
// while. Only a hash of its code is stored.
type Link struct {
	Practice uuid.UUID `db:"practice_id"`
	Person   uuid.UUID `db:"person_id"` // who made it
	Client   uuid.UUID `db:"client_id"`
	Visit    uuid.UUID `db:"visit_id"`
	Purpose  string    `db:"purpose"`
	Expires  time.Time `db:"expires_at"`
}

// Principal acts for the client who holds the link.
func (l Link) Principal() Principal {
	return Principal{Practice: l.Practice, Person: l.Person, Role: rights.Client}
}

// letters of a code: none that is mistaken for another when read aloud.
const letters = "23456789BCDFGHJKMNPQRSTVWXZ"

// codeLength gives 27^8 codes, about 2.8e11: far more than the rate limit and
// the short life let anyone try.
const codeLength = 8

// newCode draws evenly: a byte that would favour some letters is thrown away.
func newCode() string {
	b := make([]byte, 0, codeLength)
	for len(b) < codeLength {
		var one [1]byte
		rand.Read(one[:]) //nolint:errcheck // never fails
		if n := int(one[0]); n < 256/len(letters)*len(letters) {
			b = append(b, letters[n%len(letters)])
		}
	}
	return string(b)
}

// codeHash forgives case, blanks and hyphens, as people type them.
func codeHash(code string) []byte {
	clean := strings.ToUpper(strings.Map(func(r rune) rune {
		if r == ' ' || r == '-' {
			return -1
		}
		return r
	}, code))
	h := sha256.Sum256([]byte(clean))
	return h[:]
}

// NewLink makes a link and gives its code, which is not stored.
func (t *Tx) NewLink(ctx context.Context, client, visit uuid.UUID, purpose string, expires time.Time) (code string,
	err error,
) {
	code = newCode()
	_, err = t.tx.ExecContext(ctx, `select link_put($1, $2, $3, $4, $5, $6, $7)`, codeHash(code), t.who.Practice,
		t.who.Person, client, visit, purpose, expires)
	return code, found("making a link", err)
}

// FindLink looks a code up, outside a practice because none is known yet. An
// unknown or expired code is ErrNotFound.
func (s *Store) FindLink(ctx context.Context, code string, now time.Time) (Link, error) {
	var l Link
	err := s.db.GetContext(ctx, &l, `select * from link_find($1, $2)`, codeHash(code), now)
	return l, found("looking up a link", err)
}

// Submission is what a client entered.
type Submission struct {
	ID       uuid.UUID `db:"id"`
	Client   uuid.UUID `db:"client_id"`
	Visit    uuid.UUID `db:"visit_id"`
	Kind     string    `db:"kind"`
	Body     []byte    `db:"body"`
	Received time.Time `db:"received_at"`
}

// entriesPerCode is far above an honest intake: a drawing, a story and answers,
// each handed in a few times.
const entriesPerCode = 30

// ErrTooMany: a code has brought as much as it may.
var ErrTooMany = errors.New("too many entries with one code")

// PutSubmission keeps a client's entry; the same one again replaces it until it has
// been taken in. ErrTooMany when the code has brought its share.
func (t *Tx) PutSubmission(ctx context.Context, e Submission, code string) error {
	t.touch(e.Client)
	hash := codeHash(code)
	var others int
	err := t.tx.GetContext(ctx, &others, `select count(*) from client_entry where code_hash = $1 and id <> $2`, hash,
		e.ID)
	if err != nil {
		return found("counting a code's entries", err)
	}
	if others >= entriesPerCode {
		return ErrTooMany
	}
	r, err := t.tx.ExecContext(ctx, `insert into client_entry (practice_id, id, client_id, visit_id, kind, body,
		code_hash)
		values ($1, $2, $3, $4, $5, $6, $7)
		on conflict (practice_id, id) do update set body = excluded.body, received_at = now()
		where client_entry.taken_at is null and client_entry.visit_id = excluded.visit_id
			and client_entry.kind = excluded.kind`,
		t.who.Practice, e.ID, e.Client, e.Visit, e.Kind, e.Body, hash)
	if err != nil {
		return fmt.Errorf("keeping a client's entry: %w", err)
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrStale)
	}
	return nil
}

// Submissions lists what waits to be taken into a visit, oldest first.
func (t *Tx) Submissions(ctx context.Context, visit uuid.UUID) ([]Submission, error) {
	out := []Submission{}
	err := t.tx.SelectContext(ctx, &out,
		`select id, client_id, visit_id, kind, body, received_at from client_entry where visit_id = $1
			and taken_at is null order by received_at, id`, visit)
	return out, found("listing a client's entries", err)
}

// TakeSubmission marks an entry as taken in (or set aside); twice is the same as once.
func (t *Tx) TakeSubmission(ctx context.Context, visit, id uuid.UUID) error {
	if _, err := t.Visit(ctx, visit); err != nil {
		return err
	}
	_, err := t.tx.ExecContext(ctx,
		`update client_entry set taken_at = now(), taken_by = $3 where visit_id = $1 and id = $2
			and taken_at is null`, visit, id, t.who.Person)
	return found("taking an entry", err)
}

// RestoreSubmission lets an entry that was left out wait again.
func (t *Tx) RestoreSubmission(ctx context.Context, visit, id uuid.UUID) error {
	if _, err := t.Visit(ctx, visit); err != nil {
		return err
	}
	_, err := t.tx.ExecContext(ctx,
		`update client_entry set taken_at = null, taken_by = null where visit_id = $1 and id = $2`, visit, id)
	return found("bringing an entry back", err)
}
