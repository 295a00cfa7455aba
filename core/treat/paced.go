package treat

import "fmt"

// paced steers presses and rests by the coach's own clock: short-repeats, where
// each press is deeper, the same or lighter; and pulses, which climb by the
// number (Plan.FirstAim).
type paced struct{ plain }

func (p *paced) newSpot(s *state) {
	s.course, s.numberAt = course{}, -1
	s.course.aim = p.firstAim(s)
}

func (*paced) firstAim(s *state) float64 {
	if s.plan.FirstAim > 0 {
		return min(s.plan.FirstAim, s.limits.Target)
	}
	return s.limits.Target
}

func (p *paced) begin(s *state) {
	s.course.from = s.now
	p.press(s)
	if s.course.rep == 1 {
		s.say(0, fmt.Sprintf("Press to %v of 10.", s.course.aim),
			fmt.Sprintf("Press 1 of %d, %v s.", s.plan.Reps, seconds(s.plan.PressMS)), SettleIn)
	}
}

func (*paced) press(s *state) {
	s.course.rep++
	s.course.top = nil
	s.askDue, s.askAfter = false, false
	s.enter(PhasePress, s.plan.PressMS)
}

// number: rule 2 has had its say; the press is judged when the next begins.
func (*paced) number(s *state, v float64) {
	if s.part.kind == PhasePress {
		s.compare(v)
	}
	s.reason = fmt.Sprintf("%v so far in this press.", *s.course.top)
}

func (p *paced) over(s *state) {
	switch {
	case s.part.kind == PhaseRest:
		p.nextPress(s)
	case s.course.rep >= s.plan.Reps:
		s.askAfter, s.askDue = true, true
		s.comeOff(0, "done", nothing, EndedDone, fmt.Sprintf("%d presses are done.", s.plan.Reps))
	default:
		s.enter(PhaseRest, s.plan.RestMS)
		s.say(0, "Off, and rest.", fmt.Sprintf("Press %d of %d is done.", s.course.rep, s.plan.Reps), Rest)
		s.askNow()
	}
}

// nextPress judges the press before, by its highest number.
func (p *paced) nextPress(s *state) {
	c := &s.course
	top, was := c.top, c.was
	c.was = top
	if top != nil {
		p.judge(s, *top)
	}
	switch {
	case top == nil:
	case s.plan.CalmFromRep > 0 && c.rep >= s.plan.CalmFromRep && *top <= s.calm():
		s.last = *top
		s.believe()
		s.comeOff(5, "calm", nothing, EndedCalm, fmt.Sprintf("Only %v in the last press: enough.", *top))
		return
	case p.borne(s, was, *top):
		c.borne = true
		s.comeOff(0, "borne", nothing, EndedBorne,
			"Twice borne calmly at the target: now another protocol may follow.")
		return
	}
	p.setDepth(s, top)
	p.press(s)
}

// judge keeps what the press says about the tissue.
func (*paced) judge(s *state, top float64) {
	if s.spotBase == nil {
		s.spotBase = &top
		return
	}
	if *s.spotBase-top >= 2 && s.course.depth >= 0 {
		s.course.reduced = true
	}
}

// borne: two numbers in a row about the target, no rise between.
func (*paced) borne(s *state, was *float64, top float64) bool {
	if s.plan.FirstAim == 0 || was == nil {
		return false
	}
	near := func(v float64) bool { return v >= s.limits.Target-1 && v <= s.limits.Target }
	return near(*was) && near(top) && top <= *was
}

// setDepth says how deep the next press goes.
func (p *paced) setDepth(s *state, top *float64) {
	c := &s.course
	lighter := c.lighter
	c.lighter = false
	text := fmt.Sprintf("Press %d of %d: the same.", c.rep+1, s.plan.Reps)
	switch {
	case lighter, top != nil && p.aimed(s) && *top > s.limits.Target:
		c.depth--
		c.aim = max(0, c.aim-s.plan.AimStep)
		s.say(0, fmt.Sprintf("Press %d of %d: a little lighter.", c.rep+1, s.plan.Reps), "The last was too much.",
			NextRep)
		return
	case top == nil || !s.fresh():
		s.say(0, text, "Without a number nothing goes deeper.", NextRep)
	case *top > s.limits.Target:
		s.say(0, text, fmt.Sprintf("%v is above the target of %v.", *top, s.limits.Target), NextRep)
	case p.aimed(s) && *top > c.aim:
		s.say(0, text, fmt.Sprintf("%v is above the %v aimed at.", *top, c.aim), NextRep)
	case p.aimed(s) && c.aim >= s.limits.Target:
		s.say(0, text, "At the target: the same once more.", NextRep)
	default:
		c.depth++
		c.aim = min(s.limits.Target, c.aim+s.plan.AimStep)
		s.say(0, fmt.Sprintf("Press %d of %d: a little deeper.", c.rep+1, s.plan.Reps),
			fmt.Sprintf("%v is within the target of %v.", *top, s.limits.Target), NextRep, SinkSlightly)
	}
}

func (*paced) aimed(s *state) bool { return s.plan.AimStep > 0 }

// lighter is for the next press: this one is eased by the hand at once.
func (*paced) lighter(s *state) { s.course.lighter = true }

func (*paced) asks(s *state) (first, again int64) {
	if s.plan.PressMaxMS > 0 && s.part.kind == PhasePress {
		return s.part.from + neckAskMS - s.answeredAt, s.part.from + neckAskMS - s.answeredAt
	}
	return never, never
}

func (*paced) aim(s *state) float64 { return s.course.aim }
