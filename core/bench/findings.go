package bench

import (
	"slices"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/progress"
)

// Findings are what a drawing and a look at the ranges show of a case: the truth, with the
// scatter of a hand that paints, the error of an instrument and one thing that means nothing.
func (c ClientCase) Findings(seed int64) assess.Findings {
	d := newDice(seed, forFindings)
	var f assess.Findings
	for _, p := range c.Pain {
		p.Intensity = float64(max(1, min(10, int(p.Intensity)+d.about(1))))
		f.Pain = append(f.Pain, p)
	}
	if stray, ok := c.stray(d); ok {
		f.Pain = append(f.Pain, stray)
	}
	for _, r := range c.Truth.Ranges {
		if deg, ok := c.Reading(r.Movement, r.Side, d); ok {
			f.ROM = append(f.ROM, assess.ROM{Movement: r.Movement, Side: r.Side, Active: &deg})
		}
	}
	return f
}

// errorDeg is the half-width of an instrument's error in a hand.
const errorDeg = 3

// Reading is what an instrument shows of a movement: its usual range, less what is lost; false where
// no range is known.
func (c ClientCase) Reading(m ids.Movement, side ids.Side, d dice) (float64, bool) {
	usual, known := progress.Reference(m, 0)
	if !known {
		return 0, false
	}
	for _, r := range c.Truth.Ranges {
		if r.Movement == m && r.Side == side {
			usual -= r.LostDeg
		}
	}
	return max(0, float64(int(usual)+d.about(errorDeg))), true
}

// stray is a place that hurts a little for no reason of the case.
func (c ClientCase) stray(d dice) (assess.Pain, bool) {
	all := ids.Regions()
	r := all[d.below(len(all))]
	side := []ids.Side{ids.Left, ids.Right}[d.below(2)]
	if atlas.MidlineRegion(r) {
		side = ids.Midline
	}
	there := slices.ContainsFunc(c.Pain, func(p assess.Pain) bool { return p.Region == r })
	return assess.Pain{Region: r, Side: side, Intensity: 1}, !there
}

// ranks are where the points that help stand in the engine's list, from 1; the best of them, 0
// where none is told.
func (c ClientCase) ranks(f assess.Findings) int {
	for i, s := range assess.Rank(f, assess.Weights{}).Suspects {
		for _, p := range c.Truth.Points {
			if p.primary() && p.Muscle == s.Muscle && p.Side == s.Side {
				return i + 1
			}
		}
	}
	return 0
}
