package visit

import (
	"slices"

	"mokren/core/record"
)

// undo decides what may be taken back: one's own events of this visit, and
// nothing that a hold rests on. Those are corrected, or withdrawn for the
// future, by an event of their own.
func (j *Validator) undo(e Event, b *EventUndone) error {
	target, ok := j.byID[string(b.Event)]
	if !ok || target.Verdict != Accepted {
		return refuse("$.body.event", string(b.Event), "an event of this visit")
	}
	if target.Author != e.Author {
		return refuse("$.body.event", string(b.Event), "an event of one's own")
	}
	if j.gone(target.ID) {
		return refuse("$.body.event", string(b.Event), "an event that was not taken back already")
	}
	if why := byName[target.Type].stays; why != "" {
		return refuse("$.body.event", string(b.Event), why)
	}
	if why := j.outlives(target, e); why != "" {
		return because(why)
	}
	return words(j.restsOn(target))
}

// outlives tells why an answer is not taken back any more, or "": what only a clearance
// lifts may be corrected for a few minutes.
func (j *Validator) outlives(target, undo Event) string {
	b, err := j.bodyOf(target)
	s, answers := b.(*ScreeningAnswered)
	if err != nil || !answers {
		return ""
	}
	if !j.record.At(record.Query{Stamp: j.ctx.stamp(undo), Now: true}).Correctable(j.ctx.stamp(target), s.By) {
		return "This answer stays until it is cleared: record a clearance instead."
	}
	return ""
}

// restsOn tells which hold an event carries, or "".
func (j *Validator) restsOn(target Event) string {
	b, err := j.bodyOf(target)
	if c, ok := b.(carrying); ok && err == nil {
		return c.carries(j)
	}
	return ""
}

// gone reports whether an event was taken back by an undo that was not.
func (j *Validator) gone(event string) bool {
	return slices.ContainsFunc(j.undos[event], func(undo string) bool { return !j.gone(undo) })
}

// takeBack lets an accepted undo act on what is known.
func (j *Validator) takeBack(e Event, b *EventUndone) {
	target, ok := j.byID[string(b.Event)]
	if !ok {
		return
	}
	j.undos[target.ID] = append(j.undos[target.ID], e.ID)
	if j.placesAPoint(target) {
		j.replayPoints()
		for p := range j.points {
			// Where a point lay may have changed: no override outlives that.
			j.record.Add(record.Fact{Stamp: j.ctx.stamp(e), Placed: string(p)})
		}
	}
}

// placesAPoint reports whether taking an event back, or bringing it back,
// changes the points.
func (j *Validator) placesAPoint(e Event) bool {
	b, err := j.bodyOf(e)
	if err != nil {
		return false
	}
	if u, ok := b.(*EventUndone); ok {
		return j.placesAPoint(j.byID[string(u.Event)])
	}
	_, places := b.(placing)
	return places
}

// replayPoints makes the points anew from the log without what was taken back.
func (j *Validator) replayPoints() {
	var all []Event
	for _, e := range j.byID {
		if e.Verdict == Accepted && !j.gone(e.ID) {
			all = append(all, e)
		}
	}
	j.points = map[UUID]*PointCharted{}
	for _, e := range Arrived(all) {
		b, err := j.bodyOf(e)
		if p, ok := b.(placing); ok && err == nil {
			p.place(j)
		}
	}
}
