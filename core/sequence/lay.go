package sequence

import (
	"math"
	"slices"

	"mokren/core/ids"
	"mokren/core/safety"
)

// Point is a point of the visit, as far as a sequence asks about it.
type Point struct {
	ID     string
	Muscle ids.Muscle
	Side   ids.Side
	// HoursAgo since it was pressed last; nil is never.
	HoursAgo *float64
	// Treated is how often its site was pressed today, Closed why nothing is pressed there.
	Treated int
	Closed  string
}

// Client is what is known of the client today.
type Client struct {
	Screening safety.Screening
	Points    []Point
}

// Laid is one step on one side, with its time.
type Laid struct {
	Technique ids.Technique `json:"technique"`
	Where     string        `json:"where"`
	Side      ids.Side      `json:"side"`
	Position  ids.Position  `json:"position,omitempty"`
	Contact   ids.Contact   `json:"contact,omitempty"`
	Dose      Dose          `json:"dose"`
	StartsS   float64       `json:"starts_s" doc:"from the beginning; a turn of 120 s lies before a new position"`
	Seconds   float64       `json:"seconds"`
	Text      string        `json:"text"`
	// Step is the place of its step in the sequence, from 1.
	Step int `json:"step"`
	// Consent is asked for before it.
	Consent []safety.Area `json:"consent,omitempty"`
	// Point is the charted one that it is done at.
	Point string `json:"point,omitempty"`

	technique  *Technique
	importance int
	say        string
}

// LeftOutStep is a step, or one side of it, that is not done.
type LeftOutStep struct {
	Step   int      `json:"step" doc:"from 1"`
	Side   ids.Side `json:"side,omitempty"`
	Reason string   `json:"reason"`
}

// LaidOut is a sequence laid out for a client today.
type LaidOut struct {
	Steps   []Laid        `json:"steps"`
	LeftOut []LeftOutStep `json:"left_out"`
	// Turns of the client, not counting how they lie at first.
	Turns   int     `json:"turns"`
	Seconds float64 `json:"seconds" doc:"of all steps and turns"`
}

const (
	breathS = 5
	turnS   = 120
)

// usualImportance is that of a step which names none.
const usualImportance = 3

// Lay lays a sequence out: its sides, what is ruled out today, and what fits into the minutes; nil
// takes the time that it takes. side is the first one; positions are those of the first side, and
// the other side lies the other way round.
//
// A position that a step names is meant for the first side. A step that names none takes the usual
// one of its place, and what is done standing takes none and costs no turn. The answer lists every
// step that is not done: each is there or left out, so that the record can say what was meant.
func Lay(s Sequence, side ids.Side, minutes *float64, c Client) LaidOut {
	out := LaidOut{Steps: []Laid{}, LeftOut: []LeftOutStep{}}
	for _, l := range s.unfolded(side, c) {
		if why := l.rule(c); why != "" {
			out.leave(l, why)
			continue
		}
		out.Steps = append(out.Steps, l)
	}
	if minutes != nil {
		out.fit(*minutes * 60)
	}
	out.time()
	return out
}

// leave notes what is not done; both sides for the same reason are one entry.
func (p *LaidOut) leave(l Laid, why string) {
	for i, o := range p.LeftOut {
		if o.Step == l.Step && o.Reason == why && o.Side != l.Side {
			p.LeftOut[i].Side = ""
			return
		}
	}
	p.LeftOut = append(p.LeftOut, LeftOutStep{l.Step, l.Side, why})
}

// Without leaves out the steps for which there is a reason, and sets the times anew.
func (p LaidOut) Without(why func(Laid) string) LaidOut {
	out := LaidOut{Steps: []Laid{}, LeftOut: slices.Clone(p.LeftOut)}
	for _, l := range p.Steps {
		if no := why(l); no != "" {
			out.leave(l, no)
			continue
		}
		out.Steps = append(out.Steps, l)
	}
	out.time()
	return out
}

