package treat

import (
	"fmt"

	"mokren/core/ids"
)

// The numbered rules of the coach for graded stages. The number that a rule
// gives to say is the number under which people and tests know it:
//
//	1 asking          4 drop: deepen      7 rising number     10 slipped, twitch
//	2 ceilings        5 calm: come off    8 guarding          11 flush, then what waited
//	3 too little      6 window over       9 nerve, pulse, stop

// apply lets one event act. It returns why the event changed nothing, or "".
func (s *state) apply(e Event) (ignored string) {
	if s.place == PhaseStopped {
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
		for _, r := range e.Regions {
			s.referral = ids.With(s.referral, r)
		}
		return ""
	case KindPressure, KindBreath, KindRep:
		return s.recordOnly(e)
	case KindTwitch:
		s.twitch = true
		if s.pressing() && !s.closing {
			s.say(10, "Hold. Do not look for it again.", "A twitch was felt; chasing it irritates the spot.", Hold)
			return ""
		}
		return "Twitch recorded."
	}
	if !s.pressing() {
		return "Not pressing: recorded, nothing changes."
	}
	return s.applyPressing(e)
}

// applyPressing lets an event act that means something under pressure only.
func (s *state) applyPressing(e Event) (ignored string) {
	switch e.Kind {
	case KindScore:
		return s.score(e.Score)
	case KindTrend:
		s.answer()
		return s.trend(e.Word)
	case KindSoftening:
		s.answer()
		return "Softening noted; graded stages end by the client's number."
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
		s.interrupt("off-spot")
		s.off, s.checking = true, false
		s.say(10, "Find the spot again.", "Slipped off: the stage waits, the pressure clock runs on.", AskStillOn)
		s.ask = "Still on it?"
	case KindAngleChange:
		s.interrupt("angle")
		s.say(0, "New angle: ask for the number again.",
			"Another angle is another pressure, so it needs its own baseline.", Hold)
	case KindPause:
		s.interrupt("paused")
		s.place = PhasePaused
		s.say(0, "Paused. Resume with contact.", "The pressure clock stands.", Rest)
	}
	return ""
}

// recordOnly is for events that graded stages keep but do not act on.
func (s *state) recordOnly(e Event) string {
	return map[Kind]string{
		KindPressure: "Pressure recorded.",
		KindBreath:   "Breath recorded.",
		KindRep:      "Recorded; graded stages count no repetitions.",
	}[e.Kind]
}

