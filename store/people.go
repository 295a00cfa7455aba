package store

import (
	"context"
	"crypto/hmac"
	"crypto/sha256"
	"database/sql"
	"errors"
	"fmt"
	"time"

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
	IdleMinutes  int         `db:"idle_minutes"`
	Protocol     string      `db:"protocol"`
	Units        string      `db:"units"`
	ClockHours   int         `db:"clock_hours"`
	WeekStarts   int         `db:"week_starts"`
	Rooms        textList    `db:"rooms"`
	Emergency    string      `db:"emergency_number"`
	TimeZone     string      `db:"time_zone"`
	// FingerCM is the person's own finger-width; not valid until asked.
	FingerCM sql.NullFloat64 `db:"finger_cm"`
	// Introduced is when the trial visit was begun or declined; not valid before.
	Introduced sql.NullTime `db:"introduced_at"`
	// Licence is what the authority calls it, with the day that it ends.
	Licence      string        `db:"licence"`
	LicenceUntil sql.NullTime  `db:"licence_until"`
	Supervisor   uuid.NullUUID `db:"supervisor_id"`
	Left         sql.NullTime  `db:"left_at"`
}

// Person gives one member of the practice.
func (t *Tx) Person(ctx context.Context, id uuid.UUID) (Person, error) {
	var p Person
	err := t.tx.GetContext(ctx, &p, `
		select p.id, p.name, p.role, p.finger_cm, p.introduced_at, p.licence, p.licence_until, p.supervisor_id, p.left_at,
			pr.name as practice_name, pr.time_zone, pr.copy_hours, pr.idle_minutes, pr.protocol, pr.units,
			pr.clock_hours, pr.week_starts, pr.emergency_number, to_json(pr.rooms)::text as rooms
		from person p join practice pr on pr.id = p.practice_id where p.id = $1`, id)
	return p, found("reading a person", err)
}

// OutboxKey is what the unsent work of who acts is sealed with on their devices.
func (t *Tx) OutboxKey(ctx context.Context) ([]byte, error) {
	var secret []byte
	if err := t.tx.GetContext(ctx, &secret, `select outbox_secret from practice`); err != nil {
		return nil, found("reading the secret of unsent work", err)
	}
	mac := hmac.New(sha256.New, secret)
	mac.Write(t.who.Person[:])
	return mac.Sum(nil), nil
}

// Role gives a person's role as it is now; of one who has left there is none.
func (s *Store) Role(ctx context.Context, who Principal) (rights.Role, error) {
	var r sql.NullString
	err := s.db.GetContext(ctx, &r, `select role_now($1, $2)`, who.Practice, who.Person)
	if err == nil && !r.Valid {
		return "", ErrNotFound
	}
	return rights.Role(r.String), found("reading a role", err)
}

// People lists the members of the practice by name; those who left are none.
func (t *Tx) People(ctx context.Context) ([]Person, error) {
	out := []Person{}
	err := t.tx.SelectContext(ctx, &out, `select id, name, role from person where not elsewhere and left_at is null
		order by name, id`)
	return out, found("listing the people of the practice", err)
}

// Member is a person with how they sign in.
type Member struct {
	Person
	Email   string         `db:"email"` // empty until the link is used
	TOTP    bool           `db:"totp_on"`
	Waits   sql.NullString `db:"waits"` // the kind of link that waits to be used
	WaitsTo sql.NullTime   `db:"waits_to"`
}

// Members lists everyone who works or worked here, those who left last.
func (t *Tx) Members(ctx context.Context) ([]Member, error) {
	out := []Member{}
	err := t.tx.SelectContext(ctx, &out, `select p.id, p.name, p.role, p.licence, p.licence_until, p.supervisor_id,
			p.left_at, coalesce(l.email, '') as email, coalesce(l.totp_on, false) as totp_on, k.kind as waits,
			k.expires_at as waits_to
		from person p left join login_list() l on l.person_id = p.id left join ticket_list() k on k.person_id = p.id
		where not p.elsewhere order by p.left_at is not null, p.name, p.id`)
	return out, found("listing the members of the practice", err)
}

// SetFinger keeps the person's own finger-width in cm.
func (t *Tx) SetFinger(ctx context.Context, cm float64) error {
	_, err := t.tx.ExecContext(ctx, `update person set finger_cm = $2 where id = $1`, t.who.Person, cm)
	return found("keeping a finger-width", err)
}

