package api

import (
	"context"
	"errors"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"mokren/store"
)

// ErasureResult is what stays of a record.
type ErasureResult struct {
	Client string `json:"client" format:"uuid"`
	At     string `json:"at" format:"date-time"`
	By     string `json:"by"`
	Reason string `json:"reason"`
	Visits int    `json:"visits"`
	Events int    `json:"events"`
}

// ErasureRequest is an owner's word that a record shall go for good.
type ErasureRequest struct {
	Reason string `json:"reason" minLength:"3" maxLength:"300" doc:"kept; without the client's name"`
	// Name is typed again, so that nobody is erased by a slip of the hand.
	Name string `json:"name" minLength:"1" maxLength:"220" doc:"the client's full name"`
}

// LawHold is why a record must be kept.
type LawHold struct {
	Reason string `json:"reason" maxLength:"300" doc:"empty: it need not any more"`
}

func (s *server) registerErase(a huma.API) {
	huma.Register(a, silent(op("hold-by-law", http.MethodPut, "/api/clients/{id}/law-hold",
		"Keep a record from being erased", 401, 403, 404, 422)), s.holdByLaw)
	huma.Register(a, silent(op("erase-client", http.MethodPost, "/api/clients/{id}/erase",
		"Erase a record for good; a tombstone without a name stays", 401, 403, 404, 409, 422)), s.erase)
	huma.Register(a, op("erasures", http.MethodGet, "/api/erasures", "What was erased", 401, 403), s.erasures)
}

func (s *server) holdByLaw(ctx context.Context, in *struct {
	ByID
	Body LawHold
},
) (*struct{}, error) {
	return done(ctx, s, clientAction("hold-by-law", in.ByID), func(tx *store.Tx) error {
		return tx.HoldByLaw(ctx, in.uuid(), in.Body.Reason)
	})
}

func (s *server) erase(ctx context.Context, in *struct {
	ByID
	Body ErasureRequest
},
) (*struct{}, error) {
	return done(ctx, s, clientAction("erase", in.ByID), func(tx *store.Tx) error {
		c, err := tx.Client(ctx, in.uuid())
		if err != nil {
			return err
		}
		if in.Body.Name != c.GivenName+" "+c.FamilyName {
			return invalid("body.name", "", "the client's full name, as it is written in the record")
		}
		err = tx.Erase(ctx, c.ID, in.Body.Reason)
		if errors.Is(err, store.ErrHeld) {
			return huma.Error409Conflict("This record is held: " + c.LegalHold + ". Lift that first.")
		}
		return err
	})
}

func (s *server) erasures(ctx context.Context, _ *struct{}) (*listOut[ErasureResult], error) {
	show := func(e store.Erasure) ErasureResult {
		return ErasureResult{e.Client.String(), stampOf(e.At), e.By, e.Reason, e.Visits, e.Events}
	}
	return list(ctx, s, action("list", "erasure", ""), show, func(tx *store.Tx) ([]store.Erasure, error) {
		return tx.Erasures(ctx)
	})
}
