package api

import (
	"context"
	"encoding/json"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/safety"
	"mokren/core/visit"
	"mokren/store"
)

// ClientPage is what a client's own device is told: no name, and nothing of the
// record but the client's own words for the activities to score.
type ClientPage struct {
	Practice string  `json:"practice"`
	HeightCM float64 `json:"height_cm"`
	// Activities are those that the client wants back, to be scored again.
	Activities []string `json:"activities"`
	ExpiresAt  string   `json:"expires_at" format:"date-time"`
}

// codesPerMinute from one address: a code of 2.8e11 is not found by trying.
const codesPerMinute = 60

func (s *server) registerPad(a huma.API) {
	g := huma.NewGroup(a, "/api/pad/{code}")
	g.UseMiddleware(s.atMost("pad", codesPerMinute)...)
	huma.Register(g, op("pad", http.MethodGet, "", "What a client's own device may know", 404, 429), s.pad)
	handIn[visit.DrawingPainted](s, g, "drawing", "drawings", "Hand in a pain drawing (again replaces it)",
		func(p *visit.DrawingPainted) error {
			p.By = safety.Client
			if e := p.OnFigure(body.Version); e != nil {
				return e
			}
			return nil
		})
	handIn[visit.ClientStory](s, g, "story", "stories", "Hand in the story (again replaces it)",
		func(*visit.ClientStory) error { return nil })
	handIn[visit.ScreeningAnswered](
		s,
		g,
		"answers",
		"answers",
		"Hand in answers to the screening (again replaces them)",
		func(a *visit.ScreeningAnswered) error {
			a.By = safety.Client
			return nil
		},
	)
}

func (s *server) pad(ctx context.Context, in *ByCode) (*oneOut[ClientPage], error) {
	out := &oneOut[ClientPage]{}
	err := s.link(ctx, in.Code, forIntake, "open", in.from, func(tx *store.Tx, l store.Link) (err error) {
		out.Body, err = s.readPad(ctx, tx, l)
		return err
	})
	return out, err
}

func (s *server) readPad(ctx context.Context, tx *store.Tx, l store.Link) (ClientPage, error) {
	c, err := tx.Client(ctx, l.Client)
	if err != nil {
		return ClientPage{}, err
	}
	p, err := tx.Person(ctx, l.Person)
	if err != nil {
		return ClientPage{}, err
	}
	v, err := tx.Visit(ctx, l.Visit)
	if err != nil {
		return ClientPage{}, err
	}
	story, err := tx.EarlierInterview(ctx, v, s.now())
	if err != nil {
		return ClientPage{}, err
	}
	out := ClientPage{p.PracticeName, c.HeightCM.Float64, []string{}, l.Expires.UTC().Format(time.RFC3339)}
	if story != nil {
		for _, a := range story.Activities {
			out.Activities = append(out.Activities, a.Name)
		}
	}
	return out, nil
}

// handIn takes one kind of entry. own says in it that it is the client's own
// word, whatever it says of itself, and refuses what cannot be kept.
func handIn[T any](s *server, g huma.API, kind, path, summary string, own func(*T) error) {
	o := silent(op("put-pad-"+kind, http.MethodPut, "/"+path+"/{id}", summary, 404, 409, 422, 429))
	o.SkipValidateBody, o.RequestBody = true, jsonBody[T](g)
	huma.Register(g, o, func(ctx context.Context, in *struct {
		ByCode
		ByID
		RawBody []byte
	},
	) (*struct{}, error) {
		var entry T
		if err := decode.JSON(in.RawBody, &entry); err != nil {
			return nil, refused(err)
		}
		if err := own(&entry); err != nil {
			return nil, refused(err)
		}
		kept, err := json.Marshal(entry)
		if err != nil {
			return nil, err
		}
		return nil, s.link(ctx, in.Code, forIntake, "write", in.from, func(tx *store.Tx, l store.Link) error {
			return tx.PutSubmission(ctx, store.Submission{
				ID: uuid.MustParse(in.ID), Client: l.Client, Visit: l.Visit, Kind: kind, Body: kept,
			}, in.Code)
		})
	})
}
