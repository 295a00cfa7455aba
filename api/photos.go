package api

import (
	"context"
	"encoding/json"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/assess"
	"mokren/core/strict"
	"mokren/exchange"
	"mokren/store"
)

// StoredPhoto is a posture photograph and what was measured on it. Its pixels are
// at /api/photos/{id}/image and /thumb.
type StoredPhoto struct {
	ID       string              `json:"id" format:"uuid"`
	Visit    string              `json:"visit" format:"uuid"`
	View     string              `json:"view" enum:"front,back,left,right"`
	StartsAt string              `json:"starts_at" format:"date-time" doc:"of its visit"`
	Width    int                 `json:"width"`
	Height   int                 `json:"height"`
	Revision int64               `json:"revision"`
	Marks    *assess.Photo       `json:"marks,omitempty"`
	Measured *assess.PhotoAngles `json:"measured,omitempty"`
}

func photoOut(p store.Photo) StoredPhoto {
	out := StoredPhoto{
		ID: p.ID.String(), Visit: p.Visit.String(), View: p.View,
		StartsAt: p.At.UTC().Format(time.RFC3339), Width: p.Width, Height: p.Height, Revision: p.Revision,
	}
	var m assess.Photo
	if json.Unmarshal(p.Marks, &m) == nil && m.View != "" {
		out.Marks = &m
		if a, err := assess.MeasurePhoto(m); err == nil {
			out.Measured = &a
		}
	}
	return out
}

type pixelsOut struct {
	ContentType  string `header:"Content-Type"`
	CacheControl string `header:"Cache-Control"`
	Body         []byte
}

// withPhoto runs fn on a photograph and answers with it.
func (s *server) withPhoto(ctx context.Context, id, verb string,
	fn func(*store.Tx, store.Photo) error,
) (*oneOut[StoredPhoto], error) {
	who, err := s.principal(ctx)
	if err != nil {
		return nil, err
	}
	out := &oneOut[StoredPhoto]{}
	err = s.store.As(ctx, who, store.Action{Verb: verb, Kind: "photo", Subject: id}, func(tx *store.Tx) error {
		p, err := tx.Photo(ctx, uuid.MustParse(id))
		if err != nil {
			return err
		}
		if err := fn(tx, p); err != nil {
			return err
		}
		p, err = tx.Photo(ctx, p.ID)
		out.Body = photoOut(p)
		return err
	})
	return out, problem(err)
}

