package treat

import (
	"fmt"

	"mokren/core/ids"
)

// The envelope: what holds in every protocol. The number that a rule gives to
// say is the number under which people and tests know it:
//
//	1 asking          4 drop: deepen      7 rising number     10 slipped, twitch
//	2 ceilings        5 calm: come off    8 guarding          11 flush, then what waited
//	3 too little      6 window over       9 nerve, pulse, stop
//
// Rules 4 and 6 are of graded stages; see stages.go. Numbers are in numbers.go.

// apply lets one event act. It returns why the event changed nothing, or "".
func (s *state) apply(e Event) (ignored string) {
	if s.place == PhaseStopped || s.over {
		return s.afterStop(e)
	}
	switch e.Kind {
	case KindStart:
		return "This hold has begun already; a start in the middle changes nothing."
	case KindContact, KindResume:
		return s.contact(e.Kind)
	case KindRelease:
		return s.release()
	case KindNerveSign, KindPulse:
		return s.keepOff(e)
	case KindUnwell, KindSkinReaction, KindClientStop:
		s.sign(e)
		s.stop(e)
		return ""
	case KindReferral:
		s.refer(e)
		return ""
	case KindPressure:
		return "Pressure recorded."
	case KindBreath, KindRep:
		return s.pace(e)
	case KindRange:
		return s.measured(e.Degrees)
	case KindTwitch:
		s.twitch = true
		if s.pressing() && !s.closing {
			s.say(10, "Hold. Do not look for it again.", "A twitch was felt; chasing it irritates the spot.", Hold)
			return ""
		}
		return "Twitch recorded."
	case KindEnd:
		s.end()
		return ""
	}
	if s.place != "" {
		if s.place == PhasePaused && e.Kind == KindScore {
			s.heard(e.Score) // what hurts in a pause deepens nothing after it
		}
		return "Not pressing: recorded, nothing changes."
	}
	return s.applyInPart(e)
}

// applyInPart lets an event act that means something while a part runs.
func (s *state) applyInPart(e Event) (ignored string) {
	switch e.Kind {
	case KindScore:
		return s.score(e.Score)
	case KindTrend:
		s.answer()
		return s.trend(e.Word)
	case KindSoftening:
		s.answer()
		return s.strategy.softened(s)
	case KindOnSpot:
		s.answer()
		return s.onSpot()
	}
	if s.closing {
		return "Recorded; come off first."
	}
	switch e.Kind {
	case KindGuard:
		s.guard()
	case KindOffSpot:
		if !s.pressing() {
			return "Nothing is pressed: recorded."
		}
		s.interrupt("off-spot")
		s.off, s.checking = true, false
		s.say(10, "Find the spot again.", "Slipped off: the stage waits, the pressure clock runs on.", AskStillOn)
		s.ask = "Still on it?"
	case KindAngleChange:
		s.newAngle()
	case KindPause:
		s.interrupt("paused")
		s.place = PhasePaused
		s.say(0, "Paused. Resume with contact.", "The pressure clock stands.", Rest)
	}
	return ""
}

func (s *state) newAngle() {
	s.breakStage("angle")
	s.say(0, "New angle: ask for the number again.",
		"Another angle is another pressure, so it needs its own baseline.", Hold)
}

// pace is a rep or an out-breath of the therapist's own. In the first third of
// a part it begins it again, once; later it ends it.
func (s *state) pace(e Event) string {
	p, can := s.part, parts[s.part.kind]
	acts := e.Kind == KindRep && can.byRep ||
		e.Word == "out" && (can.byBreath || p.kind == PhaseLengthen && s.plan.ByBreath)
	if !acts || !s.inPart() || p.halted >= 0 || p.until == never {
		return s.rules.recordOnly(e.Kind)
	}
	if s.course.repAt > 0 && s.now-s.course.repAt <= second {
		return "Within a second of the last one: recorded only."
	}
	early := 3*(s.now-p.from) < p.until-p.from
	if early && p.again {
		return "This part was begun again once: recorded only."
	}
	s.course.repAt = s.now
	if early {
		s.part.again = true
		s.part.until += s.now - s.part.from
		s.part.from = s.now
		s.startOver()
		return ""
	}
	s.strategy.over(s)
	return ""
}

// measured is a range in degrees, by which a lengthening is judged.
func (s *state) measured(deg float64) string {
	s.ranges = append(s.ranges, deg)
	if s.inPart() {
		return s.strategy.measured(s)
	}
	return "Range recorded."
}

// end closes the log.
func (s *state) end() {
	s.over = true
	if s.place == "" || s.place == PhasePaused {
		s.endStage("let-go")
		s.leave()
	}
	if s.ended == "" {
		s.ended = EndedLetGo
	}
	s.place, s.pend = PhaseDone, nothing
	s.say(0, "Done.", "The log is closed.", Done)
}

func (s *state) refer(e Event) {
	for _, r := range e.Regions {
		s.referral = ids.With(s.referral, r)
	}
}

