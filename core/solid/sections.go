package solid

import (
	"math"
	"sync"

	"mokren/core/body"
)

// Point is a place in space.
type Point struct {
	X float64 `json:"x" doc:"to the client's left of the midline"`
	Y float64 `json:"y" doc:"down from the crown"`
	Z float64 `json:"z" doc:"forward of the plumb line"`
}

func (p Point) plus(q Point, k float64) Point { return Point{p.X + k*q.X, p.Y + k*q.Y, p.Z + k*q.Z} }

func (p Point) dot(q Point) float64 { return p.X*q.X + p.Y*q.Y + p.Z*q.Z }

// To is the way from p to q.
func (p Point) To(q Point) Point { return q.plus(p, -1) }

// Distance between two places, straight.
func (p Point) Distance(q Point) float64 { return math.Sqrt(p.To(q).dot(p.To(q))) }

// Along goes k of the way d from p.
func (p Point) Along(d Point, k float64) Point { return p.plus(d, k) }

// Mirrored is the same place on the other side.
func (p Point) Mirrored() Point { return Point{-p.X, p.Y, p.Z} }

// unit is the direction of a vector; of none it is none.
func (p Point) unit() Point {
	l := math.Sqrt(p.dot(p))
	if l == 0 {
		return Point{}
	}
	return Point{p.X / l, p.Y / l, p.Z / l}
}

// part of the body; the sections of each are its own.
type part uint8

const (
	head part = iota
	trunk
	arm
	hand
	leg
	foot
	parts
)

// section is one slice of a part: its middle and its half widths. Across is x, and Deep
// is z, but for the foot, which is sliced across its length: there Deep is y, from the
// ground.
type section struct {
	x, a float64 // across
	z, b float64 // deep
	seen float64 // half of what the side view shows
}

// stack is the sections of a part along its axis: y, along the hand, or z for the foot.
type stack struct {
	from, step float64
	rows       []section
	// square: a plain ellipse; else a superellipse of the power 2.5, rounder than a box.
	square bool
}

// sum is 1 on the skin: of how far across and deep, in half widths.
func (s *stack) sum(dx, dz float64) float64 {
	if s.square {
		return dx*dx + dz*dz
	}
	return dx*dx*math.Sqrt(dx) + dz*dz*math.Sqrt(dz)
}

// root undoes the power.
func (s *stack) root(sum float64) float64 {
	if s.square {
		return math.Sqrt(sum)
	}
	return math.Pow(sum, 0.4)
}

func (s *stack) to() float64 { return s.from + s.step*float64(len(s.rows)-1) }

// at gives the section at a place of the axis; beyond an end, the last one.
func (s *stack) at(y float64) section {
	k := min(max((y-s.from)/s.step, 0), float64(len(s.rows)-1))
	i := min(int(k), len(s.rows)-2)
	f := k - float64(i)
	p, q := s.rows[i], s.rows[i+1]
	mix := func(a, b float64) float64 { return a + (b-a)*f }
	return section{mix(p.x, q.x), mix(p.a, q.a), mix(p.z, q.z), mix(p.b, q.b), mix(p.seen, q.seen)}
}

// reach says how deep a section is at a place across it, 0 at its edge.
func (s *stack) reach(c section, x float64) float64 {
	k := math.Abs(x-c.x) / c.a
	if k >= 1 {
		return 0
	}
	return c.b * s.root(1-s.sum(k, 0))
}

// stacks are made from the contours that the drawing has, once.
var stacks = sync.OnceValue(func() *[parts]stack {
	front, side := outlines(body.Front), outlines(body.LeftSide)
	var out [parts]stack
	out[head] = stack{1, 3, nil, true}
	for y := 1.0; y <= 124; y += 3 {
		w := hull(front["head"], y)
		d := hull(side["head"], y)
		out[head].rows = append(out[head].rows, upright(-w[1], w[1], d))
	}
	out[trunk] = stack{99, 3, nil, false}
	for y := 99.0; y <= 532; y += 3 {
		w := trunkHalf(front["body"], y)
		out[trunk].rows = append(out[trunk].rows, upright(-w, w, hull(side["body"], y)))
	}
	out[arm] = stack{178, 3, nil, true}
	for y := 178.0; y <= 529; y += 3 {
		out[arm].rows = append(out[arm].rows, armAt(front["body"], side["arm"], y))
	}
	out[leg] = stack{500, 3, nil, true}
	for y := 500.0; y <= 959; y += 3 {
		w := legAt(front["body"], y)
		out[leg].rows = append(out[leg].rows, upright(w[0], w[1], hull(side["body"], y)))
	}
	out[hand] = handStack()
	out[foot] = footStack(side["body"])
	return &out
})

// outlines of a view as authored, by the shape's id; of a pair the client's left one.
func outlines(v body.View) map[string][]body.Point {
	out := map[string][]body.Point{}
	for _, s := range body.Contours(v) {
		if s.Side == "right" {
			continue
		}
		poly := make([]body.Point, len(s.Outline()))
		for i, p := range s.Outline() {
			poly[i] = v.Authored(p)
			if !v.OneSided() {
				poly[i].X = p.X - v.Width()/2
			}
		}
		out[s.ID] = poly
	}
	return out
}

// upright is a section between two edges across and two in depth.
func upright(from, to float64, deep [2]float64) section {
	half := (deep[1] - deep[0]) / 2
	return section{(from + to) / 2, max((to-from)/2, 0.5), (deep[0] + deep[1]) / 2, max(half, 0.5), half}
}

