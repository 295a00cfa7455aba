// Package conform holds an instrument against the rules of docs/instruments.md, as a browser would
// meet it, and names each rule that it breaks.
//
//	report, err := conform.Check(ctx, "ws://127.0.0.1:7475/", conform.Inclinometer, conform.Options{})
//	for _, f := range report { if f.Broken != "" { fmt.Println(f.Rule, f.Broken) } }
package conform

import (
	"bytes"
	"context"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"time"

	"github.com/coder/websocket"
	"github.com/santhosh-tekuri/jsonschema/v6"
)

// Kind of an instrument.
type Kind string

// The instruments that stream to the page.
const (
	Inclinometer Kind = "inclinometer"
	Algometer    Kind = "algometer"
	PressurePad  Kind = "pressure-pad"
)

// Kinds lists them.
func Kinds() []Kind { return []Kind{Inclinometer, Algometer, PressurePad} }

// Options of a check.
type Options struct {
	// For how long samples are listened to; 0 means 3 s.
	For time.Duration
}

// Finding is one rule with how the instrument breaks it; "" keeps it.
type Finding struct {
	Rule   string
	Broken string
}

//go:embed schemas/*.json
var schemas embed.FS

// Schema is the published shape of a sample.
func Schema(k Kind) ([]byte, error) { return schemas.ReadFile("schemas/" + string(k) + ".json") }

// The page that a browser shows stands on this machine; another one is elsewhere.
const (
	here      = "http://127.0.0.1:7470"
	elsewhere = "https://elsewhere.example"
)

// Rates of samples, and how long a stream may pause before it begins anew.
const (
	fewest = 15.0
	most   = 30.0
	pause  = 500 * time.Millisecond
)

// Check goes through the rules; an error is an address that cannot be looked at at all.
func Check(ctx context.Context, address string, k Kind, o Options) ([]Finding, error) {
	u, err := url.Parse(address)
	if err != nil || u.Scheme != "ws" && u.Scheme != "wss" || u.Host == "" {
		return nil, fmt.Errorf("the address %q is none of a WebSocket: ws://HOST:PORT/ or wss://HOST:PORT/", address)
	}
	if !slices.Contains(Kinds(), k) {
		return nil, fmt.Errorf("%q is no instrument: one of %v", k, Kinds())
	}
	shape, err := compiled(k)
	if err != nil {
		return nil, err
	}
	c := checker{at: u, kind: k, o: o, shape: shape}
	if c.o.For == 0 {
		c.o.For = 3 * time.Second
	}
	c.origins(ctx)
	if k == Inclinometer {
		c.modes(ctx)
	}
	c.stream(ctx)
	c.again(ctx)
	return c.found, ctx.Err()
}

func compiled(k Kind) (*jsonschema.Schema, error) {
	raw, err := Schema(k)
	if err != nil {
		return nil, err
	}
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(raw))
	if err != nil {
		return nil, err
	}
	s := jsonschema.NewCompiler()
	if err := s.AddResource("sample.json", doc); err != nil {
		return nil, err
	}
	return s.Compile("sample.json")
}

type checker struct {
	at    *url.URL
	kind  Kind
	o     Options
	shape *jsonschema.Schema
	found []Finding
}

func (c *checker) rule(rule, broken string) { c.found = append(c.found, Finding{rule, broken}) }

// dial opens the stream as a page of an origin would.
func (c *checker) dial(ctx context.Context, origin, query string) (*websocket.Conn, int, error) {
	u := *c.at
	if query != "" {
		u.RawQuery = query
	} else if c.kind == Inclinometer {
		u.RawQuery = "mode=range"
	}
	ctx, stop := context.WithTimeout(ctx, 5*time.Second)
	defer stop()
	conn, res, err := websocket.Dial(ctx, u.String(),
		&websocket.DialOptions{HTTPHeader: http.Header{"Origin": {origin}}})
	status := 0
	if res != nil {
		status = res.StatusCode
	}
	return conn, status, err
}

// refused says what became of a page that is to be refused with a status.
func (c *checker) refused(ctx context.Context, origin, query string, want int) string {
	conn, status, err := c.dial(ctx, origin, query)
	if err == nil {
		conn.CloseNow() //nolint:errcheck // it should not have been opened
		return "it is let in"
	}
	if status != want {
		return fmt.Sprintf("it is answered with status %d, not %d", status, want)
	}
	return ""
}

func (c *checker) origins(ctx context.Context) {
	c.rule("a page from elsewhere is answered with 403", c.refused(ctx, elsewhere, "", http.StatusForbidden))
}

