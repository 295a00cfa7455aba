package atlas

import (
	"fmt"
	"math"
	"slices"
	"sync"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
)

var sideViews = map[string][2]body.View{
	"side": {body.LeftSide, body.RightSide}, "head": {body.HeadLeft, body.HeadRight},
	"sole": {body.SoleLeft, body.SoleRight},
}

func viewOf(name string, side ids.Side) body.View {
	if pair, ok := sideViews[name]; ok {
		if side == ids.Right {
			return pair[1]
		}
		return pair[0]
	}
	return body.View(name)
}

func (a Anchor) point(v body.View, side ids.Side) (body.Point, error) {
	p, err := body.FindLandmark(v, a.Landmark, side)
	if err != nil {
		return p, err
	}
	return body.Offset(v, p, side, a.Out, a.Down), nil
}

// Line is a fibre laid on a view.
type Line struct {
	View   body.View
	Points []body.Point
}

// Line lays a fibre on the figure, on a side.
func (f Fibre) Line(side ids.Side) Line {
	l := Line{View: viewOf(f.View, side)}
	for _, a := range f.Path {
		p, err := a.point(l.View, side)
		if err != nil {
			panic(err) // checked when the file was read
		}
		l.Points = append(l.Points, p)
	}
	return l
}

// length in view units.
func (l Line) length() float64 {
	sum := 0.0
	for i := 1; i < len(l.Points); i++ {
		sum += l.Points[i-1].Distance(l.Points[i])
	}
	return sum
}

// at walks along the line; dir is the unit direction there.
func (l Line) at(pct float64) (p, dir body.Point) {
	want := l.length() * pct / 100
	for i := 1; i < len(l.Points); i++ {
		a, b := l.Points[i-1], l.Points[i]
		d := a.Distance(b)
		dir = body.Point{X: (b.X - a.X) / d, Y: (b.Y - a.Y) / d}
		if want <= d || i == len(l.Points)-1 {
			return body.Point{X: a.X + dir.X*want, Y: a.Y + dir.Y*want}, dir
		}
		want -= d
	}
	return l.Points[0], dir
}

// touchMM is how far beside a muscle's edge a touch still means it.
const touchMM = 12

// FibrePlace is a place kept by the muscle itself, so that it survives a
// redrawing of the figure: percent along a fibre, and mm across it (outward
// from the body's midline positive).
type FibrePlace struct {
	Fibre    int     `json:"fibre" minimum:"0"`
	AlongPct float64 `json:"along_pct" minimum:"0" maximum:"100"`
	AcrossMM float64 `json:"across_mm" minimum:"-150" maximum:"150"`
}

// across is the unit normal of a direction that points outward (or down, for
// a fibre that runs straight across).
func across(v body.View, dir body.Point, side ids.Side) body.Point {
	n := body.Point{X: -dir.Y, Y: dir.X}
	if n.X*v.Outward(side) < 0 || (n.X == 0 && n.Y < 0) {
		n = body.Point{X: -n.X, Y: -n.Y}
	}
	return n
}

// OnFigure turns a fibre place into a view and a point.
func (m *Muscle) OnFigure(f FibrePlace, side ids.Side, heightCM float64) (body.View, body.Point) {
	f.Fibre = min(max(f.Fibre, 0), len(m.Fibres)-1)
	l := m.Fibres[f.Fibre].Line(side)
	p, dir := l.at(f.AlongPct)
	n := across(l.View, dir, side)
	u := f.AcrossMM / 10 / l.View.CMPerUnit(heightCM)
	return l.View, body.Point{X: p.X + n.X*u, Y: p.Y + n.Y*u}
}

// OnFibre finds the place on the muscle's nearest fibre for a touched point;
// ok is false when no fibre runs in this view on this side.
func (m *Muscle) OnFibre(v body.View, p body.Point, side ids.Side, heightCM float64) (f FibrePlace, offMM float64,
	ok bool,
) {
	best := math.Inf(1)
	mm := v.CMPerUnit(heightCM) * 10
	for i, fib := range m.Fibres {
		l := fib.Line(side)
		if l.View != v {
			continue
		}
		total, gone := l.length(), 0.0
		for j := 1; j < len(l.Points); j++ {
			a, b := l.Points[j-1], l.Points[j]
			d := a.Distance(b)
			dir := body.Point{X: (b.X - a.X) / d, Y: (b.Y - a.Y) / d}
			t := min(d, max(0, (p.X-a.X)*dir.X+(p.Y-a.Y)*dir.Y))
			foot := body.Point{X: a.X + dir.X*t, Y: a.Y + dir.Y*t}
			if dist := p.Distance(foot); dist < best {
				best, ok = dist, true
				n := across(v, dir, side)
				f = FibrePlace{i, (gone + t) / total * 100, ((p.X-foot.X)*n.X + (p.Y-foot.Y)*n.Y) * mm}
			}
			gone += d
		}
	}
	return f, best * mm, ok
}

