package atlas

import (
	"math"

	"mokren/core/body"
	"mokren/core/ids"
)

// Area is a part of a muscle as it is drawn: SVG paths in view units, in the
// order of drawing. Sinew is the whole sheet, of which the belly covers all but
// the tendons; either may be empty.
type Area struct {
	// Sinew is drawn first; the belly covers all of it but the tendons.
	Sinew string
	Belly string
	// Bands are tendinous lines across the belly, as of rectus abdominis.
	Bands  []string
	Fibres []string
}

// Areas gives what a view shows of the muscle, on a side.
func (m *Muscle) Areas(v body.View, side ids.Side) []Area {
	var out []Area
	for i := range m.Parts {
		if s := m.Parts[i].sheet(side); s.view == v {
			out = append(out, s.area(m.Parts[i], m.Kind == "contact"))
		}
	}
	return out
}

// Fibres lie about this far apart in the drawing, in cm of a body of 170 cm, and a part has
// four at least and 21 at most: more would be a grey area.
const (
	fibreCM    = 0.55
	mostFibres = 21
)

// half a tendinous band, as a share of the length.
const halfBand = 0.012

// area draws the sheet; a ligament or fascia (sinew) is tendon all through. The belly lies on the
// sinew, so that tendons show where it ends.
func (s *sheet) area(p Part, sinew bool) Area {
	from, to := p.Tendon[0]/100, 1-p.Tendon[1]/100
	a := Area{Bands: []string{}, Fibres: []string{}}
	if sinew || from > 0 || to < 1 {
		a.Sinew = body.Polygon(s.border(flat(0), flat(1)))
	}
	if !sinew {
		a.Belly = body.Polygon(s.border(bulging(from, -from), bulging(to, 1-to)))
	}
	for _, pct := range p.Bands {
		a.Bands = append(a.Bands, body.Polygon(s.border(flat(pct/100-halfBand), flat(pct/100+halfBand))))
	}
	widest := max(s.width(from), s.width((from+to)/2), s.width(to))
	n := min(max(int(math.Round(widest*s.view.CMPerUnit(body.DefaultHeightCM)/fibreCM)), 4), mostFibres)
	for i := 1; i < n; i++ {
		// A little short of the ends, and not all alike, as fibres are.
		short := (0.02 + 0.05*float64((i*7)%5)/4) * (to - from)
		u := float64(i) / float64(n)
		line := s.fibre(u, bulging(from, -from)(u)+short, bulging(to, 1-to)(u)-short)
		a.Fibres = append(a.Fibres, body.Path(line))
	}
	return a
}

// flat and bulging say where along the length a border runs, for a share of the
// width: straight across, or, as the end of a belly does, further into its
// tendon in the middle than at the edges. room is the tendon's share, with the
// sign of the way to it.
func flat(t float64) func(u float64) float64 { return func(float64) float64 { return t } }

// bulging bends the end of a belly into its tendon, deepest in the middle of the width and not
// at all at its edges.
func bulging(t, room float64) func(u float64) float64 {
	e := math.Copysign(min(0.05, math.Abs(room)*0.6), room)
	return func(u float64) float64 { return t + e*(1-2*(2*u-1)*(2*u-1)) }
}

// Extent is the box of what a view shows of the muscle, on a side: its corners
// with the lowest and the highest x and y. ok is false where it shows nothing.
func (m *Muscle) Extent(v body.View, side ids.Side) (low, high body.Point, ok bool) {
	for i := range m.Parts {
		s := m.Parts[i].sheet(side)
		switch {
		case s.view != v:
		case !ok:
			low, high, ok = s.even().low, s.even().high, true
		default:
			e := s.even()
			low = body.Point{X: min(low.X, e.low.X), Y: min(low.Y, e.low.Y)}
			high = body.Point{X: max(high.X, e.high.X), Y: max(high.Y, e.high.Y)}
		}
	}
	return low, high, ok
}
