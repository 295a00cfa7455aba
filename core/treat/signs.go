package treat

// keepOff is the first half of rule 9.
func (s *state) keepOff(e Event) string {
	s.sign(e)
	what := "A nerve is under the finger"
	if e.Kind == KindPulse {
		s.pulses++
		what = "A vessel is under the finger"
	} else {
		s.nerves++
	}
	s.closeSite()
	if s.place == PhaseDone {
		return "Recorded. The hold is over; keep off this place."
	}
	s.endStage("moved-off")
	s.leave()
	if s.nerves >= 2 {
		s.place, s.ended = PhaseStopped, EndedStopped
		s.say(9, "Off now, and stop here for today.", "A nerve sign for the second time: this site is closed today.",
			MoveOff, Stop)
		return ""
	}
	if s.pulses >= 3 {
		s.place, s.ended = PhaseStopped, EndedStopped
		s.say(9, "Off now, and stop here.", "A pulse for the third time.", Stop)
		return ""
	}
	s.off, s.checking, s.needBase, s.again = false, false, true, false
	s.stage, s.sinks = 0, 0
	if s.place == PhaseFlush && !s.rules.signInFlushIgnored {
		return s.signInFlush(what)
	}
	s.pend = nothing
	if s.place == PhaseFlush {
		return what + ": recorded; keep off it while flushing."
	}
	s.place, s.closing, s.ended = PhaseMovedOff, false, EndedMovedOff
	s.spotBase = nil
	s.strategy.newSpot(s)
	s.say(9, "Off at once; move 1–2 cm and find it again.", what+".", MoveOff)
	if s.capped {
		s.place, s.closing, s.flushEnd = PhaseFlush, true, s.now+flushFor
		s.say(9, "Off at once; then flush.", what+", and the time for this hold is used.", MoveOff, Flush)
	}
	return ""
}

// signInFlush takes a pending return away: nobody goes back onto a nerve or a
// vessel. Tracing back stays pending.
func (s *state) signInFlush(what string) string {
	if !s.pend.isReturn() && s.pend != nextPress {
		return what + ": recorded; keep off it while flushing."
	}
	s.pend = nothing
	s.say(9, "Keep off this spot; do not return to it.", what+": the return is off.", MoveOff, Flush)
	return ""
}

// closeSite notes that no more pressure belongs here today (handbook: a second
// nerve sign, a third pulse, feeling unwell, a skin reaction).
func (s *state) closeSite() {
	if s.nerves >= 2 || s.pulses >= 3 && !s.rules.twoNervesClose {
		s.siteClosed = true
	}
}

// stop is the second half of rule 9; it is final.
func (s *state) stop(e Event) {
	if e.Kind != KindClientStop && !s.rules.twoNervesClose {
		s.siteClosed = true
	}
	s.endStage("stop")
	s.leave()
	s.place, s.pend, s.ended = PhaseStopped, nothing, EndedStopped
	switch e.Kind {
	case KindUnwell:
		s.say(9, "Stop. Off now; let the client sit up slowly.",
			"The client feels unwell: the neck is closed for today, screen again.", Stop)
	case KindSkinReaction:
		s.say(9, "Stop. Off now.", "Spreading redness or welts.", Stop)
	default:
		s.say(9, "Stop. Off now.", "The client says stop.", Stop)
	}
}

func (s *state) sign(e Event) {
	name := string(e.Kind)
	if e.Word != "" {
		name += ":" + e.Word
	}
	s.signs = append(s.signs, name)
}
