package treat

import "fmt"

// stations is attachment-strokes: at each station sink to bone depth, stroke
// one way, walk round, stroke across.
//
// Parts at each of plan.Stations: sink, stroke (along), rest (walk round the table), stroke
// (across). The next station goes to bone depth only with a fresh score within the target.
type stations struct {
	plain
	place  int  // the station, from 1
	across bool // of this station, the strokes across are under way or done
}

func (t *stations) clone() strategy { k := *t; return &k }

func (*stations) atNewSpot(*state) strategy { return &stations{} }

// begin is the first station; the muscle's longest attachment is divided evenly among them.
func (t *stations) begin(s *state) {
	t.station(s)
	s.say(0, "Sink slowly to bone depth; do not press hard.",
		fmt.Sprintf("Station 1 of %d.", s.plan.Stations), SettleIn)
}

// station goes to bone depth only with a fresh score within the target; without one it stays
// light.
func (t *stations) station(s *state) {
	t.place++
	t.across = false
	s.enter(PhaseSink, s.plan.SinkMS)
	where := fmt.Sprintf("Station %d of %d.", t.place, s.plan.Stations)
	switch {
	case t.place == 1:
	case s.fresh() && s.score <= s.limits.Target:
		s.say(0, "Next station: sink slowly to bone depth.", where, NextRep, SinkSlightly)
	default:
		s.say(0, "Next station: stay light.", where+" Without a number within the target nothing goes deeper.", NextRep)
	}
}

// score is shown and, where a part compares, watched for a rise.
func (*stations) score(s *state, v float64) {
	if parts[s.part.kind].compares {
		s.compare(v)
	}
	s.say(0, s.said.text, fmt.Sprintf("%v now.", v), s.said.advice...)
}

// over goes from sinking to strokes along, round the table, and strokes across, then to the
// next station.
func (t *stations) over(s *state) {
	stroke := int64(s.plan.Strokes) * s.plan.StrokeMS
	switch {
	case s.part.kind == PhaseSink:
		s.enter(PhaseStroke, stroke)
		s.say(0, fmt.Sprintf("%d strokes along, no sliding on the skin.", s.plan.Strokes),
			fmt.Sprintf("Station %d of %d.", t.place, s.plan.Stations), Hold)
		s.askNow()
	case s.part.kind == PhaseRest:
		t.across = true
		s.enter(PhaseStroke, stroke)
		s.say(0, fmt.Sprintf("%d strokes across.", s.plan.Strokes),
			fmt.Sprintf("Station %d of %d.", t.place, s.plan.Stations), Hold)
	case !t.across:
		s.enter(PhaseRest, s.plan.RestMS)
		s.say(0, "Walk round the table.", "Then the strokes across.", Rest)
		s.askNow()
	case t.place >= s.plan.Stations:
		s.comeOff(0, "done", nothing, EndedDone, fmt.Sprintf("%d stations are done.", s.plan.Stations))
	default:
		t.station(s)
	}
}

func (*stations) asks(*state) (first, again int64) { return silent() }

// progress counts stations, as repetitions and as places along the muscle.
func (t *stations) progress(s *state) progress {
	return progress{rep: t.place, reps: s.plan.Stations, place: t.place, aim: s.limits.Target}
}
