package api

import (
	"context"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

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

// ByThreshold is the threshold in the address.
type ByThreshold struct {
	Threshold string `path:"threshold"`
}

func (b ByThreshold) check() error {
	if slices.ContainsFunc(assess.DefaultThresholds(), func(t assess.FlagThreshold) bool { return t.ID == b.Threshold }) {
		return nil
	}
	return unknownSetting("path.threshold", "threshold", b.Threshold)
}

func (s *server) registerThresholds(a huma.API) {
	huma.Register(a, op("thresholds", http.MethodGet, "/api/thresholds",
		"The practice's own thresholds of posture flags", 401),
		func(ctx context.Context, _ *struct{}) (*oneOut[OwnThresholds], error) {
			return one(ctx, s, action("read", "posture-threshold", ""), func(tx *store.Tx) (OwnThresholds, error) {
				return readThresholds(ctx, tx)
			})
		})
	huma.Register(a, op("put-threshold", http.MethodPut, "/api/thresholds/{threshold}",
		"Set from where on a posture reading is flagged here", 401, 404, 422), s.putThreshold)
	huma.Register(a, op("reset-threshold", http.MethodDelete, "/api/thresholds/{threshold}",
		"Back to what was shipped", 401, 404),
		func(ctx context.Context, in *ByThreshold) (*oneOut[OwnThresholds], error) {
			return s.setThreshold(ctx, *in, nil)
		})
}

func (s *server) putThreshold(ctx context.Context, in *struct {
	ByThreshold
	Body ThresholdValue
},
) (*oneOut[OwnThresholds], error) {
	return s.setThreshold(ctx, in.ByThreshold, &in.Body.Value)
}

// setThreshold keeps an own threshold; nil is the shipped one again.
func (s *server) setThreshold(ctx context.Context, which ByThreshold, own *float64) (*oneOut[OwnThresholds], error) {
	if err := which.check(); err != nil {
		return nil, err
	}
	if own != nil {
		if e := assess.CheckThreshold(which.Threshold, *own); e != nil {
			return nil, refused(e)
		}
	}
	return one(ctx, s, action("write", "posture-threshold", which.Threshold),
		func(tx *store.Tx) (OwnThresholds, error) {
			if err := tx.PutThreshold(ctx, which.Threshold, own); err != nil {
				return OwnThresholds{}, err
			}
			return readThresholds(ctx, tx)
		})
}

func readThresholds(ctx context.Context, tx *store.Tx) (OwnThresholds, error) {
	t, err := tx.Thresholds(ctx)
	return OwnThresholds{t}, err
}
