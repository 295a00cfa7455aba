// Package store keeps Mokren's records in PostgreSQL. There is one door:
//
//	err := st.As(ctx, principal, store.Action{Verb: "read", Kind: "client", Subject: id}, func(tx *store.Tx) error {
//		client, err = tx.Client(ctx, id)
//		return err
//	})
//
// As opens the transaction, tells PostgreSQL whose practice, person and role
// it is (row-level security does the rest) and writes the audit row. No query
// runs outside it, but for signing in.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"

	"github.com/google/uuid"
	_ "github.com/jackc/pgx/v5/stdlib" // the "pgx" driver
	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound: no such row in this practice.
var ErrNotFound = errors.New("not found")

// Store is a pool of connections as the app role.
type Store struct{ db *sqlx.DB }

// Open connects as the app role; it does not migrate.
func Open(url string) (*Store, error) {
	db, err := sqlx.Open("pgx", url)
	if err != nil {
		return nil, fmt.Errorf("opening the database: %w", err)
	}
	db.SetMaxOpenConns(20)
	db.SetMaxIdleConns(5)
	return &Store{db}, nil
}

// Close returns every connection.
func (s *Store) Close() error { return s.db.Close() }

// DB is for the session store, which has a table of its own.
func (s *Store) DB() *sql.DB { return s.db.DB }

// Ping reports whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return s.db.PingContext(ctx) }

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
	p, err := goose.NewProvider(goose.DialectPostgres, db, files)
	if err != nil {
		return err
	}
	if _, err := p.Up(ctx); err != nil {
		return fmt.Errorf("migrating the database: %w", err)
	}
	return nil
}

// Principal is who acts.
type Principal struct {
	Practice uuid.UUID
	Person   uuid.UUID
	Role     string
}

// Action is what goes into the audit.
type Action struct {
	Verb    string // read, write, sign-in, …
	Kind    string // client, visit, …
	Subject string
	Client  uuid.NullUUID
}

// Tx is a transaction within one practice.
type Tx struct {
	tx  *sqlx.Tx
	who Principal
}

// As runs fn within the principal's practice and audits it.
func (s *Store) As(ctx context.Context, who Principal, what Action, fn func(*Tx) error) error {
	tx, err := s.db.BeginTxx(ctx, nil)
	if err != nil {
		return fmt.Errorf("beginning a transaction: %w", err)
	}
	defer tx.Rollback() //nolint:errcheck // after a commit there is nothing to roll back
	if _, err := tx.ExecContext(ctx,
		`select set_config('mokren.practice', $1, true), set_config('mokren.person', $2, true), set_config('mokren.role', $3, true)`,
		who.Practice.String(), who.Person.String(), who.Role); err != nil {
		return fmt.Errorf("entering the practice: %w", err)
	}
	if err := fn(&Tx{tx, who}); err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx,
		`insert into audit (practice_id, person_id, verb, kind, subject, client_id) values ($1, $2, $3, $4, $5, $6)`,
		who.Practice, who.Person, what.Verb, what.Kind, what.Subject, what.Client); err != nil {
		return fmt.Errorf("writing the audit: %w", err)
	}
	if err := tx.Commit(); err != nil {
		return fmt.Errorf("committing: %w", err)
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
