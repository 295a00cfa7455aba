package treat

import "fmt"

// steady is hold-to-release: press to the first resistance and hold until the tissue softens.
// It also runs broad-first's narrow part.
//
// Parts: settle until a baseline is given, then stage (narrow in broad-first). It ends
//
//   - when softening is felt, or the score is calm: from 10 s after the baseline on; what
//     came earlier acts then;
//   - at the cap. Without any drop the next step is to trace it back.
//
// When nothing has changed after plan.AngleMS of pressure (half of the cap where that is
// shorter), another angle is tried, once, with a new baseline.
//
// Where the client's score cannot steer (plan.Unsteered) nobody is asked: the hold counts
// from 5 s after contact and lasts 30 s at most.
type steady struct {
	plain
	soft   bool // softening was felt; it ends the hold from 10 s after the baseline on
	angled bool // another angle was tried, which happens once
}

const (
	steadyAsk      = 15 * second
	softeningFrom  = 10 * second // after the baseline; earlier softening acts then
	unsteeredAfter = 5 * second  // the hold counts from here without a score
)

func (h *steady) clone() strategy { k := *h; return &k }

func (*steady) atNewSpot(*state) strategy { return &steady{} }

// begin waits for a baseline. Where no score can steer, the hold begins by itself after 5 s.
func (h *steady) begin(s *state) {
	*h = steady{}
	s.enter(PhaseSettle, never)
	if s.plan.Unsteered {
		s.enter(PhaseSettle, unsteeredAfter)
		s.say(0, "Press to the first resistance only.", "No number steers today: 30 s, broad.", SettleIn)
	}
}

// score is a baseline first, then it is judged. Where it cannot steer it is recorded only.
func (h *steady) score(s *state, v float64) {
	switch {
	case s.plan.Unsteered:
		s.say(0, s.said.text, "Number recorded; it does not steer today.", s.said.advice...)
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
	ripe := s.now >= s.compared.from+softeningFrom
	switch {
	case s.compared.last <= s.calm() && ripe:
		s.calmDown()
	case s.compared.last <= s.calm():
		s.say(0, "Hold still.", fmt.Sprintf("Down to %v; hold at least 10 s.", s.compared.last), Hold)
	default:
		s.holdFrom()
	}
}

// softened ends the hold from 10 s after the baseline on; what is felt earlier acts then.
func (h *steady) softened(s *state) string {
	if s.phase == PhaseRelease {
		return "Recorded; come off first."
	}
	h.soft = true
	if s.compared.runs && s.now >= s.compared.from+softeningFrom {
		h.letGo(s)
		return ""
	}
	s.say(0, "Hold still; it softens.", "Softening counts from 10 s after the baseline.", Hold)
	return ""
}

// letGo counts as released without a calm score: the tissue itself has shown it.
func (*steady) letGo(s *state) {
	s.released = true
	s.comeOff(5, "softened", nothing, EndedSoftened, "It has softened: let go.")
}

// alarm: what was felt early acts at 10 s; another angle is tried once.
func (h *steady) alarm(s *state) int64 {
	at := int64(never)
	if s.compared.runs && (h.soft || h.calmNow(s)) {
		at = s.compared.from + softeningFrom
	}
	if h.mayTurn(s) {
		at = min(at, s.now+max(0, h.turnAt(s)-s.pressed))
	}
	return at
}

func (*steady) calmNow(s *state) bool { return !s.plan.Unsteered && s.compared.last <= s.calm() }

// mayTurn: another angle is tried once, and not in a narrow hold that has just been found.
func (h *steady) mayTurn(s *state) bool {
	return s.part.kind != PhaseNarrow && !s.plan.Unsteered && !h.angled
}

// turnAt is after how much pressure another angle is tried, in ms of s.pressed: time in a
// pause or off the spot does not count.
func (*steady) turnAt(s *state) int64 { return min(s.plan.AngleMS, s.start.Limits.CapMS/2) }

// rang acts on what was felt early, or turns the hand. A hold that has dropped already is left
// as it is.
func (h *steady) rang(s *state) {
	ripe := s.compared.runs && s.now >= s.compared.from+softeningFrom
	switch {
	case ripe && h.soft:
		h.letGo(s)
	case ripe && h.calmNow(s):
		s.calmDown()
	case h.mayTurn(s) && s.pressed >= h.turnAt(s):
		h.angled = true
		if s.dropped() {
			return
		}
		s.breakStage("angle")
		s.say(0, "Change the angle a little.", "No change so far: try it from another side.", ChangeAngle)
		s.askNow()
	}
}

// over is called at the end of an unsteered settle only. The baseline is the hard ceiling,
// so that no comparison with it can look like a rise or a drop.
func (*steady) over(s *state) {
	s.enter(PhaseStage, never)
	s.needBase, s.stages.open = false, openStage{} // nobody said a score
	s.compared = comparison{runs: true, from: s.now, base: s.limits.Hard, last: s.limits.Hard}
	s.say(0, "Hold at the first resistance.", "Until it softens, 30 s at most.", Hold)
}

func (*steady) asks(*state) (first, again int64) { return steadyAsk, steadyAsk }

// capped without any drop means that the source lies elsewhere, so it is traced back.
func (h *steady) capped(s *state) {
	switch {
	case s.pend == traceBack || s.phase == PhaseRelease || s.plan.Unsteered || s.dropped():
		s.atCap(s.pend)
	default:
		s.comeOff(6, "cap", traceBack, EndedNoChange, "The time is used and nothing has changed: look for its source.")
	}
}

func (*steady) progress(s *state) progress { return progress{aim: s.limits.Target} }

// settles is endless with a score to wait for, and 5 s where there is none.
func (*steady) settles(s *state) int64 {
	if s.plan.Unsteered {
		return unsteeredAfter
	}
	return never
}
