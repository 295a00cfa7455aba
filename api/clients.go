package api

import (
	"context"
	"database/sql"
	"errors"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/visit"
	"mokren/store"
)

// Client is a person who is treated.
type Client struct {
	ID         string   `json:"id" format:"uuid"`
	GivenName  string   `json:"given_name" minLength:"1" maxLength:"100"`
	FamilyName string   `json:"family_name" minLength:"1" maxLength:"100"`
	BornOn     string   `json:"born_on,omitempty" pattern:"^([0-9]{4}-[0-9]{2}-[0-9]{2})?$" doc:"YYYY-MM-DD"`
	HeightCM   *float64 `json:"height_cm,omitempty" minimum:"50" maximum:"250"`
	Work       string   `json:"work,omitempty" maxLength:"200"`
	Complaint  string   `json:"complaint,omitempty" maxLength:"1000" doc:"in the client's words"`
	Cautions   []string `json:"cautions,omitempty" maxItems:"20"`
	Hand       string   `json:"dominant_hand,omitempty" enum:",left,right,both"`
	Phone      string   `json:"phone,omitempty" maxLength:"60"`
	Email      string   `json:"email,omitempty" maxLength:"200"`
	Emergency  string   `json:"emergency_contact,omitempty" maxLength:"300" doc:"name and how to reach them"`
	Guardian   string   `json:"guardian,omitempty" maxLength:"300" doc:"of a minor: name and how to reach them"`
	Archived   bool     `json:"archived,omitempty" readOnly:"true"`
	Revision   int64    `json:"revision" minimum:"0" doc:"0 for a new client; otherwise the revision that was read"`
	Age        *int     `json:"age,omitempty" readOnly:"true"`
	LastVisit  *string  `json:"last_visit,omitempty" readOnly:"true" doc:"RFC 3339"`
	Visits     int      `json:"visits,omitempty" readOnly:"true"`
}

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
}

// Course is everything the client's page and the progress screen show.
type Course struct {
	Client  Client        `json:"client"`
	Visits  []Visit       `json:"visits"`
	History visit.History `json:"history"`
	// Last is the latest opened visit's points, for the body on the page.
	Last []visit.Point `json:"last_points"`
	// Consents are those of every visit, the latest visit first.
	Consents []DatedConsent `json:"consents"`
}

// DatedConsent is what was agreed to or withdrawn at a visit.
type DatedConsent struct {
	Date string `json:"date" doc:"the practice's local date, YYYY-MM-DD"`
	visit.Consented
}

func clientOut(c store.Client, now time.Time) Client {
	out := Client{
		ID: c.ID.String(), GivenName: c.GivenName, FamilyName: c.FamilyName, Work: c.Work,
		Complaint: c.Complaint, Cautions: c.Cautions, Revision: c.Revision, Visits: c.Visits,
		Hand: c.Hand, Phone: c.Phone, Email: c.Email, Emergency: c.Emergency, Guardian: c.Guardian,
		Archived: c.Archived.Valid,
	}
	if c.BornOn.Valid {
		out.BornOn = c.BornOn.Time.Format(time.DateOnly)
		a := ageOn(c.BornOn.Time, now)
		out.Age = &a
	}
	if c.HeightCM.Valid {
		out.HeightCM = &c.HeightCM.Float64
	}
	out.LastVisit = stamp(c.LastVisit)
	return out
}

