package device

import (
	"math"
	"slices"

	"mokren/core/decode"
)

// Mode of the caliper-inclinometer.
type Mode string

// Range reads a movement: from rest to the end of the range and back. Posture
// reads a slope while both tips of the caliper lie on the body.
const (
	Range   Mode = "range"
	Posture Mode = "posture"
)

// Sample is one value of the stream.
type Sample struct {
	TMS int64   `json:"t_ms" minimum:"0" doc:"milliseconds since the instrument was switched on, rising"`
	Deg float64 `json:"deg" minimum:"-360" maximum:"360"`
	// DistanceCM is between the tips, while both touch.
	DistanceCM *float64 `json:"distance_cm,omitempty" minimum:"0" maximum:"300"`
}

// Working defaults. A hand-held instrument trembles by some tenths of a degree;
// a second of rest within half a degree is a reading that can be repeated.
const (
	steadyMS     = 1000
	steadyDeg    = 0.6
	steadyCM     = 0.3
	leastSamples = 8
	// A range reading lies away from the rest, and the next one begins from it.
	awayDeg = 5
	// A stream that paused begins anew.
	gapMS      = 500
	leastGapMS = 10
)

// Watch follows a stream. The zero value with a mode is ready; it is plain data,
// so that it can be handed out and back between two batches of samples.
type Watch struct {
	Mode Mode `json:"mode" enum:"range,posture"`
	// Rest is the angle at which the movement began, once it is known.
	Rest *float64 `json:"rest_deg,omitempty"`
	// Waiting: a reading was taken, and the instrument has not yet gone back.
	Waiting bool     `json:"waiting,omitempty"`
	Recent  []Sample `json:"recent,omitempty" maxItems:"400"`
	// Share of the steady time that has passed at a place that can be taken.
	Share float64 `json:"share"`
}

// SteadyReading is a reading: the medians of the steady stretch, to a tenth.
type SteadyReading struct {
	Deg        float64  `json:"deg"`
	DistanceCM *float64 `json:"distance_cm,omitempty"`
}

// Check implements decode.Checker.
func (w Watch) Check() *decode.Error {
	if w.Mode != Range && w.Mode != Posture {
		return &decode.Error{Path: "$.mode", Given: string(w.Mode), Allowed: "range, posture"}
	}
	return nil
}

// Add takes the next sample in; it gives a reading when one has become steady.
func (w *Watch) Add(s Sample) *SteadyReading {
	if n := len(w.Recent); n > 0 {
		switch gap := s.TMS - w.Recent[n-1].TMS; {
		case gap >= 0 && gap < leastGapMS:
			return nil // sent twice, or finer than is needed
		case gap < 0 || gap > gapMS:
			w.Recent, w.Share = nil, 0
		}
	}
	w.Recent = append(w.Recent, s)
	// The steady stretch ends now and reaches back as far as it stays within
	// the bounds; what is older is of no more use.
	w.Recent = slices.Clone(w.Recent[w.steadyFrom():])
	last := w.Recent[len(w.Recent)-1]
	if !w.ready(last) {
		w.Share = 0
		return nil
	}
	span := last.TMS - w.Recent[0].TMS
	w.Share = min(1, float64(span)/steadyMS)
	if span < steadyMS || len(w.Recent) < leastSamples {
		return nil
	}
	w.Waiting, w.Share = true, 0
	t := SteadyReading{Deg: median(w.Recent, func(s Sample) float64 { return s.Deg })}
	if last.DistanceCM != nil {
		d := median(w.Recent, func(s Sample) float64 { return *s.DistanceCM })
		t.DistanceCM = &d
	}
	return &t
}

// ready reports whether a steady stretch at s would be a reading.
func (w *Watch) ready(s Sample) bool {
	if w.Mode == Posture {
		touching := s.DistanceCM != nil
		if !touching {
			w.Waiting = false
		}
		return touching && !w.Waiting
	}
	if w.Rest == nil {
		// The rest is where it first lies still.
		if len(w.Recent) >= leastSamples && s.TMS-w.Recent[0].TMS >= steadyMS/2 {
			rest := median(w.Recent, func(s Sample) float64 { return s.Deg })
			w.Rest = &rest
		}
		return false
	}
	away := math.Abs(s.Deg-*w.Rest) >= awayDeg
	if !away {
		w.Waiting = false
	}
	return away && !w.Waiting
}

// steadyFrom is the index from which on the stream has been steady till now.
func (w *Watch) steadyFrom() int {
	n := len(w.Recent)
	last := w.Recent[n-1]
	lo, hi := last.Deg, last.Deg
	var near, far float64
	if last.DistanceCM != nil {
		near, far = *last.DistanceCM, *last.DistanceCM
	}
	for i := n - 1; i >= 0; i-- {
		s := w.Recent[i]
		lo, hi = min(lo, s.Deg), max(hi, s.Deg)
		if (s.DistanceCM == nil) != (last.DistanceCM == nil) || hi-lo > steadyDeg {
			return i + 1
		}
		if s.DistanceCM != nil {
			if near, far = min(near, *s.DistanceCM), max(far, *s.DistanceCM); far-near > steadyCM {
				return i + 1
			}
		}
		// Twice the time is more than is ever judged.
		if last.TMS-s.TMS > 2*steadyMS {
			return i
		}
	}
	return 0
}

// median does not mind a single sample that leaps, as a sensor's may.
func median(list []Sample, of func(Sample) float64) float64 {
	v := make([]float64, len(list))
	for i, s := range list {
		v[i] = of(s)
	}
	slices.Sort(v)
	m := v[len(v)/2]
	if len(v)%2 == 0 {
		m = (m + v[len(v)/2-1]) / 2
	}
	return math.Round(10*m) / 10
}
