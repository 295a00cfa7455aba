package treat

// The machine: what each event and each deadline does in each phase. Nothing else changes
// the phase. The guide in doc.go shows these tables; a test writes them there, tries every
// pair of phase and event, and follows random holds to see that they lead where to says.

// Classes of phases, as the tables have them. A class is a phase, but for two.
const (
	aPart  Phase = "part"   // any part that runs
	closed Phase = "closed" // the log has ended, done or stopped
)

// class gives the class that a hold is in.
func (s *state) class() Phase {
	switch {
	case s.closed:
		return closed
	case s.part.kind != "" && s.phase == s.part.kind:
		return aPart
	}
	return s.phase
}

var (
	anywhere   = append(append([]Phase{}, inPart...), outside...)
	inPart     = []Phase{aPart, PhaseCheck, PhaseOffSpot}
	outside    = append([]Phase{PhaseRelease}, handOff...)
	handOff    = append([]Phase{PhaseReady, PhasePaused, PhaseMovedOff, PhaseFlush, PhaseReturn}, PhaseDone)
	underWay   = append([]Phase{PhaseRelease}, inPart...)
	afterwards = []Phase{PhaseStopped, closed}
)

// effect lets an event act. It returns why the event changed nothing, or "".
type effect func(*state, Event) (ignored string)

// transition is what some events do in some phases, and to which classes they may lead
// beside the one that the hold is in.
type transition struct {
	from []Phase
	on   []Kind
	act  effect
	what string
	to   []Phase
}

func when(from ...Phase) transition                 { return transition{from: from} }
func (t transition) says(on ...Kind) transition     { t.on = on; return t }
func (t transition) leadsTo(to ...Phase) transition { t.to = to; return t }

func (t transition) then(what string, act effect) transition {
	t.what, t.act = what, act
	return t
}

// keeps: it changes nothing but the record, and act says why.
func (t transition) keeps(act effect) transition { t.act = act; return t }

var transitions = []transition{
	when(PhaseReady, PhaseMovedOff).says(KindContact).then("begin the strategy", (*state).press).leadsTo(aPart),
	when(PhaseReturn).says(KindContact).then("begin the one return, two lighter", (*state).press).leadsTo(aPart),
	when(PhaseFlush).says(KindContact).
		then("begin what waits; after a closed hold come off again", (*state).pressInFlush).
		leadsTo(aPart, PhaseRelease),
	when(PhasePaused).says(KindContact, KindResume).
		then("go on where it was broken off", (*state).resume).leadsTo(aPart, PhaseRelease, PhaseFlush),
	when(PhaseReady, PhaseMovedOff, PhaseFlush, PhaseReturn).says(KindResume).keeps(nothingPaused),
	when(PhaseDone).says(KindContact, KindResume).keeps(isOver),
	when(underWay...).says(KindContact, KindResume).keeps((*state).contactAgain),

	when(inPart...).says(KindRelease).then("flush; in a rest nothing", (*state).release).leadsTo(PhaseFlush),
	when(PhaseRelease, PhasePaused, PhaseMovedOff).says(KindRelease).
		then("flush", (*state).release).leadsTo(PhaseFlush),
	when(PhaseReady, PhaseFlush, PhaseReturn, PhaseDone).says(KindRelease).keeps(notPressing),

	when(inPart...).says(KindScore).
		then("the envelope, then the strategy", (*state).score).leadsTo(aPart, PhaseCheck, PhaseRelease, PhaseFlush),
	when(PhaseRelease).says(KindScore).keeps((*state).score),
	when(PhasePaused).says(KindScore).keeps((*state).scoreInPause),
	when(inPart...).says(KindTrend).
		then("more is a rise, by the strategy", (*state).trend).leadsTo(aPart, PhaseRelease, PhaseFlush),
	when(inPart...).says(KindSoftening).then("the strategy", (*state).soften).leadsTo(aPart, PhaseRelease),
	when(aPart).says(KindOnSpot).then("an answer", (*state).stillOn),
	when(PhaseCheck).says(KindOnSpot).
		then("the fall is believed", (*state).fallConfirmed).leadsTo(aPart, PhaseRelease),
	when(PhaseOffSpot).says(KindOnSpot).then("a new baseline", (*state).backOn).leadsTo(aPart),
	when(PhaseRelease).says(KindTrend, KindOnSpot).keeps((*state).answerTooLate),
	when(PhaseRelease).says(KindSoftening).keeps((*state).soften),

	when(inPart...).says(KindGuard).
		then("one step lighter; the second time come off", (*state).guard).leadsTo(aPart, PhaseRelease, PhaseFlush),
	when(inPart...).says(KindOffSpot).then("the part waits", (*state).slip).leadsTo(PhaseOffSpot),
	when(inPart...).says(KindAngleChange).then("a new baseline", (*state).newAngle).leadsTo(aPart),
	when(inPart...).says(KindPause).then("the clocks stand", (*state).pause).leadsTo(PhasePaused),
	when(PhaseRelease).says(KindGuard, KindOffSpot, KindAngleChange, KindPause).keeps(comeOffFirst),
	when(handOff...).
		says(KindTrend, KindSoftening, KindOnSpot, KindGuard, KindOffSpot, KindAngleChange, KindPause).
		keeps(nothingPressed),
	when(PhaseReady, PhaseMovedOff, PhaseFlush, PhaseReturn, PhaseDone).says(KindScore).keeps(nothingPressed),

	when(anywhere...).says(KindBreath, KindRep).
		then("end the part or begin it again", (*state).pace).leadsTo(aPart, PhaseRelease, PhaseFlush),
	when(anywhere...).says(KindRange).then("keep it; the strategy", (*state).measure).leadsTo(PhaseFlush),
	when(anywhere...).says(KindTwitch).then("keep it", (*state).twitch),
	when(anywhere...).says(KindReferral).then("keep it", (*state).refer),
	when(anywhere...).says(KindPressure).keeps(pressureKept),
	when(anywhere...).says(KindStart).keeps(begunAlready),

	when(anywhere...).says(KindNerveSign, KindPulse).
		then("off; another spot, or stop", (*state).keepOff).leadsTo(PhaseMovedOff, PhaseStopped, PhaseFlush),
	when(anywhere...).says(KindUnwell, KindSkinReaction, KindClientStop).
		then("stop, for good", (*state).stop).leadsTo(PhaseStopped),
	when(anywhere...).says(KindEnd).then("close the log", (*state).end).leadsTo(closed),

	when(PhaseStopped).says(KindRelease).keeps((*state).flushAfterStop),
	when(closed).says(KindRelease).keeps((*state).recordOnly),
	when(afterwards...).says(KindNerveSign, KindPulse, KindUnwell, KindSkinReaction, KindClientStop).
		then("count the sign", (*state).signAfter),
	when(afterwards...).says(KindReferral).then("keep it", (*state).referAfter),
	when(afterwards...).says(KindEnd).then("close the log", (*state).endAfter).leadsTo(closed),
	when(afterwards...).says(
		KindStart, KindContact, KindResume, KindPressure, KindBreath, KindRep, KindRange, KindTwitch, KindScore, KindTrend,
		KindSoftening, KindOnSpot, KindGuard, KindOffSpot, KindAngleChange, KindPause,
	).keeps((*state).recordOnly),
}

