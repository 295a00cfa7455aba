package treat

import "fmt"

// movements is press-and-move, where the client moves under a kept pressure,
// and resisted-lengthening, where nothing is pressed and a rest follows each.
//
// Parts: settle for a baseline where plan.Baseline is set, then plan.Reps times move, with a
// rest behind each where the plan has one. From the third movement on a calm score ends it.
// Where nothing is pressed the pressure clock stands, and plan.TotalMS bounds the whole.
type movements struct {
	plain
	rep int
}

const calmFromMove = 3

func (m *movements) clone() strategy { k := *m; return &k }

func (*movements) atNewSpot(*state) strategy { return &movements{} }

// begin asks for a baseline first where the movement happens under pressure; against
// resistance the movement itself is the load.
func (m *movements) begin(s *state) {
	if !s.plan.Baseline {
		m.move(s)
		return
	}
	s.enter(PhaseSettle, never)
}

// score is the baseline, or a score that is shown beside it. Movements end by their count and
// by calm, not by a score alone.
func (m *movements) score(s *state, v float64) {
	switch {
	case s.part.kind == PhaseSettle:
		if s.tooLittle(v, s.limits.Target-1) {
			return
		}
		m.move(s)
		s.beginStage(v)
	case s.compared.runs:
		s.say(0, s.said.text, fmt.Sprintf("%v, from %v.", v, s.compared.base), s.said.advice...)
	}
}

// move begins one movement. A stiff shoulder moves a little, or only in thought.
func (m *movements) move(s *state) {
	m.rep++
	s.enter(PhaseMove, s.plan.MoveMS)
	text := "Slowly, through the whole movement."
	if !s.plan.Presses {
		text = "Resist at about half strength; let me win."
	}
	switch s.plan.Variant {
	case "small":
		text = "A small movement, slowly."
	case "imagined":
		text = "Imagine the movement; it need not be seen."
	}
	s.say(0, text, fmt.Sprintf("Movement %d of %d.", m.rep, s.plan.Reps), NextRep)
}

// over ends a movement or a rest. From the third movement on a calm score is enough; where
// nothing is pressed, the last score is asked for after the end.
func (m *movements) over(s *state) {
	if s.part.kind == PhaseRest {
		m.move(s)
		return
	}
	calm := s.compared.runs && s.compared.last <= s.calm()
	switch {
	case calm && m.rep >= calmFromMove:
		s.calmDown()
	case m.rep >= s.plan.Reps:
		if s.compared.runs {
			s.endStage("done")
		}
		s.asked.after, s.asked.due = !s.plan.Presses, !s.plan.Presses
		s.comeOff(0, "done", nothing, EndedDone, fmt.Sprintf("%d movements are done.", s.plan.Reps))
	case s.plan.RestMS > 0:
		s.enter(PhaseRest, s.plan.RestMS)
		s.say(0, "Rest; breathe out.", fmt.Sprintf("Movement %d of %d is done.", m.rep, s.plan.Reps), Rest)
		s.askNow()
	default:
		m.move(s)
		s.askNow()
	}
}

// asks while the baseline is waited for; after that each movement asks at its end.
func (*movements) asks(s *state) (first, again int64) {
	if s.part.kind == PhaseSettle {
		return firstAskAfter, askAfter
	}
	return silent()
}

// progress counts movements.
func (m *movements) progress(s *state) progress {
	return progress{rep: m.rep, reps: s.plan.Reps, aim: s.limits.Target}
}
