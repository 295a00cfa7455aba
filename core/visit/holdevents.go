package visit

import (
	"encoding/json"

	"mokren/core/ids"
	"mokren/core/treat"
)

// HoldStarted carries the resolved limits and the rules version.
type HoldStarted struct {
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

func sourceOf(e Event, b *HoldHappened) string {
	if b.Event == string(treat.KindPressure) {
		return instrument
	}
	return e.Device
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

// Countersigned is a licensed person's word on a student's hold.
type Countersigned struct {
	Hold UUID `json:"hold"`
}
