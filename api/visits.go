package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/store"
)

// Visit is an appointment and what became of it.
type Visit struct {
	ID        string  `json:"id" format:"uuid"`
	Client    string  `json:"client" format:"uuid"`
	StartsAt  string  `json:"starts_at" format:"date-time"`
	Minutes   int     `json:"minutes,omitempty" minimum:"5" maximum:"480" default:"60"`
	Reason    string  `json:"reason,omitempty" maxLength:"500"`
	Version   int64   `json:"version,omitempty" readOnly:"true"`
	OpenedAt  *string `json:"opened_at,omitempty" readOnly:"true"`
	ClosedAt  *string `json:"closed_at,omitempty" readOnly:"true"`
	Name      string  `json:"name,omitempty" readOnly:"true" doc:"the client's name"`
	Therapist string  `json:"therapist,omitempty" readOnly:"true"`
	// TherapistID, Room, Status and Series are the booking's, with its revision.
	TherapistID string  `json:"therapist_id,omitempty" format:"uuid" readOnly:"true"`
	Room        string  `json:"room,omitempty" readOnly:"true"`
	Status      string  `json:"status,omitempty" enum:"booked,cancelled,no-show" readOnly:"true"`
	Series      string  `json:"series,omitempty" readOnly:"true"`
	Revision    int64   `json:"revision,omitempty" readOnly:"true"`
	SignedAt    *string `json:"signed_at,omitempty" readOnly:"true"`
}

func visitOut(v store.Visit) Visit {
	out := Visit{
		ID: v.ID.String(), Client: v.ClientID.String(), StartsAt: v.StartsAt.UTC().Format(time.RFC3339),
		Minutes: v.Minutes, Reason: v.Reason,
		Version: v.Version, OpenedAt: stamp(v.OpenedAt), ClosedAt: stamp(v.ClosedAt),
		Name: v.GivenName + " " + v.FamilyName, Therapist: v.By,
		TherapistID: v.Therapist.String(), Room: v.Room, Status: v.Status, Revision: v.Revision,
		SignedAt: stamp(v.SignedAt),
	}
	if v.Series.Valid {
		out.Series = v.Series.UUID.String()
	}
	return out
}

// visitFor leaves the reason out where the role does not see it.
func visitFor(who store.Principal, v store.Visit) Visit {
	out := visitOut(v)
	if !who.Role.Clinical() {
		out.Reason = ""
	}
	return out
}

func (s *server) registerVisits(a huma.API) {
	huma.Register(a, op("day", http.MethodGet, "/api/day", "Visits of one day in the practice's time zone", 401, 422),
		s.day)
	huma.Register(a, op("book-visit", http.MethodPut, "/api/visits/{id}", "Book a visit (twice is the same as once)",
		401, 404, 409, 422), s.bookVisit)
	huma.Register(a, op("open-visit", http.MethodGet, "/api/visits/{id}", "A visit with its log", 401, 404),
		s.openVisit)
}

// Day is a day of the practice: a page shows it as it is, without working out what time it is where.
type Day struct {
	Date  string  `json:"date" format:"date" doc:"of the practice"`
	Items []Visit `json:"items" doc:"starts_at with the practice's offset from UTC: 2026-12-02T09:00:00+01:00"`
}

func (s *server) day(ctx context.Context, in *struct {
	Date string `query:"date" pattern:"^([0-9]{4}-[0-9]{2}-[0-9]{2})?$" doc:"YYYY-MM-DD; today when empty"`
},
) (*oneOut[Day], error) {
	who, err := s.principal(ctx)
	if err != nil {
		return nil, err
	}
	return one(ctx, s, action("list", "day", in.Date), func(tx *store.Tx) (out Day, err error) {
		if err := tx.PlanOnce(ctx); err != nil {
			return out, err
		}
		zone, err := zoneOf(ctx, tx)
		if err != nil {
			return out, err
		}
		day := s.now().In(zone)
		if in.Date != "" {
			if day, err = time.ParseInLocation(time.DateOnly, in.Date, zone); err != nil {
				return out, invalid("query.date", in.Date, "a day of the calendar, YYYY-MM-DD")
			}
		}
		from := time.Date(day.Year(), day.Month(), day.Day(), 0, 0, 0, 0, zone)
		visits, err := tx.VisitsBetween(ctx, from, from.AddDate(0, 0, 1))
		out = Day{from.Format(time.DateOnly), make([]Visit, len(visits))}
		for i, v := range visits {
			out.Items[i] = visitFor(who, v)
			out.Items[i].StartsAt = v.StartsAt.In(zone).Format(time.RFC3339)
		}
		return out, err
	})
}

func (s *server) bookVisit(ctx context.Context, in *struct {
	ByID
	Body Visit
},
) (*oneOut[Visit], error) {
	if in.Body.ID != in.ID {
		return nil, invalid("body.id", in.Body.ID, "the id in the address")
	}
	at, err := startOf(in.Body.StartsAt)
	if err != nil {
		return nil, err
	}
	v := store.Visit{
		ID: in.uuid(), ClientID: uuid.MustParse(in.Body.Client), StartsAt: at, Minutes: in.Body.Minutes,
		Reason: in.Body.Reason,
	}
	what := action("write", "visit", in.ID)
	what.Client = uuid.NullUUID{UUID: v.ClientID, Valid: true}
	return one(ctx, s, what, func(tx *store.Tx) (Visit, error) {
		v.Therapist = tx.Who().Person
		if _, err := tx.Client(ctx, v.ClientID); err != nil {
			return Visit{}, err
		}
		if err := tx.NewVisit(ctx, v); err != nil {
			return Visit{}, err
		}
		saved, err := tx.Visit(ctx, v.ID)
		return visitOut(saved), err
	})
}

// startOf reads when a visit starts, as finely as the record keeps it: what is sent
// twice is the same twice.
func startOf(given string) (time.Time, error) {
	at, err := time.Parse(time.RFC3339, given)
	if err != nil {
		return at, invalid("body.starts_at", given, "a date and time, RFC 3339")
	}
	return at.Truncate(time.Microsecond), nil
}
