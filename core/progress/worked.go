package progress

import (
	"cmp"

	"mokren/core/ids"
	"mokren/core/stable"
)

// TreatmentResult is a point of one visit that was pressed by one protocol alone, found
// and rechecked.
type TreatmentResult struct {
	Protocol ids.Protocol
	Before   float64 // NPRS when found
	After    float64 // NPRS at the recheck
	PressedS float64 // seconds of pressure
	N        int     // so many alike; 0 is one
	// Lengthened: lengthening came after the hold, in the same visit.
	Lengthened bool
}

// ProtocolOutcome is what a protocol came to.
type ProtocolOutcome struct {
	Protocol ids.Protocol `json:"protocol"`
	// Clear is how often the number fell clearly.
	Clear Share `json:"clear"`
	// Drop is the mean change of the number, downwards positive.
	Drop float64 `json:"drop"`
	// SecondsPerPoint is pressure for each point that the number fell; absent
	// where it did not fall or where there are too few.
	SecondsPerPoint *float64 `json:"seconds_per_point,omitempty"`
}

// fewTreated is from how many on seconds a point of drop are named.
const fewTreated = 3

// WhatWorked judges protocols by what was found before and after, those with
// most behind them first.
func WhatWorked(list []TreatmentResult) []ProtocolOutcome {
	type sum struct {
		n, clear      int
		drop, seconds float64
	}
	sums := map[ids.Protocol]*sum{}
	for _, t := range list {
		s := sums[t.Protocol]
		if s == nil {
			s = &sum{}
			sums[t.Protocol] = s
		}
		n := max(1, t.N)
		s.n += n
		s.drop += float64(n) * (t.Before - t.After)
		s.seconds += float64(n) * t.PressedS
		if rules["nprs"].judge(t.Before, t.After).Direction == Better {
			s.clear += n
		}
	}
	out := []ProtocolOutcome{}
	for p, s := range sums {
		w := ProtocolOutcome{Protocol: p, Clear: ShareOf(s.clear, s.n), Drop: clean(s.drop / float64(s.n))}
		if s.n >= fewTreated && s.drop > 0 && s.seconds > 0 {
			each := clean(s.seconds / s.drop)
			w.SecondsPerPoint = &each
		}
		out = append(out, w)
	}
	stable.Sort(out, func(a, b ProtocolOutcome) int {
		return cmp.Or(cmp.Compare(b.Clear.Of, a.Clear.Of), cmp.Compare(a.Protocol, b.Protocol))
	})
	return out
}
