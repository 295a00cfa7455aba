package backup

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"syscall"
	"time"

	"filippo.io/age"
	_ "github.com/jackc/pgx/v5/stdlib" // the "pgx" driver
	"github.com/jmoiron/sqlx"

	"mokren/store/internal/cost"
)

// Server is a PostgreSQL as a role that sees every row (a superuser, or one with
// BYPASSRLS), with the folder of its programs; an empty folder looks in the path.
type Server struct {
	URL, Bin string
}

// command runs one of PostgreSQL's programs on the server. The password travels in the
// environment, where other users of the machine do not see it.
func (s Server) command(ctx context.Context, name string, args ...string) (*exec.Cmd, error) {
	if s.Bin != "" {
		name = filepath.Join(s.Bin, name)
	}
	u, err := url.Parse(s.URL)
	if err != nil {
		return nil, errors.New("the address of the database is not one")
	}
	password, _ := u.User.Password()
	u.User = url.User(u.User.Username())
	cmd := exec.CommandContext(ctx, name, append(args, "--dbname="+u.String())...)
	cmd.Env = append(os.Environ(), "PGPASSWORD="+password)
	return cmd, nil
}

// ending of a backup's file.
const ending = ".mokren.age"

// Name of the file of a moment.
func Name(at time.Time) string { return at.UTC().Format("20060102T150405Z") + ending }

// AtLeast so many characters has a passphrase: whoever has the file can try as long as
// they like.
const AtLeast = 12

// ErrPassphrase: too short a passphrase.
var ErrPassphrase = errors.New("a passphrase of at least 12 characters is needed: the file holds everybody's health")

// Write backs the database up into a folder and gives the file. A file appears under
// its name only when it is whole and on the disk.
func Write(ctx context.Context, from Server, folder, passphrase string, at time.Time) (path string, err error) {
	if len([]rune(passphrase)) < AtLeast {
		return "", ErrPassphrase
	}
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return "", err
	}
	part, err := os.CreateTemp(folder, ".part-*")
	if err != nil {
		return "", err
	}
	defer os.Remove(part.Name()) //nolint:errcheck // gone when it got its name
	defer part.Close()           //nolint:errcheck // closed before it got its name
	if err := writeTo(ctx, part, from, passphrase, at); err != nil {
		return "", err
	}
	if err := errors.Join(part.Sync(), part.Close()); err != nil {
		return "", fmt.Errorf("writing the backup: %w", err)
	}
	path = filepath.Join(folder, Name(at))
	if err := os.Rename(part.Name(), path); err != nil {
		return "", err
	}
	return path, syncFolder(folder)
}

// syncFolder makes the file's name as durable as its content.
func syncFolder(folder string) error {
	d, err := os.Open(folder)
	if err != nil {
		return err
	}
	return errors.Join(d.Sync(), d.Close())
}

// writeTo streams the database through compression into the seal, so that no plain copy ever
// lies on a disk.
func writeTo(ctx context.Context, w io.Writer, from Server, passphrase string, at time.Time) error {
	to, err := age.NewScryptRecipient(passphrase)
	if err != nil {
		return err
	}
	to.SetWorkFactor(cost.ScryptLogN)
	sealed, err := age.Encrypt(w, to)
	if err != nil {
		return err
	}
	db, err := sqlx.Open("pgx", from.URL)
	if err != nil {
		return err
	}
	defer db.Close()
	// Counted and dumped is the same moment, however busy the practice is.
	tx, err := db.BeginTxx(ctx, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
	if err != nil {
		return fmt.Errorf("reaching the database: %w", err)
	}
	defer tx.Rollback() //nolint:errcheck // it only read
	var snapshot string
	if err := tx.GetContext(ctx, &snapshot, `select pg_export_snapshot()`); err != nil {
		return fmt.Errorf("holding a moment of the database: %w", err)
	}
	m, err := look(ctx, tx, at)
	if err != nil {
		return err
	}
	if err := m.write(sealed); err != nil {
		return err
	}
	args := []string{"--format=custom", "--compress=6", "--no-sync", "--snapshot=" + snapshot}
	for _, t := range passing {
		args = append(args, "--exclude-table-data=public."+t)
	}
	dump, err := from.command(ctx, "pg_dump", args...)
	if err != nil {
		return err
	}
	dump.Stdout = sealed
	said := &lastWords{}
	dump.Stderr = said
	if err := dump.Start(); err != nil {
		return fmt.Errorf("pg_dump: %w", err)
	}
	// It compresses, which takes a processor; who writes at the same time goes first.
	syscall.Setpriority(syscall.PRIO_PROCESS, dump.Process.Pid, behind) //nolint:errcheck // it is a courtesy
	if err := dump.Wait(); err != nil {
		return fmt.Errorf("pg_dump: %w: %s", err, said)
	}
	return sealed.Close()
}

// behind is the niceness of what need not be fast.
const behind = 15

// lastWords keeps the end of what a program complained of.
type lastWords struct{ text []byte }

// Write keeps the end of what a program says, where its error stands.
func (l *lastWords) Write(p []byte) (int, error) {
	l.text = append(l.text, p...)
	if len(l.text) > 2000 {
		l.text = l.text[len(l.text)-2000:]
	}
	return len(p), nil
}

func (l *lastWords) String() string { return string(l.text) }
