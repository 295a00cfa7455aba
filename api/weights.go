package api

import (
	"context"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/assess"
	"mokren/store"
)

// Weights are the practice's own likelihood ratios by evidence id.
type Weights struct {
	Weights assess.Weights `json:"weights"`
}

// ByEvidence is the kind of finding in the address.
type ByEvidence struct {
	Evidence string `path:"evidence"`
}

func (b ByEvidence) check() error {
	if slices.ContainsFunc(assess.Defaults(), func(e assess.Evidence) bool { return e.ID == b.Evidence }) {
		return nil
	}
	return unknownSetting("path.evidence", "kind of finding", b.Evidence)
}

func (s *server) registerWeights(a huma.API) {
	huma.Register(a, op("weights", http.MethodGet, "/api/evidence", "The practice's own likelihood ratios", 401),
		func(ctx context.Context, _ *struct{}) (*oneOut[Weights], error) {
			return one(ctx, s, action("read", "evidence", ""), func(tx *store.Tx) (Weights, error) {
				return readWeights(ctx, tx)
			})
		})
	huma.Register(a, op("put-weight", http.MethodPut, "/api/evidence/{evidence}",
		"Set what a kind of finding weighs here", 401, 404, 422), s.putWeight)
	huma.Register(a, op("reset-weight", http.MethodDelete, "/api/evidence/{evidence}", "Back to what was shipped",
		401, 404),
		func(ctx context.Context, in *ByEvidence) (*oneOut[Weights], error) { return s.setWeight(ctx, *in, nil) })
}

func (s *server) putWeight(ctx context.Context, in *struct {
	ByEvidence
	Body assess.Ratio
},
) (*oneOut[Weights], error) {
	return s.setWeight(ctx, in.ByEvidence, &in.Body)
}

// setWeight keeps an own weight; nil is the shipped one again.
func (s *server) setWeight(ctx context.Context, which ByEvidence, own *assess.Ratio) (*oneOut[Weights], error) {
	if err := which.check(); err != nil {
		return nil, err
	}
	return one(ctx, s, action("write", "evidence", which.Evidence), func(tx *store.Tx) (Weights, error) {
		if err := tx.PutWeight(ctx, which.Evidence, own); err != nil {
			return Weights{}, err
		}
		return readWeights(ctx, tx)
	})
}

func readWeights(ctx context.Context, tx *store.Tx) (Weights, error) {
	w, err := tx.Weights(ctx)
	return Weights{w}, err
}

func unknownSetting(where, what, id string) error {
	return huma.Error404NotFound("There is no such "+what+".",
		&huma.ErrorDetail{Location: where, Message: "allowed: an id of the list", Value: id})
}
