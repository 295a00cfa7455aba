package api

import (
	"context"
	"crypto/rand"
	"encoding/base64"
	"encoding/json"
	"errors"
	"net/http"
	"slices"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/visit"
	"mokren/store"
)

// Me is the person who is signed in.
type Me struct {
	ID   string      `json:"id" format:"uuid"`
	Name string      `json:"name"`
	Role rights.Role `json:"role" enum:"owner,therapist,student,front-desk"`
	// Rights are what the role may do: operations of the API, and types of events.
	Rights []Right `json:"rights"`
	// Supervised: a hold names the licensed person who countersigns it.
	Supervised bool   `json:"supervised"`
	Practice   string `json:"practice"`
	TimeZone   string `json:"time_zone" doc:"IANA name; dates are shown in it"`
	// FingerCM is absent until the person was asked.
	FingerCM *float64 `json:"finger_cm,omitempty" doc:"own finger-width in cm"`
	// Introduced: the trial visit was begun or declined, so it is not offered again.
	Introduced bool `json:"introduced" doc:"whether the trial visit was begun or declined"`
	// CopyHours is how long this device may keep copies of visits.
	CopyHours int `json:"copy_hours" doc:"0: no copies"`
	// IdleMinutes is how long this device may lie idle before it signs itself out.
	IdleMinutes int `json:"idle_minutes" doc:"0: never"`
	// Protocol is the practice's default protocol.
	Protocol ids.Protocol `json:"protocol"`
	// How things are written; the record stays metric.
	Units      string   `json:"units" enum:"metric,imperial"`
	ClockHours int      `json:"clock_hours" enum:"12,24"`
	WeekStarts int      `json:"week_starts" doc:"0 Sunday, 1 Monday, 6 Saturday"`
	Rooms      []string `json:"rooms"`
	// Emergency is the number that is called for urgent medical care.
	Emergency string `json:"emergency_number"`
	// OutboxKey seals what this person has not sent yet on this device. It is the same
	// after a sign-out and a new password, and nobody else's.
	OutboxKey string `json:"outbox_key" doc:"32 bytes, base64"`
	// NowMS lets a device see how far its clock is off.
	NowMS int64 `json:"now_ms" doc:"the server's clock, Unix ms"`
}

// Right is something that a role may do: an operation of the API, or an event that it may
// write.
type Right string

// allRights are those of every role.
func allRights() []Right {
	var out []Right
	for _, o := range rights.Operations() {
		out = append(out, Right(o))
	}
	for _, k := range visit.Kinds() {
		out = append(out, Right(k.Type))
	}
	return out
}

// rightsOf are those of a role, as the tables of the core give them.
func rightsOf(r rights.Role) []Right {
	return slices.DeleteFunc(allRights(), func(x Right) bool {
		return !rights.MayCall(r, string(x)) && !visit.MayWrite(r, string(x))
	})
}

// SignIn is who one says one is.
type SignIn struct {
	Email    string `json:"email" minLength:"3" maxLength:"200" format:"email"`
	Password string `json:"password" minLength:"1" maxLength:"200"`
	Code     string `json:"code,omitempty" maxLength:"10" doc:"of the second factor, where one is on"`
}

type signIn struct {
	address string
	Agent   string `header:"User-Agent"`
	Device  string `cookie:"mokren-device" doc:"that has signed in before"`
	Body    SignIn
}

// Resolve implements huma.Resolver: it notes where the attempt comes from.
func (in *signIn) Resolve(ctx huma.Context) []error {
	in.address = addressOf(ctx.RemoteAddr())
	return nil
}

const principalKey = "principal"

func (s *server) registerSession(a huma.API, signInsPerMinute int) {
	in := op("sign-in", http.MethodPost, "/api/session", "Sign in", 401, 422, 429, 503)
	in.Middlewares = s.atMost("sign-in", signInsPerMinute)
	huma.Register(a, in, s.signIn)
	huma.Register(a, op("me", http.MethodGet, "/api/session", "Who is signed in", 401), s.me)
	huma.Register(a, silent(op("sign-out", http.MethodDelete, "/api/session", "Sign out")), s.signOut)
	huma.Register(a, op("put-finger", http.MethodPut, "/api/me/finger", "Keep one's own finger-width",
		401, 422), s.putFinger)
	huma.Register(a, op("put-introduced", http.MethodPut, "/api/me/introduced",
		"Note that the trial visit was begun or declined", 401), s.putIntroduced)
}

func (s *server) signIn(ctx context.Context, in *signIn) (*entered, error) {
	who, err := s.store.SignIn(ctx, store.SignIn{
		Email: in.Body.Email, Password: in.Body.Password, Code: in.Body.Code, From: in.address, Device: in.Device,
	})
	switch {
	case errors.Is(err, store.ErrSignIn):
		return nil, huma.Error401Unauthorized("This e-mail and password do not match.")
	case errors.Is(err, store.ErrCode):
		return nil, codeWanted(in.Body.Code)
	case errors.Is(err, store.ErrBusy):
		return nil, huma.ErrorWithHeaders(
			huma.Error503ServiceUnavailable("Many people sign in just now. Try again in a moment."),
			http.Header{"Retry-After": {strconv.Itoa(int(store.WaitingFor.Seconds()))}},
		)
	case errors.Is(err, store.ErrClosed):
		return nil, huma.Error429TooManyRequests("Too many wrong attempts by this e-mail from here. Try again in " +
			"15 minutes, use a device that has signed in before, or ask an owner for a link.")
	case err != nil:
		return nil, problem(err)
	}
	out, err := s.enter(ctx, who, in.Agent, in.address)
	if err != nil {
		return nil, err
	}
	cookie, err := s.knowDevice(ctx, in)
	return &entered{[]http.Cookie{cookie}, out.Body}, problem(err)
}

