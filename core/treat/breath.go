package treat

import "fmt"

// breath is breath-sink: a little deeper on each out-breath, stop at depth, hold still; the
// client may then move the limb under the contact.
//
// Parts: sink, one for each breath, by the coach's clock or by the therapist's own key; still,
// when the target is reached within one, when it softens, or when the breaths are used; move,
// for plan.Moves movements under the kept contact. With two places all of it happens again a
// little higher, when 45 s of the cap are left.
//
// An out-breath deepens only with a score within the target that is not older than 20 s.

const (
	breathsOfTwo = 4           // at each of two places
	secondPlace  = 45 * second // of the cap must be left
)

type breath struct {
	plain
	breaths int  // out-breaths at this place
	place   int  // from 1
	moved   int  // movements under the contact
	sank    bool // one sink on the out-breath between two moves
}

func (b *breath) clone() strategy { k := *b; return &k }

func (*breath) atNewSpot(*state) strategy { return &breath{} }

// begin starts the first place, or the next press at a new one. Breaths are counted for each
// place, places for the whole hold.
func (b *breath) begin(s *state) {
	b.place++
	b.breaths = 0
	b.sink(s)
	s.say(0, fmt.Sprintf("Rest on it; sink towards %v with the out-breaths.", s.limits.Target),
		fmt.Sprintf("%d breaths, place %d of %d.", s.plan.Breaths, b.place, max(1, s.plan.Places)), SettleIn)
}

func (*breath) sink(s *state) { s.enter(PhaseSink, s.plan.BreathMS) }

// score ends the sinking when the score reaches the target within one. Above the target the
// hand stays where it is; below it nothing moves before the next out-breath.
func (b *breath) score(s *state, v float64) {
	s.compare(v)
	t := s.limits.Target
	switch {
	case s.part.kind != PhaseSink:
		s.say(0, "Hold still.", fmt.Sprintf("%v at depth.", v), Hold)
	case v >= t-1 && v <= t:
		b.still(s, fmt.Sprintf("Depth is reached: %v.", v))
	case v > t:
		s.say(0, "Stay at this depth.", fmt.Sprintf("%v is above the target of %v.", v, t), Hold)
	default:
		s.say(0, "Wait for the out-breath.", fmt.Sprintf("%v is within the target of %v.", v, t), Hold)
	}
}

// over is the end of a breath by the coach's clock or by the therapist's key, of the
// stillness, or of a movement.
func (b *breath) over(s *state) {
	switch s.part.kind {
	case PhaseSink:
		b.outBreath(s)
	case PhaseStill, PhaseMove:
		b.next(s)
	}
}

// outBreath sinks while the score allows.
func (b *breath) outBreath(s *state) {
	b.breaths++
	n := b.breaths
	last := n >= s.plan.Breaths
	b.sink(s)
	switch {
	case s.fresh() && s.score <= s.limits.Target:
		s.say(0, "Out-breath: sink slightly.", fmt.Sprintf("Breath %d of %d.", n, s.plan.Breaths), SinkSlightly)
	case s.fresh():
		above := fmt.Sprintf("%v is above the target of %v.", s.score, s.limits.Target)
		s.say(0, "Out-breath: stay here.", above, Hold)
	default:
		s.say(0, "Out-breath: stay here.", "Without a number nothing goes deeper.", Hold)
	}
	if last {
		b.still(s, "The breaths are used.")
		return
	}
	if n%2 == 0 {
		s.askNow()
	}
}

// still begins the stillness at depth. It keeps its clock over an interruption, since the
// depth was reached already.
func (*breath) still(s *state, why string) {
	s.enter(PhaseStill, s.plan.StillMS)
	s.say(0, "Stop here; hold still.", why, Hold)
}

// next is a movement under the contact, the second place, or the end.
func (b *breath) next(s *state) {
	lastPlace := b.place >= s.plan.Places || s.start.Limits.CapMS-s.pressed < secondPlace
	switch {
	case !lastPlace:
		s.scoreAt, s.spotBase = -1, nil
		b.begin(s)
		s.say(0, "Slightly higher: lift, set down, sink again.", fmt.Sprintf("Place %d of %d.", b.place,
			s.plan.Places), NextRep)
		s.askNow()
	case b.moved < s.plan.Moves:
		b.move(s)
	default:
		s.comeOff(0, "done", nothing, EndedDone, "Come off on an out-breath.")
	}
}

// move: between two movements it may sink once.
func (b *breath) move(s *state) {
	b.moved++
	s.enter(PhaseMove, s.plan.MoveMS)
	s.say(0, "Let the client move the limb slowly.",
		fmt.Sprintf("Movement %d of %d, the contact stays.", b.moved, s.plan.Moves), NextRep)
	if b.moved > 1 && !b.sank && s.fresh() && s.score <= s.limits.Target {
		b.sank = true
		s.said.advice = append(s.said.advice, SinkSlightly)
		s.said.reason = "Once on the out-breath, a little deeper."
	}
}

// softened is as good as the target: tissue that gives way has shown how deep is deep enough.
func (b *breath) softened(s *state) string {
	if s.part.kind != PhaseSink {
		return "Softening noted."
	}
	b.still(s, "It softens: that is the depth.")
	return ""
}

// asks only outside of the sinking: while breaths are counted, every second one asks by
// itself.
func (*breath) asks(s *state) (first, again int64) {
	if s.part.kind == PhaseSink {
		return silent()
	}
	return askAfter, askAfter
}

// progress counts breaths at this place; movements show in their own part only.
func (b *breath) progress(s *state) progress {
	return progress{rep: b.breaths, reps: s.plan.Breaths, place: b.place, move: b.moved, aim: s.limits.Target}
}