func (s *state) afterStop(e Event) string {
	switch e.Kind {
	case KindRelease:
		if s.over {
			break
		}
		s.say(11, "Stopped. Flushing strokes are allowed.", s.reason, Flush)
		return ""
	case KindNerveSign, KindPulse, KindUnwell, KindSkinReaction, KindClientStop:
		s.sign(e)
		s.countAfterStop(e)
	case KindReferral:
		s.refer(e)
	case KindEnd:
		s.over = true
	}
	if s.place != PhaseStopped {
		return "The log is closed: recorded, nothing goes on."
	}
	return "Stopped: recorded, nothing goes on. A new hold needs a fresh decision."
}

// countAfterStop: signs count after a stop too.
func (s *state) countAfterStop(e Event) {
	if s.rules.twoNervesClose {
		return
	}
	switch e.Kind {
	case KindNerveSign:
		s.nerves++
	case KindPulse:
		s.pulses++
	case KindUnwell, KindSkinReaction:
		s.siteClosed = true
	}
	s.closeSite()
}

// answer: rule 1's clocks begin again.
func (s *state) answer() {
	s.answeredAt, s.answered, s.askDue = s.now, true, false
}

// silence is the second half of rule 1.
func (s *state) silence() {
	s.comeOff(1, "silence", nothing, EndedSilence, "30 s without an answer.")
}

func (s *state) reachCap() {
	s.capped, s.cappedAt = true, s.now
	if s.pend.isReturn() || s.pend == nextPress {
		s.pend = nothing
	}
	s.strategy.capped(s)
}

// atCap is what reaching the cap is in most protocols.
func (s *state) atCap(after pending) {
	ended := s.ended
	if !s.closing {
		ended = EndedCap
	}
	s.comeOff(0, "cap", after, ended, fmt.Sprintf("%v s of pressure is the limit for this hold.",
		seconds(s.start.Limits.CapMS)))
}

func (s *state) reachTotal() {
	s.comeOff(0, "cap", nothing, EndedCap, fmt.Sprintf("%v s is the limit for this.", seconds(s.plan.TotalMS)))
}

// pressedLongEnough: nothing is pressed longer than this at a time here.
func (s *state) pressedLongEnough() {
	after := nothing
	switch {
	case s.pend == traceBack:
		after = traceBack
	case s.course.rep < s.strategy.reps(s) && !s.returned:
		after = nextPress
	}
	s.comeOff(0, "cap", after, EndedCap,
		fmt.Sprintf("%v s at a time are the limit here.", seconds(s.plan.PressMaxMS)))
}

// ease is one step lighter at once; the clock runs on.
func (s *state) ease(rule int, text, reason string) {
	s.breakStage("eased")
	s.eased++
	if s.part.kind == PhaseRest {
		s.strategy.lighter(s)
		s.say(rule, "The next press is lighter.", reason, Rest)
		return
	}
	s.say(rule, text, reason, EaseOff)
	s.strategy.lighter(s)
}

func (s *state) trend(word string) string {
	if s.closing {
		return "Recorded; come off first."
	}
	if word != "more" {
		return s.strategy.trend(s, word)
	}
	if s.strategy.takesMore(s) {
		return ""
	}
	s.rises++
	if s.rises >= 2 {
		s.comeOff(7, "eased", nothing, EndedEased, "Growing for the second time at the same pressure.")
		return ""
	}
	s.ease(7, "Ease off, it is growing.", "The client says more at the same pressure.")
	return ""
}

// guard is rule 8.
func (s *state) guard() {
	s.guards++
	if s.guards < 2 {
		s.ease(8, "Ease off until the guarding stops.", "The muscle tenses against the hand.")
		s.strategy.guarded(s)
		return
	}
	after := nothing
	reason := "Guarding again."
	if !s.returned && s.plan.Returns && s.part.kind != PhaseBroad {
		after = returnInSlack
		reason = "Guarding again: flush, then return lighter with the muscle in slack."
	}
	s.comeOff(8, "guard", after, EndedEased, reason)
}

func (s *state) onSpot() string {
	switch {
	case s.closing:
		return "Recorded; come off first."
	case s.off:
		s.off, s.needBase = false, true
		s.goOn()
		s.say(10, "Back on it: ask for the number.", "After slipping off a new baseline is needed.", AskScore)
		s.ask = askNumber
		return ""
	case s.checking:
		s.checking = false
		s.strategy.judged(s)
		return ""
	}
	return "Still on it."
}

// interrupt breaks what runs; the part's clock stands until the hand is back.
func (s *state) interrupt(by string) {
	s.breakStage(by)
	s.halt()
}

// breakStage ends a comparison; the same stage begins again at the next
// baseline.
func (s *state) breakStage(by string) {
	if s.running && s.open.counted {
		s.endStage(by)
		s.again = true
	}
	if s.checking {
		s.checking = false
		s.goOn()
	}
	s.needBase = true
	s.startOver()
	if parts[s.part.kind].settles {
		s.enter(PhaseSettle, s.strategy.settles(s))
	}
}

func (s *state) endStage(by string) {
	if !s.running {
		return
	}
	s.running = false
	if !s.open.counted {
		return
	}
	s.open.EndS, s.open.EndedBy = seconds(s.now), by
	s.stages = append(s.stages, s.open.StageRecord)
	s.open = openStage{}
}
