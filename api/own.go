package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"mokren/store"
)

// own is a list of values, each of which a practice may set for itself and put
// back to what was shipped.
type own[Value, All any] struct {
	path string // of the list; the id of a value follows
	kind string // as the audit names it
	noun string
	// list, put and reset name and describe the operations.
	list, put, reset [2]string
	known            func(id string) bool
	check            func(id string, v Value) error
	write            func(ctx context.Context, tx *store.Tx, id string, v *Value) error
	read             func(ctx context.Context, tx *store.Tx) (All, error)
}

// OfList is the id of one value.
type OfList struct {
	ID string `path:"id"`
}

func (o own[Value, All]) register(s *server, a huma.API) {
	huma.Register(a, op(o.list[0], http.MethodGet, o.path, o.list[1], 401),
		func(ctx context.Context, _ *struct{}) (*oneOut[All], error) {
			return one(ctx, s, action("read", o.kind, ""), func(tx *store.Tx) (All, error) { return o.read(ctx, tx) })
		})
	huma.Register(a, op(o.put[0], http.MethodPut, o.path+"/{id}", o.put[1], 401, 404, 422),
		func(ctx context.Context, in *struct {
			OfList
			Body Value
		},
		) (*oneOut[All], error) {
			return o.set(ctx, s, in.ID, &in.Body)
		})
	huma.Register(a, op(o.reset[0], http.MethodDelete, o.path+"/{id}", o.reset[1], 401, 404),
		func(ctx context.Context, in *OfList) (*oneOut[All], error) { return o.set(ctx, s, in.ID, nil) })
}

// set keeps an own value; nil is the shipped one again.
func (o own[Value, All]) set(ctx context.Context, s *server, id string, v *Value) (*oneOut[All], error) {
	if !o.known(id) {
		return nil, huma.Error404NotFound("There is no such "+o.noun+".",
			&huma.ErrorDetail{Location: "path.id", Message: "allowed: an id of the list", Value: id})
	}
	if v != nil {
		if err := o.check(id, *v); err != nil {
			return nil, err
		}
	}
	return one(ctx, s, action("write", o.kind, id), func(tx *store.Tx) (All, error) {
		if err := o.write(ctx, tx, id, v); err != nil {
			var none All
			return none, err
		}
		return o.read(ctx, tx)
	})
}
