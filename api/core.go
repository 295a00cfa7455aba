package api

import (
	"context"
	"encoding/json"
	"errors"
	"math"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/calc"
	"mokren/core/ids"
	"mokren/core/picture"
	"mokren/core/progress"
	"mokren/core/safety"
	"mokren/core/strict"
	"mokren/core/treat"
	"mokren/core/visit"
)

func schemaType(v any) reflect.Type { return reflect.TypeOf(v) }

// FigureView is a view's drawing with its landmarks.
type FigureView struct {
	body.Figure
	Landmarks []body.Landmark `json:"landmarks"`
}

// Lattice is a view's cells, compact: q and r name a cell ("view:q,r"), x and
// y are its centre, region is an index into regions.
type Lattice struct {
	Size    float64       `json:"size" doc:"distance of neighbouring cells, view units"`
	CM2     float64       `json:"cm2" doc:"area of a cell at a height of 170 cm"`
	Regions []ids.Region  `json:"regions"`
	Cells   []LatticeCell `json:"cells"`
}

// LatticeCell is one cell.
type LatticeCell struct {
	Q      int      `json:"q"`
	R      int      `json:"r"`
	X      float64  `json:"x"`
	Y      float64  `json:"y"`
	Region int      `json:"g"`
	Side   ids.Side `json:"s"`
}

func latticeOf(v body.View) Lattice {
	out := Lattice{
		Size: v.CellSize(), CM2: v.CM2(body.DefaultHeightCM), Regions: []ids.Region{},
		Cells: []LatticeCell{},
	}
	index := map[ids.Region]int{}
	for _, n := range body.Cells(v) {
		i, ok := index[n.Region]
		if !ok {
			i = len(out.Regions)
			index[n.Region] = i
			out.Regions = append(out.Regions, n.Region)
		}
		p := n.Cell.Center()
		out.Cells = append(out.Cells, LatticeCell{
			n.Cell.Q, n.Cell.R, math.Round(p.X*10) / 10,
			math.Round(p.Y*10) / 10, i, n.Side,
		})
	}
	return out
}

// ByView is the view in the address.
type ByView struct {
	View string `path:"view"`
}

func (p ByView) view() (body.View, error) {
	v := body.View(p.View)
	if e := v.Check(); e != nil {
		return v, huma.Error404NotFound("The figure has no such view.",
			&huma.ErrorDetail{Location: "path.view", Message: "allowed: " + e.Allowed, Value: p.View})
	}
	return v, nil
}

// anHour: drawings change with the program only.
const anHour = "public, max-age=3600"

type cachedOut[T any] struct {
	CacheControl string `header:"Cache-Control"`
	Body         T
}

// maxCalcBytes holds 30,000 readings or 20,000 lines of a hold.
const maxCalcBytes = 2 << 20

// jsonBody describes a body that the operation reads for itself.
func jsonBody(a huma.API, shape any) *huma.RequestBody {
	return &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{
		"application/json": {Schema: a.OpenAPI().Components.Schemas.Schema(schemaType(shape), true, "")},
	}}
}

// rawIn hands the body to the core unread: the core's own strict decoding is
// the only one.
type rawIn struct{ RawBody []byte }

