package visit

import (
	"encoding/json"

	"mokren/core/decode"
	"mokren/core/record"
	"mokren/core/rights"
	"mokren/core/treat"
)

var holdEvent = kind{
	name:   "hold-event",
	body:   func() Body { return new(HoldHappened) },
	by:     rights.Role.Clinical,
	stays:  staysPressed,
	closed: takesOfItsDevice,
	acts:   last,
}

// HoldHappened is one event of a hold's log.
type HoldHappened struct {
	Hold  UUID            `json:"hold"`
	AtMS  int64           `json:"at_ms" minimum:"0" maximum:"86400000" doc:"milliseconds after the hold's start"`
	Event string          `json:"event"`
	Value json.RawMessage `json:"value,omitempty"`
	// Source is the device that wrote it, whatever the body says.
	Source string `json:"source,omitempty"`
}

// instrument is the source of what a pressure pad says, so that an undo takes
// back what a person said.
const instrument = "pressure-pad"

// sourceOf keeps an undo on the device from taking back what the instrument beside it said.
func sourceOf(e Event, b *HoldHappened) string {
	if b.Event == string(treat.KindPressure) {
		return instrument
	}
	return e.Device
}

// admit reads one event of a hold. A log that is longer than the time since
// the hold began is cut to it: nobody has pressed into the future.
func (b *HoldHappened) admit(j *Validator, e *Event) error {
	h, ok := j.holds[b.Hold]
	if !ok {
		return noHold(b.Hold)
	}
	if _, err := treat.ParseEvent(b.AtMS, b.Event, b.Value, h.start.Start.Scale); err != nil {
		if se, ok := err.(*decode.Error); ok {
			return se.Under("$.body")
		}
		return err
	}
	if why := h.tooLate(*e, b); why != "" {
		return because(why)
	}
	if since := e.ReceivedMS - h.event.At(); e.ReceivedMS > 0 && b.AtMS > since+clockTolerance {
		since = max(0, since)
		e.HoldAtMS, e.Clock = &since, ClockLong
	}
	return nil
}

// remember counts a sign where the hand was, whatever the hold is worth. A
// hold's own undo takes back a sign that closed nothing; what has closed stays.
func (b *HoldHappened) remember(j *Validator, e Event) {
	h, ok := j.holds[b.Hold]
	if !ok {
		return
	}
	at := b.AtMS
	if e.HoldAtMS != nil {
		at = *e.HoldAtMS
	}
	if ev, err := treat.ParseEvent(at, b.Event, b.Value, h.start.Start.Scale); err == nil {
		ev.Source = sourceOf(e, b)
		h.log, h.counted = append(h.log, ev), nil
	}
	switch {
	case record.IsSign(b.Event):
		j.signs = append(j.signs, Pressed{
			Spot: h.spot, Sign: b.Event, AtMS: h.event.At() + at, Hold: string(b.Hold), From: j.ctx.stamp(e),
		})
		h.undoing = append(h.undoing, len(j.signs)-1)
	case b.Event == string(treat.KindUndo):
		j.undoSign(h)
	case b.Event != string(treat.KindTick) && b.Event != string(treat.KindPressure):
		h.undoing = append(h.undoing, -1)
	}
}

// protects: a sign does, whenever it comes.
func (b *HoldHappened) protects() bool { return record.IsSign(b.Event) }

func (b *HoldHappened) hold() UUID { return b.Hold }

// apply adds the event to the hold's log at the time that the validator allowed.
func (b *HoldHappened) apply(r *reducer, e Event) error {
	h, err := r.hold(b.Hold)
	if err != nil {
		return err
	}
	at := *b
	at.Source = sourceOf(e, b)
	if e.HoldAtMS != nil {
		at.AtMS = *e.HoldAtMS
	}
	ev, err := treat.ParseEvent(at.AtMS, b.Event, b.Value, h.Start.Scale)
	if err != nil {
		return err
	}
	ev.Source = at.Source
	h.Log = append(h.Log, at)
	h.events = append(h.events, ev)
	if h.ended != nil && e.Version > h.ended.Version && e.Device != h.ended.Device {
		h.late++
	}
	h.note(e)
	return nil
}

// timeline leaves the words of a hold to the hold.
func (b *HoldHappened) timeline() string { return "" }
