package atlas

import (
	"math"
	"slices"
	"sync"

	"mokren/core/body"
	"mokren/core/ids"
)

// sheet is a muscle's part laid on a view: an area between an origin line and
// an insertion line, with two edges. A place in it is a share t of the way from
// origin to insertion and a share s of the way from the first edge to the last;
// between its four borders it is interpolated (a bilinearly blended patch), so
// that fibres, which are lines of one s, converge, fan or run side by side.
type sheet struct {
	view              body.View
	origin, insertion curve
	first, last       curve
	// outward is +1 where s grows outward (forward in a side view, or down where
	// the fibres run straight across), −1 where it grows the other way.
	outward float64
	// even is made when it is first needed: most sheets are only looked at in
	// one place.
	even func() *even
}

// even holds places of a sheet at even shares, to find the nearest one by, and
// their box.
type even struct {
	at   [gridT + 1][gridS + 1]body.Point
	low  body.Point
	high body.Point
}

const (
	gridT = 24
	gridS = 12
)

// laid keeps every part as it lies on the figure: neither ever changes.
var laid sync.Map // laidKey → *sheet

type laidKey struct {
	part *Part
	side ids.Side
}

// sheet lays the part on the figure, on a side.
func (p *Part) sheet(side ids.Side) *sheet {
	if s, ok := laid.Load(laidKey{p, side}); ok {
		return s.(*sheet)
	}
	s, _ := laid.LoadOrStore(laidKey{p, side}, p.lay(side))
	return s.(*sheet)
}

// lay reads the part's anchors from the figure. Both borders and both edges become smooth curves
// that meet at the corners.
func (p *Part) lay(side ids.Side) *sheet {
	v := viewOf(p.View, side)
	at := func(list []Anchor) []body.Point {
		out := make([]body.Point, len(list))
		for i, a := range list {
			q, err := a.point(v, side)
			if err != nil {
				panic(err) // checked when the file was read
			}
			out[i] = q
		}
		return out
	}
	origin, insertion := at(p.Origin), at(p.Insertion)
	edge := func(from, to body.Point, via []Anchor) curve {
		points := append([]body.Point{from}, at(via)...)
		return curveThrough(append(points, to))
	}
	s := &sheet{
		view: v, origin: curveThrough(origin), insertion: curveThrough(insertion),
		first: edge(origin[0], insertion[0], p.First),
		last:  edge(origin[len(origin)-1], insertion[len(insertion)-1], p.Last),
	}
	s.outward = s.senseOf(side)
	s.even = sync.OnceValue(s.evenly)
	return s
}

// evenly samples the sheet for a first guess of the nearest place.
func (s *sheet) evenly() *even {
	e := &even{
		low:  body.Point{X: math.Inf(1), Y: math.Inf(1)},
		high: body.Point{X: math.Inf(-1), Y: math.Inf(-1)},
	}
	for i := range e.at {
		for k := range e.at[i] {
			q := s.at(float64(i)/gridT, float64(k)/gridS)
			e.at[i][k] = q
			e.low = body.Point{X: min(e.low.X, q.X), Y: min(e.low.Y, q.Y)}
			e.high = body.Point{X: max(e.high.X, q.X), Y: max(e.high.Y, q.Y)}
		}
	}
	return e
}

// steepest: fibres flatter than this against the horizontal run "straight
// across", so that across them is up and down.
const steepest = 0.26

// senseOf is outward: the sign that makes mm across grow to the outside of the body, forward in
// a side view, down where fibres run straight across.
func (s *sheet) senseOf(side ids.Side) float64 {
	a, b := s.at(0.5, 0.5), s.at(0.5, 0.51)
	way := unit(a, b)
	if math.Abs(way.X) >= steepest {
		return math.Copysign(1, way.X*s.view.Outward(side))
	}
	return math.Copysign(1, way.Y)
}

// at interpolates between the four borders.
func (s *sheet) at(t, u float64) body.Point {
	a, b := s.first.at(t), s.last.at(t)
	o, i := s.origin.at(u), s.insertion.at(u)
	oa, ob := s.origin.at(0), s.origin.at(1)
	ia, ib := s.insertion.at(0), s.insertion.at(1)
	blend := func(a, b, o, i, oa, ob, ia, ib float64) float64 {
		corners := (1-u)*(1-t)*oa + u*(1-t)*ob + (1-u)*t*ia + u*t*ib
		return (1-u)*a + u*b + (1-t)*o + t*i - corners
	}
	return body.Point{
		X: blend(a.X, b.X, o.X, i.X, oa.X, ob.X, ia.X, ib.X),
		Y: blend(a.Y, b.Y, o.Y, i.Y, oa.Y, ob.Y, ia.Y, ib.Y),
	}
}

