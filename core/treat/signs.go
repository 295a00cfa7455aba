package treat

// keepOff is the first half of rule 9: a sign of a nerve, or a pulse, under the finger. The
// hand comes off at once and looks for the spot 1 to 2 cm further; all that is known of the
// old spot is forgotten. The second nerve sign, or the third pulse, ends the hold and closes
// the place for today.
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
	if s.phase == PhaseDone {
		return "Recorded. The hold is over; keep off this place."
	}
	s.endStage("moved-off")
	s.leave()
	if s.nerves >= 2 {
		s.phase, s.ended = PhaseStopped, EndedStopped
		s.say(9, "Off now, and stop here for today.", "A nerve sign for the second time: this site is closed today.",
			MoveOff, Stop)
		return ""
	}
	if s.pulses >= 3 {
		s.phase, s.ended = PhaseStopped, EndedStopped
		s.say(9, "Off now, and stop here.", "A pulse for the third time.", Stop)
		return ""
	}
	s.needBase, s.sinks = true, 0
	s.stages.number, s.stages.again = 0, false
	if s.phase == PhaseFlush && !s.rules.signInFlushIgnored {
		return s.signInFlush(what)
	}
	s.pend = nothing
	if s.phase == PhaseFlush {
		return what + ": recorded; keep off it while flushing."
	}
	s.phase, s.closing, s.ended = PhaseMovedOff, false, EndedMovedOff
	s.spotBase = nil
	s.newSpot()
	s.say(9, "Off at once; move 1–2 cm and find it again.", what+".", MoveOff)
	if s.capped() {
		s.phase, s.closing, s.flushEnd = PhaseFlush, true, s.now+flushFor
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
		s.kept.siteClosed = true
	}
}

// stop is the second half of rule 9: the client says stop, feels unwell, or the skin reacts.
// It is final: no undo takes it back, and a new hold needs a fresh decision. Feeling unwell
// and a skin reaction close the place for today as well.
func (s *state) stop(e Event) string {
	s.sign(e)
	if e.Kind != KindClientStop && !s.rules.twoNervesClose {
		s.kept.siteClosed = true
	}
	s.endStage("stop")
	s.leave()
	s.phase, s.pend, s.ended = PhaseStopped, nothing, EndedStopped
	switch e.Kind {
	case KindUnwell:
		s.say(9, "Stop. Off now; let the client sit up slowly.",
			"The client feels unwell: the neck is closed for today, screen again.", Stop)
	case KindSkinReaction:
		s.say(9, "Stop. Off now.", "Spreading redness or welts.", Stop)
	default:
		s.say(9, "Stop. Off now.", "The client says stop.", Stop)
	}
	return ""
}

// Afterwards signs are counted and referral is kept; nothing else happens.

// recordOnly says why nothing goes on: the hold was stopped, or its log is closed.
func (s *state) recordOnly(Event) string {
	if s.phase != PhaseStopped {
		return "The log is closed: recorded, nothing goes on."
	}
	return "Stopped: recorded, nothing goes on. A new hold needs a fresh decision."
}

// flushAfterStop answers a release after a stop: strokes that bring blood back do no harm.
func (s *state) flushAfterStop(Event) string {
	s.say(11, "Stopped. Flushing strokes are allowed.", s.said.reason, Flush)
	return ""
}

// referAfter keeps where it was felt, also when that is said late.
func (s *state) referAfter(e Event) string {
	s.refer(e)
	return s.recordOnly(e)
}

// endAfter closes the log of a stopped hold; it stays stopped.
func (s *state) endAfter(e Event) string {
	s.closed = true
	return s.recordOnly(e)
}

// signAfter counts a sign that is said late. It can close the place, and never opens it.
func (s *state) signAfter(e Event) string {
	s.sign(e)
	if s.rules.twoNervesClose {
		return s.recordOnly(e)
	}
	switch e.Kind {
	case KindNerveSign:
		s.nerves++
	case KindPulse:
		s.pulses++
	case KindUnwell, KindSkinReaction:
		s.kept.siteClosed = true
	}
	s.closeSite()
	return s.recordOnly(e)
}

// sign keeps a sign for the summary, by which the client's record is closed or asked.
func (s *state) sign(e Event) {
	name := string(e.Kind)
	if e.Word != "" {
		name += ":" + e.Word
	}
	s.kept.signs = append(s.kept.signs, name)
}
