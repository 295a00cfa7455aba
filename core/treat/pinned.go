package treat

import "fmt"

// pinned is pin-and-stretch: pin at the barrier, lengthen with the breath.
//
// Parts: settle until a baseline is given, then one lengthen for each of plan.Breaths, which
// ends by its clock or with an out-breath. The score is asked after every second; without a
// fresh one the pin is kept and nothing goes further.
type pinned struct {
	plain
	breaths int
}

func (p *pinned) clone() strategy { k := *p; return &k }

func (*pinned) atNewSpot(*state) strategy { return &pinned{} }

// begin waits for a baseline: nothing is lengthened before the pin is known to be bearable.
func (*pinned) begin(s *state) {
	s.enter(PhaseSettle, never)
	s.say(0, fmt.Sprintf("Pin it at the barrier, to %v of 10.", s.limits.Target), "Then lengthen with the breath.",
		SettleIn)
}

// score lets the first lengthening begin. Later ones follow the breath and only show the
// score.
func (p *pinned) score(s *state, v float64) {
	if s.part.kind != PhaseSettle {
		s.say(0, "On the next out-breath, lengthen.", fmt.Sprintf("%v now.", v), Hold)
		return
	}
	if s.tooLittle(v, s.limits.Target-1) {
		return
	}
	p.lengthen(s)
	s.beginStage(v)
}

// over is the end of a breath, by its clock or by the therapist's key.
func (p *pinned) over(s *state) {
	if p.breaths >= s.plan.Breaths {
		s.comeOff(0, "done", nothing, EndedDone, fmt.Sprintf("%d breaths are done.", s.plan.Breaths))
		return
	}
	p.lengthen(s)
}

// lengthen is one out-breath. From the second on it needs a score of the last 20 s.
func (p *pinned) lengthen(s *state) {
	p.breaths++
	s.enter(PhaseLengthen, s.plan.BreathMS)
	if p.breaths > 1 && !s.fresh() {
		s.say(0, "Wait; keep the pin.", "Without a number nothing goes further.", Hold)
	} else {
		s.say(0, "Out-breath: lengthen. In-breath: wait.",
			fmt.Sprintf("Breath %d of %d.", p.breaths, s.plan.Breaths), NextRep)
	}
	if p.breaths%2 == 0 {
		s.askNow()
	}
}

// asks while the baseline is waited for; after that every second breath asks.
func (*pinned) asks(s *state) (first, again int64) {
	if s.part.kind == PhaseSettle {
		return firstAskAfter, askAfter
	}
	return silent()
}

// progress counts breaths.
func (p *pinned) progress(s *state) progress {
	return progress{rep: p.breaths, reps: s.plan.Breaths, aim: s.limits.Target}
}
