package store

import (
	"context"
	"time"
)

// Rate counts calls in windows of time, for all copies on one database. It is what
// httprate asks for as its counter.
type Rate struct {
	s *Store
	// what is limited; each limit counts for itself.
	what   string
	window time.Duration
}

// Rate gives a counter of its own.
func (s *Store) Rate(what string) *Rate { return &Rate{s: s, what: what} }

// rateWaits so long for the database before a call is let through uncounted or
// refused, as the limiter decides.
const rateWaits = 2 * time.Second

// Config implements httprate.LimitCounter.
func (r *Rate) Config(_ int, window time.Duration) { r.window = window }

// Increment implements httprate.LimitCounter.
func (r *Rate) Increment(caller string, window time.Time) error {
	return r.IncrementBy(caller, window, 1)
}

// IncrementBy implements httprate.LimitCounter. What is older than two windows goes.
func (r *Rate) IncrementBy(caller string, window time.Time, n int) error {
	ctx, cancel := context.WithTimeout(context.Background(), rateWaits)
	defer cancel()
	_, err := r.s.db.ExecContext(ctx, `with old as (delete from rate where caller = $1 and window_at < $4)
		insert into rate (caller, window_at, calls) values ($1, $2, $3)
		on conflict (caller, window_at) do update set calls = rate.calls + excluded.calls`,
		r.what+" "+caller, window.UTC(), n, window.UTC().Add(-2*r.window))
	return err
}

// Get implements httprate.LimitCounter.
func (r *Rate) Get(caller string, current, previous time.Time) (now, before int, err error) {
	ctx, cancel := context.WithTimeout(context.Background(), rateWaits)
	defer cancel()
	err = r.s.db.QueryRowContext(ctx, `select coalesce(sum(calls) filter (where window_at = $2), 0),
			coalesce(sum(calls) filter (where window_at = $3), 0)
		from rate where caller = $1`, r.what+" "+caller, current.UTC(), previous.UTC()).Scan(&now, &before)
	return now, before, err
}
