package api

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/rights"
	"mokren/store"
)

// BySecret is a one-time link, with where it is tried from.
type BySecret struct {
	Code  string `path:"code" maxLength:"80"`
	Agent string `header:"User-Agent"`
	from  string
}

// Resolve implements huma.Resolver.
func (c *BySecret) Resolve(ctx huma.Context) []error {
	c.from = addressOf(ctx.RemoteAddr())
	return nil
}

// TicketOut tells whom a link is for.
type TicketOut struct {
	Kind     string `json:"kind" enum:"join,reset,set-up"`
	Practice string `json:"practice,omitempty"`
	Name     string `json:"name,omitempty"`
	Email    string `json:"email,omitempty"`
}

// NewPassword is chosen by a link.
type NewPassword struct {
	Password string `json:"password" minLength:"1" maxLength:"200"`
}

// SetUp is a first practice with its owner.
type SetUp struct {
	Practice string `json:"practice" minLength:"1" maxLength:"120" pattern:"\\S"`
	TimeZone string `json:"time_zone" minLength:"1" maxLength:"60" doc:"IANA name, such as Europe/Vienna"`
	Name     string `json:"name" minLength:"1" maxLength:"120" pattern:"\\S"`
	Email    string `json:"email" minLength:"3" maxLength:"200" format:"email"`
	Password string `json:"password" minLength:"1" maxLength:"200"`
}

func (s *server) registerTickets(a huma.API) {
	for _, o := range []struct {
		op  huma.Operation
		add func(huma.Operation)
	}{
		{
			op("ticket", http.MethodGet, "/api/join/{code}", "Whom a one-time link is for", 404, 429),
			func(o huma.Operation) { huma.Register(a, o, s.ticket) },
		},
		{
			op("redeem", http.MethodPost, "/api/join/{code}", "Choose a password by a one-time link",
				404, 409, 422, 429),
			func(o huma.Operation) { huma.Register(a, o, s.redeem) },
		},
		{
			op("set-up", http.MethodPost, "/api/set-up/{code}", "Set up the first practice with its owner",
				404, 422, 429),
			func(o huma.Operation) { huma.Register(a, o, s.setUp) },
		},
	} {
		o.op.Middlewares = s.atMost("link", codesPerMinute)
		o.add(o.op)
	}
}

// found looks a link up; a wrong one leaves a trace at sign-in.
func (s *server) foundTicket(ctx context.Context, in BySecret) (store.Ticket, error) {
	k, err := s.store.FindTicket(ctx, in.Code)
	if errors.Is(err, store.ErrNotFound) {
		over := huma.Error404NotFound("This link was used already, or its time is over. Ask for a new one.")
		return k, errors.Join(over, s.store.LogAttempt(ctx, "code", in.from))
	}
	return k, problem(err)
}

func (s *server) ticket(ctx context.Context, in *BySecret) (*oneOut[TicketOut], error) {
	k, err := s.foundTicket(ctx, *in)
	if err != nil {
		return nil, err
	}
	out := TicketOut{Kind: k.Kind, Email: k.Email}
	if k.Kind == store.ToSetUp {
		return &oneOut[TicketOut]{out}, nil
	}
	err = s.store.As(ctx, k.Principal(), action("look", "link", k.Person.UUID.String()), func(tx *store.Tx) error {
		p, err := tx.Person(ctx, k.Person.UUID)
		out.Practice, out.Name = p.PracticeName, p.Name
		return err
	})
	return &oneOut[TicketOut]{out}, problem(err)
}

func (s *server) redeem(ctx context.Context, in *struct {
	BySecret
	Body NewPassword
},
) (*oneOut[Me], error) {
	k, err := s.foundTicket(ctx, in.BySecret)
	if err != nil {
		return nil, err
	}
	who := k.Principal()
	err = s.store.As(ctx, who, action("redeem", "person", who.Person.String()), func(tx *store.Tx) error {
		p, err := tx.Person(ctx, who.Person)
		if err != nil {
			return err
		}
		if k.Kind == store.ToSetUp || p.Left.Valid {
			return store.ErrNotFound
		}
		if err := goodPassword("body.password", in.Body.Password, p.Name, p.PracticeName, k.Email); err != nil {
			return err
		}
		who.Role = p.Role
		return tx.Redeem(ctx, k, in.Code, in.Body.Password)
	})
	if err != nil {
		return nil, problem(err)
	}
	return s.enter(ctx, who, in.Agent, in.from)
}

// goodPassword names what is wrong with one; the password itself is not said again.
func goodPassword(field, password string, personal ...string) error {
	if err := store.GoodPassword(password, personal...); err != nil {
		return invalid(field, "", err.Error())
	}
	return nil
}

func (s *server) setUp(ctx context.Context, in *struct {
	BySecret
	Body SetUp
},
) (*oneOut[Me], error) {
	k, err := s.foundTicket(ctx, in.BySecret)
	if err != nil {
		return nil, err
	}
	if k.Kind != store.ToSetUp {
		return nil, huma.Error404NotFound("This link is not for setting up.")
	}
	b := in.Body
	if _, err := time.LoadLocation(b.TimeZone); err != nil || b.TimeZone == "Local" {
		return nil, invalid("body.time_zone", b.TimeZone, "an IANA name, such as Europe/Vienna")
	}
	if err := goodPassword("body.password", b.Password, b.Name, b.Practice, b.Email); err != nil {
		return nil, err
	}
	who := store.Principal{Practice: uuid.New(), Person: uuid.New(), Role: rights.Owner}
	err = s.store.As(ctx, who, action("set-up", "practice", who.Practice.String()), func(tx *store.Tx) error {
		return errors.Join(
			tx.UseTicket(ctx, in.Code),
			tx.NewPractice(ctx, b.Practice, b.TimeZone),
			tx.NewPerson(ctx, who.Person, b.Name, rights.Owner, b.Email, b.Password),
		)
	})
	if err != nil {
		return nil, problem(err)
	}
	return s.enter(ctx, who, in.Agent, in.from)
}
