package treat

import "fmt"

// graded is graded stages: press to the target, hold still, and when the score has dropped
// sink to the target again (rules 3 to 6, letter by letter).
//
// Parts: settle until a baseline is given (rule 3 may sink first), then stage. A stage ends
//
//   - with a calm score: come off (rule 5);
//   - with a drop of 2, but not before 20 s: the next stage, at most three (rule 4);
//   - after 30 s with a drop of 1: 15 s more, once (rule 6);
//   - after 30 s without a drop: come off, flush, and one lighter return (rule 6).
//
// The return is a stage of its own at a lower target. It has no second return.
type graded struct {
	plain
	extended bool // the stage's window has been lengthened once
}

// Working values of the handbook, in stages and ms.
const (
	maxStages   = 3
	stageMin    = 20 * second // no stage ends by a drop before this
	stageWindow = 30 * second
	stageExtra  = 15 * second // once, when the drop is 1 at the end of the window
)

// firstPlan is what holds of the first rules were done by.
var firstPlan = Plan{Strategy: "stages", Presses: true, Returns: true}

func (g *graded) clone() strategy { k := *g; return &k }

func (*graded) atNewSpot(*state) strategy { return &graded{} }

func (*graded) begin(s *state) { s.enter(PhaseSettle, never) }

// score is a baseline after each contact and each deepening, else it is judged against the
// one that stands.
func (g *graded) score(s *state, v float64) {
	if s.needBase {
		g.baseline(s, v)
		return
	}
	g.judged(s)
}

// baseline begins a stage, or sinks when the score is too low (rule 3): a stage that begins
// too lightly would show a drop that means nothing.
func (g *graded) baseline(s *state, v float64) {
	if s.tooLittle(v, s.limits.Target-1) {
		return
	}
	s.enter(PhaseStage, stageWindow)
	s.beginStage(v)
	g.extended = false
	s.say(0, "Hold still.", fmt.Sprintf("Stage %d begins at %v.", s.stages.number, v), Hold)
}

// judged decides what the last score of a stage means. It is also called when 20 s are
// reached (alarm), and when the window is over.
func (g *graded) judged(s *state) {
	s.part.halted = -1
	drop := s.compared.base - s.compared.last
	switch {
	case s.compared.last <= s.calm():
		s.calmDown()
	case drop >= 2 && s.now-s.compared.from >= stageMin:
		g.stageDone(s, "drop", fmt.Sprintf("Down %v from %v.", drop, s.compared.base))
	case s.now >= s.part.until:
		g.over(s)
	case drop >= 2:
		why := fmt.Sprintf("Down %v from %v; a stage lasts at least 20 s.", drop, s.compared.base)
		s.say(4, "Hold still.", why, Hold)
	default:
		s.holdFrom()
	}
}

// alarm: a drop of two that came early acts at 20 s, without another score.
func (*graded) alarm(s *state) int64 {
	if s.compared.runs && s.compared.base-s.compared.last >= 2 {
		return s.compared.from + stageMin
	}
	return never
}

func (g *graded) rang(s *state) { g.judged(s) }

// stageDone is rule 4: deepen while a stage is left, else come off.
func (*graded) stageDone(s *state, by, why string) {
	if s.stages.number < maxStages {
		s.endStage(by)
		s.enter(PhaseSettle, never)
		s.needBase, s.stages.again = true, false
		s.say(4, fmt.Sprintf("On the out-breath, sink back to %v.", s.limits.Target),
			why+fmt.Sprintf(" Stage %d of %d is next.", s.stages.number+1, maxStages), Deepen)
		return
	}
	s.comeOff(4, by, nothing, EndedDone, why+" All stages are used.")
}

// over is rule 6: the window is.
func (g *graded) over(s *state) {
	drop := s.compared.base - s.compared.last
	switch {
	case g.extended:
		g.stageDone(s, "window", fmt.Sprintf("45 s with a drop of %v.", drop))
	case drop >= 2:
		g.stageDone(s, "drop", fmt.Sprintf("Down %v from %v.", drop, s.compared.base))
	case drop >= 1:
		g.extended = true
		s.part.until += stageExtra
		s.say(6, "Hold 15 s more.", fmt.Sprintf("Down only %v in 30 s.", drop), Hold)
	case s.returned:
		s.comeOff(6, "no-drop", traceBack, EndedNoChange,
			"No change on the return either: look for where it comes from.")
	default:
		s.comeOff(6, "no-drop", returnLighter, EndedNoChange, "No change in 30 s: flush, then return lighter.")
	}
}

// softened is recorded only. Graded stages end by the client's score, so that two therapists
// end them alike.
func (*graded) softened(s *state) string {
	return "Softening noted; graded stages end by the client's number."
}

// lower keeps this strategy for the return. The first rules let the target go down to 1;
// since then it is 2 at least, for less than that nobody can feel a change.
func (*graded) lower(s *state) {
	least := float64(leastReturn)
	if s.rules.calmIsTwo {
		least = 1
	}
	s.limits.Target = max(least, s.start.Limits.Target-returnLower)
}

func (*graded) progress(s *state) progress { return progress{reps: maxStages, aim: s.limits.Target} }