// deadline is something that falls due by itself. Of two at one time the first in the list
// comes first: caps lead, since nothing may be advised past them.
type deadline struct {
	name string
	from []Phase
	at   func(*state) int64 // when it falls due, or never
	fire func(*state)
	what string
	to   []Phase
}

func by(name string, from ...Phase) deadline { return deadline{name: name, from: from} }

func (d deadline) then(what string, at func(*state) int64, fire func(*state)) deadline {
	d.what, d.at, d.fire = what, at, fire
	return d
}

func (d deadline) leadsTo(to ...Phase) deadline { d.to = to; return d }

var deadlines = []deadline{
	by("flush", PhaseFlush).then("what waits behind it, or done", (*state).flushEnds, (*state).flushed).
		leadsTo(PhaseReturn, PhaseReady, PhaseDone),
	by("cap", underWay...).then("come off", (*state).capAt, (*state).reachCap).leadsTo(PhaseRelease),
	by("alone", underWay...).
		then("120 s past the cap without a key: back to the last one", (*state).aloneAt, (*state).alone).
		leadsTo(PhasePaused),
	by("press limit", inPart...).then("come off", (*state).pressLimitAt, (*state).pressedLongEnough).
		leadsTo(PhaseRelease),
	by("total", inPart...).then("come off", (*state).totalAt, (*state).reachTotal).leadsTo(PhaseFlush),
	by("silence", inPart...).then("30 s without an answer: come off", (*state).silenceAt, (*state).silence).
		leadsTo(PhaseRelease, PhaseFlush),
	by("alarm", inPart...).then("the strategy", (*state).alarmAt, (*state).alarm).
		leadsTo(aPart, PhaseRelease),
	by("part", inPart...).then("the strategy: the next part, or come off", (*state).partEnds, (*state).partOver).
		leadsTo(aPart, PhaseRelease, PhaseFlush),
	by("question", inPart...).then("ask for a number", (*state).askAt, (*state).askNow),
}

// table finds the transition of a class and a kind; there is one of each pair.
var table = map[Phase]map[Kind]*transition{}

func init() {
	for i := range transitions {
		t := &transitions[i]
		for _, from := range t.from {
			if table[from] == nil {
				table[from] = map[Kind]*transition{}
			}
			for _, on := range t.on {
				table[from][on] = t
			}
		}
	}
}

// apply lets one event act. It returns why the event changed nothing, or "".
func (s *state) apply(e Event) (ignored string) { return table[s.class()][e.Kind].act(s, e) }

// inPart reports whether a part runs or waits for the hand, pressed or not.
func (s *state) inPart() bool {
	return s.part.kind != "" && s.phase != PhasePaused
}

// underWay: in a part, or told to come off and not yet off.
func (s *state) underWay() bool { return s.phase == PhaseRelease || s.inPart() }
