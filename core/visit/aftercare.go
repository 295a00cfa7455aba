package visit

import (
	"fmt"
	"slices"
	"strings"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/pose"
	"mokren/core/progress"
)

// Aftercare is what a client takes home: what was worked, what is usual after it
// and what is not, stretches for what was treated, and when to come again. It
// names nobody.
type Aftercare struct {
	Worked    []string      `json:"worked"`
	Stretches []HomeStretch `json:"stretches"`
	// LeftOut names the muscles whose stretch the client's answers forbid, and why; it is
	// for the therapist and not on the client's sheet.
	LeftOut  []string  `json:"left_out,omitempty"`
	Usual    []string  `json:"usual"`
	NotUsual []string  `json:"not_usual"`
	Next     NextVisit `json:"next"`
}

// HomeStretch is one stretch, for the sides that were treated; both sides are
// compared.
type HomeStretch struct {
	Name    string     `json:"name"`
	Sides   []ids.Side `json:"sides"`
	Text    string     `json:"text"`
	Repeats int        `json:"repeats"`
	HoldS   int        `json:"hold_s"`
	// Drawing shows the joints by which the muscle is lengthened, on the first side; nil where
	// the figure does not have them.
	Drawing *pose.Posed `json:"drawing,omitempty"`
}

// NextVisit is proposed, in days from this one, with its reason.
type NextVisit struct {
	FromDays int    `json:"from_days"`
	ToDays   int    `json:"to_days"`
	Why      string `json:"why"`
	// Offer are days of it to book: the same weekday where there is one.
	Offer []int `json:"offer_days"`
}

// offers are the first day, the same weekdays, and the last day.
func (n NextVisit) offers() []int {
	out := []int{n.FromDays}
	for d := n.FromDays + 1; d < n.ToDays; d++ {
		if d%7 == 0 {
			out = append(out, d)
		}
	}
	return append(out, n.ToDays)
}

// What is usual after pressing, and what is not (handbook: closing, signs).
var (
	usualAfter = []string{
		"The places that were worked may be sore for a day or two, like after unusual exercise.",
		"Drink as you are used to, keep warm, and move easily; no heavy load on these places today.",
	}
	notUsualAfter = []string{
		"Soreness that lasts more than two days, or bruises.",
		"Numbness, tingling or weakness.",
		"A calf that is warm, swollen or tender on one side, or trouble breathing: get medical care at once.",
		"Dizziness, trouble seeing, speaking or swallowing: get medical care at once.",
	}
)

// bleeds is said to who bruises easily, dizzy to who gets up slowly.
const (
	bleeds = "You bruise more easily than others: look at the places tomorrow, and call if a bruise grows."
	dizzy  = "Get up slowly today, and sit for a moment first."
)

// usualAfter is what is usual for this client.
func (s State) usualAfter() []string {
	out := slices.Clone(usualAfter)
	for _, r := range s.Screening.Rules {
		switch r.ID {
		case "anticoagulant":
			out = ids.With(out, bleeds)
		case "dizziness", "high-blood-pressure":
			out = ids.With(out, dizzy)
		}
	}
	return out
}

