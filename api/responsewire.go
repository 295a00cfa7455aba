package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"net/url"
	"time"

	"github.com/coder/websocket"
	"github.com/coder/websocket/wsjson"
	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"
	"github.com/google/uuid"

	"mokren/core/decode"
	"mokren/core/rights"
	"mokren/core/treat"
	"mokren/store"
)

// The wires: a client's pad says numbers and stop, a visit's screens hear them at
// once. Both may break at any time: the pad keeps what was not confirmed and says
// it again, the screen fetches what it has missed.

// padMessage is one message of a pad; without an id it only says that it is there.
type padMessage struct {
	ID string `json:"id,omitempty"`
	// AgoMS is how long ago it was said, by the pad's own clock.
	AgoMS int64           `json:"ago_ms,omitempty"`
	Kind  string          `json:"kind,omitempty"`
	Value json.RawMessage `json:"value,omitempty"`
}

// padReply confirms a word, or says why it is not kept.
type padReply struct {
	ID      string `json:"id,omitempty"`
	Refused string `json:"refused,omitempty"`
	// Over: the code is not good any more.
	Over bool `json:"over,omitempty"`
}

const (
	padBytes   = 1 << 10
	wordsMost  = 12 * time.Hour // no word is older
	padQuiet   = 15 * time.Second
	screenPing = 20 * time.Second
)

// responseWire listens to a pad.
func (s *server) responseWire(w http.ResponseWriter, r *http.Request) {
	code, from := chi.URLParam(r, "code"), addressOf(r.RemoteAddr)
	var visitID, practice uuid.UUID
	err := s.link(r.Context(), code, forHand, "connect", from, func(tx *store.Tx, l store.Link) error {
		visitID, practice = l.Visit, tx.Who().Practice
		return nil
	})
	if err != nil {
		writeStatus(w, err)
		return
	}
	c, err := s.accept(w, r)
	if err != nil {
		return // it has answered
	}
	defer c.CloseNow() //nolint:errcheck // the end either way
	c.SetReadLimit(padBytes)
	for {
		says, err := hear(r.Context(), c)
		if err != nil {
			return
		}
		s.tell(r.Context(), practice, visitID, Heard{Pad: true}, padAlive)
		if says.ID == "" {
			continue
		}
		answer := s.takeWord(r.Context(), code, from, says)
		if wsjson.Write(r.Context(), c, answer) != nil || answer.Over {
			return
		}
	}
}

// hear waits for the next message, not for ever.
func hear(ctx context.Context, c *websocket.Conn) (says padMessage, err error) {
	ctx, cancel := context.WithTimeout(ctx, padQuiet)
	defer cancel()
	return says, wsjson.Read(ctx, c, &says)
}

// takeWord keeps a word and puts it into its hold, where that is known already.
func (s *server) takeWord(ctx context.Context, code, from string, says padMessage) padReply {
	word, why := s.readWord(code, says)
	if why != "" {
		return padReply{ID: says.ID, Refused: why}
	}
	if !s.roomFor(code) {
		return padReply{} // not confirmed: it is said again
	}
	var heard Heard
	var of, practice uuid.UUID
	var since int64
	err := s.link(ctx, code, forHand, "write", from, func(tx *store.Tx, l store.Link) error {
		word.Device, of = store.PadDevice(l.Visit, code), l.Visit
		if err := tx.PutWord(ctx, l, word); err != nil {
			return err
		}
		v, err := tx.Visit(ctx, l.Visit)
		if err != nil {
			return err
		}
		since, practice = v.Version, tx.Who().Practice
		got, any, err := tx.TakeWords(ctx, l.Visit, v.Version, s.now())
		if any {
			heard.Events = got.New
		}
		return err
	})
	var status huma.StatusError
	switch {
	case errors.As(err, &status) && status.GetStatus() == http.StatusNotFound:
		return padReply{ID: says.ID, Over: true}
	case err != nil:
		slog.Error("keeping a pad's word", "error", err)
		return padReply{} // not confirmed: it is said again
	}
	if len(heard.Events) > 0 {
		s.tell(ctx, practice, of, heard, since)
	}
	return padReply{ID: says.ID}
}

// wordsASecond a pad may say: a client who taps as fast as they can says fewer.
const wordsASecond = 5

// roomFor counts a code's words by the second, for all copies.
func (s *server) roomFor(code string) bool {
	second := s.now().UTC().Truncate(time.Second)
	rate := s.store.Rate("pad")
	rate.Config(wordsASecond, time.Second)
	who := fmt.Sprintf("%x", tokenHash(code))
	if err := rate.Increment(who, second); err != nil {
		slog.Error("counting a pad's words", "error", err)
		return false
	}
	now, _, err := rate.Get(who, second, second.Add(-time.Second))
	return err == nil && now <= wordsASecond
}

