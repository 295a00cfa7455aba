package body

import (
	"math"
	"sync"

	"mokren/core/ids"
)

// Part is a piece of the figure; every region belongs to one or two parts.
type Part string

// The parts.
const (
	Head  Part = "head"
	Trunk Part = "trunk"
	Arm   Part = "arm"
	Hand  Part = "hand"
	Leg   Part = "leg"
	Foot  Part = "foot"
)

// Shape is a closed outline of the figure in view coordinates.
type Shape struct {
	ID   string   `json:"id"`
	Part Part     `json:"part"`
	Side ids.Side `json:"side"`
	// Layer 1 lies before layer 0: the arm before the trunk in a side view.
	Layer int    `json:"layer,omitempty"`
	Path  string `json:"path" doc:"SVG path, closed, view units"`
	poly  []Point
}

// Inner is a light line inside the figure; Weight 1 is a firm one, 0 a hint.
type Inner struct {
	ID     string  `json:"id"`
	Path   string  `json:"path"`
	Weight float64 `json:"weight"`
	Layer  int     `json:"layer,omitempty"`
}

// Shade is a soft shadow of the surface: several closed shapes, each within the
// one before, that are filled thinly one over the other.
type Shade struct {
	Path  string `json:"path"`
	Layer int    `json:"layer,omitempty"`
}

// Figure is the drawing of one view. Layer by layer, draw the outline of all
// shapes first, their fills on top, then shades and inner lines, so that
// overlapping shapes of one layer read as one body.
type Figure struct {
	View    View    `json:"view"`
	Version string  `json:"version" enum:"figure-3"`
	Width   float64 `json:"width"`
	Height  float64 `json:"height"`
	Share   float64 `json:"share" doc:"of the body's height that the view's 1,000 units stand for"`
	Shapes  []Shape `json:"shapes"`
	Inner   []Inner `json:"inner"`
	Shades  []Shade `json:"shades"`

	layer int  // that is being drawn
	bare  bool // contours only, nothing to be drawn
}

var figures sync.Map // View → Figure

// Draw gives the figure of a view. It never changes while a program runs, so
// it is drawn once and kept; do not alter its slices.
func Draw(v View) Figure {
	if f, ok := figures.Load(v); ok {
		return f.(Figure)
	}
	f, _ := figures.LoadOrStore(v, draw(v, false))
	return f.(Figure)
}

var contours sync.Map // View → Figure

// contoursOf gives the figure's shapes as polygons, without what only a drawing
// needs: most of the work of a drawing is to write it.
func contoursOf(v View) Figure {
	if f, ok := contours.Load(v); ok {
		return f.(Figure)
	}
	f, _ := contours.LoadOrStore(v, draw(v, true))
	return f.(Figure)
}

// Contours lists the outlines of a view's shapes, the farther layer first; do not alter
// them.
func Contours(v View) []Shape { return contoursOf(v).Shapes }

// draw makes the drawing of a view. Bare, it has only the outlines that tell inside from
// outside, which is what a touch needs.
func draw(v View, bare bool) Figure {
	f := Figure{bare: bare, View: v, Version: Version, Width: v.Width(), Height: 1000, Share: v.share()}
	switch {
	case v.profile():
		f.drawProfile(v)
		return f
	case v.head():
		f.drawHead(v)
		return f
	case v.sole():
		f.drawSole(v)
		return f
	}
	f.drawFrontOrBack(v)
	return f
}

// outlineHalf says whether an authored outline is one half of a symmetrical
// shape (mirrored into one outline) or a whole shape (drawn on both sides).
func (f *Figure) add(v View, id string, part Part, half []Point, whole bool) {
	if v.OneSided() {
		f.shape(v, id, part, v.side(true), half)
		return
	}
	if whole {
		for _, side := range []ids.Side{ids.Left, ids.Right} {
			f.shape(v, id, part, side, half)
		}
		return
	}
	full := append([]Point{}, half...)
	for i := len(half) - 1; i >= 0; i-- {
		if p := half[i]; p.X > 0.01 {
			full = append(full, Point{-p.X, p.Y})
		}
	}
	f.shape(v, id, part, ids.Midline, full)
}

// shape adds an outline on one side. The path is for people, the polygon for the question of
// what lies inside.
func (f *Figure) shape(v View, id string, part Part, side ids.Side, half []Point) {
	pts := make([]Point, len(half))
	for i, p := range half {
		pts[i] = v.place(p, side)
	}
	s := Shape{ID: id, Part: part, Side: side, Layer: f.layer, poly: outline(pts)}
	if !f.bare {
		s.Path = closed(pts)
	}
	f.Shapes = append(f.Shapes, s)
}