// Aftercare gives the sheet of a visit.
func (s State) Aftercare(earlier []FoundPoint) Aftercare {
	out := Aftercare{
		Worked: []string{}, Stretches: []HomeStretch{}, Usual: s.usualAfter(), NotUsual: notUsualAfter,
		Next: s.proposeNext(earlier),
	}
	out.Next.Offer = out.Next.offers()
	at := map[ids.Muscle]int{}
	for _, p := range s.pressed() {
		m, err := atlas.Get(p.Muscle)
		if err != nil {
			continue
		}
		if name := fmt.Sprintf("%s, %s", m.Name, p.Side); !slices.Contains(out.Worked, name) {
			out.Worked = append(out.Worked, name)
		}
		no, cautions := assess.StretchToday(m, p.Side, s.Screening)
		if no != "" {
			out.LeftOut = ids.With(out.LeftOut, fmt.Sprintf("%s, %s: %s", m.Name, p.Side, no))
			continue
		}
		i, there := at[p.Muscle]
		if !there {
			i = len(out.Stretches)
			at[p.Muscle] = i
			out.Stretches = append(out.Stretches, HomeStretch{
				Name: m.Name, Text: strings.Join(append([]string{m.Stretch.Text}, cautions...), " "),
				Repeats: m.Stretch.Repeats, HoldS: m.Stretch.HoldS, Drawing: lengthened(m, p.Side),
			})
		}
		if h := &out.Stretches[i]; !slices.Contains(h.Sides, p.Side) {
			h.Sides = append(h.Sides, p.Side)
		}
	}
	return out
}

// lengthened draws how a muscle is lengthened, standing. No degrees stand on it: they are those of
// the table, not of a stretch at home.
func lengthened(m *atlas.Muscle, side ids.Side) *pose.Posed {
	joints := make([]pose.Joint, len(m.Tension))
	for i, j := range m.Tension {
		joints[i] = pose.Joint{Movement: j.Movement, Toward: j.Toward}
	}
	d, err := pose.Position(joints, side, "")
	if err != nil {
		return nil
	}
	return &d
}

// secondSide are points that were charted on the other side of a muscle that was pressed, and
// were not pressed though nothing stood against it.
func (s State) secondSide() []UUID {
	var out []UUID
	done := s.pressed()
	for _, p := range s.Points {
		other := func(o Point) bool { return o.Muscle == p.Muscle && o.Side == p.Side.Other() }
		if p.Closed == "" && p.Blocked == "" && !s.hasHold(p.Point) && slices.ContainsFunc(done, other) {
			out = append(out, p.Point)
		}
	}
	return out
}

// pressed are the points at which a hold counts, in the order in which they were charted.
// Aftercare, the proposal of the next visit and the second side rest on them.
func (s State) pressed() []Point {
	var out []Point
	for _, p := range s.Points {
		if slices.ContainsFunc(s.Holds, func(h Hold) bool { return h.Point == p.Point && h.Status != HoldRejected }) {
			out = append(out, p)
		}
	}
	return out
}

// How long until the next visit (handbook: across visits).
var (
	whileActive = NextVisit{
		FromDays: 3, ToDays: 7,
		Why: "Some places still hurt when pressed: come again in 3 to 7 days; no firm massage there for two days.",
	}
	improving = NextVisit{
		FromDays: 7, ToDays: 14,
		Why: "It hurts clearly less than last time: 7 to 14 days are enough.",
	}
	holding = NextVisit{
		FromDays: 21, ToDays: 28,
		Why: "It has stayed at 2 of 10 or less: 21 to 28 days are enough.",
	}
	nothingDone = NextVisit{
		FromDays: 7, ToDays: 14,
		Why: "Nothing was pressed today.",
	}
	resolvedNPRS = 2.0
)

// proposeNext: holding when every treated point was found at 2 or less; improving
// when each was found clearly lower than last time; else active.
func (s State) proposeNext(earlier []FoundPoint) NextVisit {
	treated := s.pressed()
	if len(treated) == 0 {
		return nothingDone
	}
	allLow, allBetter := true, true
	for _, p := range treated {
		if p.NPRS == nil {
			return whileActive
		}
		allLow = allLow && *p.NPRS <= resolvedNPRS
		before := spotOf(earlier, p.Identity)
		if before == nil || before.NPRS == nil {
			allBetter = false
			continue
		}
		change, err := progress.Pair("nprs", *before.NPRS, *p.NPRS)
		allBetter = allBetter && err == nil && change.Meaningful && change.Direction == "better"
	}
	switch {
	case allLow:
		return holding
	case allBetter:
		return improving
	}
	return whileActive
}
