package api

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/store"
)

// Booking is an appointment, or a series of them at the same time of day.
type Booking struct {
	ID        string `json:"id" format:"uuid" doc:"of the first; the others of a series get their own"`
	Client    string `json:"client" format:"uuid"`
	Therapist string `json:"therapist" format:"uuid"`
	// Date and Time are the practice's, so that a series keeps its hour when clocks
	// change.
	Date       string `json:"date" pattern:"^[0-9]{4}-[0-9]{2}-[0-9]{2}$"`
	Time       string `json:"time" pattern:"^[0-2][0-9]:[0-5][0-9]$"`
	Minutes    int    `json:"minutes" minimum:"5" maximum:"480"`
	Room       string `json:"room,omitempty" maxLength:"60"`
	Reason     string `json:"reason,omitempty" maxLength:"500"`
	EveryWeeks int    `json:"every_weeks,omitempty" minimum:"0" maximum:"12"`
	Times      int    `json:"times,omitempty" minimum:"0" maximum:"52"`
	// Anyway books in spite of what stands against it.
	Anyway bool `json:"anyway,omitempty"`
}

// Clash is something that stands against an appointment.
type Clash struct {
	Kind string `json:"kind" enum:"therapist,room,client,spacing"`
	At   string `json:"at" format:"date-time"`
	Text string `json:"text"`
}

// BookingResult is what was booked, or what stands against it.
type BookingResult struct {
	Visits  []Visit `json:"visits" doc:"none while something stands against it"`
	Clashes []Clash `json:"clashes"`
}

// Rebooking moves an appointment or says what became of it.
type Rebooking struct {
	Therapist string `json:"therapist" format:"uuid"`
	StartsAt  string `json:"starts_at" format:"date-time"`
	Minutes   int    `json:"minutes" minimum:"5" maximum:"480"`
	Room      string `json:"room,omitempty" maxLength:"60"`
	Reason    string `json:"reason,omitempty" maxLength:"500"`
	Status    string `json:"status" enum:"booked,cancelled,no-show"`
	Revision  int64  `json:"revision" minimum:"1"`
	Anyway    bool   `json:"anyway,omitempty"`
}

// Diary is some days of appointments.
type Diary struct {
	Visits  []Visit       `json:"visits"`
	People  []Member      `json:"people"`
	Rooms   []string      `json:"rooms"`
	Waiting []WaitingItem `json:"waiting"`
	// Days are the local days, with the length of each: not all have 24 hours.
	Days []DiaryDay `json:"days"`
}

// DiaryDay is a day by the practice's clock.
type DiaryDay struct {
	Date     string `json:"date"`
	StartsAt string `json:"starts_at" format:"date-time"`
	Hours    int    `json:"hours"`
}

// WaitingItem is a client who waits.
type WaitingItem struct {
	ID      string `json:"id" format:"uuid"`
	Client  string `json:"client" format:"uuid"`
	Name    string `json:"name,omitempty" readOnly:"true"`
	Minutes int    `json:"minutes" minimum:"5" maximum:"480"`
	Note    string `json:"note,omitempty" maxLength:"500"`
	Since   string `json:"since,omitempty" format:"date-time" readOnly:"true"`
	Done    bool   `json:"done,omitempty"`
}

// NextVisitProposal is when a client is to come again.
type NextVisitProposal struct {
	From string `json:"from,omitempty"`
	To   string `json:"to,omitempty"`
}

func (s *server) registerDiary(a huma.API) {
	huma.Register(a, op("diary", http.MethodGet, "/api/diary", "Appointments of some days, with who waits", 401, 422),
		s.diary)
	huma.Register(a, op("book", http.MethodPost, "/api/bookings",
		"Book an appointment or a series: all of it, or nothing and what stands against it", 401, 404, 422), s.book)
	huma.Register(a, op("rebook", http.MethodPut, "/api/visits/{id}/booking",
		"Move an appointment, or say what became of it", 401, 404, 409, 422), s.rebook)
	huma.Register(a, op("cancel-series", http.MethodPost, "/api/visits/{id}/cancel-series",
		"Take this appointment and the later ones of its series out of the diary", 401, 404), s.cancelSeries)
	huma.Register(a, silent(op("put-waiting", http.MethodPut, "/api/waiting/{id}",
		"Put a client on the waiting list, or take one off", 401, 404, 422)), s.putWaiting)
	huma.Register(a, op("next-visit", http.MethodGet, "/api/clients/{id}/next",
		"When a client is to come again, by the latest closed visit", 401, 404), s.nextVisit)
}

