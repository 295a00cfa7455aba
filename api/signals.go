package api

import (
	"context"
	"log/slog"

	"github.com/google/uuid"

	"mokren/core/visit"
	"mokren/store"
)

// padAlive is what a signal says instead of a version: the client's pad is there.
const padAlive = -1

// tell passes on what happened in a visit, here and to the other copies. since is
// the version before its events.
func (s *server) tell(ctx context.Context, practice, visitID uuid.UUID, what Heard, since int64) {
	s.hub.say(visitID, what)
	if what.Pad {
		since = padAlive
	}
	err := s.store.Say(ctx, store.Signal{Practice: practice, Visit: visitID, From: s.copy, Since: since})
	if err != nil {
		slog.Warn("other copies were not told", "error", err)
	}
}

// lookAgain, in place of a version, says that somebody's rights have changed.
const lookAgain = -2

// rightsChanged ends at once the wires of who may listen no more, here and at the other
// copies; without a word from here each ends with its next delivery or ping.
func (s *server) rightsChanged(ctx context.Context) {
	s.hub.checkAll()
	if err := s.store.Say(ctx, store.Signal{From: s.copy, Since: lookAgain}); err != nil {
		slog.Warn("other copies were not told", "error", err)
	}
}

// endsWires is what an operation answers that may have taken somebody's rights.
func endsWires[T any](ctx context.Context, s *server) func(T, error) (T, error) {
	return func(out T, err error) (T, error) {
		if err == nil {
			s.rightsChanged(ctx)
		}
		return out, err
	}
}

// heardFrom takes what another copy says.
func (s *server) heardFrom(what store.Signal) {
	switch {
	case what.From == s.copy:
	case what.Since == lookAgain:
		s.hub.checkAll()
	case what.Since == padAlive:
		s.hub.say(what.Visit, Heard{Pad: true})
	default:
		s.hub.say(what.Visit, Heard{since: &what.Since})
	}
}

// newer are a visit's events after a version, read as who listens.
func (s *server) newer(ctx context.Context, who store.Principal, id uuid.UUID, since int64) ([]visit.Event, error) {
	var out []visit.Event
	err := s.store.As(ctx, who, action("listen", "visit", id.String()), func(tx *store.Tx) error {
		if _, err := tx.Visit(ctx, id); err != nil {
			return err
		}
		all, err := tx.Events(ctx, id)
		for _, e := range all {
			if e.Version > since {
				out = append(out, e)
			}
		}
		return err
	})
	return out, err
}
