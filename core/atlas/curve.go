package atlas

import (
	"sort"

	"mokren/core/body"
)

// curve is a smooth line through points, walked by shares of its length. Shares, not
// parameters: half way is the middle to a hand, however the points are spaced.
type curve struct {
	points []body.Point
	gone   []float64 // length up to each point, in view units; the last is the whole
}

// curveThrough samples the smooth line once, with its length up to each sample, so that shares
// of it are found by a search.
func curveThrough(points []body.Point) curve {
	c := curve{points: body.Smooth(points)}
	c.gone = make([]float64, len(c.points))
	for i := 1; i < len(c.points); i++ {
		c.gone[i] = c.gone[i-1] + c.points[i-1].Distance(c.points[i])
	}
	return c
}

func (c curve) length() float64 { return c.gone[len(c.gone)-1] }

// at gives the point after a share of the length, 0 to 1.
func (c curve) at(share float64) body.Point {
	last := len(c.points) - 1
	want := share * c.gone[last]
	i := sort.SearchFloat64s(c.gone, want)
	switch {
	case i <= 0:
		return c.points[0]
	case i > last:
		return c.points[last]
	}
	a, b := c.points[i-1], c.points[i]
	k := (want - c.gone[i-1]) / max(c.gone[i]-c.gone[i-1], 1e-12)
	return body.Point{X: a.X + (b.X-a.X)*k, Y: a.Y + (b.Y-a.Y)*k}
}
