package api

import (
	"context"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/store"
)

// OwnAtlas is what the practice added to the shipped atlas.
type OwnAtlas struct {
	Notes []OwnNote `json:"notes"`
	Sites []OwnSite `json:"sites"`
}

// OwnNote is a practice's note on a muscle.
type OwnNote struct {
	Muscle   string `json:"muscle" readOnly:"true"`
	Text     string `json:"text" maxLength:"10000"`
	Revision int64  `json:"revision" minimum:"0" doc:"0 for a new note; otherwise the revision that was read"`
	By       string `json:"by,omitempty" readOnly:"true"`
}

// OwnSite is a practice's own site on a muscle.
type OwnSite struct {
	ID     string           `json:"id" format:"uuid"`
	Muscle string           `json:"muscle" readOnly:"true"`
	Name   string           `json:"name" minLength:"1" maxLength:"120"`
	Place  atlas.FibrePlace `json:"place"`
	Note   string           `json:"note,omitempty" maxLength:"2000"`
}

// ByMuscle is the muscle in the address.
type ByMuscle struct {
	Muscle string `path:"muscle"`
}

func (p ByMuscle) get() (*atlas.Muscle, error) {
	m, err := atlas.Get(ids.Muscle(p.Muscle))
	if err != nil {
		return nil, huma.Error404NotFound("The atlas has no such muscle.",
			&huma.ErrorDetail{Location: "path.muscle", Message: "allowed: an id of the atlas", Value: p.Muscle})
	}
	return m, nil
}

// atlasWrite runs fn for a muscle as the person who is signed in and answers
// with everything that the practice has added.
func (s *server) atlasWrite(ctx context.Context, p ByMuscle,
	fn func(*store.Tx, *atlas.Muscle) error,
) (*oneOut[OwnAtlas], error) {
	who, err := s.principal(ctx)
	if err != nil {
		return nil, err
	}
	m, err := p.get()
	if err != nil {
		return nil, err
	}
	out := &oneOut[OwnAtlas]{}
	err = s.store.As(ctx, who, store.Action{Verb: "write", Kind: "atlas", Subject: p.Muscle}, func(tx *store.Tx) error {
		if err := fn(tx, m); err != nil {
			return err
		}
		out.Body, err = ownAtlas(ctx, tx)
		return err
	})
	return out, problem(err)
}

func ownAtlas(ctx context.Context, tx *store.Tx) (OwnAtlas, error) {
	out := OwnAtlas{Notes: []OwnNote{}, Sites: []OwnSite{}}
	notes, err := tx.AtlasNotes(ctx)
	if err != nil {
		return out, err
	}
	for _, n := range notes {
		out.Notes = append(out.Notes, OwnNote{n.Muscle, n.Text, n.Revision, n.By})
	}
	sites, err := tx.AtlasSites(ctx)
	for _, x := range sites {
		out.Sites = append(out.Sites, OwnSite{
			x.ID.String(), x.Muscle, x.Name,
			atlas.FibrePlace{Fibre: x.Fibre, AlongPct: x.AlongPct, AcrossMM: x.AcrossMM},
			x.Note,
		})
	}
	return out, err
}

func (s *server) registerAtlas(a huma.API) {
	errs := []int{401, 404, 409, 422}
	huma.Register(a, huma.Operation{
		OperationID: "own-atlas", Method: http.MethodGet, Path: "/api/atlas",
		Summary: "What the practice added to the atlas", Errors: []int{401},
	},
		func(ctx context.Context, _ *struct{}) (*oneOut[OwnAtlas], error) {
			who, err := s.principal(ctx)
			if err != nil {
				return nil, err
			}
			out := &oneOut[OwnAtlas]{}
			err = s.store.As(ctx, who, store.Action{Verb: "read", Kind: "atlas"}, func(tx *store.Tx) error {
				out.Body, err = ownAtlas(ctx, tx)
				return err
			})
			return out, problem(err)
		})
	huma.Register(a, huma.Operation{
		OperationID: "put-note", Method: http.MethodPut, Path: "/api/atlas/{muscle}/note",
		Summary: "Write the practice's note on a muscle", Errors: errs,
	},
		func(ctx context.Context, in *struct {
			ByMuscle
			Body OwnNote
		},
		) (*oneOut[OwnAtlas], error) {
			if strings.ContainsRune(in.Body.Text, 0) {
				return nil, invalid("body.text", "a NUL character", "text without NUL characters")
			}
			return s.atlasWrite(ctx, in.ByMuscle, func(tx *store.Tx, m *atlas.Muscle) error {
				return tx.PutAtlasNote(ctx, store.AtlasNote{
					Muscle: string(m.ID), Text: in.Body.Text,
					Revision: in.Body.Revision,
				})
			})
		})
	huma.Register(a, huma.Operation{
		OperationID: "put-site", Method: http.MethodPut,
		Path: "/api/atlas/{muscle}/sites/{id}", Summary: "Place, change or bring back the practice's own site",
		Errors: errs,
	},
		func(ctx context.Context, in *struct {
			ByMuscle
			ByID
			Body OwnSite
		},
		) (*oneOut[OwnAtlas], error) {
			if in.Body.ID != in.ID {
				return nil, invalid("body.id", in.Body.ID, "the id in the address")
			}
			if name := strings.TrimSpace(in.Body.Name); name == "" || strings.ContainsRune(name+in.Body.Note, 0) {
				return nil, invalid("body.name", in.Body.Name, "a name, without NUL characters")
			}
			m, err := in.get()
			if err != nil {
				return nil, err
			}
			if in.Body.Place.Fibre >= len(m.Fibres) {
				return nil, invalid("body.place.fibre", fmt.Sprint(in.Body.Place.Fibre),
					fmt.Sprintf("0 to %d", len(m.Fibres)-1))
			}
			return s.atlasWrite(ctx, in.ByMuscle, func(tx *store.Tx, m *atlas.Muscle) error {
				p := in.Body.Place
				return tx.PutAtlasSite(ctx, store.AtlasSite{
					ID: uuid.MustParse(in.ID), Muscle: string(m.ID),
					Name: in.Body.Name, Fibre: p.Fibre, AlongPct: p.AlongPct, AcrossMM: p.AcrossMM, Note: in.Body.Note,
				})
			})
		})
	huma.Register(a, huma.Operation{
		OperationID: "remove-site", Method: http.MethodDelete,
		Path: "/api/atlas/{muscle}/sites/{id}", Summary: "Take an own site away (put it again to bring it back)",
		Errors: errs,
	},
		func(ctx context.Context, in *struct {
			ByMuscle
			ByID
		},
		) (*oneOut[OwnAtlas], error) {
			return s.atlasWrite(ctx, in.ByMuscle, func(tx *store.Tx, m *atlas.Muscle) error {
				return tx.RemoveAtlasSite(ctx, string(m.ID), uuid.MustParse(in.ID))
			})
		})
	huma.Register(a, huma.Operation{
		OperationID: "restore-atlas", Method: http.MethodDelete,
		Path: "/api/atlas/{muscle}", Summary: "Bring a muscle back to what was shipped", Errors: errs,
	},
		func(ctx context.Context, in *ByMuscle) (*oneOut[OwnAtlas], error) {
			return s.atlasWrite(ctx, *in, func(tx *store.Tx,
				m *atlas.Muscle,
			) error {
				return tx.RestoreAtlas(ctx, string(m.ID))
			})
		})
}
