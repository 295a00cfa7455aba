package picture

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/solid"
	"mokren/core/stable"
)

// zoom is how many units of the drawing a thousandth of the height is.
const zoom = 4.0

// Section draws a level slice of the body as SVG, seen from below with the front on
// top, so that the client's left is on the right as in the front view: skin, bones and
// the structures to keep off, those of the left side named. y is the level in
// thousandths of the height below the crown.
func Section(y float64) string {
	rings, cuts, cross := solid.Slice(y), solid.BonesAt(y), safety.CrossingsAt(y)
	low, high := solid.Point{X: math.Inf(1), Z: math.Inf(1)}, solid.Point{X: math.Inf(-1), Z: math.Inf(-1)}
	for _, r := range rings {
		for _, p := range r.Line {
			low = solid.Point{X: min(low.X, p.X), Z: min(low.Z, p.Z)}
			high = solid.Point{X: max(high.X, p.X), Z: max(high.Z, p.Z)}
		}
	}
	named := slices.DeleteFunc(slices.Clone(cross), func(c safety.Crossing) bool { return c.Side == ids.Right })
	stable.Sort(named, func(a, b safety.Crossing) int { return cmpZ(b.At, a.At) })
	height := max((high.Z-low.Z)*zoom, float64(len(named))*lineHeight)
	s := slide{left: low.X*zoom - margin, top: -high.Z*zoom - margin, right: high.X * zoom}
	fmt.Fprintf(&s.b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="%s %s %s %s" role="img" `+
		`aria-label="Section at %.1f %% of the height below the crown">`, num(s.left), num(s.top),
		num((high.X-low.X)*zoom+2*margin+labels), num(height+2*margin), y/10)
	s.skin(rings)
	s.bones(cuts)
	s.structures(cross)
	s.names(named)
	s.b.WriteString(`</svg>`)
	return s.b.String()
}

// cmpZ orders by depth from behind forward.
func cmpZ(a, b solid.Point) int {
	if a.Z < b.Z {
		return -1
	}
	if a.Z > b.Z {
		return 1
	}
	return 0
}

const (
	margin     = 24.0
	labels     = 330.0
	lineHeight = 19.0
)

// slide is a section while it is drawn.
type slide struct {
	b                strings.Builder
	left, top, right float64
}

// skin draws the outlines of all parts at this level; forward is up in the picture.
func (s *slide) skin(rings []solid.Ring) {
	s.b.WriteString(`<g id="skin" fill="#f3e4d6" stroke="#8a6f5b" stroke-width="1.6">`)
	for _, r := range rings {
		var pts []string
		for _, p := range r.Line {
			pts = append(pts, num(p.X*zoom)+","+num(-p.Z*zoom))
		}
		fmt.Fprintf(&s.b, `<polygon points="%s"><title>%s</title></polygon>`, strings.Join(pts, " "), r.Name)
	}
	s.b.WriteString(`</g>`)
}

// bones draws each bone as the circle that its axis and radius give.
func (s *slide) bones(cuts []solid.Cut) {
	s.b.WriteString(`<g id="bones" fill="#fdfaf5" stroke="#8d8377" stroke-width="1.2">`)
	for _, c := range cuts {
		fmt.Fprintf(&s.b, `<circle cx="%s" cy="%s" r="%s"><title>%s</title></circle>`, num(c.At.X*zoom), num(-c.At.Z*zoom),
			num(c.Radius*zoom), strings.ReplaceAll(c.Bone, "-", " "))
	}
	s.b.WriteString(`</g>`)
}

// structures: the keep-off as a disc, the structure itself as a ring; what is only
// named has a broken one.
func (s *slide) structures(cross []safety.Crossing) {
	s.b.WriteString(`<g id="structures" fill="#356a86" stroke="#356a86">`)
	for _, c := range cross {
		dash := ""
		if c.Tier != safety.Danger {
			dash = ` stroke-dasharray="3 3"`
		}
		x, z := num(c.At.X*zoom), num(-c.At.Z*zoom)
		fmt.Fprintf(&s.b, `<circle cx="%s" cy="%s" r="%s" opacity="0.13" stroke="none"/>`+
			`<circle cx="%s" cy="%s" r="%s" fill="#fdfaf5" stroke-width="1.8"%s><title>%s</title></circle>`,
			x, z, num(c.KeepOffMM/solid.MMPerUnit*zoom), x, z, num(max(c.RadiusMM/solid.MMPerUnit*zoom, 3)), dash,
			c.Structure.Name)
	}
	s.b.WriteString(`</g>`)
}

// names are written beside the figure, from front to back, with a line to each.
func (s *slide) names(list []safety.Crossing) {
	s.b.WriteString(`<g id="names" font-family="sans-serif" font-size="14" fill="#2c2a27">`)
	for i, c := range list {
		x, y := s.right+margin+20, s.top+margin+float64(i)*lineHeight+10
		fmt.Fprintf(&s.b, `<polyline points="%s,%s %s,%s" fill="none" stroke="#8d8377" stroke-width="0.7"/>`+
			`<text x="%s" y="%s">%s, %s</text>`, num(c.At.X*zoom), num(-c.At.Z*zoom), num(x-4), num(y-4), num(x), num(y),
			c.Structure.Name, c.Tier)
	}
	s.b.WriteString(`</g>`)
}
