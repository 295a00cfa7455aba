package api

import (
	"crypto/sha256"
	"database/sql"
	"errors"
	"log/slog"
	"net/http"
	"sync"
	"time"

	"github.com/alexedwards/scs/v2"

	"mokren/store"
)

// newSessions ends one after two hours without use, and after twelve in any case.
func newSessions(st *store.Store, secure bool) *scs.SessionManager {
	m := scs.New()
	m.Lifetime = 12 * time.Hour
	m.IdleTimeout = 2 * time.Hour
	m.Cookie.Name = "mokren"
	m.Cookie.HttpOnly = true
	m.Cookie.SameSite = http.SameSiteStrictMode
	m.Cookie.Secure = secure
	if st != nil {
		m.Store = sessionStore{st.DB(), &sync.Map{}}
	}
	m.ErrorFunc = func(w http.ResponseWriter, _ *http.Request, err error) {
		slog.Error("session", "error", err)
		writeProblem(w, http.StatusServiceUnavailable,
			"The record is not reachable just now. Nothing is lost; it is tried again.")
	}
	return m
}

// sessionStore keeps sessions in PostgreSQL (scs's three-method interface).
// It has its own table name and no clean-up goroutine: expired rows go when a
// session is written. The table holds a hash of the token: who reads it has no
// way in.
type sessionStore struct {
	db *sql.DB
	// written is what this process has written lately: a session that is not touched costs nothing.
	written *sync.Map // token's hash → writtenSession
}

// writtenSession is a session as it was written, and when.
type writtenSession struct {
	data   string
	expiry time.Time
}

// touchEvery: an untouched session is written so often, so that reading does not write.
const touchEvery = time.Minute

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
	hash := tokenHash(token)
	if w, ok := s.written.Load(string(hash)); ok {
		if w := w.(writtenSession); w.data == string(b) && expiry.Before(w.expiry.Add(touchEvery)) {
			return nil
		}
	}
	_, err := s.db.Exec(`insert into session (token, data, expiry) values ($1, $2, $3)
		on conflict (token) do update set data = excluded.data, expiry = excluded.expiry
		where session.data <> excluded.data or excluded.expiry > session.expiry + interval '1 minute'`, hash, b, expiry)
	if err != nil {
		return err
	}
	s.written.Store(string(hash), writtenSession{string(b), expiry})
	s.written.Range(func(k, w any) bool {
		if w.(writtenSession).expiry.Before(time.Now()) {
			s.written.Delete(k)
		}
		return true
	})
	_, err = s.db.Exec(`delete from session where expiry < now() - interval '1 day'`)
	return err
}

func (s sessionStore) Delete(token string) error {
	hash := tokenHash(token)
	s.written.Delete(string(hash))
	_, err := s.db.Exec(`delete from session where token = $1`, hash)
	return err
}
