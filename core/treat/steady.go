package treat

import "fmt"

// steady steers hold-to-release: press to the first resistance and hold until
// the tissue softens. It also runs broad-first's narrow part.
type steady struct{ plain }

const (
	steadyAsk      = 15 * second
	softeningFrom  = 10 * second // after the baseline; earlier softening acts then
	unsteeredAfter = 5 * second  // the hold counts from here without a number
)

func (h *steady) begin(s *state) {
	s.course = course{}
	s.enter(PhaseSettle, never)
	if s.plan.Unsteered {
		s.enter(PhaseSettle, unsteeredAfter)
		s.say(0, "Press to the first resistance only.", "No number steers today: 30 s, broad.", SettleIn)
	}
}

func (h *steady) number(s *state, v float64) {
	switch {
	case s.plan.Unsteered:
		s.say(0, s.text, "Number recorded; it does not steer today.", s.advice...)
	case s.needBase:
		if s.tooLittle(v, s.limits.Target-1) {
			return
		}
		if s.part.kind == PhaseSettle {
			s.enter(PhaseStage, never)
		}
		s.beginStage(v)
		s.say(0, "Hold; do not press deeper.", fmt.Sprintf("At the first resistance, at %v.", v), Hold)
	default:
		h.judged(s)
	}
}

// judged: calm ends it, from 10 s after the baseline on.
func (h *steady) judged(s *state) {
	s.part.halted = -1
	ripe := s.now >= s.stageFrom+softeningFrom
	switch {
	case s.last <= s.calm() && ripe:
		s.calmDown()
	case s.last <= s.calm():
		s.say(0, "Hold still.", fmt.Sprintf("Down to %v; hold at least 10 s.", s.last), Hold)
	default:
		s.say(0, "Hold still.", fmt.Sprintf("%v, from %v.", s.last, s.base), Hold)
	}
}

func (h *steady) softened(s *state) string {
	if s.closing {
		return "Recorded; come off first."
	}
	s.course.soft = true
	if s.running && s.now >= s.stageFrom+softeningFrom {
		h.letGo(s)
		return ""
	}
	s.say(0, "Hold still; it softens.", "Softening counts from 10 s after the baseline.", Hold)
	return ""
}

func (*steady) letGo(s *state) {
	s.released = true
	s.comeOff(5, "softened", nothing, EndedSoftened, "It has softened: let go.")
}

// alarm: what was felt early acts at 10 s; another angle is tried once.
func (h *steady) alarm(s *state) int64 {
	at := int64(never)
	if s.running && (s.course.soft || h.calmNow(s)) {
		at = s.stageFrom + softeningFrom
	}
	if h.mayTurn(s) {
		at = min(at, s.now+max(0, h.turnAt(s)-s.pressed))
	}
	return at
}

func (*steady) calmNow(s *state) bool { return !s.plan.Unsteered && s.last <= s.calm() }

func (*steady) mayTurn(s *state) bool {
	return s.part.kind != PhaseNarrow && !s.plan.Unsteered && !s.course.angled
}

// turnAt is after how much pressure another angle is tried.
func (*steady) turnAt(s *state) int64 { return min(s.plan.AngleMS, s.start.Limits.CapMS/2) }

func (h *steady) rang(s *state) {
	ripe := s.running && s.now >= s.stageFrom+softeningFrom
	switch {
	case ripe && s.course.soft:
		h.letGo(s)
	case ripe && h.calmNow(s):
		s.calmDown()
	case h.mayTurn(s) && s.pressed >= h.turnAt(s):
		s.course.angled = true
		if s.dropped() {
			return
		}
		s.breakStage("angle")
		s.say(0, "Change the angle a little.", "No change so far: try it from another side.", ChangeAngle)
		s.askNow()
	}
}

// over: without a number the hold counts from 5 s after contact.
func (*steady) over(s *state) {
	s.enter(PhaseStage, never)
	s.running, s.needBase, s.open = true, false, openStage{} // nobody said a number
	s.base, s.last = s.limits.Hard, s.limits.Hard
	s.stageFrom, s.windowEnd = s.now, never
	s.say(0, "Hold at the first resistance.", "Until it softens, 30 s at most.", Hold)
}

func (*steady) asks(*state) (first, again int64) { return steadyAsk, steadyAsk }

func (h *steady) capped(s *state) {
	switch {
	case s.pend == traceBack || s.closing || s.plan.Unsteered || s.dropped():
		s.atCap(s.pend)
	default:
		s.comeOff(6, "cap", traceBack, EndedNoChange, "The time is used and nothing has changed: look for its source.")
	}
}

func (*steady) reps(*state) int { return 0 }

func (*steady) settles(s *state) int64 {
	if s.plan.Unsteered {
		return unsteeredAfter
	}
	return never
}