// hull is from the first to the last place of a row that lies in an outline.
func hull(poly []body.Point, y float64) [2]float64 {
	s := body.Spans(poly, y)
	if len(s) == 0 {
		return [2]float64{}
	}
	return [2]float64{s[0][0], s[len(s)-1][1]}
}

// last is the outermost span of a row, which is the limb's.
func last(s [][2]float64) [2]float64 {
	if len(s) == 0 {
		return [2]float64{}
	}
	return s[len(s)-1]
}

// shoulder is how far out the trunk goes where the outline runs on into the arm.
const shoulder = 99

// trunkHalf is the half width of neck and trunk, without the arm.
func trunkHalf(outline []body.Point, y float64) float64 {
	for _, s := range body.Spans(outline, y) {
		if s[0] <= 0 && s[1] > 0 || s[0] > 0 && s[0] < 20 {
			if y > 176 && y < 270 {
				return min(s[1], shoulder)
			}
			return s[1]
		}
	}
	return shoulder
}

// legAt is the leg's inner and outer edge: the innermost stretch of the left half.
func legAt(outline []body.Point, y float64) [2]float64 {
	for _, s := range body.Spans(outline, y) {
		if s[1] > 5 {
			return [2]float64{max(s[0], 0), s[1]}
		}
	}
	return [2]float64{}
}

// Between elbow and wrist the arm that the side view shows is turned.
const (
	elbow = 390
	wrist = 520
)

// forearmDepth is how deep a wrist is for its width.
const forearmDepth = 0.66

// armAt is a slice of the arm. Above the armpit it has no inner edge of its own, and below the
// elbow the forearm turns, so that width and depth change places.
func armAt(front, side []body.Point, y float64) section {
	w := last(body.Spans(front, y))
	if y < 268 { // above the armpit there is no edge
		w[0] = 88 + (98-88)*(y-178)/(268-178)
	}
	s := upright(w[0], w[1], hull(side, y))
	if y > elbow {
		k := min((y-elbow)/(wrist-elbow), 1)
		s.b = s.seen + (s.a*forearmDepth-s.seen)*k
	}
	return s
}

// handThick is half the hand's thickness at the wrist, over the ball of the thumb, and
// at the finger tips.
var handThick = [3]float64{10, 9, 4}

// handStack slices the hand along its own axis, because it hangs at an angle.
func handStack() stack {
	out := stack{-12, 3, nil, false}
	var poly []body.Point
	for _, s := range body.Contours(body.Front) {
		if s.ID == "hand" && s.Side == "left" {
			for _, p := range s.Outline() {
				poly = append(poly, body.Front.OnHand(body.Front.Authored(p)))
			}
		}
	}
	deep := wristForward()
	for v := -12.0; v <= 114; v += 3 {
		w := hull(poly, v)
		if w == ([2]float64{}) {
			w = [2]float64{-14, 14}
		}
		thick := handThick[0] + (handThick[1]-handThick[0])*max(v, 0)/40
		if v > 40 {
			thick = handThick[1] + (handThick[2]-handThick[1])*(v-40)/74
		}
		out.rows = append(out.rows, section{(w[0] + w[1]) / 2, max((w[1]-w[0])/2, 1), deep, thick, thick})
	}
	return out
}

// wristForward is how far forward the wrist hangs.
func wristForward() float64 {
	w := hull(outlines(body.LeftSide)["arm"], wrist)
	return (w[0] + w[1]) / 2
}

// The sole is drawn larger and lies under the ankle: its middle is soleX outward, its
// toes toesZ forward, soleTurn further out over its length.
const (
	soleX    = 60.0
	toesZ    = 109.0
	soleTurn = 8.0
	soleHeel = 890.0
	ground   = 1000.0
)

func soleUnit() float64 { return body.SoleLeft.CMPerUnit(1000) / body.Front.CMPerUnit(1000) }

// onSole turns a place of the sole view, as authored, into x and z.
func onSole(p body.Point) (x, z float64) {
	return soleX + p.X*soleUnit() + soleTurn*(soleHeel-p.Y)/590, toesZ - p.Y*soleUnit()
}

// fromSole undoes it.
func fromSole(x, z float64) body.Point {
	y := (toesZ - z) / soleUnit()
	return body.Point{X: (x - soleX - soleTurn*(soleHeel-y)/590) / soleUnit(), Y: y}
}

// footStack slices the foot along its length; width comes from the sole, height from the side
// view.
func footStack(side []body.Point) stack {
	out := stack{-44, 3, nil, false}
	for z := -44.0; z <= 107; z += 3 {
		y := (toesZ - z) / soleUnit()
		low, high := math.Inf(1), math.Inf(-1)
		for _, s := range body.Contours(body.SoleLeft) {
			for _, w := range body.Spans(s.Outline(), min(max(y, 30), 990)) {
				low, high = min(low, w[0]), max(high, w[1])
			}
		}
		in, _ := onSole(body.Point{X: low - body.SoleLeft.Width()/2, Y: y})
		to, _ := onSole(body.Point{X: high - body.SoleLeft.Width()/2, Y: y})
		out.rows = append(out.rows, section{(in + to) / 2, max((to-in)/2, 1), ground, ground - instep(side, z), 0})
	}
	return out
}

// instep is how high the foot is at a place of its length.
func instep(side []body.Point, z float64) float64 {
	for y := 945.0; y < 999; y++ {
		for _, s := range body.Spans(side, y) {
			if s[0] <= z && z <= s[1] {
				return y
			}
		}
	}
	return 998
}
