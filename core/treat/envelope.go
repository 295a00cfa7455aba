package treat

import (
	"fmt"

	"mokren/core/ids"
)

// The envelope: what holds in every protocol. The number that a rule gives to
// say is the number under which people and tests know it:
//
//	1 asking          4 drop: deepen      7 rising score     10 slipped, twitch
//	2 ceilings        5 calm: come off    8 guarding          11 flush, then what waited
//	3 too little      6 window over       9 nerve, pulse, stop
//
// Rules 4 and 6 are of graded stages; see stages.go. Scores are in scores.go.

// What a word is answered with where it changes nothing.

func nothingPaused(*state, Event) string { return "Nothing is paused." }

func isOver(*state, Event) string { return "This hold is over; begin a new one." }

func notPressing(*state, Event) string { return "Not pressing: nothing to let go." }

func nothingPressed(*state, Event) string { return "Noted." }

func comeOffFirst(*state, Event) string { return "Recorded; come off first." }

func pressureKept(*state, Event) string { return "Pressure recorded." }

// begunAlready: a log has one start, which carries plan and limits. A second one could change
// them.
func begunAlready(*state, Event) string {
	return "This hold has begun already; a start in the middle changes nothing."
}

// answer begins the clocks of rule 1 again: the next question, and the 30 s of silence. Any
// answer does, also one that changes nothing else: somebody is there and speaks.
func (s *state) answer() {
	s.asked.since, s.asked.answered, s.asked.due = s.now, true, false
}

// answerTooLate is a word while coming off. It shows that somebody is there, and changes
// nothing else.
func (s *state) answerTooLate(e Event) string {
	s.answer()
	return comeOffFirst(s, e)
}

// scoreInPause keeps a score that is said without pressure, so that the next deepening knows
// of it.
func (s *state) scoreInPause(e Event) string {
	s.heard(e.Score) // what hurts in a pause deepens nothing after it
	return nothingPressed(s, e)
}

// twitch is kept for the record. Under pressure the advice is not to look for it again:
// chasing it irritates the spot.
func (s *state) twitch(Event) string {
	s.kept.twitch = true
	if s.pressing() && s.phase != PhaseRelease {
		s.say(10, "Hold. Do not look for it again.", "A twitch was felt; chasing it irritates the spot.", Hold)
		return ""
	}
	return "Twitch recorded."
}

// refer keeps the regions where pressing is felt, each once. It never changes how the hold
// goes.
func (s *state) refer(e Event) string {
	for _, r := range e.Regions {
		s.kept.referral = ids.With(s.kept.referral, r)
	}
	return ""
}

// slip: the hand has slipped off the spot.
func (s *state) slip(Event) string {
	if !s.pressing() {
		return "Nothing is pressed: recorded."
	}
	s.interrupt("off-spot")
	s.phase = PhaseOffSpot
	s.say(10, "Find the spot again.", "Slipped off: the stage waits, the pressure clock runs on.", AskStillOn)
	s.said.ask = "Still on it?"
	return ""
}

// backOn takes the part up again after slipping off. The place may be another by some
// millimetres, so the next score is a new baseline.
func (s *state) backOn(Event) string {
	s.answer()
	s.backInPart()
	s.needBase = true
	s.goOn()
	s.say(10, "Back on it: ask for the number.", "After slipping off a new baseline is needed.", AskScore)
	s.said.ask = askScore
	return ""
}

// fallConfirmed: still on it, so the sudden fall is real.
func (s *state) fallConfirmed(Event) string {
	s.answer()
	s.backInPart()
	s.strategy.judged(s)
	return ""
}

// stillOn is an answer that nobody asked for; it counts as one.
func (s *state) stillOn(Event) string {
	s.answer()
	return "Still on it."
}

// newAngle breaks the comparison: pressure from another side is another pressure.
func (s *state) newAngle(Event) string {
	s.breakStage("angle")
	s.say(0, "New angle: ask for the number again.",
		"Another angle is another pressure, so it needs its own baseline.", Hold)
	return ""
}

