// Package visit reduces a visit's log of events to its present state. It is
// the only place that knows what an event does; browser and server run it
// alike, so what the therapist sees offline is what the record will hold.
//
//	state := visit.Reduce(context, events) // any order, duplicates allowed
//
// Nothing is overwritten silently: undo is an event, a conflict is shown, and
// an event that cannot stand is kept aside with its reason, never dropped.
package visit

import (
	"encoding/json"
	"fmt"
	"math"
	"slices"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/strict"
	"mokren/core/treat"
)

// SchemaVersion of the envelope and the bodies.
const SchemaVersion = 1

// Event is the envelope of everything that happens in a visit.
type Event struct {
	ID       string `json:"id" doc:"UUIDv7, made on the device"`
	Client   string `json:"client"`
	Visit    string `json:"visit"`
	Author   string `json:"author" doc:"person who did it"`
	Device   string `json:"device"`
	Seq      int64  `json:"seq" minimum:"1" maximum:"9007199254740991" doc:"sequence on that device, rising"`
	DeviceMS int64  `json:"device_ms" minimum:"0" maximum:"253402300799999" doc:"device time, Unix milliseconds"`
	// ReceivedMS and Version are 0 before the event was received.
	ReceivedMS int64           `json:"received_ms,omitempty" minimum:"0" doc:"server time, Unix milliseconds"`
	Seen       int64           `json:"seen" minimum:"0" maximum:"9007199254740991" doc:"the version that the writer had seen"`
	Version    int64           `json:"version,omitempty" minimum:"0" doc:"place in the order of arrival"`
	Schema     int             `json:"schema" minimum:"1" maximum:"1000000"`
	Type       string          `json:"type" maxLength:"60"`
	Body       json.RawMessage `json:"body"`

	// What the server adds when it judges the event, once.
	HappenedMS int64          `json:"happened_ms,omitempty" minimum:"0" doc:"device time corrected on arrival, Unix ms"`
	Clock      string         `json:"clock,omitempty" enum:"ahead,behind,long" doc:"how the device's clock was off"`
	HoldAtMS   *int64         `json:"hold_at_ms,omitempty" doc:"at_ms of a hold's event, where it could not be so late"`
	Verdict    string         `json:"verdict,omitempty" enum:"accepted,aside" doc:"empty before it was received"`
	Why        string         `json:"why,omitempty" doc:"why it was set aside"`
	Result     *treat.Summary `json:"result,omitempty" doc:"what an ended hold came to, as of this event"`
}

// Check implements strict.Checker: the envelope's ids.
func (e Event) Check() *strict.Error {
	for _, f := range []struct{ name, id string }{
		{"id", e.ID}, {"client", e.Client}, {"visit", e.Visit}, {"author", e.Author}, {"device", e.Device},
	} {
		if UUID(f.id).Check() != nil {
			return &strict.Error{Path: "$." + f.name, Given: fmt.Sprintf("%q", f.id), Allowed: "a UUID in lower case"}
		}
	}
	return nil
}

