package cluster

import (
	"bytes"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"

	"github.com/jackc/pgx/v5/pgconn"
)

// binariesFor takes the server programs of the version that made the folder; another
// version cannot read it.
func (c *Cluster) binariesFor(version string) error {
	out, err := c.command("postgres", "--version").Output()
	if err != nil {
		return fmt.Errorf("asking PostgreSQL for its version: %w", err)
	}
	// "postgres (PostgreSQL) 15.13 (Debian 15.13-0+deb12u1)"
	words := strings.Fields(string(out))
	if len(words) > 2 && major(words[2]) == version {
		return nil
	}
	bin := filepath.Join("/usr/lib/postgresql", version, "bin")
	if _, err := os.Stat(filepath.Join(bin, "postgres")); err != nil {
		return fmt.Errorf("%s was made by PostgreSQL %s, which is not installed: install postgresql-%s, or take a "+
			"backup there and restore it here", c.dir, version, version)
	}
	c.bin = bin
	return nil
}

// major is the first part of a version, by which PostgreSQL's folders differ.
func major(version string) string {
	m, _, _ := strings.Cut(version, ".")
	return m
}

// foreign names at once what waiting would not mend: a server that ended, and a folder
// whose server does not know our secrets.
func (c *Cluster) foreign(err error) error {
	var refused *pgconn.PgError
	if errors.As(err, &refused) && strings.HasPrefix(refused.Code, "28") {
		return fmt.Errorf("%s is not of this installation: its server does not take the secret that lies beside it. "+
			"Was the data folder copied without its secrets? Copy the whole folder, or restore a backup", c.dir)
	}
	if alive(c.pid) {
		return nil
	}
	return fmt.Errorf("PostgreSQL does not start on %s: %s", c.dir, c.lastWord())
}

// lastWord is the end of the server's log.
func (c *Cluster) lastWord() string {
	log, err := os.ReadFile(filepath.Join(c.dir, "server.log"))
	if err != nil {
		return err.Error()
	}
	lines := bytes.Split(bytes.TrimSpace(log), []byte("\n"))
	return string(lines[len(lines)-1])
}
