package pose

import (
	"math"
	"slices"

	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
)

// Joint is a movement of a position, and how far where that is known.
type Joint struct {
	Movement ids.Movement
	// Toward is own or other where a movement to either side is meant; empty is own.
	Toward string
	// Deg is nil where no degrees are known; none are claimed then.
	Deg *float64
}

// JointTurn is a joint that is seen turning: its middle line before and in the position.
type JointTurn struct {
	Movement ids.Movement `json:"movement"`
	Pivot    body.Point   `json:"pivot"`
	Before   body.Point   `json:"before" doc:"the end of what turns, before this joint turned"`
	After    body.Point   `json:"after"`
	Deg      *float64     `json:"deg,omitempty" doc:"absent where no degrees are known; the angle on the picture is then only a direction"`
	// Sense is +1 where it turned clockwise on the picture, −1 the other way.
	Sense float64 `json:"sense"`
}

// JointTwist is a joint that turns about its own length, which no picture shows: an arrow around
// the line says which way what is seen of it goes.
type JointTwist struct {
	Movement ids.Movement `json:"movement"`
	Line     Ray          `json:"line"`
	Sense    float64      `json:"sense" doc:"+1 where what is seen goes clockwise about the line, seen from its end"`
}

// JointShift is a part that is moved without turning, as the shoulder blade is raised.
type JointShift struct {
	Movement ids.Movement `json:"movement"`
	Line     Ray          `json:"line"`
}

// Posed is a position of the joints, drawn.
type Posed struct {
	Side  ids.Side `json:"side"`
	Plane Plane    `json:"plane" enum:"side,front"`
	// Limbs are the figure in the position, Before the parts that moved as they were.
	Limbs  []Limb       `json:"limbs"`
	Before []Limb       `json:"before"`
	Turns  []JointTurn  `json:"turns"`
	Twists []JointTwist `json:"twists"`
	Shifts []JointShift `json:"shifts"`
	Frame  Frame        `json:"frame"`
	// Unseen are movements of the position that the figure does not have, or not in this plane.
	Unseen []ids.Movement `json:"unseen"`
}

// further are movements of positions that are not measured.
var further = map[ids.Movement]seen{
	"lesser-toes.extension": {plane: Side, turns: toes, sense: -1},
	"lesser-toes.flexion":   {plane: Side, turns: toes, sense: 1},
	"great-toe.flexion":     {plane: Side, turns: toes, sense: 1},
	"fingers.extension":     {plane: Side, turns: fingers, sense: -1},
	"fingers.flexion":       {plane: Side, turns: fingers, sense: 1},
}

// twist is a turn of a segment about its own length: which way the near surface goes, for the
// person's left limb from the front and for the right one from the side; +1 is to the picture's
// right.
type twist struct {
	of          part
	front, side float64
}

var twists = map[ids.Movement]twist{
	// Toward its own side: from the front the face of somebody who turns left goes to the picture's
	// right; from the right the ear of somebody who turns right goes back, to the picture's left.
	"cervical.rotation": {head, 1, -1},
	"thoracic.rotation": {trunk, 1, -1},
	"trunk.rotation":    {trunk, 1, -1},
	// Inward the front of the limb goes to the middle, and its outer side forward.
	"shoulder.internal-rotation": {upperArm, -1, 1},
	"shoulder.external-rotation": {upperArm, 1, -1},
	"hip.internal-rotation":      {thigh, -1, 1},
	"hip.external-rotation":      {thigh, 1, -1},
	"forearm.pronation":          {forearm, -1, 1},
	"forearm.supination":         {forearm, 1, -1},
}

// shift is a part that slides, by so much on the picture of its plane, for the limb of twist.
type shift struct {
	plane Plane
	of    part
	x, y  float64
}

var shifts = map[ids.Movement]shift{
	"scapula.elevation":   {Front, upperArm, 0, -26},
	"scapula.depression":  {Front, upperArm, 0, 20},
	"scapula.protraction": {Side, upperArm, 26, 0},
	"scapula.retraction":  {Side, upperArm, -26, 0},
	"pelvis.hike":         {Front, thigh, 0, -26},
}

// level are movements of the arm at the height of the shoulder, which are seen in full from above
// only; from the front the arm is as long as it is seen. The sign says which way it goes from
// straight out to the side.
var level = map[ids.Movement]float64{"shoulder.horizontal-adduction": 1, "shoulder.horizontal-abduction": -1}

