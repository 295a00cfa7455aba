package visit

import (
	"cmp"
	"slices"

	"mokren/core/stable"
)

type paint struct {
	kind      string
	intensity int
}

// paint lays strokes over what is painted; the last one counts in each cell.
func (r *reducer) paint(p *DrawingPainted) {
	if r.painted == nil {
		r.painted = map[string]paint{}
	}
	for _, s := range p.Strokes {
		for _, c := range s.Cells {
			if s.Intensity == 0 {
				delete(r.painted, c)
			} else {
				r.painted[c] = paint{s.Kind, s.Intensity}
			}
		}
	}
}

// strokes groups what is painted by kind and intensity, in a fixed order.
func strokes(painted map[string]paint) []Stroke {
	groups := map[paint][]string{}
	for c, p := range painted {
		groups[p] = append(groups[p], c)
	}
	out := []Stroke{}
	for p, cells := range groups {
		slices.Sort(cells)
		out = append(out, Stroke{p.kind, p.intensity, cells})
	}
	stable.Sort(out, func(a, b Stroke) int {
		return cmp.Or(cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.Intensity, b.Intensity))
	})
	return out
}
