package treat

import "fmt"

// ramped steers slow-ramp: the force rises evenly while the number stays
// comfortable, and waits while it does not.
type ramped struct{ plain }

const (
	rampFree   = 15 * second // runs without a number
	rampBack   = 10          // percent, one step
	rampRising = 2           // a rise of this much within 5 s counts while it runs
)

func (*ramped) begin(s *state) {
	s.course.from = s.now
	s.enter(PhaseRamp, never)
	s.say(0, "Begin clearly comfortable; press on evenly.",
		fmt.Sprintf("The force rises over %v s; the client may stop it at any moment.", seconds(s.plan.RampMS)),
		SettleIn)
}

// runs: on a number within the target that is not older than 20 s, or in the
// first 15 s.
func (*ramped) runs(s *state) bool {
	c := &s.course
	switch {
	case s.part.halted >= 0 || c.waits || c.ramped >= s.plan.RampMS:
		return false
	case s.numberAt < 0:
		return s.now < c.from+rampFree
	}
	return s.now < s.numberAt+freshFor
}

func (r *ramped) flows(s *state, ms int64) {
	if r.runs(s) {
		s.course.ramped = min(s.plan.RampMS, s.course.ramped+ms)
	}
}

// alarm: the free time or the number's is over, or the ramp is full.
func (r *ramped) alarm(s *state) int64 {
	if !r.runs(s) {
		return never
	}
	stale := s.numberAt + freshFor
	if s.numberAt < 0 {
		stale = s.course.from + rampFree
	}
	return min(stale, s.now+s.plan.RampMS-s.course.ramped)
}

func (r *ramped) rang(s *state) {
	if s.course.ramped < s.plan.RampMS {
		s.say(0, "Keep this force; wait.", "The ramp waits for a number.", Hold)
		return
	}
	r.full(s)
}

// full: borne when the last number is within the target.
func (*ramped) full(s *state) {
	if s.numberAt >= 0 && s.number <= s.limits.Target && !s.course.waits {
		s.course.borne = true
		s.comeOff(0, "borne", nothing, EndedBorne, "The whole ramp was borne.")
		return
	}
	s.say(0, "Keep this force; wait.", "The ramp is full; a number within the target ends it.", Hold)
	s.askNow()
}

func (r *ramped) number(s *state, v float64) {
	s.compare(v)
	if v > s.limits.Target {
		s.course.waits = true
		s.say(0, "Keep this force; wait.", fmt.Sprintf("%v is above the target of %v.", v, s.limits.Target), Hold)
		return
	}
	s.course.waits = false
	if s.course.ramped >= s.plan.RampMS {
		r.full(s)
		return
	}
	s.say(0, "Go on, evenly.", fmt.Sprintf("%v is within the target of %v.", v, s.limits.Target), Hold)
}

// rises: while the force grows the number may, unless it leaps.
func (r *ramped) rises(s *state, v float64) bool {
	if !r.runs(s) {
		return s.roseByOne(v)
	}
	for _, g := range s.since {
		if s.now-g.at <= suddenWithin && v-g.score >= rampRising {
			return true
		}
	}
	return false
}

func (r *ramped) takesMore(s *state) bool {
	if !r.runs(s) {
		return false
	}
	s.course.waits = true
	s.startOver()
	s.say(0, "Keep this force; wait.", "The client says more.", Hold)
	return true
}

// lighter is ten points back, and then it waits.
func (*ramped) lighter(s *state) {
	s.course.ramped = max(0, s.course.ramped-s.plan.RampMS*rampBack/100)
	s.course.waits = true
}

func (*ramped) asks(*state) (first, again int64) { return steadyAsk, steadyAsk }

func (*ramped) reps(*state) int { return 0 }
