package visit

import (
	"mokren/core/record"
	"mokren/core/rights"
)

var eventUndone = kind{
	name:   "event-undone",
	body:   func() Body { return new(EventUndone) },
	by:     rights.Role.Clinical,
	closed: takesEarlierUnlisted,
}

// EventUndone takes an earlier event of the visit back.
type EventUndone struct {
	Event UUID `json:"event"`
}

func (b *EventUndone) admit(j *Validator, e *Event) error { return j.undo(*e, b) }

func (b *EventUndone) remember(j *Validator, e Event) { j.takeBack(e, b) }

// facts: what an answer or a consent had set is no longer set; what was decided by it stays.
func (b *EventUndone) facts(at record.Stamp) []record.Fact {
	return []record.Fact{{Stamp: at, Undo: string(b.Event)}}
}

// apply does nothing: what is undone does not act in the first place.
func (b *EventUndone) apply(*reducer, Event) error { return nil }

// carries: redo is an undo of the undo event, and rests on what that one undid.
func (b *EventUndone) carries(j *Validator) string {
	if first, ok := j.byID[string(b.Event)]; ok {
		return j.restsOn(first)
	}
	return ""
}
