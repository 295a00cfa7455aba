package backup

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"net/url"
	"os"
	"time"

	"filippo.io/age"
	"github.com/jmoiron/sqlx"
)

// What is wrong with a file.
var (
	ErrWrongPassphrase = errors.New("the passphrase does not open this backup")
	ErrDamaged         = errors.New("the backup is damaged or cut off")
)

// open gives what is in a file, decrypted as it is read.
func open(f io.Reader, passphrase string) (*bufio.Reader, error) {
	who, err := age.NewScryptIdentity(passphrase)
	if err != nil {
		return nil, err
	}
	plain, err := age.Decrypt(f, who)
	var none *age.NoIdentityMatchError
	if errors.As(err, &none) {
		return nil, ErrWrongPassphrase
	}
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrDamaged, err)
	}
	return bufio.NewReaderSize(plain, 1<<20), nil
}

// Open gives the dump within a backup, in PostgreSQL's custom format, for other
// programs; what is damaged shows as it is read.
func Open(path, passphrase string) (io.ReadCloser, error) {
	f, err := os.Open(path)
	if err != nil {
		return nil, err
	}
	plain, err := open(f, passphrase)
	if err == nil {
		_, err = readManifest(plain)
	}
	if err != nil {
		return nil, errors.Join(err, f.Close())
	}
	return struct {
		io.Reader
		io.Closer
	}{plain, f}, nil
}

// Restore brings a backup into an empty database and compares it with what was there.
// A database in which anything stands is refused.
func Restore(ctx context.Context, into Server, path, passphrase string) (Manifest, error) {
	f, err := os.Open(path)
	if err != nil {
		return Manifest{}, err
	}
	defer f.Close()
	plain, err := open(f, passphrase)
	if err != nil {
		return Manifest{}, err
	}
	m, err := readManifest(plain)
	if err != nil {
		return m, fmt.Errorf("%w: %w", ErrDamaged, err)
	}
	db, err := sqlx.Open("pgx", into.URL)
	if err != nil {
		return m, err
	}
	defer db.Close()
	var tables int
	err = db.GetContext(ctx, &tables, `select count(*) from information_schema.tables where table_schema = 'public'`)
	if err != nil {
		return m, fmt.Errorf("reaching the database: %w", err)
	}
	if tables > 0 {
		return m, errors.New("the database is not empty: a backup is restored into an empty one")
	}
	if err := pour(ctx, into, plain); err != nil {
		return m, err
	}
	now, err := look(ctx, db, m.At)
	if err != nil {
		return m, err
	}
	return m, m.differs(now)
}

// pour hands the dump to pg_restore in one transaction. A file that is cut off ends in
// an error of the decryption, which counts before whatever pg_restore made of it.
func pour(ctx context.Context, into Server, plain io.Reader) error {
	ctx, cancel := context.WithCancel(ctx)
	defer cancel()
	restore, err := into.command(ctx, "pg_restore", "--single-transaction", "--exit-on-error")
	if err != nil {
		return err
	}
	said := &lastWords{}
	restore.Stderr = said
	stdin, err := restore.StdinPipe()
	if err != nil {
		return err
	}
	if err := restore.Start(); err != nil {
		return fmt.Errorf("pg_restore: %w", err)
	}
	source := &watched{r: plain}
	_, copied := io.Copy(stdin, source)
	if source.err != nil {
		cancel()       // before it sees an end and commits
		restore.Wait() //nolint:errcheck // it was ended
		return fmt.Errorf("%w: %w", ErrDamaged, source.err)
	}
	closed := stdin.Close()
	if err := restore.Wait(); err != nil {
		return fmt.Errorf("pg_restore: %w: %s", err, said)
	}
	return errors.Join(copied, closed)
}

// watched remembers whether reading failed, and not writing.
type watched struct {
	r   io.Reader
	err error
}

// Read remembers why reading failed: pg_restore would say only that its input ended.
func (w *watched) Read(p []byte) (int, error) {
	n, err := w.r.Read(p)
	if err != nil && !errors.Is(err, io.EOF) {
		w.err = err
	}
	return n, err
}

// Verify restores a backup into a scratch database beside the real one, compares it,
// and drops it again.
func Verify(ctx context.Context, on Server, path, passphrase string) (Manifest, error) {
	u, err := url.Parse(on.URL)
	if err != nil {
		return Manifest{}, fmt.Errorf("the address of the database: %w", err)
	}
	scratch := fmt.Sprintf("mokren_verify_%d", time.Now().UnixNano())
	db, err := sqlx.Open("pgx", on.URL)
	if err != nil {
		return Manifest{}, err
	}
	defer db.Close()
	if _, err := db.ExecContext(ctx, `create database `+scratch+` template template0`); err != nil {
		return Manifest{}, fmt.Errorf("making a scratch database: %w", err)
	}
	u.Path = "/" + scratch
	m, err := Restore(ctx, Server{URL: u.String(), Bin: on.Bin}, path, passphrase)
	// Dropped also when the caller went away.
	_, dropped := db.ExecContext(context.WithoutCancel(ctx), `drop database if exists `+scratch+` with (force)`)
	return m, errors.Join(err, dropped)
}
