package api

import (
	"context"
	"encoding/json"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/visit"
	"mokren/store"
)

// Submission is what a client entered and nobody has taken in yet; one of the three
// contents is there, by kind.
type Submission struct {
	ID         string                   `json:"id" format:"uuid"`
	Kind       string                   `json:"kind" enum:"drawing,story,answers"`
	ReceivedAt string                   `json:"received_at" format:"date-time"`
	Drawing    *visit.DrawingPainted    `json:"drawing,omitempty"`
	Story      *visit.ClientStory       `json:"story,omitempty"`
	Answers    *visit.ScreeningAnswered `json:"answers,omitempty"`
}

// read puts what was handed in where its kind belongs.
func (e *Submission) read(raw []byte) error {
	switch e.Kind {
	case "story":
		return json.Unmarshal(raw, &e.Story)
	case "answers":
		return json.Unmarshal(raw, &e.Answers)
	}
	return json.Unmarshal(raw, &e.Drawing)
}

func submissionsOf(ctx context.Context, tx *store.Tx, id uuid.UUID) ([]Submission, error) {
	list, err := tx.Submissions(ctx, id)
	out := []Submission{}
	for _, row := range list {
		e := Submission{ID: row.ID.String(), Kind: row.Kind, ReceivedAt: row.Received.UTC().Format(time.RFC3339)}
		if err := e.read(row.Body); err != nil {
			return nil, err
		}
		out = append(out, e)
	}
	return out, err
}

// BySubmission is an entry of a visit in the address.
type BySubmission struct {
	ByID
	Entry string `path:"entry" format:"uuid"`
}

func (s *server) registerSubmissions(a huma.API) {
	huma.Register(a, op("new-link", http.MethodPost, "/api/visits/{id}/link",
		"A short-lived code for the client's own device", 401, 404), s.newLink)
	huma.Register(a, op("visit-entries", http.MethodGet, "/api/visits/{id}/entries",
		"What the client entered on an own device", 401, 404), s.visitSubmissions)
	huma.Register(a, silent(op("take-entry", http.MethodPost, "/api/visits/{id}/entries/{entry}/taken",
		"Say that an entry was taken in or left out", 401, 404)), s.takeSubmission)
	huma.Register(a, silent(op("bring-entry-back", http.MethodDelete, "/api/visits/{id}/entries/{entry}/taken",
		"Let an entry wait again", 401, 404)), s.restoreSubmission)
}

func (s *server) visitSubmissions(ctx context.Context, in *ByID) (*listOut[Submission], error) {
	items, err := signed(ctx, s, action("read", "client-entry", in.ID), func(tx *store.Tx) ([]Submission, error) {
		v, err := tx.Visit(ctx, in.uuid())
		if err != nil {
			return nil, err
		}
		return submissionsOf(ctx, tx, v.ID)
	})
	return &listOut[Submission]{Items[Submission]{items}}, err
}

func (s *server) takeSubmission(ctx context.Context, in *BySubmission) (*struct{}, error) {
	return done(ctx, s, action("take", "client-entry", in.Entry), func(tx *store.Tx) error {
		return tx.TakeSubmission(ctx, in.uuid(), uuid.MustParse(in.Entry))
	})
}

func (s *server) restoreSubmission(ctx context.Context, in *BySubmission) (*struct{}, error) {
	return done(ctx, s, action("restore", "client-entry", in.Entry), func(tx *store.Tx) error {
		return tx.RestoreSubmission(ctx, in.uuid(), uuid.MustParse(in.Entry))
	})
}
