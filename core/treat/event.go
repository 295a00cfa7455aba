package treat

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"mokren/core/decode"
	"mokren/core/ids"
)

// Kind names what happened.
type Kind string

// The events of a hold. Tick only shows the present state.
const (
	KindStart        Kind = "start"
	KindContact      Kind = "contact"
	KindScore        Kind = "score"
	KindTrend        Kind = "trend"
	KindReferral     Kind = "referral"
	KindTwitch       Kind = "twitch"
	KindGuard        Kind = "guard"
	KindNerveSign    Kind = "nerve-sign"
	KindPulse        Kind = "pulse"
	KindUnwell       Kind = "unwell"
	KindSkinReaction Kind = "skin-reaction"
	KindSoftening    Kind = "softening"
	KindOffSpot      Kind = "off-spot"
	KindOnSpot       Kind = "on-spot"
	KindPressure     Kind = "pressure"
	KindBreath       Kind = "breath"
	KindRep          Kind = "rep"
	KindAngleChange  Kind = "angle-change"
	KindPause        Kind = "pause"
	KindResume       Kind = "resume"
	KindRelease      Kind = "release"
	KindClientStop   Kind = "client-stop"
	KindRange        Kind = "range"
	KindEnd          Kind = "end"
	KindUndo         Kind = "undo"
	KindTick         Kind = "tick"
)

var kinds = []Kind{
	KindStart, KindContact, KindScore, KindTrend, KindReferral, KindTwitch, KindGuard, KindNerveSign,
	KindPulse, KindUnwell, KindSkinReaction, KindSoftening, KindOffSpot, KindOnSpot, KindPressure, KindBreath, KindRep,
	KindAngleChange, KindPause, KindResume, KindRelease, KindClientStop, KindRange,
	KindEnd, KindUndo, KindTick,
}

// Kinds lists what can happen.
func Kinds() []Kind { return slices.Clone(kinds) }

// Event is one thing that happened, At milliseconds after the start.
type Event struct {
	// At is ms after the start of the hold; events of one time keep their order.
	At      int64
	Kind    Kind
	Score   float64 // score: NPRS 0–10, a 0–5 scale already doubled
	Word    string  // trend, breath: the value; nerve-sign, unwell: its kind, may be empty
	Regions []ids.Region
	// KPa is what a pressure pad reads; it is recorded and steers nothing.
	KPa float64
	// Degrees of a range of motion, of whatever movement the protocol lengthens.
	Degrees float64
	// Source is the device that it came from; undo takes back only its own.
	Source string
}

// words that a kind takes as its value; the signs may go without.
var eventWords = map[Kind][]string{
	KindTrend:     {"same", "less", "more"},
	KindBreath:    {"in", "out"},
	KindNerveSign: {"tingling", "burning", "numb", "electric", "shooting"},
	KindUnwell:    {"dizzy", "faint", "nausea", "vision"},
}

// ParseEvent reads one event as it stands in a log: at in ms, the kind, and
// the raw JSON value (nil when absent). Scores are given on scale (10 or 5, in
// half steps) and doubled when it is 5. Errors are *decode.Error below "$".
func ParseEvent(at int64, kind string, value json.RawMessage, scale int) (Event, error) {
	e := Event{At: at, Kind: Kind(kind)}
	if !slices.Contains(kinds, e.Kind) {
		names := make([]string, len(kinds))
		for i, k := range kinds {
			names[i] = string(k)
		}
		q, _ := json.Marshal(kind)
		return e, &decode.Error{Path: "$.event", Given: string(q), Allowed: "one of " + strings.Join(names, ", ")}
	}
	v := eventValue(value)
	switch e.Kind {
	case KindScore:
		score, err := v.number(float64(scale), fmt.Sprintf("a number from 0 to %d in steps of 0.5", scale), 0.5)
		e.Score = score * 10 / float64(scale)
		return e, err
	case KindTrend, KindBreath, KindNerveSign, KindUnwell:
		word, err := v.word(eventWords[e.Kind], e.Kind == KindTrend || e.Kind == KindBreath)
		e.Word = word
		return e, err
	case KindReferral:
		if v == nil {
			return e, nil
		}
		return e, v.decode(&e.Regions)
	case KindPressure:
		kPa, err := v.number(2000, "a number of kPa from 0 to 2000", 0)
		e.KPa = kPa
		return e, err
	}
	if e.Kind == KindRange {
		deg, err := v.degrees()
		e.Degrees = deg
		return e, err
	}
	if v != nil {
		return e, v.refuse("no value with " + kind)
	}
	return e, nil
}

// eventValue is the raw value of an event; nil when it has none.
type eventValue json.RawMessage

// refuse names what was given, also when that was nothing.
func (v eventValue) refuse(allowed string) error {
	given := string(v)
	if v == nil {
		given = "nothing"
	}
	return &decode.Error{Path: "$.value", Given: given, Allowed: allowed}
}

// decode reads the value with the validating decoder and names it by its place in the event.
func (v eventValue) decode(dst any) error {
	err := decode.JSON(v, dst)
	if se, ok := err.(*decode.Error); ok {
		return se.Under("$.value")
	}
	return err
}

// number is one from 0 to most, in steps where step is not 0.
func (v eventValue) number(most float64, allowed string, step float64) (float64, error) {
	if v == nil {
		return 0, v.refuse(allowed)
	}
	var n float64
	if err := v.decode(&n); err != nil {
		return 0, err
	}
	if n < 0 || n > most || step > 0 && n/step != float64(int(n/step)) {
		return 0, v.refuse(allowed)
	}
	return n, nil
}

const mostDegrees = 360

// degrees of a movement; beyond the neutral position they are negative.
func (v eventValue) degrees() (float64, error) {
	const allowed = "a number of degrees from -360 to 360"
	if v == nil {
		return 0, v.refuse(allowed)
	}
	var n float64
	if err := v.decode(&n); err != nil {
		return 0, err
	}
	if n < -mostDegrees || n > mostDegrees {
		return 0, v.refuse(allowed)
	}
	return n, nil
}

// isAnswer: an answer at the very moment of a deadline is in time.
func (k Kind) isAnswer() bool {
	return k == KindScore || k == KindTrend || k == KindSoftening || k == KindOnSpot
}

// word is one of a list; "" where none is given and none is needed.
func (v eventValue) word(list []string, needed bool) (string, error) {
	allowed := "one of " + strings.Join(list, ", ")
	if v == nil {
		if needed {
			return "", v.refuse(allowed)
		}
		return "", nil
	}
	var w string
	if err := v.decode(&w); err != nil {
		return "", err
	}
	if !slices.Contains(list, w) {
		return w, v.refuse(allowed)
	}
	return w, nil
}
