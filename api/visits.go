package api

import (
	"context"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/rights"
	"mokren/core/visit"
	"mokren/store"
)

// OpenVisit is what the visit screen begins with; the browser reduces the
// events itself, with the same core.
type OpenVisit struct {
	Visit  Visit         `json:"visit"`
	Client Client        `json:"client"`
	Events []visit.Event `json:"events"`
	State  visit.State   `json:"state" doc:"the server's reduction of the events"`
	// Earlier are the points of earlier visits, the latest visit first.
	Earlier []visit.Point     `json:"earlier"`
	Ranges  []visit.Range     `json:"earlier_ranges" doc:"the latest earlier visit's readings"`
	Gauges  []visit.GaugePair `json:"earlier_gauges" doc:"the latest earlier ones"`
	// Drawings are the pain drawings of earlier visits, the latest first.
	Drawings []EarlierDrawing `json:"earlier_drawings"`
	// Entries came from the client's own device and wait to be taken in.
	Entries []Entry `json:"entries"`
	// Interview is the latest earlier one.
	Interview *visit.Interviewed `json:"earlier_interview,omitempty"`
	// Context is what the log is read against, here and in the browser.
	Context visit.Context `json:"context"`
	// Team are the people of the practice who do clinical work.
	Team []Member `json:"team"`
	// NowMS lets a device see how far its clock is off.
	NowMS int64 `json:"now_ms" doc:"the server's clock, Unix ms"`
}

// Member is a person of the practice.
type Member struct {
	ID   string      `json:"id" format:"uuid"`
	Name string      `json:"name"`
	Role rights.Role `json:"role" enum:"owner,therapist,student,front-desk"`
}

// EarlierDrawing is the pain drawing of an earlier visit.
type EarlierDrawing struct {
	Visit    string         `json:"visit" format:"uuid"`
	StartsAt string         `json:"starts_at" format:"date-time"`
	Strokes  []visit.Stroke `json:"strokes"`
}

func (s *server) registerVisits(a huma.API) {
	huma.Register(a, huma.Operation{
		OperationID: "day", Method: http.MethodGet, Path: "/api/day",
		Summary: "Visits of one day in the practice's time zone", Errors: []int{401, 422},
	},
		func(ctx context.Context, in *struct {
			Date string `query:"date" pattern:"^([0-9]{4}-[0-9]{2}-[0-9]{2})?$" doc:"YYYY-MM-DD; today when empty"`
		},
		) (*listOut[Visit], error) {
			who, err := s.principal(ctx)
			if err != nil {
				return nil, err
			}
			out := &listOut[Visit]{}
			out.Body.Items = []Visit{}
			var bad error
			err = s.store.As(ctx, who, store.Action{Verb: "list", Kind: "day", Subject: in.Date},
				func(tx *store.Tx) error {
					me, err := tx.Person(ctx, who.Person)
					if err != nil {
						return err
					}
					zone, err := time.LoadLocation(me.TimeZone)
					if err != nil {
						return err
					}
					day := s.now().In(zone)
					if in.Date != "" {
						if day, err = time.ParseInLocation(time.DateOnly, in.Date, zone); err != nil {
							bad = invalid("query.date", in.Date, "a day of the calendar, YYYY-MM-DD")
							return nil
						}
					}
					from := time.Date(day.Year(), day.Month(), day.Day(), 0, 0, 0, 0, zone)
					list, err := tx.VisitsBetween(ctx, from, from.AddDate(0, 0, 1))
					for _, v := range list {
						out.Body.Items = append(out.Body.Items, visitFor(who, v))
					}
					return err
				})
			if bad != nil {
				return nil, bad
			}
			return out, problem(err)
		})
	huma.Register(a, huma.Operation{
		OperationID: "book-visit", Method: http.MethodPut, Path: "/api/visits/{id}",
		Summary: "Book a visit (twice is the same as once)", Errors: []int{401, 404, 422},
	}, s.bookVisit)
	huma.Register(a, huma.Operation{
		OperationID: "open-visit", Method: http.MethodGet, Path: "/api/visits/{id}",
		Summary: "A visit with its log", Errors: []int{401, 404},
	}, s.openVisit)
	s.registerEvents(a)
}

