package api

import (
	"context"
	"errors"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/sequence"
	"mokren/store"
)

// Sequences are those that ship, the practice's own by id, and the techniques of which they are
// made, with their bounds.
type Sequences struct {
	Shipped    []sequence.Shipped              `json:"shipped"`
	Own        map[string]sequence.OwnSequence `json:"own"`
	Techniques []sequence.Technique            `json:"techniques"`
	// Regions are where a step may be done, besides at a muscle.
	Regions []ids.Region `json:"regions"`
}

var ownSequences = own[sequence.OwnSequence, Sequences]{
	path:  "/api/sequences",
	kind:  "sequence",
	noun:  "sequence of the practice",
	list:  [2]string{"sequences", "The sequences, the practice's own ones, and their techniques"},
	put:   [2]string{"put-sequence", "Keep a sequence of the practice's own, within the bounds of its techniques"},
	reset: [2]string{"drop-sequence", "Delete an own sequence; a run keeps the steps that it was begun with"},
	known: func(id string) bool { _, err := uuid.Parse(id); return err == nil },
	check: func(_ string, o sequence.OwnSequence) error {
		var bad *decode.Error
		if err := o.Check(); err != nil && errors.As(err, &bad) {
			at := &huma.ErrorDetail{
				Location: "body" + bad.Path[1:], Message: "allowed: " + bad.Allowed, Value: bad.Given,
			}
			return huma.Error422UnprocessableEntity("This sequence cannot be kept.", at)
		}
		return nil
	},
	write: func(ctx context.Context, tx *store.Tx, id string, o *sequence.OwnSequence) error {
		return tx.PutSequence(ctx, id, o)
	},
	read: func(ctx context.Context, tx *store.Tx) (Sequences, error) {
		mine, err := tx.OwnSequences(ctx)
		return Sequences{sequence.Known(), mine, sequence.Techniques(), ids.Regions()}, err
	},
}
