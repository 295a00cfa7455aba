package points

import (
	"math"
	"slices"
	"sync"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
)

// A spot is a region on a side, left, right or midline: no two share a cell of
// the lattice. It is numbered, so that areas are looked up and not searched.
const sidesOfRegion = 3

var regionNumber = sync.OnceValue(func() map[ids.Region]int {
	out := map[ids.Region]int{}
	for i, r := range ids.Regions() {
		out[r] = i * sidesOfRegion
	}
	return out
})

// sideNumber is a side as an index: left, right, and the midline, which belongs to both.
func sideNumber(s ids.Side) int {
	switch s {
	case ids.Left:
		return 0
	case ids.Right:
		return 1
	}
	return 2
}

// areas of every spot in each view, cm² at the default height.
var areas = sync.OnceValue(func() map[body.View][]float64 {
	out := map[body.View][]float64{}
	for _, v := range body.Views {
		list := make([]float64, len(ids.Regions())*sidesOfRegion)
		for _, c := range body.Cells(v) {
			list[regionNumber()[c.Region]+sideNumber(c.Side)] += v.CM2(body.DefaultHeightCM)
		}
		out[v] = list
	}
	return out
})

// wholeArea of every spot over all views.
var wholeArea = sync.OnceValue(func() []float64 { return sumOf(body.Views) })

// sumOf adds up how large each region is over some views.
func sumOf(views []body.View) []float64 {
	out := make([]float64, len(ids.Regions())*sidesOfRegion)
	for _, v := range views {
		for i, a := range areas()[v] {
			out[i] += a
		}
	}
	return out
}

// match is the Dice overlap of the client's answer with the usual pattern on
// the lattice, 0 to 1: with the essential zone or with spill-over, whichever is
// nearer. A painted answer is held against the views in which it was painted.
func (p *Point) match() (dice float64, ok bool) {
	area, answer, painted := wholeArea(), spots(p.Referral), []float64(nil)
	if len(p.Painted) > 0 {
		area, answer, painted = p.paintedArea()
	}
	if len(answer) == 0 {
		return 0, false
	}
	if painted == nil {
		painted = area
	}
	for _, spill := range [2]bool{false, true} {
		dice = max(dice, overlap(answer, painted, p.usualSpots(spill), area))
	}
	return math.Round(dice*1000) / 1000, true
}

// patterns keeps what was worked out; the atlas never changes.
var patterns sync.Map

// usualSpots are the regions of a site's pattern as indices, worked out once for each muscle,
// side and site.
func (p *Point) usualSpots(spill bool) []int {
	type key struct {
		muscle ids.Muscle
		side   ids.Side
		site   string
		spill  bool
	}
	k := key{p.Muscle, p.Side, p.Site, spill}
	if known, ok := patterns.Load(k); ok {
		return known.([]int)
	}
	out := spots(p.usual(spill))
	patterns.Store(k, out)
	return out
}

// overlap (Dice) of what is painted at some spots with other spots as a whole.
func overlap(answer []int, painted []float64, usual []int, area []float64) float64 {
	both, total := 0.0, 0.0
	for _, s := range answer {
		total += painted[s]
		if slices.Contains(usual, s) {
			both += painted[s]
		}
	}
	for _, s := range usual {
		total += area[s]
	}
	if total == 0 {
		return 0
	}
	return 2 * both / total
}

// paintedArea is the painted area by spot, the spots, and the area that every
// spot has in the views in which it was painted.
func (p *Point) paintedArea() (area []float64, answer []int, painted []float64) {
	painted = make([]float64, len(ids.Regions())*sidesOfRegion)
	var views []body.View
	for _, id := range p.Painted {
		c, err := body.ParseCell(id)
		if err != nil {
			continue
		}
		if n, ok := body.RegionOf(c); ok {
			s := regionNumber()[n.Region] + sideNumber(n.Side)
			painted[s] += c.View.CM2(body.DefaultHeightCM)
			answer, views = ids.With(answer, s), ids.With(views, c.View)
		}
	}
	return sumOf(views), answer, painted
}

// spots of some places: a midline place accepts any side, and what lies on the
// midline belongs to both.
func spots(places []safety.Place) []int {
	var out []int
	for _, p := range places {
		first, ok := regionNumber()[p.Region]
		if !ok {
			continue
		}
		for s := range sidesOfRegion {
			if p.Side == ids.Midline || s == 2 || s == sideNumber(p.Side) {
				out = ids.With(out, first+s)
			}
		}
	}
	return out
}
