package treat

import (
	"math"
	"slices"

	"mokren/core/ids"
	"mokren/core/safety"
)

const never = math.MaxInt64

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

// state is a hold between two events. It is a value: a copy kept aside stays what it was,
// and going back to it is going on from there. Slices are only appended to, and the
// strategy is cloned before it changes (see Coach.record); clone makes a copy to play with.
//
// Times are milliseconds since the start, scores NPRS 0 to 10.
type state struct {
	start *Start    // as stored; never changes
	plan  *Plan     // of start, or the first rules' only one; never changes
	rules *rulebook // what start's version does otherwise; never changes
	// strategy is the plan's; after the one return comeback, except in graded stages.
	strategy strategy
	// limits in force: at most those of start, lower on the return and in narrow.
	limits safety.Limits

	// phase is where the hold stands: the kind of the part that runs, or one of the
	// phases outside of it. It changes as transitions and deadlines say.
	phase Phase
	// part is the one that runs, or waits in check, off-spot and paused; its kind is empty
	// in every other phase.
	part part
	// closing: coming off was advised, and no contact has begun anew since. Always so in
	// release; in paused and flush it says whether the hold goes on.
	closing bool
	pend    pending
	// flushEnd counts in flush only.
	flushEnd int64
	// closed: the log has ended. Signs are still written down, nothing goes on.
	closed bool

	now int64 // never goes back
	// pressed is what the cap bounds: at most start's CapMS. What is pressed beyond it is
	// overrun.
	pressed, overrun int64
	// unbroken is the pressing without a pause, bounded by plan.PressMaxMS.
	unbroken int64
	// spent is the time in parts, pressed or not, bounded by plan.TotalMS.
	spent int64
	// cappedAt is when pressed reached the cap; never before it.
	cappedAt int64
	// attended is the state after the last event, a sign that somebody is there; its own
	// is nil.
	attended *state

	asked asked
	// score is the last one said under pressure or in a pause, scoreAt its time; -1 while
	// this spot has none.
	score   float64
	scoreAt int64
	// needBase: the next score is a new baseline, compared with nothing.
	needBase bool
	compared comparison
	stages   stageLog
	// spotBase is this spot's first baseline, by which released is judged.
	spotBase *float64
	// repAt is when a rep or breath last counted; 0 while none has.
	repAt int64

	// Each counts up to what its rule allows, and never down but sinks, which begins again
	// with each contact and baseline.
	sinks, rises, guards, overHard, nerves, pulses int

	// released: a calm score was believed, or softening ended the hold. Outcome has the
	// last word (mayBelieve).
	released bool
	// returned: the one return has been made, or is under way.
	returned bool
	// ended is why the last release was advised; empty before.
	ended EndReason
	kept  kept
	said  said
}

// asked is what the client is asked, and when. Answers begin the clocks of rule 1 again.
type asked struct {
	since    int64 // contact, or the last answer
	answered bool  // since this contact
	due      bool  // a score is waited for
	trend    bool  // less, same or more is asked before it
	after    bool  // it is about the last press, and is asked behind it
}

// kept is what the summary tells and no rule reads.
type kept struct {
	// parts are closed ones; the one that runs is in state.
	parts []PartRecord
	// trace is every score under pressure, also those while coming off.
	trace []TracePoint
	// signs in the order in which they were felt, with their kind.
	signs    []string
	referral []ids.Region
	ranges   []float64 // degrees; contract-relax reads the last
	// eased counts steps lighter, whatever the reason was.
	eased      int
	twitch     bool
	siteClosed bool // no more pressure here today
	// traceBack: the point's source should be looked for elsewhere; set once, for good.
	traceBack bool
}

// said is what to do now, and why.
type said struct {
	rule int // of the envelope; 0 for none
	// text is what to do, in large letters; reason is why, below it.
	text   string
	reason string
	// advice are the ids of what is said, for tones and pictures.
	advice []Advice
	// ask is a question that goes with it; what rule 1 asks is added by line.
	ask string
}