// The bodies of the events, by type.
type (
	// Opened begins the visit.
	Opened struct {
		Reason string `json:"reason,omitempty" maxLength:"500"`
	}
	// Charted is a point as found; Corrected sets the same fields again.
	Charted struct {
		Point    UUID             `json:"point"`
		Identity UUID             `json:"identity,omitempty" doc:"the point of an earlier visit that this is the same spot as"`
		Muscle   ids.Muscle       `json:"muscle"`
		Side     ids.Side         `json:"side"`
		Site     string           `json:"site,omitempty" maxLength:"40"`
		Figure   string           `json:"figure" maxLength:"40" doc:"figure version in which it was placed"`
		View     body.View        `json:"view"`
		X        float64          `json:"x" minimum:"0" maximum:"1000"`
		Y        float64          `json:"y" minimum:"0" maximum:"1000"`
		Place    atlas.FibrePlace `json:"place"`
		Band     string           `json:"taut_band" enum:"yes,no,unsure"`
		Nodule   string           `json:"nodule,omitempty" enum:"none,grain,pea,larger"`
		Grade    int              `json:"grade" minimum:"0" maximum:"4"`
		NPRS     *float64         `json:"nprs,omitempty" minimum:"0" maximum:"10" multipleOf:"0.5"`
		Referral []ids.Region     `json:"referral,omitempty" maxItems:"40"`
		Familiar string           `json:"familiar" enum:"yes,partly,no,unknown"`
		Twitch   bool             `json:"twitch,omitempty"`
		Note     string           `json:"note,omitempty" maxLength:"2000"`
	}
	// Moved corrects the place of a point.
	Moved struct {
		Point  UUID             `json:"point"`
		Figure string           `json:"figure" maxLength:"40"`
		View   body.View        `json:"view"`
		X      float64          `json:"x" minimum:"0" maximum:"1000"`
		Y      float64          `json:"y" minimum:"0" maximum:"1000"`
		Place  atlas.FibrePlace `json:"place"`
	}
	// Removed takes a point away; undo brings it back.
	Removed struct {
		Point UUID `json:"point"`
	}
	// Rechecked is the number (and grade) at a point after treatment.
	Rechecked struct {
		Point UUID    `json:"point"`
		NPRS  float64 `json:"nprs" minimum:"0" maximum:"10" multipleOf:"0.5"`
		Grade *int    `json:"grade,omitempty" minimum:"0" maximum:"4"`
	}
	// HoldStarted carries the resolved limits and the rules version.
	HoldStarted struct {
		Hold      UUID         `json:"hold"`
		Point     UUID         `json:"point"`
		Start     treat.Start  `json:"start"`
		Contact   ids.Contact  `json:"contact,omitempty"`
		Position  ids.Position `json:"position,omitempty"`
		MuscleSet string       `json:"muscle_set,omitempty" enum:"tension,slack"`
		// Under is the licensed person who countersigns; a student names one.
		Under UUID `json:"under,omitempty"`
	}
	// HoldHappened is one event of a hold's log.
	HoldHappened struct {
		Hold  UUID            `json:"hold"`
		AtMS  int64           `json:"at_ms" minimum:"0" maximum:"86400000" doc:"milliseconds after the hold's start"`
		Event string          `json:"event"`
		Value json.RawMessage `json:"value,omitempty"`
	}
	// HoldEnded claims what the log replays to; what it replays to counts, and a
	// claim that differs is a remark.
	HoldEnded struct {
		Hold       UUID          `json:"hold"`
		Outcome    treat.Outcome `json:"outcome" enum:"released,reduced,unchanged,stopped"`
		PressureMS int64         `json:"pressure_ms" minimum:"0"`
		Stages     int           `json:"stages" minimum:"0"`
	}
	// Measured is one range of motion reading, before or after treatment.
	Measured struct {
		Movement ids.Movement `json:"movement"`
		Side     ids.Side     `json:"side"`
		Moment   string       `json:"moment" enum:"before,after"`
		Active   *float64     `json:"active_deg,omitempty" minimum:"-90" maximum:"360" doc:"left out where trials are given: their mean counts"`
		Passive  *float64     `json:"passive_deg,omitempty" minimum:"-90" maximum:"360"`
		Trials   []float64    `json:"trials,omitempty" maxItems:"3" doc:"active readings, degrees"`
		Felt     string       `json:"felt,omitempty" enum:"pull,pinch,pain"`
		FeltAt   ids.Region   `json:"felt_region,omitempty" doc:"where it is felt or hurts"`
		EndFeel  string       `json:"end_feel,omitempty" enum:"soft,firm,hard,empty,springy"`
		Pain     *float64     `json:"pain_nprs,omitempty" minimum:"0" maximum:"10" multipleOf:"0.5"`
		Tool     string       `json:"tool,omitempty" maxLength:"40"`
	}
	// Countersigned is a licensed person's word on a student's hold.
	Countersigned struct {
		Hold UUID `json:"hold"`
	}
	// Addendum is what is added to a visit after it was closed.
	Addendum struct {
		Text string `json:"text" maxLength:"20000"`
	}
	// Noted is the therapist's free note on the visit.
	Noted struct {
		Text string `json:"text" maxLength:"20000"`
	}
	// Undone takes an earlier event of the visit back.
	Undone struct {
		Event UUID `json:"event"`
	}
	// Closed ends the visit.
	Closed struct{}
)

