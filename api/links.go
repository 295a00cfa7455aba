package api

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/body"
	"mokren/core/safety"
	"mokren/core/strict"
	"mokren/core/visit"
	"mokren/store"
)

// linkLife is long enough for the whole intake and short enough to be left
// lying.
const linkLife = 30 * time.Minute

// NewLink is the code for a client's own device. It is shown once.
type NewLink struct {
	Code      string `json:"code"`
	ExpiresAt string `json:"expires_at" format:"date-time"`
}

// Pad is what a client's own device is told: no name, and nothing of the
// record but the client's own words for the activities to score.
type Pad struct {
	Practice string  `json:"practice"`
	HeightCM float64 `json:"height_cm"`
	// Activities are those that the client wants back, to be scored again.
	Activities []string `json:"activities"`
	ExpiresAt  string   `json:"expires_at" format:"date-time"`
}

// Entry is what a client entered and nobody has taken in yet; one of the three
// contents is there, by kind.
type Entry struct {
	ID         string          `json:"id" format:"uuid"`
	Kind       string          `json:"kind" enum:"drawing,story,answers"`
	ReceivedAt string          `json:"received_at" format:"date-time"`
	Drawing    *visit.Painted  `json:"drawing,omitempty"`
	Story      *visit.Told     `json:"story,omitempty"`
	Answers    *visit.Screened `json:"answers,omitempty"`
}

// content is where an entry of a kind is read into.
func (e *Entry) content() any {
	switch e.Kind {
	case "story":
		e.Story = &visit.Told{}
		return e.Story
	case "answers":
		e.Answers = &visit.Screened{}
		return e.Answers
	}
	e.Drawing = &visit.Painted{}
	return e.Drawing
}

// clientsOwn reads what a client hands in and says that it is the client's own
// word, whatever it says of itself.
func clientsOwn(kind string, raw []byte) ([]byte, error) {
	content := (&Entry{Kind: kind}).content()
	if err := strict.Decode(raw, content); err != nil {
		return nil, err
	}
	switch c := content.(type) {
	case *visit.Painted:
		c.By = safety.Client
		if e := c.OnFigure(body.Version); e != nil {
			return nil, e
		}
	case *visit.Screened:
		c.By = safety.Client
	}
	return json.Marshal(content)
}

func entriesOf(ctx context.Context, tx *store.Tx, id uuid.UUID) ([]Entry, error) {
	list, err := tx.Entries(ctx, id)
	out := []Entry{}
	for _, row := range list {
		e := Entry{ID: row.ID.String(), Kind: row.Kind, ReceivedAt: row.Received.UTC().Format(time.RFC3339)}
		if err := json.Unmarshal(row.Body, e.content()); err != nil {
			return nil, err
		}
		out = append(out, e)
	}
	return out, err
}

// ByCode is the code in the address.
type ByCode struct {
	Code string `path:"code" maxLength:"20"`
	from string
}

// Resolve implements huma.Resolver: it notes where the code is tried from.
func (c *ByCode) Resolve(ctx huma.Context) []error {
	c.from = addressOf(ctx.RemoteAddr())
	return nil
}

// link looks the code up and acts within its practice; a wrong and an expired
// code sound the same.
func (s *server) link(
	ctx context.Context, code, verb, from string, fn func(*store.Tx, store.Link) error,
) error {
	over := huma.Error404NotFound("This code is not known, or its time is over. Ask your therapist for a new one.")
	l, err := s.store.FindLink(ctx, code, s.now())
	if errors.Is(err, store.ErrNotFound) {
		return errors.Join(over, s.store.Door(ctx, "code", from))
	}
	if err != nil {
		return problem(err)
	}
	what := store.Action{
		Verb: verb, Kind: "client-" + l.Purpose, Subject: l.Visit.String(),
		Client: uuid.NullUUID{UUID: l.Client, Valid: true},
	}
	return problem(s.store.As(ctx, l.Principal(), what, func(tx *store.Tx) error {
		// A code ends with its visit, and with the client's being put away.
		v, err := tx.Visit(ctx, l.Visit)
		if err != nil {
			return err
		}
		c, err := tx.Client(ctx, l.Client)
		if err != nil {
			return err
		}
		if v.ClosedAt.Valid || c.Archived.Valid {
			return over
		}
		return fn(tx, l)
	}))
}

