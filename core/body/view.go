// Package body is the figure: views, landmarks, the lattice of cells that pain
// drawings are made of, and the regions that give every cell its name.
//
// View coordinates have their origin at the top left; every view is 1,000
// units tall. In front and back, 1,000 units are the client's height; in the
// soles they are the length of the foot (0.152 of the height, Drillis and
// Contini 1966). The half with x above the middle is authored, the other is
// its mirror image.
package body

import (
	"math"

	"mokren/core/ids"
)

// Version names this drawing of the figure. Every stored place carries the
// version in which it was placed.
const Version = "figure-1"

// View is one way of looking at the figure.
type View string

// The views drawn so far. In a sole the toes point up.
const (
	Front     View = "front"
	Back      View = "back"
	SoleLeft  View = "sole-left"
	SoleRight View = "sole-right"
)

// Views lists the views in the order in which people look.
var Views = []View{Front, Back, SoleLeft, SoleRight}

// footLength is the length of the foot as a share of the height (Drillis and
// Contini 1966).
const footLength = 0.152

// DefaultHeightCM is used when a client's height is not known.
const DefaultHeightCM = 170

// Point is a place in a view.
type Point struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// Distance in view units.
func (p Point) Distance(q Point) float64 { return math.Hypot(p.X-q.X, p.Y-q.Y) }

// Width of a view in units.
func (v View) Width() float64 { return 2 * v.middle() }

func (v View) middle() float64 {
	if v.sole() {
		return 230
	}
	return 240
}

func (v View) sole() bool { return v == SoleLeft || v == SoleRight }

// Known reports whether the figure has this view.
func (v View) Known() bool { return v == Front || v == Back || v.sole() }

// CMPerUnit converts view units to centimetres for a client's height.
func (v View) CMPerUnit(heightCM float64) float64 {
	if v.sole() {
		return heightCM * footLength / 1000
	}
	return heightCM / 1000
}

// mirror reflects a point in the view's middle.
func (v View) mirror(p Point) Point { return Point{2*v.middle() - p.X, p.Y} }

// side tells the client's side for a point right of the middle (x above it).
// Seen from the front the client's left is there, from behind the right. A
// sole shows one side only.
func (v View) side(right bool) ids.Side {
	switch v {
	case SoleLeft:
		return ids.Left
	case SoleRight:
		return ids.Right
	case Back:
		if right {
			return ids.Right
		}
		return ids.Left
	default:
		if right {
			return ids.Left
		}
		return ids.Right
	}
}

// SideAt names the client's side at a point of the view.
func (v View) SideAt(p Point) ids.Side {
	if !v.sole() && math.Abs(p.X-v.middle()) < 0.5 {
		return ids.Midline
	}
	return v.side(p.X >= v.middle())
}

// place puts an authored half-figure point (x outward from the middle) on a
// side of the view. In a sole x grows toward the outer (lateral) edge.
func (v View) place(half Point, s ids.Side) Point {
	if v.sole() {
		// Toes up, seen from below: the left foot's great toe is on the left.
		if v == SoleLeft {
			return Point{v.middle() + half.X, half.Y}
		}
		return Point{v.middle() - half.X, half.Y}
	}
	if s == v.side(true) || s == ids.Midline {
		return Point{v.middle() + half.X, half.Y}
	}
	return Point{v.middle() - half.X, half.Y}
}

// Outward is the direction (+1 or −1 in x) from the middle to a side.
func (v View) Outward(s ids.Side) float64 {
	return math.Copysign(1, v.place(Point{1, 0}, s).X-v.middle())
}