func (s *server) registerCore(a huma.API) {
	huma.Register(a, huma.Operation{
		OperationID: "figure", Method: http.MethodGet, Path: "/api/figure/{view}",
		Summary: "The drawing of a view", Errors: []int{404},
	},
		func(_ context.Context, in *ByView) (*cachedOut[FigureView], error) {
			v, err := in.view()
			if err != nil {
				return nil, err
			}
			return &cachedOut[FigureView]{anHour, FigureView{body.Draw(v), body.LandmarksOf(v)}}, nil
		})
	huma.Register(a, huma.Operation{
		OperationID: "lattice", Method: http.MethodGet,
		Path: "/api/figure/{view}/lattice", Summary: "The cells of a view", Errors: []int{404},
	},
		func(_ context.Context, in *ByView) (*cachedOut[Lattice], error) {
			v, err := in.view()
			if err != nil {
				return nil, err
			}
			return &cachedOut[Lattice]{anHour, latticeOf(v)}, nil
		})
	huma.Register(a, huma.Operation{
		OperationID: "figure-svg", Method: http.MethodGet, Path: "/api/figure/{view}/svg",
		Summary: "A view with layers as SVG", Errors: []int{404, 422},
	}, svg)
	schemas := map[string][2]any{
		"atlas": {atlas.Query{}, calc.AtlasOut{}}, "cells": {calc.CellsIn{}, calc.CellsOut{}},
		"change": {calc.ChangeIn{}, progress.Change{}}, "drawing": {calc.DrawingIn{}, calc.DrawingOut{}},
		"hurts": {calc.TouchIn{}, calc.HurtsOut{}}, "layers": {picture.Wanted{}, picture.Drawn{}},
		"level": {calc.LevelIn{}, calc.LevelOut{}}, "photo": {assess.Photo{}, assess.PhotoAngles{}},
		"questions": {struct{}{}, calc.QuestionsOut{}}, "movements": {struct{}{}, calc.MovementsOut{}},
		"evidence": {struct{}{}, calc.EvidenceOut{}}, "tests": {struct{}{}, calc.TestsOut{}},
		"screen": {calc.ScreenIn{}, safety.Screening{}},
		"gauges": {struct{}{}, calc.GaugesOut{}}, "signs": {struct{}{}, calc.SignsOut{}},
		"steady": {calc.SteadyIn{}, calc.SteadyOut{}}, "thresholds": {struct{}{}, calc.ThresholdsOut{}},
		"slope": {calc.SlopeIn{}, assess.Slope{}}, "suspects": {calc.SuspectsIn{}, assess.Ranking{}},
		"place": {calc.PlaceIn{}, calc.PlaceOut{}}, "palpate": {calc.PalpateIn{}, atlas.Guide{}},
		"range": {calc.RangeIn{}, progress.RangeFlag{}}, "under": {calc.TouchIn{}, calc.UnderOut{}}, "coach": {"", ""},
	}
	for _, c := range calc.List() {
		op := huma.Operation{
			OperationID: "calc-" + c.Name, Method: http.MethodPost, Path: "/api/calc/" + c.Name,
			Summary: c.Summary, Errors: []int{401, 413, 422}, SkipValidateBody: true,
		}
		media := "application/json"
		if c.Lines {
			media = "application/jsonl"
		}
		io := schemas[c.Name]
		schema := func(v any) map[string]*huma.MediaType {
			return map[string]*huma.MediaType{media: {Schema: a.OpenAPI().Components.Schemas.Schema(schemaType(v),
				true, "")}}
		}
		op.RequestBody = &huma.RequestBody{Required: true, Content: schema(io[0])}
		op.Responses = map[string]*huma.Response{"200": {Description: "OK", Content: schema(io[1])}}
		name := c.Name
		op.MaxBodyBytes = maxCalcBytes
		huma.Register(a, op, func(ctx context.Context, in *rawIn) (*huma.StreamResponse, error) {
			b, err := calc.RunFor(ctx, name, in.RawBody)
			if err != nil {
				return nil, refused(err)
			}
			return &huma.StreamResponse{Body: func(ctx huma.Context) {
				ctx.SetHeader("Content-Type", media)
				ctx.BodyWriter().Write(b) //nolint:errcheck // the client went away
			}}, nil
		})
	}
	// Types that only the browser's core hands over, described once here.
	for _, v := range []any{treat.Line{}, treat.Start{}} {
		a.OpenAPI().Components.Schemas.Schema(schemaType(v), true, "")
	}
	for _, b := range visit.Types() {
		a.OpenAPI().Components.Schemas.Schema(reflect.TypeOf(b).Elem(), true, "")
	}
}

type svgOut struct {
	ContentType        string `header:"Content-Type"`
	ContentDisposition string `header:"Content-Disposition"`
	Body               []byte
}

// svg hands a view out as a file. What may be asked for is the core's to say.
func svg(_ context.Context, in *struct {
	ByView
	Layers []string `query:"layers" doc:"bones, landmarks, muscles, structures, referral; comma separated"`
	Depth  int      `query:"depth" minimum:"0" maximum:"4"`
	Only   []string `query:"only" maxItems:"100" doc:"muscle ids; comma separated"`
	Side   string   `query:"side" enum:",left,right"`
},
) (*svgOut, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	raw, err := json.Marshal(map[string]any{
		"view": v, "layers": append([]string{}, in.Layers...), "depth": in.Depth,
		"only": append([]string{}, in.Only...),
	})
	if err != nil {
		return nil, err
	}
	var w picture.Wanted
	if err := strict.Decode(raw, &w); err != nil {
		return nil, refused(err)
	}
	w.Side = ids.Side(in.Side)
	return &svgOut{"image/svg+xml", `inline; filename="body-` + string(v) + `.svg"`, []byte(picture.SVG(w))}, nil
}

// refused turns a core refusal into a 422 that names the field.
func refused(err error) error {
	var e *strict.Error
	if errors.As(err, &e) {
		return huma.Error422UnprocessableEntity("Please correct the field.",
			&huma.ErrorDetail{Location: e.Path, Message: "allowed: " + e.Allowed, Value: e.Given})
	}
	return problem(err)
}

// refuseField writes a 422 that names the field, before an operation is reached.
func refuseField(w http.ResponseWriter, location, allowed, given string) {
	writeModel(w, huma.ErrorModel{
		Status: http.StatusUnprocessableEntity, Title: http.StatusText(http.StatusUnprocessableEntity),
		Detail: "Please correct the field.",
		Errors: []*huma.ErrorDetail{{Location: location, Message: "allowed: " + allowed, Value: given}},
	})
}

func writeProblem(w http.ResponseWriter, status int, detail string) {
	writeModel(w, huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: detail})
}

func writeModel(w http.ResponseWriter, m huma.ErrorModel) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(m.Status)
	json.NewEncoder(w).Encode(m) //nolint:errcheck // the client went away
}
