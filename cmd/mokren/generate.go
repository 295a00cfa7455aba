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
)

type generateCmd struct {
	everyRow
	Practices int `default:"1" help:"Practices, each a copy of the first."`
	Clients   int `default:"10000" help:"Clients of each invented practice."`
	Visits    int `default:"20" help:"Visits of each client."`
}

// Run adds invented practices of a size, for sizing a server.
func (c *generateCmd) Run() error {
	ctx, cancel := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer cancel()
	app, admin, stop, err := c.reach(ctx)
	if err != nil {
		return err
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