// undrawn is how far a joint is turned on the picture where no degrees are known.
const undrawn = 25.0

// Position draws joints as a side of the client has them, lying or sitting as lies says; empty is
// standing. At least one joint must be one of the figure; the error is a *decode.Error.
func Position(joints []Joint, side ids.Side, lies ids.Position) (Posed, error) {
	plane := planeOf(joints)
	before, after := skeleton(plane), skeleton(plane)
	d := Posed{
		Side: side, Plane: plane, Limbs: []Limb{}, Before: []Limb{}, Turns: []JointTurn{}, Twists: []JointTwist{},
		Shifts: []JointShift{}, Unseen: []ids.Movement{},
	}
	var twisted []Joint
	var moved []part
	base := baseOf(plane, lies, joints)
	turn(before, base)
	turn(after, base)
	for _, k := range order {
		for _, j := range joints {
			if x, ok := shifts[j.Movement]; ok && x.plane == plane && x.of == k {
				d.Shifts = append(d.Shifts, slide(after, j, x))
				moved = append(moved, carried(after, k)...)
			}
			if way, ok := level[j.Movement]; ok && plane == Front && k == upperArm {
				d.Shifts = append(d.Shifts, reachOut(after, j, way))
				moved = append(moved, carried(after, k)...)
			}
			if how, ok := turns(j); ok && how.plane == plane && how.turns == k {
				d.Turns = append(d.Turns, swing(after, j, how))
				moved = append(moved, carried(after, k)...)
			}
		}
	}
	for _, j := range joints {
		x, slides := shifts[j.Movement]
		_, twists := twists[j.Movement]
		_, levels := level[j.Movement]
		how, swings := turns(j)
		switch {
		case swings && how.plane == plane, slides && x.plane == plane, levels && plane == Front:
		case twists:
			twisted = append(twisted, j)
		default:
			d.Unseen = append(d.Unseen, j.Movement)
		}
	}
	for _, j := range twisted {
		d.Twists = append(d.Twists, wound(after, j, plane))
		moved = append(moved, twists[j.Movement].of)
	}
	if len(moved) == 0 {
		return Posed{}, &decode.Error{Path: "$.joints", Given: "none of the figure", Allowed: "a joint of the figure"}
	}
	d.finish(before, after, moved, lies)
	return d, nil
}

// turns is a movement that is seen as a turn in some plane.
func turns(j Joint) (seen, bool) {
	how, ok := table[j.Movement]
	if !ok {
		how, ok = further[j.Movement]
	}
	if _, winds := twists[j.Movement]; !ok || winds || how.axial {
		return seen{}, false
	}
	if j.Toward == "other" {
		how.sense = -how.sense
	}
	return how, true
}

// planeOf is the plane that shows most of the joints as what they are; of two, the first joint's.
func planeOf(joints []Joint) Plane {
	shows := map[Plane]int{}
	first := Plane("")
	for _, j := range joints {
		p := Plane("")
		if how, ok := turns(j); ok {
			p = how.plane
		} else if x, ok := shifts[j.Movement]; ok {
			p = x.plane
		}
		if p != "" {
			shows[p]++
			if first == "" {
				first = p
			}
		}
	}
	switch {
	case first == "":
		return Front
	case shows[Side] > shows[Front]:
		return Side
	case shows[Front] > shows[Side]:
		return Front
	}
	return first
}

// baseOf is how the limbs are before the position is taken; what the position itself moves hangs
// straight.
func baseOf(p Plane, lies ids.Position, joints []Joint) []degSense {
	if p != Side || lies != "seated" {
		return nil
	}
	for _, j := range joints {
		if how, ok := turns(j); ok && slices.Contains([]part{thigh, shank, foot, pelvis, trunk}, how.turns) {
			return nil
		}
	}
	return []degSense{{thigh, -90}, {shank, 90}}
}

func turn(all map[part]segment, list []degSense) {
	for _, t := range list {
		pivot := all[t.part].from
		for _, k := range carried(all, t.part) {
			s := all[k]
			s.from, s.to = turned(s.from, pivot, t.deg), turned(s.to, pivot, t.deg)
			all[k] = s
		}
	}
}

func swing(all map[part]segment, j Joint, how seen) JointTurn {
	deg := undrawn
	if j.Deg != nil {
		deg = *j.Deg
	}
	out := JointTurn{
		Movement: j.Movement, Pivot: all[how.turns].from, Before: all[how.turns].to, Deg: j.Deg, Sense: how.sense,
	}
	turn(all, []degSense{{how.turns, how.sense * deg}})
	out.After = all[how.turns].to
	return out
}

