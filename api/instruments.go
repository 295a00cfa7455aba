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
	Algometer    string `json:"algometer" doc:"WebSocket that sends one JSON sample a message: t in s, force_n; its tip has 1 cm²"`
	PressurePad  string `json:"pressure_pad" doc:"WebSocket that sends one JSON sample a message: t in s, force_n, depth_mm"`
}

func (s *server) registerInstruments(a huma.API) {
	huma.Register(a, op("instruments", http.MethodGet, "/api/instruments", "Where instruments stream", 401),
		func(context.Context, *struct{}) (*oneOut[Instruments], error) {
			return &oneOut[Instruments]{Instruments{s.inclinometer, s.algometer, s.pressurePad}}, nil
		})
}
