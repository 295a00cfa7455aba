// Package pressurepad is a stand-in for a pressure pad under the therapist's
// hand: it streams force and depth of a simulated tissue, pressed by a hand that
// does what the coach says.
//
//	h := pressurepad.Handler(pressurepad.Options{})
//	http.ListenAndServe("127.0.0.1:7477", h)
//
// A browser opens a WebSocket at "/" and gets one JSON sample a message, 20 a
// second. It may send what the coach says, {"phase":"press","advice":["next-rep"]};
// a real pad has no ears, there the hand follows. {"trial":true} lets the hand press
// evenly, as for a pressure threshold, until {"stopped":true}.
package pressurepad

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"net/http"
	"slices"
	"sync"
	"time"

	"mokren/core/device"
	"mokren/devices/wire"
)

// SamplesPerSecond of the stream.
const SamplesPerSecond = 20

// Options of the stand-in. The zero value presses a calf.
type Options struct {
	Tissue device.Tissue
	// Speed is how much faster than life it runs; 0 means 1.
	Speed float64
}

// Said is what the coach says, as the page passes it on.
type Said struct {
	Phase  string   `json:"phase"`
	Advice []string `json:"advice"`
	// Trial begins the presses of a threshold, Stopped ends the one under way.
	Trial   bool `json:"trial,omitempty"`
	Stopped bool `json:"stopped,omitempty"`
}

// hand presses the tissue to an aim, at its own pace.
type hand struct {
	tissue device.Tissue
	rnd    *rand.Rand
	mu     sync.Mutex
	said   Said
	aim    float64 // N that it presses to
	level  float64 // N when it presses at all
	force  float64
	wait   float64 // s until it comes on
	trial  bool    // it presses for a threshold
	lifts  bool    // the client has said stop
}

// How a hand moves: N/s on and off, how much a step is, and how soon it comes on.
const (
	onRate, offRate = 6.0, 14.0
	stepUp          = 1.15
	stepDown        = 0.75
	firstTarget     = 5.0 // NPRS that it begins with
	comesOnAfter    = 1.5
	trembles        = 0.15
)

// A trial's press: an even ramp on the pad's face of 2 cm², 40 kPa a second, with
// a rest between.
const (
	trialRate   = 8.0 // N/s
	trialMost   = 160.0
	trialRestS  = 10.5
	trialFirstS = 1.0
)

var off = []string{"release", "rest", "flush", "done", "stopped", "moved-off", "paused", "ready", "return"}

var comesOn = []string{"ready", "return", "moved-off", "paused"}

// hear lets what the coach says change the aim.
func (h *hand) hear(b []byte) {
	var s Said
	if json.Unmarshal(b, &s) != nil {
		return
	}
	h.mu.Lock()
	defer h.mu.Unlock()
	was := h.said
	h.said = s
	if s.Trial || s.Stopped {
		h.trials(s)
		return
	}
	changed := s.Phase != was.Phase || !slices.Equal(s.Advice, was.Advice)
	if !changed {
		return
	}
	for _, a := range s.Advice {
		switch a {
		case "sink-slightly", "breathe-and-deepen":
			h.level *= stepUp
		case "ease-off", "return-lighter", "more-slack":
			h.level *= stepDown
		}
	}
	h.aim = h.level
	if slices.Contains(off, s.Phase) {
		h.aim = 0
	}
	if slices.Contains(comesOn, s.Phase) {
		h.wait = comesOnAfter
	}
}

func (h *hand) trials(s Said) {
	h.lifts = s.Stopped
	if s.Trial {
		h.trial, h.force, h.wait = true, 0, trialFirstS
	}
}

// press moves a trial on: up evenly, off at the stop, then a rest.
func (h *hand) press(s float64) {
	switch {
	case h.lifts || h.force >= trialMost:
		h.force = 0
		h.lifts, h.wait = false, trialRestS
	case h.wait > 0:
		h.wait -= s
	default:
		h.force += trialRate * s
	}
}

// step moves on by so many seconds; felt is what the client would say.
func (h *hand) step(s float64) (n, mm, felt float64) {
	h.mu.Lock()
	defer h.mu.Unlock()
	if h.trial {
		h.press(s)
	} else {
		h.follow(s)
	}
	h.tissue = h.tissue.After(s, h.force)
	if h.force > 0 {
		n = math.Max(0, h.force+trembles*(2*h.rnd.Float64()-1))
	}
	return n, h.tissue.Depth(h.force), h.tissue.Number(h.force)
}

// follow goes to the aim, as the coach said.
func (h *hand) follow(s float64) {
	if h.wait > 0 {
		if h.wait -= s; h.wait <= 0 && slices.Contains(comesOn, h.said.Phase) {
			h.aim = h.level
		}
	}
	switch {
	case h.force < h.aim:
		h.force = math.Min(h.aim, h.force+onRate*s)
	case h.force > h.aim:
		h.force = math.Max(h.aim, h.force-offRate*s)
	}
}

// Handler streams to whoever connects from this machine's own pages.
func Handler(o Options) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		const every = time.Second / SamplesPerSecond
		tissue := o.Tissue
		if tissue == (device.Tissue{}) {
			tissue = device.Calf()
		}
		h := &hand{tissue: tissue, rnd: rand.New(rand.NewPCG(7, 8))} // the same hand every time
		h.level = tissue.TenderN * firstTarget / tissue.Tender
		round := func(v float64) float64 { return math.Round(v*100) / 100 }
		wire.Stream(w, r, wire.Options{Every: every, Speed: o.Speed}, func(n int) any {
			force, mm, _ := h.step(every.Seconds())
			t := math.Round(float64(n)*every.Seconds()*1000) / 1000
			return device.PadSample{T: t, DepthMM: round(mm), N: round(force)}
		}, h.hear)
	})
}
