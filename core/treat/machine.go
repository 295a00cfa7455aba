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
	anywhere = phases{
		aPart, PhaseCheck, PhaseOffSpot, PhaseRelease, PhaseReady, PhasePaused, PhaseMovedOff, PhaseFlush, PhaseReturn,
		PhaseDone,
	}
	inPart     = phases{aPart, PhaseCheck, PhaseOffSpot}
	underWay   = phases{PhaseRelease, aPart, PhaseCheck, PhaseOffSpot}
	notPressed = phases{PhaseReady, PhaseMovedOff, PhaseFlush, PhaseReturn, PhaseDone}
	handOff    = phases{PhaseReady, PhasePaused, PhaseMovedOff, PhaseFlush, PhaseReturn, PhaseDone}
	afterwards = phases{PhaseStopped, closed}
)

// effect lets an event act. It returns why the event changed nothing, or "".
type effect func(*state, Event) (ignored string)

type (
	phases []Phase
	on     []Kind
)

// transition is what some events do in some phases, and to which classes they may lead
// beside the one that the hold is in. One without words changes nothing but the record.
type transition struct {
	// from and on name every pair that the row is for; no other row may name it.
	from phases
	on   on
	act  effect
	// to is empty for what never changes the phase.
	to phases
	// what it does, for the guide.
	what string
}

// The table is data, not code: the browser loads it.
var transitions = []transition{
	{phases{PhaseReady, PhaseMovedOff}, on{KindContact}, (*state).press, phases{aPart}, "begin the strategy"},
	{phases{PhaseReturn}, on{KindContact}, (*state).press, phases{aPart}, "begin the return, two lighter"},
	{phases{PhaseFlush}, on{KindContact}, (*state).pressInFlush, phases{aPart, PhaseRelease}, "begin what waits"},
	{phases{PhasePaused}, on{KindContact, KindResume}, (*state).resume, underOrFlush, "go on where it was broken off"},
	{phases{PhaseReady, PhaseMovedOff, PhaseFlush, PhaseReturn}, on{KindResume}, nothingPaused, nil, ""},
	{phases{PhaseDone}, on{KindContact, KindResume}, isOver, nil, ""},
	{underWay, on{KindContact, KindResume}, (*state).contactAgain, nil, ""},

	{inPart, on{KindRelease}, (*state).release, phases{PhaseFlush}, "flush; in a rest nothing"},
	{phases{PhaseRelease, PhasePaused, PhaseMovedOff}, on{KindRelease}, (*state).release, phases{PhaseFlush}, "flush"},
	{phases{PhaseReady, PhaseFlush, PhaseReturn, PhaseDone}, on{KindRelease}, notPressing, nil, ""},

	{inPart, on{KindScore}, (*state).scored, afterScore, "the envelope, then the strategy"},
	{phases{PhaseRelease}, on{KindScore}, (*state).scored, nil, ""},
	{phases{PhasePaused}, on{KindScore}, (*state).scoreInPause, nil, ""},
	{notPressed, on{KindScore}, nothingPressed, nil, ""},
	{inPart, on{KindTrend}, (*state).trend, underOrFlush, "more is a rise; else the strategy"},
	{inPart, on{KindSoftening}, (*state).soften, phases{aPart, PhaseRelease}, "the strategy"},
	{phases{aPart}, on{KindOnSpot}, (*state).stillOn, nil, "an answer"},
	{phases{PhaseCheck}, on{KindOnSpot}, (*state).fallConfirmed, phases{aPart, PhaseRelease}, "the fall is believed"},
	{phases{PhaseOffSpot}, on{KindOnSpot}, (*state).backOn, phases{aPart}, "a new baseline"},
	{phases{PhaseRelease}, on{KindTrend, KindOnSpot}, (*state).answerTooLate, nil, ""},
	{phases{PhaseRelease}, on{KindSoftening}, (*state).soften, nil, ""},

	{inPart, on{KindGuard}, (*state).guard, underOrFlush, "one step lighter; the second time come off"},
	{inPart, on{KindOffSpot}, (*state).slip, phases{PhaseOffSpot}, "the part waits"},
	{inPart, on{KindAngleChange}, (*state).newAngle, phases{aPart}, "a new baseline"},
	{inPart, on{KindPause}, (*state).pause, phases{PhasePaused}, "the clocks stand"},
	{phases{PhaseRelease}, on{KindGuard, KindOffSpot, KindAngleChange, KindPause}, comeOffFirst, nil, ""},
	{handOff, on{KindTrend, KindSoftening, KindOnSpot}, nothingPressed, nil, ""},
	{handOff, on{KindGuard, KindOffSpot, KindAngleChange, KindPause}, nothingPressed, nil, ""},

	{anywhere, on{KindBreath, KindRep}, (*state).pace, underOrFlush, "end the part or begin it again"},
	{anywhere, on{KindRange}, (*state).measure, phases{PhaseFlush}, "keep it; the strategy"},
	{anywhere, on{KindTwitch}, (*state).twitch, nil, "keep it"},
	{anywhere, on{KindReferral}, (*state).refer, nil, "keep it"},
	{anywhere, on{KindPressure}, pressureKept, nil, ""},
	{anywhere, on{KindStart}, begunAlready, nil, ""},

	{anywhere, on{KindNerveSign, KindPulse}, (*state).keepOff, offTheSpot, "off; another spot, or stop"},
	{anywhere, on{KindUnwell, KindSkinReaction, KindClientStop}, (*state).stop, phases{PhaseStopped}, "stop, for good"},
	{anywhere, on{KindEnd}, (*state).end, phases{closed}, "close the log"},

	{phases{PhaseStopped}, on{KindRelease}, (*state).flushAfterStop, nil, ""},
	{phases{closed}, on{KindRelease}, (*state).recordOnly, nil, ""},
	{afterwards, on{KindNerveSign, KindPulse}, (*state).signAfter, nil, "count the sign"},
	{afterwards, on{KindUnwell, KindSkinReaction, KindClientStop}, (*state).signAfter, nil, "count the sign"},
	{afterwards, on{KindReferral}, (*state).referAfter, nil, "keep it"},
	{afterwards, on{KindEnd}, (*state).endAfter, phases{closed}, "close the log"},
	{afterwards, on{KindStart, KindContact, KindResume, KindPause, KindPressure}, (*state).recordOnly, nil, ""},
	{afterwards, on{KindBreath, KindRep, KindRange, KindTwitch, KindScore, KindTrend}, (*state).recordOnly, nil, ""},
	{afterwards, on{KindSoftening, KindOnSpot, KindGuard, KindOffSpot, KindAngleChange}, (*state).recordOnly, nil, ""},
}