func (s *server) registerPhotos(a huma.API) {
	huma.Register(a, huma.Operation{
		OperationID: "put-photo", Method: http.MethodPut,
		Path:         "/api/visits/{id}/photos/{photo}",
		Summary:      "Take a photograph in: JPEG or PNG, at most 10 MB; metadata is stripped",
		Errors:       []int{401, 404, 413, 422},
		MaxBodyBytes: exchange.MaxPhotoBytes + 1, BodyReadTimeout: batchPatience, SkipValidateBody: true,
		Middlewares: huma.Middlewares{s.onePhoto(a)},
		RequestBody: &huma.RequestBody{
			Required: true,
			Content: map[string]*huma.MediaType{"image/jpeg": {Schema: &huma.Schema{
				Type:   "string",
				Format: "binary",
			}}, "image/png": {Schema: &huma.Schema{Type: "string", Format: "binary"}}},
		},
	},
		func(ctx context.Context, in *struct {
			ByID
			Photo   string `path:"photo" format:"uuid"`
			View    string `query:"view" required:"true" enum:"front,back,left,right"`
			RawBody []byte
		},
		) (*oneOut[StoredPhoto], error) {
			who, err := s.principal(ctx)
			if err != nil {
				return nil, err
			}
			pic, err := exchange.ReadPhoto(in.RawBody)
			if err != nil {
				return nil, invalid("body", "a file", err.Error())
			}
			out := &oneOut[StoredPhoto]{}
			err = s.store.As(ctx, who, store.Action{Verb: "write", Kind: "photo", Subject: in.Photo},
				func(tx *store.Tx) error {
					v, err := tx.Visit(ctx, uuid.MustParse(in.ID))
					if err != nil {
						return err
					}
					p := store.Photo{
						ID: uuid.MustParse(in.Photo), Client: v.ClientID, Visit: v.ID, View: in.View,
						Width: pic.Width, Height: pic.Height,
					}
					if err := tx.PutPhoto(ctx, p, pic.JPEG, pic.Thumb); err != nil {
						return err
					}
					p, err = tx.Photo(ctx, p.ID)
					out.Body = photoOut(p)
					return err
				})
			return out, problem(err)
		})
	huma.Register(a, huma.Operation{
		OperationID: "client-photos", Method: http.MethodGet,
		Path: "/api/clients/{id}/photos", Summary: "A client's photographs, the latest first", Errors: []int{401, 404},
	},
		func(ctx context.Context, in *ByID) (*listOut[StoredPhoto], error) {
			who, err := s.principal(ctx)
			if err != nil {
				return nil, err
			}
			out := &listOut[StoredPhoto]{}
			out.Body.Items = []StoredPhoto{}
			err = s.store.As(ctx, who, clientAction("read", in.ID), func(tx *store.Tx) error {
				list, err := tx.Photos(ctx, uuid.MustParse(in.ID))
				for _, p := range list {
					out.Body.Items = append(out.Body.Items, photoOut(p))
				}
				return err
			})
			return out, problem(err)
		})
	for name, small := range map[string]bool{"image": false, "thumb": true} {
		huma.Register(a, huma.Operation{
			OperationID: "photo-" + name, Method: http.MethodGet,
			Path: "/api/photos/{id}/" + name, Summary: "The pixels (" + name + ")", Errors: []int{401, 404},
		},
			func(ctx context.Context, in *ByID) (*pixelsOut, error) {
				who, err := s.principal(ctx)
				if err != nil {
					return nil, err
				}
				out := &pixelsOut{ContentType: "image/jpeg", CacheControl: "private, max-age=600"}
				err = s.store.As(ctx, who, store.Action{Verb: "read", Kind: "photo", Subject: in.ID},
					func(tx *store.Tx) error {
						out.Body, err = tx.PhotoPixels(ctx, uuid.MustParse(in.ID), small)
						return err
					})
				return out, problem(err)
			})
	}
	huma.Register(a, huma.Operation{
		OperationID: "mark-photo", Method: http.MethodPut, Path: "/api/photos/{id}/marks",
		Summary: "Keep landmarks and plumb; angles come back corrected for roll", Errors: []int{401, 404, 409, 422},
		SkipValidateBody: true,
		RequestBody: &huma.RequestBody{
			Required: true,
			Content: map[string]*huma.MediaType{
				"application/json": {
					Schema: a.OpenAPI().Components.Schemas.Schema(schemaType(assess.Photo{}), true, ""),
				},
			},
		},
	},
		func(ctx context.Context, in *struct {
			ByID
			Revision int64 `query:"revision" minimum:"1" required:"true"`
			RawBody  []byte
		},
		) (*oneOut[StoredPhoto], error) {
			var m assess.Photo
			if err := strict.Decode(in.RawBody, &m); err != nil {
				return nil, refused(err)
			}
			if _, err := assess.MeasurePhoto(m); err != nil {
				return nil, refused(err)
			}
			return s.withPhoto(ctx, in.ID, "write", func(tx *store.Tx, p store.Photo) error {
				return tx.MarkPhoto(ctx, p.ID, in.RawBody, in.Revision)
			})
		})
	for verb, gone := range map[string]bool{"remove": true, "restore": false} {
		huma.Register(a, huma.Operation{
			OperationID: verb + "-photo", Method: http.MethodPost,
			Path: "/api/photos/{id}/" + verb, Summary: "Take a photograph away, or bring it back",
			Errors: []int{401, 404},
		},
			func(ctx context.Context, in *ByID) (*oneOut[StoredPhoto], error) {
				return s.withPhoto(ctx, in.ID, verb,
					func(tx *store.Tx, p store.Photo) error { return tx.RemovePhoto(ctx, p.ID, gone) })
			})
	}
}
