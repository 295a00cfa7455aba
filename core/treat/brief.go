package treat

import "fmt"

// brief steers brief-holds: hold, ask again until it is low, lift, flush, and
// return from another angle.
type brief struct{ plain }

const mostAnswers = 3 // without a drop

func (*brief) begin(s *state) {
	s.course.rep++
	s.course.answers = 0
	s.enter(PhasePress, s.plan.PressMS)
	s.say(0, fmt.Sprintf("Press to %v of 10 and hold.", s.limits.Target),
		fmt.Sprintf("Press %d of %d, at most %v s.", s.course.rep, s.plan.Reps, seconds(s.plan.PressMS)), SettleIn)
}

func (b *brief) number(s *state, v float64) {
	if !s.needBase {
		s.course.answers++
		b.judged(s)
		return
	}
	if s.course.rep > 1 && v <= s.calm() && s.sinks >= 1 {
		s.comeOff(5, "calm", nothing, EndedDone, fmt.Sprintf("Still only %v here: done.", v))
		return
	}
	if s.tooLittle(v, s.limits.Target-1) {
		return
	}
	s.again = false
	s.beginStage(v)
	s.course.answers = 1
	s.say(0, "Hold still.", fmt.Sprintf("Begins at %v.", v), Hold)
}

func (b *brief) judged(s *state) {
	s.goOn()
	switch {
	case s.last <= s.calm():
		s.believe()
		b.lift(s, 5, "calm", EndedCalm, fmt.Sprintf("Down to %v: lift.", s.last))
	case s.base-s.last < 1 && s.course.answers >= mostAnswers:
		b.noDrop(s, "Three answers without a change.")
	default:
		s.say(0, "Hold still.", fmt.Sprintf("%v, from %v.", s.last, s.base), Hold)
	}
}

// lift comes off for the next press, or for good.
func (*brief) lift(s *state, rule int, by string, ended Ended, why string) {
	after := nextPress
	if s.course.rep >= s.plan.Reps {
		after = nothing
	}
	s.comeOff(rule, by, after, ended, why)
}

func (*brief) noDrop(s *state, why string) {
	s.comeOff(6, "no-drop", returnLighter, EndedNoChange, why+" Flush, then return lighter.")
}

// over: 30 s are the most of one press.
func (b *brief) over(s *state) {
	if s.running && s.base-s.last >= 1 {
		b.lift(s, 6, "window", EndedDone, fmt.Sprintf("30 s, down to %v: lift.", s.last))
		return
	}
	b.noDrop(s, "30 s without a change.")
}

func (*brief) asks(s *state) (first, again int64) {
	if s.plan.PressMaxMS > 0 {
		return neckAskMS, s.plan.AskMS
	}
	return s.plan.AskMS, s.plan.AskMS
}

// trend is asked first; the number that follows is the same answer.
func (*brief) trend(s *state, word string) string {
	s.askDue, s.askTrend = true, false
	return "Noted: " + word + ". And the number?"
}

func (*brief) trendFirst(s *state) bool { return !s.needBase }
