package main

import (
	"context"
	"errors"
	"fmt"
	"os/signal"
	"strings"
	"syscall"
	"time"

	"github.com/google/uuid"
	_ "github.com/jackc/pgx/v5/stdlib" // the "pgx" driver
	"github.com/jmoiron/sqlx"

	"mokren/core/rights"
	"mokren/store"
	"mokren/store/cluster"
)

// everyRow is a database as the program reaches it, and as a role that sees every row does.
type everyRow struct {
	DatabaseURL string `env:"MOKREN_DATABASE_URL" help:"PostgreSQL as the app role; empty: our own in the data folder."`
	AdminURL    string `env:"MOKREN_ADMIN_URL" help:"The same as a role that sees every row."`
	DataDir     string `env:"MOKREN_DATA" default:".mokren" help:"Folder of our own PostgreSQL."`
}

// reach finds or starts the database, migrated if it is our own.
func (d everyRow) reach(ctx context.Context) (app, admin string, stop func() error, err error) {
	none := func() error { return nil }
	if d.DatabaseURL != "" {
		return d.DatabaseURL, d.AdminURL, none, nil
	}
	cl, err := cluster.Attach(d.DataDir)
	stop = none
	if errors.Is(err, cluster.ErrNotRunning) {
		cl, err = cluster.Open(ctx, d.DataDir)
		if err == nil {
			stop = cl.Stop
			err = store.Migrate(ctx, cl.OwnerURL("mokren"))
		}
	}
	if err != nil {
		return "", "", none, errors.Join(err, stop())
	}
	return cl.AppURL("mokren"), cl.AdminURL("mokren"), stop, nil
}

type checkCmd struct{ everyRow }

// Run holds every visit's tables against its log, and says which differ.
func (c *checkCmd) Run() error {
	ctx, cancel := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer cancel()
	app, admin, stop, err := c.reach(ctx)
	if err != nil {
		return err
	}
	return errors.Join(check(ctx, app, admin), stop())
}

func check(ctx context.Context, app, admin string) error {
	db, err := sqlx.ConnectContext(ctx, "pgx", admin)
	if err != nil {
		return fmt.Errorf("reaching the database as a role that sees every row: %w", err)
	}
	defer db.Close()
	var owners []struct{ Practice, Person uuid.UUID }
	err = db.SelectContext(ctx, &owners, `select distinct on (practice_id) practice_id as practice, id as person from person
		where role = 'owner' and left_at is null order by practice_id, id`)
	if err != nil {
		return fmt.Errorf("listing practices: %w", err)
	}
	st, err := store.Open(app)
	if err != nil {
		return err
	}
	defer st.Close()
	looked, wrong := 0, 0
	for i, o := range owners {
		who := store.Principal{Practice: o.Practice, Person: o.Person, Role: rights.Owner}
		// The owner's own trail says that every visit was read.
		err := st.As(ctx, who, store.Action{Verb: "check", Kind: "visit"}, func(tx *store.Tx) error {
			n, faults, err := tx.CheckVisits(ctx, time.Now())
			for _, f := range faults {
				fmt.Printf("visit %s: %s not as its log has it\n", f.Visit, strings.Join(f.Tables, ", "))
			}
			looked, wrong = looked+n, wrong+len(faults)
			return err
		})
		if err != nil {
			return err
		}
		if i%100 == 99 {
			fmt.Printf("%d of %d practices …\n", i+1, len(owners))
		}
	}
	if wrong > 0 {
		return fmt.Errorf("%d of %d visits are not as their logs have them", wrong, looked)
	}
	fmt.Printf("Visits: %d; practices: %d. All are as their logs have them.\n", looked, len(owners))
	return nil
}
