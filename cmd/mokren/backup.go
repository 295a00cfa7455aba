package main

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"os"
	"os/signal"
	"strings"
	"syscall"
	"time"

	"mokren/store"
	"mokren/store/backup"
	"mokren/store/cluster"
)

// sealed is where backups go and what opens them.
type sealed struct {
	AdminURL   string `env:"MOKREN_ADMIN_URL" help:"PostgreSQL as a role that sees every row; empty: our own PostgreSQL in the data folder."`
	DataDir    string `env:"MOKREN_DATA" default:".mokren" help:"Folder of our own PostgreSQL."`
	Passphrase string `env:"MOKREN_BACKUP_PASSPHRASE_FILE" required:"" help:"File whose first line is the passphrase." type:"existingfile"`
}

type backupCmd struct {
	sealed
	Folder   string `arg:"" help:"Where the backup goes."`
	KeepDays int    `default:"30" help:"Older backups are thrown away."`
	KeepLast int    `default:"7" help:"So many stay however old they are."`
	NoVerify bool   `help:"Do not restore it into a scratch database to compare."`
}

type restoreCmd struct {
	sealed
	File string `arg:"" type:"existingfile" help:"The backup."`
}

func (s sealed) passphrase() (string, error) {
	f, err := os.Open(s.Passphrase)
	if err != nil {
		return "", err
	}
	defer f.Close()
	line, err := bufio.NewReader(f).ReadString('\n')
	if err != nil && line == "" {
		return "", fmt.Errorf("reading the passphrase from %s: %w", s.Passphrase, err)
	}
	return strings.TrimRight(line, "\r\n"), nil
}

// Run writes a backup, proves it by restoring it, and throws old ones away.
func (c *backupCmd) Run() error {
	ctx, cancel := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer cancel()
	word, err := c.passphrase()
	if err != nil {
		return err
	}
	from, leave, err := c.reach(ctx)
	if err != nil {
		return err
	}
	defer leave()
	path, err := backup.Write(ctx, from, c.Folder, word, time.Now())
	if err != nil {
		return err
	}
	fmt.Println("written:", path)
	if !c.NoVerify {
		m, err := backup.Verify(ctx, from, path, word)
		if err != nil {
			return fmt.Errorf("the backup does not come back as it was, and older ones are kept: %w", err)
		}
		fmt.Println("restored and compared:", m.Words())
	}
	gone, err := backup.Prune(c.Folder, backup.Keep{Days: c.KeepDays, Last: c.KeepLast}, time.Now())
	for _, name := range gone {
		fmt.Println("thrown away:", name)
	}
	return err
}

// reach finds the server: a configured one, our own that is running, or our own that is
// started for this.
func (s sealed) reach(ctx context.Context) (backup.Server, func(), error) {
	if s.AdminURL != "" {
		return backup.Server{URL: s.AdminURL}, func() {}, nil
	}
	c, err := cluster.Attach(s.DataDir)
	leave := func() {}
	if errors.Is(err, cluster.ErrNotRunning) {
		c, err = cluster.Open(ctx, s.DataDir)
		leave = func() { c.Stop() } //nolint:errcheck // it ends with this program anyway
	}
	if err != nil {
		return backup.Server{}, nil, err
	}
	return backup.Server{URL: c.AdminURL("mokren"), Bin: c.Bin()}, leave, nil
}

// Run restores a backup. Our own PostgreSQL keeps what it had under another name; a
// configured database must be empty.
func (c *restoreCmd) Run() error {
	ctx, cancel := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer cancel()
	word, err := c.passphrase()
	if err != nil {
		return err
	}
	if c.AdminURL != "" {
		m, err := backup.Restore(ctx, backup.Server{URL: c.AdminURL}, c.File, word)
		if err != nil {
			return err
		}
		fmt.Println("restored and compared:", m.Words())
		return nil
	}
	cl, err := cluster.Open(ctx, c.DataDir) // fails while Mokren runs on it
	if err != nil {
		return err
	}
	return errors.Join(restoreInto(ctx, cl, c.File, word), cl.Stop())
}

func restoreInto(ctx context.Context, cl *cluster.Cluster, file, word string) error {
	const fresh = "mokren_restored"
	if err := cl.DropDatabase(ctx, fresh); err != nil {
		return err
	}
	if err := cl.CreateDatabase(ctx, fresh, "template0"); err != nil {
		return err
	}
	m, err := backup.Restore(ctx, backup.Server{URL: cl.AdminURL(fresh), Bin: cl.Bin()}, file, word)
	if err != nil {
		return errors.Join(err, cl.DropDatabase(context.WithoutCancel(ctx), fresh))
	}
	aside := "mokren_before_" + time.Now().UTC().Format("20060102t150405")
	if err := cl.Swap(ctx, "mokren", aside, fresh); err != nil {
		return err
	}
	fmt.Println("restored and compared:", m.Words())
	fmt.Println("what was there before is kept as database", aside)
	return store.Migrate(ctx, cl.OwnerURL("mokren"))
}