type innerLine struct {
	id string
	// weight is 1 for a firm line and 0 for a hint.
	weight float64
	// soft is the width of a shade along the line, in authored units; 0 is a line.
	soft float64
	pts  []Point
}

// line adds light lines on one side or on both; one that runs in the middle is drawn once.
func (f *Figure) line(v View, lines []innerLine, both bool) {
	if f.bare {
		return
	}
	for _, l := range lines {
		sides := []ids.Side{v.side(true)}
		onMiddle := true
		for _, p := range l.pts {
			onMiddle = onMiddle && p.X == 0
		}
		if both && !onMiddle {
			sides = []ids.Side{ids.Left, ids.Right}
		}
		for _, s := range sides {
			pts := make([]Point, len(l.pts))
			for i, p := range l.pts {
				pts[i] = v.place(p, s)
			}
			if l.soft > 0 {
				f.shade(pts, l.soft*v.unit())
				continue
			}
			f.Inner = append(f.Inner, Inner{ID: l.id, Path: open(pts), Weight: l.weight, Layer: f.layer})
		}
	}
}

// steps of a shade, each narrower and shorter than the one before.
const shadeSteps = 5

// shade lays thin lenses over each other, so that a shadow has no edge.
func (f *Figure) shade(line []Point, width float64) {
	for i := range shadeSteps {
		share := 1 - float64(i)/shadeSteps
		f.Shades = append(f.Shades, Shade{lens(line, width*1.9*share, 0.5*(1-share)), f.layer})
	}
}

// Outline gives a shape's contour as points, for drawing it without SVG.
func (s Shape) Outline() []Point { return s.poly }

// Contains reports whether a point lies on the figure.
func (f *Figure) Contains(p Point) bool {
	for i := range f.Shapes {
		if inside(f.Shapes[i].poly, p) {
			return true
		}
	}
	return false
}

// limb is a tapering finger or toe.
type limb struct {
	from, to Point
	w0, w1   float64
}

// capsule outlines a limb with a round end; the base stays inside its parent.
func capsule(l limb) []Point {
	dx, dy := l.to.X-l.from.X, l.to.Y-l.from.Y
	d := math.Hypot(dx, dy)
	ux, uy := dx/d, dy/d
	nx, ny := -uy, ux
	at := func(t, n float64) Point {
		return Point{l.from.X + ux*t + nx*n, l.from.Y + uy*t + ny*n}
	}
	a, b := l.w0/2, l.w1/2
	return []Point{
		at(0, -a), at(d*0.45, -(a+b)/2*1.02), at(d*0.8, -b*1.02), at(d-b*0.35, -b*0.8), at(d, 0),
		at(d-b*0.35, b*0.8), at(d*0.8, b*1.02), at(d*0.45, (a+b)/2*1.02), at(0, a), at(-a*0.4, 0),
	}
}

// pose lays the hand, which is authored with the wrist at the origin, fingers
// down and thumb outward, on the end of a forearm.
type pose struct {
	wrist Point
	turn  float64 // radians, fingers outward
}

var hanging = pose{Point{171.5, 520}, 7.5 * math.Pi / 180}

// at turns a point about the wrist and puts it at the end of the forearm.
func (h pose) at(p Point) Point {
	s, c := math.Sin(h.turn), math.Cos(h.turn)
	return Point{h.wrist.X + p.X*c + p.Y*s, h.wrist.Y - p.X*s + p.Y*c}
}

// all lays a whole outline on the pose.
func (h pose) all(pts []Point) []Point {
	out := make([]Point, len(pts))
	for i, p := range pts {
		out[i] = h.at(p)
	}
	return out
}

// inverse undoes at.
func (h pose) inverse(p Point) Point {
	s, c := math.Sin(h.turn), math.Cos(h.turn)
	dx, dy := p.X-h.wrist.X, p.Y-h.wrist.Y
	return Point{dx*c - dy*s, dx*s + dy*c}
}

// poseIn is how the hand hangs in a view.
func poseIn(v View) pose {
	if v.profile() {
		return sideHand
	}
	return hanging
}

// OnHand turns an authored place of a view into one on the hand itself: the wrist at
// the origin, fingers down, thumb outward.
func (v View) OnHand(authored Point) Point { return poseIn(v).inverse(authored) }

// FromHand undoes OnHand.
func (v View) FromHand(p Point) Point { return poseIn(v).at(p) }
