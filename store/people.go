package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"
	"sync"

	"github.com/alexedwards/argon2id"
	"github.com/google/uuid"

	"mokren/core/rights"
)

// Person is a member of a practice.
type Person struct {
	ID           uuid.UUID   `db:"id"`
	Name         string      `db:"name"`
	Role         rights.Role `db:"role"`
	PracticeName string      `db:"practice_name"`
	CopyHours    int         `db:"copy_hours"`
	Protocol     string      `db:"protocol"`
	Units        string      `db:"units"`
	ClockHours   int         `db:"clock_hours"`
	WeekStarts   int         `db:"week_starts"`
	Rooms        textList    `db:"rooms"`
	TimeZone     string      `db:"time_zone"`
	// FingerCM is the person's own finger-width; not valid until asked.
	FingerCM sql.NullFloat64 `db:"finger_cm"`
}

// hashing by the parameters that RFC 9106 recommends second (64 MiB).
var hashing = &argon2id.Params{Memory: 64 * 1024, Iterations: 3, Parallelism: 2, SaltLength: 16, KeyLength: 32}

// HashPassword gives a self-describing argon2id hash.
func HashPassword(password string) (string, error) { return argon2id.CreateHash(password, hashing) }

// checkPassword compares in constant time; a hash that cannot be read matches
// nothing.
func checkPassword(hash, password string) bool {
	same, err := argon2id.ComparePasswordAndHash(password, hash)
	return err == nil && same
}

// ErrSignIn says neither which of the two was wrong.
var ErrSignIn = errors.New("this e-mail and password do not match")

// nobody is compared against when an e-mail is unknown, so that the answer
// takes the same time.
var nobody = sync.OnceValues(func() (string, error) { return HashPassword("nobody") })

// SignIn looks an e-mail up and checks the password; from is the address that
// is noted when nobody has this e-mail. It runs outside a practice because none
// is known yet.
func (s *Store) SignIn(ctx context.Context, email, password, from string) (Principal, error) {
	var l struct {
		Practice uuid.UUID `db:"practice_id"`
		Person   uuid.UUID `db:"person_id"`
		Hash     string    `db:"password_hash"`
	}
	err := found("looking up a login", s.db.GetContext(ctx, &l, `select * from login_find($1)`,
		strings.TrimSpace(email)))
	if errors.Is(err, ErrNotFound) {
		hash, err := nobody()
		checkPassword(hash, password)
		return Principal{}, errors.Join(ErrSignIn, err, s.Door(ctx, "sign-in", from))
	}
	if err != nil {
		return Principal{}, err
	}
	who := Principal{Practice: l.Practice, Person: l.Person}
	what := Action{Verb: "sign-in", Kind: "person", Subject: l.Person.String()}
	if !checkPassword(l.Hash, password) {
		return Principal{}, errors.Join(ErrSignIn, s.Refused(ctx, who, what))
	}
	err = s.As(ctx, who, what, func(tx *Tx) error {
		p, err := tx.Person(ctx, l.Person)
		who.Role = p.Role
		return err
	})
	return who, err
}

// Person gives one member of the practice.
func (t *Tx) Person(ctx context.Context, id uuid.UUID) (Person, error) {
	var p Person
	err := t.tx.GetContext(ctx, &p, `
		select p.id, p.name, p.role, p.finger_cm, pr.name as practice_name, pr.time_zone,
			pr.copy_hours, pr.protocol, pr.units, pr.clock_hours, pr.week_starts,
			to_json(pr.rooms)::text as rooms
		from person p join practice pr on pr.id = p.practice_id where p.id = $1`, id)
	return p, found("reading a person", err)
}

// Role gives a person's role as it is now.
func (s *Store) Role(ctx context.Context, who Principal) (rights.Role, error) {
	t, err := s.begin(ctx, who)
	if err != nil {
		return "", err
	}
	defer t.tx.Rollback() //nolint:errcheck // nothing was written
	var r rights.Role
	err = t.tx.GetContext(ctx, &r, `select role from person where id = $1`, who.Person)
	return r, found("reading a role", err)
}

// People lists the members of the practice by name.
func (t *Tx) People(ctx context.Context) ([]Person, error) {
	out := []Person{}
	err := t.tx.SelectContext(ctx, &out, `select id, name, role from person where not elsewhere
		order by name, id`)
	return out, found("listing the people of the practice", err)
}

// SetFinger keeps the person's own finger-width in cm.
func (t *Tx) SetFinger(ctx context.Context, cm float64) error {
	_, err := t.tx.ExecContext(ctx, `update person set finger_cm = $2 where id = $1`, t.who.Person, cm)
	return found("keeping a finger-width", err)
}

// NewPractice makes a practice; the transaction must act within it.
func (t *Tx) NewPractice(ctx context.Context, name, timeZone string) error {
	_, err := t.tx.ExecContext(ctx, `insert into practice (id, name, time_zone) values ($1, $2, $3)`, t.who.Practice,
		name, timeZone)
	return found("making a practice", err)
}

// NewPerson makes a member who can sign in.
func (t *Tx) NewPerson(ctx context.Context, id uuid.UUID, name string, role rights.Role, email, password string,
) error {
	hash, err := HashPassword(password)
	if err != nil {
		return fmt.Errorf("hashing a password: %w", err)
	}
	if _, err := t.tx.ExecContext(ctx, `insert into person (practice_id, id, name, role) values ($1, $2, $3, $4)`,
		t.who.Practice, id, name, role); err != nil {
		return fmt.Errorf("making a person: %w", err)
	}
	_, err = t.tx.ExecContext(ctx, `select login_put($1, $2, $3, $4)`, email, t.who.Practice, id, hash)
	return found("making a login", err)
}
