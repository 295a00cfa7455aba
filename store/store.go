package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"syscall"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgconn"
	_ "github.com/jackc/pgx/v5/stdlib" // the "pgx" driver
	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	"github.com/pressly/goose/v3/lock"

	"mokren/core/rights"
	"mokren/store/seal"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound: no such row in this practice.
var ErrNotFound = errors.New("not found")

// ErrStale: someone else changed the row since it was read.
var ErrStale = errors.New("changed by someone else meanwhile")

// Conflict is ErrStale with what the record holds: a Client, Visit or Photo.
type Conflict struct{ Stored any }

func (c *Conflict) Error() string { return "the record has other content under this id" }

// Is makes a conflict an ErrStale.
func (c *Conflict) Is(target error) bool { return target == ErrStale }

// Store is a pool of connections as the app role.
type Store struct {
	db  *sqlx.DB
	url string // for the connection that listens
	key *seal.Key
	// ongoing are the visits that were written last.
	ongoing ongoing
	// protected are the safety records that were read last.
	protected protected
	dear      *dear
}

// Connections of one copy of the program, and how long one is kept that nobody uses.
const (
	mostConnections = 24
	idleFor         = 3 * time.Minute
)

// Open connects as the app role; it does not migrate.
func Open(url string) (*Store, error) {
	db, err := sqlx.Open("pgx", url)
	if err != nil {
		return nil, fmt.Errorf("opening the database: %w", err)
	}
	// A connection that is kept has its statements prepared: making one anew costs as much as an
	// event. Idle ones go after a while.
	db.SetMaxOpenConns(mostConnections)
	db.SetMaxIdleConns(mostConnections)
	db.SetConnMaxIdleTime(idleFor)
	return &Store{
		db: db, url: url, ongoing: newOngoing(), protected: newProtected(),
		dear: &dear{kept: map[dearKey]dearCount{}},
	}, nil
}

// SealWith gives the key of the secrets that are kept; it is called before anything is
// read.
func (s *Store) SealWith(key *seal.Key) { s.key = key }

// Close returns every connection.
func (s *Store) Close() error { return s.db.Close() }

// DB is for the session store, which has a table of its own.
func (s *Store) DB() *sql.DB { return s.db.DB }

// Ping reports whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return s.db.PingContext(ctx) }

// A server that says that it is starting is waited for; where nothing answers, only for
// as long as a restart takes.
const (
	awaitsStart  = 30 * time.Second
	awaitsAnswer = 3 * time.Second
)

// Await waits for a server that does not take connections yet; an address or a secret
// that is wrong is said at once.
func (s *Store) Await(ctx context.Context) error {
	for began := time.Now(); ; {
		err := s.Ping(ctx)
		var refused *pgconn.PgError
		patience := time.Duration(0)
		switch {
		case err == nil:
			return nil
		case errors.As(err, &refused) && refused.Code == "57P03":
			patience = awaitsStart
		case errors.Is(err, syscall.ECONNREFUSED):
			patience = awaitsAnswer
		}
		if time.Since(began) >= patience {
			return fmt.Errorf("reaching the database (does it run, at this address?): %w", err)
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(200 * time.Millisecond):
		}
	}
}

// Migrate brings the schema up to date as the owner.
func Migrate(ctx context.Context, ownerURL string) error {
	db, err := sql.Open("pgx", ownerURL)
	if err != nil {
		return err
	}
	defer db.Close()
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	// Copies that start together wait for one another.
	one, err := lock.NewPostgresSessionLocker()
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectPostgres, db, files, goose.WithSessionLocker(one))
	if err != nil {
		return err
	}
	if _, err := p.Up(ctx); err != nil {
		return fmt.Errorf("migrating the database: %w", err)
	}
	return nil
}

// latest is the newest migration that the program carries.
func latest() (int64, error) {
	files, err := fs.Glob(migrations, "migrations/*.sql")
	var newest int64
	for _, f := range files {
		n, err := goose.NumericComponent(f)
		if err != nil {
			return 0, err
		}
		newest = max(newest, n)
	}
	return newest, err
}

// CheckSchema tells whether the database has the schema that this program
// knows. It asks as the app role, which cannot migrate.
func (s *Store) CheckSchema(ctx context.Context) error {
	want, err := latest()
	if err != nil {
		return err
	}
	var have int64
	err = s.db.GetContext(ctx, &have, `select coalesce(max(version_id), 0) from goose_db_version where is_applied`)
	if err != nil {
		return fmt.Errorf("reading the version of the schema (was it migrated as the owner?): %w", err)
	}
	if have < want {
		return fmt.Errorf("the database is at migration %d, this program at %d: run `mokren migrate` as the owner",
			have, want)
	}
	if have > want {
		// During a rolling upgrade; migrations only add (docs/operations.md).
		slog.Warn("the database is newer than this program", "has", have, "knows", want)
	}
	return nil
}

// Principal is who acts.
type Principal struct {
	Practice uuid.UUID
	Person   uuid.UUID
	Role     rights.Role
}

// Action is what goes into the audit.
type Action struct {
	Verb    string // read, write, sign-in, …
	Kind    string // client, visit, …
	Subject string
	// Client is named where it is known beforehand; else it is the one whose
	// record was touched first.
	Client uuid.NullUUID
}