func (c *checker) modes(ctx context.Context) {
	for _, mode := range []string{"mode=posture", "mode="} {
		broken := ""
		conn, _, err := c.dial(ctx, here, mode)
		if err == nil {
			conn.Close(websocket.StatusNormalClosure, "") //nolint:errcheck // only whether it opens is asked
		} else {
			broken = err.Error()
		}
		c.rule("?"+mode+" is answered; without a mode it is range", broken)
	}
	c.rule("another mode is answered with 422", c.refused(ctx, here, "mode=dance", http.StatusUnprocessableEntity))
}

// sample is what all instruments have in common: a time that rises.
type sample struct {
	MS *float64 `json:"t_ms"`
	S  *float64 `json:"t"`
}

func (s sample) seconds() float64 {
	switch {
	case s.MS != nil:
		return *s.MS / 1000
	case s.S != nil:
		return *s.S
	}
	return -1
}

// stream listens for a while, says something that no instrument need understand, and closes.
func (c *checker) stream(ctx context.Context) {
	conn, _, err := c.dial(ctx, here, "")
	if err != nil {
		c.rule("a page of this machine is let in", err.Error())
		return
	}
	defer conn.CloseNow() //nolint:errcheck // the end either way
	c.rule("a page of this machine is let in", "")
	var seen listening
	until := time.Now().Add(c.o.For)
	unknown := conn.Write(ctx, websocket.MessageText, []byte(`{"something":"unknown"}`))
	for time.Now().Before(until) && seen.err == nil {
		seen.next(ctx, conn, c.shape)
	}
	c.rule("each message is a text of one sample, of its published shape", seen.badShape)
	c.rule("times rise from sample to sample", seen.badTime)
	c.rule(fmt.Sprintf("about 20 samples a second (%g to %g), by the clock and by their own times", fewest, most),
		seen.rate(c.o.For))
	c.rule("no pause of half a second", seen.badPause)
	broken := ""
	if err := errors.Join(unknown, seen.err); err != nil {
		broken = err.Error()
	}
	c.rule("what it does not understand is ignored, and the stream goes on", broken)
	if err := conn.Close(websocket.StatusNormalClosure, "the page goes"); err != nil {
		c.rule("a close with 1000 is answered with a close", err.Error())
		return
	}
	c.rule("a close with 1000 is answered with a close", "")
}

// listening is what was heard of a stream.
type listening struct {
	n                           int
	first, last                 float64
	at                          time.Time
	badShape, badTime, badPause string
	err                         error
}

func (l *listening) next(ctx context.Context, conn *websocket.Conn, shape *jsonschema.Schema) {
	ctx, stop := context.WithTimeout(ctx, 4*pause)
	defer stop()
	kind, raw, err := conn.Read(ctx)
	if err != nil {
		l.err = fmt.Errorf("after %d samples: %w", l.n, err)
		return
	}
	if now := time.Now(); l.badPause == "" && l.n > 0 && now.Sub(l.at) > pause {
		l.badPause = fmt.Sprintf("%d ms before sample %d", now.Sub(l.at).Milliseconds(), l.n+1)
	}
	l.at = time.Now()
	l.n++
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(raw))
	if err == nil {
		err = shape.Validate(doc)
	}
	if kind != websocket.MessageText {
		err = errors.New("a binary message")
	}
	if err != nil && l.badShape == "" {
		l.badShape = fmt.Sprintf("sample %d, %.80q: %v", l.n, raw, err)
	}
	var s sample
	if json.Unmarshal(raw, &s) != nil {
		return
	}
	t := s.seconds()
	if l.n == 1 {
		l.first = t
	} else if t <= l.last && l.badTime == "" {
		l.badTime = fmt.Sprintf("sample %d: %g s after %g s", l.n, t, l.last)
	}
	l.last = t
}

// rate says where there are too few or too many samples.
func (l *listening) rate(during time.Duration) string {
	heard := float64(l.n) / during.Seconds()
	if heard < fewest || heard > most {
		return fmt.Sprintf("%.1f a second by the clock", heard)
	}
	if told := float64(l.n-1) / (l.last - l.first); l.n > 1 && (told < fewest || told > most) {
		return fmt.Sprintf("%.1f a second by their own times", told)
	}
	return ""
}

// again opens the stream a second time, as a page that is loaded anew does.
func (c *checker) again(ctx context.Context) {
	broken := ""
	conn, _, err := c.dial(ctx, here, "")
	if err == nil {
		ctx, stop := context.WithTimeout(ctx, 4*pause)
		defer stop()
		if _, _, err = conn.Read(ctx); err == nil {
			err = conn.Close(websocket.StatusNormalClosure, "")
		}
	}
	if err != nil {
		broken = err.Error()
	}
	c.rule("a page that comes back is streamed to again", broken)
}
