package body

import (
	"math"
	"slices"
	"strconv"
	"strings"
)

// closed draws a smooth closed curve through control points as an SVG path
// (Catmull-Rom through every point, written as cubic Béziers).
func closed(p []Point) string {
	n := len(p)
	var b strings.Builder
	b.WriteString("M" + xy(p[0]))
	for i := range p {
		b.WriteString(segment(p[(i+n-1)%n], p[i], p[(i+1)%n], p[(i+2)%n]))
	}
	return b.String() + "Z"
}

// open draws a smooth line through points.
func open(p []Point) string {
	n := len(p)
	var b strings.Builder
	b.WriteString("M" + xy(p[0]))
	for i := 0; i < n-1; i++ {
		b.WriteString(segment(p[max(i-1, 0)], p[i], p[i+1], p[min(i+2, n-1)]))
	}
	return b.String()
}

// tension 1/6 is the uniform Catmull-Rom spline.
const tension = 1.0 / 6

// segment is the Bézier piece from b to c; a and d are their neighbours, which give it its
// direction.
func segment(a, b, c, d Point) string {
	c1 := Point{b.X + (c.X-a.X)*tension, b.Y + (c.Y-a.Y)*tension}
	c2 := Point{c.X - (d.X-b.X)*tension, c.Y - (d.Y-b.Y)*tension}
	return "C" + xy(c1) + " " + xy(c2) + " " + xy(c)
}

func xy(p Point) string { return Coordinate(p.X) + "," + Coordinate(p.Y) }

// Coordinate is written to a tenth of a unit, which is finer than a hair.
func Coordinate(f float64) string {
	return strings.TrimSuffix(strconv.FormatFloat(f, 'f', 1, 64), ".0")
}

// outline samples the closed curve through p densely, for inside tests.
func outline(p []Point) []Point {
	const steps = 6
	n := len(p)
	out := make([]Point, 0, n*steps)
	for i := range p {
		a, b, c, d := p[(i+n-1)%n], p[i], p[(i+1)%n], p[(i+2)%n]
		c1 := Point{b.X + (c.X-a.X)*tension, b.Y + (c.Y-a.Y)*tension}
		c2 := Point{c.X - (d.X-b.X)*tension, c.Y - (d.Y-b.Y)*tension}
		for k := range steps {
			t := float64(k) / steps
			u := 1 - t
			out = append(out, Point{
				u*u*u*b.X + 3*u*u*t*c1.X + 3*u*t*t*c2.X + t*t*t*c.X,
				u*u*u*b.Y + 3*u*u*t*c1.Y + 3*u*t*t*c2.Y + t*t*t*c.Y,
			})
		}
	}
	return out
}

// inside is the even-odd test of a point in a polygon.
func inside(poly []Point, p Point) bool {
	in := false
	for i, j := 0, len(poly)-1; i < len(poly); j, i = i, i+1 {
		a, b := poly[i], poly[j]
		if (a.Y > p.Y) != (b.Y > p.Y) && p.X < (b.X-a.X)*(p.Y-a.Y)/(b.Y-a.Y)+a.X {
			in = !in
		}
	}
	return in
}

// ToSegment is the distance from p to the line from a to b.
func ToSegment(p, a, b Point) float64 {
	dx, dy := b.X-a.X, b.Y-a.Y
	l := dx*dx + dy*dy
	if l == 0 {
		return p.Distance(a)
	}
	t := min(1, max(0, ((p.X-a.X)*dx+(p.Y-a.Y)*dy)/l))
	return p.Distance(Point{a.X + t*dx, a.Y + t*dy})
}

// Spans gives the stretches of a horizontal line that lie inside a polygon, as
// pairs of x. It is inside for a whole row at once.
func Spans(poly []Point, y float64) [][2]float64 {
	var xs []float64
	for i, j := 0, len(poly)-1; i < len(poly); j, i = i, i+1 {
		a, b := poly[i], poly[j]
		if (a.Y > y) != (b.Y > y) {
			xs = append(xs, (b.X-a.X)*(y-a.Y)/(b.Y-a.Y)+a.X)
		}
	}
	slices.Sort(xs)
	var out [][2]float64
	for i := 0; i+1 < len(xs); i += 2 {
		out = append(out, [2]float64{xs[i], xs[i+1]})
	}
	return out
}

// lens draws a band along a line as an SVG path, widest in the middle and
// pointed at its ends; cut is the share of the line that is left out.
func lens(line []Point, width, cut float64) string {
	const steps = 12
	centre := walk(line, 4*steps)
	skip := int(cut * 2 * steps)
	centre = centre[skip : len(centre)-skip]
	side := func(share float64) []Point {
		out := make([]Point, 0, steps+1)
		for i := 0; i <= steps; i++ {
			at := i * (len(centre) - 1) / steps
			a, b := centre[max(at-1, 0)], centre[min(at+1, len(centre)-1)]
			d := math.Max(a.Distance(b), 1e-9)
			w := share * width / 2 * math.Sin(math.Pi*float64(i)/steps)
			out = append(out, Point{centre[at].X - (b.Y-a.Y)/d*w, centre[at].Y + (b.X-a.X)/d*w})
		}
		return out
	}
	outline := side(1)
	for _, p := range slices.Backward(side(-1)) {
		outline = append(outline, p)
	}
	return closed(outline)
}

// Smooth samples the smooth curve through the points of a line, so finely that
// it may be drawn straight from place to place.
func Smooth(line []Point) []Point {
	var fine []Point
	n := len(line)
	for i := 0; i < n-1; i++ {
		a, b, c, d := line[max(i-1, 0)], line[i], line[i+1], line[min(i+2, n-1)]
		for k := range 16 {
			t := float64(k) / 16
			h := func(a, b, c, d float64) float64 {
				return 0.5 * (2*b + (c-a)*t + (2*a-5*b+4*c-d)*t*t + (3*b-a-3*c+d)*t*t*t)
			}
			fine = append(fine, Point{h(a.X, b.X, c.X, d.X), h(a.Y, b.Y, c.Y, d.Y)})
		}
	}
	return append(fine, line[n-1])
}

// Path writes a line as an SVG path, smooth through its points.
func Path(line []Point) string { return open(line) }

// Polygon writes an area as an SVG path, straight from corner to corner.
func Polygon(border []Point) string {
	var b strings.Builder
	b.WriteString("M" + xy(border[0]))
	for _, p := range border[1:] {
		b.WriteString("L" + xy(p))
	}
	return b.String() + "Z"
}

// walk samples the smooth curve through a line at steps+1 even places.
func walk(line []Point, steps int) []Point {
	fine := Smooth(line)
	total := 0.0
	for i := 1; i < len(fine); i++ {
		total += fine[i-1].Distance(fine[i])
	}
	out := []Point{fine[0]}
	gone := 0.0
	for i := 1; i < len(fine) && len(out) < steps; i++ {
		d := fine[i-1].Distance(fine[i])
		for len(out) < steps && gone+d >= total*float64(len(out))/float64(steps) {
			t := (total*float64(len(out))/float64(steps) - gone) / d
			out = append(out, Point{fine[i-1].X + (fine[i].X-fine[i-1].X)*t, fine[i-1].Y + (fine[i].Y-fine[i-1].Y)*t})
		}
		gone += d
	}
	return append(out, fine[len(fine)-1])
}
