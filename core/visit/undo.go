package visit

import (
	"slices"
	"strings"

	"mokren/core/record"
)

// undo decides what may be taken back: one's own events of this visit, and
// nothing that a hold rests on. Those are corrected, or withdrawn for the
// future, by an event of their own.
func (j *Judge) undo(e Event, b *Undone) error {
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
	if why := stays(target.Type); why != "" {
		return refuse("$.body.event", string(b.Event), why)
	}
	if why := j.outlives(target, e); why != "" {
		return because(why)
	}
	return words(j.restsOn(target))
}

// stays tells what may be undone instead of an event of a type that never may; "" for one
// that may.
func stays(eventType string) string {
	switch eventType {
	case "hold-started", "hold-event", "hold-ended", "hold-countersigned":
		return "an event outside a hold's log; what was pressed stays"
	case "visit-opened", "visit-closed", "note-signed", "note-countersigned", "addendum-written", "incident-recorded":
		return "an event that can be taken back; this one stays"
	}
	return ""
}

// outlives tells why an answer is not taken back any more, or "": what only a clearance
// lifts may be corrected for a few minutes.
func (j *Judge) outlives(target, undo Event) string {
	b, err := j.bodyOf(target)
	s, answers := b.(*Screened)
	if err != nil || !answers {
		return ""
	}
	if !j.record.At(record.Query{Stamp: j.ctx.stamp(undo), Now: true}).Correctable(j.ctx.stamp(target), s.By) {
		return "This answer stays until it is cleared: record a clearance instead."
	}
	return ""
}

// restsOn tells which hold an event carries, or "".
func (j *Judge) restsOn(target Event) string {
	switch target.Type {
	case "screening-answered", "screening-cleared", "consent-recorded", "block-overridden":
		if len(j.holds) > 0 {
			return "A hold rests on it: answer again, or withdraw for what is to come."
		}
	case "event-undone":
		// To bring something back is to take its undo back.
		b, err := target.Decode()
		if err != nil {
			return ""
		}
		if first, ok := j.byID[string(b.(*Undone).Event)]; ok {
			return j.restsOn(first)
		}
	case "point-charted", "point-corrected", "point-moved", "point-removed":
		b, err := target.Decode()
		if err != nil {
			return ""
		}
		if j.pressed(pointOf(b)) {
			return "A hold rests on this point: correct it instead."
		}
	}
	return ""
}

func pointOf(b any) UUID {
	switch b := b.(type) {
	case *Charted:
		return b.Point
	case *Moved:
		return b.Point
	case *Removed:
		return b.Point
	}
	return ""
}

// gone reports whether an event was taken back by an undo that was not.
func (j *Judge) gone(event string) bool {
	return slices.ContainsFunc(j.undos[event], func(undo string) bool { return !j.gone(undo) })
}

// takeBack lets an accepted undo act on what is known.
func (j *Judge) takeBack(e Event, b *Undone) {
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
func (j *Judge) placesAPoint(e Event) bool {
	if u, ok := j.byID[e.ID]; ok && u.Type == "event-undone" {
		b, err := u.Decode()
		return err == nil && j.placesAPoint(j.byID[string(b.(*Undone).Event)])
	}
	return strings.HasPrefix(e.Type, "point-")
}

// replayPoints makes the points anew from the log without what was taken back.
func (j *Judge) replayPoints() {
	var all []Event
	for _, e := range j.byID {
		if e.Verdict == Accepted && !j.gone(e.ID) {
			all = append(all, e)
		}
	}
	j.points = map[UUID]*Charted{}
	for _, e := range Arrived(all) {
		switch e.Type {
		case "point-charted", "point-corrected", "point-moved", "point-removed":
			if b, err := e.Decode(); err == nil {
				j.place(b)
			}
		}
	}
}
