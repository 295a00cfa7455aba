package api

import (
	"context"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/assess"
	"mokren/core/strict"
	"mokren/store"
)

// Weights are the practice's own likelihood ratios by evidence id.
type Weights struct {
	Weights assess.Weights `json:"weights"`
}

// OwnThresholds are the practice's own thresholds of posture flags, by id.
type OwnThresholds struct {
	Thresholds assess.Thresholds `json:"thresholds"`
}

// ThresholdValue is one threshold in its unit.
type ThresholdValue struct {
	Value float64 `json:"value"`
}

// settings serves one kind of a practice's own values: all of them after every
// read and write.
type settings[T any] struct {
	s     *server
	kind  string
	read  func(context.Context, *store.Tx) (T, error)
	check func(id string) error
}

// answer reads all values, after a write where there is one; valid says whether
// what is written may stand, nil that its shape said so already.
func (k settings[T]) answer(ctx context.Context, id string, valid func() *strict.Error,
	write func(*store.Tx) error,
) (*oneOut[T], error) {
	who, err := k.s.principal(ctx)
	if err != nil {
		return nil, err
	}
	a := store.Action{Verb: "read", Kind: k.kind}
	if write != nil {
		a.Verb, a.Subject = "write", id
		if err := k.check(id); err != nil {
			return nil, err
		}
		if valid != nil {
			if e := valid(); e != nil {
				return nil, refused(e)
			}
		}
	}
	out := &oneOut[T]{}
	err = k.s.store.As(ctx, who, a, func(tx *store.Tx) error {
		if write != nil {
			if err := write(tx); err != nil {
				return err
			}
		}
		out.Body, err = k.read(ctx, tx)
		return err
	})
	return out, problem(err)
}

func unknownSetting(where, what, id string) error {
	return huma.Error404NotFound("There is no such "+what+".",
		&huma.ErrorDetail{Location: where, Message: "allowed: an id of the list", Value: id})
}

func (s *server) registerWeights(a huma.API) {
	k := settings[Weights]{
		s, "evidence",
		func(ctx context.Context, tx *store.Tx) (Weights, error) {
			w, err := tx.Weights(ctx)
			return Weights{w}, err
		},
		func(id string) error {
			if slices.ContainsFunc(assess.Defaults(), func(e assess.Evidence) bool { return e.ID == id }) {
				return nil
			}
			return unknownSetting("path.evidence", "kind of finding", id)
		},
	}
	type ByEvidence struct {
		Evidence string `path:"evidence"`
	}
	huma.Register(a, huma.Operation{
		OperationID: "weights", Method: http.MethodGet, Path: "/api/evidence",
		Summary: "The practice's own likelihood ratios", Errors: []int{401},
	},
		func(ctx context.Context, _ *struct{}) (*oneOut[Weights], error) { return k.answer(ctx, "", nil, nil) })
	huma.Register(a, huma.Operation{
		OperationID: "put-weight", Method: http.MethodPut,
		Path: "/api/evidence/{evidence}", Summary: "Set what a kind of finding weighs here",
		Errors: []int{401, 404, 422},
	},
		func(ctx context.Context, in *struct {
			ByEvidence
			Body assess.Ratio
		},
		) (*oneOut[Weights], error) {
			return k.answer(ctx, in.Evidence, nil,
				func(tx *store.Tx) error { return tx.PutWeight(ctx, in.Evidence, &in.Body) })
		})
	huma.Register(a, huma.Operation{
		OperationID: "reset-weight", Method: http.MethodDelete,
		Path: "/api/evidence/{evidence}", Summary: "Back to what was shipped", Errors: []int{401, 404},
	},
		func(ctx context.Context, in *ByEvidence) (*oneOut[Weights], error) {
			return k.answer(ctx, in.Evidence, nil,
				func(tx *store.Tx) error { return tx.PutWeight(ctx, in.Evidence, nil) })
		})
}

func (s *server) registerThresholds(a huma.API) {
	k := settings[OwnThresholds]{
		s, "posture-threshold",
		func(ctx context.Context, tx *store.Tx) (OwnThresholds, error) {
			t, err := tx.Thresholds(ctx)
			return OwnThresholds{t}, err
		},
		func(id string) error {
			if slices.ContainsFunc(assess.DefaultThresholds(),
				func(t assess.FlagThreshold) bool { return t.ID == id }) {
				return nil
			}
			return unknownSetting("path.threshold", "threshold", id)
		},
	}
	type ByThreshold struct {
		Threshold string `path:"threshold"`
	}
	huma.Register(a, huma.Operation{
		OperationID: "thresholds", Method: http.MethodGet, Path: "/api/thresholds",
		Summary: "The practice's own thresholds of posture flags", Errors: []int{401},
	},
		func(ctx context.Context, _ *struct{}) (*oneOut[OwnThresholds], error) {
			return k.answer(ctx, "", nil, nil)
		})
	huma.Register(a, huma.Operation{
		OperationID: "put-threshold", Method: http.MethodPut,
		Path: "/api/thresholds/{threshold}", Summary: "Set from where on a posture reading is flagged here",
		Errors: []int{401, 404, 422},
	},
		func(ctx context.Context, in *struct {
			ByThreshold
			Body ThresholdValue
		},
		) (*oneOut[OwnThresholds], error) {
			return k.answer(ctx, in.Threshold, func() *strict.Error {
				return assess.CheckThreshold(in.Threshold,
					in.Body.Value)
			},
				func(tx *store.Tx) error { return tx.PutThreshold(ctx, in.Threshold, &in.Body.Value) })
		})
	huma.Register(a, huma.Operation{
		OperationID: "reset-threshold", Method: http.MethodDelete,
		Path: "/api/thresholds/{threshold}", Summary: "Back to what was shipped", Errors: []int{401, 404},
	},
		func(ctx context.Context, in *ByThreshold) (*oneOut[OwnThresholds], error) {
			return k.answer(ctx, in.Threshold, nil,
				func(tx *store.Tx) error { return tx.PutThreshold(ctx, in.Threshold, nil) })
		})
}
