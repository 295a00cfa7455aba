package treat

import "fmt"

// The hand: coming on, coming off, and the flush that follows.

// press begins: at first, at a new spot, for the next press or the return.
func (s *state) press(Event) string {
	back := s.pend.isReturn()
	s.handOn()
	s.closing, s.sinks = false, 0
	if back {
		s.comeBack()
		return ""
	}
	s.pend = nothing
	s.settleIn()
	s.strategy.begin(s)
	return ""
}

// settleIn is what every first press begins with; a strategy may say something of its own
// after it.
func (s *state) settleIn() {
	s.say(0, fmt.Sprintf("Press slowly to %v.", s.limits.Target), "Contact: the pressure clock runs.",
		SettleIn)
}

// pressInFlush is a press before the flush is over: what waits begins now.
func (s *state) pressInFlush(e Event) string {
	if s.closing && !s.pend.isReturn() && s.pend != nextPress {
		// The hold is closing, yet someone presses: the clock must know.
		s.phase = PhaseRelease
		s.say(11, "Come off: this hold is closing.", "Only flushing belongs here now.", ReleaseSlowly)
		return ""
	}
	return s.press(e)
}

// contactAgain is a contact while the hand is on already, or in a rest whose end the clock
// decides.
func (s *state) contactAgain(Event) string {
	if s.resting() {
		return "Recorded; the rest goes on by its own clock."
	}
	return "Already in contact."
}

// handOn: the hand is on again. A score is asked for anew, and the part that waited in a
// pause runs again; outside of a part the caller begins one or says where the hold stands.
func (s *state) handOn() {
	s.phase = s.part.kind
	s.asked = asked{since: s.now, trend: s.asked.trend}
	s.needBase = true
}

// resume presses again after a pause.
func (s *state) resume(Event) string {
	s.handOn()
	if s.closing {
		s.phase = PhaseRelease
		s.say(11, "Come off slowly.", "Coming off was due before the pause.", ReleaseSlowly)
		return ""
	}
	s.sinks = 0
	s.settleIn()
	if s.part.kind == PhaseRest {
		s.part.halted = -1
		s.strategy.over(s)
		return ""
	}
	s.goOn()
	return ""
}

// comeBack is the one return: lighter, and steady whatever the protocol was.
func (s *state) comeBack() {
	slack := s.pend == returnInSlack
	s.pend, s.returned, s.stages.again = nothing, true, true
	s.lower()
	text := fmt.Sprintf("Press slowly, lighter, to %v.", s.limits.Target)
	if slack && !s.rules.noParts {
		text = fmt.Sprintf("Press slowly, lighter, to %v, the muscle in slack.", s.limits.Target)
	}
	s.say(6, text, "The return is made two below the target.", SettleIn)
	s.strategy.begin(s)
}

// lower makes the return two lighter in everything, and steady; graded stages keep their
// way at a lower target.
func (s *state) lower() {
	if l, ok := s.strategy.(lowers); ok {
		l.lower(s)
		return
	}
	l := s.start.Limits
	l.Target = max(leastReturn, l.Target-returnLower)
	l.Soft = max(l.Target, l.Soft-returnLower)
	l.Hard = max(l.Soft, l.Hard-returnLower)
	s.limits = l
	s.strategy = &comeback{after: s.strategy.progress(s)}
}

// comeOff advises the release and closes the part. by is how a stage that runs ended, ended
// why the hold did, after what waits behind the flush. Where nothing is pressed (a rest, a
// stretch) there is nothing to release, and the flush begins at once.
func (s *state) comeOff(rule int, by string, after pending, ended EndReason, reason string) {
	held := s.pressing()
	s.endStage(by)
	s.leave()
	s.phase, s.closing, s.pend, s.ended = PhaseRelease, true, after, ended
	s.asked.due = s.asked.due && s.asked.after
	if after == traceBack {
		s.kept.traceBack = true
	}
	if !held {
		s.say(rule, "", reason)
		s.flush()
		return
	}
	s.say(rule, "Come off slowly.", reason, ReleaseSlowly)
}

// release is rule 11: after every release comes a flush. A release that nobody advised ends
// the hold as let go; a stage that was running may be taken up again at the same number.
func (s *state) release(Event) string {
	if s.resting() {
		return "Recorded; the rest goes on by its own clock."
	}
	if s.compared.runs {
		counted := s.stages.open.counted
		s.endStage("let-go")
		s.stages.again = s.stages.again || counted
	}
	if !s.closing {
		s.ended = EndedLetGo
	}
	s.leave()
	s.flush()
	return ""
}

// flush begins the flush: 20 s, but 15 where the hand comes back, and on the front of the neck.
// What waits behind it is s.pend; the words say so, for the therapist plans the next grip now.
func (s *state) flush() {
	s.phase = PhaseFlush
	s.flushEnd = s.now + flushFor
	if (s.pend.isReturn() || s.pend == nextPress) && s.tooLittleLeft() {
		s.pend = nothing
	}
	if s.plan.PressMaxMS > 0 {
		s.flushEnd = s.now + flushBeforeBack
	}
	switch s.pend {
	case returnLighter, returnInSlack:
		s.flushEnd = s.now + flushBeforeBack
		s.say(11, "Flush 15 s, then return lighter.", s.said.reason, Flush)
	case nextPress:
		s.flushEnd = s.now + flushBeforeBack
		s.say(11, "Flush 15 s, then press again.", s.said.reason, Flush)
	case traceBack:
		s.say(11, "Flush 20–30 s, then trace back.", s.said.reason, Flush)
	default:
		s.say(11, "Flush 20–30 s with long strokes.", s.said.reason, Flush)
	}
}

// tooLittleLeft: what is left of the cap is over before the first score could be asked, so
// the hand would come on only to be told to come off.
func (s *state) tooLittleLeft() bool {
	return !s.rules.pressesToTheCap && s.start.Limits.CapMS-s.pressed < firstAskAfter
}

// flushed is the end of a flush: done, or what was pending.
func (s *state) flushed() {
	s.asked.due, s.asked.after = false, false
	switch s.pend {
	case returnLighter:
		s.phase = PhaseReturn
		s.say(6, "Return, two lighter.", "It did not let go at this pressure.", ReturnLighter)
	case returnInSlack:
		s.phase = PhaseReturn
		s.say(8, "Return lighter, the muscle in slack.", "It guarded at this pressure.", ReturnLighter)
	case nextPress:
		s.phase = PhaseReady
		p := s.strategy.progress(s)
		s.say(0, "Press again, from another angle.",
			fmt.Sprintf("Press %d of %d is next.", p.rep+1, p.reps), ChangeAngle, NextRep)
	case traceBack:
		s.phase = PhaseDone
		why := "It did not let go, nor on the return."
		if !s.returned {
			why = "It did not let go."
		}
		s.say(6, "Trace back: where does it come from?", why, TraceBack)
	default:
		s.phase = PhaseDone
		s.say(11, "Done.", s.said.reason, Done)
	}
}
