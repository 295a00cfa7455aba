package api

import (
	"context"
	"errors"
	"log/slog"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"

	"mokren/exchange"
	"mokren/store"
)

const calendarKind = "text/calendar; charset=utf-8; method=PUBLISH"

// invitations are single appointments for a client's own calendar: a file to pass on, or a code for
// the client's phone. No e-mail server is needed, and no word in them is about health.
func (s *server) registerInvitations(a huma.API) {
	huma.Register(a, op("visit-date", http.MethodGet, "/api/visits/{id}/date",
		"An appointment as one calendar event for the client, without a word on health", 401, 404), s.visitDate)
	huma.Register(a, op("new-date-link", http.MethodPost, "/api/visits/{id}/date-link",
		"A code by which the client's phone gets the appointment, at /date/CODE; codes before it end", 401, 404),
		s.newDateLink)
}

func (s *server) visitDate(ctx context.Context, in *ByID) (*fileOut, error) {
	return signed(ctx, s, action("export", "visit", in.ID), func(tx *store.Tx) (*fileOut, error) {
		v, err := tx.Visit(ctx, in.uuid())
		if err != nil {
			return nil, err
		}
		raw, err := s.invitation(ctx, tx, v)
		return fileOf("appointment.ics", calendarKind, raw), err
	})
}

// invitation names whom it is with and where; nobody's name but the therapist's.
func (s *server) invitation(ctx context.Context, tx *store.Tx, v store.Visit) ([]byte, error) {
	l, err := tx.Letterhead(ctx)
	if err != nil {
		return nil, err
	}
	with, err := tx.Person(ctx, v.Therapist)
	if err != nil {
		return nil, err
	}
	a := appointmentOf(v, false, s.now())
	a.With, a.Sequence = with.Name, int(v.Revision)
	a.Room = strings.Join(strings.FieldsFunc(l.Address, func(r rune) bool { return r == '\n' || r == '\r' }), ", ")
	return exchange.WriteCalendar("", []exchange.Appointment{a}), nil
}

func (s *server) newDateLink(ctx context.Context, in *ByID) (*oneOut[NewLink], error) {
	return one(ctx, s, action("link", "visit", in.ID), func(tx *store.Tx) (NewLink, error) {
		v, err := tx.Visit(ctx, in.uuid())
		if err != nil {
			return NewLink{}, err
		}
		if err := tx.EndLinks(ctx, v.ID, forDate); err != nil {
			return NewLink{}, err
		}
		// Until the appointment; one that is near or past can still be looked up for a while.
		expires := v.StartsAt
		if soon := s.now().Add(linkLife); expires.Before(soon) {
			expires = soon
		}
		code, err := tx.NewLink(ctx, v.ClientID, v.ID, forDate, expires)
		return NewLink{code, expires.UTC().Format(time.RFC3339)}, err
	})
}

// date is what a client's phone asks for by a code.
func (s *server) date(w http.ResponseWriter, r *http.Request) {
	var raw []byte
	code := strings.TrimSuffix(chi.URLParam(r, "code"), ".ics")
	err := s.link(r.Context(), code, forDate, "read", addressOf(r.RemoteAddr), func(tx *store.Tx, l store.Link) error {
		v, err := tx.Visit(r.Context(), l.Visit)
		if err == nil {
			raw, err = s.invitation(r.Context(), tx, v)
		}
		return err
	})
	var known huma.StatusError
	w.Header().Set("Cache-Control", "no-store")
	switch {
	case errors.As(err, &known):
		writeProblem(w, known.GetStatus(), known.Error())
	case err != nil:
		slog.Error("writing an invitation", "error", err)
		writeProblem(w, http.StatusServiceUnavailable, "The appointment is not reachable just now.")
	default:
		w.Header().Set("Content-Disposition", `attachment; filename="appointment.ics"`)
		w.Header().Set("Content-Type", calendarKind)
		if _, err := w.Write(raw); err != nil {
			slog.Debug("an invitation was not read to its end", "error", err)
		}
	}
}
