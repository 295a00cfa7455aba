package visit

import (
	"cmp"
	"fmt"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/rights"
	"mokren/core/treat"
	"mokren/core/wording"
)

var holdStarted = kind{
	name:        "hold-started",
	body:        func() Body { return new(HoldStarted) },
	by:          rights.Role.Clinical,
	stays:       staysPressed,
	closed:      takesNoHold,
	rejectedToo: true,
}

// HoldStarted carries the resolved limits and the rules version.
type HoldStarted struct {
	Hold UUID `json:"hold"`
	// Point must be charted, and not removed, when the hold begins.
	Point UUID `json:"point"`
	// Start is resolved on the device. The validator compares it with what today's rules give
	// at this place.
	Start treat.Start `json:"start"`
	// Contact with which it is pressed; some are refused over thin tissue.
	Contact ids.Contact `json:"contact,omitempty"`
	// Position of the client, which the screening may forbid.
	Position  ids.Position `json:"position,omitempty"`
	MuscleSet string       `json:"muscle_set,omitempty" enum:"tension,slack"`
	// Under is the licensed person who countersigns; a student names one.
	Under UUID `json:"under,omitempty"`
}

// admit decides whether a hold may begin: the last door for every screen,
// import and outbox.
func (b *HoldStarted) admit(j *Validator, e *Event) error {
	if _, twice := j.holds[b.Hold]; twice {
		return refuse("$.body.hold", string(b.Hold), "an id that no hold of this visit has")
	}
	p, ok := j.points[b.Point]
	if !ok {
		return noPoint(b.Point)
	}
	if b.Start.Muscle != p.Muscle || b.Start.Side != p.Side {
		return because("The hold names another muscle or side than its point.")
	}
	at := j.spot(*p)
	limits, where := j.rules.Site(p.Muscle, at.Where)
	if err := b.Start.Begins(j.rules.Coach, limits, where, at.Where); err != nil {
		return err.(*decode.Error).Under("$.body.start")
	}
	k := j.knownTo(*e)
	return words(cmp.Or(
		j.shut(),
		k.Refusal(at, string(b.Point)).Text,
		withinScreening(k.Screening, b, at, limits),
		k.Screening.Limits.TooHard(at.Where, b.Contact),
		j.contactRefused(at, b.Contact),
		j.supervision(*e, b),
	))
}

// supervision: a student presses under a licensed person, who countersigns.
func (j *Validator) supervision(e Event, b *HoldStarted) string {
	if j.ctx.Roles[e.Author] == rights.Student && !j.ctx.licensed(string(b.Under)) {
		return "A student's hold names the therapist who countersigns it."
	}
	return ""
}

// remember keeps a hold that was rejected too: its log is shown.
func (b *HoldStarted) remember(j *Validator, e Event) {
	if _, twice := j.holds[b.Hold]; twice {
		return
	}
	h := &begun{start: *b, event: e}
	if p, ok := j.points[b.Point]; ok {
		h.spot = j.spot(*p)
	}
	j.holds[b.Hold] = h
}

// facts: that a hold began at this moment is what lets older answers be forgotten safely.
func (b *HoldStarted) facts(at record.Stamp) []record.Fact {
	return []record.Fact{{Stamp: at, Held: true}}
}

// apply shows a hold as it was judged.
func (b *HoldStarted) apply(r *reducer, e Event) error {
	if _, err := r.hold(b.Hold); err == nil {
		r.reject(e, e.Why)
		return nil
	}
	h := Hold{
		ID: b.Hold, Point: b.Point, StartedMS: e.At(), DeviceMS: e.DeviceMS,
		Start: b.Start, Contact: b.Contact, Position: b.Position,
		MuscleSet: b.MuscleSet, Author: e.Author, Under: b.Under, Log: []HoldHappened{}, Remarks: []string{},
		Status: Live, event: e, memo: &memo{},
	}
	if e.Verdict == Rejected {
		h.Status, h.Why = HoldRejected, e.Why
	}
	if began, ok := r.validator.holds[b.Hold]; ok {
		h.Spot = began.spot
	}
	h.off(e)
	r.state.Holds = append(r.state.Holds, h)
	return nil
}

// timeline names protocol and muscle; what came of it is told by its end.
func (b *HoldStarted) timeline() string {
	return fmt.Sprintf("Hold begun: %s, %s", wording.Plain(b.Start.Protocol),
		wording.Muscle(b.Start.Muscle, b.Start.Side, ""))
}
