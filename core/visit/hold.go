package visit

import (
	"cmp"
	"fmt"
	"slices"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/safety"
	"mokren/core/strict"
	"mokren/core/treat"
)

// spot is where a point lies on today's figure.
func (c Charted) spot(heightCM float64, figure string) Spot {
	c.carry(heightCM, figure)
	s := Spot{c.Muscle, c.Side, c.Place, []safety.Place{}}
	if m, err := atlas.Get(c.Muscle); err == nil {
		s.Where = m.PressedThrough(c.Place, c.Side, c.View, body.Point{X: c.X, Y: c.Y})
	}
	return s
}

// carry puts a place of an older figure on today's: the place on the muscle
// rules. The event keeps what was written.
func (c *Charted) carry(heightCM float64, figure string) {
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

// startHold decides whether a hold may begin: the last door for every screen,
// import and outbox.
func (j *Judge) startHold(e Event, b *HoldStarted) error {
	if _, twice := j.holds[b.Hold]; twice {
		return refuse("$.body.hold", string(b.Hold), "an id that no hold of this visit has")
	}
	p, ok := j.points[b.Point]
	if !ok {
		return noPoint(b.Point)
	}
	if b.Start.Muscle != p.Muscle || b.Start.Side != p.Side {
		return because("The hold names another muscle or side than its point.")
	}
	at := p.spot(j.ctx.height(), j.law.Figure)
	limits, where := j.law.Site(p.Muscle, at.Where)
	if err := b.Start.Begins(j.law.Rules, limits, where, at.Where); err != nil {
		return err.(*strict.Error).Under("$.body.start")
	}
	k := j.knownTo(&e)
	return words(cmp.Or(
		closedBy(j.signs, at, j.ctx.height()),
		k.refusal(b.Point, at),
		k.consentMissing(at).why,
		k.withinScreening(b, at, limits),
		j.contactRefused(at, b.Contact),
		j.supervision(e, b),
	))
}

func (j *Judge) contactRefused(at Spot, c ids.Contact) string {
	m, err := atlas.Get(at.Muscle)
	if err != nil {
		return err.Error()
	}
	return safety.ContactForbidden(at.Muscle, at.Where, m.Contacts, c)
}

// supervision: a student presses under a licensed person, who countersigns.
func (j *Judge) supervision(e Event, b *HoldStarted) string {
	if j.ctx.Roles[e.Author] == rights.Student && !j.ctx.Roles[string(b.Under)].Licensed() {
		return "A student's hold names the therapist who countersigns it."
	}
	return ""
}

// holdEvent reads one event of a hold. A log that is longer than the time since
// the hold began is cut to it: nobody has pressed into the future.
func (j *Judge) holdEvent(e *Event, b *HoldHappened) error {
	h, ok := j.holds[b.Hold]
	if !ok {
		return noHold(b.Hold)
	}
	if _, err := treat.ParseEvent(b.AtMS, b.Event, b.Value, h.start.Start.Scale); err != nil {
		if se, ok := err.(*strict.Error); ok {
			return se.Under("$.body")
		}
		return err
	}
	if since := e.ReceivedMS - h.event.At(); e.ReceivedMS > 0 && b.AtMS > since+clockTolerance {
		since = max(0, since)
		e.HoldAtMS, e.Clock = &since, ClockLong
	}
	return nil
}

// known is what counts for a hold at a moment.
type known struct {
	j       *Judge
	answers []Given
	// clearances lift what earlier visits have said.
	clearances []ScreeningCleared
	overrides  []override
	consents   []Consented
	judged     safety.Screening
}

// knownTo gathers what counts for a hold that e starts; nil is everything.
// What enables (consent, a no, a clearance, an override) counts only if it is
// earlier in the same device's sequence, or arrived before the hold and
// happened before it. What forbids (a withdrawal, a yes) counts if it is
// earlier by either.
func (j *Judge) knownTo(e *Event) known {
	return j.gather(func(g Event) bool { return enables(g, e) }, func(Event) bool { return true })
}

// enables reports whether g is early enough to allow what e begins.
func enables(g Event, e *Event) bool {
	switch {
	case e == nil:
		return true
	case g.Device == e.Device:
		return g.Seq < e.Seq
	case g.Version == 0, e.Version > 0 && g.Version >= e.Version:
		return false
	}
	return g.At() < e.At()
}

func (j *Judge) gather(enabling, forbidding func(Event) bool) known {
	k := known{j: j}
	for _, g := range j.inOrder() {
		en, fo := enabling(g.Event), forbidding(g.Event)
		// An undo counts like the opposite of what it takes back.
		backEn, backFo := false, false
		if by, ok := j.undone[g.ID]; ok {
			u := j.byID[by]
			backEn, backFo = enabling(u), forbidding(u)
		}
		switch b := g.body.(type) {
		case *Screened:
			for _, a := range b.Answers {
				if a.Answer == "no" && en && !backFo || a.Answer != "no" && fo && !backEn {
					k.answers = answered(k.answers, a, j.wordOf(b, g.Event), j.corrects(g.Event))
				}
			}
		case *ScreeningCleared:
			if en && !backFo {
				k.clear(*b, g.Event)
			}
		case *Consented:
			if b.Given && en && !backFo || !b.Given && fo && !backEn {
				k.consents = agreed(k.consents, *b)
			}
		case *BlockOverridden:
			if en && !backFo {
				k.overrides = append(k.overrides, override{b.Point, j.arrived[g.ID]})
			}
		}
	}
	k.judged = safety.Screen(k.merged())
	return k
}

// inOrder gives the grounds in the order of the log.
func (j *Judge) inOrder() []ground {
	bodies := make(map[string]any, len(j.grounds))
	events := make([]Event, len(j.grounds))
	for i, g := range j.grounds {
		bodies[g.ID], events[i] = g.body, g.Event
	}
	out := make([]ground, 0, len(events))
	for _, e := range Order(events) {
		out = append(out, ground{e, bodies[e.ID]})
	}
	return out
}

// askAgain makes every answer old that was given before the client felt unwell:
// it still counts, and is asked again.
func (j *Judge) askAgain(carried, own []safety.Answer, given []Given) {
	for _, s := range j.signs {
		if treat.Kind(s.Sign) != treat.KindUnwell {
			continue
		}
		for i := range carried {
			carried[i].DaysAgo = max(carried[i].DaysAgo, safety.Stale)
		}
		for i, g := range given {
			if !later(g.from, s) {
				own[i].DaysAgo = max(own[i].DaysAgo, safety.Stale)
			}
		}
	}
}

// unwell reports whether the client felt unwell today.
func (j *Judge) unwell() bool {
	return slices.ContainsFunc(j.signs, func(s Pressed) bool { return treat.Kind(s.Sign) == treat.KindUnwell })
}

// later reports whether an answer was given after a sign.
func later(e Event, s Pressed) bool {
	switch {
	case s.from.ID == "":
		return e.At() > s.AtMS
	case e.Device == s.from.Device:
		return e.Seq > s.from.Seq
	}
	return e.At() > s.from.At() && (e.Version == 0 || e.Version > s.from.Version)
}

// screening is what the answers come to; it is judged once.
func (k known) screening() safety.Screening { return k.judged }

// merged are the answers that count: carried, given, and of the record itself.
func (k known) merged() []safety.Answer {
	carried := slices.Clone(k.j.ctx.Carried)
	for i := range carried {
		a := &carried[i]
		a.Cleared = a.Cleared || slices.ContainsFunc(k.clearances, func(c ScreeningCleared) bool {
			return c.Question == a.Question && c.lifts(a.Side)
		})
	}
	own := make([]safety.Answer, 0, len(k.answers))
	for _, a := range k.answers {
		own = append(own, a.answer())
	}
	k.j.askAgain(carried, own, k.answers)
	return append(safety.Merge(carried, own), k.j.ctx.Facts...)
}

// clear lifts what was answered and arrived before the clearance e.
func (k *known) clear(c ScreeningCleared, e Event) {
	k.clearances = append(k.clearances, c)
	for i, g := range k.answers {
		arrivedLater := e.Version > 0 && (g.from.Version == 0 || g.from.Version > e.Version)
		if g.Question == c.Question && c.lifts(g.Side) && !arrivedLater {
			k.answers[i].Cleared = true
		}
	}
}

// refusal tells why the screening lets no hold begin at a point now, or "".
func (k known) refusal(point UUID, at Spot) string {
	s := k.screening()
	grave := s.Grave()
	switch {
	case len(grave) > 0 && k.j.unwell():
		return "The client felt unwell: ask the screening again before anything else is pressed."
	case len(grave) > 0:
		return fmt.Sprintf("The screening is not complete: %d questions that could stop the treatment "+
			"were not asked.", len(grave))
	}
	return k.blocked(point, at, s)
}

// override is a block that was overridden at a point, and when that arrived.
type override struct {
	point   UUID
	arrived int
}

// stands reports whether an override still is what was decided: the point lies where it
// lay then, on the same muscle, and no caution has been added since.
func (k known) stands(o override) bool {
	return k.j.settled[o.point] < o.arrived && !slices.ContainsFunc(k.answers, func(g Given) bool {
		return g.Answer != "no" && k.j.arrived[g.from.ID] > o.arrived
	})
}

// blocked tells what of the answers forbids pressing there, or "".
func (k known) blocked(point UUID, at Spot, s safety.Screening) string {
	why, blocked := s.Blocks(at.Muscle, at.Where)
	if !blocked {
		return ""
	}
	overridden := slices.ContainsFunc(k.overrides, func(o override) bool { return o.point == point && k.stands(o) })
	if overridden && !s.NoTreatment {
		return ""
	}
	return "Blocked by the screening: " + why
}

// withinScreening tells why a hold's start does not respect the screening, or "".
func (k known) withinScreening(b *HoldStarted, at Spot, site safety.Limits) string {
	s, st := k.screening(), b.Start
	if why := s.Forbids(st.Protocol, treat.OnFrontOfNeck(at.Muscle, at.Where)); why != "" {
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

// Missing is a consent that is still missing, and why.
type missingConsent struct {
	area safety.Area
	why  string
}

// consentMissing tells which consent a hold at a place still needs; empty when
// none does.
func (k known) consentMissing(at Spot) missingConsent {
	given := func(a safety.Area) (Consented, bool) {
		i := slices.IndexFunc(k.consents, func(c Consented) bool { return c.Area == a && c.Given })
		if i < 0 {
			return Consented{}, false
		}
		return k.consents[i], true
	}
	whole, ok := given(safety.WholeVisit)
	if !ok {
		return missingConsent{safety.WholeVisit, "No consent to today's treatment is recorded."}
	}
	s := k.screening()
	minor := slices.ContainsFunc(s.Rules, func(a safety.Applied) bool { return a.ID == "minor" })
	const underAge = "The client is under age: a guardian's consent is needed."
	if minor && whole.By != "guardian" {
		return missingConsent{safety.WholeVisit, underAge}
	}
	for _, a := range safety.SensitiveAreas(at.Muscle, at.Where) {
		switch c, ok := given(a); {
		case !ok:
			return missingConsent{a, "The " + string(a) + " needs a consent of its own, and none is recorded."}
		case minor && c.By != "guardian":
			return missingConsent{a, underAge}
		}
	}
	return missingConsent{}
}
