package treat

import "fmt"

// rounds steers contract-relax: lengthen to the first stretch; then push, let
// go, and lengthen again.
type rounds struct{ plain }

const firstStretch = 5 * second

func (*rounds) begin(s *state) {
	s.course.from = s.now
	s.enter(PhaseLengthen, firstStretch)
	s.say(0, "Lengthen to the first stretch.", "No pain over "+fmt.Sprint(s.limits.Target)+".", SettleIn)
	s.askNow()
}

func (*rounds) number(s *state, v float64) {
	if parts[s.part.kind].compares {
		s.compare(v)
	}
	s.say(0, s.text, fmt.Sprintf("%v now.", v), s.advice...)
}

func (r *rounds) over(s *state) {
	c := &s.course
	switch {
	case s.part.kind == PhasePush:
		s.enter(PhaseRest, s.plan.RestMS)
		s.say(0, "Let go; breathe out.", fmt.Sprintf("Round %d of %d.", c.rep, s.plan.Reps), Rest)
	case s.part.kind == PhaseRest:
		s.enter(PhaseLengthen, s.plan.LengthenMS)
		if !s.fresh() {
			s.say(0, "Keep this length; wait.", "Without a number nothing goes further.", Hold)
		} else {
			s.say(0, "Lengthen a little more.", fmt.Sprintf("Round %d of %d.", c.rep, s.plan.Reps), NextRep)
		}
		s.askNow()
	case c.rep >= s.plan.Reps:
		s.comeOff(0, "done", nothing, EndedDone, fmt.Sprintf("%d rounds are done.", s.plan.Reps))
	default:
		r.push(s)
	}
}

func (*rounds) push(s *state) {
	c := &s.course
	c.rep++
	c.lastRange = len(s.ranges)
	s.enter(PhasePush, s.plan.PushMS)
	text := "Push gently against my hand."
	if s.plan.Variant == "reciprocal" {
		text = "Push gently away from my hand."
	}
	s.say(0, text, fmt.Sprintf("Round %d of %d, %v s.", c.rep, s.plan.Reps, seconds(s.plan.PushMS)), NextRep)
	s.askNow()
}

// measured: from the second round on a range that gained too little is the last.
func (r *rounds) measured(s *state) string {
	c := &s.course
	now := s.ranges[len(s.ranges)-1]
	if c.rep < 2 {
		c.roundGain, c.hasGain = now, c.rep == 1
		return "Range recorded."
	}
	gained := now - c.roundGain
	first := !c.hasGain
	c.roundGain, c.hasGain = now, true
	if first || gained >= s.plan.MinGainDeg {
		return "Range recorded."
	}
	s.comeOff(0, "done", nothing, EndedDone,
		fmt.Sprintf("Only %.3g° more in this round: that is enough.", gained))
	return ""
}

func (*rounds) asks(*state) (first, again int64) { return never, never }
