package body

import (
	"cmp"
	"math"
	"slices"

	"mokren/core/ids"
	"mokren/core/stable"
)

// Cells of a drawing: a set, in any order.
type CellSet map[Cell]bool

// AreaCM2 adds up the cells for a client's height. A cell is counted in the
// view in which it was painted.
func (s CellSet) AreaCM2(heightCM float64) float64 {
	n := map[View]int{}
	for c := range s {
		n[c.View]++
	}
	sum := 0.0
	for _, v := range Views { // a fixed order: sums of floats depend on it
		sum += float64(n[v]) * v.CM2(heightCM)
	}
	return sum
}

// Dice is the overlap of two drawings by area: 1 when equal (two empty ones
// too), 0 when disjoint.
func (s CellSet) Dice(o CellSet) float64 {
	both := CellSet{}
	for c := range s {
		if o[c] {
			both[c] = true
		}
	}
	total := s.AreaCM2(DefaultHeightCM) + o.AreaCM2(DefaultHeightCM)
	if total == 0 {
		return 1
	}
	return 2 * both.AreaCM2(DefaultHeightCM) / total
}

// Without gives the cells that o has not.
func (s CellSet) Without(o CellSet) CellSet {
	out := CellSet{}
	for c := range s {
		if !o[c] {
			out[c] = true
		}
	}
	return out
}

// Centre is the mean place of a drawing's cells in one view; ok is false when
// it has none there.
func (s CellSet) Centre(v View) (p Point, ok bool) {
	n := 0.0
	for c := range s {
		if c.View == v {
			m := c.Center()
			p.X, p.Y, n = p.X+m.X, p.Y+m.Y, n+1
		}
	}
	if n == 0 {
		return Point{}, false
	}
	return Point{math.Round(p.X/n*10) / 10, math.Round(p.Y/n*10) / 10}, true
}

// RegionCover is a region that a drawing touches, with the share of the region's
// cells, in the view where it is most, that are painted.
type RegionCover struct {
	Region ids.Region `json:"region"`
	Side   ids.Side   `json:"side"`
	Share  float64    `json:"share" doc:"0 to 1"`
}

// Regions names what a drawing covers, the fullest first; a region of which
// less than a twentieth is touched is left out unless nothing else is.
func (s CellSet) Regions() []RegionCover {
	type key struct {
		v View
		r ids.Region
		s ids.Side
	}
	painted := map[key]int{}
	for c := range s {
		if n, ok := RegionOf(c); ok {
			painted[key{c.View, n.Region, n.Side}]++
		}
	}
	best := map[RegionCover]float64{}
	for k, n := range painted {
		id := RegionCover{Region: k.r, Side: k.s}
		best[id] = max(best[id], float64(n)/float64(regionSize(k.v, k.r, k.s)))
	}
	var out []RegionCover
	for id, share := range best {
		out = append(out, RegionCover{id.Region, id.Side, math.Round(share*100) / 100})
	}
	stable.Sort(out, func(a, b RegionCover) int {
		return cmp.Or(cmp.Compare(b.Share, a.Share), cmp.Compare(a.Region, b.Region), cmp.Compare(a.Side, b.Side))
	})
	if i := slices.IndexFunc(out, func(c RegionCover) bool { return c.Share < 0.05 }); i > 0 {
		out = out[:i]
	}
	return out
}

// regionSize is how many cells a region has in a view, by which a painted share is judged.
func regionSize(v View, r ids.Region, s ids.Side) int {
	n := 0
	for _, c := range Cells(v) {
		if c.Region == r && c.Side == s {
			n++
		}
	}
	return n
}
