package api

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/json"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"mokren/core/rights"
	"mokren/store"
)

// sessionStore keeps sessions in PostgreSQL (scs's three-method interface).
// It has its own table name and no clean-up goroutine: expired rows go when a
// session is written. The table holds a hash of the token: who reads it has no
// way in.
type sessionStore struct{ db *sql.DB }

func tokenHash(token string) []byte {
	h := sha256.Sum256([]byte(token))
	return h[:]
}

func (s sessionStore) Find(token string) ([]byte, bool, error) {
	var b []byte
	err := s.db.QueryRow(`select data from session where token = $1 and expiry > now()`, tokenHash(token)).Scan(&b)
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
		where session.data <> excluded.data or excluded.expiry > session.expiry + interval '1 minute'`, tokenHash(token), b, expiry)
	if err != nil {
		return err
	}
	_, err = s.db.Exec(`delete from session where expiry < now() - interval '1 day'`)
	return err
}

func (s sessionStore) Delete(token string) error {
	_, err := s.db.Exec(`delete from session where token = $1`, tokenHash(token))
	return err
}

// Me is the person who is signed in.
type Me struct {
	ID       string      `json:"id" format:"uuid"`
	Name     string      `json:"name"`
	Role     rights.Role `json:"role" enum:"owner,therapist,student,front-desk"`
	Practice string      `json:"practice"`
	TimeZone string      `json:"time_zone" doc:"IANA name; dates are shown in it"`
	// FingerCM is absent until the person was asked.
	FingerCM *float64 `json:"finger_cm,omitempty" doc:"own finger-width in cm"`
	// CopyHours is how long this device may keep copies of visits.
	CopyHours int `json:"copy_hours" doc:"0: no copies"`
	// NowMS lets a device see how far its clock is off.
	NowMS int64 `json:"now_ms" doc:"the server's clock, Unix ms"`
}

type signIn struct {
	address string
	Body    struct {
		Email    string `json:"email" minLength:"3" maxLength:"200" format:"email"`
		Password string `json:"password" minLength:"1" maxLength:"200"`
	}
}

type meOut struct{ Body Me }

// Resolve implements huma.Resolver: it notes where the attempt comes from.
func (in *signIn) Resolve(ctx huma.Context) []error {
	in.address = addressOf(ctx.RemoteAddr())
	return nil
}

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
	who, err := s.store.SignIn(ctx, in.Body.Email, in.Body.Password, in.address)
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
			if who, ok := s.session(ctx); ok {
				what := store.Action{Verb: "sign-out", Kind: "person", Subject: who.Person.String()}
				if err := s.store.As(ctx, who, what, func(*store.Tx) error { return nil }); err != nil {
					return nil, problem(err)
				}
			}
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
	out := &meOut{Me{
		ID: p.ID.String(), Name: p.Name, Role: p.Role, Practice: p.PracticeName, TimeZone: p.TimeZone,
		CopyHours: p.CopyHours, NowMS: s.now().UnixMilli(),
	}}
	if p.FingerCM.Valid {
		out.Body.FingerCM = &p.FingerCM.Float64
	}
	return out, nil
}
