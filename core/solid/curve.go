package solid

// OnCurve is a place between point i−1 and point i of a smooth curve through points: a
// cardinal spline, which keeps to the line where it is straight.
func OnCurve(points []Point, i int, k float64) Point {
	a, b := points[i-1], points[i]
	before, after := points[max(i-2, 0)], points[min(i+1, len(points)-1)]
	const pull = 0.35 // below a half, so that a short piece beside a long one does not swing out
	// Each end's slope, no longer than the piece itself allows.
	length := a.Distance(b)
	slope := func(p, q Point) Point {
		d := p.To(q)
		if l := p.Distance(q) * pull; l > length {
			return Point{}.Along(d, pull*length/l)
		}
		return Point{}.Along(d, pull)
	}
	m, n := slope(before, b), slope(a, after)
	k2, k3 := k*k, k*k*k
	return Point{}.
		Along(a, 2*k3-3*k2+1).Along(m, k3-2*k2+k).
		Along(b, -2*k3+3*k2).Along(n, k3-k2)
}
