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

// begin is the broad part. What an earlier contact at this spot knew (guarding, borne) no
// longer counts.
func (b *broad) begin(s *state) {
	*b = broad{guardAt: -1}
	s.enter(PhaseBroad, s.plan.BroadMS)
	s.say(0, "Broad contact, small movements.", fmt.Sprintf("%v s, then narrower.", seconds(s.plan.BroadMS)), SettleIn)
}

// score only goes on in the broad part, which ends by its time; in the narrow part it is a
// hold to release.
func (b *broad) score(s *state, v float64) {
	if s.part.kind == PhaseBroad {
		s.compare(v)
		s.say(0, "Go on, broad and small.", fmt.Sprintf("%v now.", v), Hold)
		return
	}
	b.steady.score(s, v)
}

// judged takes the part up that the question had halted.
func (b *broad) judged(s *state) {
	if s.part.kind == PhaseBroad {
		b.plain.judged(s)
		return
	}
	b.steady.judged(s)
}

// over decides whether to narrow. Without a score, above the target, or after a cramp in the
// last 15 s there is no narrow hold today.
func (b *broad) over(s *state) {
	calmHand := b.guardAt < 0 || s.now-b.guardAt >= guardFree
	if s.scoreAt < 0 || s.score > s.limits.Target || !calmHand {
		s.comeOff(0, "done", nothing, EndedDone, "Not borne calmly: no narrow hold today.")
		return
	}
	b.borne = true
	s.enter(PhaseNarrow, never)
	s.limits.Target = max(0, s.limits.Target-1)
	s.needBase, s.sinks = true, 0
	s.say(0, fmt.Sprintf("Narrow the contact, to %v.", s.limits.Target), "The broad part was borne.", NextRep)
}

// softened ends the narrow part only: the broad one is there to ask gently, not to release.
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

// alarm is the narrow part's; the broad one has no moment of its own.
func (b *broad) alarm(s *state) int64 {
	if s.part.kind == PhaseBroad {
		return never
	}
	return b.steady.alarm(s)
}

// capped in the broad part means nothing about the tissue, so nothing is traced back.
func (b *broad) capped(s *state) {
	if s.part.kind == PhaseBroad || s.phase == PhaseRelease {
		s.atCap(s.pend)
		return
	}
	b.steady.capped(s)
}

func (b *broad) progress(s *state) progress { return progress{aim: s.limits.Target, borne: b.borne} }
