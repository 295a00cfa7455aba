package treat

import "fmt"

// strategy is how one kind of protocol goes through its parts. Several protocols may share
// one: pulses and short repeats are both paced. A strategy keeps nothing itself. Where it
// stands is in state and course, so that undo and a look ahead are copies of a value.
//
// Embed plain and write what is different. Methods are called with the clock at s.now and
// with all deadlines before it done; they answer through s.say and by entering the next part.
type strategy interface {
	// newSpot is called when the next contact will be at a new spot. Repetitions, aim, ramp
	// and place begin again.
	newSpot(s *state)
	// begin enters the first part, or the next press, when the hand comes on.
	begin(s *state)
	// number judges a score that no rule of the envelope (ceilings, sudden fall, rise) took.
	number(s *state, v float64)
	// judged is called when "still on it?" was answered: the sudden fall was confirmed, or
	// there was none.
	judged(s *state)
	// over is called when the time of the part is up.
	over(s *state)
	// alarm returns the time at which rang fires within a part, ms from the start, or never.
	alarm(s *state) int64
	rang(s *state)
	// asks returns how long after contact, and after an answer, a score is asked for, in ms.
	asks(s *state) (first, again int64)
	// trendFirst reports whether less, same or more is asked before the score.
	trendFirst(s *state) bool
	// lighter goes one step back, after a rise or a ceiling.
	lighter(s *state)
	// softened takes softening under the hand; ignored is why it changes nothing, or "".
	softened(s *state) (ignored string)
	// trend takes less, same or more; ignored as in softened.
	trend(s *state, word string) (ignored string)
	// takesMore reports whether "more" is expected in this protocol, so that it is not
	// treated as a rise in pain.
	takesMore(s *state) bool
	// rises reports whether a score is a rise against the baseline.
	rises(s *state, v float64) bool
	// guarded is called when the client guards.
	guarded(s *state)
	// measured takes a range of motion reading; ignored as in softened.
	measured(s *state) (ignored string)
	// capped is called when the cap of pressing is reached.
	capped(s *state)
	// lower sets the limits of the one return.
	lower(s *state)
	// flows is called when ms of a part have passed without a deadline, as a ramp rises.
	flows(s *state, ms int64)
	// settles returns how long a broken stage waits for a new baseline, in ms.
	settles(s *state) int64
	// reps returns how many repetitions there are; 0 where they are not counted.
	reps(s *state) int
	// aim returns the score that is pressed to now.
	aim(s *state) float64
}

// strategies are the kinds there are, by the name that a plan gives.
var strategies map[string]strategy

func init() { // here, since the kinds refer to each other
	strategies = map[string]strategy{
		"stages":     &stages{},
		"steady":     &steady{},
		"paced":      &paced{},
		"ramped":     &ramped{},
		"brief":      &brief{},
		"positional": &positional{},
		"breath":     &breath{},
		"pinned":     &pinned{},
		"movements":  &movements{},
		"rounds":     &rounds{},
		"stations":   &stations{},
		"broad":      &broad{},
	}
}

// plain is what most kinds have in common.
type plain struct{}

func (*plain) newSpot(s *state) { s.course, s.numberAt = course{}, -1 }

func (*plain) judged(s *state) {
	s.goOn()
	s.say(0, "Hold still.", "Still on it.", Hold)
}

// over: the parts that come here are open, and end by a number or the cap.
func (*plain) over(*state) {}

func (*plain) alarm(*state) int64 { return never }
func (*plain) rang(*state)        {}

func (*plain) asks(*state) (first, again int64) { return firstAskAfter, askAfter }

func (*plain) trendFirst(*state) bool { return false }

func (*plain) lighter(*state) {}

func (*plain) softened(*state) string { return "Softening noted; this protocol does not end by it." }

func (*plain) trend(_ *state, word string) string { return "Noted: " + word + "." }

func (*plain) takesMore(*state) bool { return false }

func (*plain) rises(s *state, v float64) bool { return s.roseByOne(v) }

func (*plain) guarded(*state) {}

func (*plain) measured(*state) string { return "Range recorded." }

func (*plain) capped(s *state) { s.atCap(s.pend) }

func (*plain) flows(*state, int64) {}

func (*plain) settles(*state) int64 { return never }

func (*plain) reps(s *state) int { return s.plan.Reps }

func (*plain) aim(s *state) float64 { return s.limits.Target }

// lower: two below in everything, and steady from now on.
func (*plain) lower(s *state) {
	l := s.start.Limits
	l.Target = max(leastReturn, l.Target-returnLower)
	l.Soft = max(l.Target, l.Soft-returnLower)
	l.Hard = max(l.Soft, l.Hard-returnLower)
	s.limits = l
	s.strategy = &comeback{}
}

const (
	returnLower = 2 // a return is made this much below the target
	leastReturn = 2
	returnFor   = 30 * second
)

// comeback is the one return of every protocol but graded stages: a steady hold,
// 30 s from contact.
type comeback struct{ plain }

func (*comeback) begin(s *state) {
	s.course.from = s.now
	s.enter(PhaseSettle, returnFor)
}

func (c *comeback) settles(s *state) int64 { return max(0, s.course.from+returnFor-s.now) }

func (c *comeback) number(s *state, v float64) {
	if s.needBase {
		if s.tooLittle(v, s.limits.Target-1) {
			return
		}
		s.enter(PhaseStage, c.settles(s))
		s.beginStage(v)
		s.windowEnd = s.part.until
		s.say(0, "Hold still.", fmt.Sprintf("Lighter, at %v.", v), Hold)
		return
	}
	c.judged(s)
}

func (*comeback) judged(s *state) {
	s.part.halted = -1
	if s.last <= s.calm() {
		s.calmDown()
		return
	}
	s.say(0, "Hold still.", fmt.Sprintf("%v, from %v.", s.last, s.base), Hold)
}

func (*comeback) over(s *state) {
	if s.dropped() && s.running && s.base-s.last >= 1 {
		s.comeOff(6, "window", nothing, EndedDone, fmt.Sprintf("Down to %v on the return.", s.last))
		return
	}
	s.comeOff(6, "no-drop", traceBack, EndedNoChange, "No change on the return either: look for where it comes from.")
}

func (*comeback) reps(*state) int { return 0 }