func (s *server) registerLinks(a huma.API) {
	huma.Register(a, huma.Operation{
		OperationID: "new-link", Method: http.MethodPost, Path: "/api/visits/{id}/link",
		Summary: "A short-lived code for the client's own device", Errors: []int{401, 404},
	},
		func(ctx context.Context, in *ByID) (*oneOut[NewLink], error) {
			who, err := s.principal(ctx)
			if err != nil {
				return nil, err
			}
			out := &oneOut[NewLink]{}
			expires := s.now().Add(linkLife)
			err = s.store.As(ctx, who, store.Action{Verb: "link", Kind: "visit", Subject: in.ID},
				func(tx *store.Tx) error {
					v, err := tx.Visit(ctx, uuid.MustParse(in.ID))
					if err != nil {
						return err
					}
					out.Body.Code, err = tx.NewLink(ctx, v.ClientID, v.ID, "intake", expires)
					return err
				})
			out.Body.ExpiresAt = expires.UTC().Format(time.RFC3339)
			return out, problem(err)
		})
	huma.Register(a, huma.Operation{
		OperationID: "pad", Method: http.MethodGet, Path: "/api/pad/{code}",
		Summary: "What a client's own device may know", Errors: []int{404, 429},
	},
		func(ctx context.Context, in *ByCode) (*oneOut[Pad], error) {
			out := &oneOut[Pad]{}
			err := s.link(ctx, in.Code, "open", in.from, func(tx *store.Tx, l store.Link) error {
				c, err := tx.Client(ctx, l.Client)
				if err != nil {
					return err
				}
				p, err := tx.Person(ctx, l.Person)
				if err != nil {
					return err
				}
				out.Body = Pad{p.PracticeName, c.HeightCM.Float64, []string{}, l.Expires.UTC().Format(time.RFC3339)}
				before, err := s.earlierVisits(ctx, tx, l.Client, l.Visit)
				for _, b := range before {
					if i := b.state.Interview; i != nil {
						for _, act := range i.Activities {
							out.Body.Activities = append(out.Body.Activities, act.Name)
						}
						break
					}
				}
				return err
			})
			return out, err
		})
	for _, k := range []struct {
		kind, path, summary string
		shape               any
	}{
		{"drawing", "drawings", "Hand in a pain drawing (again replaces it)", visit.Painted{}},
		{"story", "stories", "Hand in the story (again replaces it)", visit.Told{}},
		{"answers", "answers", "Hand in answers to the screening (again replaces them)", visit.Screened{}},
	} {
		huma.Register(a, huma.Operation{
			OperationID: "put-pad-" + k.kind, Method: http.MethodPut,
			Path: "/api/pad/{code}/" + k.path + "/{id}", Summary: k.summary, Errors: []int{404, 409, 422, 429},
			DefaultStatus: 204, SkipValidateBody: true,
			RequestBody: &huma.RequestBody{
				Required: true,
				Content: map[string]*huma.MediaType{
					"application/json": {Schema: a.OpenAPI().Components.Schemas.Schema(schemaType(k.shape), true, "")},
				},
			},
		},
			func(ctx context.Context, in *struct {
				ByCode
				ByID
				RawBody []byte
			},
			) (*struct{}, error) {
				body, err := clientsOwn(k.kind, in.RawBody)
				if err != nil {
					return nil, refused(err)
				}
				return nil, s.link(ctx, in.Code, "write", in.from, func(tx *store.Tx, l store.Link) error {
					return tx.PutEntry(ctx, store.Entry{
						ID: uuid.MustParse(in.ID), Client: l.Client, Visit: l.Visit, Kind: k.kind, Body: body,
					}, in.Code)
				})
			})
	}
	huma.Register(a, huma.Operation{
		OperationID: "visit-entries", Method: http.MethodGet,
		Path: "/api/visits/{id}/entries", Summary: "What the client entered on an own device", Errors: []int{401, 404},
	},
		func(ctx context.Context, in *ByID) (*listOut[Entry], error) {
			who, err := s.principal(ctx)
			if err != nil {
				return nil, err
			}
			out := &listOut[Entry]{}
			err = s.store.As(ctx, who, store.Action{Verb: "read", Kind: "client-entry", Subject: in.ID},
				func(tx *store.Tx) error {
					v, err := tx.Visit(ctx, uuid.MustParse(in.ID))
					if err != nil {
						return err
					}
					out.Body.Items, err = entriesOf(ctx, tx, v.ID)
					return err
				})
			return out, problem(err)
		})
	type oneEntry struct {
		ByID
		Entry string `path:"entry" format:"uuid"`
	}
	settle := func(verb string, fn func(ctx context.Context, tx *store.Tx, visit,
		entry uuid.UUID) error,
	) func(context.Context, *oneEntry) (*struct{}, error) {
		return func(ctx context.Context, in *oneEntry) (*struct{}, error) {
			who, err := s.principal(ctx)
			if err != nil {
				return nil, err
			}
			return nil, problem(s.store.As(ctx, who,
				store.Action{Verb: verb, Kind: "client-entry", Subject: in.Entry}, func(tx *store.Tx) error {
					return fn(ctx, tx, uuid.MustParse(in.ID), uuid.MustParse(in.Entry))
				}))
		}
	}
	huma.Register(a, huma.Operation{
		OperationID: "take-entry", Method: http.MethodPost,
		Path: "/api/visits/{id}/entries/{entry}/taken", Summary: "Say that an entry was taken in or left out",
		Errors: []int{401, 404}, DefaultStatus: 204,
	},
		settle("take", func(ctx context.Context, tx *store.Tx, visit, entry uuid.UUID) error {
			return tx.TakeEntry(ctx, visit, entry)
		}))
	huma.Register(a, huma.Operation{
		OperationID: "bring-entry-back", Method: http.MethodDelete,
		Path: "/api/visits/{id}/entries/{entry}/taken", Summary: "Let an entry wait again", Errors: []int{401, 404},
		DefaultStatus: 204,
	},
		settle("restore", func(ctx context.Context, tx *store.Tx, visit, entry uuid.UUID) error {
			return tx.RestoreEntry(ctx, visit, entry)
		}))
}
