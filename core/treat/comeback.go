package treat

import "fmt"

const (
	returnLower = 2 // a return is made this much below the target
	leastReturn = 2
	returnFor   = 30 * second
)

// comeback is the one return of every protocol but graded stages: a steady hold, 30 s from
// contact, two lighter in target and ceilings.
//
// It ends calm, or after 30 s: with a drop of one it has done something; without one the next
// step is to trace the point back. The 30 s are counted from contact, also when the baseline
// comes late or is taken again.
type comeback struct {
	plain
	after progress // how far the hold had come before it
	from  int64    // contact
}

func (c *comeback) clone() strategy { k := *c; return &k }

func (*comeback) atNewSpot(*state) strategy { return &comeback{} }

// begin counts the 30 s from contact, whenever the baseline comes.
func (c *comeback) begin(s *state) {
	c.from = s.now
	s.enter(PhaseSettle, returnFor)
}

func (c *comeback) settles(s *state) int64 { return max(0, c.from+returnFor-s.now) }

// score is a baseline first, and a sink where it is too low; then each score is judged at
// once.
func (c *comeback) score(s *state, v float64) {
	if s.needBase {
		if s.tooLittle(v, s.limits.Target-1) {
			return
		}
		s.enter(PhaseStage, c.settles(s))
		s.beginStage(v)
		s.say(0, "Hold still.", fmt.Sprintf("Lighter, at %v.", v), Hold)
		return
	}
	c.judged(s)
}

// judged ends it when it is calm. A drop alone does not end it early: the time is short as it
// is.
func (*comeback) judged(s *state) {
	s.part.halted = -1
	if s.compared.last <= s.calm() {
		s.calmDown()
		return
	}
	s.holdFrom()
}

// over is the end of the 30 s. Only a drop within the return counts; what came before is in
// the record.
func (*comeback) over(s *state) {
	if s.dropped() && s.compared.runs && s.compared.base-s.compared.last >= 1 {
		s.comeOff(6, "window", nothing, EndedDone, fmt.Sprintf("Down to %v on the return.", s.compared.last))
		return
	}
	s.comeOff(6, "no-drop", traceBack, EndedNoChange, "No change on the return either: look for where it comes from.")
}

// progress is what the hold had done before; the return itself counts no repetitions.
func (c *comeback) progress(s *state) progress {
	p := c.after
	p.reps, p.move, p.aim = 0, 0, s.limits.Target
	return p
}