// Tx is a transaction within one practice.
type Tx struct {
	tx     *sqlx.Tx
	who    Principal
	key    *seal.Key
	client uuid.NullUUID // whose record was touched
	// ongoing and protected are the store's; then is done when the transaction has committed.
	ongoing   ongoing
	protected protected
	dear      *dear
	then      []func()
}

// afterwards does something when the transaction has committed, and not otherwise.
func (t *Tx) afterwards(do func()) { t.then = append(t.then, do) }

// Who acts.
func (t *Tx) Who() Principal { return t.who }

// touch notes whose record this is, for the audit.
func (t *Tx) touch(client uuid.UUID) {
	if !t.client.Valid {
		t.client = uuid.NullUUID{UUID: client, Valid: true}
	}
}

// As runs fn within the principal's practice and audits it, also when it was
// refused.
func (s *Store) As(ctx context.Context, who Principal, what Action, fn func(*Tx) error) error {
	t, err := s.begin(ctx, who)
	if err != nil {
		return err
	}
	defer t.tx.Rollback() //nolint:errcheck // after a commit there is nothing to roll back
	if err := fn(t); err != nil {
		t.tx.Rollback() //nolint:errcheck // the error is what counts
		if errors.Is(err, ErrNotFound) || errors.Is(err, ErrStale) {
			what.Client = t.named(what)
			return errors.Join(err, s.Refused(ctx, who, what))
		}
		return err
	}
	what.Client = t.named(what)
	if err := t.audit(ctx, what, "done"); err != nil {
		return err
	}
	if err := t.tx.Commit(); err != nil {
		return fmt.Errorf("committing: %w", err)
	}
	for _, do := range t.then {
		do()
	}
	return nil
}

// Refused leaves a trace of what someone was not let do.
func (s *Store) Refused(ctx context.Context, who Principal, what Action) error {
	t, err := s.begin(ctx, who)
	if err != nil {
		return err
	}
	defer t.tx.Rollback() //nolint:errcheck // after a commit there is nothing to roll back
	if err := t.audit(ctx, what, "refused"); err != nil {
		return err
	}
	return t.tx.Commit()
}

// begin opens a transaction and tells PostgreSQL whose it is.
func (s *Store) begin(ctx context.Context, who Principal) (*Tx, error) {
	tx, err := s.db.BeginTxx(ctx, nil)
	if err != nil {
		return nil, fmt.Errorf("beginning a transaction: %w", err)
	}
	if _, err := tx.ExecContext(ctx, `select set_config('mokren.practice', $1, true),
		set_config('mokren.person', $2, true), set_config('mokren.role', $3, true)`,
		who.Practice.String(), who.Person.String(), string(who.Role)); err != nil {
		tx.Rollback() //nolint:errcheck // the error is what counts
		return nil, fmt.Errorf("entering the practice: %w", err)
	}
	return &Tx{tx: tx, who: who, key: s.key, ongoing: s.ongoing, protected: s.protected, dear: s.dear}, nil
}

// PlanOnce has what is asked from here on planned once for each connection, not for its values each time:
// right where a question finds as little whatever its values are, and asking takes less than planning.
func (t *Tx) PlanOnce(ctx context.Context) error {
	_, err := t.tx.ExecContext(ctx, `select set_config('plan_cache_mode', 'force_generic_plan', true)`)
	return found("choosing how to plan", err)
}

// named is the client that an action is about: as it was said, or as the transaction has read
// it.
func (t *Tx) named(what Action) uuid.NullUUID {
	if what.Client.Valid {
		return what.Client
	}
	return t.client
}

// audit writes the row within the transaction, so that there is no access without its trace.
func (t *Tx) audit(ctx context.Context, what Action, outcome string) error {
	_, err := t.tx.ExecContext(ctx, `insert into audit (practice_id, person_id, verb, kind, subject, client_id, outcome)
		values ($1, $2, $3, $4, $5, $6, $7)`,
		t.who.Practice, t.who.Person, what.Verb, what.Kind, what.Subject, what.Client, outcome)
	if err != nil {
		return fmt.Errorf("writing the audit: %w", err)
	}
	return nil
}

// LogAttempt leaves a trace of an unknown e-mail ("sign-in") or a wrong code ("code"),
// which belong to no practice.
func (s *Store) LogAttempt(ctx context.Context, what, address string) error {
	_, err := s.db.ExecContext(ctx, `select door_note($1, $2)`, what, address)
	if err != nil {
		return fmt.Errorf("noting what happened at sign-in: %w", err)
	}
	return nil
}

// found turns sql.ErrNoRows into ErrNotFound and says what was being done.
func found(doing string, err error) error {
	switch {
	case err == nil:
		return nil
	case errors.Is(err, sql.ErrNoRows):
		return fmt.Errorf("%s: %w", doing, ErrNotFound)
	}
	return fmt.Errorf("%s: %w", doing, err)
}

// diskFull is PostgreSQL's code for it.
const diskFull = "53100"

// Full tells that the database has no room on its disk.
func Full(err error) bool {
	var e *pgconn.PgError
	return errors.As(err, &e) && e.Code == diskFull
}
