package paper

import (
	"fmt"

	"codeberg.org/go-pdf/fpdf"

	"mokren/core/body"
)

// Spot is a point on a body map.
type Spot struct {
	View   body.View
	X, Y   float64
	Number int
	// Grade of tenderness 0–4 sets the size.
	Grade int
	// Active ones are filled; the others are hollow.
	Active bool
}

const viewUnits = 1000.0

// bodyMap draws some views side by side, so many mm high, and what lies on them.
func (s *sheet) bodyMap(views []body.View, spots []Spot, mm float64) {
	s.room(mm + 8)
	scale := mm / viewUnits
	total := 0.0
	for _, v := range views {
		total += v.Width() * scale
	}
	gap := (s.width() - total) / float64(len(views)+1)
	x, y := margin+gap, s.GetY()+2
	for _, v := range views {
		s.figure(v, x, y, scale)
		for _, p := range spots {
			if p.View == v {
				s.spot(p, x+p.X*scale, y+p.Y*scale)
			}
		}
		x += v.Width()*scale + gap
	}
	s.SetXY(margin, y+mm+3)
}

// legend says how the map is read.
func (s *sheet) legend(words string) {
	s.text("", small, inkSoft)
	s.MultiCell(0, 4, words, "", "C", false)
	s.Ln(1)
}

// figure fills the outline and draws the inner lines.
func (s *sheet) figure(v body.View, x, y, scale float64) {
	f := body.Draw(v)
	at := func(p body.Point) fpdf.PointType { return fpdf.PointType{X: x + p.X*scale, Y: y + p.Y*scale} }
	for layer := range 2 {
		for _, style := range []string{"D", "F"} {
			s.SetDrawColor(120, 120, 120)
			s.SetLineWidth(0.5)
			s.SetFillColor(244, 242, 239)
			for _, shape := range f.Shapes {
				if shape.Layer != layer {
					continue
				}
				var points []fpdf.PointType
				for _, p := range shape.Outline() {
					points = append(points, at(p))
				}
				s.Polygon(points, style)
			}
		}
		for _, l := range f.Inner {
			if l.Layer == layer {
				s.inner(l, x, y, scale)
			}
		}
	}
}

func (s *sheet) inner(l body.Inner, x, y, scale float64) {
	svg, err := fpdf.SVGBasicParse([]byte(fmt.Sprintf(`<svg width="1000pt" height="1000pt"><path d="%s"/></svg>`, l.Path)))
	if err != nil {
		return // a line less
	}
	s.SetLineWidth(0.1 + 0.15*l.Weight)
	s.SetDrawColor(150, 150, 150)
	s.SetXY(x, y)
	s.SVGBasicWrite(&svg, scale)
}

// spot is a disc with its number beside it: full where it is active, a ring else.
func (s *sheet) spot(p Spot, x, y float64) {
	r := 1.1 + 0.35*float64(p.Grade)
	s.SetDrawColor(ink, ink, ink)
	s.SetLineWidth(0.45)
	style := "D"
	if p.Active {
		s.SetFillColor(60, 60, 60)
		style = "FD"
	}
	s.Circle(x, y, r, style)
	if p.Number > 0 {
		s.text("B", small, ink)
		s.Text(x+r+0.6, y+1, fmt.Sprint(p.Number))
	}
}
