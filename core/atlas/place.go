package atlas

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"sync"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/stable"
)

// sideViews are the views of one side, by the name that a file gives them.
var sideViews = map[string][2]body.View{
	"side": {body.LeftSide, body.RightSide}, "head": {body.HeadLeft, body.HeadRight},
	"sole": {body.SoleLeft, body.SoleRight},
}

// viewOf is the view that a part's name means on a side.
func viewOf(name string, side ids.Side) body.View {
	if pair, ok := sideViews[name]; ok {
		if side == ids.Right {
			return pair[1]
		}
		return pair[0]
	}
	return body.View(name)
}

// point is where the anchor lies in a view, on a side; an error where the view does not show its
// landmark.
func (a Anchor) point(v body.View, side ids.Side) (body.Point, error) {
	p, err := body.FindLandmark(v, a.Landmark, side)
	if err != nil {
		return p, err
	}
	return body.Offset(v, p, side, a.Out, a.Down), nil
}

// touchMM is how far beside a muscle's edge a touch still means it.
const touchMM = 12

// FibrePlace is a place kept by the muscle itself, so that it survives a
// redrawing of the figure: the part, percent of the way from origin to
// insertion, and mm from the middle fibre (outward from the body's midline
// positive; forward in a side view, down where the fibres run straight across).
type FibrePlace struct {
	Fibre    int     `json:"fibre" minimum:"0" doc:"index of the muscle's part"`
	AlongPct float64 `json:"along_pct" minimum:"0" maximum:"100"`
	AcrossMM float64 `json:"across_mm" minimum:"-150" maximum:"150"`
}

// part of a place; one that is not there is the nearest by number.
func (m *Muscle) part(f FibrePlace) *Part { return &m.Parts[min(max(f.Fibre, 0), len(m.Parts)-1)] }

// OnFigure turns a fibre place into a view and a point.
func (m *Muscle) OnFigure(f FibrePlace, side ids.Side, heightCM float64) (body.View, body.Point) {
	return m.part(f).onFigure(f, side, heightCM)
}

// onFigure is OnFigure of a place in this part, which may be one of an earlier figure.
func (p *Part) onFigure(f FibrePlace, side ids.Side, heightCM float64) (body.View, body.Point) {
	s := p.sheet(side)
	return s.view, s.across(f.AlongPct/100, s.outward*f.AcrossMM/10/s.view.CMPerUnit(heightCM))
}

// FibreDirection is the way of the fibres at a place, origin to insertion, as
// a unit vector in the view.
func (m *Muscle) FibreDirection(f FibrePlace, side ids.Side, heightCM float64) body.Point {
	s := m.part(f).sheet(side)
	_, p := m.OnFigure(f, side, heightCM)
	t, u, _ := s.near(p)
	return s.direction(t, u)
}

// OnFibre finds the place in the muscle's nearest part for a touched point;
// offMM is how far outside its edge the point lies. ok is false when no part is
// seen in this view on this side, or none within farMM of the point.
func (m *Muscle) OnFibre(v body.View, p body.Point, side ids.Side, heightCM float64) (f FibrePlace, offMM float64,
	ok bool,
) {
	const farMM = 60
	mm := v.CMPerUnit(heightCM) * 10
	offMM = math.Inf(1)
	for i := range m.Parts {
		s := m.Parts[i].sheet(side)
		if s.view != v || !s.reaches(p, farMM/mm) {
			continue
		}
		t, u, off := s.near(p)
		if off*mm < offMM {
			offMM, ok = off*mm, true
			f = FibrePlace{i, t * 100, s.outward * s.acrossTo(t, u) * mm}
		}
	}
	return f, offMM, ok
}

// PressedThrough names the regions through which a place is pressed: that of the skin
// where the hand goes in, and the structures that its line of pressure comes too near.
// at is where it lies, in a view; a place off the figure has none.
func (m *Muscle) PressedThrough(f FibrePlace, side ids.Side, v body.View, at body.Point) []safety.Place {
	return through(v, at, side, m.part(f).Behind)
}

