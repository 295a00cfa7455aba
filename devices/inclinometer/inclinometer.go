// Package inclinometer is a stand-in for a caliper-inclinometer that streams:
// a hand moves it, holds it still with the tremor of a hand, and takes it back.
//
//	h := inclinometer.Handler(inclinometer.Options{})
//	http.ListenAndServe("127.0.0.1:7475", h)
//
// A browser opens a WebSocket at "/" with ?mode=range or ?mode=posture (as by
// the instrument's own switch) and gets one JSON sample a message, 20 a second.
// It may send {"expect_deg":80,"expect_cm":34}: what is being measured usually
// comes to. A real instrument has no ears; the stand-in moves about that far.
package inclinometer

import (
	"cmp"
	"encoding/json"
	"math"
	"math/rand/v2"
	"net/http"
	"sync/atomic"
	"time"

	"mokren/core/device"
	"mokren/devices/wire"
)

// SamplesPerSecond of the stream.
const SamplesPerSecond = 20

// Options of the stand-in. The zero value moves about as far as is expected, one
// side shorter than the other.
type Options struct {
	// Ranges are the ends of the movements in degrees, one after the other, and
	// then again from the first; empty means about what is expected.
	Ranges []float64
	// Slopes are the postures, as degrees with the distance in cm; empty means
	// about what is expected.
	Slopes []Slope
	// Speed is how much faster than life it runs; 0 means 1. Times in the
	// samples stay true to life.
	Speed float64
}

// UsualReading is what a measure usually comes to.
type UsualReading struct {
	Deg float64 `json:"expect_deg"`
	CM  float64 `json:"expect_cm"`
}

// shares of the usual that one reading after the other comes to: one side a
// little short, the other nearly full.
var shares = []float64{0.78, 0.96, 0.8, 0.94, 0.77, 0.98}

// end is where reading n ends.
func (o Options) end(mode device.Mode, n int, e UsualReading) Slope {
	share := shares[n%len(shares)]
	switch {
	case mode == device.Range && len(o.Ranges) > 0:
		return Slope{Deg: o.Ranges[n%len(o.Ranges)]}
	case mode == device.Posture && len(o.Slopes) > 0:
		return o.Slopes[n%len(o.Slopes)]
	}
	return Slope{share * cmp.Or(e.Deg, 60), share * cmp.Or(e.CM, 30)}
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
func (o Options) At(mode device.Mode, since time.Duration, e UsualReading, rnd *rand.Rand) device.Sample {
	end := o.end(mode, int(since/Cycle), e)
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
	s.Deg += share * end.Deg
	return s
}

func ease(x float64) float64 { return (1 - math.Cos(math.Pi*x)) / 2 }

// Handler streams to whoever connects from this machine's own pages.
func Handler(o Options) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		mode := device.Mode(r.URL.Query().Get("mode"))
		if mode == "" {
			mode = device.Range
		}
		if e := (device.Watch{Mode: mode}).Check(); e != nil {
			http.Error(w, "mode: "+e.Allowed, http.StatusUnprocessableEntity)
			return
		}
		const every = time.Second / SamplesPerSecond
		rnd := rand.New(rand.NewPCG(1, 2)) // the same hand every time
		var expected atomic.Pointer[UsualReading]
		expected.Store(&UsualReading{})
		wire.Stream(w, r, wire.Options{Every: every, Speed: o.Speed}, func(n int) any {
			return o.At(mode, time.Duration(n)*every, *expected.Load(), rnd)
		}, func(b []byte) {
			var e UsualReading
			if json.Unmarshal(b, &e) == nil {
				expected.Store(&e)
			}
		})
	})
}