func (s *server) bookVisit(ctx context.Context, in *struct {
	ByID
	Body Visit
},
) (*oneOut[Visit], error) {
	who, err := s.principal(ctx)
	if err != nil {
		return nil, err
	}
	if in.Body.ID != in.ID {
		return nil, invalid("body.id", in.Body.ID, "the id in the address")
	}
	at, err := time.Parse(time.RFC3339, in.Body.StartsAt)
	if err != nil {
		return nil, invalid("body.starts_at", in.Body.StartsAt, "a date and time, RFC 3339")
	}
	v := store.Visit{
		ID: uuid.MustParse(in.ID), ClientID: uuid.MustParse(in.Body.Client), Therapist: who.Person,
		StartsAt: at, Minutes: in.Body.Minutes, Reason: in.Body.Reason,
	}
	out := &oneOut[Visit]{}
	err = s.store.As(ctx, who, store.Action{
		Verb: "write", Kind: "visit", Subject: in.ID,
		Client: uuid.NullUUID{UUID: v.ClientID, Valid: true},
	}, func(tx *store.Tx) error {
		if _, err := tx.Client(ctx, v.ClientID); err != nil {
			return err
		}
		if err := tx.NewVisit(ctx, v); err != nil {
			return err
		}
		saved, err := tx.Visit(ctx, v.ID)
		out.Body = visitOut(saved)
		return err
	})
	return out, problem(err)
}

func (s *server) openVisit(ctx context.Context, in *ByID) (*oneOut[OpenVisit], error) {
	who, err := s.principal(ctx)
	if err != nil {
		return nil, err
	}
	out := &oneOut[OpenVisit]{}
	out.Body.Earlier, out.Body.Ranges, out.Body.Drawings, out.Body.Gauges = []visit.Point{}, []visit.Range{},
		[]EarlierDrawing{}, []visit.GaugePair{}
	err = s.store.As(ctx, who, store.Action{Verb: "read", Kind: "visit", Subject: in.ID}, func(tx *store.Tx) error {
		v, err := tx.Visit(ctx, uuid.MustParse(in.ID))
		if err != nil {
			return err
		}
		c, err := tx.Client(ctx, v.ClientID)
		if err != nil {
			return err
		}
		out.Body.Visit, out.Body.Client = visitOut(v), s.clientFor(who, c)
		if out.Body.Events, err = tx.Events(ctx, v.ID); err != nil {
			return err
		}
		if out.Body.Context, err = tx.VisitContext(ctx, v.ID, s.now()); err != nil {
			return err
		}
		out.Body.State = visit.Reduce(out.Body.Context, out.Body.Events)
		team, err := tx.People(ctx)
		if err != nil {
			return err
		}
		out.Body.Team, out.Body.NowMS = []Member{}, s.now().UnixMilli()
		for _, p := range team {
			if p.Role.Clinical() {
				out.Body.Team = append(out.Body.Team, Member{p.ID.String(), p.Name, p.Role})
			}
		}
		if out.Body.Entries, err = entriesOf(ctx, tx, v.ID); err != nil {
			return err
		}
		before, err := s.earlierVisits(ctx, tx, v.ClientID, v.ID)
		if err != nil {
			return err
		}
		for _, b := range before {
			st := b.state
			out.Body.Earlier = append(out.Body.Earlier, st.Points...)
			if len(st.Drawing) > 0 {
				out.Body.Drawings = append(out.Body.Drawings,
					EarlierDrawing{b.ID.String(), b.StartsAt.UTC().Format(time.RFC3339), st.Drawing})
			}
			if out.Body.Interview == nil {
				out.Body.Interview = st.Interview
			}
			if len(out.Body.Ranges) == 0 {
				out.Body.Ranges = append(out.Body.Ranges, st.Ranges...)
			}
			if len(out.Body.Gauges) == 0 {
				out.Body.Gauges = append(out.Body.Gauges, st.Gauges...)
			}
		}
		return nil
	})
	return out, problem(err)
}

// earlierVisit is an opened visit before another, reduced.
type earlierVisit struct {
	store.Visit
	state visit.State
}

// earlierVisits gives a client's opened visits before one, the latest first.
func (s *server) earlierVisits(ctx context.Context, tx *store.Tx, client, before uuid.UUID) ([]earlierVisit, error) {
	all, err := tx.VisitsOf(ctx, client)
	if err != nil {
		return nil, err
	}
	this := slices.IndexFunc(all, func(v store.Visit) bool { return v.ID == before })
	var out []earlierVisit
	for i := len(all) - 1; i >= 0; i-- {
		if v := all[i]; v.OpenedAt.Valid && this >= 0 && v.StartsAt.Before(all[this].StartsAt) {
			log, err := tx.Events(ctx, v.ID)
			if err != nil {
				return nil, err
			}
			vc, err := tx.VisitContext(ctx, v.ID, s.now())
			if err != nil {
				return nil, err
			}
			out = append(out, earlierVisit{v, visit.Reduce(vc, log)})
		}
	}
	return out, nil
}
