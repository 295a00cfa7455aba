package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/store"
)

// oneOut answers with one thing.
type oneOut[T any] struct{ Body T }

// listOut answers with a list, which is never null.
type listOut[T any] struct{ Body Items[T] }

// Items is a list.
type Items[T any] struct {
	Items []T `json:"items"`
}

// ByID is the id in the address.
type ByID struct {
	ID string `path:"id" format:"uuid"`
}

// uuid of the address, whose format is checked before.
func (b ByID) uuid() uuid.UUID { return uuid.MustParse(b.ID) }

// op describes an operation and what may go wrong.
func op(id, method, path, summary string, errors ...int) huma.Operation {
	return huma.Operation{
		OperationID: id, Method: method, Path: path, Summary: summary, Errors: errors,
		BodyReadTimeout: -1, // paced has one; the default would cancel a request that waits for the database
	}
}

// silent is an operation that answers with nothing.
func silent(o huma.Operation) huma.Operation {
	o.DefaultStatus = http.StatusNoContent
	return o
}

// signed runs fn as who is signed in, in one transaction of their practice with
// its audit row, and gives what fn gives; nobody signed in is a 401.
func signed[T any](ctx context.Context, s *server, what store.Action, fn func(*store.Tx) (T, error)) (T, error) {
	var out T
	who, err := s.principal(ctx)
	if err != nil {
		return out, err
	}
	err = s.store.As(ctx, who, what, func(tx *store.Tx) error {
		out, err = fn(tx)
		return err
	})
	return out, problem(err)
}

// one answers with what fn gives.
func one[T any](ctx context.Context, s *server, what store.Action, fn func(*store.Tx) (T, error)) (*oneOut[T], error) {
	out, err := signed(ctx, s, what, fn)
	return &oneOut[T]{out}, err
}

// list answers with what fn gives, each as the API shows it.
func list[T, Row any](
	ctx context.Context, s *server, what store.Action, show func(Row) T, fn func(*store.Tx) ([]Row, error),
) (*listOut[T], error) {
	rows, err := signed(ctx, s, what, fn)
	out := &listOut[T]{Items[T]{[]T{}}}
	for _, r := range rows {
		out.Body.Items = append(out.Body.Items, show(r))
	}
	return out, err
}

// done answers with nothing but the status.
func done(ctx context.Context, s *server, what store.Action, fn func(*store.Tx) error) (*struct{}, error) {
	_, err := signed(ctx, s, what, func(tx *store.Tx) (struct{}, error) { return struct{}{}, fn(tx) })
	return nil, err
}

// action on a thing.
func action(verb, kind, subject string) store.Action {
	return store.Action{Verb: verb, Kind: kind, Subject: subject}
}

// clientAction is an action on a client's record.
func clientAction(verb string, id ByID) store.Action {
	return store.Action{
		Verb: verb, Kind: "client", Subject: id.ID, Client: uuid.NullUUID{UUID: id.uuid(), Valid: true},
	}
}
