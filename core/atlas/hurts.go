package atlas

import (
	"cmp"
	"math"
	"sync"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/stable"
)

// Match is a muscle whose usual referral covers a touched place. It is a
// guide: patterns differ from person to person.
type Match struct {
	Muscle ids.Muscle `json:"muscle"`
	Name   string     `json:"name"`
	Side   ids.Side   `json:"side"`
	Site   string     `json:"site"`
	// Score, 0 to 1: how near the pattern is, how essential the place is to
	// it, and how much of the pattern this place is.
	Score      float64 `json:"score"`
	Essential  bool    `json:"essential" doc:"the place lies in the zone that is usually there, not in the spill-over"`
	DistanceMM float64 `json:"distance_mm" doc:"from the place to the pattern; 0 inside"`
}

// pattern is one site's referral in numbers, for both sides at once.
type pattern struct {
	muscle    *Muscle
	site      *Site
	essential []int // region indices
	spillover []int
}

// regionIndex numbers the regions, so that patterns are compared by slices and not by maps: a
// touch is matched against every site of the atlas within a frame.
var regionIndex = sync.OnceValue(func() map[ids.Region]int {
	out := map[ids.Region]int{}
	for i, r := range ids.Regions() {
		out[r] = i
	}
	return out
})

// patterns are all sites that have one, contacts have none.
var patterns = sync.OnceValue(func() []pattern {
	index := regionIndex()
	var out []pattern
	for _, m := range All() {
		for i := range m.Sites {
			p := pattern{muscle: m, site: &m.Sites[i]}
			for _, r := range m.Sites[i].Essential {
				p.essential = append(p.essential, index[r])
			}
			for _, r := range m.Sites[i].Spillover {
				p.spillover = append(p.spillover, index[r])
			}
			if len(p.essential) > 0 {
				out = append(out, p)
			}
		}
	}
	return out
})

const (
	reachMM        = 30.0 // a pattern this far from the touched place still counts, a little
	spilloverShare = 0.5  // spill-over zones count half
)

// Hurts matches a touched place against every usual referral pattern of both sides, the nearest
// match first; one entry a muscle and side, by its best site. Empty off the figure.
//
// A score is the best nearness to a region of the pattern, halved for spillover, divided by the
// square root of the pattern's size: a small pattern that is hit says more than a large one.
func Hurts(v body.View, p body.Point, heightCM float64) []Match {
	nearness, distance := around(v, p, heightCM)
	if nearness == nil {
		return nil
	}
	type key struct {
		m    ids.Muscle
		side int
	}
	best := map[key]Match{}
	sides := [2]ids.Side{ids.Left, ids.Right}
	for _, pt := range patterns() {
		for s, side := range sides {
			ess, essRegion := strongest(nearness[s], pt.essential)
			spill, spillRegion := strongest(nearness[s], pt.spillover)
			spill *= spilloverShare
			score, region := ess, essRegion
			if spill > ess {
				score, region = spill, spillRegion
			}
			if score == 0 {
				continue
			}
			score /= math.Sqrt(float64(len(pt.essential)) + spilloverShare*float64(len(pt.spillover)))
			k := key{pt.muscle.ID, s}
			if old, ok := best[k]; !ok || score > old.Score {
				best[k] = Match{
					pt.muscle.ID, pt.muscle.Name, side, pt.site.ID, score, ess >= spill,
					distance[s][region],
				}
			}
		}
	}
	out := make([]Match, 0, len(best))
	for _, m := range best {
		m.Score = math.Round(m.Score*1000) / 1000
		out = append(out, m)
	}
	stable.Sort(out, func(a, b Match) int {
		return cmp.Or(cmp.Compare(b.Score, a.Score), cmp.Compare(a.Muscle, b.Muscle), cmp.Compare(a.Side, b.Side))
	})
	return out
}

// strongest is the nearest of some regions, 0 where none is within reach.
func strongest(near []float64, regions []int) (best float64, region int) {
	for _, r := range regions {
		if near[r] > best {
			best, region = near[r], r
		}
	}
	return best, region
}

// around gives, for the left and the right side, how near each region comes
// to a place: 1 in it, falling to 0 at reachMM, with the distance in mm.
func around(v body.View, p body.Point, heightCM float64) (nearness, distance *[2][]float64) {
	index := regionIndex()
	centre := body.CellAt(v, p)
	if _, ok := body.RegionOf(centre); !ok {
		return nil, nil
	}
	nearness, distance = &[2][]float64{}, &[2][]float64{}
	for s := range 2 {
		nearness[s], distance[s] = make([]float64, len(index)), make([]float64, len(index))
	}
	mm := v.CMPerUnit(heightCM) * 10
	rings := int(math.Ceil(reachMM / (v.CellSize() * mm)))
	for dq := -rings; dq <= rings; dq++ {
		for dr := max(-rings, -dq-rings); dr <= min(rings, -dq+rings); dr++ {
			n, ok := body.RegionOf(body.Cell{View: v, Q: centre.Q + dq, R: centre.R + dr})
			if !ok {
				continue
			}
			// From cell edge to cell edge, so that the touched cell is 0 away.
			d := math.Max(0, n.Cell.Center().Distance(centre.Center())-v.CellSize()/2) * mm
			if dq == 0 && dr == 0 {
				d = 0
			}
			w := 1 - d/reachMM
			for s, side := range [2]ids.Side{ids.Left, ids.Right} {
				if i := index[n.Region]; (n.Side == side || n.Side == ids.Midline) && w > nearness[s][i] {
					nearness[s][i], distance[s][i] = w, math.Round(d)
				}
			}
		}
	}
	return nearness, distance
}