// unfolded are the steps on their sides, in the order in which they are done.
func (s Sequence) unfolded(side ids.Side, c Client) []Laid {
	if side != ids.Right {
		side = ids.Left
	}
	sides := []ids.Side{side}
	if s.Sides == Each || s.Sides == Whole {
		sides = append(sides, side.Other())
	}
	var out []Laid
	if s.Sides == Whole {
		for i, on := range sides {
			for n, step := range s.Steps {
				// What has no sides, and what stands at a point, is done once.
				if i == 0 || !middle(step.Where) && step.Where != points {
					out = append(out, step.on(n, on, i == 1, c)...)
				}
			}
		}
		return out
	}
	for n, step := range s.Steps {
		for i, on := range sides {
			if i == 0 || !middle(step.Where) && step.Where != points {
				out = append(out, step.on(n, on, i == 1, c)...)
			}
		}
	}
	return out
}

// on is a step on a side: once, or at each point that is charted.
func (s TechniqueStep) on(n int, side ids.Side, other bool, c Client) []Laid {
	t, _ := Find(s.Technique)
	l := Laid{
		Technique: s.Technique, Where: s.Where, Side: side, Position: s.Position, Contact: s.Contact,
		Step: n + 1, technique: &t, importance: s.Importance, say: s.Say, Dose: t.dose(s.Dose),
	}
	if l.importance == 0 {
		l.importance = usualImportance
	}
	if other {
		l.Position = mirrored(l.Position)
	}
	if s.Where != points {
		if middle(s.Where) {
			l.Side = ids.Midline
		}
		return []Laid{l}
	}
	var out []Laid
	for _, p := range c.Points {
		at := l
		at.Where, at.Side, at.Point = string(p.Muscle), p.Side, p.ID
		out = append(out, at)
	}
	return out
}

// mirrored is how the client lies for the other side.
func mirrored(p ids.Position) ids.Position {
	switch p {
	case "side-lying-left":
		return "side-lying-right"
	case "side-lying-right":
		return "side-lying-left"
	}
	return p
}

// dose is the given one, or the usual.
func (t *Technique) dose(given *Dose) Dose {
	if given == nil {
		return t.doseOf(t.Amount.Usual, t.Each.Usual)
	}
	amount, _ := given.amount(t.Steer)
	each := t.Each.Usual
	if given.EachS != nil {
		each = *given.EachS
	}
	return t.doseOf(amount, each)
}

// doseOf writes an amount in the way in which the technique counts.
func (t *Technique) doseOf(amount, each float64) Dose {
	n := int(math.Round(amount))
	switch t.Steer {
	case Repetitions:
		return Dose{Repetitions: &n, EachS: &each}
	case Stations:
		return Dose{Stations: &n, EachS: &each}
	case Breaths:
		return Dose{Breaths: &n}
	}
	return Dose{Seconds: &amount}
}

// seconds is how long a dose takes.
func (d Dose) seconds() float64 {
	switch {
	case d.Seconds != nil:
		return *d.Seconds
	case d.Breaths != nil:
		return float64(*d.Breaths) * breathS
	case d.Repetitions != nil:
		return float64(*d.Repetitions) * *d.EachS
	case d.Stations != nil:
		return float64(*d.Stations) * *d.EachS
	}
	return 0
}

// time sets when each step begins. A turn lies before every change of position; the first
// position is free, and what asks for none is done as the client lies.
func (p *LaidOut) time() {
	at, lying := 0.0, ids.Position("")
	p.Turns = 0
	for i := range p.Steps {
		l := &p.Steps[i]
		if l.Position != "" {
			if lying != "" && l.Position != lying {
				p.Turns++
				at += turnS
			}
			lying = l.Position
		}
		l.StartsS, l.Seconds = at, l.Dose.seconds()
		at += l.Seconds
	}
	p.Seconds = at
}