// SetIntroduced notes that a person was offered the trial visit; the first time counts.
func (t *Tx) SetIntroduced(ctx context.Context, person uuid.UUID) error {
	_, err := t.tx.ExecContext(ctx,
		`update person set introduced_at = coalesce(introduced_at, now()) where id = $1`, person)
	return found("noting that the trial visit was offered", err)
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
	if err := t.AddPerson(ctx, Person{ID: id, Name: name, Role: role}); err != nil {
		return err
	}
	return t.newLogin(ctx, id, email, password)
}

// AddPerson makes a member who cannot sign in yet.
func (t *Tx) AddPerson(ctx context.Context, p Person) error {
	_, err := t.tx.ExecContext(ctx, `insert into person (practice_id, id, name, role, licence, licence_until,
			supervisor_id) values ($1, $2, $3, $4, $5, $6, $7)`,
		t.who.Practice, p.ID, p.Name, p.Role, p.Licence, p.LicenceUntil, p.Supervisor)
	return found("making a person", err)
}

// PutPerson keeps name, role, licence and supervisor of a member. The last owner
// stays one.
func (t *Tx) PutPerson(ctx context.Context, p Person) error {
	if p.Role != rights.Owner {
		if err := t.ownerBeside(ctx, p.ID); err != nil {
			return err
		}
	}
	var one uuid.UUID
	err := t.tx.GetContext(ctx, &one, `update person set name = $2, role = $3, licence = $4, licence_until = $5,
			supervisor_id = $6 where id = $1 and left_at is null and not elsewhere returning id`,
		p.ID, p.Name, p.Role, p.Licence, p.LicenceUntil, p.Supervisor)
	return found("keeping a person", err)
}

// ErrLastOwner: a practice without an owner could not be opened again.
var ErrLastOwner = errors.New("a practice needs an owner: make another one first")

// ownerBeside tells whether someone else is an owner who can sign in. Owners are
// locked, so that two of them cannot leave at once.
func (t *Tx) ownerBeside(ctx context.Context, id uuid.UUID) error {
	var owners []uuid.UUID
	err := t.tx.SelectContext(ctx, &owners, `select p.id from person p
		where p.role = 'owner' and p.left_at is null and not p.elsewhere
			and exists (select from login_list() l where l.person_id = p.id) for update of p`)
	if err != nil {
		return found("looking for another owner", err)
	}
	for _, o := range owners {
		if o != id {
			return nil
		}
	}
	var was rights.Role
	if err := t.tx.GetContext(ctx, &was, `select role from person where id = $1`, id); err != nil {
		return found("reading a role", err)
	}
	if was != rights.Owner {
		return nil
	}
	return ErrLastOwner
}

// Leave ends a person's membership: the login and every session go, visits that are
// still to come and those whom they supervised are handed over to another. What they
// wrote stays theirs.
func (t *Tx) Leave(ctx context.Context, id, to uuid.UUID, now time.Time) (moved int, err error) {
	if err := t.ownerBeside(ctx, id); err != nil {
		return 0, err
	}
	var one uuid.UUID
	err = t.tx.GetContext(ctx, &one, `select id from person where id = $1 and left_at is null and not elsewhere
		and role in ('owner', 'therapist')`, to)
	if err != nil {
		return 0, found("looking for who takes over", err)
	}
	err = t.tx.GetContext(ctx, &one, `update person set left_at = $2 where id = $1 and left_at is null
		and not elsewhere returning id`, id, now)
	if err != nil {
		return 0, found("letting a person leave", err)
	}
	res, err := t.tx.ExecContext(ctx, `update visit set therapist_id = $2, revision = revision + 1
		where therapist_id = $1 and opened_at is null and starts_at > $3`, id, to, now)
	if err != nil {
		return 0, found("handing visits over", err)
	}
	n, err := res.RowsAffected()
	if err != nil {
		return 0, err
	}
	for _, step := range []string{
		`update person set supervisor_id = $2 where supervisor_id = $1 and id <> $2`,
		`select login_drop($1) where $2::uuid is not null`,
	} {
		if _, err := t.tx.ExecContext(ctx, step, id, to); err != nil {
			return 0, fmt.Errorf("handing over: %w", err)
		}
	}
	return int(n), t.EndSessions(ctx, id, nil)
}

// Licence is a member's, with its last day.
type Licence struct {
	Name    string    `db:"name"`
	Licence string    `db:"licence"`
	Until   time.Time `db:"licence_until"`
}

// Licences are those with an end: of everyone who works here for an owner, else one's
// own.
func (t *Tx) Licences(ctx context.Context) ([]Licence, error) {
	var out []Licence
	err := t.tx.SelectContext(ctx, &out, `select name, licence, licence_until from person
		where licence_until is not null and left_at is null and ($1 or id = $2)
		order by licence_until, name`, t.who.Role == rights.Owner, t.who.Person)
	return out, found("reading when licences end", err)
}
