package treat

import (
	"math"
	"slices"

	"mokren/core/ids"
)

// pending is what waits behind a flush.
type pending int

const (
	nothing pending = iota
	returnLighter
	returnInSlack
	traceBack
)

// state is a hold between two events. It is a value but for its slices, which
// are only appended to: a copy kept aside stays what it was, and going back to
// it is going on from there (see clone for showing without keeping).
type state struct {
	start  Start
	rules  rulebook
	now    int64
	place  Phase // ready, paused, moved-off, flush, return, done, stopped; empty while pressing
	target float64

	pressed, overrun int64
	flushEnd         int64
	pend             pending
	closing          bool // coming off was advised; nothing deepens any more
	capped           bool

	answeredAt int64 // contact or the last answer
	answered   bool  // since this contact
	askDue     bool

	needBase bool // the next score is a new baseline
	off      bool // slipped off the spot
	checking bool // a sudden fall waits for "still on it?"

	running   bool // a stage's window runs
	again     bool // the stage that comes is the interrupted one, not the next
	stage     int
	stageFrom int64
	windowEnd int64
	extended  bool
	base      float64
	last      float64
	stages    []StageRecord // ended; the one that runs is open
	open      StageRecord
	since     []given // scores since the baseline, for the sudden fall

	overHard, rises, guards, nerves, pulses, sinks, eased int
	returned, released, twitch, siteClosed, traceBack     bool

	highest   float64
	lastScore *float64
	referral  []ids.Region
	signs     []string
	gentler   ids.Protocol
	trace     []TracePoint

	advice []Advice
	ask    string
	text   string
	reason string
	rule   int
}

// given is a score with its time in ms.
type given struct {
	at    int64
	score float64
}

func newState(st Start) state {
	s := state{start: st, rules: rulebooks[st.Rules], place: PhaseReady, target: st.Limits.Target}
	s.say(0, "Find the spot, then make contact.", st.Lowered)
	return s
}

// clone makes a copy whose appends do not reach the original.
func (s *state) clone() state {
	c := *s
	c.stages = slices.Clip(s.stages)
	c.since = slices.Clip(s.since)
	c.trace = slices.Clip(s.trace)
	c.signs = slices.Clip(s.signs)
	c.referral = slices.Clip(s.referral)
	return c
}

func (s *state) pressing() bool { return s.place == "" }

func (s *state) phase() Phase {
	switch {
	case s.place != "":
		return s.place
	case s.closing:
		return PhaseRelease
	case s.off:
		return PhaseOffSpot
	case s.checking:
		return PhaseCheck
	case s.needBase:
		return PhaseSettle
	}
	return PhaseStage
}

func (s *state) say(rule int, text, reason string, advice ...Advice) {
	s.rule, s.text, s.reason, s.advice, s.ask = rule, text, reason, advice, ""
}

func (s *state) line() Line {
	l := Line{
		T: seconds(s.now), Phase: s.phase(), Advice: append([]Advice{}, s.advice...), Ask: s.ask, Stage: s.stage,
		PressureS: seconds(s.pressed), OverrunS: seconds(s.overrun), Text: s.text, Reason: s.reason, Rule: s.rule,
	}
	if s.running {
		l.StageLeftS = seconds(max(0, s.windowEnd-s.now))
	}
	if s.place == PhaseFlush {
		l.WaitLeftS = seconds(max(0, s.flushEnd-s.now))
	}
	if s.askDue && s.pressing() && !s.closing {
		ask := AskScore
		l.Ask = "What is your number now?"
		if s.off || s.checking {
			ask, l.Ask = AskStillOn, "Still on it? Any numbness?"
		}
		if !slices.Contains(l.Advice, ask) {
			l.Advice = append(l.Advice, ask)
		}
	}
	return l
}

// deadline is something that falls due by itself.
type deadline struct {
	at   int64
	fire func(*state)
}

const never = math.MaxInt64

// next finds the earliest deadline. The order of the list settles ties: the
// cap comes first, since nothing may be advised past it.
func (s *state) next() deadline {
	d := deadline{never, nil}
	consider := func(at int64, fire func(*state)) {
		at = max(at, s.now)
		if at < d.at {
			d = deadline{at, fire}
		}
	}
	if s.place == PhaseFlush {
		consider(s.flushEnd, (*state).flushed)
	}
	if !s.pressing() {
		return d
	}
	if !s.capped {
		consider(s.now+s.start.Limits.CapMS-s.pressed, (*state).reachCap)
	}
	if s.closing {
		return d
	}
	// Before the window: without an answer nobody knows whether it dropped.
	consider(s.answeredAt+silenceAfter, (*state).silence)
	if s.running && !s.checking {
		if s.base-s.last >= 2 {
			consider(s.stageFrom+stageMin, (*state).judge)
		}
		consider(s.windowEnd, (*state).windowOver)
	}
	if !s.askDue {
		wait := int64(askAfter)
		if !s.answered {
			wait = firstAskAfter
		}
		consider(s.answeredAt+wait, func(s *state) { s.askDue = true })
	}
	return d
}

// advance moves the clock to a time, through every deadline before it, each
// at its own time. A deadline that falls exactly on the time of an event waits
// for the event (an answer just in time counts); when only showing, it counts
// as due.
func (s *state) advance(to int64, show bool) {
	for {
		d := s.next()
		if d.at > to || (d.at == to && !show) || d.fire == nil {
			break
		}
		s.flow(d.at)
		d.fire(s)
	}
	s.flow(to)
}

// flow lets time pass on the pressure clock.
func (s *state) flow(to int64) {
	if to <= s.now {
		return
	}
	if s.pressing() {
		dt := to - s.now
		room := min(dt, s.start.Limits.CapMS-s.pressed)
		s.pressed += room
		s.overrun += dt - room
	}
	s.now = to
}
