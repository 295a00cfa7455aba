// Package wire streams an instrument's samples over a WebSocket, one JSON
// message a sample, and hears what the page sends back. Only this machine's own
// pages may listen.
//
//	wire.Stream(w, r, wire.Options{Every: time.Second / 20}, next, heard)
package wire

import (
	"cmp"
	"context"
	"encoding/json"
	"net/http"
	"time"

	"github.com/coder/websocket"
)

// Options of a stream.
type Options struct {
	// Every is the time from sample to sample.
	Every time.Duration
	// Speed is how much faster than life it runs; 0 means 1.
	Speed float64
}

// Stream sends next(0), next(1), … until the page goes; heard gets each message
// of the page, from another goroutine.
func Stream(w http.ResponseWriter, r *http.Request, o Options, next func(n int) any, heard func([]byte)) {
	c, err := websocket.Accept(w, r, &websocket.AcceptOptions{OriginPatterns: []string{"127.0.0.1:*", "localhost:*"}})
	if err != nil {
		return // it has answered
	}
	defer c.CloseNow() //nolint:errcheck // the end either way
	ctx, cancel := context.WithCancel(r.Context())
	defer cancel()
	go func() {
		defer cancel()
		for {
			_, b, err := c.Read(ctx)
			if err != nil {
				return
			}
			heard(b)
		}
	}()
	tick := time.NewTicker(time.Duration(float64(o.Every) / cmp.Or(o.Speed, 1)))
	defer tick.Stop()
	for n := 0; ; n++ {
		b, err := json.Marshal(next(n))
		if err != nil || c.Write(ctx, websocket.MessageText, b) != nil {
			return
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}
