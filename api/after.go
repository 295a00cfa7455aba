package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/visit"
	"mokren/store"
)

// afterLife is how long a client may read the sheet.
const afterLife = 30 * 24 * time.Hour

// AfterSheet is an aftercare sheet as the client's own device shows it: the
// practice, how it is reached, and the day; it names no client.
type AfterSheet struct {
	Practice Letterhead      `json:"practice"`
	Day      string          `json:"day" format:"date"`
	Sheet    visit.Aftercare `json:"sheet"`
	// Emergency is the number that is called for urgent medical care.
	Emergency string `json:"emergency_number"`
}

func (s *server) registerAfter(a huma.API) {
	huma.Register(a, op("new-after-link", http.MethodPost, "/api/visits/{id}/after",
		"A code for the aftercare sheet; codes before it end", 401, 404), s.newAfterLink)
	g := huma.NewGroup(a, "/api/after/{code}")
	g.UseMiddleware(s.atMost("after", codesPerMinute)...)
	huma.Register(g, op("after", http.MethodGet, "", "The aftercare sheet of a code", 404, 429), s.after)
}

func (s *server) newAfterLink(ctx context.Context, in *ByID) (*oneOut[NewLink], error) {
	expires := s.now().Add(afterLife)
	return one(ctx, s, action("link", "visit", in.ID), func(tx *store.Tx) (NewLink, error) {
		v, err := tx.Visit(ctx, in.uuid())
		if err != nil {
			return NewLink{}, err
		}
		if err := tx.EndLinks(ctx, v.ID, forAfter); err != nil {
			return NewLink{}, err
		}
		code, err := tx.NewLink(ctx, v.ClientID, v.ID, forAfter, expires)
		return NewLink{code, expires.UTC().Format(time.RFC3339)}, err
	})
}

func (s *server) after(ctx context.Context, in *ByCode) (*oneOut[AfterSheet], error) {
	out := &oneOut[AfterSheet]{}
	err := s.link(ctx, in.Code, forAfter, "read", in.from, func(tx *store.Tx, l store.Link) error {
		v, err := s.readVisit(ctx, tx, l.Visit)
		if err != nil {
			return err
		}
		p, err := tx.Person(ctx, l.Person)
		if err != nil {
			return err
		}
		day := v.Visit.StartsAt
		if at, err := time.Parse(time.RFC3339, day); err == nil {
			if zone, err := time.LoadLocation(p.TimeZone); err == nil {
				day = at.In(zone).Format(time.DateOnly)
			}
		}
		sheet := v.State.Aftercare(v.Earlier)
		sheet.LeftOut = nil // the therapist's to know
		letterhead, err := tx.Letterhead(ctx)
		if err != nil {
			return err
		}
		out.Body = AfterSheet{Letterhead(letterhead), day, sheet, p.Emergency}
		return nil
	})
	return out, err
}
