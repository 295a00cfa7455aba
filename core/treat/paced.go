package treat

import "fmt"

// paced is presses and rests by the coach's own clock: short-repeats, where
// each press is deeper, the same or lighter; and pulses, which climb by the
// score (Plan.FirstAim).
//
// Parts: press and rest in turn, plan.Reps times. A press is judged when the next one begins,
// by its highest score, which may be given in the rest behind it:
//
//   - calm from press plan.CalmFromRep on: come off;
//   - in pulses twice in a row within one of the target, without a rise: borne, come off;
//   - above the target, or eased: the next one is lighter or the same;
//   - within the target, and not older than 20 s: the next one is deeper.
//
// Without a score nothing goes deeper. After the last press its score is asked for while the
// hand comes off.
type paced struct {
	plain
	rep      int      // the press that runs or ran last, from 1
	aim      float64  // the score that is pressed to: at most the target
	depth    int      // steps deeper than the first press; below 0 after easing
	isLess   bool     // the next press is one lighter; cleared when it begins
	top, was *float64 // the highest score of this press, and of the one before; nil for none
	reduced  bool     // a press as deep as the first was 2 below the spot's baseline
	borne    bool     // pulses: the target was borne twice
}

func (p *paced) clone() strategy { k := *p; return &k }

func (*paced) atNewSpot(s *state) strategy {
	if s.plan.FirstAim > 0 {
		return &paced{aim: min(s.plan.FirstAim, s.limits.Target)}
	}
	return &paced{aim: s.limits.Target}
}

// begin is the first press, or the next one after a flush. Later presses say themselves how
// deep they go.
func (p *paced) begin(s *state) {
	p.press(s)
	if p.rep == 1 {
		s.say(0, fmt.Sprintf("Press to %v of 10.", p.aim),
			fmt.Sprintf("Press 1 of %d, %v s.", s.plan.Reps, seconds(s.plan.PressMS)), SettleIn)
	}
}

// press starts its clock. A question about the press before is over, answered or not.
func (p *paced) press(s *state) {
	p.rep++
	p.top = nil
	s.asked.due, s.asked.after = false, false
	s.enter(PhasePress, s.plan.PressMS)
}

// score: rule 2 has had its say; the press is judged when the next begins.
func (p *paced) score(s *state, v float64) {
	if s.part.kind == PhasePress {
		s.compare(v)
	}
	s.said.reason = fmt.Sprintf("%v so far in this press.", *p.top)
}

// over ends a press or a rest. After the last press its score is asked for while the hand
// comes off.
func (p *paced) over(s *state) {
	switch {
	case s.part.kind == PhaseRest:
		p.nextPress(s)
	case p.rep >= s.plan.Reps:
		s.asked.after, s.asked.due = true, true
		s.comeOff(0, "done", nothing, EndedDone, fmt.Sprintf("%d presses are done.", s.plan.Reps))
	default:
		s.enter(PhaseRest, s.plan.RestMS)
		s.say(0, "Off, and rest.", fmt.Sprintf("Press %d of %d is done.", p.rep, s.plan.Reps), Rest)
		s.askNow()
	}
}

// nextPress judges the press before, by its highest score.
func (p *paced) nextPress(s *state) {
	top, was := p.top, p.was
	p.was = top
	if top != nil {
		p.judge(s, *top)
	}
	switch {
	case top == nil:
	case s.plan.CalmFromRep > 0 && p.rep >= s.plan.CalmFromRep && *top <= s.calm():
		s.compared.last = *top
		s.believe()
		s.comeOff(5, "calm", nothing, EndedCalm, fmt.Sprintf("Only %v in the last press: enough.", *top))
		return
	case p.twiceBorne(s, was, *top):
		p.borne = true
		s.comeOff(0, "borne", nothing, EndedBorne,
			"Twice borne calmly at the target: now another protocol may follow.")
		return
	}
	p.setDepth(s, top)
	p.press(s)
}

// judge keeps what the press says about the tissue.
func (p *paced) judge(s *state, top float64) {
	if s.spotBase == nil {
		s.spotBase = &top
		return
	}
	if *s.spotBase-top >= 2 && p.depth >= 0 {
		p.reduced = true
	}
}

// twiceBorne: two scores in a row about the target, no rise between.
func (*paced) twiceBorne(s *state, was *float64, top float64) bool {
	if s.plan.FirstAim == 0 || was == nil {
		return false
	}
	near := func(v float64) bool { return v >= s.limits.Target-1 && v <= s.limits.Target }
	return near(*was) && near(top) && top <= *was
}

// setDepth says how deep the next press goes. Of two reasons the more careful one wins, so
// the order of the cases matters.
func (p *paced) setDepth(s *state, top *float64) {
	lighter := p.isLess
	p.isLess = false
	text := fmt.Sprintf("Press %d of %d: the same.", p.rep+1, s.plan.Reps)
	switch {
	case lighter, top != nil && p.aimed(s) && *top > s.limits.Target:
		p.depth--
		p.aim = max(0, p.aim-s.plan.AimStep)
		s.say(0, fmt.Sprintf("Press %d of %d: a little lighter.", p.rep+1, s.plan.Reps), "The last was too much.",
			NextRep)
		return
	case top == nil || !s.fresh():
		s.say(0, text, "Without a number nothing goes deeper.", NextRep)
	case *top > s.limits.Target:
		s.say(0, text, fmt.Sprintf("%v is above the target of %v.", *top, s.limits.Target), NextRep)
	case p.aimed(s) && *top > p.aim:
		s.say(0, text, fmt.Sprintf("%v is above the %v aimed at.", *top, p.aim), NextRep)
	case p.aimed(s) && p.aim >= s.limits.Target:
		s.say(0, text, "At the target: the same once more.", NextRep)
	default:
		p.depth++
		p.aim = min(s.limits.Target, p.aim+s.plan.AimStep)
		s.say(0, fmt.Sprintf("Press %d of %d: a little deeper.", p.rep+1, s.plan.Reps),
			fmt.Sprintf("%v is within the target of %v.", *top, s.limits.Target), NextRep, SinkSlightly)
	}
}

func (*paced) aimed(s *state) bool { return s.plan.AimStep > 0 }

// lighter is for the next press: this one is eased by the hand at once.
func (p *paced) lighter(*state) { p.isLess = true }

// asks only on the front of the neck, 5 s into each press; elsewhere the rest behind a press
// asks.
func (*paced) asks(s *state) (first, again int64) {
	if s.plan.PressMaxMS > 0 && s.part.kind == PhasePress {
		return s.part.from + neckAskMS - s.asked.since, s.part.from + neckAskMS - s.asked.since
	}
	return silent()
}

// heard keeps the highest score of a press; it may be given in the rest behind it.
func (p *paced) heard(v float64) {
	if p.top == nil || v > *p.top {
		p.top = &v
	}
}

// progress counts presses and shows the score that is pressed to.
func (p *paced) progress(s *state) progress {
	return progress{rep: p.rep, reps: s.plan.Reps, aim: p.aim, reduced: p.reduced, borne: p.borne}
}
