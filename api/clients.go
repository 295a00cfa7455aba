package api

import (
	"context"
	"database/sql"
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"mokren/store"
)

// Client is a person who is treated.
type Client struct {
	ID         string `json:"id" format:"uuid"`
	GivenName  string `json:"given_name" minLength:"1" maxLength:"100"`
	FamilyName string `json:"family_name" minLength:"1" maxLength:"100"`
	BornOn     string `json:"born_on,omitempty" pattern:"^([0-9]{4}-[0-9]{2}-[0-9]{2})?$" doc:"YYYY-MM-DD"`
	// BornWas is the birth date before a change that no licensed person has confirmed: the
	// more cautious age counts until then.
	BornWas       string   `json:"born_was,omitempty" readOnly:"true" doc:"YYYY-MM-DD"`
	BornConfirmed bool     `json:"born_confirmed,omitempty" writeOnly:"true" doc:"a licensed person has seen that it is right"`
	HeightCM      *float64 `json:"height_cm,omitempty" minimum:"50" maximum:"250"`
	Work          string   `json:"work,omitempty" maxLength:"200"`
	Complaint     string   `json:"complaint,omitempty" maxLength:"1000" doc:"in the client's words"`
	Cautions      []string `json:"cautions,omitempty" maxItems:"20"`
	Hand          string   `json:"dominant_hand,omitempty" enum:",left,right,both"`
	Phone         string   `json:"phone,omitempty" maxLength:"60"`
	Email         string   `json:"email,omitempty" maxLength:"200"`
	Emergency     string   `json:"emergency_contact,omitempty" maxLength:"300" doc:"name and how to reach them"`
	Guardian      string   `json:"guardian,omitempty" maxLength:"300" doc:"of a minor: name and how to reach them"`
	Archived      bool     `json:"archived,omitempty" readOnly:"true"`
	LegalHold     string   `json:"legal_hold,omitempty" readOnly:"true" doc:"why the record may not be erased"`
	Revision      int64    `json:"revision" minimum:"0" doc:"0 for a new client; otherwise the revision that was read"`
	Age           *int     `json:"age,omitempty" readOnly:"true"`
	LastVisit     *string  `json:"last_visit,omitempty" readOnly:"true" doc:"RFC 3339"`
	Visits        int      `json:"visits,omitempty" readOnly:"true"`
}

