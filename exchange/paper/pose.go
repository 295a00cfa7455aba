package paper

import (
	"codeberg.org/go-pdf/fpdf"

	"mokren/core/body"
	"mokren/core/pose"
)

// poseMM is how large a position is drawn beside its words.
const poseMM = 26.0

// shown sets words with the drawing of a position to their left; without one they are an item.
func (s *sheet) shown(d *pose.Posed, words string) {
	if d == nil {
		s.item(words)
		return
	}
	s.room(poseMM + 3)
	y := s.GetY() + 1
	s.posed(*d, margin, y)
	s.SetXY(margin+poseMM+4, y+3)
	s.text("", normal, ink)
	s.SetLeftMargin(margin + poseMM + 4)
	s.MultiCell(0, line, words, "", "L", false)
	s.SetLeftMargin(margin)
	s.SetXY(margin, max(s.GetY(), y+poseMM)+2)
}

// posed draws a position of the joints into a square: dashed how it was, and an arrow for each
// joint that is seen to turn or slide.
func (s *sheet) posed(d pose.Posed, x, y float64) {
	scale := poseMM / d.Frame.Width
	at := func(p body.Point) fpdf.PointType {
		return fpdf.PointType{X: x + (p.X-d.Frame.X)*scale, Y: y + (p.Y-d.Frame.Y)*scale}
	}
	s.ClipRect(x, y, poseMM, poseMM, false)
	defer s.ClipEnd()
	draw := func(limbs []pose.Limb, style string) {
		for _, l := range limbs {
			var points []fpdf.PointType
			for _, p := range l.Outline() {
				points = append(points, at(p))
			}
			s.Polygon(points, style)
		}
	}
	s.SetLineWidth(0.2)
	s.SetDrawColor(150, 150, 150)
	s.SetDashPattern([]float64{0.8, 0.8}, 0)
	draw(d.Before, "D")
	s.SetDashPattern(nil, 0)
	s.SetFillColor(244, 242, 239)
	s.SetDrawColor(110, 110, 110)
	draw(d.Limbs, "FD")
	s.SetDrawColor(ink, ink, ink)
	s.SetLineWidth(0.5)
	for _, t := range d.Turns {
		a, b := at(t.Before), at(t.After)
		s.Line(a.X, a.Y, b.X, b.Y)
		s.SetFillColor(ink, ink, ink)
		s.Circle(b.X, b.Y, 0.8, "F")
	}
	for _, t := range d.Shifts {
		a, b := at(t.Line.From), at(t.Line.To)
		s.Line(a.X, a.Y, b.X, b.Y)
	}
}
