package treat

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"mokren/core/ids"
	"mokren/core/strict"
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
	KindUndo         Kind = "undo"
	KindTick         Kind = "tick"
)

var kinds = []Kind{
	KindStart, KindContact, KindScore, KindTrend, KindReferral, KindTwitch, KindGuard, KindNerveSign,
	KindPulse, KindUnwell, KindSkinReaction, KindSoftening, KindOffSpot, KindOnSpot, KindPressure, KindBreath, KindRep,
	KindAngleChange, KindPause, KindResume, KindRelease, KindClientStop, KindUndo, KindTick,
}

// Kinds lists what can happen.
func Kinds() []Kind { return slices.Clone(kinds) }

// Event is one thing that happened, At milliseconds after the start.
type Event struct {
	At      int64
	Kind    Kind
	Score   float64 // score: NPRS 0–10, a 0–5 scale already doubled
	Word    string  // trend, breath: the value; nerve-sign, unwell: its kind, may be empty
	Regions []ids.Region
	KPa     float64
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
// half steps) and doubled when it is 5. Errors are *strict.Error below "$".
func ParseEvent(at int64, kind string, value json.RawMessage, scale int) (Event, error) {
	e := Event{At: at, Kind: Kind(kind)}
	if !slices.Contains(kinds, e.Kind) {
		names := make([]string, len(kinds))
		for i, k := range kinds {
			names[i] = string(k)
		}
		q, _ := json.Marshal(kind)
		return e, &strict.Error{Path: "$.event", Given: string(q), Allowed: "one of " + strings.Join(names, ", ")}
	}
	missing := func(allowed string) error {
		return &strict.Error{Path: "$.value", Given: "nothing", Allowed: allowed}
	}
	decode := func(dst any) error {
		if err := strict.Decode(value, dst); err != nil {
			if se, ok := err.(*strict.Error); ok {
				return se.Under("$.value")
			}
			return err
		}
		return nil
	}
	switch e.Kind {
	case KindScore:
		top := fmt.Sprintf("a number from 0 to %d in steps of 0.5", scale)
		if value == nil {
			return e, missing(top)
		}
		var v float64
		if err := decode(&v); err != nil {
			return e, err
		}
		if v < 0 || v > float64(scale) || v*2 != float64(int(v*2)) {
			return e, &strict.Error{Path: "$.value", Given: string(value), Allowed: top}
		}
		e.Score = v * 10 / float64(scale)
	case KindTrend, KindBreath, KindNerveSign, KindUnwell:
		list := eventWords[e.Kind]
		if value == nil {
			if e.Kind == KindTrend || e.Kind == KindBreath {
				return e, missing("one of " + strings.Join(list, ", "))
			}
			return e, nil
		}
		if err := decode(&e.Word); err != nil {
			return e, err
		}
		if !slices.Contains(list, e.Word) {
			return e, &strict.Error{
				Path: "$.value", Given: string(value),
				Allowed: "one of " + strings.Join(list, ", "),
			}
		}
	case KindReferral:
		if value != nil {
			if err := decode(&e.Regions); err != nil {
				return e, err
			}
		}
	case KindPressure:
		if value == nil {
			return e, missing("a number of kPa from 0 to 2000")
		}
		if err := decode(&e.KPa); err != nil {
			return e, err
		}
		if e.KPa < 0 || e.KPa > 2000 {
			return e, &strict.Error{Path: "$.value", Given: string(value), Allowed: "a number of kPa from 0 to 2000"}
		}
	default:
		if value != nil {
			return e, &strict.Error{Path: "$.value", Given: string(value), Allowed: "no value with " + kind}
		}
	}
	return e, nil
}
