package record

import (
	"slices"

	"mokren/core/ids"
)

// Past is what a client's facts come to up to a place, to be gone on with as more arrive. Its zero value
// is of none. It is never changed, so it may be shared: what goes on from it is another.
type Past struct {
	// client is what was known of them; another height or birth date makes the past anew.
	client Client
	// facts counts those it was made of: the place.
	facts int
	// undos are theirs, by the event that they take back.
	undos map[string][]Stamp
	// stands is what counts after them, whoever would ask.
	stands *State
}

// Others leaves of a client's facts, in the order of arrival, what a visit needs of the
// others: what was replaced, taken back or lifted long ago is left out. Nothing that
// begins in the visit at horizonMS or later can tell the difference. Since the past was made
// facts may only have been added, behind the others; the new past is the one to go on with.
func (p Past) Others(c Client, facts []Fact, visit string, horizonMS int64) ([]Fact, Past) {
	cut := old(facts, horizonMS)
	p = p.upTo(c, facts[:cut])
	own := map[ids.Question]bool{}
	for i := range facts[:cut] {
		if f := &facts[i]; f.Visit == visit && f.Answer != nil {
			own[f.Answer.Question] = true
		}
	}
	stands := p.stands.answers // in the order of their facts
	out := []Fact{}
	var since bool // an answer was kept since the last hold
	earliest := int64(-1)
	for i := range facts {
		f := &facts[i]
		keep := i >= cut
		switch {
		case keep:
		case f.Answer != nil:
			for len(stands) > 0 && stands[0].order < i {
				stands = stands[1:]
			}
			keep = len(stands) > 0 && stands[0].order == i || len(own) > 0 && own[f.Answer.Question]
			since = since || keep
		case f.Clearance != nil, f.Undo != "":
			keep = true
		case f.Consent != nil:
			keep = slices.ContainsFunc(p.stands.consents, func(a AreaConsent) bool { return a.Stamp == f.Stamp })
		case f.Held:
			keep, since = since, false
		case f.Opened && (earliest < 0 || f.SaidMS < earliest):
			keep, earliest = true, f.SaidMS
		}
		if keep && f.Visit != visit {
			out = append(out, *f)
		}
	}
	return out, p
}

// upTo is the past of facts that begin with those it was made of.
func (p Past) upTo(c Client, facts []Fact) Past {
	if p.stands == nil || p.facts > len(facts) || !p.client.same(c) || reachesBack(facts[p.facts:]) {
		r := New(c, facts)
		return Past{c, len(facts), r.undos, r.At(Query{Now: true})}
	}
	if p.facts == len(facts) {
		return p
	}
	r := New(c, facts[p.facts:])
	for event, by := range p.undos {
		r.undos[event] = append(slices.Clone(by), r.undos[event]...)
	}
	s := *p.stands
	s.answers, s.consents = slices.Clone(s.answers), slices.Clone(s.consents)
	r.layOver(&s, p.facts)
	return Past{c, len(facts), r.undos, &s}
}

// reachesBack reports whether facts take back what came before them. Then what had been replaced may count
// again, and is not in the past any more.
func reachesBack(facts []Fact) bool {
	return slices.ContainsFunc(facts, func(u Fact) bool {
		return u.Undo != "" && !slices.ContainsFunc(facts, func(f Fact) bool { return f.Event == u.Undo })
	})
}

// old counts the facts that arrived before a moment, and that nothing has taken back
// since.
func old(facts []Fact, horizonMS int64) int {
	cut := before(facts, horizonMS)
	if !slices.ContainsFunc(facts[cut:], func(f Fact) bool { return f.Undo != "" }) {
		return cut
	}
	at := map[string]int64{}
	for _, f := range facts {
		at[f.Event] = f.arrival()
	}
	for i := len(facts) - 1; i >= 0; i-- {
		if f := facts[i]; f.Undo != "" && f.arrival() >= horizonMS {
			if t, ok := at[f.Undo]; ok {
				horizonMS = min(horizonMS, t)
			}
		}
	}
	return before(facts, horizonMS)
}

// before counts the facts that arrived before a moment.
func before(facts []Fact, ms int64) int {
	for i := range facts {
		if facts[i].arrival() >= ms {
			return i
		}
	}
	return len(facts)
}