func (s *server) diary(ctx context.Context, in *struct {
	From string `query:"from" required:"true" pattern:"^[0-9]{4}-[0-9]{2}-[0-9]{2}$"`
	Days int    `query:"days" minimum:"1" maximum:"42" default:"7"`
},
) (*oneOut[Diary], error) {
	return one(ctx, s, action("list", "diary", in.From), func(tx *store.Tx) (Diary, error) {
		out := Diary{Visits: []Visit{}, Waiting: []WaitingItem{}, Days: []DiaryDay{}}
		zone, err := zoneOf(ctx, tx)
		if err != nil {
			return out, err
		}
		from, err := time.ParseInLocation(time.DateOnly, in.From, zone)
		if err != nil {
			return out, invalid("query.from", in.From, "a day of the calendar, YYYY-MM-DD")
		}
		for i := range in.Days {
			day, next := dayAfter(from, i), dayAfter(from, i+1)
			out.Days = append(out.Days, DiaryDay{
				day.Format(time.DateOnly), day.UTC().Format(time.RFC3339), int(next.Sub(day).Hours() + 0.5),
			})
		}
		visits, err := tx.VisitsBetween(ctx, from, dayAfter(from, in.Days))
		if err != nil {
			return out, err
		}
		for _, v := range visits {
			out.Visits = append(out.Visits, visitFor(tx.Who(), v))
		}
		return s.withWaiting(ctx, tx, out)
	})
}

func (s *server) withWaiting(ctx context.Context, tx *store.Tx, out Diary) (Diary, error) {
	var err error
	if out.People, err = team(ctx, tx); err != nil {
		return out, err
	}
	settings, err := tx.Settings(ctx)
	if err != nil {
		return out, err
	}
	out.Rooms = append([]string{}, settings.Rooms...)
	waiting, err := tx.WaitingList(ctx)
	for _, w := range waiting {
		out.Waiting = append(out.Waiting, WaitingItem{
			ID: w.ID.String(), Client: w.Client.String(), Name: w.Name, Minutes: w.Minutes, Note: w.Note,
			Since: w.Since.UTC().Format(time.RFC3339),
		})
	}
	return out, err
}

// dayAfter is local midnight so many days on; a day is not always 24 hours.
func dayAfter(day time.Time, n int) time.Time {
	return time.Date(day.Year(), day.Month(), day.Day()+n, 0, 0, 0, 0, day.Location())
}

// worksHere wants a therapist to be one of the practice who has not left.
func worksHere(ctx context.Context, tx *store.Tx, therapist uuid.UUID) error {
	p, err := tx.Person(ctx, therapist)
	if errors.Is(err, store.ErrNotFound) || err == nil && p.Left.Valid {
		return invalid("body.therapist", therapist.String(), "one who works in this practice")
	}
	return err
}

func (s *server) book(ctx context.Context, in *struct{ Body Booking }) (*oneOut[BookingResult], error) {
	what := action("write", "visit", in.Body.ID)
	client, err := uuid.Parse(in.Body.Client)
	if err != nil {
		return nil, invalid("body.client", in.Body.Client, "a UUID")
	}
	what.Client = uuid.NullUUID{UUID: client, Valid: true}
	return one(ctx, s, what, func(tx *store.Tx) (BookingResult, error) {
		out := BookingResult{Visits: []Visit{}, Clashes: []Clash{}}
		zone, err := zoneOf(ctx, tx)
		if err != nil {
			return out, err
		}
		list, err := in.Body.series(zone)
		if err != nil {
			return out, err
		}
		if _, err := tx.Client(ctx, client); err != nil {
			return out, err
		}
		if err := worksHere(ctx, tx, list[0].Therapist); err != nil {
			return out, err
		}
		clashes, err := tx.Clashes(ctx, list)
		if err != nil {
			return out, err
		}
		out.Clashes = clashesOut(clashes)
		if len(clashes) > 0 && !in.Body.Anyway {
			return out, nil
		}
		if err := tx.Book(ctx, list); err != nil {
			return out, err
		}
		for _, b := range list {
			v, err := tx.Visit(ctx, b.ID)
			if err != nil {
				return out, err
			}
			out.Visits = append(out.Visits, visitFor(tx.Who(), v))
		}
		return out, nil
	})
}

func clashesOut(list []store.Clash) []Clash {
	out := []Clash{}
	for _, c := range list {
		out = append(out, Clash{c.Kind, c.At.UTC().Format(time.RFC3339), c.Text})
	}
	return out
}

