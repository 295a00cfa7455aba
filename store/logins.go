package store

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"
	"github.com/pquerna/otp"
	"github.com/pquerna/otp/totp"

	"mokren/store/seal"
)

// ErrSignIn says neither which of the two was wrong.
var ErrSignIn = errors.New("this e-mail and password do not match")

// ErrCode asks for the code that changes; it is said only after the right password.
var ErrCode = errors.New("the code of your second factor is asked for")

// ErrClosed: too many wrong passwords for this login.
var ErrClosed = errors.New("closed for a while after too many wrong attempts")

// ErrEmailTaken: a login is one person's.
var ErrEmailTaken = errors.New("someone signs in by this e-mail already")

// login is a row that is reached only through functions of the database.
type login struct {
	Practice uuid.UUID `db:"practice_id"`
	Person   uuid.UUID `db:"person_id"`
	Hash     string    `db:"password_hash"`
	Secret   string    `db:"totp_secret"`
	TOTP     bool      `db:"totp_on"`
}

// SignIn is what someone says at sign-in.
type SignIn struct {
	Email, Password string
	// Code of the second factor, where one is on.
	Code string
	// From is the address; Device the secret of one that has signed in before.
	From, Device string
}

// SignIn looks an e-mail up and checks the password. It runs outside a practice
// because none is known yet. A name that nobody has is treated like any other.
func (s *Store) SignIn(ctx context.Context, in SignIn) (Principal, error) {
	var l login
	email := strings.TrimSpace(in.Email)
	err := found("looking up a login", s.db.GetContext(ctx, &l, `select practice_id, person_id, password_hash, totp_secret,
		totp_on from login_look($1)`, email))
	nobodys := errors.Is(err, ErrNotFound)
	if nobodys {
		l.Hash, err = nobody()
	}
	if err != nil {
		return Principal{}, err
	}
	d, err := s.knocking(ctx, in)
	if err != nil {
		return Principal{}, err
	}
	err = s.proven(ctx, l, d, email, in)
	if nobodys && (err == nil || errors.Is(err, ErrSignIn) || errors.Is(err, ErrClosed)) {
		return Principal{}, errors.Join(cmp.Or(err, ErrSignIn), s.LogAttempt(ctx, "sign-in", in.From))
	}
	if nobodys || errors.Is(err, ErrCode) && in.Code == "" || errors.Is(err, ErrBusy) {
		return Principal{}, err // the second half of the way, or all of it, is still to come
	}
	who := Principal{Practice: l.Practice, Person: l.Person}
	what := Action{Verb: "sign-in", Kind: "person", Subject: l.Person.String()}
	if err != nil {
		return Principal{}, errors.Join(err, s.Refused(ctx, who, what))
	}
	err = s.As(ctx, who, what, func(tx *Tx) error {
		p, err := tx.Person(ctx, l.Person)
		who.Role = p.Role
		return errors.Join(err, tx.sealSecret(ctx, l))
	})
	return who, err
}

// proven checks password and second factor; the attempt is counted before.
func (s *Store) proven(ctx context.Context, l login, d signInAttempt, email string, in SignIn) error {
	if err := s.attempt(ctx, d); err != nil {
		return err
	}
	uncounted := func(as error) error { return errors.Join(as, s.uncounted(ctx, d)) }
	same, err := samePassword(ctx, d.known, l.Hash, in.Password)
	if err != nil {
		return uncounted(err)
	}
	if !same {
		return ErrSignIn
	}
	if l.TOTP {
		if in.Code == "" {
			return uncounted(ErrCode)
		}
		secret, err := s.key.Open(l.Secret)
		if err != nil {
			return err
		}
		fresh, err := s.freshCode(ctx, email, secret, in.Code, time.Now())
		if err != nil {
			return err
		}
		if !fresh {
			return ErrCode
		}
	}
	return s.passed(ctx, d)
}

// period of a code, s (RFC 6238).
const period = 30

// stepOf finds the step whose code this is: now, one earlier or one later.
func stepOf(secret, code string, now time.Time) (int64, bool) {
	for _, late := range []int64{0, -1, 1} {
		at := now.Add(time.Duration(late) * period * time.Second)
		ok, err := totp.ValidateCustom(strings.ReplaceAll(code, " ", ""), secret, at, totp.ValidateOpts{
			Period: period, Digits: otp.DigitsSix, Algorithm: otp.AlgorithmSHA1,
		})
		if err == nil && ok {
			return at.Unix() / period, true
		}
	}
	return 0, false
}

// freshCode takes a code once: whoever looks over a shoulder comes too late.
func (s *Store) freshCode(ctx context.Context, email, secret, code string, now time.Time) (bool, error) {
	step, ok := stepOf(secret, code, now)
	if !ok {
		return false, nil
	}
	var fresh bool
	err := s.db.GetContext(ctx, &fresh, `select login_step($1, $2)`, email, step)
	return fresh, found("taking a code", err)
}

