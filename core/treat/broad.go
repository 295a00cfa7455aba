package treat

import "fmt"

// broad is broad-first: a wide contact with small movements where muscle is prone to cramp;
// what is borne is then narrowed, by hold-to-release.
//
// Parts: broad for plan.BroadMS, 15 s longer for each cramp; then narrow, at a target one
// lower, which steady runs. It narrows only when the last score lies within the target and
// the muscle did not guard in the last 15 s; else it ends here.
type broad struct {
	steady
	guardAt int64 // when the muscle last guarded; -1 while it has not
	borne   bool  // the broad part was borne, so that narrow began
}

const (
	crampAdds = 15 * second
	guardFree = 15 * second // at the end of the broad part
)

func (b *broad) clone() strategy { k := *b; return &k }

// atNewSpot is broad again, with the target that narrow may have lowered.
func (*broad) atNewSpot(s *state) strategy {
	s.limits.Target = s.start.Limits.Target
	return &broad{}
}

func (b *broad) begin(s *state) {
	*b = broad{guardAt: -1}
	s.enter(PhaseBroad, s.plan.BroadMS)
	s.say(0, "Broad contact, small movements.", fmt.Sprintf("%v s, then narrower.", seconds(s.plan.BroadMS)), SettleIn)
}

func (b *broad) number(s *state, v float64) {
	if s.part.kind == PhaseBroad {
		s.compare(v)
		s.say(0, "Go on, broad and small.", fmt.Sprintf("%v now.", v), Hold)
		return
	}
	b.steady.number(s, v)
}

func (b *broad) judged(s *state) {
	if s.part.kind == PhaseBroad {
		b.plain.judged(s)
		return
	}
	b.steady.judged(s)
}

func (b *broad) over(s *state) {
	calmHand := b.guardAt < 0 || s.now-b.guardAt >= guardFree
	if s.numberAt < 0 || s.number > s.limits.Target || !calmHand {
		s.comeOff(0, "done", nothing, EndedDone, "Not borne calmly: no narrow hold today.")
		return
	}
	b.borne = true
	s.enter(PhaseNarrow, never)
	s.limits.Target = max(0, s.limits.Target-1)
	s.needBase, s.sinks = true, 0
	s.say(0, fmt.Sprintf("Narrow the contact, to %v.", s.limits.Target), "The broad part was borne.", NextRep)
}

func (b *broad) softened(s *state) string {
	if s.part.kind == PhaseBroad {
		return "Softening noted; the broad part goes by its time."
	}
	return b.steady.softened(s)
}

// guarded: a cramp adds time.
func (b *broad) guarded(s *state) {
	b.guardAt = s.now
	if s.part.kind == PhaseBroad {
		s.part.until += crampAdds
	}
}

func (b *broad) alarm(s *state) int64 {
	if s.part.kind == PhaseBroad {
		return never
	}
	return b.steady.alarm(s)
}

func (b *broad) capped(s *state) {
	if s.part.kind == PhaseBroad || s.phase == PhaseRelease {
		s.atCap(s.pend)
		return
	}
	b.steady.capped(s)
}

func (b *broad) progress(s *state) progress { return progress{aim: s.limits.Target, borne: b.borne} }