// through is PressedThrough of a place: what is pressed there does not matter, unless the
// hanging arm hides it, and then behind is the region.
func through(v body.View, at body.Point, side ids.Side, behind ids.Region) []safety.Place {
	n, on := body.RegionOf(body.CellAt(v, at))
	if !on {
		return []safety.Place{}
	}
	if behind != "" {
		n.Region = behind
	}
	out := []safety.Place{{Region: n.Region, Side: n.Side}}
	l, ok := pressed(v, at, side, behind != "")
	if !ok {
		return out
	}
	for _, c := range safety.Within(l, body.DefaultHeightCM) {
		out = append(out, safety.Place{Region: n.Region, Side: n.Side, Structure: c.Structure.ID, Tier: c.Tier})
	}
	return out
}

// PressedAt is PressedThrough of a usual site, the first one where none is named; of a
// site that it does not have, nothing.
func (m *Muscle) PressedAt(site string, side ids.Side) []safety.Place {
	s, ok := m.Site(site)
	if !ok {
		return nil
	}
	place := s.Place(body.DefaultHeightCM)
	v, at := m.OnFigure(place, side, body.DefaultHeightCM)
	return m.PressedThrough(place, side, v, at)
}

// One point over visits: within so many mm along the fibres and across them
// (working values). Up to twice as far it may be; that is for the hand to say.
const (
	sameAlongMM  = 15
	sameAcrossMM = 10
	perhapsTimes = 2
)

// SameSpot tells whether two places of one muscle and side are one point over
// visits: within 15 mm along and 10 mm across.
func (m *Muscle) SameSpot(a, b FibrePlace, side ids.Side, heightCM float64) bool {
	return m.within(1, a, b, side, heightCM)
}

// PerhapsSameSpot tells whether two places lie just beyond that, up to twice as
// far.
func (m *Muscle) PerhapsSameSpot(a, b FibrePlace, side ids.Side, heightCM float64) bool {
	return !m.within(1, a, b, side, heightCM) && m.within(perhapsTimes, a, b, side, heightCM)
}

// within reports whether two places of one part lie within so many times the tolerance of a
// point. mm along the fibres follow from the length of this client's muscle.
func (m *Muscle) within(times float64, a, b FibrePlace, side ids.Side, heightCM float64) bool {
	if a.Fibre != b.Fibre || a.Fibre < 0 || a.Fibre >= len(m.Parts) {
		return false
	}
	s := m.part(a).sheet(side)
	lengthMM := s.length() * s.view.CMPerUnit(heightCM) * 10
	along, across := math.Abs(a.AlongPct-b.AlongPct)/100*lengthMM, math.Abs(a.AcrossMM-b.AcrossMM)
	return along <= sameAlongMM*times && across <= sameAcrossMM*times
}

// nearMM: two places in neighbouring parts are one site within this.
const nearMM = 15

// SameSite tells whether two places are one site: one point over visits, or in
// neighbouring parts closer than a point is long.
func (m *Muscle) SameSite(a, b FibrePlace, side ids.Side, heightCM float64) bool {
	if m.SameSpot(a, b, side, heightCM) {
		return true
	}
	va, pa := m.OnFigure(a, side, heightCM)
	vb, pb := m.OnFigure(b, side, heightCM)
	return va == vb && pa.Distance(pb)*va.CMPerUnit(heightCM)*10 <= nearMM
}

// Carries tells whether a touched place lies on the muscle where its place on
// the fibres says, as Under finds it; why says what is wrong.
func (m *Muscle) Carries(v body.View, p body.Point, f FibrePlace, side ids.Side, heightCM float64) (why string) {
	if f.Fibre < 0 || f.Fibre >= len(m.Parts) {
		return fmt.Sprintf("part 0 to %d", len(m.Parts)-1)
	}
	if s := v.SideAt(p); s != side && s != ids.Midline {
		return "a place on the " + string(side) + " side"
	}
	if _, off, ok := m.OnFibre(v, p, side, heightCM); !ok || off > touchMM {
		return "a place on " + m.Name
	}
	fv, fp := m.OnFigure(f, side, heightCM)
	if fv != v || fp.Distance(p)*v.CMPerUnit(heightCM)*10 > touchMM {
		return "the place on the fibres and the place on the body at one spot"
	}
	return ""
}

// Candidate is a muscle that may be meant by a touched place.
type Candidate struct {
	Muscle ids.Muscle `json:"muscle"`
	Name   string     `json:"name"`
	Side   ids.Side   `json:"side"`
	Site   string     `json:"site,omitempty" doc:"usual site within 25 mm, if any"`
	OffMM  float64    `json:"off_mm" doc:"mm outside the muscle's edge; 0 within it"`
	Layer  int        `json:"layer"`
	Place  FibrePlace `json:"place"`
	// Consent is for which sensitive areas the client is asked before hands are there.
	Consent []safety.Area `json:"consent,omitempty" enum:"groin,buttock,chest,abdomen,axilla,coccyx"`
	// siteMM is how far the usual site is.
	siteMM float64
}