// newLogin lets a person sign in by an e-mail that nobody has.
func (t *Tx) newLogin(ctx context.Context, person uuid.UUID, email, password string) error {
	hash, err := HashPassword(password)
	if err != nil {
		return fmt.Errorf("hashing a password: %w", err)
	}
	taken, err := t.EmailTaken(ctx, email)
	if err != nil {
		return err
	}
	if taken {
		return ErrEmailTaken
	}
	_, err = t.tx.ExecContext(ctx, `select login_put($1, $2, $3, $4)`, email, t.who.Practice, person, hash)
	return found("making a login", err)
}

// EmailTaken tells whether someone signs in by an e-mail, here or elsewhere.
func (t *Tx) EmailTaken(ctx context.Context, email string) (taken bool, err error) {
	err = t.tx.GetContext(ctx, &taken, `select login_taken($1)`, email)
	return taken, found("looking up an e-mail", err)
}

// own is the login of who acts.
func (t *Tx) own(ctx context.Context) (email string, l login, err error) {
	var row struct {
		login
		Email string `db:"email"`
	}
	err = t.tx.GetContext(ctx, &row, `select email, person_id, password_hash, totp_secret, totp_on from login_list()
		where person_id = $1`, t.who.Person)
	return row.Email, row.login, found("reading one's own login", err)
}

// OwnLogin is what who acts signs in by; see Store.Guess.
type OwnLogin struct{ email, hash string }

// OwnLogin reads it.
func (t *Tx) OwnLogin(ctx context.Context) (OwnLogin, error) {
	email, l, err := t.own(ctx)
	return OwnLogin{email, l.Hash}, err
}

// SetPassword changes it; there must be a login.
func (t *Tx) SetPassword(ctx context.Context, person uuid.UUID, password string) error {
	hash, err := HashPassword(password)
	if err != nil {
		return fmt.Errorf("hashing a password: %w", err)
	}
	var there bool
	if err := t.tx.GetContext(ctx, &there, `select login_password($1, $2)`, person, hash); err != nil {
		return found("changing a password", err)
	}
	if !there {
		return fmt.Errorf("changing a password: %w", ErrNotFound)
	}
	return nil
}

// NewSecondFactor makes a secret; it is on once a code proved that it arrived.
func (t *Tx) NewSecondFactor(ctx context.Context) (*otp.Key, error) {
	email, l, err := t.own(ctx)
	if err != nil {
		return nil, err
	}
	if l.TOTP {
		return nil, ErrStale
	}
	key, err := totp.Generate(totp.GenerateOpts{Issuer: "Mokren", AccountName: email})
	if err != nil {
		return nil, err
	}
	kept, err := t.key.Seal(key.Secret())
	if err != nil {
		return nil, err
	}
	_, err = t.tx.ExecContext(ctx, `select login_totp($1, $2, false)`, t.who.Person, kept)
	return key, found("keeping a second factor", err)
}

// sealSecret seals what was kept before the server had a key.
func (t *Tx) sealSecret(ctx context.Context, l login) error {
	if t.key == nil || l.Secret == "" || seal.Sealed(l.Secret) {
		return nil
	}
	kept, err := t.key.Seal(l.Secret)
	if err != nil {
		return err
	}
	_, err = t.tx.ExecContext(ctx, `select login_seal($1, $2)`, l.Person, kept)
	return found("sealing a second factor", err)
}

// ConfirmSecondFactor switches it on if the code is right.
func (t *Tx) ConfirmSecondFactor(ctx context.Context, code string, now time.Time) (bool, error) {
	email, l, err := t.own(ctx)
	if err != nil || l.Secret == "" {
		return false, err
	}
	secret, err := t.key.Open(l.Secret)
	if err != nil {
		return false, err
	}
	step, ok := stepOf(secret, code, now)
	if !ok {
		return false, nil
	}
	if _, err = t.tx.ExecContext(ctx, `select login_totp($1, $2, true)`, t.who.Person, l.Secret); err != nil {
		return false, found("switching a second factor on", err)
	}
	// The code is used up: nobody signs in by it again.
	err = t.tx.GetContext(ctx, &ok, `select login_step($1, $2)`, email, step)
	return ok, found("taking a code", err)
}

// DropSecondFactor switches it off.
func (t *Tx) DropSecondFactor(ctx context.Context, person uuid.UUID) error {
	_, err := t.tx.ExecContext(ctx, `select login_totp($1, '', false)`, person)
	return found("switching a second factor off", err)
}

// HasSecondFactor tells whether it is on for who acts.
func (t *Tx) HasSecondFactor(ctx context.Context) (bool, error) {
	_, l, err := t.own(ctx)
	return l.TOTP, err
}
