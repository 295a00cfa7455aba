package treat

import "fmt"

// breath steers breath-sink: a little deeper on each out-breath, stop at depth,
// hold still; the client may then move the limb under the contact.
type breath struct{ plain }

const (
	breathsOfTwo = 4           // at each of two places
	secondPlace  = 45 * second // of the cap must be left
)

func (b *breath) begin(s *state) {
	s.course.place++
	s.course.rep = 0
	b.sink(s)
	s.say(0, fmt.Sprintf("Rest on it; sink towards %v with the out-breaths.", s.limits.Target),
		fmt.Sprintf("%d breaths, place %d of %d.", s.plan.Breaths, s.course.place, max(1, s.plan.Places)), SettleIn)
}

func (*breath) sink(s *state) { s.enter(PhaseSink, s.plan.BreathMS) }

func (b *breath) number(s *state, v float64) {
	s.compare(v)
	t := s.limits.Target
	switch {
	case s.part.kind != PhaseSink:
		s.say(0, "Hold still.", fmt.Sprintf("%v at depth.", v), Hold)
	case v >= t-1 && v <= t:
		b.still(s, fmt.Sprintf("Depth is reached: %v.", v))
	case v > t:
		s.say(0, "Stay at this depth.", fmt.Sprintf("%v is above the target of %v.", v, t), Hold)
	default:
		s.say(0, "Wait for the out-breath.", fmt.Sprintf("%v is within the target of %v.", v, t), Hold)
	}
}

func (b *breath) over(s *state) {
	switch s.part.kind {
	case PhaseSink:
		b.outBreath(s)
	case PhaseStill, PhaseMove:
		b.next(s)
	}
}

// outBreath sinks while the number allows.
func (b *breath) outBreath(s *state) {
	s.course.rep++
	n := s.course.rep
	last := n >= s.plan.Breaths
	b.sink(s)
	switch {
	case s.fresh() && s.number <= s.limits.Target:
		s.say(0, "Out-breath: sink slightly.", fmt.Sprintf("Breath %d of %d.", n, s.plan.Breaths), SinkSlightly)
	case s.fresh():
		above := fmt.Sprintf("%v is above the target of %v.", s.number, s.limits.Target)
		s.say(0, "Out-breath: stay here.", above, Hold)
	default:
		s.say(0, "Out-breath: stay here.", "Without a number nothing goes deeper.", Hold)
	}
	if last {
		b.still(s, "The breaths are used.")
		return
	}
	if n%2 == 0 {
		s.askNow()
	}
}

func (*breath) still(s *state, why string) {
	s.enter(PhaseStill, s.plan.StillMS)
	s.say(0, "Stop here; hold still.", why, Hold)
}

// next is a movement under the contact, the second place, or the end.
func (b *breath) next(s *state) {
	lastPlace := s.course.place >= s.plan.Places || s.start.Limits.CapMS-s.pressed < secondPlace
	switch {
	case !lastPlace:
		s.numberAt, s.spotBase = -1, nil
		b.begin(s)
		s.say(0, "Slightly higher: lift, set down, sink again.", fmt.Sprintf("Place %d of %d.", s.course.place,
			s.plan.Places), NextRep)
		s.askNow()
	case s.course.moved < s.plan.Moves:
		b.move(s)
	default:
		s.comeOff(0, "done", nothing, EndedDone, "Come off on an out-breath.")
	}
}

// move: between two movements it may sink once.
func (*breath) move(s *state) {
	s.course.moved++
	s.enter(PhaseMove, s.plan.MoveMS)
	s.say(0, "Let the client move the limb slowly.",
		fmt.Sprintf("Movement %d of %d, the contact stays.", s.course.moved, s.plan.Moves), NextRep)
	if s.course.moved > 1 && !s.course.sank && s.fresh() && s.number <= s.limits.Target {
		s.course.sank = true
		s.advice = append(s.advice, SinkSlightly)
		s.reason = "Once on the out-breath, a little deeper."
	}
}

func (b *breath) softened(s *state) string {
	if s.closing || s.part.kind != PhaseSink {
		return "Softening noted."
	}
	s.course.soft = true
	b.still(s, "It softens: that is the depth.")
	return ""
}

func (*breath) asks(s *state) (first, again int64) {
	if s.part.kind == PhaseSink {
		return never, never
	}
	return askAfter, askAfter
}

func (*breath) reps(s *state) int { return s.plan.Breaths }

// pinned steers pin-and-stretch: pin at the barrier, lengthen with the breath.
type pinned struct{ plain }

func (*pinned) begin(s *state) {
	s.enter(PhaseSettle, never)
	s.say(0, fmt.Sprintf("Pin it at the barrier, to %v of 10.", s.limits.Target), "Then lengthen with the breath.",
		SettleIn)
}

func (p *pinned) number(s *state, v float64) {
	if s.part.kind != PhaseSettle {
		s.say(0, "On the next out-breath, lengthen.", fmt.Sprintf("%v now.", v), Hold)
		return
	}
	if s.tooLittle(v, s.limits.Target-1) {
		return
	}
	p.lengthen(s)
	s.beginStage(v)
}

func (p *pinned) over(s *state) {
	if s.course.rep >= s.plan.Breaths {
		s.comeOff(0, "done", nothing, EndedDone, fmt.Sprintf("%d breaths are done.", s.plan.Breaths))
		return
	}
	p.lengthen(s)
}

func (*pinned) lengthen(s *state) {
	s.course.rep++
	s.enter(PhaseLengthen, s.plan.BreathMS)
	if s.course.rep > 1 && !s.fresh() {
		s.say(0, "Wait; keep the pin.", "Without a number nothing goes further.", Hold)
	} else {
		s.say(0, "Out-breath: lengthen. In-breath: wait.",
			fmt.Sprintf("Breath %d of %d.", s.course.rep, s.plan.Breaths), NextRep)
	}
	if s.course.rep%2 == 0 {
		s.askNow()
	}
}

func (*pinned) asks(s *state) (first, again int64) {
	if s.part.kind == PhaseSettle {
		return firstAskAfter, askAfter
	}
	return never, never
}

func (*pinned) reps(s *state) int { return s.plan.Breaths }