// series gives the appointments at the same hour by the practice's clock, whatever
// that clock does between them. An hour that a day does not have is the next one.
func (b Booking) series(zone *time.Location) ([]store.Booking, error) {
	first, err := time.ParseInLocation("2006-01-02 15:04", b.Date+" "+b.Time, zone)
	if err != nil {
		return nil, invalid("body.date", b.Date+" "+b.Time, "a day of the calendar and a time of day")
	}
	id, err := uuid.Parse(b.ID)
	if err != nil {
		return nil, invalid("body.id", b.ID, "a UUID")
	}
	client, err := uuid.Parse(b.Client)
	if err != nil {
		return nil, invalid("body.client", b.Client, "a UUID")
	}
	therapist, err := uuid.Parse(b.Therapist)
	if err != nil {
		return nil, invalid("body.therapist", b.Therapist, "a UUID")
	}
	n := 1
	if b.EveryWeeks > 0 {
		n = max(1, b.Times)
	}
	series := uuid.NullUUID{UUID: uuid.NewSHA1(id, []byte("series")), Valid: n > 1}
	out := make([]store.Booking, n)
	for i := range out {
		at := time.Date(
			first.Year(),
			first.Month(),
			first.Day()+7*b.EveryWeeks*i,
			first.Hour(),
			first.Minute(),
			0,
			0,
			zone,
		)
		out[i] = store.Booking{
			ID: id, Client: client, Therapist: therapist, StartsAt: at, Minutes: b.Minutes, Reason: b.Reason,
			Room:   b.Room,
			Series: series,
		}
		if i > 0 {
			out[i].ID = uuid.NewSHA1(id, []byte(at.UTC().Format(time.RFC3339)))
		}
	}
	return out, nil
}

func (s *server) rebook(ctx context.Context, in *struct {
	ByID
	Body Rebooking
},
) (*oneOut[BookingResult], error) {
	at, err := startOf(in.Body.StartsAt)
	if err != nil {
		return nil, err
	}
	therapist, err := uuid.Parse(in.Body.Therapist)
	if err != nil {
		return nil, invalid("body.therapist", in.Body.Therapist, "a UUID")
	}
	return one(ctx, s, action("write", "visit", in.ID), func(tx *store.Tx) (BookingResult, error) {
		out := BookingResult{Visits: []Visit{}, Clashes: []Clash{}}
		v, err := tx.Visit(ctx, in.uuid())
		if err != nil {
			return out, err
		}
		b := store.Booking{
			ID: v.ID, Client: v.ClientID, Therapist: therapist, StartsAt: at, Minutes: in.Body.Minutes,
			Room:   in.Body.Room,
			Reason: in.Body.Reason,
		}
		if !tx.Who().Role.Clinical() {
			b.Reason = v.Reason
		}
		if therapist != v.Therapist {
			if err := worksHere(ctx, tx, therapist); err != nil {
				return out, err
			}
		}
		if in.Body.Status == "booked" {
			clashes, err := tx.Clashes(ctx, []store.Booking{b})
			if err != nil {
				return out, err
			}
			out.Clashes = clashesOut(clashes)
			if len(clashes) > 0 && !in.Body.Anyway {
				return out, nil
			}
		}
		err = tx.Rebook(ctx, b, in.Body.Status, in.Body.Revision)
		if errors.Is(err, store.ErrBegun) {
			return out, huma.Error409Conflict("This visit has begun; it stays where it is.")
		}
		if err != nil {
			return out, err
		}
		saved, err := tx.Visit(ctx, v.ID)
		out.Visits = append(out.Visits, visitFor(tx.Who(), saved))
		return out, err
	})
}

// CancelResult is how many appointments were taken out of the diary.
type CancelResult struct {
	N int64 `json:"n"`
}

func (s *server) cancelSeries(ctx context.Context, in *ByID) (*oneOut[CancelResult], error) {
	return one(ctx, s, action("write", "visit", in.ID), func(tx *store.Tx) (CancelResult, error) {
		v, err := tx.Visit(ctx, in.uuid())
		if err != nil || !v.Series.Valid {
			return CancelResult{}, err
		}
		n, err := tx.CancelSeries(ctx, v.Series.UUID, v.StartsAt)
		return CancelResult{n}, err
	})
}

func (s *server) putWaiting(ctx context.Context, in *struct {
	ByID
	Body WaitingItem
},
) (*struct{}, error) {
	client, err := uuid.Parse(in.Body.Client)
	if err != nil || in.Body.ID != in.ID {
		return nil, invalid("body.client", in.Body.Client, "a UUID, under the id in the address")
	}
	return done(ctx, s, action("write", "waiting", in.ID), func(tx *store.Tx) error {
		if _, err := tx.Client(ctx, client); err != nil {
			return err
		}
		w := store.Waiting{ID: in.uuid(), Client: client, Minutes: in.Body.Minutes, Note: in.Body.Note}
		return tx.PutWaiting(ctx, w, in.Body.Done)
	})
}

func (s *server) nextVisit(ctx context.Context, in *ByID) (*oneOut[NextVisitProposal], error) {
	return one(ctx, s, clientAction("read", *in), func(tx *store.Tx) (NextVisitProposal, error) {
		if _, err := tx.Client(ctx, in.uuid()); err != nil {
			return NextVisitProposal{}, err
		}
		p, err := tx.ProposedNext(ctx, in.uuid())
		var out NextVisitProposal
		if p.From != nil && p.To != nil {
			out = NextVisitProposal{p.From.Format(time.DateOnly), p.To.Format(time.DateOnly)}
		}
		return out, err
	})
}
