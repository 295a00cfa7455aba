package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
)

// Instruments are the addresses at which instruments stream to the browser;
// empty where there is none.
type Instruments struct {
	Inclinometer string `json:"inclinometer" doc:"WebSocket that sends one JSON sample a message: t_ms, deg, distance_cm"`
}

func (s *server) registerInstruments(a huma.API) {
	huma.Register(a, huma.Operation{
		OperationID: "instruments", Method: http.MethodGet, Path: "/api/instruments",
		Summary: "Where instruments stream", Errors: []int{401},
	},
		func(ctx context.Context, _ *struct{}) (*oneOut[Instruments], error) {
			if _, err := s.principal(ctx); err != nil {
				return nil, err
			}
			return &oneOut[Instruments]{Body: Instruments{s.inclinometer}}, nil
		})
}