// Where several rows lead.
var (
	underOrFlush = phases{aPart, PhaseRelease, PhaseFlush}
	afterScore   = phases{aPart, PhaseCheck, PhaseRelease, PhaseFlush}
	offTheSpot   = phases{PhaseMovedOff, PhaseStopped, PhaseFlush}
)

// deadline is something that falls due by itself, at a time or never. Of two at one time the
// first in the list comes first: caps lead, since nothing may be advised past them.
type deadline struct {
	// name is how the guide and the tests call it.
	name string
	from phases
	at   func(*state) int64
	fire func(*state)
	to   phases
	what string
}

var deadlines = []deadline{
	{"flush", phases{PhaseFlush}, (*state).flushEnds, (*state).flushed, afterFlush, "what waits behind it, or done"},
	{"cap", underWay, (*state).capAt, (*state).reachCap, phases{PhaseRelease}, "come off"},
	{"alone", underWay, (*state).aloneAt, (*state).alone, phases{PhasePaused}, "120 s without a key: back to it"},
	{"press limit", inPart, (*state).pressLimitAt, (*state).pressedLongEnough, phases{PhaseRelease}, "come off"},
	{"total", inPart, (*state).totalAt, (*state).reachTotal, phases{PhaseFlush}, "come off"},
	{"silence", inPart, (*state).silenceAt, (*state).silence, phases{PhaseRelease, PhaseFlush}, "30 s: come off"},
	{"alarm", inPart, (*state).alarmAt, (*state).alarm, phases{aPart, PhaseRelease}, "the strategy"},
	{"part", inPart, (*state).partEnds, (*state).partOver, underOrFlush, "the strategy: the next part, or come off"},
	{"question", inPart, (*state).askAt, (*state).askNow, nil, "ask for a score"},
}

var afterFlush = phases{PhaseReturn, PhaseReady, PhaseDone}

// table finds the transition of a class and a kind; there is one of each pair.
var table = map[Phase]map[Kind]*transition{}

// init turns the rows into a table, so that finding what an event does takes two look-ups and
// not a search.
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
