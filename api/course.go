package api

import (
	"context"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"mokren/core/visit"
	"mokren/store"
)

// Course is everything the client's page and the progress screen show.
type Course struct {
	Client Client  `json:"client"`
	Visits []Visit `json:"visits"`
	// Older opened visits are left out of all below, but for the first one.
	Older   int           `json:"older" doc:"opened visits that are left out"`
	History visit.History `json:"history"`
	// Last is the latest opened visit's points, for the body on the page.
	Last []visit.FoundPoint `json:"last_points"`
	// Consents are those of every visit, the latest visit first.
	Consents []DatedConsent `json:"consents"`
}

// DatedConsent is what was agreed to or withdrawn at a visit.
type DatedConsent struct {
	Date string `json:"date" doc:"the practice's local date, YYYY-MM-DD"`
	visit.ConsentRecorded
}

func (s *server) course(ctx context.Context, in *struct {
	ByID
	All bool `query:"all" doc:"every visit, not only the first and the latest ones"`
},
) (*oneOut[Course], error) {
	return one(ctx, s, clientAction("read", in.ByID), func(tx *store.Tx) (Course, error) {
		return s.readCourse(ctx, tx, in.uuid(), in.All)
	})
}

func (s *server) readCourse(
	ctx context.Context, tx *store.Tx, id uuid.UUID, all bool,
) (out Course, err error) {
	c, err := tx.Client(ctx, id)
	if err != nil {
		return out, err
	}
	zone, err := zoneOf(ctx, tx)
	if err != nil {
		return out, err
	}
	visits, err := visitsOf(ctx, tx, id, all)
	if err != nil {
		return out, err
	}
	record, err := tx.Record(ctx, id, visits, s.now())
	if err != nil {
		return out, err
	}
	out = Course{Client: s.clientFor(tx.Who(), c), Visits: []Visit{}, Consents: []DatedConsent{}}
	var dated []visit.VisitContribution
	var last store.Visit
	for _, v := range visits {
		out.Visits = append(out.Visits, visitOut(v))
		if !v.OpenedAt.Valid {
			continue
		}
		d := visit.VisitContribution{
			Visit: v.ID.String(), Day: float64(v.StartsAt.Unix()) / 86400,
			Date:   v.StartsAt.In(zone).Format(time.DateOnly),
			Points: record.Points[v.ID], Ranges: record.Ranges[v.ID],
		}
		if told, ok := record.Told[v.ID]; ok {
			d.PainCM2, d.PainNow, d.Activities = told.PainCM2, told.Now, told.Activities
		}
		dated = append(dated, d)
		for _, c := range record.Consents[v.ID] {
			out.Consents = append(out.Consents, DatedConsent{d.Date, c})
		}
		if len(d.Points) > 0 {
			last = v
		}
	}
	if out.Last, err = tx.LastPoints(ctx, last); err != nil {
		return out, err
	}
	age := 0
	if out.Client.Age != nil {
		age = *out.Client.Age
	}
	out.History = visit.Course(dated, age)
	out.Older = c.Visits - len(dated)
	slices.SortStableFunc(out.Consents, func(a, b DatedConsent) int { return strings.Compare(b.Date, a.Date) })
	return out, nil
}

func visitsOf(ctx context.Context, tx *store.Tx, id uuid.UUID, all bool) ([]store.Visit, error) {
	if all {
		return tx.VisitsOf(ctx, id)
	}
	return tx.VisitsLately(ctx, id)
}

// zoneOf is the practice's time zone.
func zoneOf(ctx context.Context, tx *store.Tx) (*time.Location, error) {
	me, err := tx.Person(ctx, tx.Who().Person)
	if err != nil {
		return nil, err
	}
	return time.LoadLocation(me.TimeZone)
}

func (s *server) compare(ctx context.Context, in *struct {
	ByID
	Earlier string `query:"earlier" required:"true" format:"uuid" doc:"a visit"`
	Later   string `query:"later" required:"true" format:"uuid" doc:"a visit"`
},
) (*listOut[visit.Comparison], error) {
	same := func(c visit.Comparison) visit.Comparison { return c }
	return list(ctx, s, clientAction("read", in.ByID), same, func(tx *store.Tx) ([]visit.Comparison, error) {
		course, err := s.readCourse(ctx, tx, in.uuid(), true)
		return course.History.Compare(in.Earlier, in.Later), err
	})
}
