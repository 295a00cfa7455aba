package pose

import (
	"fmt"
	"math"
	"strings"

	"mokren/core/body"
	"mokren/core/ids"
)

// Plane is the side from which a movement is seen in its true angle.
type Plane string

const (
	// Side is seen from the right, or mirrored from the left: bending and straightening.
	Side Plane = "side"
	// Front is seen from the front: leading away and toward, bending sideways.
	Front Plane = "front"
)

// part names a segment; each is carried by another, the pelvis by none.
type part string

const (
	pelvis   part = "pelvis"
	trunk    part = "trunk"
	head     part = "head"
	upperArm part = "upper arm"
	forearm  part = "forearm"
	hand     part = "hand"
	fingers  part = "fingers"
	thigh    part = "thigh"
	shank    part = "shank"
	foot     part = "foot"
	toes     part = "toes"
	otherArm part = "other arm"
	otherLeg part = "other leg"
)

// segment is a part as it hangs in standing: from its joint to its end, as thick as its radii.
type segment struct {
	on         part // carries it; "" for the pelvis
	from, to   body.Point
	thick, end float64 // radius at joint and end
}

// The hand from the wrist to the knuckles, and the fingers.
const handLength, fingerLength = 48.0, 44.0

// skeleton is the standing figure of a plane, its joints taken from the landmarks of the body.
func skeleton(p Plane) map[part]segment {
	if p == Front {
		return frontOn(landmarkAt(body.Front))
	}
	return sideOn(landmarkAt(body.RightSide))
}

// landmarkAt gives where a landmark of the right side lies, x counted from the middle.
func landmarkAt(v body.View) func(id ids.Landmark) body.Point {
	return func(id ids.Landmark) body.Point {
		for _, l := range body.LandmarksOf(v) {
			if l.ID == id && l.Side != ids.Left {
				return body.Point{X: l.X - v.Width()/2, Y: l.Y}
			}
		}
		return body.Point{}
	}
}

// sideOn looks toward the picture's right. Joints lie under their landmarks.
func sideOn(at func(ids.Landmark) body.Point) map[part]segment {
	shoulder, elbow := at("acromion"), at("lateral-epicondyle")
	wrist, hip := mid(at("radial-styloid"), at("ulnar-styloid")), at("greater-trochanter")
	knee, ankle := at("fibular-head"), at("lateral-malleolus")
	sign := facing(at("acromion"), at("sternal-notch"))
	flip := func(p body.Point) body.Point { return body.Point{X: p.X * sign, Y: p.Y} }
	shoulder, elbow, wrist = flip(shoulder), flip(elbow), flip(wrist)
	hip, knee, ankle = flip(hip), flip(knee), flip(ankle)
	shoulder.Y += 14 // the middle of the joint, below its roof
	knee = body.Point{X: knee.X + 12, Y: knee.Y - 22}
	toe := body.Point{X: 84, Y: 986}
	// Straight limbs stand plumb, so that zero is zero.
	elbow.X, wrist.X, knee.X, ankle.X = shoulder.X, shoulder.X, hip.X, hip.X
	neck, lumbar := body.Point{X: -14, Y: 160}, body.Point{X: -16, Y: 420}
	knuckle, finger := off(wrist, 0, handLength), off(wrist, 0, handLength+fingerLength)
	return map[part]segment{
		pelvis:   {"", lumbar, off(hip, 0, 8), 52, 58},
		trunk:    {pelvis, lumbar, body.Point{X: -6, Y: 222}, 50, 60},
		head:     {trunk, neck, body.Point{X: 0, Y: 62}, 30, 62},
		upperArm: {trunk, shoulder, elbow, 32, 24},
		forearm:  {upperArm, elbow, wrist, 25, 16},
		hand:     {forearm, wrist, knuckle, 16, 14},
		fingers:  {hand, knuckle, finger, 13, 10},
		thigh:    {pelvis, hip, knee, 54, 36},
		shank:    {thigh, knee, ankle, 36, 20},
		foot:     {shank, off(ankle, 0, 12), off(toe, -22, -4), 22, 12},
		toes:     {foot, off(toe, -22, -2), off(toe, 14, 0), 11, 9},
	}
}

