package api

import (
	"bytes"
	"context"
	"encoding/base64"
	"errors"
	"image/png"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"mokren/store"
)

// PasswordChange needs the one that is.
type PasswordChange struct {
	Now string `json:"now" minLength:"1" maxLength:"200"`
	New string `json:"new" minLength:"1" maxLength:"200"`
}

// SecondFactor tells whether one is on.
type SecondFactor struct {
	On bool `json:"on"`
}

// NewSecondFactor is a secret that is shown once; it counts when a code of it came back.
type NewSecondFactor struct {
	Secret string `json:"secret" doc:"base32, for typing"`
	URL    string `json:"url" doc:"otpauth URL of the same"`
	PNG    string `json:"png" doc:"the same as a picture, base64"`
}

// CodeInput is the code that is shown now.
type CodeInput struct {
	Code string `json:"code" minLength:"6" maxLength:"10"`
}

// PasswordInput proves that it is the person.
type PasswordInput struct {
	Password string `json:"password" minLength:"1" maxLength:"200"`
}

// OwnDevice is where one is signed in.
type OwnDevice struct {
	ID      string `json:"id" format:"uuid"`
	Agent   string `json:"agent" doc:"what the browser says it is"`
	Address string `json:"address"`
	At      string `json:"at" format:"date-time"`
	Expires string `json:"expires" format:"date-time" doc:"without further use"`
	This    bool   `json:"this,omitempty" doc:"the one that asks"`
}

func (s *server) registerOwn(a huma.API) {
	change := op("put-password", http.MethodPut, "/api/me/password", "Choose a new password", 401, 422, 429)
	change.Middlewares = s.atMost("password", codesPerMinute)
	huma.Register(a, silent(change), s.putPassword)
	huma.Register(a, op("second-factor", http.MethodGet, "/api/me/second-factor", "Whether a second factor is on",
		401), s.secondFactor)
	huma.Register(a, op("new-second-factor", http.MethodPost, "/api/me/second-factor",
		"The secret of a second factor (TOTP, RFC 6238)", 401, 409, 422, 429), s.newSecondFactor)
	huma.Register(a, op("confirm-second-factor", http.MethodPut, "/api/me/second-factor",
		"Switch it on by a code", 401, 422), s.confirmSecondFactor)
	drop := op("drop-second-factor", http.MethodPost, "/api/me/second-factor/off", "Switch it off", 401, 422, 429)
	drop.Middlewares = s.atMost("password", codesPerMinute)
	huma.Register(a, drop, s.dropSecondFactor)
	huma.Register(a, op("own-devices", http.MethodGet, "/api/me/devices", "Where one is signed in", 401), s.ownDevices)
	huma.Register(a, silent(op("end-device", http.MethodDelete, "/api/me/devices/{id}", "Sign a device out",
		401, 404)), s.endDevice)
}

func (s *server) putPassword(ctx context.Context, in *struct{ Body PasswordChange }) (*struct{}, error) {
	if err := s.itIsMe(ctx, "body.now", in.Body.Now); err != nil {
		return nil, err
	}
	ends := endsWires[*struct{}](ctx, s)
	return ends(done(ctx, s, s.onSelf(ctx, "change-password"), func(tx *store.Tx) error {
		p, err := tx.Person(ctx, tx.Who().Person)
		if err != nil {
			return err
		}
		if err := goodPassword("body.new", in.Body.New, p.Name, p.PracticeName); err != nil {
			return err
		}
		if err := tx.SetPassword(ctx, p.ID, in.Body.New); err != nil {
			return err
		}
		return tx.EndSessions(ctx, p.ID, tokenHash(s.sessions.Token(ctx)))
	}))
}

// itIsMe wants the password again before what would lock the person out, and counts it
// like one at the door.
func (s *server) itIsMe(ctx context.Context, field, password string) error {
	l, err := one(ctx, s, s.onSelf(ctx, "read"), func(tx *store.Tx) (store.OwnLogin, error) { return tx.OwnLogin(ctx) })
	if err != nil {
		return err
	}
	ok, err := s.store.Guess(ctx, l.Body, password)
	switch {
	case errors.Is(err, store.ErrClosed):
		return huma.Error429TooManyRequests("Too many wrong passwords. Wait a quarter of an hour, then try again.")
	case err != nil:
		return problem(err)
	case !ok:
		return invalid(field, "", "your password as it is")
	}
	return nil
}

func (s *server) secondFactor(ctx context.Context, _ *struct{}) (*oneOut[SecondFactor], error) {
	return one(ctx, s, s.onSelf(ctx, "read"), func(tx *store.Tx) (SecondFactor, error) {
		on, err := tx.HasSecondFactor(ctx)
		return SecondFactor{on}, err
	})
}

// pixels of the picture's side.
const pixels = 240

func (s *server) newSecondFactor(
	ctx context.Context, in *struct{ Body PasswordInput },
) (*oneOut[NewSecondFactor], error) {
	if err := s.itIsMe(ctx, "body.password", in.Body.Password); err != nil {
		return nil, err
	}
	return one(ctx, s, s.onSelf(ctx, "new-second-factor"), func(tx *store.Tx) (out NewSecondFactor, err error) {
		key, err := tx.NewSecondFactor(ctx)
		if err != nil {
			return out, err
		}
		picture, err := key.Image(pixels, pixels)
		if err != nil {
			return out, err
		}
		var b bytes.Buffer
		if err := png.Encode(&b, picture); err != nil {
			return out, err
		}
		return NewSecondFactor{key.Secret(), key.URL(), base64.StdEncoding.EncodeToString(b.Bytes())}, nil
	})
}

func (s *server) confirmSecondFactor(ctx context.Context, in *struct{ Body CodeInput }) (*oneOut[SecondFactor], error) {
	return one(ctx, s, s.onSelf(ctx, "confirm-second-factor"), func(tx *store.Tx) (SecondFactor, error) {
		ok, err := tx.ConfirmSecondFactor(ctx, in.Body.Code, s.now())
		if err == nil && !ok {
			err = invalid("body.code", "", "the six digits that the other device shows now")
		}
		return SecondFactor{ok}, err
	})
}

func (s *server) dropSecondFactor(
	ctx context.Context, in *struct{ Body PasswordInput },
) (*oneOut[SecondFactor], error) {
	if err := s.itIsMe(ctx, "body.password", in.Body.Password); err != nil {
		return nil, err
	}
	return one(ctx, s, s.onSelf(ctx, "drop-second-factor"), func(tx *store.Tx) (SecondFactor, error) {
		return SecondFactor{}, tx.DropSecondFactor(ctx, tx.Who().Person)
	})
}

func (s *server) ownDevices(ctx context.Context, _ *struct{}) (*listOut[OwnDevice], error) {
	here := tokenHash(s.sessions.Token(ctx))
	show := func(d store.Device) OwnDevice {
		return OwnDevice{
			d.ID.String(), d.Agent, d.Address, stampOf(d.At), stampOf(d.Expires), bytes.Equal(d.Session, here),
		}
	}
	return list(ctx, s, s.onSelf(ctx, "list-devices"), show, func(tx *store.Tx) ([]store.Device, error) {
		return tx.Devices(ctx)
	})
}

func (s *server) endDevice(ctx context.Context, in *ByID) (*struct{}, error) {
	ends := endsWires[*struct{}](ctx, s)
	return ends(done(ctx, s, s.onSelf(ctx, "end-device"), func(tx *store.Tx) error {
		return tx.EndDevice(ctx, uuid.MustParse(in.ID))
	}))
}
