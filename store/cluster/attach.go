package cluster

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"path/filepath"
)

// ErrNotRunning: nothing runs on the folder.
var ErrNotRunning = errors.New("no PostgreSQL of ours is running on this folder")

// Attach reaches the PostgreSQL that another Mokren runs on a folder, without taking it
// over: for a backup beside the running practice.
func Attach(dir string) (*Cluster, error) {
	bin, err := binaries()
	if err != nil {
		return nil, err
	}
	if dir, err = filepath.Abs(dir); err != nil {
		return nil, err
	}
	c := &Cluster{bin: bin}
	if c.dir, c.cred, err = home(dir); err != nil {
		return nil, err
	}
	_, port, ok := c.running()
	if !ok {
		return nil, fmt.Errorf("%w: %s", ErrNotRunning, c.dir)
	}
	c.port = port
	c.secrets, err = c.readSecrets()
	return c, err
}

// Programs is the folder of PostgreSQL's programs on this machine; empty: none.
func Programs() string {
	bin, err := binaries()
	if err != nil {
		return ""
	}
	return bin
}

// Bin is the folder of PostgreSQL's programs.
func (c *Cluster) Bin() string { return c.bin }

// Swap gives a database's name to another one and keeps the first under a third name.
func (c *Cluster) Swap(ctx context.Context, name, aside, fresh string) error {
	db, err := sql.Open("pgx", c.AdminURL("postgres"))
	if err != nil {
		return err
	}
	defer db.Close()
	for _, q := range []string{
		fmt.Sprintf(`alter database %s rename to %s`, name, aside),
		fmt.Sprintf(`alter database %s rename to %s`, fresh, name),
	} {
		if _, err := db.ExecContext(ctx, q); err != nil {
			return fmt.Errorf("renaming databases: %w", err)
		}
	}
	return nil
}
