package picture

import (
	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
)

// Box is what has to be seen of a view: its left and upper edge, its width and
// height, in view units.
type Box struct {
	X      float64 `json:"x"`
	Y      float64 `json:"y"`
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
}

// boxOf holds a muscle on a side, its usual sites and its usual referral.
func boxOf(m *atlas.Muscle, side ids.Side, w LayerRequest, zones []Zone) (Box, bool) {
	low, high, ok := m.Extent(w.View, side)
	if !ok {
		return Box{}, false
	}
	reach := func(x, y float64) {
		low = body.Point{X: min(low.X, x), Y: min(low.Y, y)}
		high = body.Point{X: max(high.X, x), Y: max(high.Y, y)}
	}
	for _, z := range zones {
		if z.Muscle != m.ID || z.Side != side {
			continue
		}
		for _, c := range z.Essential {
			reach(c[0], c[1])
		}
	}
	return Box{low.X, low.Y, high.X - low.X, high.Y - low.Y}, true
}

// join is a box that holds two.
func (b Box) join(o Box) Box {
	x, y := min(b.X, o.X), min(b.Y, o.Y)
	return Box{x, y, max(b.X+b.Width, o.X+o.Width) - x, max(b.Y+b.Height, o.Y+o.Height) - y}
}
