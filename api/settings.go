package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"mokren/store"
)

// PracticeSettings are the practice's own.
type PracticeSettings struct {
	CopyHours int `json:"copy_hours" minimum:"0" maximum:"168" doc:"how long a device may keep copies of visits; 0: none"`
}

func (s *server) registerSettings(a huma.API) {
	huma.Register(a, huma.Operation{
		OperationID: "put-practice-settings", Method: http.MethodPut, Path: "/api/practice",
		Summary: "Keep the practice's settings", Errors: []int{401, 403, 422},
	}, func(ctx context.Context, in *struct{ Body PracticeSettings }) (*oneOut[PracticeSettings], error) {
		who, err := s.principal(ctx)
		if err != nil {
			return nil, err
		}
		out := &oneOut[PracticeSettings]{}
		what := store.Action{Verb: "write", Kind: "practice", Subject: who.Practice.String()}
		err = s.store.As(ctx, who, what, func(tx *store.Tx) error {
			if err := tx.PutSettings(ctx, store.Settings(in.Body)); err != nil {
				return err
			}
			saved, err := tx.Settings(ctx)
			out.Body = PracticeSettings(saved)
			return err
		})
		return out, problem(err)
	})
}
