package record

import (
	"slices"

	"mokren/core/ids"
)

// Others leaves of a client's facts, in the order of arrival, what a visit needs of the
// others: what was replaced, taken back or lifted long ago is left out. Nothing that
// begins in the visit at horizonMS or later can tell the difference.
func Others(c Client, facts []Fact, visit string, horizonMS int64) []Fact {
	cut := old(facts, horizonMS)
	standing := New(c, facts[:cut]).At(Query{Now: true})
	own := map[ids.Question]bool{}
	for _, f := range facts[:cut] {
		if f.Visit == visit && f.Answer != nil {
			own[f.Answer.Question] = true
		}
	}
	stands := map[int]bool{}
	for _, k := range standing.answers {
		stands[k.order] = true
	}
	out := []Fact{}
	var since bool // an answer was kept since the last hold
	earliest := int64(-1)
	for i, f := range facts {
		keep := i >= cut
		switch {
		case keep:
		case f.Answer != nil:
			keep = stands[i] || own[f.Answer.Question]
			since = since || keep
		case f.Clearance != nil, f.Undo != "":
			keep = true
		case f.Consent != nil:
			keep = slices.ContainsFunc(standing.consents, func(a AreaConsent) bool { return a.Stamp == f.Stamp })
		case f.Held:
			keep, since = since, false
		case f.Opened && (earliest < 0 || f.SaidMS < earliest):
			keep, earliest = true, f.SaidMS
		}
		if keep && f.Visit != visit {
			out = append(out, f)
		}
	}
	return out
}

// old counts the facts that arrived before a moment, and that nothing has taken back
// since.
func old(facts []Fact, horizonMS int64) int {
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
	i := slices.IndexFunc(facts, func(f Fact) bool { return f.arrival() >= horizonMS })
	if i < 0 {
		return len(facts)
	}
	return i
}
