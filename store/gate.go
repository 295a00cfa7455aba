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

// gate lets so many through at once. One of the places is kept for devices that have
// signed in before, so that a crowd of strangers keeps nobody out who works here.
type gate struct {
	slots, strangers chan struct{}
	// queue is for strangers, known for devices that are known.
	queue, known chan struct{}
	patience     time.Duration
}

// newGate lets so many in at once and so many wait. One place is kept for those whose device
// is known.
func newGate(atOnce, waiting int, patience time.Duration) *gate {
	return &gate{
		make(chan struct{}, atOnce), make(chan struct{}, max(1, atOnce-1)),
		make(chan struct{}, atOnce+waiting), make(chan struct{}, atOnce+waiting), patience,
	}
}

// passwords is this program's gate: memory is a matter of the program, not of a store.
var passwords = newGate(comparedAtOnce, mostWaiting, WaitingFor)

// pass runs f once there is room; ErrBusy when the queue is full or the wait is over.
func (g *gate) pass(ctx context.Context, known bool, f func()) error {
	places, queue := []chan struct{}{g.strangers, g.slots}, g.queue
	if known {
		places, queue = places[1:], g.known
	}
	select {
	case queue <- struct{}{}:
	default:
		return ErrBusy
	}
	defer func() { <-queue }()
	late := time.NewTimer(g.patience)
	defer late.Stop()
	for _, place := range places {
		select {
		case place <- struct{}{}:
		case <-late.C:
			return ErrBusy
		case <-ctx.Done():
			return ctx.Err()
		}
		defer func() { <-place }()
	}
	f()
	return nil
}

// samePassword compares within the gate.
func samePassword(ctx context.Context, known bool, hash, password string) (same bool, err error) {
	err = passwords.pass(ctx, known, func() { same = checkPassword(hash, password) })
	return same, err
}
