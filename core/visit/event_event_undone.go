package visit

import (
	"mokren/core/record"
	"mokren/core/rights"
)

var eventUndone = kind{
	name:   "event-undone",
	body:   func() Body { return new(Undone) },
	by:     rights.Role.Clinical,
	closed: takesEarlierUnlisted,
}

// Undone takes an earlier event of the visit back.
type Undone struct {
	Event UUID `json:"event"`
}

func (b *Undone) admit(j *Validator, e *Event) error { return j.undo(*e, b) }

func (b *Undone) remember(j *Validator, e Event) { j.takeBack(e, b) }

func (b *Undone) facts(at record.Stamp) []record.Fact {
	return []record.Fact{{Stamp: at, Undo: string(b.Event)}}
}

// apply does nothing: what is undone does not act in the first place.
func (b *Undone) apply(*reducer, Event) error { return nil }

// carries: redo is an undo of the undo event, and rests on what that one undid.
func (b *Undone) carries(j *Validator) string {
	if first, ok := j.byID[string(b.Event)]; ok {
		return j.restsOn(first)
	}
	return ""
}
