package main

import (
	"context"
	"errors"
	"fmt"
	"os/signal"
	"syscall"
	"time"

	"mokren/demo/crowd"
	"mokren/store"
	"mokren/store/cluster"
)

type generateCmd struct {
	DatabaseURL string `env:"MOKREN_DATABASE_URL" help:"PostgreSQL as the app role; empty: our own in the data folder."`
	AdminURL    string `env:"MOKREN_ADMIN_URL" help:"The same as a role that sees every row."`
	DataDir     string `env:"MOKREN_DATA" default:".mokren" help:"Folder of our own PostgreSQL."`
	Practices   int    `default:"1" help:"Practices, each a copy of the first."`
	Clients     int    `default:"10000" help:"Clients of each invented practice."`
	Visits      int    `default:"20" help:"Visits of each client."`
}

// Run adds invented practices of a size, for sizing a server.
func (c *generateCmd) Run() error {
	ctx, cancel := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer cancel()
	app, admin, stop := c.DatabaseURL, c.AdminURL, func() error { return nil }
	if app == "" {
		cl, err := cluster.Open(ctx, c.DataDir)
		if err != nil {
			return err
		}
		app, admin, stop = cl.AppURL("mokren"), cl.AdminURL("mokren"), cl.Stop
		if err := store.Migrate(ctx, cl.OwnerURL("mokren")); err != nil {
			return errors.Join(err, stop())
		}
	}
	st, err := store.Open(app)
	if err != nil {
		return errors.Join(err, stop())
	}
	fmt.Printf("making %d practices of %d clients with %d visits each …\n", c.Practices, c.Clients, c.Visits)
	began := time.Now()
	made, err := crowd.Fill(ctx, st, admin, crowd.Size{Clients: c.Clients, Visits: c.Visits}, began)
	if err == nil && c.Practices > 1 {
		err = crowd.Copy(ctx, admin, made.Who.Practice, c.Practices-1)
	}
	if err == nil {
		fmt.Printf("done in %s; sign in as %s / %s\n", time.Since(began).Round(time.Second), made.Email, made.Password)
	}
	return errors.Join(err, st.Close(), stop())
}
