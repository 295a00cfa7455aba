package store

import (
	"context"
	"crypto/sha256"
	"encoding/base64"
	"errors"
	"strings"
	"time"
)

// A name closes for a place after so many wrong passwords, and for all places but the
// devices that it knows after many more, for so long after the last one.
const (
	wrongAtMost    = 10
	wrongAnywhere  = 100
	closedFor      = 15 * time.Minute
	deviceForgets  = 180 * 24 * time.Hour
	attemptForgets = 24 * time.Hour
)

// nameHash counts attempts by name without keeping who was tried: an unknown e-mail may be
// anybody's.
func nameHash(email string) []byte {
	h := sha256.Sum256([]byte(strings.ToLower(strings.TrimSpace(email))))
	return h[:]
}

// signInAttempt is one who knocks: by a name, from a place.
type signInAttempt struct {
	name  []byte
	place string
	known bool
}

// knocking tells whether the device has signed in by this name before.
func (s *Store) knocking(ctx context.Context, in SignIn) (signInAttempt, error) {
	d := signInAttempt{name: nameHash(in.Email), place: "address " + in.From}
	if in.Device == "" {
		return d, nil
	}
	h := codeHash(in.Device)
	err := s.db.GetContext(ctx, &d.known, `select exists (select from known_device where hash = $1 and name = $2
		and seen > now() - $3 * interval '1 second')`, h, d.name, int(deviceForgets.Seconds()))
	if d.known {
		d.place = "device " + base64.RawURLEncoding.EncodeToString(h)
	}
	return d, found("looking a device up", err)
}

// attempt counts one before the password is looked at, so that of many at once no more
// are looked at than of as many one after another. ErrClosed when it is too many.
func (s *Store) attempt(ctx context.Context, d signInAttempt) error {
	var here, anywhere int
	err := s.db.QueryRowContext(ctx, `with old as (
			delete from attempt where at < now() - $4 * interval '1 second'),
		one as (insert into attempt as a (name, place, wrong, at) values ($1, $2, 1, now())
			on conflict (name, place) do update set at = now(),
				wrong = case when a.at < now() - $3 * interval '1 second' then 1 else a.wrong + 1 end
			returning wrong)
		select (select wrong from one), (select coalesce(sum(wrong), 0) from attempt
			where name = $1 and place <> $2 and at > now() - $3 * interval '1 second')`,
		d.name, d.place, int(closedFor.Seconds()), int(attemptForgets.Seconds())).Scan(&here, &anywhere)
	if err != nil {
		return found("counting an attempt", err)
	}
	if here > wrongAtMost || !d.known && here+anywhere > wrongAnywhere {
		return ErrClosed
	}
	return nil
}

// uncounted takes an attempt off again that was no guess.
func (s *Store) uncounted(ctx context.Context, d signInAttempt) error {
	_, err := s.db.ExecContext(ctx, `update attempt set wrong = greatest(wrong - 1, 0) where name = $1 and place = $2`,
		d.name, d.place)
	return found("taking an attempt off", err)
}

// passed forgets what was wrong here.
func (s *Store) passed(ctx context.Context, d signInAttempt) error {
	_, err := s.db.ExecContext(ctx, `delete from attempt where name = $1 and place = $2`, d.name, d.place)
	return found("forgetting attempts", err)
}

// Guess counts a password that is asked for again within a session as one more attempt,
// before it is looked at, and tells whether it is right. ErrClosed when there were too
// many wrong ones. It holds no transaction: it may have to wait.
func (s *Store) Guess(ctx context.Context, l OwnLogin, password string) (bool, error) {
	d := signInAttempt{name: nameHash(l.email), place: "session", known: true}
	if err := s.attempt(ctx, d); err != nil {
		return false, err
	}
	ok, err := samePassword(ctx, true, l.hash, password)
	switch {
	case err != nil:
		return false, errors.Join(err, s.uncounted(ctx, d))
	case !ok:
		return false, nil
	}
	return true, s.passed(ctx, d)
}

// reopen forgets every wrong password of a name: a link to choose a new one always works.
func (t *Tx) reopen(ctx context.Context, email string) error {
	_, err := t.tx.ExecContext(ctx, `delete from attempt where name = $1`, nameHash(email))
	return found("forgetting attempts", err)
}

// KnowDevice remembers a device by a secret that it keeps.
func (s *Store) KnowDevice(ctx context.Context, email, secret string) error {
	_, err := s.db.ExecContext(ctx, `with old as (
			delete from known_device where seen < now() - $3 * interval '1 second')
		insert into known_device (hash, name, seen) values ($1, $2, now())
		on conflict (hash) do update set name = excluded.name, seen = now()`,
		codeHash(secret), nameHash(email), int(deviceForgets.Seconds()))
	return found("remembering a device", err)
}
