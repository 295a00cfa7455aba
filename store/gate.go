package store

import (
	"context"
	"errors"
	"time"
)

// ErrBusy: too many passwords are looked at just now.
var ErrBusy = errors.New("too many people sign in just now")

// Comparing a password costs 64 MiB and a tenth of a second of two cores, so only a few
// are compared at once, and only some more wait for it, for a while.
const (
	comparedAtOnce = 2
	mostWaiting    = 20
	WaitingFor     = 10 * time.Second
)

// gate lets so many through at once.
type gate struct {
	slots, queue chan struct{}
	patience     time.Duration
}

func newGate(atOnce, waiting int, patience time.Duration) *gate {
	return &gate{make(chan struct{}, atOnce), make(chan struct{}, atOnce+waiting), patience}
}

// passwords is this program's gate: memory is a matter of the program, not of a store.
var passwords = newGate(comparedAtOnce, mostWaiting, WaitingFor)

// pass runs f once there is room; ErrBusy when the queue is full or the wait is over.
func (g *gate) pass(ctx context.Context, f func()) error {
	select {
	case g.queue <- struct{}{}:
	default:
		return ErrBusy
	}
	defer func() { <-g.queue }()
	late := time.NewTimer(g.patience)
	defer late.Stop()
	select {
	case g.slots <- struct{}{}:
	case <-late.C:
		return ErrBusy
	case <-ctx.Done():
		return ctx.Err()
	}
	defer func() { <-g.slots }()
	f()
	return nil
}

// samePassword compares within the gate.
func samePassword(ctx context.Context, hash, password string) (same bool, err error) {
	err = passwords.pass(ctx, func() { same = checkPassword(hash, password) })
	return same, err
}
