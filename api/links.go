package api

import (
	"context"
	"errors"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/store"
)

// What a code is good for.
const (
	forIntake = "intake"
	forHand   = "hand"
	forAfter  = "after"
	forDate   = "date"
)

// linkLife is long enough for the whole intake and short enough to be left
// lying.
const linkLife = 30 * time.Minute

// NewLink is the code for a client's own device. It is shown once.
type NewLink struct {
	Code      string `json:"code"`
	ExpiresAt string `json:"expires_at" format:"date-time"`
}

// ByCode is the code in the address.
type ByCode struct {
	Code string `path:"code" maxLength:"20"`
	from string
}

// Resolve implements huma.Resolver: it notes where the code is tried from.
func (c *ByCode) Resolve(ctx huma.Context) []error {
	c.from = addressOf(ctx.RemoteAddr())
	return nil
}

// link looks the code up and acts within its practice; a wrong and an expired
// code sound the same.
func (s *server) link(
	ctx context.Context, code, purpose, verb, from string, fn func(*store.Tx, store.Link) error,
) error {
	over := huma.Error404NotFound("This code is not known, or its time is over. Ask your therapist for a new one.")
	l, err := s.store.FindLink(ctx, code, s.now())
	if errors.Is(err, store.ErrNotFound) || err == nil && l.Purpose != purpose {
		return errors.Join(over, s.store.LogAttempt(ctx, "code", from))
	}
	if err != nil {
		return problem(err)
	}
	what := store.Action{
		Verb: verb, Kind: "client-" + l.Purpose, Subject: l.Visit.String(),
		Client: uuid.NullUUID{UUID: l.Client, Valid: true},
	}
	return problem(s.store.As(ctx, l.Principal(), what, func(tx *store.Tx) error {
		// A code ends with its visit, and with the client's being put away.
		v, err := tx.Visit(ctx, l.Visit)
		if err != nil {
			return err
		}
		c, err := tx.Client(ctx, l.Client)
		if err != nil {
			return err
		}
		by, err := tx.Person(ctx, l.Person)
		if err != nil {
			return err
		}
		ended := (v.ClosedAt.Valid || by.Left.Valid) && purpose != forAfter
		if ended || c.Archived.Valid {
			return over
		}
		return fn(tx, l)
	}))
}

func (s *server) newLink(ctx context.Context, in *ByID) (*oneOut[NewLink], error) {
	expires := s.now().Add(linkLife)
	return one(ctx, s, action("link", "visit", in.ID), func(tx *store.Tx) (NewLink, error) {
		v, err := tx.Visit(ctx, in.uuid())
		if err != nil {
			return NewLink{}, err
		}
		// One at a time: a code that was given before ends with this one.
		if err := tx.EndLinks(ctx, v.ID, forIntake); err != nil {
			return NewLink{}, err
		}
		code, err := tx.NewLink(ctx, v.ClientID, v.ID, forIntake, expires)
		return NewLink{code, expires.UTC().Format(time.RFC3339)}, err
	})
}
