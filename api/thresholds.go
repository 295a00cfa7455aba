package api

import (
	"context"
	"slices"

	"mokren/core/assess"
	"mokren/store"
)

// OwnThresholds are the practice's own thresholds of posture flags, by id.
type OwnThresholds struct {
	Thresholds assess.Thresholds `json:"thresholds"`
}

// ThresholdValue is one threshold in its unit.
type ThresholdValue struct {
	Value float64 `json:"value"`
}

var ownThresholds = own[ThresholdValue, OwnThresholds]{
	path:  "/api/thresholds",
	kind:  "posture-threshold",
	noun:  "threshold",
	list:  [2]string{"thresholds", "The practice's own thresholds of posture flags"},
	put:   [2]string{"put-threshold", "Set from where on a posture reading is flagged here"},
	reset: [2]string{"reset-threshold", "Back to what was shipped"},
	known: func(id string) bool {
		return slices.ContainsFunc(assess.DefaultThresholds(), func(t assess.FlagThreshold) bool { return t.ID == id })
	},
	check: func(id string, v ThresholdValue) error {
		if e := assess.CheckThreshold(id, v.Value); e != nil {
			return refused(e)
		}
		return nil
	},
	write: func(ctx context.Context, tx *store.Tx, id string, v *ThresholdValue) error {
		if v == nil {
			return tx.PutThreshold(ctx, id, nil)
		}
		return tx.PutThreshold(ctx, id, &v.Value)
	},
	read: func(ctx context.Context, tx *store.Tx) (OwnThresholds, error) {
		t, err := tx.Thresholds(ctx)
		return OwnThresholds{t}, err
	},
}
