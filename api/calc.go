package api

import (
	"context"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/calc"
	"mokren/core/treat"
)

// maxCalcBytes holds 30,000 readings or 20,000 lines of a hold.
const maxCalcBytes = 2 << 20

// rawIn hands the body to the core unread: the core's own strict decoding is
// the only one.
type rawIn struct{ RawBody []byte }

// registerCalc makes an operation of every computation of the core.
func (s *server) registerCalc(a huma.API) {
	for _, c := range calc.List() {
		media := "application/json"
		if c.Lines {
			media = "application/jsonl"
		}
		o := op("calc-"+c.Name, http.MethodPost, "/api/calc/"+c.Name, c.Summary, 401, 404, 413, 422)
		o.SkipValidateBody, o.MaxBodyBytes = true, maxCalcBytes
		o.RequestBody = &huma.RequestBody{Required: true, Content: content(a, c.In, media)}
		o.Responses = map[string]*huma.Response{"200": {Description: "OK", Content: content(a, c.Out, media)}}
		huma.Register(a, o, func(ctx context.Context, in *rawIn) (*huma.StreamResponse, error) {
			b, err := calc.RunFor(ctx.Err, c.Name, in.RawBody)
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
	for _, t := range []reflect.Type{reflect.TypeFor[treat.Line](), reflect.TypeFor[treat.Start]()} {
		schema(a, t)
	}
}

// schema describes a type, once.
func schema(a huma.API, t reflect.Type) *huma.Schema {
	return a.OpenAPI().Components.Schemas.Schema(t, true, "")
}

// content of a body of a type.
func content(a huma.API, t reflect.Type, media string) map[string]*huma.MediaType {
	return map[string]*huma.MediaType{media: {Schema: schema(a, t)}}
}

// jsonBody describes a body that the operation reads for itself.
func jsonBody[T any](a huma.API) *huma.RequestBody {
	return &huma.RequestBody{Required: true, Content: content(a, reflect.TypeFor[T](), "application/json")}
}
