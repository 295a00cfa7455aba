package conform_test

import (
	"context"
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/devices/algometer"
	"mokren/devices/conform"
	"mokren/devices/inclinometer"
	"mokren/devices/pressurepad"
)

func check(t *testing.T, h http.Handler, k conform.Kind) map[string]string {
	t.Helper()
	srv := httptest.NewServer(h)
	defer srv.Close()
	found, err := conform.Check(t.Context(), "ws"+strings.TrimPrefix(srv.URL, "http")+"/", k,
		conform.Options{For: time.Second})
	require.NoError(t, err)
	broken := map[string]string{}
	for _, f := range found {
		if f.Broken != "" {
			broken[f.Rule] = f.Broken
		}
	}
	return broken
}

// The stand-ins keep every rule but those of the clock, which a loaded machine breaks for them; the
// command itself looks at all.
func TestTheStandInsConform(t *testing.T) {
	for kind, h := range map[conform.Kind]http.Handler{
		conform.Inclinometer: inclinometer.Handler(inclinometer.Options{}),
		conform.Algometer:    algometer.Handler(algometer.Options{}),
		conform.PressurePad:  pressurepad.Handler(pressurepad.Options{}),
	} {
		for rule, broken := range check(t, h, kind) {
			if !strings.HasPrefix(rule, "about 20 samples") && !strings.HasPrefix(rule, "no pause") {
				t.Errorf("%s, %s: %s", kind, rule, broken)
			}
		}
	}
}

// faulty is an instrument that breaks what it is told to.
type faulty struct {
	everyone, anyMode bool
	every             time.Duration
	sample            func(n int) any
	binary            bool
}

func (f faulty) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	if mode := r.URL.Query().Get("mode"); !f.anyMode && mode == "dance" {
		http.Error(w, "mode", http.StatusUnprocessableEntity)
		return
	}
	c, err := websocket.Accept(w, r, &websocket.AcceptOptions{
		OriginPatterns: []string{"127.0.0.1:*"}, InsecureSkipVerify: f.everyone,
	})
	if err != nil {
		return
	}
	defer c.CloseNow()
	ctx, gone := context.WithCancel(r.Context())
	defer gone()
	go func() {
		defer gone()
		for err := error(nil); err == nil; {
			_, _, err = c.Read(ctx)
		}
	}()
	kind := websocket.MessageText
	if f.binary {
		kind = websocket.MessageBinary
	}
	for n := 0; ctx.Err() == nil; n++ {
		raw, err := json.Marshal(f.sample(n))
		if err != nil || c.Write(ctx, kind, raw) != nil {
			return
		}
		time.Sleep(f.every)
	}
}

// Each broken rule is named, with how.
func TestBrokenRulesAreNamed(t *testing.T) {
	good := func(n int) any { return map[string]any{"t_ms": n * 50, "deg": 1.5} }
	const twenty = 50 * time.Millisecond
	for _, x := range []struct {
		name string
		h    faulty
		rule string
		says string
	}{
		{"lets all in", faulty{everyone: true, every: twenty, sample: good}, "a page from elsewhere", "let in"},
		{"takes any mode", faulty{anyMode: true, every: twenty, sample: good}, "another mode", "let in"},
		{"slow", faulty{every: 200 * time.Millisecond, sample: good}, "about 20 samples", "by the clock"},
		{"pauses", faulty{every: 700 * time.Millisecond, sample: good}, "no pause", "ms before sample"},
		{"binary", faulty{every: twenty, sample: good, binary: true}, "each message is a text", "binary"},
		{"stands still", faulty{every: twenty, sample: func(int) any {
			return map[string]any{"t_ms": 5, "deg": 1}
		}}, "times rise", "after"},
		{"words", faulty{every: twenty, sample: func(n int) any {
			return map[string]any{"t_ms": n * 50, "deg": "flat"}
		}}, "each message is a text", "/deg"},
	} {
		var found string
		for rule, broken := range check(t, x.h, conform.Inclinometer) {
			if strings.HasPrefix(rule, x.rule) {
				found = broken
			}
		}
		assert.Contains(t, found, x.says, x.name)
	}
	_, err := conform.Check(t.Context(), "http://127.0.0.1/", conform.Algometer, conform.Options{})
	assert.ErrorContains(t, err, "WebSocket")
}
