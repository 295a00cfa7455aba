package visit

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/sequence"
	"mokren/core/wording"
)

// Sequences are offered as they would be run: what the screening, a closed place, the 48 hours or a
// missing consent rules out is left out here already, and admission asks the same rules again.

// SequenceOffer is a sequence as it is laid out for this client now.
type SequenceOffer struct {
	Sequence ids.Sequence `json:"sequence,omitempty" doc:"of a shipped one"`
	Own      string       `json:"own,omitempty" doc:"the id of one of the practice's own"`
	Name     string       `json:"name"`
	Why      string       `json:"why" doc:"what it is for"`
	Block    string       `json:"block" enum:"warm-up,lengthen,close" doc:"the part of a session that it fills"`
	// Suggested: the points of the visit lie where it works.
	Suggested bool `json:"suggested"`
	// Words has the words of each step, in the order of the plan.
	Words []string         `json:"words"`
	Laid  sequence.LaidOut `json:"laid"`
}

// SequenceOffers lays the practice's own sequences, by id, and every shipped one out for this client
// at this moment; the suggested ones come first within their block, own ones before shipped ones.
// side is the first one.
func (s State) SequenceOffers(
	side ids.Side, minutes *float64, own map[string]sequence.OwnSequence,
) []SequenceOffer {
	c := sequence.Client{Screening: s.Screening}
	regions := map[ids.Region]bool{}
	for _, p := range s.Points {
		c.Points = append(c.Points, sequence.Point{
			ID: string(p.Point), Muscle: p.Muscle, Side: p.Side, Treated: p.Treated,
			Closed: cmp.Or(p.Closed, p.Blocked),
		})
		for _, w := range p.Where {
			regions[w.Region] = true
		}
	}
	out := []SequenceOffer{}
	add := func(o SequenceOffer, q sequence.Sequence, at []ids.Region) {
		o.Words = []string{}
		o.Laid = s.asked(sequence.Lay(q.For(side), side, minutes, c))
		o.Suggested = o.Block == "close" && len(s.Points) > 0 ||
			slices.ContainsFunc(at, func(r ids.Region) bool { return regions[r] })
		for _, l := range o.Laid.Steps {
			o.Words = append(o.Words, StepWords(l.Technique, l.Where, l.Side))
		}
		out = append(out, o)
	}
	for _, id := range slices.SortedFunc(maps.Keys(own), func(a, b string) int {
		return cmp.Or(cmp.Compare(own[a].Name, own[b].Name), cmp.Compare(a, b))
	}) {
		k := own[id]
		add(SequenceOffer{Own: id, Name: k.Name, Why: k.Why, Block: k.Block}, k.Sequence, k.Sequence.Regions())
	}
	for _, k := range sequence.Known() {
		add(SequenceOffer{Sequence: k.ID, Name: k.Name, Why: k.Why, Block: k.Block}, k.Sequence, k.Regions)
	}
	// Stable: within a block the order of the vocabulary stays.
	slices.SortStableFunc(out, func(a, b SequenceOffer) int {
		if a.Suggested == b.Suggested {
			return 0
		}
		if a.Suggested {
			return -1
		}
		return 1
	})
	return out
}

// StepWords is a step in a few words: "Kneading, upper calf, left".
func StepWords(t ids.Technique, where string, side ids.Side) string {
	name := wording.Plain(t)
	if known, ok := sequence.Find(t); ok {
		name = known.Name
	}
	muscle, _, _ := sequence.PlaceOf(where, side)
	place := wording.OnSide(wording.Plain(where), side)
	if muscle != "" {
		place = wording.Muscle(muscle, side, "")
	}
	if side == ids.Midline {
		place = wording.Plain(where)
	}
	return name + ", " + place
}

// Words is a run in one line, as it stands in the note: what was done, how long, on which sides,
// and what was left out.
func (r Run) Words() string {
	total, done := 0.0, 0
	sides := []string{}
	var skipped, signs []string
	for _, s := range r.Steps {
		total += s.TookS
		switch s.Outcome {
		case "done", "stop":
			done++
			if s.Side != ids.Midline && !slices.Contains(sides, string(s.Side)) {
				sides = append(sides, string(s.Side))
			}
		case "skip":
			skipped = append(skipped, strings.ToLower(StepWords(s.Technique, s.Where, s.Side)))
		}
		for _, x := range s.Signs {
			signs = append(signs, wording.Plain(x)+" at "+strings.ToLower(StepWords(s.Technique, s.Where, s.Side)))
		}
	}
	out := fmt.Sprintf("%s: %d of %d steps, %.0f min", r.Name, done, len(r.Steps), total/60)
	if total < 60 {
		out = fmt.Sprintf("%s: %d of %d steps, %.0f s", r.Name, done, len(r.Steps), total)
	}
	if len(sides) == 2 {
		out += ", both sides"
	} else if len(sides) == 1 {
		out += ", " + sides[0] + " side"
	}
	if len(skipped) > 0 {
		out += "; left out: " + strings.Join(skipped, ", ")
	}
	if len(signs) > 0 {
		out += "; " + strings.Join(signs, ", ")
	}
	return out + "."
}

// forgotten are the steps of all runs that were done on one side only, in words.
func (s State) forgotten() []string {
	var out []string
	for _, r := range s.Runs {
		for _, x := range r.Forgotten() {
			out = append(out, StepWords(x.Technique, x.Where, x.Side))
		}
	}
	return out
}

// asked leaves out what lacks a consent of its own; the reason says which to ask for.
func (s State) asked(l sequence.LaidOut) sequence.LaidOut {
	return l.Without(func(x sequence.Laid) string {
		if areas := consentsOf(x, s.Consents); len(areas) > 0 {
			return "Ask first: the " + string(areas[0]) + " needs a consent of its own."
		}
		return ""
	})
}

// consentsOf are the areas that a laid step still asks for.
func consentsOf(l sequence.Laid, given []ConsentRecorded) []safety.Area {
	var out []safety.Area
	for _, a := range l.Consent {
		if !slices.ContainsFunc(given, func(c ConsentRecorded) bool { return c.Area == a && c.Given }) {
			out = append(out, a)
		}
	}
	return out
}
