package treat

import "fmt"

// rounds is contract-relax: lengthen to the first stretch; then push, let
// go, and lengthen again.

const firstStretch = 5 * second

// Parts: lengthen for 5 s to the first stretch, then plan.Reps times push, rest, lengthen. It
// ends early when a range that was measured gained less than plan.MinGainDeg on the round
// before, from the second round on. Nothing is pressed, so plan.TotalMS bounds the whole.
type rounds struct {
	plain
	rep     int     // rounds begun
	reach   float64 // the range before this round, in degrees
	reached bool    // reach was read
}

func (r *rounds) clone() strategy { k := *r; return &k }

func (*rounds) atNewSpot(*state) strategy { return &rounds{} }

// begin takes up the slack of the joint, so that the first push is against a length that can
// be felt.
func (*rounds) begin(s *state) {
	s.enter(PhaseLengthen, firstStretch)
	s.say(0, "Lengthen to the first stretch.", "No pain over "+fmt.Sprint(s.limits.Target)+".", SettleIn)
	s.askNow()
}

// score is shown and, where a part compares, watched for a rise. It ends nothing: rounds end
// by count or by range.
func (*rounds) score(s *state, v float64) {
	if parts[s.part.kind].compares {
		s.compare(v)
	}
	s.say(0, s.said.text, fmt.Sprintf("%v now.", v), s.said.advice...)
}

// over goes from push to rest to lengthening, and on to the next round. Lengthening further
// needs a fresh score.
func (r *rounds) over(s *state) {
	switch {
	case s.part.kind == PhasePush:
		s.enter(PhaseRest, s.plan.RestMS)
		s.say(0, "Let go; breathe out.", fmt.Sprintf("Round %d of %d.", r.rep, s.plan.Reps), Rest)
	case s.part.kind == PhaseRest:
		s.enter(PhaseLengthen, s.plan.LengthenMS)
		if !s.fresh() {
			s.say(0, "Keep this length; wait.", "Without a number nothing goes further.", Hold)
		} else {
			s.say(0, "Lengthen a little more.", fmt.Sprintf("Round %d of %d.", r.rep, s.plan.Reps), NextRep)
		}
		s.askNow()
	case r.rep >= s.plan.Reps:
		s.comeOff(0, "done", nothing, EndedDone, fmt.Sprintf("%d rounds are done.", s.plan.Reps))
	default:
		r.push(s)
	}
}

// push is one contraction, of the muscle itself or, in the reciprocal variant, of its
// opponent.
func (r *rounds) push(s *state) {
	r.rep++
	s.enter(PhasePush, s.plan.PushMS)
	text := "Push gently against my hand."
	if s.plan.Variant == "reciprocal" {
		text = "Push gently away from my hand."
	}
	s.say(0, text, fmt.Sprintf("Round %d of %d, %v s.", r.rep, s.plan.Reps, seconds(s.plan.PushMS)), NextRep)
	s.askNow()
}

// measured: from the second round on a range that gained too little is the last.
func (r *rounds) measured(s *state) string {
	now := s.kept.ranges[len(s.kept.ranges)-1]
	if r.rep < 2 {
		r.reach, r.reached = now, r.rep == 1
		return "Range recorded."
	}
	gained := now - r.reach
	first := !r.reached
	r.reach, r.reached = now, true
	if first || gained >= s.plan.MinGainDeg {
		return "Range recorded."
	}
	s.comeOff(0, "done", nothing, EndedDone,
		fmt.Sprintf("Less than %v° gained: stop.", s.plan.MinGainDeg))
	return ""
}

func (*rounds) asks(*state) (first, again int64) { return silent() }

// progress counts rounds.
func (r *rounds) progress(s *state) progress {
	return progress{rep: r.rep, reps: s.plan.Reps, aim: s.limits.Target}
}
