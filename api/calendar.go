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

// CalendarSettings are a person's own subscription.
type CalendarSettings struct {
	On     bool   `json:"on"`
	Names  bool   `json:"names" doc:"clients are named in it"`
	MadeAt string `json:"made_at,omitempty" readOnly:"true" format:"date-time"`
	// Path is shown once, when the link is made.
	Path string `json:"path,omitempty" readOnly:"true"`
}

func (s *server) registerCalendar(a huma.API) {
	huma.Register(a, op("own-calendar", http.MethodGet, "/api/calendar", "One's own calendar subscription", 401),
		s.ownCalendar)
	huma.Register(a, op("put-calendar", http.MethodPut, "/api/calendar",
		"Make a new calendar link, or take it back; an earlier one is over", 401), s.putCalendar)
}

func (s *server) ownCalendar(ctx context.Context, _ *struct{}) (*oneOut[CalendarSettings], error) {
	return one(ctx, s, action("read", "calendar", ""), func(tx *store.Tx) (CalendarSettings, error) {
		l, err := tx.OwnCalendarLink(ctx)
		if err != nil || l == nil {
			return CalendarSettings{}, err
		}
		return CalendarSettings{On: true, Names: l.Names, MadeAt: l.MadeAt.UTC().Format(time.RFC3339)}, nil
	})
}

func (s *server) putCalendar(
	ctx context.Context, in *struct{ Body CalendarSettings },
) (*oneOut[CalendarSettings], error) {
	return one(ctx, s, action("write", "calendar", ""), func(tx *store.Tx) (CalendarSettings, error) {
		if !in.Body.On {
			return CalendarSettings{}, tx.DropCalendarLink(ctx)
		}
		secret, err := tx.NewCalendarLink(ctx, in.Body.Names)
		return CalendarSettings{On: true, Names: in.Body.Names, Path: "/calendar/" + secret + ".ics"}, err
	})
}

// What a subscription shows.
const (
	calendarBack  = 30 * 24 * time.Hour
	calendarAhead = 365 * 24 * time.Hour
)

// calendar is what a calendar program asks for now and then: a person's
// appointments, for whoever has the secret.
func (s *server) calendar(w http.ResponseWriter, r *http.Request) {
	secret := strings.TrimSuffix(chi.URLParam(r, "secret"), ".ics")
	sub, err := s.store.FindCalendar(r.Context(), secret)
	if err == nil {
		err = s.writeCalendar(w, r, sub)
	}
	if errors.Is(err, store.ErrNotFound) {
		if err := s.store.LogAttempt(r.Context(), "code", addressOf(r.RemoteAddr)); err != nil {
			slog.Error("noting a wrong calendar link", "error", err)
		}
		w.Header().Set("Cache-Control", "no-store")
		writeProblem(w, http.StatusNotFound, "There is no such calendar, or its link was taken back.")
		return
	}
	if err != nil {
		slog.Error("writing a calendar", "error", err)
		writeProblem(w, http.StatusServiceUnavailable, "The calendar is not reachable just now.")
	}
}

func (s *server) writeCalendar(w http.ResponseWriter, r *http.Request, sub store.Subscription) error {
	who := store.Principal{Practice: sub.Practice, Person: sub.Person}
	ctx, now := r.Context(), s.now()
	var raw []byte
	err := s.store.As(ctx, who, action("read", "calendar", sub.Person.String()), func(tx *store.Tx) error {
		me, err := tx.Person(ctx, sub.Person)
		if err != nil {
			return err
		}
		if me.Left.Valid {
			return store.ErrNotFound // whoever left reads nothing more
		}
		visits, err := tx.VisitsBetween(ctx, now.Add(-calendarBack), now.Add(calendarAhead))
		var list []exchange.Appointment
		for _, v := range visits {
			if v.Therapist == sub.Person {
				list = append(list, appointmentOf(v, sub.Names, now))
			}
		}
		raw = exchange.WriteCalendar(me.PracticeName, list)
		return err
	})
	if err != nil {
		return err
	}
	w.Header().Set("Content-Type", calendarKind)
	w.Header().Set("Cache-Control", "no-store")
	_, err = w.Write(raw)
	return err
}

func appointmentOf(v store.Visit, names bool, now time.Time) exchange.Appointment {
	a := exchange.Appointment{
		ID: v.ID.String(), Room: v.Room, Start: v.StartsAt, Minutes: v.Minutes, Status: v.Status, Changed: now,
	}
	if names {
		a.Client = v.GivenName + " " + v.FamilyName
	}
	return a
}
