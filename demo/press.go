package demo

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"github.com/google/uuid"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
	"mokren/core/visit"
)

// hand is where one presses.
type hand struct {
	point  uuid.UUID
	muscle *atlas.Muscle
	where  []safety.Place
}

// begin is a hold as a careful therapist begins it: the muscle's first contact,
// its first position that the screening leaves, in slack where it asks for it.
func (h hand) begin(side ids.Side, limits safety.Adaptation) visit.HoldStarted {
	start, err := treat.NewStart(treat.Request{
		Protocol: "graded-stages", Muscle: h.muscle.ID, Side: side, Where: h.where,
	})
	if err != nil {
		panic(err) // the demo's own muscles
	}
	out := visit.HoldStarted{
		Hold: visit.UUID(id().String()), Point: visit.UUID(h.point.String()), Start: start.Adapt(limits, h.where),
		Contact: h.muscle.Contacts[0], MuscleSet: "tension",
	}
	for _, p := range h.muscle.Positions {
		if out.Position == "" && !slices.Contains(limits.AvoidPositions, p) {
			out.Position = p
		}
	}
	if limits.SlackOrBroad {
		out.MuscleSet = "slack"
	}
	return out
}

// press plays one hold: a hand that does what the coach says, and a client
// whose number rises with pressure and falls while a steady pressure is held.
// It returns the number at the recheck.
func press(s *scribe, rnd *rand.Rand, h hand, sp spot, number float64, limits safety.Adaptation) float64 {
	begun := h.begin(sp.side, limits)
	start, hold := begun.Start, begun.Hold
	s.write("hold-started", begun)
	began := s.now
	c := treat.NewCoach(start)
	// The number is depth × sensitivity; holding lowers the sensitivity.
	depth, sensitivity := 0.85, number
	score := func() float64 { return min(10, max(0, math.Round(depth*sensitivity))) }
	at := func() int64 { return s.now.Sub(began).Milliseconds() }
	put := func(kind treat.Kind, value any) treat.Line {
		var raw json.RawMessage
		if value != nil {
			raw, _ = json.Marshal(value)
		}
		e, err := treat.ParseEvent(at(), string(kind), raw, start.Scale)
		if err != nil {
			panic(err) // the demo's own events
		}
		s.write("hold-event", visit.HoldHappened{Hold: hold, AtMS: at(), Event: string(kind), Value: raw})
		return c.Apply(e)
	}
	var l treat.Line
	step := func(seconds float64) {
		s.wait(time.Duration(seconds * float64(time.Second)))
		if l.Phase == treat.PhaseStage {
			sensitivity = max(1, sensitivity-sp.release*seconds/10)
		}
	}
	l = put(treat.KindContact, nil)
	for range 60 {
		switch l.Advice[0] {
		case treat.SinkSlightly:
			depth += max(0.2, 0.7*(start.Limits.Target/max(1, sensitivity)-depth))
		case treat.EaseOff:
			depth -= 0.2
		case treat.Deepen:
			depth = min(1.6, start.Limits.Target/max(1, sensitivity))
		case treat.ReleaseSlowly:
			step(3)
			l = put(treat.KindRelease, nil)
			s.wait(time.Duration(l.WaitLeftS+1) * time.Second)
			l = c.At(at())
			continue
		case treat.ReturnLighter:
			depth = 4 / max(1, sensitivity)
			l = put(treat.KindContact, nil)
		}
		if l.Phase == treat.PhaseDone || l.Phase == treat.PhaseStopped {
			break
		}
		if l.Phase == treat.PhaseStage && l.StageLeftS > 0 {
			step(7 + 3*rnd.Float64())
		} else {
			step(3 + 2*rnd.Float64())
		}
		// What fell due while waiting is acted on before the next number.
		if l = c.At(at()); l.Phase == treat.PhaseRelease || l.Phase == treat.PhaseFlush {
			continue
		}
		l = put(treat.KindScore, score())
	}
	sum := c.Summary()
	s.write("hold-ended", visit.HoldEnded{
		Hold: hold, Outcome: sum.Outcome,
		PressureMS: int64(sum.PressureS*1000 + 0.5), Stages: len(sum.Stages),
	})
	// At the recheck part of the old tenderness is back.
	return max(0, math.Round(0.35*number+0.55*sensitivity))
}