// entered is who is signed in, with what the device is known by from now on.
type entered struct {
	SetCookie []http.Cookie `header:"Set-Cookie"`
	Body      Me
}

// deviceKept is how long a device is known after it signed in.
const deviceKept = 180 * 24 * time.Hour

// knowDevice lets a device sign in by this name though strangers have tried it too often.
func (s *server) knowDevice(ctx context.Context, in *signIn) (http.Cookie, error) {
	secret := in.Device
	if len(secret) != len(rand.Text()) {
		secret = rand.Text()
	}
	return http.Cookie{
		Name: "mokren-device", Value: secret, Path: "/api/session", HttpOnly: true, Secure: s.sessions.Cookie.Secure,
		SameSite: http.SameSiteStrictMode, MaxAge: int(deviceKept.Seconds()),
	}, s.store.KnowDevice(ctx, in.Body.Email, secret)
}

// codeWanted names the field that the page is to show now.
func codeWanted(given string) error {
	text := "The six digits that your second device shows now."
	return huma.Error401Unauthorized(text, &huma.ErrorDetail{Location: "body.code", Message: text, Value: given})
}

// enter begins a session and notes the device.
func (s *server) enter(ctx context.Context, who store.Principal, agent, address string) (*oneOut[Me], error) {
	// A new token at every sign-in, so that an old one cannot be fixed on someone.
	if err := s.sessions.RenewToken(ctx); err != nil {
		return nil, problem(err)
	}
	b, err := json.Marshal(who)
	if err != nil {
		return nil, err
	}
	s.sessions.Put(ctx, principalKey, b)
	token := s.sessions.Token(ctx)
	what := action("enter", "device", who.Person.String())
	err = s.store.As(ctx, who, what, func(tx *store.Tx) error {
		return tx.SignedIn(ctx, tokenHash(token), agent, address)
	})
	if err != nil {
		return nil, problem(err)
	}
	return s.me(context.WithValue(ctx, callerKey{}, who), nil)
}

func (s *server) signOut(ctx context.Context, _ *struct{}) (*struct{}, error) {
	if who, ok := s.session(ctx); ok {
		what := action("sign-out", "person", who.Person.String())
		if err := s.store.As(ctx, who, what, func(*store.Tx) error { return nil }); err != nil {
			return nil, problem(err)
		}
	}
	if err := s.sessions.Destroy(ctx); err != nil {
		return nil, err
	}
	s.rightsChanged(ctx)
	return nil, nil
}

// Finger is a finger-width.
type Finger struct {
	CM float64 `json:"cm" minimum:"1" maximum:"3" doc:"finger-width in cm"`
}

func (s *server) putFinger(ctx context.Context, in *struct{ Body Finger }) (*oneOut[Me], error) {
	return one(ctx, s, s.onSelf(ctx, "write"), func(tx *store.Tx) (Me, error) {
		if err := tx.SetFinger(ctx, in.Body.CM); err != nil {
			return Me{}, err
		}
		return s.readMe(ctx, tx)
	})
}

func (s *server) putIntroduced(ctx context.Context, _ *struct{}) (*oneOut[Me], error) {
	return one(ctx, s, s.onSelf(ctx, "write"), func(tx *store.Tx) (Me, error) {
		if err := tx.SetIntroduced(ctx, tx.Who().Person); err != nil {
			return Me{}, err
		}
		return s.readMe(ctx, tx)
	})
}

func (s *server) me(ctx context.Context, _ *struct{}) (*oneOut[Me], error) {
	return one(ctx, s, s.onSelf(ctx, "read"), func(tx *store.Tx) (Me, error) { return s.readMe(ctx, tx) })
}

// onSelf is an action on the person who is signed in.
func (s *server) onSelf(ctx context.Context, verb string) store.Action {
	who, _ := s.principal(ctx) //nolint:errcheck // without one the action is refused
	return action(verb, "person", who.Person.String())
}

func (s *server) readMe(ctx context.Context, tx *store.Tx) (Me, error) {
	p, err := tx.Person(ctx, tx.Who().Person)
	if err != nil {
		return Me{}, err
	}
	key, err := tx.OutboxKey(ctx)
	if err != nil {
		return Me{}, err
	}
	out := Me{
		OutboxKey: base64.StdEncoding.EncodeToString(key),
		ID:        p.ID.String(), Name: p.Name, Role: p.Role, Rights: rightsOf(p.Role),
		Supervised: p.Role == rights.Student, Practice: p.PracticeName, TimeZone: p.TimeZone,
		CopyHours: p.CopyHours, IdleMinutes: p.IdleMinutes, Protocol: ids.Protocol(p.Protocol),
		Units: p.Units, ClockHours: p.ClockHours, WeekStarts: p.WeekStarts,
		Rooms: append([]string{}, p.Rooms...), Emergency: p.Emergency, NowMS: s.visitClock(ctx).UnixMilli(),
		Introduced: p.Introduced.Valid,
	}
	if p.FingerCM.Valid {
		out.FingerCM = &p.FingerCM.Float64
	}
	return out, nil
}
