// Package clientpad is a stand-in for the client's pad: it connects with a code
// and says numbers as a client would, without being asked. What is not confirmed
// it says again when the wire is back.
//
//	p := clientpad.New("http://127.0.0.1:7470", "BCDFGHJK")
//	go p.Run(ctx)
//	p.Say(6)
//	p.Stop()
package clientpad

import (
	"context"
	"encoding/json"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"github.com/coder/websocket"
	"github.com/coder/websocket/wsjson"
	"github.com/google/uuid"
)

// word is one thing said and not confirmed yet.
type word struct {
	ID    string   `json:"id"`
	AgoMS int64    `json:"ago_ms"`
	Kind  string   `json:"kind"`
	Value *float64 `json:"value,omitempty"`

	at time.Time
}

// heard is the server's answer.
type heard struct {
	ID      string `json:"id"`
	Refused string `json:"refused"`
	Over    bool   `json:"over"`
}

const (
	beat  = time.Second
	again = 500 * time.Millisecond
)

// Pad is one pad. Make it with New.
type Pad struct {
	wire string
	mu   sync.Mutex
	left []word
	kick chan struct{}
}

// New makes a pad for a code of the application at an http address.
func New(address, code string) *Pad {
	wire := "ws" + strings.TrimPrefix(address, "http") + "/api/hand/" + code + "/wire"
	return &Pad{wire: wire, kick: make(chan struct{}, 1)}
}

// Say says a number, 0 to 10.
func (p *Pad) Say(n float64) { p.put(word{Kind: "score", Value: &n}) }

// Stop says stop.
func (p *Pad) Stop() { p.put(word{Kind: "client-stop"}) }

func (p *Pad) put(w word) {
	w.ID, w.at = uuid.Must(uuid.NewV7()).String(), time.Now()
	p.mu.Lock()
	p.left = append(p.left, w)
	p.mu.Unlock()
	select {
	case p.kick <- struct{}{}:
	default:
	}
}

// Left is how much is not confirmed yet.
func (p *Pad) Left() int {
	p.mu.Lock()
	defer p.mu.Unlock()
	return len(p.left)
}

// Run keeps the wire until ctx ends or the code is over.
func (p *Pad) Run(ctx context.Context) {
	for ctx.Err() == nil {
		if over := p.once(ctx); over {
			return
		}
		select {
		case <-ctx.Done():
		case <-time.After(again):
		}
	}
}

// once is one connection, from its beginning to its end.
func (p *Pad) once(ctx context.Context) bool {
	var over atomic.Bool
	ctx, cancel := context.WithCancel(ctx)
	defer cancel()
	c, _, err := websocket.Dial(ctx, p.wire, nil)
	if err != nil {
		return false
	}
	defer c.CloseNow() //nolint:errcheck // the end either way
	go func() {
		defer cancel()
		for {
			var h heard
			if wsjson.Read(ctx, c, &h) != nil {
				return
			}
			if h.Over {
				over.Store(true)
			}
			p.settled(h)
		}
	}()
	tick := time.NewTicker(beat)
	defer tick.Stop()
	for {
		if p.send(ctx, c) != nil {
			return over.Load()
		}
		select {
		case <-ctx.Done():
			return over.Load()
		case <-tick.C:
		case <-p.kick:
		}
	}
}

// send says all that waits, or only that the pad is there.
func (p *Pad) send(ctx context.Context, c *websocket.Conn) error {
	p.mu.Lock()
	waiting := append([]word{}, p.left...)
	p.mu.Unlock()
	if len(waiting) == 0 {
		return c.Write(ctx, websocket.MessageText, json.RawMessage(`{}`))
	}
	for _, w := range waiting {
		w.AgoMS = time.Since(w.at).Milliseconds()
		if err := wsjson.Write(ctx, c, w); err != nil {
			return err
		}
	}
	return nil
}

// settled lets go of what was confirmed or refused.
func (p *Pad) settled(h heard) {
	p.mu.Lock()
	defer p.mu.Unlock()
	for i, w := range p.left {
		if w.ID == h.ID {
			p.left = append(p.left[:i], p.left[i+1:]...)
			return
		}
	}
}