// siteMM is how far from a usual site a touch still means it.
const siteMM = 25

// Under lists the muscles under a touched place, the likeliest first: one with a usual
// site right there, else the nearest to the surface.
func Under(v body.View, p body.Point, heightCM float64) []Candidate {
	side := v.SideAt(p)
	if side == ids.Midline {
		side = ids.Left
	}
	var out []Candidate
	places := map[ids.Region][]safety.Place{}
	for _, m := range All() {
		f, off, ok := m.OnFibre(v, p, side, heightCM)
		if !ok || off > touchMM || !m.IsPressed() {
			continue
		}
		behind := m.part(f).Behind
		if places[behind] == nil {
			places[behind] = through(v, p, side, behind)
		}
		c := Candidate{
			Muscle: m.ID, Name: m.Name, Side: side, OffMM: off, Layer: m.Layer, Place: f, siteMM: siteMM,
			Consent: safety.SensitiveAreas(m.ID, places[behind]),
		}
		for _, s := range m.Sites {
			sv, sp := m.OnFigure(s.Place(heightCM), side, heightCM)
			if d := sp.Distance(p) * v.CMPerUnit(heightCM) * 10; sv == v && d < c.siteMM {
				c.siteMM, c.Site = d, s.ID
			}
		}
		out = append(out, c)
	}
	sortCandidates(out)
	return out
}

// meantMM is how near a usual site a touch means it, whatever lies above: about the
// radius of a thumb.
const meantMM = 12

// sortCandidates puts first what has a usual site right there, then what lies beneath
// the finger, the nearest to the surface first, then what lies just beside it. Among
// equals the nearer site, then the nearer edge.
func sortCandidates(c []Candidate) {
	rank := func(x Candidate) int {
		switch {
		case x.siteMM <= meantMM:
			return 0
		case x.OffMM <= edgeMM:
			return 1
		}
		return 2
	}
	stable.Sort(c, func(a, b Candidate) int {
		if r := cmp.Compare(rank(a), rank(b)); r != 0 || rank(a) == 0 {
			return cmp.Or(r, cmp.Compare(a.siteMM, b.siteMM))
		}
		return cmp.Or(cmp.Compare(a.Layer, b.Layer), cmp.Compare(a.siteMM, b.siteMM), cmp.Compare(a.OffMM, b.OffMM))
	})
}

// Places gives the regions through which a muscle's sites are pressed, on a
// side.
func (m *Muscle) Places(side ids.Side) []safety.Place {
	if side == ids.Right {
		return places()[m.ID][1]
	}
	return places()[m.ID][0]
}

// places of every muscle, left and right, at a height of 170 cm: regions do not depend on it.
var places = sync.OnceValue(func() map[ids.Muscle][2][]safety.Place {
	out := map[ids.Muscle][2][]safety.Place{}
	for _, m := range All() {
		var pair [2][]safety.Place
		for i, side := range [2]ids.Side{ids.Left, ids.Right} {
			for _, s := range m.Sites {
				place := s.Place(body.DefaultHeightCM)
				v, p := m.OnFigure(place, side, body.DefaultHeightCM)
				for _, w := range m.PressedThrough(place, side, v, p) {
					pair[i] = ids.With(pair[i], w)
				}
			}
		}
		out[m.ID] = pair
	}
	return out
})

// At reports whether one of the muscle's sites lies in a region.
func (m *Muscle) At(r ids.Region) bool {
	return slices.ContainsFunc(m.Places(ids.Left), func(p safety.Place) bool { return p.Region == r })
}

// MidlineRegion reports whether a region lies on the midline and belongs to
// both sides.
func MidlineRegion(r ids.Region) bool { return midline()[r] }

// midline regions, as the lattices of all views have them.
var midline = sync.OnceValue(func() map[ids.Region]bool {
	out := map[ids.Region]bool{}
	for _, v := range body.Views {
		for _, c := range body.Cells(v) {
			if c.Side == ids.Midline {
				out[c.Region] = true
			}
		}
	}
	return out
})