// direction of the fibre at a place, origin to insertion, as a unit vector.
func (s *sheet) direction(t, u float64) body.Point {
	return unit(s.at(max(t-0.02, 0), u), s.at(min(t+0.02, 1), u))
}

// length of the middle fibre in view units.
func (s *sheet) length() float64 {
	sum := 0.0
	for i := 1; i <= gridT; i++ {
		sum += s.even().at[i-1][gridS/2].Distance(s.even().at[i][gridS/2])
	}
	return sum
}

// width at a share of the length, from edge to edge, in view units.
func (s *sheet) width(t float64) float64 { return s.acrossTo(t, 1) - s.acrossTo(t, 0) }

// acrossSteps divide half a sheet's width for measuring along it.
const acrossSteps = 12

// acrossTo is the way from the middle fibre to a share of the width, in view
// units, negative toward the first edge.
func (s *sheet) acrossTo(t, u float64) float64 {
	sum, last := 0.0, s.at(t, 0.5)
	for i := 1; i <= acrossSteps; i++ {
		p := s.at(t, 0.5+(u-0.5)*float64(i)/acrossSteps)
		sum += last.Distance(p)
		last = p
	}
	return math.Copysign(sum, u-0.5)
}

// across goes so many view units from the middle fibre toward the last edge;
// beyond an edge it goes straight on.
func (s *sheet) across(t, units float64) body.Point {
	end := 0.5 + math.Copysign(0.5, units)
	left, last := math.Abs(units), s.at(t, 0.5)
	way := unit(last, s.at(t, 0.5+math.Copysign(0.05, units)))
	for i := 1; i <= acrossSteps; i++ {
		p := s.at(t, 0.5+(end-0.5)*float64(i)/acrossSteps)
		d := last.Distance(p)
		if d > 0 {
			way = unit(last, p)
		}
		if left <= d {
			break
		}
		left, last = left-d, p
	}
	return body.Point{X: last.X + way.X*left, Y: last.Y + way.Y*left}
}

// ways to step from a place in a sheet.
var ways = [8][2]float64{{1, 0}, {-1, 0}, {0, 1}, {0, -1}, {1, 1}, {1, -1}, {-1, 1}, {-1, -1}}

// near finds the place in the sheet that lies nearest to a point.
func (s *sheet) near(p body.Point) (t, u, off float64) {
	best := math.Inf(1)
	grid := &s.even().at
	for i := range grid {
		for k := range grid[i] {
			if d := grid[i][k].Distance(p); d < best {
				best, t, u = d, float64(i)/gridT, float64(k)/gridS
			}
		}
	}
	// Halving steps around the nearest grid place; the sheet is smooth.
	for step := 1.0 / gridS; step > 1e-4; step /= 2 {
		for moved := true; moved; {
			moved = false
			for _, d := range ways {
				a, b := min(max(t+d[0]*step, 0), 1), min(max(u+d[1]*step, 0), 1)
				if e := s.at(a, b).Distance(p); e < best-1e-9 {
					best, t, u, moved = e, a, b, true
				}
			}
		}
	}
	return t, u, best
}

// reaches reports whether a point lies within so many units of the sheet's box.
func (s *sheet) reaches(p body.Point, units float64) bool {
	low, high := s.even().low, s.even().high
	return p.X >= low.X-units && p.X <= high.X+units && p.Y >= low.Y-units && p.Y <= high.Y+units
}

// fibre samples the line of one share of the width between two shares of the
// length.
func (s *sheet) fibre(u, from, to float64) []body.Point {
	const steps = 12
	out := make([]body.Point, steps+1)
	for i := range out {
		out[i] = s.at(from+(to-from)*float64(i)/steps, u)
	}
	return out
}

// border goes once round the part of the sheet between two lines across it, each
// given as the share of the length for a share of the width. Its corners stay
// corners, so it is straight from point to point.
func (s *sheet) border(from, to func(u float64) float64) []body.Point {
	const steps = 12
	out := s.fibre(0, from(0), to(0))
	for i := 1; i < steps; i++ {
		u := float64(i) / steps
		out = append(out, s.at(to(u), u))
	}
	back := s.fibre(1, from(1), to(1))
	slices.Reverse(back)
	out = append(out, back...)
	for i := 1; i < steps; i++ {
		u := 1 - float64(i)/steps
		out = append(out, s.at(from(u), u))
	}
	return out
}

// unit is the way from a to b with length one; of two equal points it is nothing.
func unit(a, b body.Point) body.Point {
	d := math.Max(a.Distance(b), 1e-12)
	return body.Point{X: (b.X - a.X) / d, Y: (b.Y - a.Y) / d}
}