func slide(all map[part]segment, j Joint, x shift) JointShift {
	from := all[x.of].from
	for _, k := range carried(all, x.of) {
		s := all[k]
		s.from, s.to = off(s.from, x.x, x.y), off(s.to, x.x, x.y)
		all[k] = s
	}
	return JointShift{Movement: j.Movement, Line: Ray{from, all[x.of].from}}
}

// reachOut raises the arm to the height of the shoulder and leads it across, as far as is seen.
func reachOut(all map[part]segment, j Joint, way float64) JointShift {
	deg := undrawn
	if way > 0 {
		deg = 90 + undrawn
	}
	if j.Deg != nil {
		deg = *j.Deg
	}
	shoulder := all[upperArm].from
	seen := func(p body.Point, deg float64) body.Point {
		return off(shoulder, (p.Y-shoulder.Y)*math.Cos(deg*math.Pi/180), 0)
	}
	out := seen(all[fingers].to, 0)
	for _, k := range carried(all, upperArm) {
		s := all[k]
		s.from, s.to = seen(s.from, way*deg), seen(s.to, way*deg)
		all[k] = s
	}
	return JointShift{Movement: j.Movement, Line: Ray{out, all[fingers].to}}
}

func wound(all map[part]segment, j Joint, p Plane) JointTwist {
	x := twists[j.Movement]
	sense := x.front
	if p == Side {
		sense = x.side
	}
	if j.Toward == "other" {
		sense = -sense
	}
	return JointTwist{Movement: j.Movement, Line: Ray{all[x.of].from, all[x.of].to}, Sense: sense}
}

// finish lays the figure down, turns it round for the other side, and cuts it to what moved.
func (d *Posed) finish(before, after map[part]segment, moved []part, lies ids.Position) {
	laid := 0.0
	if d.Plane == Side {
		laid = map[ids.Position]float64{"prone": 90, "supine": -90}[lies]
	}
	mirror := d.Plane == Side && d.Side == ids.Left || d.Plane == Front && d.Side == ids.Right
	place := func(p body.Point) body.Point {
		p = turned(p, body.Point{X: 0, Y: 500}, laid)
		if mirror {
			p.X = -p.X
		}
		return p
	}
	for _, all := range []map[part]segment{before, after} {
		for k, s := range all {
			s.from, s.to = place(s.from), place(s.to)
			all[k] = s
		}
	}
	for i, t := range d.Turns {
		d.Turns[i].Pivot, d.Turns[i].Before, d.Turns[i].After = place(t.Pivot), place(t.Before), place(t.After)
	}
	for i, t := range d.Twists {
		d.Twists[i].Line = Ray{place(t.Line.From), place(t.Line.To)}
	}
	for i, t := range d.Shifts {
		d.Shifts[i].Line = Ray{place(t.Line.From), place(t.Line.To)}
	}
	if mirror {
		for i := range d.Turns {
			d.Turns[i].Sense = -d.Turns[i].Sense
		}
		for i := range d.Twists {
			d.Twists[i].Sense = -d.Twists[i].Sense
		}
	}
	d.shapes(before, after, moved)
}

func (d *Posed) shapes(before, after map[part]segment, moved []part) {
	low, high := body.Point{X: math.Inf(1), Y: math.Inf(1)}, body.Point{X: math.Inf(-1), Y: math.Inf(-1)}
	reach := func(s segment) {
		for _, e := range []struct {
			p body.Point
			r float64
		}{{s.from, s.thick}, {s.to, s.end}} {
			low = body.Point{X: min(low.X, e.p.X-e.r), Y: min(low.Y, e.p.Y-e.r)}
			high = body.Point{X: max(high.X, e.p.X+e.r), Y: max(high.Y, e.p.Y+e.r)}
		}
	}
	for _, k := range order {
		s, ok := after[k]
		if !ok {
			continue
		}
		d.Limbs = append(d.Limbs, limb(k, s))
		if slices.Contains(moved, k) {
			reach(s)
			reach(before[k])
			reach(after[s.on])
			if before[k] != s {
				d.Before = append(d.Before, limb(k, before[k]))
			}
		}
	}
	size := max(high.X-low.X, high.Y-low.Y) * 1.12
	x, y := (low.X+high.X-size)/2, (low.Y+high.Y-size)/2
	d.Frame = Frame{x, y, size, size}
}
