package assess

import (
	"slices"
	"strings"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
)

// TestToday is what the client's answers say of a test on a side.
type TestToday struct {
	Test ids.Test `json:"test"`
	Side ids.Side `json:"side"`
	// Forbidden tells why it is not offered.
	Forbidden string   `json:"forbidden,omitempty"`
	Cautions  []string `json:"cautions,omitempty" doc:"to be said with it"`
}

// asked is what a test asks of joints, how the client lies, and where it presses.
type asked struct {
	motion    safety.Motion
	positions []ids.Position
	presses   []ids.Region
	// bothSides: the other side moves as well.
	bothSides bool
}

func moved(way safety.Way, movements string) asked {
	return asked{motion: safety.Motion{Way: way, Movements: ids.List[ids.Movement](movements)}}
}

func (a asked) lying(positions string) asked {
	a.positions = ids.List[ids.Position](positions)
	return a
}

// otherHip: the other knee is drawn to the chest.
func otherHip(a asked) asked {
	a.bothSides = true
	a.motion.Movements = append(a.motion.Movements, "hip.flexion")
	return a.lying("supine")
}

// testAsks says it of each special test.
var testAsks = map[ids.Test]asked{
	"thomas-type":               otherHip(moved(safety.Stretched, "hip.extension")),
	"thomas-type-knee":          otherHip(moved(safety.Stretched, "hip.extension knee.flexion")),
	"thomas-type-out":           otherHip(moved(safety.Stretched, "hip.extension")),
	"ober-type":                 moved(safety.Stretched, "hip.adduction hip.extension"),
	"straight-leg-raise":        moved(safety.Stretched, "hip.flexion").lying("supine"),
	"calf-length-knee-straight": moved(safety.Stretched, "ankle.dorsiflexion-knee-straight"),
	"calf-length-knee-bent":     moved(safety.Stretched, "ankle.dorsiflexion-knee-bent"),
	"pectoral-length":           moved(safety.Stretched, "shoulder.abduction").lying("supine"),
	"levator-length":            moved(safety.Stretched, "cervical.lateral-flexion cervical.rotation"),
	"lift-off":                  moved(safety.Active, "shoulder.internal-rotation"),
	"painful-arc":               moved(safety.Active, "shoulder.abduction"),
	"coracoid-tender":           {presses: ids.List[ids.Region]("anterior-shoulder")},
	"hip-hike":                  moved(safety.Active, "pelvis.hike"),
	"foot-lift":                 moved(safety.Resisted, "ankle.dorsiflexion-knee-straight"),
	"first-rib-rise":            {presses: ids.List[ids.Region]("anterior-neck lateral-neck")},
}

func asksOf(t ids.Test) asked {
	if mv, ok := strings.CutPrefix(string(t), "resisted:"); ok {
		return moved(safety.Resisted, mv)
	}
	return testAsks[t]
}

// today judges a test on a side by the client's answers.
func (m *model) today(t ids.Test, side ids.Side, s safety.Screening) TestToday {
	out := TestToday{Test: t, Side: side}
	a := asksOf(t)
	for _, region := range a.presses {
		if why, blocked := s.Blocks("", []safety.Place{{Region: region, Side: side}}); blocked {
			out.Forbidden = why
			return out
		}
	}
	if p := a.positions; len(p) > 0 && !slices.ContainsFunc(p, func(p ids.Position) bool {
		return !slices.Contains(s.Limits.AvoidPositions, p)
	}) {
		out.Forbidden = "Not " + string(p[0]) + " today."
		return out
	}
	for _, x := range m.targets(t, side) {
		sides := []ids.Side{x.h.side}
		if a.bothSides {
			sides = bothSides[:]
		}
		for _, on := range sides {
			no, say := s.Moves(a.motion, x.h.muscle.ID, x.h.muscle.Places(on))
			if no != "" {
				return TestToday{Test: t, Side: side, Forbidden: no}
			}
			for _, c := range say {
				out.Cautions = ids.With(out.Cautions, c)
			}
		}
	}
	return out
}

// testsToday lists what the answers have to say of any test.
func (m *model) testsToday(s safety.Screening) []TestToday {
	out := []TestToday{}
	if len(s.Rules) == 0 {
		return out
	}
	for _, t := range ids.Tests() {
		for _, side := range bothSides {
			if d := m.today(t, side, s); d.Forbidden != "" || len(d.Cautions) > 0 {
				out = append(out, d)
			}
		}
	}
	return out
}

// wordOn finds what is said of a test on a side.
func wordOn(list []TestToday, t ids.Test, side ids.Side) TestToday {
	for _, d := range list {
		if d.Test == t && d.Side == side {
			return d
		}
	}
	return TestToday{Test: t, Side: side}
}

// StretchToday judges the home stretch of a muscle on a side.
func StretchToday(m *atlas.Muscle, side ids.Side, s safety.Screening) (forbidden string, cautions []string) {
	return s.Moves(m.Lengthened(), m.ID, m.Places(side))
}
