package api

import (
	"context"
	"encoding/json"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/assess"
	"mokren/core/decode"
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

func (s *server) registerPhotos(a huma.API) {
	put := op("put-photo", http.MethodPut, "/api/visits/{id}/photos/{photo}",
		"Take a photograph in: JPEG or PNG, at most 10 MB; metadata is stripped", 401, 404, 413, 422)
	put.MaxBodyBytes, put.SkipValidateBody = exchange.MaxPhotoBytes+1, true
	put.Middlewares = huma.Middlewares{s.onePhoto(a)}
	file := &huma.MediaType{Schema: &huma.Schema{Type: "string", Format: "binary"}}
	put.RequestBody = &huma.RequestBody{
		Required: true, Content: map[string]*huma.MediaType{"image/jpeg": file, "image/png": file},
	}
	huma.Register(a, put, s.putPhoto)
	huma.Register(a, op("client-photos", http.MethodGet, "/api/clients/{id}/photos",
		"A client's photographs, the latest first", 401, 404), s.clientPhotos)
	huma.Register(a, op("photo-image", http.MethodGet, "/api/photos/{id}/image", "The pixels (image)", 401, 404),
		func(ctx context.Context, in *ByID) (*pixelsOut, error) { return s.pixels(ctx, in, false) })
	huma.Register(a, op("photo-thumb", http.MethodGet, "/api/photos/{id}/thumb", "The pixels (thumb)", 401, 404),
		func(ctx context.Context, in *ByID) (*pixelsOut, error) { return s.pixels(ctx, in, true) })
	mark := op("mark-photo", http.MethodPut, "/api/photos/{id}/marks",
		"Keep landmarks and plumb; angles come back corrected for roll", 401, 404, 409, 422)
	mark.SkipValidateBody, mark.RequestBody = true, jsonBody[assess.Photo](a)
	huma.Register(a, mark, s.markPhoto)
	huma.Register(a, op("remove-photo", http.MethodPost, "/api/photos/{id}/remove",
		"Take a photograph away, or bring it back", 401, 404),
		func(ctx context.Context, in *ByID) (*oneOut[StoredPhoto], error) { return s.removePhoto(ctx, in, true) })
	huma.Register(a, op("restore-photo", http.MethodPost, "/api/photos/{id}/restore",
		"Take a photograph away, or bring it back", 401, 404),
		func(ctx context.Context, in *ByID) (*oneOut[StoredPhoto], error) {
			return s.removePhoto(ctx, in, false)
		})
}

func (s *server) putPhoto(ctx context.Context, in *struct {
	ByID
	Photo   string `path:"photo" format:"uuid"`
	View    string `query:"view" required:"true" enum:"front,back,left,right"`
	RawBody []byte
},
) (*oneOut[StoredPhoto], error) {
	pic, err := exchange.ReadPhoto(in.RawBody)
	if err != nil {
		return nil, invalid("body", "a file", err.Error())
	}
	return one(ctx, s, action("write", "photo", in.Photo), func(tx *store.Tx) (StoredPhoto, error) {
		v, err := tx.Visit(ctx, in.uuid())
		if err != nil {
			return StoredPhoto{}, err
		}
		p := store.Photo{
			ID: uuid.MustParse(in.Photo), Client: v.ClientID, Visit: v.ID, View: in.View,
			Width: pic.Width, Height: pic.Height,
		}
		if err := tx.PutPhoto(ctx, p, pic.JPEG, pic.Thumb); err != nil {
			return StoredPhoto{}, err
		}
		return readPhoto(ctx, tx, p.ID)
	})
}

func readPhoto(ctx context.Context, tx *store.Tx, id uuid.UUID) (StoredPhoto, error) {
	p, err := tx.Photo(ctx, id)
	return photoOut(p), err
}

func (s *server) clientPhotos(ctx context.Context, in *ByID) (*listOut[StoredPhoto], error) {
	return list(ctx, s, clientAction("read", *in), photoOut, func(tx *store.Tx) ([]store.Photo, error) {
		return tx.Photos(ctx, in.uuid())
	})
}

type pixelsOut struct {
	ContentType  string `header:"Content-Type"`
	CacheControl string `header:"Cache-Control"`
	Body         []byte
}

func (s *server) pixels(ctx context.Context, in *ByID, small bool) (*pixelsOut, error) {
	b, err := signed(ctx, s, action("read", "photo", in.ID), func(tx *store.Tx) ([]byte, error) {
		return tx.PhotoPixels(ctx, in.uuid(), small)
	})
	return &pixelsOut{ContentType: "image/jpeg", CacheControl: "private, max-age=600", Body: b}, err
}

func (s *server) markPhoto(ctx context.Context, in *struct {
	ByID
	Revision int64 `query:"revision" minimum:"1" required:"true"`
	RawBody  []byte
},
) (*oneOut[StoredPhoto], error) {
	var m assess.Photo
	if err := decode.JSON(in.RawBody, &m); err != nil {
		return nil, refused(err)
	}
	if _, err := assess.MeasurePhoto(m); err != nil {
		return nil, refused(err)
	}
	return one(ctx, s, action("write", "photo", in.ID), func(tx *store.Tx) (StoredPhoto, error) {
		if err := tx.MarkPhoto(ctx, in.uuid(), in.RawBody, in.Revision); err != nil {
			return StoredPhoto{}, err
		}
		return readPhoto(ctx, tx, in.uuid())
	})
}

func (s *server) removePhoto(ctx context.Context, in *ByID, gone bool) (*oneOut[StoredPhoto], error) {
	verb := "restore"
	if gone {
		verb = "remove"
	}
	return one(ctx, s, action(verb, "photo", in.ID), func(tx *store.Tx) (StoredPhoto, error) {
		if err := tx.RemovePhoto(ctx, in.uuid(), gone); err != nil {
			return StoredPhoto{}, err
		}
		return readPhoto(ctx, tx, in.uuid())
	})
}
