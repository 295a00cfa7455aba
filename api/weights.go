package api

import (
	"context"
	"slices"

	"mokren/core/assess"
	"mokren/store"
)

// Weights are the practice's own likelihood ratios by evidence id.
type Weights struct {
	Weights assess.Weights `json:"weights"`
}

var ownWeights = own[assess.Ratio, Weights]{
	path:  "/api/evidence",
	kind:  "evidence",
	noun:  "kind of finding",
	list:  [2]string{"weights", "The practice's own likelihood ratios"},
	put:   [2]string{"put-weight", "Set what a kind of finding weighs here"},
	reset: [2]string{"reset-weight", "Back to what was shipped"},
	known: func(id string) bool {
		return slices.ContainsFunc(assess.Defaults(), func(e assess.Evidence) bool { return e.ID == id })
	},
	check: func(string, assess.Ratio) error { return nil },
	write: func(ctx context.Context, tx *store.Tx, id string, r *assess.Ratio) error {
		return tx.PutWeight(ctx, id, r)
	},
	read: func(ctx context.Context, tx *store.Tx) (Weights, error) {
		w, err := tx.Weights(ctx)
		return Weights{w}, err
	},
}
