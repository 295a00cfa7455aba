package api

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/calc"
	"mokren/core/progress"
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

// MuscleName names a muscle that the atlas has data for.
type MuscleName struct {
	ID     string   `json:"id"`
	Name   string   `json:"name"`
	Latin  string   `json:"latin"`
	Region string   `json:"region"`
	Sites  []string `json:"sites"`
}

// rawIn hands the body to the core unread: the core's own strict decoding is
// the only one.
type rawIn struct{ RawBody []byte }

func (s *server) registerCore(a huma.API) {
	huma.Register(a, huma.Operation{OperationID: "figure", Method: http.MethodGet, Path: "/api/figure/{view}", Summary: "The drawing of a view", Errors: []int{404}},
		func(_ context.Context, in *struct {
			View string `path:"view"`
		}) (*struct {
			CacheControl string `header:"Cache-Control"`
			Body         FigureView
		}, error) {
			v := body.View(in.View)
			if !v.Known() {
				return nil, huma.Error404NotFound("The figure has no such view.", &huma.ErrorDetail{Location: "path.view", Message: "allowed: front, back, sole-left, sole-right", Value: in.View})
			}
			return &struct {
				CacheControl string `header:"Cache-Control"`
				Body         FigureView
			}{"public, max-age=3600", FigureView{body.Draw(v), body.LandmarksOf(v)}}, nil
		})
	huma.Register(a, huma.Operation{OperationID: "muscles", Method: http.MethodGet, Path: "/api/muscles", Summary: "Muscles with atlas data"},
		func(context.Context, *struct{}) (*listOut[MuscleName], error) {
			out := &listOut[MuscleName]{}
			for _, m := range atlas.All() {
				n := MuscleName{ID: string(m.ID), Name: m.Name, Latin: m.Latin, Region: m.Region}
				for _, s := range m.Sites {
					n.Sites = append(n.Sites, s.ID)
				}
				out.Body.Items = append(out.Body.Items, n)
			}
			return out, nil
		})
	schemas := map[string][2]any{
		"cells":  {calc.CellsIn{}, calc.CellsOut{}},
		"change": {calc.ChangeIn{}, progress.Change{}}, "palpate": {calc.PalpateIn{}, atlas.Guide{}},
		"range": {calc.RangeIn{}, progress.RangeFlag{}},
		"under": {calc.UnderIn{}, calc.UnderOut{}}, "coach": {"", ""},
	}
	for _, c := range calc.List() {
		op := huma.Operation{OperationID: "calc-" + c.Name, Method: http.MethodPost, Path: "/api/calc/" + c.Name, Summary: c.Summary, Errors: []int{422}, SkipValidateBody: true}
		media := "application/json"
		if c.Lines {
			media = "application/jsonl"
		}
		io := schemas[c.Name]
		schema := func(v any) map[string]*huma.MediaType {
			return map[string]*huma.MediaType{media: {Schema: a.OpenAPI().Components.Schemas.Schema(schemaType(v), true, "")}}
		}
		op.RequestBody = &huma.RequestBody{Required: true, Content: schema(io[0])}
		op.Responses = map[string]*huma.Response{"200": {Description: "OK", Content: schema(io[1])}}
		name := c.Name
		huma.Register(a, op, func(_ context.Context, in *rawIn) (*huma.StreamResponse, error) {
			b, err := calc.Run(name, in.RawBody)
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

// refused turns a core refusal into a 422 that names the field.
func refused(err error) error {
	var e *strict.Error
	if errors.As(err, &e) {
		return huma.Error422UnprocessableEntity("Please correct the field.", &huma.ErrorDetail{Location: e.Path, Message: "allowed: " + e.Allowed, Value: e.Given})
	}
	return problem(err)
}

func writeProblem(w http.ResponseWriter, status int, detail string) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	json.NewEncoder(w).Encode(huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: detail}) //nolint:errcheck // the client went away
}
