package api

import (
	"context"
	"errors"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/decode"
	"mokren/core/treat"
	"mokren/store"
)

// Protocols are the protocols that ship and the practice's own copies by id.
type Protocols struct {
	Shipped []treat.ProtocolNumbers      `json:"shipped"`
	Own     map[string]treat.OwnProtocol `json:"own"`
}

var ownProtocols = own[treat.OwnProtocol, Protocols]{
	path:  "/api/protocols",
	kind:  "protocol",
	noun:  "protocol of the practice",
	list:  [2]string{"protocols", "The protocols, and the practice's own copies"},
	put:   [2]string{"put-protocol", "Create your own version of a protocol, within its bounds"},
	reset: [2]string{"drop-protocol", "Forget an own copy; holds keep the plan they were begun with"},
	known: func(id string) bool { _, err := uuid.Parse(id); return err == nil },
	check: func(_ string, o treat.OwnProtocol) error {
		var bad *decode.Error
		if err := o.Check(); err != nil && errors.As(err, &bad) {
			at := &huma.ErrorDetail{
				Location: "body" + bad.Path[1:], Message: "allowed: " + bad.Allowed, Value: bad.Given,
			}
			return huma.Error422UnprocessableEntity("This cannot be tuned so.", at)
		}
		return nil
	},
	write: func(ctx context.Context, tx *store.Tx, id string, o *treat.OwnProtocol) error {
		return tx.PutProtocol(ctx, id, o)
	},
	read: func(ctx context.Context, tx *store.Tx) (Protocols, error) {
		mine, err := tx.OwnProtocols(ctx)
		return Protocols{treat.AllNumbers(), mine}, err
	},
}
