package treat

import "fmt"

// positional steers slack-hold: find the tenderness, shorten the muscle until
// most of it is gone, keep still, bring it back and test again.
type positional struct{ plain }

const (
	testFor     = 10 * second // at most, or until a number
	testAsk     = 5 * second
	tryFor      = 10 * second
	easeFully   = 0.3 // of the tested number
	easeEnough  = 0.5 // will do after the last try
	stillBefore = 15 * second
	leastStill  = 30 * second
	moreAt      = 45 * second
	bringBack   = 5 * second
	testLeast   = 2
)

func (*positional) begin(s *state) {
	s.course = course{from: s.now}
	s.enter(PhaseTest, testFor)
	s.say(0, "Press until it is tender, and ask.",
		fmt.Sprintf("A number from %v to %v is the measure for what follows.", testLeast, s.limits.Hard), SettleIn)
}

func (p *positional) number(s *state, v float64) {
	switch s.part.kind {
	case PhaseTest:
		p.testNumber(s, v)
	case PhaseSlacken:
		s.compare(v)
		if p.eases(s, v, easeFully) {
			p.still(s)
			return
		}
		s.say(0, "More slack.", p.share(s, v), MoreSlack)
	case PhaseStill:
		s.compare(v)
		s.say(0, "Keep still, lightly.", p.share(s, v), Hold)
	}
}

func (p *positional) testNumber(s *state, v float64) {
	if s.course.stilled {
		if s.now >= s.part.from+bringBack {
			p.compareEnd(s)
		}
		return
	}
	if s.tooLittle(v, testLeast) {
		s.part.until = s.now + testFor
		return
	}
	s.course.tested = v
	s.spotBase = &v
	p.slacken(s)
}

// eases reports whether a number is at most a share of the tested one.
func (*positional) eases(s *state, v, share float64) bool { return v <= share*s.course.tested }

func (*positional) share(s *state, v float64) string {
	return fmt.Sprintf("%v of the %v before.", v, s.course.tested)
}

func (*positional) slacken(s *state) {
	s.course.rep++
	s.enter(PhaseSlacken, tryFor)
	until := fmt.Sprintf("Try %d of %d, until %v or less.", s.course.rep, s.plan.Tries, easeFully*s.course.tested)
	s.say(0, "Shorten the muscle: more slack.", until, MoreSlack)
	s.askNow()
}

func (p *positional) over(s *state) {
	switch s.part.kind {
	case PhaseTest:
		if s.course.stilled {
			p.compareEnd(s)
			return
		}
		s.comeOff(0, "no-drop", nothing, EndedNoChange, "No number in the test: nothing to compare with.")
	case PhaseSlacken:
		p.tried(s)
	case PhaseStill:
		p.back(s, "The time is over.")
	}
}

// tried is the end of one search for ease.
func (p *positional) tried(s *state) {
	said := s.part.last
	switch {
	case said != nil && p.eases(s, *said, easeFully):
		p.still(s)
	case s.course.rep < s.plan.Tries:
		p.slacken(s)
	case said != nil && p.eases(s, *said, easeEnough):
		p.still(s)
	default:
		s.comeOff(0, "no-drop", nothing, EndedNoChange, "No position of ease today.")
	}
}

func (*positional) still(s *state) {
	left := s.start.Limits.CapMS - s.pressed - stillBefore
	length := min(s.plan.StillMS, left)
	if length < leastStill {
		s.comeOff(0, "cap", nothing, EndedCap, "Too little time is left to keep still.")
		return
	}
	s.enter(PhaseStill, length)
	s.say(0, "Here; keep still, lightly.", fmt.Sprintf("%v s in the position of ease.", seconds(length)), Hold)
}

// softened brings it back, from 30 s of stillness on.
func (p *positional) softened(s *state) string {
	if s.closing || s.part.kind != PhaseStill {
		return "Softening noted; it ends the stillness only."
	}
	if s.now < s.part.from+leastStill {
		s.course.soft = true
		s.say(0, "Keep still; it softens.", "Softening counts from 30 s on.", Hold)
		return ""
	}
	p.soften(s)
	return ""
}

func (p *positional) soften(s *state) {
	s.course.softAt = s.now
	p.back(s, "It has softened.")
}

// back brings the muscle back with the finger on it, and tests again.
func (*positional) back(s *state, why string) {
	s.course.stilled = true
	s.enter(PhaseTest, bringBack+testFor)
	s.say(0, "Bring it back slowly, the finger on it; then ask.", why+" 5 s, then the number again.", Hold)
}

// compareEnd is what it came to, by the number at the end.
func (*positional) compareEnd(s *state) {
	if s.part.last != nil {
		s.last = *s.part.last
		if s.last <= s.calm() {
			s.believe()
		}
		s.course.reduced = s.course.tested-s.last >= 2
	}
	if s.course.softAt > 0 {
		s.released = true
		s.comeOff(0, "done", nothing, EndedSoftened, "It has softened.")
		return
	}
	s.comeOff(0, "done", nothing, EndedDone, "The time of stillness is over.")
}

// alarm: early softening acts at 30 s; more slack is tried once at 45 s; the end
// number may have come while it was brought back.
func (*positional) alarm(s *state) int64 {
	switch {
	case s.part.kind == PhaseTest && s.course.stilled && s.part.last != nil:
		return s.part.from + bringBack
	case s.part.kind != PhaseStill:
		return never
	case s.course.soft:
		return s.part.from + leastStill
	case !s.course.more && s.part.until > s.part.from+moreAt:
		return s.part.from + moreAt
	}
	return never
}

func (p *positional) rang(s *state) {
	switch {
	case s.part.kind == PhaseTest:
		p.compareEnd(s)
	case s.course.soft:
		p.soften(s)
	default:
		s.course.more = true
		s.startOver()
		s.say(0, "A little more slack, once.", "No softening in 45 s.", MoreSlack)
		s.askNow()
	}
}

// asks: in the test after 5 s; in slacken by itself; in between as part 6 has it.
func (*positional) asks(s *state) (first, again int64) {
	if s.part.kind == PhaseTest {
		at := s.part.from + testAsk - s.answeredAt
		return at, at
	}
	return firstAskAfter, askAfter
}

func (*positional) reps(s *state) int { return s.plan.Tries }
