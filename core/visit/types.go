package visit

import (
	"fmt"
	"maps"
	"slices"

	"mokren/core/strict"
)

// bodies makes an empty body of each event type.
var bodies = map[string]func() any{
	"visit-opened":       emptyBody[Opened],
	"visit-closed":       emptyBody[Closed],
	"note-written":       emptyBody[Noted],
	"note-drafted":       emptyBody[NoteDrafted],
	"note-signed":        emptyBody[NoteSigned],
	"note-countersigned": emptyBody[NoteCountersigned],
	"addendum-written":   emptyBody[Addendum],
	"incident-recorded":  emptyBody[Incident],
	"event-undone":       emptyBody[Undone],
	"screening-answered": emptyBody[Screened],
	"screening-cleared":  emptyBody[ScreeningCleared],
	"block-overridden":   emptyBody[BlockOverridden],
	"consent-recorded":   emptyBody[Consented],
	"interview-noted":    emptyBody[Interviewed],
	"drawing-painted":    emptyBody[Painted],
	"loads-declared":     emptyBody[LoadsDeclared],
	"range-measured":     emptyBody[Measured],
	"gauge-read":         emptyBody[GaugeRead],
	"posture-read":       emptyBody[PostureRead],
	"sign-seen":          emptyBody[SignSeen],
	"test-done":          emptyBody[Tested],
	"point-charted":      emptyBody[Charted],
	"point-corrected":    emptyBody[Charted],
	"point-moved":        emptyBody[Moved],
	"point-removed":      emptyBody[Removed],
	"point-rechecked":    emptyBody[Rechecked],
	"point-identified":   emptyBody[Identified],
	"threshold-measured": emptyBody[ThresholdMeasured],
	"judgement-made":     emptyBody[JudgementMade],
	"protocol-chosen":    emptyBody[ProtocolChosen],
	"muscle-searched":    emptyBody[MuscleSearched],
	"plan-made":          emptyBody[PlanMade],
	"reaction-noted":     emptyBody[ReactionNoted],
	"next-noted":         emptyBody[NextNoted],
	"asking-put-off":     emptyBody[AskingPutOff],
	"hold-started":       emptyBody[HoldStarted],
	"hold-event":         emptyBody[HoldHappened],
	"hold-ended":         emptyBody[HoldEnded],
	"hold-countersigned": emptyBody[Countersigned],
}

func emptyBody[T any]() any { return new(T) }

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
		names := slices.Sorted(maps.Keys(bodies))
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

// Kind is a type of event as a page needs to know it.
type Kind struct {
	Type     string `json:"type"`
	Undoable bool   `json:"undoable" doc:"its author may undo it, as long as nothing rests on it"`
}

// Kinds lists the types of events, in order.
func Kinds() []Kind {
	out := []Kind{}
	for _, t := range slices.Sorted(maps.Keys(bodies)) {
		out = append(out, Kind{t, stays(t) == "" && t != "event-undone"})
	}
	return out
}
