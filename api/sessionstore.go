package api

import (
	"crypto/sha256"
	"database/sql"
	"errors"
	"log/slog"
	"net/http"
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
		m.Store = sessionStore{st.DB()}
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
