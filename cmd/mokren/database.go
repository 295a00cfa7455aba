package main

import (
	"context"
	"errors"
	"log/slog"
	"os/signal"
	"path/filepath"
	"syscall"

	"mokren/store"
	"mokren/store/cluster"
	"mokren/store/seal"
)

// database says where the records are. With no URL the program runs its own
// PostgreSQL in DataDir.
type database struct {
	DatabaseURL string `env:"MOKREN_DATABASE_URL" help:"PostgreSQL as the app role; empty: run our own."`
	MigrateURL  string `env:"MOKREN_MIGRATE_URL" help:"The same server as the owner role, to migrate; empty: it is migrated already."`
	DataDir     string `env:"MOKREN_DATA" default:".mokren" help:"Folder of our own PostgreSQL."`
	SealKeyFile string `env:"MOKREN_SEAL_KEY_FILE" help:"Key of the second factors; empty: in the data folder, if we run our own."`
}

type migrateCmd struct{ database }

// Run migrates and ends.
func (c *migrateCmd) Run() error {
	ctx, cancel := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer cancel()
	if c.DatabaseURL != "" && c.MigrateURL == "" {
		c.MigrateURL = c.DatabaseURL
	}
	_, stop, err := c.open(ctx)
	if err != nil {
		return err
	}
	return stop()
}

// open finds or starts the database, brings the schema up to date where it may,
// and connects as the app role. With the app's address alone it only looks
// whether the schema is the one it knows.
func (d database) open(ctx context.Context) (*store.Store, func() error, error) {
	appURL, ownerURL, stop := d.DatabaseURL, d.MigrateURL, func() error { return nil }
	key := d.sealKey
	if appURL == "" {
		cl, err := cluster.Open(ctx, d.DataDir)
		if err != nil {
			return nil, nil, err
		}
		if d.SealKeyFile == "" {
			key = func() (*seal.Key, error) { return seal.ReadOrMake(filepath.Join(d.DataDir, "seal.key")) }
		}
		appURL, ownerURL, stop = cl.AppURL("mokren"), cl.OwnerURL("mokren"), cl.Stop
	}
	if ownerURL != "" {
		if err := store.Migrate(ctx, ownerURL); err != nil {
			return nil, nil, errors.Join(err, stop())
		}
	}
	st, err := store.Open(appURL)
	if err != nil {
		return nil, nil, errors.Join(err, stop())
	}
	err = errors.Join(sealWith(st, key), st.Await(ctx))
	if err == nil {
		err = st.CheckSchema(ctx)
	}
	if err != nil {
		return nil, nil, errors.Join(err, st.Close(), stop())
	}
	return st, func() error { return errors.Join(st.Close(), stop()) }, nil
}

// sealKey is the key that is configured; a copy that made one of its own would open
// nothing that another has sealed.
func (d database) sealKey() (*seal.Key, error) {
	if d.SealKeyFile == "" {
		slog.Warn("second factors are kept unsealed: MOKREN_SEAL_KEY_FILE is not set (mokren seal-key makes one)")
		return nil, nil
	}
	return seal.Read(d.SealKeyFile)
}

func sealWith(st *store.Store, key func() (*seal.Key, error)) error {
	k, err := key()
	st.SealWith(k)
	return err
}
