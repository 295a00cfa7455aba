package treat

import "fmt"

// The hand: coming on, coming off, and the flush that follows.

// contact puts the pressure clock on: at first, after a pause, at a new spot,
// for the return or the next press.
func (s *state) contact(k Kind) string {
	switch s.place {
	case "":
		if s.part.kind == PhaseRest {
			return "Recorded; the rest goes on by its own clock."
		}
		return "Already in contact."
	case PhaseDone:
		return "This hold is over; begin a new one."
	case PhasePaused:
		s.resume()
		return ""
	case PhaseFlush, PhaseReturn:
		if k == KindResume {
			return "Nothing is paused."
		}
		if s.place == PhaseFlush && s.closing && !s.pend.isReturn() && s.pend != nextPress {
			// The hold is closing, yet someone presses: the clock must know.
			s.place = ""
			s.say(11, "Come off: this hold is closing.", "Only flushing belongs here now.", ReleaseSlowly)
			return ""
		}
	default:
		if k == KindResume {
			return "Nothing is paused."
		}
	}
	back := s.pend.isReturn()
	s.handOn()
	s.closing, s.sinks = false, 0
	if back {
		s.comeBack()
		return ""
	}
	s.pend = nothing
	s.say(0, fmt.Sprintf("Settle in, press to %v of 10.", s.limits.Target), "Contact: the pressure clock runs.",
		SettleIn)
	s.strategy.begin(s)
	return ""
}

func (s *state) handOn() {
	s.place = ""
	s.answeredAt, s.answered, s.askDue, s.askAfter = s.now, false, false, false
	s.needBase, s.off, s.checking = true, false, false
}

// resume presses again after a pause.
func (s *state) resume() {
	s.handOn()
	if s.closing {
		s.say(11, "Come off slowly.", "Coming off was due before the pause.", ReleaseSlowly)
		return
	}
	s.sinks = 0
	s.say(0, fmt.Sprintf("Settle in, press to %v of 10.", s.limits.Target), "Contact: the pressure clock runs.",
		SettleIn)
	if s.part.kind == PhaseRest {
		s.part.halted = -1
		s.strategy.over(s)
		return
	}
	s.goOn()
}

// comeBack is the one return: lighter, and steady whatever the protocol was.
func (s *state) comeBack() {
	slack := s.pend == returnInSlack
	s.pend, s.returned, s.again = nothing, true, true
	s.strategy.lower(s)
	text := fmt.Sprintf("Settle in lighter, to %v.", s.limits.Target)
	if slack && !s.rules.noParts {
		text = fmt.Sprintf("Settle in lighter, to %v, the muscle in slack.", s.limits.Target)
	}
	s.say(6, text, "The return is made two below the target.", SettleIn)
	s.strategy.begin(s)
}

// comeOff advises the release; what waits behind the flush is after.
func (s *state) comeOff(rule int, by string, after pending, ended Ended, reason string) {
	held := s.pressing()
	s.endStage(by)
	s.leave()
	s.closing, s.checking, s.off, s.pend, s.ended = true, false, false, after, ended
	s.askDue = s.askDue && s.askAfter
	if after == traceBack {
		s.traceBack = true
	}
	if !held {
		s.say(rule, "", reason)
		s.flush()
		return
	}
	s.say(rule, "Come off slowly.", reason, ReleaseSlowly)
}

// release is rule 11: after every release comes a flush.
func (s *state) release() string {
	switch s.place {
	case "", PhasePaused, PhaseMovedOff:
	case PhaseFlush, PhaseReturn, PhaseDone, PhaseReady:
		return "Not pressing: nothing to let go."
	}
	if s.place == "" && s.part.kind == PhaseRest {
		return "Recorded; the rest goes on by its own clock."
	}
	if s.running {
		counted := s.open.counted
		s.endStage("let-go")
		s.again = s.again || counted
	}
	if !s.closing {
		s.ended = EndedLetGo
	}
	s.leave()
	s.flush()
	return ""
}

// flush begins the flush; 15 s where the hand comes back, and on the front of
// the neck.
func (s *state) flush() {
	s.place, s.checking, s.off = PhaseFlush, false, false
	s.flushEnd = s.now + flushFor
	if s.plan.PressMaxMS > 0 {
		s.flushEnd = s.now + flushBeforeBack
	}
	switch s.pend {
	case returnLighter, returnInSlack:
		s.flushEnd = s.now + flushBeforeBack
		s.say(11, "Flush 15 s, then return lighter.", s.reason, Flush)
	case nextPress:
		s.flushEnd = s.now + flushBeforeBack
		s.say(11, "Flush 15 s, then press again.", s.reason, Flush)
	case traceBack:
		s.say(11, "Flush 20–30 s, then trace back.", s.reason, Flush)
	default:
		s.say(11, "Flush 20–30 s with long strokes.", s.reason, Flush)
	}
}

// flushed is the end of a flush: done, or what was pending.
func (s *state) flushed() {
	s.askDue, s.askAfter = false, false
	switch s.pend {
	case returnLighter:
		s.place = PhaseReturn
		s.say(6, "Return, two lighter.", "It did not let go at this pressure.", ReturnLighter)
	case returnInSlack:
		s.place = PhaseReturn
		s.say(8, "Return lighter, the muscle in slack.", "It guarded at this pressure.", ReturnLighter)
	case nextPress:
		s.place = PhaseReady
		s.say(0, "Press again, from another angle.",
			fmt.Sprintf("Press %d of %d is next.", s.course.rep+1, s.strategy.reps(s)), ChangeAngle, NextRep)
	case traceBack:
		s.place = PhaseDone
		why := "It did not let go, nor on the return."
		if !s.returned {
			why = "It did not let go."
		}
		s.say(6, "Trace back: where does it come from?", why, TraceBack)
	default:
		s.place = PhaseDone
		s.say(11, "Done.", s.reason, Done)
	}
}
