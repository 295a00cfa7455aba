package visit

import (
	"slices"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/points"
)

// SearchRecord is a muscle that was looked for with what the list had said of it.
type SearchRecord struct {
	Muscle ids.Muscle
	Side   ids.Side
	Region string
	// Confidence is what the list said when the visit was closed; computed later it would be
	// another.
	Confidence float64
	Found      bool     // a trigger point is there; else it was searched in vain
	Findings   []string // kinds of evidence that spoke for it
}

// KeptWord tells of each muscle that the hands have searched what the list said
// of it, and whether a trigger point was found. What could not be reached says
// nothing either way.
func (s State) KeptWord(ctx Context, earlier []FoundPoint, suspects []assess.Suspect) []SearchRecord {
	type spot struct {
		muscle ids.Muscle
		side   ids.Side
	}
	found, seen := map[spot]bool{}, map[spot]bool{}
	for i, w := range s.Work(ctx, earlier, suspects).Points {
		at := spot{s.Points[i].Muscle, s.Points[i].Side}
		seen[at] = true
		found[at] = found[at] || w.Certainty == points.TriggerPoint
	}
	for _, x := range s.Searched {
		if x.Result == "nothing" {
			seen[spot{x.Muscle, x.Side}] = true
		}
	}
	out := []SearchRecord{}
	for _, x := range suspects {
		at := spot{x.Muscle, x.Side}
		if !seen[at] {
			continue
		}
		f := SearchRecord{
			Muscle: x.Muscle, Side: x.Side, Region: x.Region, Confidence: x.Confidence, Found: found[at],
			Findings: []string{},
		}
		for _, w := range x.Why {
			if kind := assess.KindOf(w.Finding); w.Effect > 0 && !slices.Contains(f.Findings, kind) {
				f.Findings = append(f.Findings, kind)
			}
		}
		out = append(out, f)
	}
	return out
}