var bodies = map[string]func() any{
	"visit-opened": func() any { return new(Opened) }, "point-charted": func() any { return new(Charted) },
	"point-corrected": func() any { return new(Charted) }, "point-moved": func() any { return new(Moved) },
	"point-removed": func() any { return new(Removed) }, "point-rechecked": func() any { return new(Rechecked) },
	"hold-started": func() any { return new(HoldStarted) }, "hold-event": func() any { return new(HoldHappened) },
	"hold-ended": func() any { return new(HoldEnded) }, "range-measured": func() any { return new(Measured) },
	"drawing-painted":    func() any { return new(Painted) },
	"screening-answered": func() any { return new(Screened) },
	"screening-cleared":  func() any { return new(ScreeningCleared) },
	"interview-noted":    func() any { return new(Interviewed) },
	"test-done":          func() any { return new(Tested) }, "sign-seen": func() any { return new(SignSeen) },
	"loads-declared": func() any { return new(LoadsDeclared) }, "posture-read": func() any { return new(PostureRead) },
	"block-overridden":   func() any { return new(BlockOverridden) },
	"consent-recorded":   func() any { return new(Consented) },
	"hold-countersigned": func() any { return new(Countersigned) },
	"addendum-written":   func() any { return new(Addendum) },
	"gauge-read":         func() any { return new(GaugeRead) },
	"note-written":       func() any { return new(Noted) }, "event-undone": func() any { return new(Undone) },
	"visit-closed": func() any { return new(Closed) },
}

// Types lists the event types with an empty body of each, for documentation.
func Types() map[string]any {
	out := map[string]any{}
	for k, f := range bodies {
		out[k] = f()
	}
	return out
}

// Decode reads an event's body strictly; errors are *strict.Error.
func (e Event) Decode() (any, error) {
	if e.Schema != SchemaVersion {
		return nil, &strict.Error{Path: "$.schema", Given: fmt.Sprint(e.Schema), Allowed: fmt.Sprint(SchemaVersion)}
	}
	f, ok := bodies[e.Type]
	if !ok {
		var names []string
		for k := range bodies {
			names = append(names, k)
		}
		slices.Sort(names)
		return nil, &strict.Error{Path: "$.type", Given: fmt.Sprintf("%q", e.Type), Allowed: fmt.Sprint(names)}
	}
	b := f()
	if err := strict.Decode(e.Body, b); err != nil {
		if se, ok := err.(*strict.Error); ok {
			return nil, se.Under("$.body")
		}
		return nil, err
	}
	return b, nil
}

// UUID is an id made on a device; Check refuses anything else, so that a bad
// one is kept aside here and never reaches the tables.
type UUID string

// shaped reports whether u is written 8-4-4-4-12 in lower-case hex. By hand:
// a regular expression would put 60 kB on every tablet.
func (u UUID) shaped() bool {
	if len(u) != 36 {
		return false
	}
	for i, c := range []byte(u) {
		dash := i == 8 || i == 13 || i == 18 || i == 23
		if dash != (c == '-') || !dash && !(c >= '0' && c <= '9' || c >= 'a' && c <= 'f') {
			return false
		}
	}
	return true
}

// Check implements strict.Checker.
func (u UUID) Check() *strict.Error {
	if !u.shaped() {
		return &strict.Error{Path: "$", Given: fmt.Sprintf("%q", u), Allowed: "a UUID in lower case"}
	}
	return nil
}

// Check implements strict.Checker: fields that depend on one another.
func (c Charted) Check() *strict.Error {
	if c.Side == ids.Midline {
		return &strict.Error{Path: "$.side", Given: `"midline"`, Allowed: "one of left, right"}
	}
	return nil
}

// Check implements strict.Checker: the reading fits the movement and side.
func (m Measured) Check() *strict.Error {
	if _, ok := progress.Reference(m.Movement, 0); !ok {
		return &strict.Error{
			Path: "$.movement", Given: fmt.Sprintf("%q", m.Movement),
			Allowed: "a movement with a reference range",
		}
	}
	for i, t := range m.Trials {
		if t < -90 || t > 360 {
			return &strict.Error{Path: fmt.Sprintf("$.trials[%d]", i), Given: fmt.Sprint(t), Allowed: "-90 to 360"}
		}
	}
	active := m.active()
	if active == nil && m.Passive == nil && m.Pain == nil && m.Felt == "" && m.EndFeel == "" {
		return &strict.Error{
			Path: "$.active_deg", Given: "nothing",
			Allowed: "a reading, a pain number, what was felt or the end feel",
		}
	}
	if m.Active != nil && math.Abs(*m.Active-*active) > 0.05 {
		return &strict.Error{
			Path: "$.active_deg", Given: fmt.Sprint(*m.Active),
			Allowed: fmt.Sprintf("%.1f, the mean of the trials, or left out", *active),
		}
	}
	return nil
}

// active is the reading that counts: the mean of the trials where there are
// any, to a tenth of a degree, which is finer than any tool reads.
func (m Measured) active() *float64 {
	if len(m.Trials) == 0 {
		return m.Active
	}
	var sum float64
	for _, t := range m.Trials {
		sum += t
	}
	mean := math.Round(10*sum/float64(len(m.Trials))) / 10
	return &mean
}
