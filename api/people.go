package api

import (
	"context"
	"database/sql"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/core/rights"
	"mokren/store"
)

// Colleague is a member of the practice, as an owner sees them.
type Colleague struct {
	ID      string      `json:"id" format:"uuid"`
	Name    string      `json:"name"`
	Role    rights.Role `json:"role" enum:"owner,therapist,student,front-desk"`
	Email   string      `json:"email,omitempty" doc:"absent until the link was used"`
	Licence string      `json:"licence,omitempty"`
	Until   string      `json:"licence_until,omitempty" format:"date"`
	// Expired and Soon tell of the licence: past, or within 60 days.
	Expired      bool   `json:"licence_expired,omitempty"`
	Soon         bool   `json:"licence_soon,omitempty"`
	Supervisor   string `json:"supervisor,omitempty" format:"uuid"`
	SecondFactor bool   `json:"second_factor,omitempty"`
	LeftAt       string `json:"left_at,omitempty" format:"date-time"`
	// Licensed: may supervise a student, and take over from who leaves.
	Licensed bool `json:"licensed"`
	// Waits is the kind of link that waits to be used.
	Waits   string `json:"waits,omitempty" enum:"join,reset"`
	WaitsTo string `json:"waits_to,omitempty" format:"date-time"`
}

// PersonInput is what an owner says of a member.
type PersonInput struct {
	Name       string      `json:"name" minLength:"1" maxLength:"120" pattern:"\\S"`
	Role       rights.Role `json:"role" enum:"owner,therapist,student,front-desk"`
	Licence    string      `json:"licence,omitempty" maxLength:"120" doc:"as the authority calls it"`
	Until      string      `json:"licence_until,omitempty" pattern:"^([0-9]{4}-[0-9]{2}-[0-9]{2})?$"`
	Supervisor string      `json:"supervisor,omitempty" format:"uuid" doc:"a student's, who is licensed"`
}

// Invitation is a person who is asked to join.
type Invitation struct {
	PersonInput
	Email string `json:"email" minLength:"3" maxLength:"200" format:"email"`
}

// OneTimeLink is shown once and kept nowhere.
type OneTimeLink struct {
	Person string `json:"person" format:"uuid"`
	Path   string `json:"path" doc:"of this server; opens once"`
	Until  string `json:"until" format:"date-time"`
}

// Handover names who takes over.
type Handover struct {
	To string `json:"to" format:"uuid" doc:"a therapist or owner"`
}

// HandedOver tells what went over.
type HandedOver struct {
	Visits int `json:"visits"`
}

func (s *server) registerPeople(a huma.API) {
	huma.Register(a, op("people", http.MethodGet, "/api/people", "Who works here", 401, 403), s.people)
	huma.Register(a, op("invite", http.MethodPost, "/api/people", "Invite: a one-time link",
		401, 403, 409, 422), s.invite)
	huma.Register(a, op("put-person", http.MethodPut, "/api/people/{id}", "Change name, role, licence, supervisor",
		401, 403, 404, 409, 422), s.putPerson)
	huma.Register(a, op("reset-person", http.MethodPost, "/api/people/{id}/reset",
		"A one-time link by which a member chooses a new password", 401, 403, 404), s.resetPerson)
	huma.Register(a, op("leave", http.MethodPost, "/api/people/{id}/leave",
		"A member leaves; visits to come go to another", 401, 403, 404, 409, 422), s.leave)
}

// soon: a licence that ends within so long is said beforehand.
const soon = 60 * 24 * time.Hour

// licenceEnds tells of a licence by its last day.
func licenceEnds(last, now time.Time) (expired, ends bool) {
	end := last.AddDate(0, 0, 1)
	expired = !now.Before(end)
	return expired, !expired && !now.Add(soon).Before(end)
}

func (s *server) people(ctx context.Context, _ *struct{}) (*listOut[Colleague], error) {
	now := s.now()
	show := func(m store.Member) Colleague {
		out := Colleague{
			ID: m.ID.String(), Name: m.Name, Role: m.Role, Email: m.Email, Licence: m.Licence,
			SecondFactor: m.TOTP, Waits: m.Waits.String, Licensed: m.Role.Licensed() && !m.Left.Valid,
		}
		if m.LicenceUntil.Valid {
			out.Until = m.LicenceUntil.Time.Format(time.DateOnly)
			out.Expired, out.Soon = licenceEnds(m.LicenceUntil.Time, now)
		}
		if m.Supervisor.Valid {
			out.Supervisor = m.Supervisor.UUID.String()
		}
		if m.Left.Valid {
			out.LeftAt = stampOf(m.Left.Time)
		}
		if m.WaitsTo.Valid {
			out.WaitsTo = stampOf(m.WaitsTo.Time)
		}
		return out
	}
	return list(ctx, s, action("list", "person", ""), show, func(tx *store.Tx) ([]store.Member, error) {
		return tx.Members(ctx)
	})
}

