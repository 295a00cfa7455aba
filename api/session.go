package api

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/store"
)

// sessionStore keeps sessions in PostgreSQL (scs's three-method interface).
// It has its own table name and no clean-up goroutine: expired rows go when a
// session is written.
type sessionStore struct{ db *sql.DB }

func (s sessionStore) Find(token string) ([]byte, bool, error) {
	var b []byte
	err := s.db.QueryRow(`select data from session where token = $1 and expiry > now()`, token).Scan(&b)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, false, nil
	}
	return b, err == nil, err
}

func (s sessionStore) Commit(token string, b []byte, expiry time.Time) error {
	// An untouched session is written at most once a minute, so that reading
	// does not write.
	_, err := s.db.Exec(`insert into session (token, data, expiry) values ($1, $2, $3)
		on conflict (token) do update set data = excluded.data, expiry = excluded.expiry
		where session.data <> excluded.data or excluded.expiry > session.expiry + interval '1 minute'`, token, b, expiry)
	if err != nil {
		return err
	}
	_, err = s.db.Exec(`delete from session where expiry < now() - interval '1 day'`)
	return err
}

func (s sessionStore) Delete(token string) error {
	_, err := s.db.Exec(`delete from session where token = $1`, token)
	return err
}

// Me is the person who is signed in.
type Me struct {
	ID       string `json:"id" format:"uuid"`
	Name     string `json:"name"`
	Role     string `json:"role" enum:"therapist,assistant"`
	Practice string `json:"practice"`
	TimeZone string `json:"time_zone" doc:"IANA name; dates are shown in it"`
	// FingerCM is absent until the person was asked.
	FingerCM *float64 `json:"finger_cm,omitempty" doc:"own finger-width in cm"`
}

type signIn struct {
	Body struct {
		Email    string `json:"email" minLength:"3" maxLength:"200" format:"email"`
		Password string `json:"password" minLength:"1" maxLength:"200"`
	}
}

type meOut struct{ Body Me }

const principalKey = "principal"

func signInOp() huma.Operation {
	return huma.Operation{
		OperationID: "sign-in", Method: http.MethodPost, Path: "/", Summary: "Sign in",
		Errors: []int{401, 422, 429},
	}
}

func (s *server) registerSignIn(a huma.API) {
	huma.Register(a, signInOp(), s.signIn)
}

// describeSignIn adds the operation to the description without a route.
func (s *server) describeSignIn(a huma.API) {
	op := signInOp()
	op.Path = "/api/session"
	op.RequestBody = &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{"application/json": {
		Schema: a.OpenAPI().Components.Schemas.Schema(schemaType(signIn{}.Body), true, "SignIn"),
	}}}
	op.Responses = map[string]*huma.Response{"200": {
		Description: "Signed in",
		Content: map[string]*huma.MediaType{"application/json": {
			Schema: a.OpenAPI().Components.Schemas.Schema(schemaType(Me{}), true, "Me"),
		}},
	}}
	a.OpenAPI().AddOperation(&op)
}

func (s *server) signIn(ctx context.Context, in *signIn) (*meOut, error) {
	who, err := s.store.SignIn(ctx, in.Body.Email, in.Body.Password)
	if errors.Is(err, store.ErrSignIn) {
		return nil, huma.Error401Unauthorized("This e-mail and password do not match.")
	}
	if err != nil {
		return nil, problem(err)
	}
	// A new token at every sign-in, so that an old one cannot be fixed on someone.
	if err := s.sessions.RenewToken(ctx); err != nil {
		return nil, problem(err)
	}
	b, err := json.Marshal(who)
	if err != nil {
		return nil, err
	}
	s.sessions.Put(ctx, principalKey, b)
	return s.me(ctx, who)
}

func (s *server) registerSession(a huma.API) {
	huma.Register(a, huma.Operation{
		OperationID: "me", Method: http.MethodGet, Path: "/api/session",
		Summary: "Who is signed in", Errors: []int{401},
	},
		func(ctx context.Context, _ *struct{}) (*meOut, error) {
			who, err := s.principal(ctx)
			if err != nil {
				return nil, err
			}
			return s.me(ctx, who)
		})
	huma.Register(a, huma.Operation{
		OperationID: "sign-out", Method: http.MethodDelete, Path: "/api/session",
		Summary: "Sign out", DefaultStatus: 204,
	},
		func(ctx context.Context, _ *struct{}) (*struct{}, error) {
			return nil, s.sessions.Destroy(ctx)
		})
}

func (s *server) registerFinger(a huma.API) {
	huma.Register(a, huma.Operation{
		OperationID: "put-finger", Method: http.MethodPut, Path: "/api/me/finger",
		Summary: "Keep one's own finger-width", Errors: []int{401, 422},
	},
		func(ctx context.Context, in *struct {
			Body struct {
				CM float64 `json:"cm" minimum:"1" maximum:"3" doc:"finger-width in cm"`
			}
		},
		) (*meOut, error) {
			who, err := s.principal(ctx)
			if err != nil {
				return nil, err
			}
			err = s.store.As(ctx, who, store.Action{Verb: "write", Kind: "person", Subject: who.Person.String()},
				func(tx *store.Tx) error {
					return tx.SetFinger(ctx, in.Body.CM)
				})
			if err != nil {
				return nil, problem(err)
			}
			return s.me(ctx, who)
		})
}

func (s *server) me(ctx context.Context, who store.Principal) (*meOut, error) {
	var p store.Person
	err := s.store.As(ctx, who, store.Action{Verb: "read", Kind: "person", Subject: who.Person.String()},
		func(tx *store.Tx) (err error) {
			p, err = tx.Person(ctx, who.Person)
			return err
		})
	if err != nil {
		return nil, problem(err)
	}
	out := &meOut{Me{p.ID.String(), p.Name, p.Role, p.PracticeName, p.TimeZone, nil}}
	if p.FingerCM.Valid {
		out.Body.FingerCM = &p.FingerCM.Float64
	}
	return out, nil
}

// principal gives who is signed in, or a 401.
func (s *server) principal(ctx context.Context) (store.Principal, error) {
	b := s.sessions.GetBytes(ctx, principalKey)
	var who store.Principal
	if b == nil || json.Unmarshal(b, &who) != nil || who.Practice == uuid.Nil {
		return who, huma.Error401Unauthorized("Please sign in.")
	}
	return who, nil
}
