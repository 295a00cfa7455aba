package treat

import "fmt"

// stations steers attachment-strokes: at each station sink to bone depth, stroke
// one way, walk round, stroke across.
type stations struct{ plain }

func (t *stations) begin(s *state) {
	t.station(s)
	s.say(0, "Sink slowly to bone depth; do not press hard.",
		fmt.Sprintf("Station 1 of %d.", s.plan.Stations), SettleIn)
}

func (*stations) station(s *state) {
	c := &s.course
	c.place++
	c.rep, c.across = c.place, false
	s.enter(PhaseSink, s.plan.SinkMS)
	where := fmt.Sprintf("Station %d of %d.", c.place, s.plan.Stations)
	switch {
	case c.place == 1:
	case s.fresh() && s.number <= s.limits.Target:
		s.say(0, "Next station: sink slowly to bone depth.", where, NextRep, SinkSlightly)
	default:
		s.say(0, "Next station: stay light.", where+" Without a number within the target nothing goes deeper.", NextRep)
	}
}

func (*stations) number(s *state, v float64) {
	if parts[s.part.kind].compares {
		s.compare(v)
	}
	s.say(0, s.text, fmt.Sprintf("%v now.", v), s.advice...)
}

func (t *stations) over(s *state) {
	c := &s.course
	stroke := int64(s.plan.Strokes) * s.plan.StrokeMS
	switch {
	case s.part.kind == PhaseSink:
		s.enter(PhaseStroke, stroke)
		s.say(0, fmt.Sprintf("%d strokes along, no sliding on the skin.", s.plan.Strokes),
			fmt.Sprintf("Station %d of %d.", c.place, s.plan.Stations), Hold)
		s.askNow()
	case s.part.kind == PhaseRest:
		c.across = true
		s.enter(PhaseStroke, stroke)
		s.say(0, fmt.Sprintf("%d strokes across.", s.plan.Strokes),
			fmt.Sprintf("Station %d of %d.", c.place, s.plan.Stations), Hold)
	case !c.across:
		s.enter(PhaseRest, s.plan.RestMS)
		s.say(0, "Walk round the table.", "Then the strokes across.", Rest)
		s.askNow()
	case c.place >= s.plan.Stations:
		s.comeOff(0, "done", nothing, EndedDone, fmt.Sprintf("%d stations are done.", s.plan.Stations))
	default:
		t.station(s)
	}
}

func (*stations) asks(*state) (first, again int64) { return never, never }

func (*stations) reps(s *state) int { return s.plan.Stations }
