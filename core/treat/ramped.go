package treat

import "fmt"

// ramped is slow-ramp: the force rises evenly while the score stays comfortable, and waits
// while it does not.
//
// It has one open part, ramp. The ramp itself is a clock within it, from 0 to plan.RampMS,
// which runs in the first 15 s without a score and then for 20 s after each score within the
// target. "More", a score above the target, easing and an interruption let it wait; easing
// also takes it back by a tenth. Full, with the last score within the target, it was borne.
//
// While the force grows the score may grow with it: only a leap of 2 within 5 s is a rise.
type ramped struct {
	plain
	from   int64 // contact
	ramped int64 // of the ramp, ms: at most plan.RampMS
	waits  bool  // until a score is within the target
	borne  bool
}

const (
	rampFree   = 15 * second // runs without a score
	rampBack   = 10          // percent, one step
	rampRising = 2           // a rise of this much within 5 s counts while it runs
)

func (r *ramped) clone() strategy { k := *r; return &k }

func (*ramped) atNewSpot(*state) strategy { return &ramped{} }

// begin starts the ramp at nothing. Its clock is this part's own, so the part is open.
func (r *ramped) begin(s *state) {
	r.from = s.now
	s.enter(PhaseRamp, never)
	s.say(0, "Begin clearly comfortable; press on evenly.",
		fmt.Sprintf("The force rises over %v s; the client may stop it at any moment.", seconds(s.plan.RampMS)),
		SettleIn)
}

// runs: on a score within the target that is not older than 20 s, or in the
// first 15 s.
func (r *ramped) runs(s *state) bool {
	switch {
	case s.part.halted >= 0 || r.waits || r.ramped >= s.plan.RampMS:
		return false
	case s.scoreAt < 0:
		return s.now < r.from+rampFree
	}
	return s.now < s.scoreAt+freshFor
}

// flow lets the force rise by the time that has passed while it may.
func (r *ramped) flow(s *state, ms int64) {
	if r.runs(s) {
		r.ramped = min(s.plan.RampMS, r.ramped+ms)
	}
}

// alarm: the free time or the score's is over, or the ramp is full.
func (r *ramped) alarm(s *state) int64 {
	if !r.runs(s) {
		return never
	}
	stale := s.scoreAt + freshFor
	if s.scoreAt < 0 {
		stale = r.from + rampFree
	}
	return min(stale, s.now+s.plan.RampMS-r.ramped)
}

// rang is the end of the free time, of a score's 20 s, or of the whole ramp.
func (r *ramped) rang(s *state) {
	if r.ramped < s.plan.RampMS {
		s.say(0, "Keep this force; wait.", "The ramp waits for a number.", Hold)
		return
	}
	r.full(s)
}

// full: borne when the last score is within the target.
func (r *ramped) full(s *state) {
	if s.scoreAt >= 0 && s.score <= s.limits.Target && !r.waits {
		r.borne = true
		s.comeOff(0, "borne", nothing, EndedBorne, "The whole ramp was borne.")
		return
	}
	s.say(0, "Keep this force; wait.", "The ramp is full; a number within the target ends it.", Hold)
	s.askNow()
}

// score above the target holds the force where it is; within it the ramp runs on for 20 s.
func (r *ramped) score(s *state, v float64) {
	s.compare(v)
	if v > s.limits.Target {
		r.waits = true
		s.say(0, "Keep this force; wait.", fmt.Sprintf("%v is above the target of %v.", v, s.limits.Target), Hold)
		return
	}
	r.waits = false
	if r.ramped >= s.plan.RampMS {
		r.full(s)
		return
	}
	s.say(0, "Go on, evenly.", fmt.Sprintf("%v is within the target of %v.", v, s.limits.Target), Hold)
}

// rises: while the force grows the score may, unless it leaps.
func (r *ramped) rises(s *state, v float64) bool {
	if !r.runs(s) {
		return s.roseByOne(v)
	}
	for _, g := range s.compared.since {
		if s.now-g.at <= suddenWithin && v-g.score >= rampRising {
			return true
		}
	}
	return false
}

// takesMore holds the ramp: while the force grows, more is what one expects to hear.
func (r *ramped) takesMore(s *state) bool {
	if !r.runs(s) {
		return false
	}
	r.waits = true
	s.startOver()
	s.say(0, "Keep this force; wait.", "The client says more.", Hold)
	return true
}

// lighter is ten points back, and then it waits.
func (r *ramped) lighter(s *state) {
	r.ramped = max(0, r.ramped-s.plan.RampMS*rampBack/100)
	r.waits = true
}

func (*ramped) asks(*state) (first, again int64) { return steadyAsk, steadyAsk }

// progress is how far the ramp has come; it counts no repetitions.
func (r *ramped) progress(s *state) progress {
	return progress{aim: s.limits.Target, ramped: r.ramped, borne: r.borne}
}
