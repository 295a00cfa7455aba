package body

import (
	"math"
	"slices"
	"sync"

	"mokren/core/ids"
)

// seed is the spine of a region: a cell takes the region whose seed is
// nearest, among the seeds of its part of the figure. Points are on the
// authored half (x outward); middle regions lie on the midline and belong to
// both sides.
type seed struct {
	region ids.Region
	part   Part
	middle bool
	// line is one point or several; a cell's distance is to the nearest piece of it.
	line []Point
}

// partAt says which part of the figure a half-figure point belongs to, so
// that a hand never takes its name from the hip beside it.
func partAt(v View, p Point) Part {
	switch {
	case v.sole():
		return Foot
	case v.profile(), v.head():
		return profilePart(v, p)
	}
	switch {
	case p.Y < 94 || (p.Y < 133 && v == Front):
		return Head
	case p.Y >= 956:
		return Foot
	case p.Y > 258 && p.X > armLine(p.Y):
		if p.Y >= 524 {
			return Hand
		}
		return Arm
	case p.Y > 186 && p.Y <= 258 && p.X > 104+(p.Y-186)*-0.05:
		return Arm
	case p.Y > 515+8*math.Min(1, p.X/40):
		return Leg
	}
	return Trunk
}

// armLine runs in the gap between arm and trunk.
func armLine(y float64) float64 { return 99 + (y-258)*0.16 }

// regionAt names a point on the figure.
func regionAt(v View, p Point) (ids.Region, ids.Side) {
	half := v.authored(p)
	part := partAt(v, half)
	best, dist := seed{}, math.Inf(1)
	for _, s := range seeds()[v] {
		if s.part != part {
			continue
		}
		for i := range s.line {
			j := min(i+1, len(s.line)-1)
			if d := ToSegment(half, s.line[i], s.line[j]); d < dist {
				best, dist = s, d
			}
		}
	}
	if best.middle {
		return best.region, ids.Midline
	}
	return best.region, v.side(p.X >= v.middle())
}

// seeds of every view, by what they are drawn on.
var seeds = sync.OnceValue(func() map[View][]seed {
	d := regionFile()
	head := seedsFrom(slices.Concat(d.HeadAndNeck, d.Head))
	sides := append(seedsFrom(slices.Concat(d.HeadAndNeck, d.Sides)), handSeeds(d.Hand, sideHand)...)
	soles := seedsFrom(d.Soles)
	return map[View][]seed{
		Front: seedsFrom(d.Front), Back: seedsFrom(d.Back),
		LeftSide: sides, RightSide: sides,
		HeadLeft: head, HeadRight: head,
		SoleLeft: soles, SoleRight: soles,
	}
})

// seedsFrom reads the seeds of one drawing.
func seedsFrom(list []seedData) []seed {
	out := make([]seed, len(list))
	for i, d := range list {
		out[i] = seed{d.Region, d.Part, d.Middle, d.Line.points()}
	}
	return out
}

// handSeeds lays the back of the hand's seeds on a pose.
func handSeeds(list []seedData, h pose) []seed {
	out := seedsFrom(list)
	for i := range out {
		out[i].line = h.all(out[i].line)
	}
	return out
}
