package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"mokren/store"
)

// handLife is long enough for a session.
const handLife = 3 * time.Hour

// ResponsePad is all that a client's pad is told during a hold.
type ResponsePad struct {
	Practice  string `json:"practice"`
	ExpiresAt string `json:"expires_at" format:"date-time"`
}

func (s *server) registerResponsePad(a huma.API) {
	huma.Register(a, op("new-hand-link", http.MethodPost, "/api/visits/{id}/hand",
		"A code for the client's pad during holds; codes before it end", 401, 404), s.newResponseLink)
	huma.Register(a, silent(op("end-hand-link", http.MethodDelete, "/api/visits/{id}/hand",
		"Take the pad's code back", 401, 404)), s.endResponseLink)
	g := huma.NewGroup(a, "/api/hand/{code}")
	g.UseMiddleware(s.atMost("hand", codesPerMinute)...)
	huma.Register(g, op("hand", http.MethodGet, "", "What a client's pad may know", 404, 429), s.responsePad)
}

func (s *server) newResponseLink(ctx context.Context, in *ByID) (*oneOut[NewLink], error) {
	expires := s.now().Add(handLife)
	return one(ctx, s, action("link", "visit", in.ID), func(tx *store.Tx) (NewLink, error) {
		v, err := tx.Visit(ctx, in.uuid())
		if err != nil {
			return NewLink{}, err
		}
		if err := tx.EndLinks(ctx, v.ID, forHand); err != nil {
			return NewLink{}, err
		}
		code, err := tx.NewLink(ctx, v.ClientID, v.ID, forHand, expires)
		return NewLink{code, expires.UTC().Format(time.RFC3339)}, err
	})
}

func (s *server) endResponseLink(ctx context.Context, in *ByID) (*struct{}, error) {
	_, err := one(ctx, s, action("unlink", "visit", in.ID), func(tx *store.Tx) (struct{}, error) {
		v, err := tx.Visit(ctx, in.uuid())
		if err != nil {
			return struct{}{}, err
		}
		return struct{}{}, tx.EndLinks(ctx, v.ID, forHand)
	})
	return nil, err
}

func (s *server) responsePad(ctx context.Context, in *ByCode) (*oneOut[ResponsePad], error) {
	out := &oneOut[ResponsePad]{}
	err := s.link(ctx, in.Code, forHand, "open", in.from, func(tx *store.Tx, l store.Link) error {
		p, err := tx.Person(ctx, l.Person)
		out.Body = ResponsePad{p.PracticeName, l.Expires.UTC().Format(time.RFC3339)}
		return err
	})
	return out, err
}
