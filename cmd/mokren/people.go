package main

import (
	"context"
	"fmt"
	"time"

	"mokren/store"
)

// firstStart prints the link by which the first practice is set up: whoever can read
// this terminal owns the machine, whoever comes by the network has no link.
func firstStart(ctx context.Context, st *store.Store, base string) error {
	there, err := st.HasPractice(ctx)
	if err != nil || there {
		return err
	}
	secret, err := st.NewSetUpTicket(ctx)
	if err != nil {
		return err
	}
	fmt.Printf(
		"  There is no practice yet. Set yours up within a day, by this link alone:\n  %s/join/%s\n",
		base,
		secret,
	)
	return nil
}

type resetCmd struct {
	database
	Email string `arg:"" help:"By which the person signs in."`
}

// Run prints a one-time link: the way back in for an owner who is alone.
func (c *resetCmd) Run() error {
	ctx := context.Background()
	st, stop, err := c.open(ctx)
	if err != nil {
		return err
	}
	defer stop() //nolint:errcheck // it ends anyway
	secret, err := st.Reset(ctx, c.Email, time.Now())
	if err != nil {
		return err
	}
	fmt.Printf("Opens once, within a day, at the address of your server:\n/join/%s\n", secret)
	return nil
}
