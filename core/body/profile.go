package body

import (
	"math"
	"slices"
)

// trunkAndLeg is the outline of everything behind the arm.
func (d sideData) trunkAndLeg() []Point {
	return slices.Concat(
		d.Contours.NeckAndChest.points(), d.Contours.ThighToToes.points(), d.Contours.HeelToNeck.points(),
	)
}

// ear closes its own outline.
func (d sideData) ear(weight float64) innerLine {
	ear := d.Contours.Ear.points()
	return innerLine{"ear", weight, 0, append(ear, ear[0])}
}

// sideHand is how the hand hangs in a side view.
var sideHand = pose{Point{74, 514}, 15 * math.Pi / 180}

// drawProfile draws the body first and the arm as a layer of its own, so that the flank behind
// it can be seen.
func (f *Figure) drawProfile(v View) {
	d := sideFile()
	f.add(v, "body", Trunk, d.trunkAndLeg(), true)
	f.add(v, "head", Head, d.Contours.Head.points(), true)
	f.line(v, innerLines(d.Body), false)
	f.line(v, []innerLine{d.ear(0.75)}, false)
	f.layer = 1
	f.add(v, "arm", Arm, d.Contours.Arm.points(), true)
	f.hand(v, sideHand, handFile().Back, false)
	f.line(v, innerLines(d.Arm), false)
}

// drawHead draws the head close-up: the side view's head, larger, on a bust of
// its own.
func (f *Figure) drawHead(v View) {
	d := sideFile()
	f.add(v, "bust", Trunk, d.Contours.Bust.points(), true)
	f.add(v, "head", Head, d.Contours.Head.points(), true)
	f.line(v, innerLines(d.Head), false)
	f.line(v, []innerLine{d.ear(0.9)}, false)
}

// profilePart finds the part by the foremost shape that holds the point.
func profilePart(v View, p Point) Part {
	q := v.place(p, v.side(true))
	part := Trunk
	for _, s := range contoursOf(v).Shapes {
		if inside(s.poly, q) {
			part = s.Part
		}
	}
	if part != Trunk {
		return part
	}
	switch {
	case p.Y >= 956:
		return Foot
	case p.Y > 521-0.44*p.X:
		return Leg
	}
	return Trunk
}
