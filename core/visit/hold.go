package visit

import (
	"cmp"
	"fmt"
	"slices"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/record"
	"mokren/core/safety"
	"mokren/core/treat"
)

// placed is all that says where a point lies, but for the visit's own figure.
type placed struct {
	muscle   ids.Muscle
	side     ids.Side
	figure   string
	view     body.View
	at       body.Point
	place    atlas.FibrePlace
	heightCM float64
}

// spot is where a point lies on today's figure. What lies beneath it is looked for once in a visit: each
// hold and each state asks again. The answer is shared.
func (j *Validator) spot(c PointCharted) Spot {
	key := placed{c.Muscle, c.Side, c.Figure, c.View, body.Point{X: c.X, Y: c.Y}, c.Place, j.ctx.height()}
	s, known := j.spots[key]
	if !known {
		s = c.spot(j.ctx.height(), j.rules.Figure)
		j.spots[key] = s
	}
	return s
}

// spot looks for it. Of a muscle that this program does not know nothing is known to lie beneath.
func (c PointCharted) spot(heightCM float64, figure string) Spot {
	c.carry(heightCM, figure)
	s := Spot{Muscle: c.Muscle, Side: c.Side, Place: c.Place, Where: []safety.Place{}}
	if m, err := atlas.Get(c.Muscle); err == nil {
		s.Where = m.PressedThrough(c.Place, c.Side, c.View, body.Point{X: c.X, Y: c.Y})
	}
	return s
}

// carry puts a place of an older figure on today's: the place on the muscle
// rules. The event keeps what was written.
func (c *PointCharted) carry(heightCM float64, figure string) {
	if c.Figure == figure {
		return
	}
	m, err := atlas.Get(c.Muscle)
	if err != nil {
		return
	}
	if place, ok := m.Carry(c.Figure, c.Place, c.Side, heightCM); ok {
		c.Place = place
	}
	v, at := m.OnFigure(c.Place, c.Side, heightCM)
	c.View, c.X, c.Y, c.Figure = v, at.X, at.Y, figure
}

// shut tells why no hold begins in this visit whatever the client's record says, or "".
func (j *Validator) shut() string {
	switch {
	case j.ctx.Cancelled:
		return "The visit is cancelled; a hold belongs to one that takes place."
	case j.ctx.Archived:
		return "The client is archived: bring them back first."
	}
	return ""
}

// contactRefused tells why a contact may not press a place, or "": it is too hard there, or the
// muscle takes its usual contacts only.
func (j *Validator) contactRefused(at Spot, c ids.Contact) string {
	m, err := atlas.Get(at.Muscle)
	if err != nil {
		return err.Error()
	}
	return safety.ContactForbidden(at.Muscle, at.Where, m.Contacts, c)
}

// knownTo is what the client's record says to a hold that e starts.
func (j *Validator) knownTo(e Event) record.Verdict {
	return j.record.At(record.Query{Stamp: j.ctx.stamp(e)}).Judge(j.day())
}

// standing is what the record says now, whoever would begin.
// Of a closed visit it is what was known when it closed.
func (j *Validator) standing() record.Verdict {
	if j.closed != nil {
		return j.record.At(record.Query{Stamp: j.ctx.stamp(*j.closed), Then: true}).Judge(j.day())
	}
	now := Event{Visit: j.visit(), HappenedMS: max(j.ctx.NowMS, j.latestMS)}
	return j.record.At(record.Query{Stamp: j.ctx.stamp(now), Now: true}).Judge(j.day())
}

// visit is the id of the visit whose log this is.
func (j *Validator) visit() string { return cmp.Or(j.of, j.ctx.Visit) }

// withinScreening tells why a hold's start does not respect the screening, or "". It asks, in
// this order: the protocol, what the protocol asks of the joints, the limits, the position,
// and slack or a broad contact. The first refusal is the answer.
func withinScreening(s safety.Screening, b *HoldStarted, at Spot, site safety.Limits) string {
	st := b.Start
	if why := treat.Forbids(st.Protocol, s, treat.OnFrontOfNeck(at.Muscle, at.Where)); why != "" {
		return why
	}
	if why, _ := treat.Moves(st.Protocol, at.Muscle, at.Side, s); why != "" {
		return why
	}
	if !st.Respects(site, s.Limits) {
		return "The limits are above what the screening allows today."
	}
	if avoid := s.Limits.AvoidPositions; len(avoid) > 0 {
		switch {
		case b.Position == "":
			return "Name the client's position: the screening forbids some."
		case slices.Contains(avoid, b.Position):
			return fmt.Sprintf("Not in this position today: %s.", b.Position)
		}
	}
	if s.Limits.SlackOrBroad && b.MuscleSet != "slack" && !safety.Broad(b.Contact) {
		return "Only with the muscle in slack or with a broad contact today."
	}
	return ""
}
