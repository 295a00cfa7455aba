package assess

import (
	"fmt"
	"math"
	"slices"

	"mokren/core/atlas"
	"mokren/core/ids"
)

// referral weighs how much of the painted pain lies in each muscle's usual pattern. Intensity
// counts, so that a light stroke over a large area does not outweigh the main pain.
func (m *model) referral(pain []Pain) {
	total := 0.0
	for _, p := range pain {
		total += p.Intensity
	}
	if total == 0 {
		return
	}
	r := m.w.of("referral")
	for _, h := range m.all {
		best, site := 0.0, ""
		for i := range h.muscle.Sites {
			if v := match(&h.muscle.Sites[i], h.side, pain, total); v > best {
				best, site = v, h.muscle.Sites[i].Name
			}
		}
		// From the weight against at no match to the full weight for at a
		// perfect one, evenly in log-odds.
		lr := math.Exp(math.Log(r.Minus) + best*(math.Log(r.Plus)-math.Log(r.Minus)))
		text := "The usual pattern lies elsewhere"
		if best > 0 {
			text = fmt.Sprintf("Pain matches the usual pattern by %.0f %% (%s)", best*100, site)
		}
		h.add("referral", "referral", lr, text)
	}
}

// match: how much of the drawing the pattern explains, weighted by intensity,
// and how much of the pattern's essential zone is there; spill-over counts
// half. One side's pattern does not explain the other side's pain; midline
// regions belong to both.
func match(s *atlas.Site, side ids.Side, pain []Pain, total float64) float64 {
	explained := 0.0
	present := map[ids.Region]bool{}
	for _, p := range pain {
		if p.Side != side && p.Side != ids.Midline && !atlas.MidlineRegion(p.Region) || p.Intensity == 0 {
			continue
		}
		switch {
		case slices.Contains(s.Essential, p.Region):
			explained += p.Intensity
			present[p.Region] = true
		case slices.Contains(s.Spillover, p.Region):
			explained += p.Intensity / 2
		}
	}
	return 0.6*explained/total + 0.4*float64(len(present))/float64(len(s.Essential))
}
