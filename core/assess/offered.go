package assess

import (
	"slices"

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

// today judges a test on a side by the client's answers.
func (m *model) today(t ids.Test, side ids.Side, s safety.Screening) TestToday {
	out := TestToday{Test: t, Side: side}
	a := asksOf(t)
	for _, region := range ids.List[ids.Region](a.presses) {
		if why, blocked := s.Blocks("", []safety.Place{{Region: region, Side: side}}); blocked {
			out.Forbidden = why
			return out
		}
	}
	if a.lies != "" && slices.Contains(s.Limits.AvoidPositions, a.lies) {
		out.Forbidden = "Not " + string(a.lies) + " today."
		return out
	}
	motion := a.motion()
	for _, x := range m.targets(t, side) {
		sides := []ids.Side{x.h.side}
		if a.bothSides {
			sides = bothSides[:]
		}
		for _, on := range sides {
			no, say := s.Moves(motion, x.h.muscle.ID, x.h.muscle.Places(on))
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

// MovementToday is what the client's answers say of an active range: it is never
// forbidden, for the client alone moves.
type MovementToday struct {
	Movement ids.Movement `json:"movement"`
	Cautions []string     `json:"cautions"`
}

// MovementsToday lists the movements of which the answers have to say something.
func MovementsToday(s safety.Screening) []MovementToday {
	out := []MovementToday{}
	for _, mv := range ids.Movements() {
		motion := safety.Motion{Way: safety.Active, Movements: []ids.Movement{mv}}
		no, say := s.Moves(motion, "", nil)
		if no != "" {
			say = []string{no}
		}
		if len(say) > 0 {
			out = append(out, MovementToday{Movement: mv, Cautions: say})
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
