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
func (h hand) begin(side ids.Side, protocol ids.Protocol, limits safety.Adaptation) visit.HoldStarted {
	adapted, err := h.starting(side, protocol, limits)
	if err != nil {
		adapted, err = h.starting(side, usualProtocol, limits)
	}
	if err != nil {
		panic(err) // the demo's own muscles
	}
	out := visit.HoldStarted{
		Hold: visit.UUID(id().String()), Point: visit.UUID(h.point.String()), Start: adapted,
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

// protocols of one visit after the other; a place that does not take one gets the
// usual one.
const usualProtocol ids.Protocol = "graded-stages"

var protocols = []ids.Protocol{usualProtocol, usualProtocol, "hold-to-release", usualProtocol, "slow-ramp"}

func (h hand) starting(side ids.Side, p ids.Protocol, limits safety.Adaptation) (treat.Start, error) {
	start, err := treat.NewStart(treat.Request{Protocol: p, Muscle: h.muscle.ID, Side: side, Where: h.where})
	if err != nil {
		return start, err
	}
	return start.Adapt(limits, h.where)
}

// press plays one hold: a hand that does what the coach says, and a client
// whose number rises with pressure and falls while a steady pressure is held.
// It returns the number at the recheck.
func press(
	s *scribe, rnd *rand.Rand, h hand, sp spot, n int, number float64, limits safety.Adaptation,
) float64 {
	begun := h.begin(sp.side, protocols[n%len(protocols)], limits)
	s.write("hold-started", begun)
	p := &played{
		scribe: s, hold: begun.Hold, start: begun.Start, began: s.now, coach: treat.NewCoach(begun.Start),
		depth: 0.85, sensitivity: number, release: sp.release,
	}
	p.put(treat.KindContact, nil)
	for range 60 {
		if p.obey() {
			continue
		}
		if p.line.Phase == treat.PhaseDone || p.line.Phase == treat.PhaseStopped {
			break
		}
		if p.presses() && p.line.PartLeftS > 0 {
			p.keepOn(7 + 3*rnd.Float64())
		} else {
			p.keepOn(3 + 2*rnd.Float64())
		}
		// What fell due while waiting is acted on before the next number.
		if p.look(); p.line.Phase == treat.PhaseRelease || p.line.Phase == treat.PhaseFlush {
			continue
		}
		p.put(treat.KindScore, p.score())
	}
	sum := p.coach.Summary()
	s.write("hold-ended", visit.HoldEnded{
		Hold: begun.Hold, Outcome: sum.Outcome,
		PressureMS: int64(sum.PressureS*1000 + 0.5), Parts: new(sum.Count()),
	})
	// At the recheck part of the old tenderness is back.
	return max(0, math.Round(0.35*number+0.55*p.sensitivity))
}

// played is a hold under way in the demo. The number is depth × sensitivity;
// holding lowers the sensitivity.
type played struct {
	*scribe
	hold               visit.UUID
	start              treat.Start
	began              time.Time
	coach              *treat.Coach
	line               treat.Line
	depth, sensitivity float64
	release            float64
}

func (p *played) score() float64 { return min(10, max(0, math.Round(p.depth*p.sensitivity))) }

func (p *played) at() int64 { return p.now.Sub(p.began).Milliseconds() }

// look reads the coach without anything happening.
func (p *played) look() { p.line = p.coach.At(p.at()) }

func (p *played) put(kind treat.Kind, value any) {
	var raw json.RawMessage
	if value != nil {
		raw, _ = json.Marshal(value)
	}
	e, err := treat.ParseEvent(p.at(), string(kind), raw, p.start.Scale)
	if err != nil {
		panic(err) // the demo's own events
	}
	p.write("hold-event", visit.HoldHappened{Hold: p.hold, AtMS: p.at(), Event: string(kind), Value: raw})
	p.line = p.coach.Apply(e)
}

// keepOn holds on for so many seconds.
func (p *played) keepOn(seconds float64) {
	p.wait(time.Duration(seconds * float64(time.Second)))
	if p.presses() {
		p.sensitivity = max(1, p.sensitivity-p.release*seconds/10)
	}
}

// presses: in this part pressure works on the spot.
func (p *played) presses() bool {
	return p.line.Phase == treat.PhaseStage || p.line.Phase == treat.PhasePress || p.line.Phase == treat.PhaseRamp
}

// obey does what the coach says; whether the hand came off by it.
func (p *played) obey() (cameOff bool) {
	target := p.start.Limits.Target / max(1, p.sensitivity)
	switch p.line.Advice[0] {
	case treat.SinkSlightly:
		p.depth += max(0.2, 0.7*(target-p.depth))
	case treat.EaseOff:
		p.depth -= 0.2
	case treat.Deepen:
		p.depth = min(1.6, target)
	case treat.ReleaseSlowly:
		p.keepOn(3)
		p.put(treat.KindRelease, nil)
		p.wait(time.Duration(p.line.WaitLeftS+1) * time.Second)
		p.look()
		return true
	case treat.ReturnLighter:
		p.depth = 4 / max(1, p.sensitivity)
		p.put(treat.KindContact, nil)
	}
	return false
}