// stored checks what is said of a member.
func (p PersonInput) stored(ctx context.Context, tx *store.Tx, id uuid.UUID) (store.Person, error) {
	out := store.Person{ID: id, Name: p.Name, Role: p.Role, Licence: p.Licence}
	if p.Until != "" {
		day, err := time.Parse(time.DateOnly, p.Until)
		if err != nil {
			return out, invalid("body.licence_until", p.Until, "a day, YYYY-MM-DD")
		}
		out.LicenceUntil = sql.NullTime{Time: day, Valid: true}
	}
	if p.Supervisor == "" {
		return out, nil
	}
	supervisor, err := tx.Person(ctx, uuid.MustParse(p.Supervisor))
	if errors.Is(err, store.ErrNotFound) || err == nil && (!supervisor.Role.Licensed() || supervisor.ID == id) {
		return out, invalid("body.supervisor", p.Supervisor, "a licensed member other than the person")
	}
	out.Supervisor = uuid.NullUUID{UUID: supervisor.ID, Valid: true}
	return out, err
}

func (s *server) invite(ctx context.Context, in *struct{ Body Invitation }) (*oneOut[OneTimeLink], error) {
	id := uuid.New()
	return one(ctx, s, action("invite", "person", id.String()), func(tx *store.Tx) (out OneTimeLink, err error) {
		p, err := in.Body.stored(ctx, tx, id)
		if err != nil {
			return out, err
		}
		taken, err := tx.EmailTaken(ctx, in.Body.Email)
		if err != nil {
			return out, err
		}
		if taken {
			return out, invalid("body.email", in.Body.Email, "an e-mail by which nobody signs in yet")
		}
		if err := tx.AddPerson(ctx, p); err != nil {
			return out, err
		}
		return s.newTicket(ctx, tx, store.ToJoin, id, in.Body.Email)
	})
}

func (s *server) newTicket(
	ctx context.Context, tx *store.Tx, kind string, person uuid.UUID, email string,
) (OneTimeLink, error) {
	secret, until, err := tx.NewTicket(ctx, kind, person, email, s.now())
	return OneTimeLink{person.String(), "/join/" + secret, stampOf(until)}, err
}

func (s *server) putPerson(ctx context.Context, in *struct {
	ByID
	Body PersonInput
},
) (*struct{}, error) {
	ends := endsWires[*struct{}](ctx, s)
	return ends(done(ctx, s, action("write", "person", in.ID), func(tx *store.Tx) error {
		p, err := in.Body.stored(ctx, tx, in.uuid())
		if err != nil {
			return err
		}
		return lastOwner(tx.PutPerson(ctx, p))
	}))
}

// lastOwner says in words why somebody cannot be let go.
func lastOwner(err error) error {
	if errors.Is(err, store.ErrLastOwner) {
		return huma.Error409Conflict("A practice needs an owner. Make someone else an owner first.")
	}
	return err
}

// resetPerson makes the link anew for someone who has not joined yet.
func (s *server) resetPerson(ctx context.Context, in *ByID) (*oneOut[OneTimeLink], error) {
	return one(ctx, s, action("reset", "person", in.ID), func(tx *store.Tx) (OneTimeLink, error) {
		members, err := tx.Members(ctx)
		if err != nil {
			return OneTimeLink{}, err
		}
		for _, m := range members {
			if m.ID != in.uuid() || m.Left.Valid {
				continue
			}
			if m.Email != "" {
				return s.newTicket(ctx, tx, store.ToReset, m.ID, m.Email)
			}
			email, err := tx.InvitedAs(ctx, m.ID)
			if err != nil {
				return OneTimeLink{}, err
			}
			return s.newTicket(ctx, tx, store.ToJoin, m.ID, email)
		}
		return OneTimeLink{}, store.ErrNotFound
	})
}

func (s *server) leave(ctx context.Context, in *struct {
	ByID
	Body Handover
},
) (*oneOut[HandedOver], error) {
	ends := endsWires[*oneOut[HandedOver]](ctx, s)
	return ends(one(ctx, s, action("leave", "person", in.ID), func(tx *store.Tx) (HandedOver, error) {
		if in.Body.To == in.ID {
			return HandedOver{}, invalid("body.to", in.Body.To, "someone else")
		}
		n, err := tx.Leave(ctx, in.uuid(), uuid.MustParse(in.Body.To), s.now())
		return HandedOver{n}, lastOwner(err)
	}))
}

func stampOf(t time.Time) string { return t.UTC().Format(time.RFC3339) }
