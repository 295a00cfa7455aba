package visit

import (
	"fmt"

	"mokren/core/rights"
	"mokren/core/treat"
)

var holdEnded = kind{
	name:   "hold-ended",
	body:   func() Body { return new(HoldEnded) },
	by:     rights.Role.Clinical,
	stays:  staysPressed,
	closed: takesOfItsDevice,
	acts:   last,
}

// HoldEnded claims what the log replays to; what it replays to counts, and a
// claim that differs is a remark.
type HoldEnded struct {
	Hold       UUID          `json:"hold"`
	Outcome    treat.Outcome `json:"outcome" enum:"released,reduced,unchanged,stopped"`
	PressureMS int64         `json:"pressure_ms" minimum:"0"`
	Parts      *int          `json:"parts,omitempty" minimum:"0"`
	// LastSignMS is when the page that showed the hold was last attended, where nobody
	// ended the hold: time stops there.
	LastSignMS *int64 `json:"last_sign_ms,omitempty" minimum:"0" doc:"ms from the start"`
	// Stages is what holds of the first rules claimed instead of parts.
	Stages *int `json:"stages,omitempty" minimum:"0"`
}

// admit needs the hold to have begun in this visit. What it claims is compared later and never
// believed.
func (b *HoldEnded) admit(j *Validator, _ *Event) error {
	if _, ok := j.holds[b.Hold]; !ok {
		return noHold(b.Hold)
	}
	return nil
}

// remember keeps the first end: a second device may end the same hold a moment later.
func (b *HoldEnded) remember(j *Validator, e Event) {
	if h, ok := j.holds[b.Hold]; ok && h.ended == nil {
		h.ended = &e
	}
}

func (b *HoldEnded) hold() UUID { return b.Hold }

// apply keeps the claim; what the log replays to is what counts.
func (b *HoldEnded) apply(r *reducer, e Event) error {
	h, err := r.hold(b.Hold)
	if err != nil {
		return err
	}
	if h.Status == Live {
		h.Status = Kept
	}
	if h.ended == nil {
		h.ended, h.claim, h.EndedMS = &e, b, e.At()
	}
	h.note(e)
	return nil
}

func (b *HoldEnded) timeline() string { return fmt.Sprintf("Hold ended: %s", b.Outcome) }
