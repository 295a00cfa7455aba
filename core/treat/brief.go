package treat

import "fmt"

// brief is brief-holds: hold, ask again until it is low, lift, flush, and return from another
// angle.
//
// Parts: one press of at most plan.PressMS (30 s); plan.Reps of them, each behind a flush of
// its own. The trend is asked before the score. A press ends
//
//   - calm: lift, the next press or the end;
//   - after 30 s, down by one at least: lift;
//   - after three answers without a drop, or 30 s without one: the lighter return.
//
// When a later press is calm even after sinking, there is nothing left to do here.
type brief struct {
	plain
	rep     int // the press that runs or ran last, from 1
	answers int // scores of this press, the baseline among them
}

const mostAnswers = 3 // without a drop

func (b *brief) clone() strategy { k := *b; return &k }

func (*brief) atNewSpot(*state) strategy { return &brief{} }

// begin is one press. Answers are counted anew, since three without a drop are judged within a
// press.
func (b *brief) begin(s *state) {
	b.rep++
	b.answers = 0
	s.enter(PhasePress, s.plan.PressMS)
	s.say(0, fmt.Sprintf("Press to %v of 10 and hold.", s.limits.Target),
		fmt.Sprintf("Press %d of %d, at most %v s.", b.rep, s.plan.Reps, seconds(s.plan.PressMS)), SettleIn)
}

// score is a baseline first. A later press that is calm even after sinking once shows that
// the place needs no more.
func (b *brief) score(s *state, v float64) {
	if !s.needBase {
		b.answers++
		b.judged(s)
		return
	}
	if b.rep > 1 && v <= s.calm() && s.sinks >= 1 {
		s.comeOff(5, "calm", nothing, EndedDone, fmt.Sprintf("Still only %v here: done.", v))
		return
	}
	if s.tooLittle(v, s.limits.Target-1) {
		return
	}
	s.stages.again = false
	s.beginStage(v)
	b.answers = 1
	s.say(0, "Hold still.", fmt.Sprintf("Begins at %v.", v), Hold)
}

// judged ends a press early when it is calm, or when three answers showed no drop of one;
// otherwise the hold goes on to its 30 s.
func (b *brief) judged(s *state) {
	s.goOn()
	switch {
	case s.compared.last <= s.calm():
		s.believe()
		b.lift(s, 5, "calm", EndedCalm, fmt.Sprintf("Down to %v: lift.", s.compared.last))
	case s.compared.base-s.compared.last < 1 && b.answers >= mostAnswers:
		b.noDrop(s, "Three answers without a change.")
	default:
		s.holdFrom()
	}
}

// lift comes off for the next press, or for good.
func (b *brief) lift(s *state, rule int, by string, ended EndReason, why string) {
	after := nextPress
	if b.rep >= s.plan.Reps {
		after = nothing
	}
	s.comeOff(rule, by, after, ended, why)
}

// noDrop ends the press with the one lighter return: more of the same pressure would only
// irritate.
func (*brief) noDrop(s *state, why string) {
	s.comeOff(6, "no-drop", returnLighter, EndedNoChange, why+" Flush, then return lighter.")
}

// over: 30 s are the most of one press.
func (b *brief) over(s *state) {
	if s.compared.runs && s.compared.base-s.compared.last >= 1 {
		b.lift(s, 6, "window", EndedDone, fmt.Sprintf("30 s, down to %v: lift.", s.compared.last))
		return
	}
	b.noDrop(s, "30 s without a change.")
}

// asks at the plan's pace. On the front of the neck the first question comes after 5 s,
// because a press lasts 10 at most.
func (*brief) asks(s *state) (first, again int64) {
	if s.plan.PressMaxMS > 0 {
		return neckAskMS, s.plan.AskMS
	}
	return s.plan.AskMS, s.plan.AskMS
}

// trend is asked first; the score that follows is the same answer.
func (*brief) trend(s *state, word string) string {
	s.asked.due, s.asked.trend = true, false
	return "Noted: " + word + ". And the number?"
}

func (*brief) trendFirst(s *state) bool { return !s.needBase }

// progress counts presses.
func (b *brief) progress(s *state) progress {
	return progress{rep: b.rep, reps: s.plan.Reps, aim: s.limits.Target}
}
