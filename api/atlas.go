package api

import (
	"context"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/atlas"
	"mokren/core/body"
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

// atlasWrite runs fn for a muscle and answers with everything that the practice
// has added.
func (s *server) atlasWrite(ctx context.Context, m *atlas.Muscle, fn func(*store.Tx) error) (*oneOut[OwnAtlas], error) {
	return one(ctx, s, action("write", "atlas", string(m.ID)), func(tx *store.Tx) (OwnAtlas, error) {
		if err := fn(tx); err != nil {
			return OwnAtlas{}, err
		}
		return ownAtlas(ctx, tx)
	})
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
		out.Sites = append(out.Sites, OwnSite{x.ID.String(), x.Muscle, x.Name, placeOf(x), x.Note})
	}
	return out, err
}

// placeOf is where an own site lies on today's figure.
func placeOf(x store.AtlasSite) atlas.FibrePlace {
	place := atlas.FibrePlace{Fibre: x.Fibre, AlongPct: x.AlongPct, AcrossMM: x.AcrossMM}
	m, err := atlas.Get(ids.Muscle(x.Muscle))
	if err != nil {
		return place // of a muscle that the atlas no longer has
	}
	if now, ok := m.Carry(x.Figure, place, ids.Left, body.DefaultHeightCM); ok {
		return now
	}
	return place
}

func (s *server) registerAtlas(a huma.API) {
	errs := []int{401, 404, 409, 422}
	huma.Register(a, op("own-atlas", http.MethodGet, "/api/atlas", "What the practice added to the atlas", 401),
		func(ctx context.Context, _ *struct{}) (*oneOut[OwnAtlas], error) {
			return one(ctx, s, action("read", "atlas", ""), func(tx *store.Tx) (OwnAtlas, error) {
				return ownAtlas(ctx, tx)
			})
		})
	huma.Register(a, op("put-note", http.MethodPut, "/api/atlas/{muscle}/note",
		"Write the practice's note on a muscle", errs...), s.putNote)
	huma.Register(a, op("put-site", http.MethodPut, "/api/atlas/{muscle}/sites/{id}",
		"Place, change or bring back the practice's own site", errs...), s.putSite)
	huma.Register(a, op("remove-site", http.MethodDelete, "/api/atlas/{muscle}/sites/{id}",
		"Take an own site away (put it again to bring it back)", errs...), s.removeSite)
	huma.Register(a, op("restore-atlas", http.MethodDelete, "/api/atlas/{muscle}",
		"Bring a muscle back to what was shipped", errs...), s.restoreAtlas)
}

func (s *server) putNote(ctx context.Context, in *struct {
	ByMuscle
	Body OwnNote
},
) (*oneOut[OwnAtlas], error) {
	m, err := in.get()
	if err != nil {
		return nil, err
	}
	return s.atlasWrite(ctx, m, func(tx *store.Tx) error {
		return tx.PutAtlasNote(ctx, store.AtlasNote{
			Muscle: string(m.ID), Text: in.Body.Text, Revision: in.Body.Revision,
		})
	})
}

func (s *server) putSite(ctx context.Context, in *struct {
	ByMuscle
	ByID
	Body OwnSite
},
) (*oneOut[OwnAtlas], error) {
	if in.Body.ID != in.ID {
		return nil, invalid("body.id", in.Body.ID, "the id in the address")
	}
	if strings.TrimSpace(in.Body.Name) == "" {
		return nil, invalid("body.name", in.Body.Name, "a name")
	}
	m, err := in.get()
	if err != nil {
		return nil, err
	}
	if e := atlas.Pressable(m.ID, "path.muscle"); e != nil {
		return nil, invalid(e.Path, string(m.ID), e.Allowed)
	}
	p := in.Body.Place
	if p.Fibre >= len(m.Parts) {
		return nil, invalid("body.place.fibre", fmt.Sprint(p.Fibre), fmt.Sprintf("0 to %d", len(m.Parts)-1))
	}
	return s.atlasWrite(ctx, m, func(tx *store.Tx) error {
		return tx.PutAtlasSite(ctx, store.AtlasSite{
			ID: in.uuid(), Muscle: string(m.ID), Name: in.Body.Name,
			Figure: body.Version, Fibre: p.Fibre, AlongPct: p.AlongPct,
			AcrossMM: p.AcrossMM, Note: in.Body.Note,
		})
	})
}

func (s *server) removeSite(ctx context.Context, in *struct {
	ByMuscle
	ByID
},
) (*oneOut[OwnAtlas], error) {
	m, err := in.get()
	if err != nil {
		return nil, err
	}
	return s.atlasWrite(ctx, m, func(tx *store.Tx) error { return tx.RemoveAtlasSite(ctx, string(m.ID), in.uuid()) })
}

func (s *server) restoreAtlas(ctx context.Context, in *ByMuscle) (*oneOut[OwnAtlas], error) {
	m, err := in.get()
	if err != nil {
		return nil, err
	}
	return s.atlasWrite(ctx, m, func(tx *store.Tx) error { return tx.RestoreAtlas(ctx, string(m.ID)) })
}
