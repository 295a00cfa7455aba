package api

import (
	"context"
	"errors"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/strict"
	"mokren/core/treat"
	"mokren/store"
)

// Schools are the protocols that ship and the practice's own copies by id.
type Schools struct {
	Shipped []treat.School             `json:"shipped"`
	Own     map[string]treat.OwnSchool `json:"own"`
}

var ownSchools = own[treat.OwnSchool, Schools]{
	path:  "/api/schools",
	kind:  "protocol",
	noun:  "protocol of the practice",
	list:  [2]string{"schools", "The protocols, and the practice's own copies"},
	put:   [2]string{"put-school", "Tune a copy of a protocol, within its brackets"},
	reset: [2]string{"drop-school", "Forget an own copy; holds keep the plan they were begun with"},
	known: func(id string) bool { _, err := uuid.Parse(id); return err == nil },
	check: func(_ string, o treat.OwnSchool) error {
		var bad *strict.Error
		if err := o.Check(); err != nil && errors.As(err, &bad) {
			at := &huma.ErrorDetail{
				Location: "body" + bad.Path[1:], Message: "allowed: " + bad.Allowed, Value: bad.Given,
			}
			return huma.Error422UnprocessableEntity("This cannot be tuned so.", at)
		}
		return nil
	},
	write: func(ctx context.Context, tx *store.Tx, id string, o *treat.OwnSchool) error {
		return tx.PutSchool(ctx, id, o)
	},
	read: func(ctx context.Context, tx *store.Tx) (Schools, error) {
		mine, err := tx.OwnSchools(ctx)
		return Schools{treat.Schools(), mine}, err
	},
}
