package body

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"mokren/core/decode"
	"mokren/core/ids"
)

// Version names this drawing of the figure. Every stored place carries the
// version in which it was placed; views that are added leave it as it is.
const Version = "figure-3"

// View is one way of looking at the figure.
type View string

// The views. In a sole the toes point up; in a side view the client looks to
// the picture's edge that is named (seen from the left they face left).
const (
	Front     View = "front"
	Back      View = "back"
	LeftSide  View = "left"
	RightSide View = "right"
	HeadLeft  View = "head-left"
	HeadRight View = "head-right"
	SoleLeft  View = "sole-left"
	SoleRight View = "sole-right"
)

// Views lists the views in the order in which people look.
var Views = []View{Front, Back, LeftSide, RightSide, HeadLeft, HeadRight, SoleLeft, SoleRight}

// Check implements decode.Checker.
func (v View) Check() *decode.Error {
	if v.Known() {
		return nil
	}
	names := make([]string, len(Views))
	for i, k := range Views {
		names[i] = string(k)
	}
	return &decode.Error{Path: "$", Given: strconv.Quote(string(v)), Allowed: "one of " + strings.Join(names, ", ")}
}

// footLength is the length of the foot as a share of the height (Drillis and
// Contini 1966); headShare is the share that a head close-up shows, from the
// crown to below the collar-bones.
const (
	footLength = 0.152
	headShare  = 0.2
)

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

// middle is where the view's axis lies, in its units; half the width.
func (v View) middle() float64 {
	switch {
	case v.sole():
		return 230
	case v.profile():
		return 150
	case v.head():
		return 380
	}
	return 240
}

func (v View) sole() bool    { return v == SoleLeft || v == SoleRight }
func (v View) profile() bool { return v == LeftSide || v == RightSide }
func (v View) head() bool    { return v == HeadLeft || v == HeadRight }

// OneSided reports whether the view shows one side of the body only.
func (v View) OneSided() bool { return v.sole() || v.profile() || v.head() }

// Known reports whether the figure has this view.
func (v View) Known() bool { return slices.Contains(Views, v) }

// CMPerUnit converts view units to centimetres for a client's height.
func (v View) CMPerUnit(heightCM float64) float64 { return heightCM * v.share() / 1000 }

// share of the body's height that the view's 1,000 units stand for.
func (v View) share() float64 {
	switch {
	case v.sole():
		return footLength
	case v.head():
		return headShare
	}
	return 1
}

// mirror reflects a point in the view's middle.
func (v View) mirror(p Point) Point { return Point{2*v.middle() - p.X, p.Y} }

// mirrorView is the view that shows the mirror image: the other side's for a
// view of one side, itself for front and back.
func (v View) mirrorView() View {
	switch v {
	case LeftSide:
		return RightSide
	case RightSide:
		return LeftSide
	case HeadLeft:
		return HeadRight
	case HeadRight:
		return HeadLeft
	case SoleLeft:
		return SoleRight
	case SoleRight:
		return SoleLeft
	}
	return v
}

// Mirrored is the view in which the mirror image of a place is seen.
func (v View) Mirrored() View { return v.mirrorView() }

// MirroredPoint is the mirror image of a place of this view, in Mirrored.
func (v View) MirroredPoint(p Point) Point { return v.mirror(p) }

// side tells the client's side for a point right of the middle (x above it).
// Seen from the front the client's left is there, from behind the right.
func (v View) side(right bool) ids.Side {
	switch v {
	case SoleLeft, LeftSide, HeadLeft:
		return ids.Left
	case SoleRight, RightSide, HeadRight:
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
	if !v.OneSided() && math.Abs(p.X-v.middle()) < 0.5 {
		return ids.Midline
	}
	return v.side(p.X >= v.middle())
}

// plumb is where the side views' plumb line (ear, shoulder, hip, ankle) runs,
// behind the middle of the picture, in thousandths of the height.
func (v View) plumb() float64 {
	if v.profile() {
		return 35
	}
	return -5 // the head close-up
}

// place puts an authored point on a side of the view. Authored x grows
// outward from the midline in front and back, toward the outer edge in a
// sole, and forward from the plumb line in side and head views, which are
// authored in thousandths of the height.
func (v View) place(half Point, s ids.Side) Point {
	switch {
	case v.profile() || v.head():
		k := 1 / v.share()
		forward := (half.X - v.plumb()) * k
		if v.side(true) == ids.Left {
			forward = -forward
		}
		return Point{v.middle() + forward, half.Y * k}
	case v.sole():
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

// Authored undoes Place, folding both sides of front and back into one.
func (v View) Authored(p Point) Point { return v.authored(p) }

// unit is how many view units an authored unit is long.
func (v View) unit() float64 {
	return v.place(Point{Y: 1}, v.side(true)).Y - v.place(Point{}, v.side(true)).Y
}

// authored undoes place, folding both sides of front and back into one.
func (v View) authored(p Point) Point {
	if v.OneSided() {
		zero, one := v.place(Point{}, v.side(true)), v.place(Point{X: 1, Y: 1}, v.side(true))
		return Point{(p.X - zero.X) / (one.X - zero.X), p.Y / one.Y}
	}
	return Point{math.Abs(p.X - v.middle()), p.Y}
}

// Outward is the direction (+1 or −1 in x) in which authored x grows: from
// the middle to a side, to the outer edge of a sole, forward in a side view.
func (v View) Outward(s ids.Side) float64 {
	return math.Copysign(1, v.place(Point{1, 0}, s).X-v.place(Point{}, s).X)
}

// Place puts an authored point on a side of the view; see the package comment
// for how views are authored.
func (v View) Place(authored Point, s ids.Side) Point { return v.place(authored, s) }

// Shows reports whether something authored in a view is drawn in v: views of
// one side are authored once, for the left, and the head close-up shows what
// the side view shows of head and neck.
func (v View) Shows(authored View, p Point) bool {
	switch {
	case authored == v, authored == LeftSide && v.profile(), authored == SoleLeft && v.sole(),
		authored == HeadLeft && v.head():
		return true
	}
	return authored == LeftSide && v.head() && p.Y < 195
}