// newState is a hold before the first contact. What lowered its limits is said at once.
func newState(st *Start) state {
	rules := rulebooks[st.Rules]
	s := state{
		start: st, rules: &rules, plan: st.plan(), limits: st.Limits, phase: PhaseReady, cappedAt: never,
		part: part{halted: -1},
	}
	s.strategy = strategies[s.plan.Strategy]
	s.newSpot()
	s.say(0, "Find the spot, then make contact.", st.Lowered)
	return s
}

// plan is what the start carries; the first rules knew graded stages only.
func (s *Start) plan() *Plan {
	if s.Plan == nil {
		return &firstPlan
	}
	return s.Plan
}

// newSpot: the next contact will be at a spot that nothing is known of.
func (s *state) newSpot() {
	s.scoreAt, s.repAt = -1, 0
	s.strategy = s.strategy.atNewSpot(s)
}

// clone makes a copy that shares nothing which either may change.
func (s *state) clone() state {
	c := *s
	c.strategy = s.strategy.clone()
	c.stages.ended = slices.Clip(s.stages.ended)
	c.compared.since = slices.Clip(s.compared.since)
	c.kept.parts = slices.Clip(s.kept.parts)
	c.kept.trace = slices.Clip(s.kept.trace)
	c.kept.signs = slices.Clip(s.kept.signs)
	c.kept.referral = slices.Clip(s.kept.referral)
	c.kept.ranges = slices.Clip(s.kept.ranges)
	return c
}

// say is what to do now, and why; it replaces what was said before.
func (s *state) say(rule int, text, reason string, advice ...Advice) {
	s.said = said{rule: rule, text: text, reason: reason, advice: advice}
}

// askNow asks for a score.
func (s *state) askNow() {
	s.asked.due, s.asked.trend = true, false
	if t, ok := s.strategy.(takesTrend); ok {
		s.asked.trend = t.trendFirst(s)
	}
}

const (
	askScore = "What is your number now?"
	askSpot  = "Still on it? Any numbness?"
	askArm   = " Anything in the arm?"
)

// line is what is shown now. It is made anew each time and changes nothing.
func (s *state) line() Line {
	l := Line{
		T: seconds(s.now), Phase: s.phase, Advice: append([]Advice{}, s.said.advice...), Ask: s.said.ask,
		Stage: s.stages.number, PressureS: seconds(s.pressed), OverrunS: seconds(s.overrun),
		Text: s.said.text, Reason: s.said.reason, Rule: s.said.rule,
	}
	if s.compared.runs && s.part.kind == PhaseStage && s.part.until < never && s.inPart() {
		l.StageLeftS = seconds(max(0, s.part.until-s.now))
	}
	if s.phase == PhaseFlush {
		l.WaitLeftS = seconds(max(0, s.flushEnd-s.now))
	}
	if s.asked.due && (s.inPart() || s.asked.after) {
		s.asking(&l)
	}
	if !s.rules.noParts {
		l.Course = s.courseLine()
	}
	return l
}

// asking adds the question that is due: still on it, the trend and then the score, or the
// score alone; on the scalenes also the arm.
func (s *state) asking(l *Line) {
	ask := AskScore
	l.Ask = askScore
	switch {
	case s.phase == PhaseOffSpot || s.phase == PhaseCheck:
		ask, l.Ask = AskStillOn, askSpot
	case s.asked.trend:
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

// courseLine is how far the protocol has come. A halted part shows the time at which its clock
// stands.
func (s *state) courseLine() *Course {
	p := s.strategy.progress(s)
	c := &Course{Rep: p.rep, Reps: p.reps, Place: p.place, Aim: p.aim}
	if p.move > 0 && s.part.kind == PhaseMove {
		c.Rep, c.Reps = p.move, s.plan.Moves
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
		c.RampPercent = float64(p.ramped) * 100 / float64(s.plan.RampMS)
	}
	return c
}
