package pose

import (
	"fmt"
	"math"
	"slices"

	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
)

// Limb is one segment as a closed path.
type Limb struct {
	Part string `json:"part"`
	Path string `json:"path"`
	of   segment
}

// Outline is the same as corners, for paper.
func (l Limb) Outline() []body.Point { return l.of.corners() }

func limb(p part, s segment) Limb { return Limb{string(p), s.outline(), s} }

// Ray is a straight line on the drawing.
type Ray struct {
	From body.Point `json:"from"`
	To   body.Point `json:"to"`
}

// Frame is a part of the drawing's plane.
type Frame struct {
	X      float64 `json:"x"`
	Y      float64 `json:"y"`
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
}

// Measured is how one movement is measured.
type Measured struct {
	Movement ids.Movement `json:"movement"`
	Side     ids.Side     `json:"side"`
	Plane    Plane        `json:"plane" enum:"side,front"`
	Start    string       `json:"start" doc:"how the client is placed"`
	Keep     string       `json:"keep" doc:"what is held still"`
	// Axial: it turns about its own length; the shapes do not turn on the picture.
	Axial bool  `json:"axial,omitempty"`
	Frame Frame `json:"frame" doc:"what is to be seen, at the start and at the usual end"`
	// Still stands, Moving turns about Pivot by Sense × degrees, clockwise.
	Still  []Limb     `json:"still"`
	Moving []Limb     `json:"moving"`
	Pivot  body.Point `json:"pivot"`
	Sense  float64    `json:"sense" doc:"+1 where a growing angle turns clockwise, −1 the other way"`
	// Zero is the middle line of what moves, at 0°; an inclinometer lies along it, and so does the
	// moving arm of a goniometer. Base is where the still arm lies.
	Zero Ray `json:"zero"`
	Base Ray `json:"base"`
	// Follows bends along at another joint, which is carried by what moves.
	Follows *Follows `json:"follows,omitempty"`
}

// Follows are the shapes beyond a joint that bends as far as the movement goes: at hip flexion
// the knee, so that the lower leg stays level. They are not among Moving.
type Follows struct {
	Limbs []Limb     `json:"limbs"`
	Pivot body.Point `json:"pivot" doc:"where it is at 0° of the movement"`
	Sense float64    `json:"sense" doc:"turned by this × degrees about its own pivot, before the movement turns it"`
}

// degSense is a joint turned by hand: the figure of a position.
type degSense struct {
	part part
	deg  float64
}

// placed are the segments of a plane with joints turned, and the whole figure laid down.
func placed(p Plane, lies float64, turns []degSense) map[part]segment {
	out := skeleton(p)
	for _, t := range turns {
		pivot := out[t.part].from
		for _, k := range carried(out, t.part) {
			s := out[k]
			s.from, s.to = turned(s.from, pivot, t.deg), turned(s.to, pivot, t.deg)
			out[k] = s
		}
	}
	about := body.Point{X: 0, Y: 500}
	for k, s := range out {
		s.from, s.to = turned(s.from, about, lies), turned(s.to, about, lies)
		out[k] = s
	}
	return out
}

// carried are a part and all that hangs on it.
func carried(all map[part]segment, p part) []part {
	out := []part{p}
	for _, k := range order {
		if s, ok := all[k]; ok && slices.Contains(out, s.on) {
			out = append(out, k)
		}
	}
	return out
}

// order draws what is behind first, and lists each part behind the one that carries it.
var order = []part{
	otherLeg, pelvis, thigh, shank, foot, toes, otherArm, trunk, head, upperArm, forearm, hand,
	fingers,
}

// mirrored turns the drawing's left and right round: from the side a left limb looks left, and
// from the front a right limb is on the picture's left.
func mirrored(all map[part]segment) {
	for k, s := range all {
		s.from.X, s.to.X = -s.from.X, -s.to.X
		all[k] = s
	}
}

// Draw is how a movement is measured on a side. A movement that is no turn about a joint of the
// figure, as the opening of the jaw, has no drawing; the error is a *decode.Error.
func Draw(m ids.Movement, side ids.Side) (Measured, error) {
	how, ok := table[m]
	if !ok {
		return Measured{}, &decode.Error{
			Path: "$.movement", Given: fmt.Sprintf("%q", m), Allowed: "a movement that turns about a joint",
		}
	}
	turns := []degSense{}
	for _, k := range order {
		if deg := how.start.joints[k]; deg != 0 {
			turns = append(turns, degSense{k, deg})
		}
	}
	all := placed(how.plane, how.start.lies, turns)
	sense := how.sense
	if how.start.name == armOut.name {
		foreshortened(all)
	}
	flip := how.plane == Side && side == ids.Left || how.plane == Front && how.own && side == ids.Right
	if flip {
		mirrored(all)
		sense = -sense
	}
	moves := carried(all, how.turns)
	d := Measured{
		Movement: m, Side: side, Plane: how.plane, Start: how.start.name, Keep: how.keep, Axial: how.axial,
		Pivot: all[how.turns].from, Sense: sense, Still: []Limb{}, Moving: []Limb{},
	}
	var along []part
	if how.along != "" {
		along = carried(all, how.along)
		d.Follows = &Follows{Limbs: []Limb{}, Pivot: all[how.along].from, Sense: -sense}
	}
	for _, k := range order {
		s, ok := all[k]
		if !ok {
			continue
		}
		shape := limb(k, s)
		switch {
		case slices.Contains(along, k):
			d.Follows.Limbs = append(d.Follows.Limbs, shape)
		case slices.Contains(moves, k):
			d.Moving = append(d.Moving, shape)
		default:
			d.Still = append(d.Still, shape)
		}
	}
	d.Zero = Ray{d.Pivot, all[how.turns].to}
	carrier := all[all[how.turns].on]
	d.Base = Ray{d.Pivot, carrier.from}
	d.Frame = boxOf(d, all, moves)
	return d, nil
}

// foreshortened: the upper arm points at the one who looks, and the forearm stands upright on it.
func foreshortened(all map[part]segment) {
	arm, fore, palm, ends := all[upperArm], all[forearm], all[hand], all[fingers]
	length := math.Hypot(fore.to.X-fore.from.X, fore.to.Y-fore.from.Y)
	arm.to = off(arm.from, 0.1, 0)
	fore.from, fore.to = arm.from, off(arm.from, 0, -length)
	palm.from, palm.to = fore.to, off(fore.to, 0, -handLength)
	ends.from, ends.to = palm.to, off(palm.to, 0, -fingerLength)
	all[upperArm], all[forearm], all[hand], all[fingers] = arm, fore, palm, ends
}

// boxOf holds what carries the movement and the way of what moves, with room around it.
func boxOf(d Measured, all map[part]segment, moves []part) Frame {
	reach := 0.0
	for _, k := range moves {
		s := all[k]
		reach = max(reach, d.Pivot.Distance(s.to)+s.end, d.Pivot.Distance(s.from)+s.thick)
	}
	reach = max(reach*1.12, 150)
	return Frame{d.Pivot.X - reach, d.Pivot.Y - reach, 2 * reach, 2 * reach}
}
