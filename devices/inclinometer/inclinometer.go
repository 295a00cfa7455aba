// Package inclinometer is a stand-in for a caliper-inclinometer that streams:
// a hand moves it, holds it still with the tremor of a hand, and takes it back.
//
//	h := inclinometer.Handler(inclinometer.Options{})
//	http.ListenAndServe("127.0.0.1:7475", h)
//
// A browser opens a WebSocket at "/" with ?mode=range or ?mode=posture (as by
// the instrument's own switch) and gets one JSON sample a message, 20 a second.
package inclinometer

import (
	"context"
	"encoding/json"
	"math"
	"math/rand/v2"
	"net/http"
	"time"

	"github.com/coder/websocket"

	"mokren/core/device"
)

// SamplesPerSecond of the stream.
const SamplesPerSecond = 20

// Options of the stand-in. The zero value is a restricted neck and a high right
// shoulder.
type Options struct {
	// Ranges are the ends of the movements in degrees, one after the other, and
	// then again from the first.
	Ranges []float64
	// Slopes are the postures, as degrees with the distance in cm.
	Slopes []Slope
	// Speed is how much faster than life it runs; 0 means 1. Times in the
	// samples stay true to life.
	Speed float64
}

// Slope is what is read with both tips on the body.
type Slope struct{ Deg, DistanceCM float64 }

// The seconds of one cycle: at rest, on the way, held, on the way back.
const (
	restS = 1.2
	goS   = 0.9
	holdS = 1.8
	backS = 0.7
)

// Cycle is how long one reading takes.
const Cycle = time.Duration((restS + goS + holdS + backS) * float64(time.Second))

// tremorDeg is the half-width of a steady hand's tremor, below what counts as
// unsteady.
const tremorDeg = 0.2

// At gives the sample at a time since the switch was turned on.
func (o Options) At(mode device.Mode, since time.Duration, rnd *rand.Rand) device.Sample {
	o = o.filled()
	n := int(since / Cycle)
	t := (since % Cycle).Seconds()
	tremor := tremorDeg * (2*rnd.Float64() - 1)
	// share of the way between rest and end, eased as a limb moves.
	var share float64
	switch {
	case t < restS:
	case t < restS+goS:
		share = ease((t - restS) / goS)
	case t < restS+goS+holdS:
		share = 1
	default:
		share = 1 - ease((t-restS-goS-holdS)/backS)
	}
	s := device.Sample{TMS: since.Milliseconds(), Deg: tremor}
	if mode == device.Posture {
		end := o.Slopes[n%len(o.Slopes)]
		// In the hand it swings; on the body it lies still.
		if share < 1 {
			s.Deg += 12 * math.Sin(since.Seconds()*5)
			return s
		}
		s.Deg += end.Deg
		d := end.DistanceCM + 0.05*(2*rnd.Float64()-1)
		s.DistanceCM = &d
		return s
	}
	s.Deg += share * o.Ranges[n%len(o.Ranges)]
	return s
}

func ease(x float64) float64 { return (1 - math.Cos(math.Pi*x)) / 2 }

func (o Options) filled() Options {
	if len(o.Ranges) == 0 {
		o.Ranges = []float64{58, 66, 57, 67, 59, 65}
	}
	if len(o.Slopes) == 0 {
		o.Slopes = []Slope{{3.8, 34.5}, {1.6, 28}, {12.5, 14}, {9, 14}}
	}
	if o.Speed == 0 {
		o.Speed = 1
	}
	return o
}

// Handler streams to whoever connects from this machine's own pages.
func Handler(o Options) http.Handler {
	o = o.filled()
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		mode := device.Mode(r.URL.Query().Get("mode"))
		if mode == "" {
			mode = device.Range
		}
		if e := (device.Watch{Mode: mode}).Check(); e != nil {
			http.Error(w, "mode: "+e.Allowed, http.StatusUnprocessableEntity)
			return
		}
		c, err := websocket.Accept(w, r, &websocket.AcceptOptions{OriginPatterns: []string{"127.0.0.1:*", "localhost:*"}})
		if err != nil {
			return // it has answered
		}
		defer c.CloseNow() //nolint:errcheck // the end either way
		stream(c.CloseRead(r.Context()), c, o, mode)
	})
}

func stream(ctx context.Context, c *websocket.Conn, o Options, mode device.Mode) {
	const every = time.Second / SamplesPerSecond
	rnd := rand.New(rand.NewPCG(1, 2)) // the same hand every time
	tick := time.NewTicker(time.Duration(float64(every) / o.Speed))
	defer tick.Stop()
	for n := 0; ; n++ {
		b, err := json.Marshal(o.At(mode, time.Duration(n)*every, rnd))
		if err != nil {
			return
		}
		if c.Write(ctx, websocket.MessageText, b) != nil {
			return
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}
