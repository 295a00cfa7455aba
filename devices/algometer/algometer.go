// Package algometer is a stand-in for a pressure algometer that streams: a hand
// presses its tip of 1 cm² on a muscle with evenly rising force, lifts it when it
// hears that the client has stopped it, rests, and presses again.
//
//	h := algometer.Handler(algometer.Options{})
//	http.ListenAndServe("127.0.0.1:7476", h)
//
// A browser opens a WebSocket at "/" and gets one JSON sample a message, 20 a
// second. It may send {"stopped":true} when the client has stopped it; a real
// instrument has no ears, there the hand lifts it.
package algometer

import (
	"bytes"
	"math"
	"math/rand/v2"
	"net/http"
	"sync/atomic"
	"time"

	"mokren/core/device"
	"mokren/devices/wire"
)

// SamplesPerSecond of the stream, and the tip's area.
const (
	SamplesPerSecond = 20
	TipCM2           = 1.0
)

// Options of the stand-in. The zero value rises by 40 kPa a second.
type Options struct {
	// RampKPa is the rise of each press in kPa/s, one after the other, and then
	// again from the first; empty means 40.
	RampKPa []float64
	// Speed is how much faster than life it runs; 0 means 1. Times in the
	// samples stay true to life.
	Speed float64
}

// Seconds of rest before the first press and between presses, of the lift, and
// how far the hand goes when nobody stops it.
const (
	firstS   = 2.0
	betweenS = 11.0
	liftS    = 0.4
	mostKPa  = 700.0
)

// press is the hand: at rest, pressing, or lifting.
type press struct {
	o       Options
	rnd     *rand.Rand
	n       int     // presses begun
	since   float64 // seconds in the present state
	force   float64 // N
	pressed bool
	lifting float64 // N at which the lift began; 0 is not lifting
}

// step moves on by so many seconds and gives the force in N.
func (p *press) step(s float64, stopped bool) float64 {
	p.since += s
	switch {
	case p.lifting > 0:
		p.force = math.Max(0, p.lifting*(1-p.since/liftS))
		if p.force == 0 {
			p.lifting, p.pressed, p.since = 0, false, 0
		}
	case p.pressed:
		p.force = p.ramp()*p.since + 0.15*(2*p.rnd.Float64()-1)
		if stopped || p.force >= mostKPa*TipCM2/10 {
			p.lifting, p.since = p.force, 0
		}
	case p.since >= p.rest():
		p.n, p.pressed, p.since = p.n+1, true, 0
	default:
		p.force = 0
	}
	return math.Max(0, math.Round(p.force*100)/100)
}

// ramp in N/s: 10 kPa are one newton on a square centimetre.
func (p *press) ramp() float64 {
	if len(p.o.RampKPa) == 0 {
		return 4 * TipCM2
	}
	return p.o.RampKPa[(p.n-1)%len(p.o.RampKPa)] / 10 * TipCM2
}

func (p *press) rest() float64 {
	if p.n == 0 {
		return firstS
	}
	return betweenS
}

// Handler streams to whoever connects from this machine's own pages.
func Handler(o Options) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		const every = time.Second / SamplesPerSecond
		var stopped atomic.Bool
		hand := press{o: o, rnd: rand.New(rand.NewPCG(3, 4))} // the same hand every time
		wire.Stream(w, r, wire.Options{Every: every, Speed: o.Speed}, func(n int) any {
			force := hand.step(every.Seconds(), stopped.Swap(false))
			return device.Force{T: math.Round(float64(n)*every.Seconds()*1000) / 1000, N: force}
		}, func(b []byte) {
			if bytes.Contains(b, []byte(`"stopped":true`)) {
				stopped.Store(true)
			}
		})
	})
}
