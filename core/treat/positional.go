package treat

import (
	"fmt"
	"math"
)

// positional is slack-hold: find the tenderness, shorten the muscle until most of it is gone,
// keep still, bring it back and test again.
//
// Parts:
//
//	test     until a score of 2 or more: the measure for all that follows
//	slacken  up to plan.Tries searches of 10 s, until the score is at most 0.3 of it
//	still    plan.StillMS, or what the cap leaves; 0.5 of it will do after the last search
//	test     the muscle is brought back within 5 s, then the score once more
//
// In still, softening ends it from 30 s on, and more slack is tried once at 45 s. Less than
// 30 s of stillness is not worth beginning.
type positional struct {
	plain
	tries   int     // searches for ease so far
	tested  float64 // the score of the first test; never below 2 once it is set
	stilled bool    // the still part is behind
	more    bool    // more slack was tried at 45 s
	soft    bool    // softening was felt before 30 s of stillness
	softAt  int64   // when softening ended it; 0 while none has
	reduced bool    // the last test was 2 or more below the first
}

const (
	testFor     = 10 * second // at most, or until a score
	testAsk     = 5 * second
	tryFor      = 10 * second
	easeFully   = 0.3 // of the tested score
	easeEnough  = 0.5 // will do after the last try
	stillBefore = 15 * second
	leastStill  = 30 * second
	moreAt      = 45 * second
	bringBack   = 5 * second
	testLeast   = 2
)

func (p *positional) clone() strategy { k := *p; return &k }

func (*positional) atNewSpot(*state) strategy { return &positional{} }

// begin starts over: a new contact needs a new test, for nothing is compared across contacts.
func (p *positional) begin(s *state) {
	*p = positional{}
	s.enter(PhaseTest, testFor)
	s.say(0, "Press until it is tender, and ask.",
		fmt.Sprintf("Press until the score is %v to %v; that is the comparison.", testLeast, s.limits.Hard), SettleIn)
}

// score is the measure in the test, the way to ease in the search, and a report in the
// stillness.
func (p *positional) score(s *state, v float64) {
	switch s.part.kind {
	case PhaseTest:
		p.testNumber(s, v)
	case PhaseSlacken:
		s.compare(v)
		if p.eases(v, easeFully) {
			p.still(s)
			return
		}
		s.say(0, "More slack.", p.share(v), MoreSlack)
	case PhaseStill:
		s.compare(v)
		s.say(0, "Keep still, lightly.", p.share(v), Hold)
	}
}

// testNumber is the first score, which must be tender enough to compare with, or the last one,
// which counts from 5 s after the muscle is brought back.
func (p *positional) testNumber(s *state, v float64) {
	if p.stilled {
		if s.now >= s.part.from+bringBack {
			p.compareEnd(s)
		}
		return
	}
	if s.tooLittle(v, testLeast) {
		s.part.until = s.now + testFor
		return
	}
	p.tested = v
	s.spotBase = &v
	p.slacken(s)
}

// eases reports whether a score is at most a share of the tested one.
func (p *positional) eases(v, share float64) bool { return v <= share*p.tested }

// share puts a score beside that of the first test.
func (p *positional) share(v float64) string {
	return fmt.Sprintf("%v now, %v at the start.", v, p.tested)
}

// slacken is one search for ease. The words round down to whole scores; the rule takes the
// exact share.
func (p *positional) slacken(s *state) {
	p.tries++
	s.enter(PhaseSlacken, tryFor)
	until := fmt.Sprintf("Try %d of %d: until %v or less.", p.tries, s.plan.Tries, math.Floor(easeFully*p.tested))
	s.say(0, "Shorten the muscle: more slack.", until, MoreSlack)
	s.askNow()
}

// over is the end of a test without a score, of a search, or of the stillness.
func (p *positional) over(s *state) {
	switch s.part.kind {
	case PhaseTest:
		if p.stilled {
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
	case said != nil && p.eases(*said, easeFully):
		p.still(s)
	case p.tries < s.plan.Tries:
		p.slacken(s)
	case said != nil && p.eases(*said, easeEnough):
		p.still(s)
	default:
		s.comeOff(0, "no-drop", nothing, EndedNoChange, "No position of ease today.")
	}
}

// still keeps 15 s of the cap for bringing the muscle back and testing again.
func (*positional) still(s *state) {
	left := s.start.Limits.CapMS - s.pressed - stillBefore
	length := min(s.plan.StillMS, left)
	if length < leastStill {
		s.comeOff(0, "cap", nothing, EndedCap, "Too little time is left to keep still.")
		return
	}
	s.enter(PhaseStill, length)
	s.say(0, "Here; keep still, lightly.", fmt.Sprintf("%.0f s in the position of ease.", seconds(length)), Hold)
}

// softened brings it back, from 30 s of stillness on.
func (p *positional) softened(s *state) string {
	if s.part.kind != PhaseStill {
		return "Softening noted; it ends the stillness only."
	}
	if s.now < s.part.from+leastStill {
		p.soft = true
		s.say(0, "Keep still; it softens.", "Softening counts from 30 s on.", Hold)
		return ""
	}
	p.soften(s)
	return ""
}

// soften ends the stillness; when it was is kept, for it decides how the hold ended.
func (p *positional) soften(s *state) {
	p.softAt = s.now
	p.back(s, "It has softened.")
}

// back brings the muscle back with the finger on it, and tests again.
func (p *positional) back(s *state, why string) {
	p.stilled = true
	s.enter(PhaseTest, bringBack+testFor)
	s.say(0, "Bring it back slowly, the finger on it; then ask.", why+" 5 s, then the number again.", Hold)
}

// compareEnd is what it came to, by the score at the end.
func (p *positional) compareEnd(s *state) {
	if s.part.last != nil {
		s.compared.last = *s.part.last
		if s.compared.last <= s.calm() {
			s.believe()
		}
		p.reduced = p.tested-s.compared.last >= 2
	}
	if p.softAt > 0 {
		s.released = true
		s.comeOff(0, "done", nothing, EndedSoftened, "It has softened.")
		return
	}
	s.comeOff(0, "done", nothing, EndedDone, "The time of stillness is over.")
}

// alarm: early softening acts at 30 s; more slack is tried once at 45 s; the end
// score may have come while it was brought back.
func (p *positional) alarm(s *state) int64 {
	switch {
	case s.part.kind == PhaseTest && p.stilled && s.part.last != nil:
		return s.part.from + bringBack
	case s.part.kind != PhaseStill:
		return never
	case p.soft:
		return s.part.from + leastStill
	case !p.more && s.part.until > s.part.from+moreAt:
		return s.part.from + moreAt
	}
	return never
}

// rang acts on what alarm found: the score that came while the muscle was brought back, early
// softening, or the one more slack.
func (p *positional) rang(s *state) {
	switch {
	case s.part.kind == PhaseTest:
		p.compareEnd(s)
	case p.soft:
		p.soften(s)
	default:
		p.more = true
		s.startOver()
		s.say(0, "A little more slack, once.", "No softening in 45 s.", MoreSlack)
		s.askNow()
	}
}

// asks: in the test after 5 s; in slacken by itself; in between as part 6 has it.
func (*positional) asks(s *state) (first, again int64) {
	if s.part.kind == PhaseTest {
		at := s.part.from + testAsk - s.asked.since
		return at, at
	}
	return firstAskAfter, askAfter
}

// progress counts searches for ease.
func (p *positional) progress(s *state) progress {
	return progress{rep: p.tries, reps: s.plan.Tries, aim: s.limits.Target, reduced: p.reduced}
}