func (s *state) afterStop(e Event) string {
	switch e.Kind {
	case KindRelease:
		s.say(11, "Stopped. Flushing strokes are allowed.", s.reason, Flush)
		return ""
	case KindNerveSign, KindPulse, KindUnwell, KindSkinReaction, KindClientStop:
		s.sign(e)
		s.countAfterStop(e)
	case KindReferral:
		for _, r := range e.Regions {
			s.referral = ids.With(s.referral, r)
		}
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

// contact puts the pressure clock on: at first, after a pause, at a new spot,
// for the return.
func (s *state) contact(k Kind) string {
	switch s.place {
	case "":
		return "Already in contact."
	case PhaseDone:
		return "This hold is over; begin a new one."
	case PhasePaused:
	case PhaseFlush, PhaseReturn:
		if k == KindResume {
			return "Nothing is paused."
		}
		if s.place == PhaseFlush && s.closing && s.pend != returnLighter && s.pend != returnInSlack {
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
	back := s.pend == returnLighter || s.pend == returnInSlack
	resumed := s.place == PhasePaused
	s.place = ""
	s.answeredAt, s.answered, s.askDue = s.now, false, false
	s.needBase, s.off, s.checking = true, false, false
	if resumed && s.closing {
		s.say(11, "Come off slowly.", "Coming off was due before the pause.", ReleaseSlowly)
		return ""
	}
	s.closing, s.sinks = false, 0
	if back {
		s.pend, s.returned, s.again = nothing, true, true
		s.target = max(1, s.start.Limits.Target-returnLower)
		s.say(6, fmt.Sprintf("Settle in lighter, to %v.", s.target), "The return is made two below the target.",
			SettleIn)
		return ""
	}
	s.say(0, fmt.Sprintf("Settle in, press to %v of 10.", s.target), "Contact: the pressure clock runs.", SettleIn)
	return ""
}

func (s *state) answer() {
	s.answeredAt, s.answered, s.askDue = s.now, true, false
}

// score: rules 2 to 7 in order of caution.
func (s *state) score(v float64) string {
	s.answer()
	s.trace = append(s.trace, TracePoint{seconds(s.now), v})
	s.highest = max(s.highest, v)
	s.lastScore = &v
	if s.closing {
		return "Number recorded; come off first."
	}
	lim := s.start.Limits
	rise := s.running && v >= s.last+1
	if s.running {
		s.last = v
		s.open.EndScore = v
	}
	if rise {
		s.rises++
	}
	if v > lim.Hard {
		s.overHard++
	}
	switch {
	case v > lim.Hard && s.overHard >= 2:
		s.gentler = "slow-ramp"
		s.comeOff(2, "eased", nothing, fmt.Sprintf("Above %v for the second time: change to a gentler protocol, "+
			"slow ramp.", lim.Hard))
	case rise && s.rises >= 2:
		s.comeOff(7, "eased", nothing, "The number rose at the same pressure for the second time.")
	case v > lim.Soft:
		s.ease(2, fmt.Sprintf("Ease off, %v is too much.", v),
			fmt.Sprintf("%v is above the %s ceiling of %v.", v, ceilingName(v, lim.Hard),
				ceiling(v, lim.Soft, lim.Hard)))
	case rise:
		s.ease(7, "Ease off, it is rising.", fmt.Sprintf("Up to %v at the same pressure.", v))
	case s.off:
		return "Number recorded; it counts again when you are back on the spot."
	case s.needBase:
		s.baseline(v)
	default:
		s.inStage(v)
	}
	return ""
}

func ceilingName(v, hard float64) string {
	if v > hard {
		return "hard"
	}
	return "soft"
}

func ceiling(v, soft, hard float64) float64 {
	if v > hard {
		return hard
	}
	return soft
}

// baseline begins a stage, or sinks when the number is too low (rule 3).
func (s *state) baseline(v float64) {
	switch {
	case v <= calmScore && s.sinks >= 2:
		s.comeOff(3, "", nothing, "Not tender enough today: still 2 or less after sinking twice.")
		s.advice = append(s.advice, Flush)
	case v < s.target-1:
		s.sinks++
		s.say(3, "Sink a little.", fmt.Sprintf("%v is below %v; the stage begins at %v.", v, s.target-1, s.target-1),
			SinkSlightly)
	default:
		if !s.again {
			s.stage++
		}
		s.stage = max(s.stage, 1)
		s.again, s.needBase, s.running, s.extended, s.sinks = false, false, true, false, 0
		s.base, s.last = v, v
		s.stageFrom, s.windowEnd = s.now, s.now+stageWindow
		s.since = []given{{s.now, v}}
		s.open = StageRecord{
			Stage: s.stage, StartS: seconds(s.now), EndS: seconds(s.now),
			StartScore: v, EndScore: v,
		}
		s.say(0, "Hold still.", fmt.Sprintf("Stage %d begins at %v.", s.stage, v), Hold)
	}
}

// inStage takes a number at the same pressure.
func (s *state) inStage(v float64) {
	sudden := s.fellSuddenly(v)
	s.since = append(s.since, given{s.now, v})
	s.checking = sudden
	if sudden {
		s.say(5, "Still on it? Any numbness?", "A fall of 4 or more within 5 s: ask before believing it.", AskStillOn)
		s.ask = "Still on it? Any numbness?"
		return
	}
	s.judge()
}

// fellSuddenly reports a fall of 4 or more within 5 s at the same pressure.
func (s *state) fellSuddenly(v float64) bool {
	for i := len(s.since) - 1; i >= 0; i-- {
		p := s.since[i]
		within := s.now-p.at <= suddenWithin
		if s.rules.suddenInFloats {
			within = seconds(s.now)-seconds(p.at) <= suddenWithin/1000
		}
		if !within {
			return false // what came before lies further back
		}
		if p.score-v >= suddenFall {
			return true
		}
	}
	return false
}

// judge decides what the last number of a stage means.
func (s *state) judge() {
	drop := s.base - s.last
	switch {
	case s.last <= calmScore:
		s.released = true
		s.comeOff(5, "calm", nothing, fmt.Sprintf("Down to %v: let go.", s.last))
	case drop >= 2 && s.now-s.stageFrom >= stageMin:
		s.stageDone("drop", fmt.Sprintf("Down %v from %v.", drop, s.base))
	case s.now >= s.windowEnd:
		s.windowOver()
	case drop >= 2:
		s.say(4, "Hold still.", fmt.Sprintf("Down %v from %v; a stage lasts at least 20 s.", drop, s.base), Hold)
	default:
		s.say(0, "Hold still.", fmt.Sprintf("%v, from %v.", s.last, s.base), Hold)
	}
}

// stageDone is rule 4: deepen while a stage is left, else come off.
func (s *state) stageDone(by, why string) {
	if s.stage < maxStages {
		s.endStage(by)
		s.needBase, s.again = true, false
		s.say(4, "On the out-breath, sink to your number again.",
			why+fmt.Sprintf(" Stage %d of %d is next.", s.stage+1, maxStages), Deepen)
		return
	}
	s.comeOff(4, by, nothing, why+" All stages are used.")
}

// windowOver is rule 6.
func (s *state) windowOver() {
	drop := s.base - s.last
	switch {
	case s.extended:
		s.stageDone("window", fmt.Sprintf("45 s with a drop of %v.", drop))
	case drop >= 2:
		s.stageDone("drop", fmt.Sprintf("Down %v from %v.", drop, s.base))
	case drop >= 1:
		s.extended = true
		s.windowEnd += stageExtra
		s.say(6, "Hold 15 s more.", fmt.Sprintf("Down only %v in 30 s.", drop), Hold)
	case s.returned:
		s.comeOff(6, "no-drop", traceBack, "No change on the return either: look for where it comes from.")
	default:
		s.comeOff(6, "no-drop", returnLighter, "No change in 30 s: flush, then return lighter.")
	}
}

// silence is the second half of rule 1.
func (s *state) silence() {
	s.comeOff(1, "silence", nothing, "30 s without an answer.")
}

func (s *state) reachCap() {
	s.capped = true
	if s.pend == returnLighter || s.pend == returnInSlack {
		s.pend = nothing
	}
	s.comeOff(0, "cap", s.pend, fmt.Sprintf("%v s of pressure is the limit for this hold.",
		seconds(s.start.Limits.CapMS)))
}

func (s *state) ease(rule int, text, reason string) {
	s.interrupt("eased")
	s.eased++
	s.say(rule, text, reason, EaseOff)
}

func (s *state) trend(word string) string {
	if s.closing {
		return "Recorded; come off first."
	}
	if word != "more" {
		return "Noted: " + word + "."
	}
	s.rises++
	if s.rises >= 2 {
		s.comeOff(7, "eased", nothing, "Growing for the second time at the same pressure.")
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
		return
	}
	after := pending(nothing)
	reason := "Guarding again."
	if !s.returned {
		after = returnInSlack
		reason = "Guarding again: flush, then return lighter with the muscle in slack."
	}
	s.comeOff(8, "guard", after, reason)
}

func (s *state) onSpot() string {
	switch {
	case s.closing:
		return "Recorded; come off first."
	case s.off:
		s.off, s.needBase = false, true
		s.say(10, "Back on it: ask for the number.", "After slipping off a new baseline is needed.", AskScore)
		s.ask = "What is your number now?"
		return ""
	case s.checking:
		s.checking = false
		s.judge()
		return ""
	}
	return "Still on it."
}

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
	if s.nerves >= 2 {
		s.place = PhaseStopped
		s.say(9, "Off now, and stop here for today.", "A nerve sign for the second time: this site is closed today.",
			MoveOff, Stop)
		return ""
	}
	if s.pulses >= 3 {
		s.place = PhaseStopped
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
	s.place, s.closing = PhaseMovedOff, false
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
	if s.pend != returnLighter && s.pend != returnInSlack {
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
	s.place, s.pend = PhaseStopped, nothing
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

// comeOff advises the release; what waits behind the flush is after.
func (s *state) comeOff(rule int, by string, after pending, reason string) {
	s.endStage(by)
	s.closing, s.checking, s.off, s.pend = true, false, false, after
	if after == traceBack {
		s.traceBack = true
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
	if s.running {
		s.endStage("let-go")
		s.again = true
	}
	s.place, s.checking, s.off = PhaseFlush, false, false
	s.flushEnd = s.now + flushFor
	switch s.pend {
	case returnLighter, returnInSlack:
		s.flushEnd = s.now + flushBeforeBack
		s.say(11, "Flush 15 s, then return lighter.", s.reason, Flush)
	case traceBack:
		s.say(11, "Flush 20–30 s, then trace back.", s.reason, Flush)
	default:
		s.say(11, "Flush 20–30 s with long strokes.", s.reason, Flush)
	}
	return ""
}

// flushed is the end of a flush: done, or what was pending.
func (s *state) flushed() {
	switch s.pend {
	case returnLighter:
		s.place = PhaseReturn
		s.say(6, "Return, two lighter.", "It did not let go at this pressure.", ReturnLighter)
	case returnInSlack:
		s.place = PhaseReturn
		s.say(8, "Return lighter, the muscle in slack.", "It guarded at this pressure.", ReturnLighter)
	case traceBack:
		s.place = PhaseDone
		s.say(6, "Trace back: where does it come from?", "It did not let go, nor on the return.", TraceBack)
	default:
		s.place = PhaseDone
		s.say(11, "Done.", s.reason, Done)
	}
}

// interrupt breaks a running stage; the same stage begins again at the next
// baseline.
func (s *state) interrupt(by string) {
	if s.running {
		s.endStage(by)
		s.again = true
	}
	s.needBase, s.checking = true, false
}

func (s *state) endStage(by string) {
	if !s.running {
		return
	}
	s.running = false
	s.open.EndS, s.open.EndedBy = seconds(s.now), by
	s.stages = append(s.stages, s.open)
}