// frontOn has the limb of the picture's right side, the person's left, to move; the other side
// stands still.
func frontOn(at func(ids.Landmark) body.Point) map[part]segment {
	abs := func(id ids.Landmark) body.Point { p := at(id); return body.Point{X: math.Abs(p.X), Y: p.Y} }
	shoulder, elbow := abs("acromion"), abs("lateral-epicondyle")
	wrist := mid(abs("radial-styloid"), abs("ulnar-styloid"))
	hip, knee := abs("greater-trochanter"), abs("patella")
	ankle := mid(abs("lateral-malleolus"), abs("medial-malleolus"))
	shoulder = off(shoulder, -14, 14)
	hip.X = knee.X // the middle of the thigh
	elbow.X, wrist.X, ankle.X = shoulder.X, shoulder.X, hip.X
	knuckle, finger := off(wrist, 0, handLength), off(wrist, 0, handLength+fingerLength)
	mirror := func(p body.Point) body.Point { return body.Point{X: -p.X, Y: p.Y} }
	lumbar := body.Point{X: 0, Y: 420}
	return map[part]segment{
		pelvis:   {"", off(lumbar, 0, -10), body.Point{X: 0, Y: 486}, 74, 88},
		trunk:    {pelvis, lumbar, body.Point{X: 0, Y: 250}, 70, 92},
		head:     {trunk, body.Point{X: 0, Y: 166}, body.Point{X: 0, Y: 62}, 28, 52},
		upperArm: {trunk, shoulder, elbow, 28, 22},
		forearm:  {upperArm, elbow, wrist, 22, 15},
		hand:     {forearm, wrist, knuckle, 18, 16},
		fingers:  {hand, knuckle, finger, 15, 11},
		thigh:    {pelvis, hip, knee, 50, 34},
		shank:    {thigh, knee, ankle, 34, 20},
		foot:     {shank, off(ankle, 0, 10), off(ankle, 0, 58), 20, 22},
		otherArm: {trunk, mirror(shoulder), mirror(finger), 28, 13},
		otherLeg: {pelvis, mirror(hip), off(mirror(ankle), 0, 40), 50, 20},
	}
}

func off(p body.Point, x, y float64) body.Point { return body.Point{X: p.X + x, Y: p.Y + y} }

func mid(a, b body.Point) body.Point { return body.Point{X: (a.X + b.X) / 2, Y: (a.Y + b.Y) / 2} }

// facing is −1 where the view looks toward the picture's left.
func facing(back, front body.Point) float64 {
	if front.X < back.X {
		return -1
	}
	return 1
}

// turned is a point turned clockwise about another.
func turned(p, about body.Point, deg float64) body.Point {
	sin, cos := math.Sincos(deg * math.Pi / 180)
	x, y := p.X-about.X, p.Y-about.Y
	return body.Point{X: about.X + x*cos - y*sin, Y: about.Y + x*sin + y*cos}
}

// outline is a segment as a closed path: two circles and what lies between them.
func (s segment) outline() string {
	dx, dy := s.to.X-s.from.X, s.to.Y-s.from.Y
	length := math.Hypot(dx, dy)
	if length < 1 { // it points at the one who looks
		r := max(s.thick, s.end)
		return fmt.Sprintf("M%.1f,%.1fA%.1f,%.1f 0 1 0 %.1f,%.1fA%.1f,%.1f 0 1 0 %.1f,%.1fZ",
			s.from.X-r, s.from.Y, r, r, s.from.X+r, s.from.Y, r, r, s.from.X-r, s.from.Y)
	}
	// The tangents of both circles stand a little off the middle line.
	lean := math.Asin(max(-1, min(1, (s.thick-s.end)/length)))
	base := math.Atan2(dy, dx)
	on := func(c body.Point, r, turn float64) body.Point {
		return body.Point{X: c.X + r*math.Cos(base+turn), Y: c.Y + r*math.Sin(base+turn)}
	}
	a, b := math.Pi/2-lean, math.Pi/2-lean
	p1, p2 := on(s.from, s.thick, a), on(s.to, s.end, b)
	p3, p4 := on(s.to, s.end, -b), on(s.from, s.thick, -a)
	var out strings.Builder
	fmt.Fprintf(&out, "M%.1f,%.1fL%.1f,%.1f", p1.X, p1.Y, p2.X, p2.Y)
	// More than half of the larger circle is outside, and less than half of the smaller.
	far, near := 0, 1
	if s.end > s.thick {
		far, near = 1, 0
	}
	fmt.Fprintf(&out, "A%.1f,%.1f 0 %d 0 %.1f,%.1f", s.end, s.end, far, p3.X, p3.Y)
	fmt.Fprintf(&out, "L%.1f,%.1fA%.1f,%.1f 0 %d 0 %.1f,%.1fZ", p4.X, p4.Y, s.thick, s.thick, near, p1.X, p1.Y)
	return out.String()
}

// corners are the outline as a polygon: both ends in steps of a twelfth of a circle.
func (s segment) corners() []body.Point {
	base := math.Atan2(s.to.Y-s.from.Y, s.to.X-s.from.X)
	var out []body.Point
	for _, end := range []struct {
		c     body.Point
		r     float64
		begin float64
	}{{s.to, s.end, base - math.Pi/2}, {s.from, s.thick, base + math.Pi/2}} {
		for k := range 13 {
			a := end.begin + float64(k)*math.Pi/12
			out = append(out, body.Point{X: end.c.X + end.r*math.Cos(a), Y: end.c.Y + end.r*math.Sin(a)})
		}
	}
	return out
}
