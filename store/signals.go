package store

import (
	"context"
	"encoding/json"
	"fmt"
	"log/slog"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// Signal is what one copy of the program tells the others: that a visit has new
// events, or that its client's pad is there. It carries no health data; who wants
// the events reads them.
type Signal struct {
	Practice uuid.UUID `json:"practice"`
	Visit    uuid.UUID `json:"visit"`
	// From is the copy that says it.
	From uuid.UUID `json:"from"`
	// Since is the version before the new events; -1 with a sign of life of a pad.
	Since int64 `json:"since"`
}

// signals is the channel's name in PostgreSQL.
const signals = "mokren_visit"

// Say tells the other copies; it is heard only once and by whoever listens then.
func (s *Store) Say(ctx context.Context, what Signal) error {
	raw, err := json.Marshal(what)
	if err != nil {
		return err
	}
	_, err = s.db.ExecContext(ctx, `select pg_notify($1, $2)`, signals, string(raw))
	return found("telling the other copies", err)
}

// listenAgain is how long a lost connection waits before it is made anew.
const listenAgain = 2 * time.Second

// Listen hands over what other copies say, on a connection of its own, until ctx
// ends; a lost connection is made anew.
func (s *Store) Listen(ctx context.Context, heard func(Signal)) {
	for ctx.Err() == nil {
		if err := s.listen(ctx, heard); err != nil && ctx.Err() == nil {
			slog.Warn("listening to other copies", "error", err)
			select {
			case <-ctx.Done():
			case <-time.After(listenAgain):
			}
		}
	}
}

// listen holds one connection of its own until it breaks; the caller makes a new one.
func (s *Store) listen(ctx context.Context, heard func(Signal)) error {
	conn, err := pgx.Connect(ctx, s.url)
	if err != nil {
		return fmt.Errorf("connecting: %w", err)
	}
	defer conn.Close(context.WithoutCancel(ctx)) //nolint:errcheck // it goes anyway
	if _, err := conn.Exec(ctx, `listen `+signals); err != nil {
		return err
	}
	for {
		n, err := conn.WaitForNotification(ctx)
		if err != nil {
			return err
		}
		var what Signal
		if json.Unmarshal([]byte(n.Payload), &what) == nil {
			heard(what)
		}
	}
}