// pause lets all clocks stand. Nothing else does: a question, a slip and a rest have clocks
// that run on.
func (s *state) pause(Event) string {
	s.interrupt("paused")
	s.phase = PhasePaused
	s.say(0, "Paused. Resume with contact.", "The pressure clock stands.", Rest)
	return ""
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
	if s.repAt > 0 && s.now-s.repAt <= second {
		return "Within a second of the last one: recorded only."
	}
	early := 3*(s.now-p.from) < p.until-p.from
	if early && p.again {
		return "This part was begun again once: recorded only."
	}
	s.repAt = s.now
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

// measure is a range in degrees, by which a lengthening is judged.
func (s *state) measure(e Event) string {
	s.kept.ranges = append(s.kept.ranges, e.Degrees)
	if m, ok := s.strategy.(measures); ok && s.inPart() {
		return m.measured(s)
	}
	return "Range recorded."
}

// end closes the log.
func (s *state) end(Event) string {
	s.closed = true
	if s.underWay() || s.phase == PhasePaused {
		s.endStage("let-go")
		s.leave()
	}
	if s.ended == "" {
		s.ended = EndedLetGo
	}
	s.phase, s.pend = PhaseDone, nothing
	s.say(0, "Done.", "The log is closed.", Done)
	return ""
}

// silence is the second half of rule 1: after 30 s without an answer nobody knows how it is,
// so the hold ends.
func (s *state) silence() {
	s.comeOff(1, "silence", nothing, EndedSilence, "30 s without an answer.")
}

// reachCap: the pressing that one hold allows is used up. No return and no further press come
// after it.
func (s *state) reachCap() {
	s.cappedAt = s.now
	if s.pend.isReturn() || s.pend == nextPress {
		s.pend = nothing
	}
	if c, ok := s.strategy.(judgesCap); ok {
		c.capped(s)
		return
	}
	s.atCap(s.pend)
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

// reachTotal: what is not bounded by a pressure clock is bounded by time.
func (s *state) reachTotal() {
	s.comeOff(0, "cap", nothing, EndedCap, fmt.Sprintf("%v s is the limit for this.", seconds(s.plan.TotalMS)))
}

// pressedLongEnough: nothing is pressed longer than this at a time here.
func (s *state) pressedLongEnough() {
	p := s.strategy.progress(s)
	after := nothing
	switch {
	case s.pend == traceBack:
		after = traceBack
	case p.rep < p.reps && !s.returned:
		after = nextPress
	}
	s.comeOff(0, "cap", after, EndedCap,
		fmt.Sprintf("%v s at a time are the limit here.", seconds(s.plan.PressMaxMS)))
}

// ease is one step lighter at once, while the clock runs on. The stage is broken, for its
// scores were of another pressure; it begins again at the next baseline. In a rest the next
// press is what becomes lighter.
func (s *state) ease(rule int, text, reason string) {
	s.breakStage("eased")
	s.kept.eased++
	if s.part.kind == PhaseRest {
		s.lighter()
		s.say(rule, "The next press is lighter.", reason, Rest)
		return
	}
	s.say(rule, text, reason, EaseOff)
	s.lighter()
}

// trend takes less, same or more. More at the same pressure is a rise, unless the force itself
// grows; the second rise ends the hold.
func (s *state) trend(e Event) string {
	s.answer()
	if e.Word != "more" {
		if t, ok := s.strategy.(takesTrend); ok {
			return t.trend(s, e.Word)
		}
		return "Noted: " + e.Word + "."
	}
	if r, ok := s.strategy.(expectsMore); ok && r.takesMore(s) {
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

// soften is softening under the hand.
func (s *state) soften(Event) string {
	s.answer()
	if t, ok := s.strategy.(softens); ok {
		return t.softened(s)
	}
	return "Softening noted; this protocol does not end by it."
}

// guard is rule 8: the muscle tenses against the hand. The first time it is eased; the second
// time the hold ends, with one return in slack where the protocol has one.
func (s *state) guard(Event) string {
	s.guards++
	if s.guards < 2 {
		s.ease(8, "Ease off until the guarding stops.", "The muscle tenses against the hand.")
		if g, ok := s.strategy.(mindsGuarding); ok {
			g.guarded(s)
		}
		return ""
	}
	after := nothing
	reason := "Guarding again."
	if !s.returned && s.plan.Returns && s.part.kind != PhaseBroad {
		after = returnInSlack
		reason = "Guarding again: flush, then return lighter with the muscle in slack."
	}
	s.comeOff(8, "guard", after, EndedEased, reason)
	return ""
}

// interrupt breaks what runs; the part's clock stands until the hand is back. The pressure
// clock stands in a pause only: a hand that has slipped off still presses somewhere.
func (s *state) interrupt(by string) {
	s.breakStage(by)
	s.halt()
}

// breakStage ends a comparison; the same stage begins again at the next
// baseline.
func (s *state) breakStage(by string) {
	if s.compared.runs && s.stages.open.counted {
		s.endStage(by)
		s.stages.again = true
	}
	if s.phase == PhaseCheck {
		s.backInPart()
		s.goOn()
	}
	s.needBase = true
	s.startOver()
	if parts[s.part.kind].settles {
		s.enter(PhaseSettle, s.settlesFor())
	}
}

// settlesFor is how long a broken stage waits for a new baseline, in ms.
func (s *state) settlesFor() int64 {
	if w, ok := s.strategy.(waits); ok {
		return w.settles(s)
	}
	return never
}

// endStage closes the stretch that is compared. One that is counted goes into the record with
// how it ended.
func (s *state) endStage(by string) {
	if !s.compared.runs {
		return
	}
	s.compared.runs = false
	if !s.stages.open.counted {
		return
	}
	s.stages.open.EndS, s.stages.open.EndedBy = seconds(s.now), by
	s.stages.ended = append(s.stages.ended, s.stages.open.StageRecord)
	s.stages.open = openStage{}
}
