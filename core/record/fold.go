package record

import (
	"math"
	"slices"

	"mokren/core/ids"
	"mokren/core/safety"
)

// correctedWithin: whoever gave a mistaken answer may correct it for so long, until a
// hold rests on it.
const correctedWithin = 5 * 60_000

// KnownAnswer is an answer that counts, with where it stands in the record.
type KnownAnswer struct {
	*Stamp
	*Said
	// Cleared: a clearance has lifted it; it is kept to be shown.
	Cleared bool
	// order is its place among all facts, by arrival.
	order int
}

// at is the answer as it stands at a time.
func (s *State) at(k KnownAnswer, ms int64) safety.Answer {
	a := k.Answer
	a.Cleared = k.Cleared
	a.DaysAgo = math.Max(0, float64(ms-k.SaidMS)/dayMS)
	a.EventDaysAgo, a.WeeksPregnant = s.daysSince(k.HappenedOn, ms), s.weeks(k, ms)
	return a
}

// word ranks whose an answer is. A client's own and a student's add caution.
func (k KnownAnswer) word() int {
	switch {
	case k.By == safety.Client:
		return 0
	case !k.Licensed:
		return 1
	}
	return licensed
}

const licensed = 2

// answer lays an answer over those that count.
func (s *State) answer(f *Fact, order int) {
	fresh := KnownAnswer{Stamp: &f.Stamp, Said: f.Answer, order: order}
	s.answers = append(slices.DeleteFunc(s.answers, func(g KnownAnswer) bool { return s.replaces(fresh, g) }), fresh)
}

// replaces reports whether a later answer takes the place of an earlier one.
func (s *State) replaces(a, g KnownAnswer) bool {
	if a.Question != g.Question {
		return false
	}
	if !safety.Milder(a.Answer.Answer, g.Answer.Answer) {
		switch {
		case g.Answer.Answer == no:
			return a.Answer.Answer != no || a.follows(*g.Stamp)
		case a.saysAll(g), a.saysWhere(g), a.Corrects && s.corrects(*a.Stamp, a.By, g):
			return true
		}
		return a.word() == licensed && !s.at(g, a.SaidMS).Lasts()
	}
	switch {
	case !a.follows(*g.Stamp):
		return false
	case a.Corrects && s.corrects(*a.Stamp, a.By, g):
		return true
	case s.at(g, a.SaidMS).Lasts():
		return false
	case g.Answer.Answer == yes:
		return a.word() == licensed
	}
	return a.word() >= g.word()
}

// saysAll reports whether a says what g does, and nothing less: the same answer, of its
// side or of both, with every place that was named.
func (k KnownAnswer) saysAll(g KnownAnswer) bool {
	if k.Answer.Answer != g.Answer.Answer || k.Side != g.Side && k.Side != "" && k.Side != ids.Midline {
		return false
	}
	return k.word() >= g.word() && k.HappenedOn == g.HappenedOn &&
		!slices.ContainsFunc(g.Regions, func(r ids.Region) bool { return !slices.Contains(k.Regions, r) })
}

// saysWhere reports whether a says the same as g, and where, which g did not.
func (k KnownAnswer) saysWhere(g KnownAnswer) bool {
	return k.Answer.Answer == g.Answer.Answer && k.word() >= g.word() && g.Side == "" && len(g.Regions) == 0 &&
		(k.Side != "" || len(k.Regions) > 0)
}

// corrects reports whether whoever gave an answer may still take it back.
func (s *State) corrects(by Stamp, whose string, g KnownAnswer) bool {
	since := by.SaidMS - g.SaidMS
	return by.Author == g.Author && (whose == safety.Client) == (g.By == safety.Client) &&
		since >= 0 && since <= correctedWithin && s.lastHold < g.order
}

// clear lifts what arrived before the clearance, as its basis allows.
func (s *State) clear(c Clearance) {
	for i, g := range s.answers {
		s.answers[i].Cleared = g.Cleared || c.Allows(g.Answer)
	}
}

// consent lays a word over the latest on its area. A withdrawal counts whatever visit it
// hangs on, consent only in its own.
func (s *State) consent(f *Fact) {
	c := AreaConsent{f.Stamp, *f.Consent}
	if c.Given && (f.Visit != s.q.Visit || slices.ContainsFunc(s.consents, func(w AreaConsent) bool {
		return w.Area == c.Area && !w.Given && !c.follows(w.Stamp)
	})) {
		return
	}
	s.consents = append(slices.DeleteFunc(s.consents, func(x AreaConsent) bool { return x.Area == c.Area }), c)
}

// AreaConsent is the latest word on an area.
type AreaConsent struct {
	Stamp
	Consent
}

// apply lets one fact act.
func (s *State) apply(f *Fact, order int) {
	switch {
	case f.Answer != nil:
		if f.Answer.Question != firstVisit || f.Visit == s.q.Visit {
			s.answer(f, order)
		}
	case f.Clearance != nil:
		s.clear(*f.Clearance)
	case f.Consent != nil:
		s.consent(f)
	case f.Override != nil:
		if f.Visit == s.q.Visit {
			s.overrides = append(s.overrides, override{*f.Override, order})
		}
	case f.Placed != "" && f.Visit == s.q.Visit:
		s.overrides = slices.DeleteFunc(s.overrides, func(o override) bool { return o.Point == f.Placed })
	case f.Held:
		s.lastHold = order
	}
}

type override struct {
	Override
	order int
}