func clientOut(c store.Client, now time.Time) Client {
	out := Client{
		ID: c.ID.String(), GivenName: c.GivenName, FamilyName: c.FamilyName, Work: c.Work,
		Complaint: c.Complaint, Cautions: c.Cautions, Revision: c.Revision, Visits: c.Visits,
		Hand: c.Hand, Phone: c.Phone, Email: c.Email, Emergency: c.Emergency, Guardian: c.Guardian,
		Archived: c.Archived.Valid, LegalHold: c.LegalHold,
	}
	if c.BornOn.Valid {
		out.BornOn = c.BornOn.Time.Format(time.DateOnly)
		a := ageOn(c.BornOn.Time, now)
		out.Age = &a
	}
	if c.BornWas.Valid {
		out.BornWas = c.BornWas.Time.Format(time.DateOnly)
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
		out.LegalHold = ""
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

// stamp is a moment as the API writes it.
func stamp(t sql.NullTime) *string {
	if !t.Valid {
		return nil
	}
	s := t.Time.UTC().Format(time.RFC3339)
	return &s
}

func (s *server) registerClients(a huma.API) {
	huma.Register(a, op("list-clients", http.MethodGet, "/api/clients", "Clients by name", 401), s.listClients)
	huma.Register(a, op("put-client", http.MethodPut, "/api/clients/{id}", "Register or change a client",
		401, 404, 409, 410, 422), s.putClient)
	huma.Register(a, op("alike-clients", http.MethodGet, "/api/clients/{id}/alike",
		"Clients who may be the same person", 401, 422), s.alike)
	huma.Register(a, silent(op("archive-client", http.MethodPost, "/api/clients/{id}/archive",
		"Put a client away, or bring one back", 401, 404)),
		func(ctx context.Context, in *ByID) (*struct{}, error) { return s.archive(ctx, in, "archive") })
	huma.Register(a, silent(op("restore-client", http.MethodPost, "/api/clients/{id}/restore",
		"Put a client away, or bring one back", 401, 404)),
		func(ctx context.Context, in *ByID) (*struct{}, error) { return s.archive(ctx, in, "restore") })
	huma.Register(a, op("client-course", http.MethodGet, "/api/clients/{id}", "A client with visits and course",
		401, 404), s.course)
	huma.Register(a, op("compare-visits", http.MethodGet, "/api/clients/{id}/compare",
		"What was read at two visits, beside each other", 401, 404, 422), s.compare)
}

func (s *server) listClients(ctx context.Context, in *struct {
	Q        string `query:"q" maxLength:"100" doc:"a name, with typing errors, or a birth date (YYYY-MM-DD or DD.MM.YYYY)"`
	Archived bool   `query:"archived"`
},
) (*listOut[Client], error) {
	return list(ctx, s, action("list", "client", ""), s.shownTo(ctx), func(tx *store.Tx) ([]store.Client, error) {
		return tx.Clients(ctx, strings.TrimSpace(in.Q), birthDate(in.Q), in.Archived)
	})
}

func (s *server) alike(ctx context.Context, in *struct {
	ByID
	Given  string `query:"given_name" maxLength:"100"`
	Family string `query:"family_name" maxLength:"100"`
	Born   string `query:"born_on" maxLength:"10"`
},
) (*listOut[Client], error) {
	return list(ctx, s, action("list", "client", "alike"), s.shownTo(ctx), func(tx *store.Tx) ([]store.Client, error) {
		return tx.Alike(ctx, store.Client{
			ID: in.uuid(), GivenName: in.Given, FamilyName: in.Family, BornOn: birthDate(in.Born),
		})
	})
}

// shownTo shows a client as the role of who is signed in sees one.
func (s *server) shownTo(ctx context.Context) func(store.Client) Client {
	who, _ := s.principal(ctx) //nolint:errcheck // nobody sees nothing clinical
	return func(c store.Client) Client { return s.clientFor(who, c) }
}

func (s *server) archive(ctx context.Context, in *ByID, verb string) (*struct{}, error) {
	return done(ctx, s, clientAction(verb, *in), func(tx *store.Tx) error {
		return tx.ArchiveClient(ctx, in.uuid(), verb == "archive")
	})
}

func (s *server) putClient(ctx context.Context, in *struct {
	ByID
	Body Client
},
) (*oneOut[Client], error) {
	if in.Body.ID != in.ID {
		return nil, invalid("body.id", in.Body.ID, "the id in the address")
	}
	c, err := s.typed(in.Body)
	if err != nil {
		return nil, err
	}
	c.ID = in.uuid()
	return one(ctx, s, clientAction("write", in.ByID), func(tx *store.Tx) (Client, error) {
		// Who does not see what is clinical does not write it either.
		if !tx.Who().Role.Clinical() {
			stored, err := tx.Client(ctx, c.ID)
			if err != nil && !errors.Is(err, store.ErrNotFound) {
				return Client{}, err
			}
			c = c.WithClinical(stored)
		}
		if err := tx.PutClient(ctx, c); err != nil {
			return Client{}, err
		}
		saved, err := tx.Client(ctx, c.ID)
		return s.clientFor(tx.Who(), saved), err
	})
}

// typed is a client as the store keeps one.
func (s *server) typed(in Client) (store.Client, error) {
	c := store.Client{
		GivenName: in.GivenName, FamilyName: in.FamilyName, Work: in.Work, Complaint: in.Complaint,
		Cautions: append([]string{}, in.Cautions...), Revision: in.Revision, Hand: in.Hand, Phone: in.Phone,
		Email: in.Email, Emergency: in.Emergency, Guardian: in.Guardian, BornConfirmed: in.BornConfirmed,
	}
	switch "" {
	case strings.TrimSpace(c.GivenName):
		return c, invalid("body.given_name", c.GivenName, "a name")
	case strings.TrimSpace(c.FamilyName):
		return c, invalid("body.family_name", c.FamilyName, "a name")
	}
	if in.BornOn != "" {
		t, err := time.Parse(time.DateOnly, in.BornOn)
		if err != nil || t.After(s.now()) || t.Year() < 1900 {
			return c, invalid("body.born_on", in.BornOn, "a day of the calendar from 1900 to today, YYYY-MM-DD")
		}
		c.BornOn = sql.NullTime{Time: t, Valid: true}
	}
	if in.HeightCM != nil {
		c.HeightCM = sql.NullFloat64{Float64: *in.HeightCM, Valid: true}
	}
	return c, nil
}
