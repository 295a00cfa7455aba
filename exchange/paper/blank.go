package paper

import (
	"mokren/core/body"
	"mokren/core/progress"
	"mokren/core/safety"
	"mokren/core/wording"
)

// Blank sets an assessment sheet to write on by hand, for a day without power:
// screening, story, body, ranges, points, holds.
func Blank(h Heading) ([]byte, error) {
	s := newSheet(h)
	s.fields("Client", "Born", "Date", "Therapist")
	s.heading("Screening: ask all; a yes to a marked one (!) stops the visit until it is cleared")
	s.screening()
	s.AddPage()
	s.heading("Story: since when, what eases, what worsens, medication")
	s.blankLines(5)
	s.fields("Pain now 0–10", "Worst", "Best", "Wants back")
	s.heading("Pain and points: draw and number them")
	s.bodyMap([]body.View{body.Front, body.Back, body.LeftSide, body.RightSide}, nil, 118)
	s.AddPage()
	s.heading("Range")
	s.rows([]string{"Movement", "Usual", "Left", "Right", "Felt", "After left", "After right"},
		[]float64{54, 18, 18, 18, 30, 18, 18}, ranges())
	s.heading("Points and holds")
	s.rows([]string{"Nr", "Muscle, side, site", "Grade 0–4", "0–10", "Protocol", "Seconds", "After"},
		[]float64{10, 58, 20, 16, 36, 18, 16}, make([][]string, 12))
	s.heading("Consent, what was said at the end, next visit")
	s.blankLines(4)
	return s.bytes()
}

// ranges are those that are read most; the others are written in below.
func ranges() [][]string {
	var out [][]string
	for _, m := range progress.MeasurableMovements() {
		if len(out) == 14 {
			break
		}
		out = append(out, []string{wording.Movement(m.Movement), numberOf(m.Reference)})
	}
	return append(out, nil, nil)
}

func (s *sheet) fields(names ...string) {
	wide := s.width() / float64(len(names))
	s.text("", small, inkSoft)
	y := s.GetY()
	for i, n := range names {
		x := margin + float64(i)*wide
		s.Text(x, y+4, n)
		s.SetDrawColor(rule-60, rule-60, rule-60)
		s.SetLineWidth(0.25)
		s.Line(x, y+12, x+wide-4, y+12)
	}
	s.SetXY(margin, y+16)
}

// screening sets the questions in two columns.
func (s *sheet) screening() {
	list := safety.Questions()
	top, low, half := s.GetY(), 0.0, (len(list)+1)/2
	wide := (s.width() - chartGap) / 2
	for i, q := range list {
		x := margin
		if i >= half {
			x += wide + chartGap
		}
		if i == half {
			s.SetY(top)
		}
		mark := ""
		if q.Outcome == safety.Emergency || q.Outcome == safety.ReferFirst {
			mark = "! "
		}
		s.tick(mark+q.Ask, x, wide)
		low = max(low, s.GetY())
	}
	s.SetY(low)
}

func (s *sheet) tick(words string, x, wide float64) {
	y := s.GetY()
	s.SetDrawColor(ink, ink, ink)
	s.SetLineWidth(0.3)
	for i, w := range []string{"no", "yes"} {
		at := x + wide - 19 + float64(i)*10
		s.Rect(at, y+0.7, 2.8, 2.8, "D")
		s.text("", 7, inkSoft)
		s.Text(at+3.5, y+3.2, w)
	}
	s.text("", 8, ink)
	s.SetXY(x, y)
	s.MultiCell(wide-21, 4, words, "", "L", false)
	s.Ln(0.9)
}

func (s *sheet) blankLines(n int) {
	s.SetDrawColor(rule, rule, rule)
	s.SetLineWidth(0.25)
	for range n {
		y := s.GetY() + 8
		s.Line(margin, y, margin+s.width(), y)
		s.SetXY(margin, y)
	}
	s.Ln(3)
}

func (s *sheet) rows(head []string, wide []float64, rows [][]string) {
	s.text("B", small, ink)
	s.SetDrawColor(rule, rule, rule)
	s.SetLineWidth(0.25)
	s.SetCellMargin(1.2)
	defer s.SetCellMargin(0)
	for i, h := range head {
		s.CellFormat(wide[i], 6, h, "B", 0, "L", false, 0, "")
	}
	s.Ln(-1)
	s.text("", small, ink)
	for _, r := range rows {
		s.row(r, wide)
	}
}

// row is as high as its longest cell needs: nothing in a table is cut.
func (s *sheet) row(r []string, wide []float64) {
	const pad, step = 2.2, 4.2 // mm
	cells := make([][]string, len(wide))
	high := 1
	for i := range cells {
		if i < len(r) && r[i] != "" {
			cells[i] = s.SplitText(r[i], wide[i]-2.4)
		}
		high = max(high, len(cells[i]))
	}
	tall := pad + step*float64(high)
	_, page := s.GetPageSize()
	if _, _, _, bottom := s.GetMargins(); s.GetY()+tall > page-bottom {
		s.AddPage()
	}
	x, y := s.GetXY()
	for i, lines := range cells {
		s.Rect(x, y, wide[i], tall, "D")
		for k, words := range lines {
			s.SetXY(x, y+pad/2+step*float64(k))
			s.CellFormat(wide[i], step, words, "", 0, "L", false, 0, "")
		}
		x += wide[i]
	}
	s.SetXY(margin, y+tall)
}
