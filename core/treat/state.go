package treat

import (
	"math"
	"slices"

	"mokren/core/ids"
	"mokren/core/safety"
)

// pending is what waits behind a flush.
type pending int

const (
	nothing pending = iota
	returnLighter
	returnInSlack
	nextPress // the next of a protocol's own presses
	traceBack
)

// isReturn: the hand comes back lighter.
func (p pending) isReturn() bool { return p == returnLighter || p == returnInSlack }

// state is a hold between two events. It is a value but for its slices, which
// are only appended to: a copy kept aside stays what it was, and going back to
// it is going on from there (see clone for showing without keeping).
type state struct {
	start    Start
	rules    rulebook
	plan     Plan
	strategy strategy
	limits   safety.Limits // in force: lower on the return and in narrow
	now      int64
	place    Phase // ready, paused, moved-off, flush, return, done, stopped; empty in a part
	part     part
	parts    []PartRecord

	pressed, overrun int64
	unbroken         int64 // pressing without a pause, for the front of the neck
	spent            int64 // since contact, where nothing is pressed
	flushEnd         int64
	pend             pending
	closing          bool // coming off was advised; nothing deepens any more
	capped           bool
	cappedAt         int64
	// key is the state after the last event, a sign that somebody attends.
	key  *state
	over bool // the log was closed

	answeredAt int64 // contact or the last answer
	answered   bool  // since this contact
	askDue     bool
	askTrend   bool // the trend is asked first
	askAfter   bool // the last press's number is asked after it
	numberAt   int64
	number     float64 // the last one under pressure

	needBase bool // the next score is a new baseline
	off      bool // slipped off the spot
	checking bool // a sudden fall waits for "still on it?"

	running   bool // numbers are compared: a baseline stands
	again     bool // the stage that comes is the interrupted one, not the next
	stage     int
	stageFrom int64
	windowEnd int64
	extended  bool
	base      float64
	last      float64
	stages    []StageRecord // ended; the one that runs is open
	open      openStage
	since     []given // scores since the baseline, for the sudden fall

	spotBase *float64 // this spot's first baseline
	eased    int
	course   course

	overHard, rises, guards, nerves, pulses, sinks    int
	returned, released, twitch, siteClosed, traceBack bool

	highest   float64
	lastScore *float64
	referral  []ids.Region
	signs     []string
	gentler   ids.Protocol
	trace     []TracePoint
	ended     Ended
	ranges    []float64

	advice []Advice
	ask    string
	text   string
	reason string
	rule   int
}

// course is where the strategy of a protocol stands; each kind uses its own few.
type course struct {
	rep       int // presses, movements, rounds, breaths, tries
	repAt     int64
	place     int
	aim       float64 // pulses
	depth     int     // steps deeper than the first press
	lighter   bool    // the next press is one lighter
	top       *float64
	was       *float64 // the press before
	ramped    int64    // of the ramp, ms
	waits     bool     // the ramp waits
	from      int64    // contact
	soft      bool     // softening was felt
	softAt    int64
	angled    bool    // another angle was tried
	tested    float64 // slack-hold's B
	stilled   bool    // the still part is behind
	more      bool    // more slack was tried at 45 s
	answers   int
	guardAt   int64
	across    bool // strokes across, after those along
	lastRange int  // how many ranges there were at the last judged round
	roundGain float64
	hasGain   bool
	borne     bool
	reduced   bool
	moved     int  // movements under breath-sink's contact
	sank      bool // one sink on the out-breath between two moves
}

// given is a score with its time in ms.
type given struct {
	at    int64
	score float64
}

const never = math.MaxInt64

func newState(st Start) state {
	s := state{
		start: st, rules: rulebooks[st.Rules], plan: st.plan(), limits: st.Limits, place: PhaseReady,
		numberAt: -1, part: part{halted: -1},
	}
	s.strategy = strategies[s.plan.Strategy]
	s.strategy.newSpot(&s)
	s.say(0, "Find the spot, then make contact.", st.Lowered)
	return s
}

// plan is what the start carries; the first rules knew graded stages only.
func (s Start) plan() Plan {
	if s.Plan == nil {
		return firstPlan
	}
	return *s.Plan
}

// clone makes a copy whose appends do not reach the original.
func (s *state) clone() state {
	c := *s
	c.stages = slices.Clip(s.stages)
	c.parts = slices.Clip(s.parts)
	c.since = slices.Clip(s.since)
	c.trace = slices.Clip(s.trace)
	c.signs = slices.Clip(s.signs)
	c.referral = slices.Clip(s.referral)
	c.ranges = slices.Clip(s.ranges)
	return c
}

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
	}
	return s.part.kind
}

// say is what to do now, and why; it replaces what was said before.
func (s *state) say(rule int, text, reason string, advice ...Advice) {
	s.rule, s.text, s.reason, s.advice, s.ask = rule, text, reason, advice, ""
}

// askNow asks for a number.
func (s *state) askNow() { s.askDue, s.askTrend = true, s.strategy.trendFirst(s) }

const (
	askNumber = "What is your number now?"
	askSpot   = "Still on it? Any numbness?"
	askArm    = " Anything in the arm?"
)

func (s *state) line() Line {
	l := Line{
		T: seconds(s.now), Phase: s.phase(), Advice: append([]Advice{}, s.advice...), Ask: s.ask, Stage: s.stage,
		PressureS: seconds(s.pressed), OverrunS: seconds(s.overrun), Text: s.text, Reason: s.reason, Rule: s.rule,
	}
	if s.running && s.part.kind == PhaseStage && s.windowEnd < never && s.place == "" && !s.closing {
		l.StageLeftS = seconds(max(0, s.windowEnd-s.now))
	}
	if s.place == PhaseFlush {
		l.WaitLeftS = seconds(max(0, s.flushEnd-s.now))
	}
	if s.askDue && s.inPart() || s.askAfter && s.askDue {
		s.asking(&l)
	}
	if !s.rules.noParts {
		l.Course = s.courseLine()
	}
	return l
}

func (s *state) asking(l *Line) {
	ask := AskScore
	l.Ask = askNumber
	switch {
	case s.off || s.checking:
		ask, l.Ask = AskStillOn, askSpot
	case s.askTrend:
		ask, l.Ask = AskTrend, "Less, the same or more? And your number?"
	}
	if s.plan.AskArm {
		l.Ask += askArm
	}
	if !slices.Contains(l.Advice, ask) {
		l.Advice = append(l.Advice, ask)
	}
	if ask == AskTrend {
		l.Advice = append(l.Advice, AskScore)
	}
}

func (s *state) courseLine() *Course {
	c := &Course{Rep: s.course.rep, Reps: s.strategy.reps(s), Place: s.course.place, Aim: s.strategy.aim(s)}
	if s.part.kind == PhaseMove && s.course.moved > 0 {
		c.Rep, c.Reps = s.course.moved, s.plan.Moves
	}
	if s.inPart() && s.part.until < never {
		now := s.now
		if s.part.halted >= 0 {
			now = s.part.halted
		}
		c.PartS = seconds(s.part.until - s.part.from)
		c.PartLeftS = seconds(max(0, s.part.until-now))
	}
	if s.plan.RampMS > 0 {
		c.RampPercent = float64(s.course.ramped) * 100 / float64(s.plan.RampMS)
	}
	return c
}