// readWord reads a message as an event of a hold.
func (s *server) readWord(code string, says padMessage) (store.Word, string) {
	id, err := uuid.Parse(says.ID)
	if err != nil {
		return store.Word{}, "$.id: a UUID"
	}
	kind := treat.Kind(says.Kind)
	if kind != treat.KindScore && kind != treat.KindClientStop {
		return store.Word{}, "$.kind: score or client-stop"
	}
	ago := time.Duration(says.AgoMS) * time.Millisecond
	if ago < 0 || ago > wordsMost {
		return store.Word{}, "$.ago_ms: 0 to 12 hours"
	}
	if _, err := treat.ParseEvent(0, says.Kind, says.Value, 10); err != nil {
		var bad *decode.Error
		if errors.As(err, &bad) {
			return store.Word{}, bad.Error()
		}
		return store.Word{}, err.Error()
	}
	return store.Word{ID: id, At: s.now().Add(-ago), Kind: kind, Value: says.Value}, ""
}

// visitWire tells a visit's screen what happens.
func (s *server) visitWire(w http.ResponseWriter, r *http.Request) {
	id, err := uuid.Parse(chi.URLParam(r, "id"))
	if err != nil {
		writeStatus(w, huma.Error404NotFound("There is no such visit."))
		return
	}
	// Listening begins before the right to is looked at: who signs out in between is told here.
	heard, leave := s.hub.listen(id)
	defer leave()
	who, err := s.mayListen(r, id)
	if err != nil {
		writeStatus(w, err)
		return
	}
	c, err := s.accept(w, r)
	if err != nil {
		return // it has answered
	}
	defer c.CloseNow() //nolint:errcheck // the end either way
	ctx := c.CloseRead(r.Context())
	ping := time.NewTicker(screenPing)
	defer ping.Stop()
	for {
		var err error
		select {
		case <-ctx.Done():
			return
		case h := <-heard:
			// Who signed out, left or may no more hears nothing more.
			if _, err := s.listener(r); err != nil {
				return
			}
			if h.check {
				continue
			}
			if h.since != nil {
				if h.Events, err = s.newer(ctx, who, id, *h.since); err != nil {
					slog.Warn("reading what another copy has", "error", err)
				}
			}
			err = wsjson.Write(ctx, c, h)
		case <-ping.C:
			if _, err := s.listener(r); err != nil {
				return
			}
			err = c.Ping(ctx)
		}
		if err != nil {
			return
		}
	}
}

// mayListen: who may open a visit may hear of it.
func (s *server) mayListen(r *http.Request, id uuid.UUID) (store.Principal, error) {
	ctx, what := r.Context(), action("listen", "visit", id.String())
	who, err := s.listener(r)
	if who.Role != "" && err != nil {
		return who, errors.Join(err, s.store.Refused(ctx, who, what))
	}
	if err != nil {
		return who, err
	}
	return who, problem(s.store.As(ctx, who, what, func(tx *store.Tx) error {
		_, err := tx.Visit(ctx, id)
		return err
	}))
}

// listener is who holds the session that a wire was opened with, as it stands now.
func (s *server) listener(r *http.Request) (store.Principal, error) {
	var who store.Principal
	cookie, err := r.Cookie(s.sessions.Cookie.Name)
	if err != nil {
		return who, huma.Error401Unauthorized("Please sign in.")
	}
	ctx, err := s.sessions.Load(r.Context(), cookie.Value)
	if err != nil {
		return who, err
	}
	who, ok := s.session(ctx)
	if !ok {
		return who, huma.Error401Unauthorized("Please sign in.")
	}
	if who.Role, err = s.store.Role(ctx, who); err != nil {
		return who, huma.Error401Unauthorized("Please sign in.")
	}
	if !rights.MayCall(who.Role, "open-visit") {
		return who, huma.Error403Forbidden("Your role does not allow this.")
	}
	return who, nil
}

// writeStatus answers an upgrade that is refused. Nobody reads an answer to a caller who has
// left, and there is no status for that.
func writeStatus(w http.ResponseWriter, err error) {
	var status huma.StatusError
	if errors.As(problem(err), &status) {
		http.Error(w, status.Error(), status.GetStatus())
	}
}

// accept opens a wire to a page of this very origin: the scheme counts too, which the
// library does not look at.
func (s *server) accept(w http.ResponseWriter, r *http.Request) (*websocket.Conn, error) {
	if origin, err := url.Parse(r.Header.Get("Origin")); err == nil && origin.Scheme != "" {
		scheme := "http"
		if s.sessions.Cookie.Secure || r.TLS != nil {
			scheme = "https"
		}
		if origin.Scheme != scheme {
			writeProblem(w, http.StatusForbidden, "A wire is opened by a page of this server alone.")
			return nil, errOrigin
		}
	}
	return websocket.Accept(w, r, nil)
}

var errOrigin = errors.New("a page of another origin")