// SameSpot tells whether two places of one muscle and side are one point over
// visits: within 15 mm along and 10 mm across.
func (m *Muscle) SameSpot(a, b FibrePlace, side ids.Side, heightCM float64) bool {
	if a.Fibre != b.Fibre || a.Fibre < 0 || a.Fibre >= len(m.Fibres) {
		return false
	}
	l := m.Fibres[a.Fibre].Line(side)
	lengthMM := l.length() * l.View.CMPerUnit(heightCM) * 10
	return math.Abs(a.AlongPct-b.AlongPct)/100*lengthMM <= 15 && math.Abs(a.AcrossMM-b.AcrossMM) <= 10
}

// nearMM: two places on neighbouring fibres are one site within this.
const nearMM = 15

// SameSite tells whether two places are one site: one point over visits, or on
// neighbouring fibres closer than a point is long.
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
	if f.Fibre < 0 || f.Fibre >= len(m.Fibres) {
		return fmt.Sprintf("fibre 0 to %d", len(m.Fibres)-1)
	}
	if s := v.SideAt(p); s != side && s != ids.Midline {
		return "a place on the " + string(side) + " side"
	}
	near, off, ok := m.OnFibre(v, p, side, heightCM)
	if !ok || off > m.Fibres[near.Fibre].SpreadMM/2+touchMM {
		return "a place on " + m.Name
	}
	fv, fp := m.OnFigure(f, side, heightCM)
	if fv != v || fp.Distance(p)*v.CMPerUnit(heightCM)*10 > m.Fibres[f.Fibre].SpreadMM/2+touchMM {
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
	OffMM  float64    `json:"off_mm" doc:"mm from the nearest fibre line"`
	Layer  int        `json:"layer"`
	Place  FibrePlace `json:"place"`
}

// Under lists the muscles under a touched place, the likeliest first: those
// whose fibres run nearest relative to their width, superficial before deep.
func Under(v body.View, p body.Point, heightCM float64) []Candidate {
	side := v.SideAt(p)
	if side == ids.Midline {
		side = ids.Left
	}
	var out []Candidate
	for _, m := range All() {
		f, off, ok := m.OnFibre(v, p, side, heightCM)
		if !ok || off > m.Fibres[f.Fibre].SpreadMM/2+touchMM {
			continue
		}
		c := Candidate{Muscle: m.ID, Name: m.Name, Side: side, OffMM: off, Layer: m.Layer, Place: f}
		near := 25.0
		for _, s := range m.Sites {
			sv, sp := m.OnFigure(FibrePlace{s.Fibre, s.AlongPct, s.AcrossMM}, side, heightCM)
			if d := sp.Distance(p) * v.CMPerUnit(heightCM) * 10; sv == v && d < near {
				near, c.Site = d, s.ID
			}
		}
		out = append(out, c)
	}
	sortCandidates(out)
	return out
}

// Places gives the regions in which a muscle's sites lie, on a side.
func (m *Muscle) Places(side ids.Side) []safety.Place {
	if side == ids.Right {
		return places()[m.ID][1]
	}
	return places()[m.ID][0]
}

var places = sync.OnceValue(func() map[ids.Muscle][2][]safety.Place {
	out := map[ids.Muscle][2][]safety.Place{}
	for _, m := range All() {
		var pair [2][]safety.Place
		for i, side := range [2]ids.Side{ids.Left, ids.Right} {
			for _, s := range m.Sites {
				v, p := m.OnFigure(FibrePlace{s.Fibre, s.AlongPct, s.AcrossMM}, side, body.DefaultHeightCM)
				if n, ok := body.RegionOf(body.CellAt(v, p)); ok {
					pair[i] = ids.With(pair[i], safety.Place{Region: n.Region, Side: n.Side})
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