// clientFor leaves out what is clinical where the role does not see it.
func (s *server) clientFor(who store.Principal, c store.Client) Client {
	out := clientOut(c, s.now())
	if !who.Role.Clinical() {
		out.Complaint, out.Work, out.Cautions, out.HeightCM, out.Hand = "", "", nil, nil, ""
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

// birthDate reads a day as it is typed; not valid when it is none.
func birthDate(s string) sql.NullTime {
	for _, layout := range []string{time.DateOnly, "2.1.2006", "02.01.2006"} {
		if t, err := time.Parse(layout, strings.TrimSpace(s)); err == nil {
			return sql.NullTime{Time: t, Valid: true}
		}
	}
	return sql.NullTime{}
}

func ageOn(born, now time.Time) int {
	a := now.Year() - born.Year()
	if now.Month() < born.Month() || (now.Month() == born.Month() && now.Day() < born.Day()) {
		a--
	}
	return a
}

func stamp(t sql.NullTime) *string {
	if !t.Valid {
		return nil
	}
	s := t.Time.UTC().Format(time.RFC3339)
	return &s
}

func visitOut(v store.Visit) Visit {
	return Visit{
		ID: v.ID.String(), Client: v.ClientID.String(), StartsAt: v.StartsAt.UTC().Format(time.RFC3339),
		Minutes: v.Minutes, Reason: v.Reason,
		Version: v.Version, OpenedAt: stamp(v.OpenedAt), ClosedAt: stamp(v.ClosedAt),
		Name: v.GivenName + " " + v.FamilyName, Therapist: v.By,
	}
}

type listOut[T any] struct {
	Body struct {
		Items []T `json:"items"`
	}
}

type oneOut[T any] struct{ Body T }

// ByID is the id in the address.
type ByID struct {
	ID string `path:"id" format:"uuid"`
}

func clientAction(verb, id string) store.Action {
	u, _ := uuid.Parse(id)
	return store.Action{Verb: verb, Kind: "client", Subject: id, Client: uuid.NullUUID{UUID: u, Valid: true}}
}

func (s *server) registerClients(a huma.API) {
	huma.Register(a, huma.Operation{
		OperationID: "list-clients", Method: http.MethodGet, Path: "/api/clients",
		Summary: "Clients by name", Errors: []int{401},
	},
		func(ctx context.Context, in *struct {
			Q        string `query:"q" maxLength:"100" doc:"a name, with typing errors, or a birth date (YYYY-MM-DD or DD.MM.YYYY)"`
			Archived bool   `query:"archived"`
		},
		) (*listOut[Client], error) {
			who, err := s.principal(ctx)
			if err != nil {
				return nil, err
			}
			out := &listOut[Client]{}
			out.Body.Items = []Client{}
			err = s.store.As(ctx, who, store.Action{Verb: "list", Kind: "client", Subject: in.Q},
				func(tx *store.Tx) error {
					list, err := tx.Clients(
						ctx,
						strings.TrimSpace(strings.ReplaceAll(in.Q, "\x00", "")),
						birthDate(in.Q),
						in.Archived,
					)
					for _, c := range list {
						out.Body.Items = append(out.Body.Items, s.clientFor(who, c))
					}
					return err
				})
			return out, problem(err)
		})
	huma.Register(a, huma.Operation{
		OperationID: "put-client", Method: http.MethodPut, Path: "/api/clients/{id}",
		Summary: "Register or change a client", Errors: []int{401, 404, 409, 422},
	}, s.putClient)
	huma.Register(a, huma.Operation{
		OperationID: "alike-clients", Method: http.MethodGet,
		Path: "/api/clients/{id}/alike", Summary: "Clients who may be the same person", Errors: []int{401, 422},
	},
		func(ctx context.Context, in *struct {
			ByID
			Given  string `query:"given_name" maxLength:"100"`
			Family string `query:"family_name" maxLength:"100"`
			Born   string `query:"born_on" maxLength:"10"`
		},
		) (*listOut[Client], error) {
			who, err := s.principal(ctx)
			if err != nil {
				return nil, err
			}
			out := &listOut[Client]{}
			out.Body.Items = []Client{}
			err = s.store.As(ctx, who, store.Action{Verb: "list", Kind: "client", Subject: "alike"},
				func(tx *store.Tx) error {
					list, err := tx.Alike(ctx, store.Client{
						ID: uuid.MustParse(in.ID), GivenName: in.Given,
						FamilyName: in.Family, BornOn: birthDate(in.Born),
					})
					for _, c := range list {
						out.Body.Items = append(out.Body.Items, s.clientFor(who, c))
					}
					return err
				})
			return out, problem(err)
		})
	for verb, archived := range map[string]bool{"archive": true, "restore": false} {
		huma.Register(a, huma.Operation{
			OperationID: verb + "-client", Method: http.MethodPost,
			Path: "/api/clients/{id}/" + verb, Summary: "Put a client away, or bring one back",
			Errors: []int{401, 404}, DefaultStatus: 204,
		},
			func(ctx context.Context, in *ByID) (*struct{}, error) {
				who, err := s.principal(ctx)
				if err != nil {
					return nil, err
				}
				return nil, problem(s.store.As(ctx, who, clientAction(verb, in.ID), func(tx *store.Tx) error {
					return tx.ArchiveClient(ctx, uuid.MustParse(in.ID), archived)
				}))
			})
	}
	huma.Register(a, huma.Operation{
		OperationID: "client-course", Method: http.MethodGet, Path: "/api/clients/{id}",
		Summary: "A client with visits and course", Errors: []int{401, 404},
	}, s.course)
}

func (s *server) putClient(ctx context.Context, in *struct {
	ByID
	Body Client
},
) (*oneOut[Client], error) {
	who, err := s.principal(ctx)
	if err != nil {
		return nil, err
	}
	c := store.Client{
		ID: uuid.MustParse(in.ID), GivenName: in.Body.GivenName, FamilyName: in.Body.FamilyName,
		Work: in.Body.Work, Complaint: in.Body.Complaint, Cautions: in.Body.Cautions, Revision: in.Body.Revision,
		Hand: in.Body.Hand, Phone: in.Body.Phone, Email: in.Body.Email, Emergency: in.Body.Emergency,
		Guardian: in.Body.Guardian,
	}
	if in.Body.ID != in.ID {
		return nil, invalid("body.id", in.Body.ID, "the id in the address")
	}
	if strings.TrimSpace(c.GivenName) == "" {
		return nil, invalid("body.given_name", c.GivenName, "a name")
	}
	if strings.TrimSpace(c.FamilyName) == "" {
		return nil, invalid("body.family_name", c.FamilyName, "a name")
	}
	if c.Cautions == nil {
		c.Cautions = []string{}
	}
	if in.Body.BornOn != "" {
		t, err := time.Parse(time.DateOnly, in.Body.BornOn)
		if err != nil || t.After(s.now()) || t.Year() < 1900 {
			return nil, invalid("body.born_on", in.Body.BornOn, "a day of the calendar from 1900 to today, YYYY-MM-DD")
		}
		c.BornOn = sql.NullTime{Time: t, Valid: true}
	}
	if in.Body.HeightCM != nil {
		c.HeightCM = sql.NullFloat64{Float64: *in.Body.HeightCM, Valid: true}
	}
	out := &oneOut[Client]{}
	err = s.store.As(ctx, who, clientAction("write", in.ID), func(tx *store.Tx) error {
		// Who does not see what is clinical does not write it either.
		if !who.Role.Clinical() {
			stored, err := tx.Client(ctx, c.ID)
			if err != nil && !errors.Is(err, store.ErrNotFound) {
				return err
			}
			c.Complaint, c.Work, c.Cautions, c.HeightCM, c.Hand = stored.Complaint, stored.Work, stored.Cautions,
				stored.HeightCM, stored.Hand
		}
		if err := tx.PutClient(ctx, c); err != nil {
			return err
		}
		saved, err := tx.Client(ctx, c.ID)
		out.Body = s.clientFor(who, saved)
		return err
	})
	return out, problem(err)
}

func invalid(field, given, allowed string) error {
	return huma.Error422UnprocessableEntity("Please correct the field.",
		&huma.ErrorDetail{Location: field, Message: "allowed: " + allowed, Value: given})
}

func (s *server) course(ctx context.Context, in *ByID) (*oneOut[Course], error) {
	who, err := s.principal(ctx)
	if err != nil {
		return nil, err
	}
	out := &oneOut[Course]{}
	out.Body.Visits, out.Body.Last, out.Body.Consents = []Visit{}, []visit.Point{}, []DatedConsent{}
	id := uuid.MustParse(in.ID)
	err = s.store.As(ctx, who, clientAction("read", in.ID), func(tx *store.Tx) error {
		c, err := tx.Client(ctx, id)
		if err != nil {
			return err
		}
		out.Body.Client = s.clientFor(who, c)
		me, err := tx.Person(ctx, who.Person)
		if err != nil {
			return err
		}
		zone, err := time.LoadLocation(me.TimeZone)
		if err != nil {
			return err
		}
		visits, err := tx.VisitsOf(ctx, id)
		if err != nil {
			return err
		}
		var dated []visit.Dated
		for _, v := range visits {
			out.Body.Visits = append(out.Body.Visits, visitOut(v))
			if !v.OpenedAt.Valid {
				continue
			}
			log, err := tx.Events(ctx, v.ID)
			if err != nil {
				return err
			}
			vc, err := tx.VisitContext(ctx, v.ID, s.now())
			if err != nil {
				return err
			}
			d := visit.Dated{
				Visit: v.ID.String(), Day: float64(v.StartsAt.Unix()) / 86400,
				Date: v.StartsAt.In(zone).Format(time.DateOnly), State: visit.Reduce(vc, log),
			}
			dated = append(dated, d)
			for _, c := range d.State.Consents {
				out.Body.Consents = append(out.Body.Consents, DatedConsent{d.Date, c})
			}
			if len(d.State.Points) > 0 {
				out.Body.Last = d.State.Points
			}
		}
		age := 0
		if out.Body.Client.Age != nil {
			age = *out.Body.Client.Age
		}
		out.Body.History = visit.Course(dated, age)
		slices.SortStableFunc(out.Body.Consents, func(a, b DatedConsent) int { return strings.Compare(b.Date, a.Date) })
		return nil
	})
	return out, problem(err)
}
