package assess

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/stable"
)

// Why is one reason with its weight, in natural log-odds.
type Why struct {
	Finding string  `json:"finding"`
	Effect  float64 `json:"effect"`
	Text    string  `json:"text"`
}

// Suspect is a muscle on a side with its confidence.
type Suspect struct {
	Muscle ids.Muscle `json:"muscle"`
	Name   string     `json:"name"`
	Side   ids.Side   `json:"side"`
	Region string     `json:"region"`
	// Confidence is between 0 and 1 and reaches neither.
	Confidence float64 `json:"confidence"`
	// Ready: at or above the line, and not blocked.
	Ready bool `json:"ready"`
	// Blocked: the screening lets nothing be pressed there.
	Blocked bool   `json:"blocked"`
	Because string `json:"blocked_because,omitempty"`
	// Why lists the reasons as they count, the strongest first.
	Why []Why `json:"why"`
	// Raised: some finding speaks for it.
	Raised bool `json:"raised"`
}

// NextTest is a test worth doing, with the drop of total entropy that it is
// expected to bring.
type NextTest struct {
	Test ids.Test `json:"test"`
	Side ids.Side `json:"side"`
	// GainBits orders them; it is not shown.
	GainBits float64 `json:"gain_bits"`
	Text     string  `json:"text"`
	Name     string  `json:"name"`
	// How the test is done, in words.
	How      string   `json:"how"`
	Cautions []string `json:"cautions,omitempty" doc:"of the client's answers, to be said with it"`
}

// Ranking is the suspects, highest first.
type Ranking struct {
	// Suspects are all muscles on both sides, so that one can ask for any.
	Suspects []Suspect `json:"suspects"`
	// Next are tests worth doing, the most useful first.
	Next []NextTest `json:"next_tests"`
	// Today is what the client's answers say of tests; of the others they say nothing.
	Today []TestToday `json:"tests_today"`
	// Threshold is the line above which hands search.
	Threshold float64   `json:"threshold"`
	Notes     []string  `json:"notes"`
	Missing   []Missing `json:"missing" doc:"kinds of finding not yet taken, the most telling first; at most three"`
}

// Threshold is the line above which a suspect is ready for hands.
const Threshold = 0.8

// model is every muscle on each side as a hypothesis.
type model struct {
	all   []*hypothesis
	index map[ids.Muscle][2]*hypothesis
	w     Weights
}

var bothSides = [2]ids.Side{ids.Left, ids.Right}

// newModel makes a hypothesis of every muscle on each side. Ligaments and fasciae have no
// trigger points and are left out.
func newModel(w Weights) *model {
	m := &model{index: map[ids.Muscle][2]*hypothesis{}, w: w}
	for _, mu := range atlas.All() {
		if mu.Kind != "muscle" {
			continue
		}
		pair := [2]*hypothesis{{muscle: mu, side: ids.Left}, {muscle: mu, side: ids.Right}}
		m.index[mu.ID] = pair
		m.all = append(m.all, pair[0], pair[1])
	}
	return m
}

// on gives a muscle's hypotheses on a side; midline is both.
func (m *model) on(id ids.Muscle, side ids.Side) []*hypothesis {
	pair := m.index[id]
	switch {
	case pair[0] == nil:
		return nil
	case side == ids.Left:
		return pair[:1]
	case side == ids.Right:
		return pair[1:]
	}
	return pair[:]
}

// Rank draws the evidence together.
func Rank(f Findings, w Weights) Ranking {
	m := newModel(w)
	m.referral(f.Pain)
	m.ranges(f.ROM, f.Age)
	for _, t := range f.Tests {
		m.test(t)
	}
	m.posture(f.Posture, f.Thresholds)
	m.gauges(f.Gauges, f.Tests)
	for _, s := range f.Signs {
		for _, mu := range squatMuscles()[string(s.Sign)] {
			for _, h := range m.on(mu, s.Side) {
				h.add("bearing", "sign:"+string(s.Sign)+":"+string(s.Side), w.of("squat").Plus,
					"In the squat: "+plain(strings.TrimPrefix(string(s.Sign), "squat-")))
			}
		}
	}
	for _, l := range f.Loads {
		for _, mu := range loadMuscles()[string(l)] {
			for _, h := range m.on(mu, ids.Midline) {
				h.add("load", "load:"+string(l), w.of("load").Plus, "Load: "+plain(string(l)))
			}
		}
	}
	for _, e := range latest(f.Earlier) {
		for _, h := range m.on(e.Muscle, e.Side) {
			// Falls with a half-life of two months.
			lr := 1 + (w.of("earlier-point").Plus-1)*math.Exp2(-e.DaysAgo/60)
			h.add("earlier", "earlier-point", lr, fmt.Sprintf("A point here %.0f days ago", e.DaysAgo))
		}
	}
	top := 20
	if f.Top != nil {
		top = *f.Top
	}
	screening := safety.Screen(f.Screening)
	out := Ranking{
		Suspects: make([]Suspect, 0, len(m.all)), Threshold: Threshold,
		Notes: notes(f.ROM, f.Age), Missing: missing(f, w),
	}
	for _, h := range m.all {
		sum, why := h.reasons()
		h.conf = 1 / (1 + math.Exp(-(priorLog + sum)))
		s := Suspect{
			Muscle: h.muscle.ID, Name: h.muscle.Name, Side: h.side, Region: h.muscle.Region,
			Confidence: h.conf, Why: why, Raised: sum > 0,
		}
		s.Because, s.Blocked = blocked(screening, h.muscle, h.side)
		s.Ready = s.Confidence >= Threshold && !s.Blocked
		out.Suspects = append(out.Suspects, s)
	}
	stable.Sort(out.Suspects, func(a, b Suspect) int {
		return cmp.Or(cmp.Compare(b.Confidence, a.Confidence), cmp.Compare(a.Muscle, b.Muscle),
			cmp.Compare(a.Side, b.Side))
	})
	out.Today = m.testsToday(screening)
	out.Next = m.next(f.Tests, out.Today)
	out.Suspects = out.Suspects[:min(top, len(out.Suspects))]
	return out
}

// latest keeps the last point of each muscle and side: five visits with the
// same point are one piece of evidence.
func latest(list []EarlierPoint) []EarlierPoint {
	var out []EarlierPoint
	for _, e := range list {
		i := slices.IndexFunc(out, func(o EarlierPoint) bool { return o.Muscle == e.Muscle && o.Side == e.Side })
		switch {
		case i < 0:
			out = append(out, e)
		case e.DaysAgo < out[i].DaysAgo:
			out[i] = e
		}
	}
	return out
}

// blocked: a muscle takes no pressure when a rule names it, or when all its
// sites lie in blocked regions.
func blocked(s safety.Screening, m *atlas.Muscle, side ids.Side) (why string, is bool) {
	if why, is := s.Blocks(m.ID, nil); is {
		return why, true
	}
	for _, p := range m.Places(side) {
		w, b := s.Blocks(m.ID, []safety.Place{p})
		if !b {
			return "", false
		}
		why = w
	}
	return why, why != ""
}

var spaced = strings.NewReplacer("-", " ", ".", " ")

func plain(id string) string { return spaced.Replace(id) }

func sentence(s string) string { return strings.ToUpper(s[:1]) + s[1:] }
