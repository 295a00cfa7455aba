package paper

import (
	"math"
	"strconv"
	"strings"

	"mokren/core/progress"
)

// chart is one small course.
type chart struct {
	title, unit, words string
	min, max           float64
	band               [2]float64
	dates              []string
	before, after      []*float64
}

func (c *chart) add(date string, before, after *float64) {
	c.dates = append(c.dates, date)
	c.before, c.after = append(c.before, before), append(c.after, after)
}

func changeWords(c *progress.Change, unit string) string {
	if c == nil {
		return "One reading so far."
	}
	sign := ""
	if c.Delta > 0 {
		sign = "+"
	}
	return sign + measured(c.Delta, unit) + ": " + c.Text
}

// measured is a value to a tenth, as finely as anything here is read, with its unit.
func measured(v float64, unit string) string {
	if unit != "" && unit != "°" {
		unit = " " + unit
	}
	return strconv.FormatFloat(math.Round(v*10)/10, 'f', -1, 64) + unit
}

// A chart's place on the page, in mm.
const (
	chartHigh = 40.0
	plotHigh  = 20.0
	chartGap  = 6.0
)

func (s *sheet) grid(charts []chart) {
	wide := (s.width() - chartGap) / 2
	for i := 0; i < len(charts); i += 2 {
		s.room(chartHigh)
		y := s.GetY()
		for k := 0; k < 2 && i+k < len(charts); k++ {
			s.draw(charts[i+k], margin+float64(k)*(wide+chartGap), y, wide)
		}
		s.SetXY(margin, y+chartHigh)
	}
}

// draw sets a chart: title, what changed, the plot.
func (s *sheet) draw(c chart, x, y, wide float64) {
	s.SetXY(x, y)
	s.text("B", small, ink)
	s.CellFormat(wide, 4.5, s.fitted(c.title, wide), "", 2, "L", false, 0, "")
	s.text("", small, inkSoft)
	s.CellFormat(wide, 4.2, s.fitted(c.words, wide), "", 2, "L", false, 0, "")
	left, top, w := x+7, y+11, wide-16
	at := func(v float64) float64 { return top + plotHigh*(1-(v-c.min)/(c.max-c.min)) }
	across := func(i int) float64 {
		if len(c.dates) < 2 {
			return left + w/2
		}
		return left + 3 + (w-6)*float64(i)/float64(len(c.dates)-1)
	}
	if c.band[1] > 0 {
		s.SetFillColor(232, 232, 232)
		s.Rect(left, at(c.band[1]), w, at(c.band[0])-at(c.band[1]), "F")
	}
	s.SetDrawColor(rule, rule, rule)
	s.SetLineWidth(0.2)
	for _, v := range []float64{c.min, (c.min + c.max) / 2, c.max} {
		s.Line(left, at(v), left+w, at(v))
		s.text("", 6.5, inkSoft)
		label := strconv.FormatFloat(v, 'f', 0, 64)
		s.Text(left-1.5-s.GetStringWidth(label), at(v)+0.8, label)
	}
	s.steps(c, across, at, x+wide)
	s.text("", 6.5, inkSoft)
	s.Text(left, top+plotHigh+4, c.dates[0])
	if n := len(c.dates) - 1; n > 0 {
		s.Text(left+w-s.GetStringWidth(c.dates[n]), top+plotHigh+4, c.dates[n])
	}
}

// steps draws the readings; the last one is written beside it, within the edge of the chart.
func (s *sheet) steps(c chart, across func(int) float64, at func(float64) float64, edge float64) {
	s.SetDrawColor(ink, ink, ink)
	s.SetFillColor(ink, ink, ink)
	lastX, lastY, there := 0.0, 0.0, false
	for i, v := range c.before {
		if v == nil {
			continue
		}
		x, y := across(i), at(*v)
		if there {
			s.SetLineWidth(0.35)
			s.Line(lastX, lastY, x, y)
		}
		lastX, lastY, there = x, y, true
	}
	for i := range c.dates {
		if b, a := c.before[i], c.after[i]; b != nil && a != nil {
			s.SetLineWidth(0.15)
			s.Line(across(i), at(*b), across(i), at(*a))
		}
		if b := c.before[i]; b != nil {
			s.SetLineWidth(0.35)
			s.SetFillColor(255, 255, 255)
			s.Circle(across(i), at(*b), 0.95, "FD")
		}
		if a := c.after[i]; a != nil {
			s.SetFillColor(ink, ink, ink)
			s.Circle(across(i), at(*a), 0.75, "F")
		}
	}
	if there {
		s.text("B", small, ink)
		last := *c.before[lastOf(c.before)]
		words, at := measured(last, c.unit), lastX+2
		if wide := s.GetStringWidth(words); at+wide > edge {
			at, lastY = edge-wide, lastY-2.4
		}
		s.Text(at, lastY+1, words)
	}
}

func lastOf(list []*float64) int {
	last := 0
	for i, v := range list {
		if v != nil {
			last = i
		}
	}
	return last
}

// fitted cuts words that are too long for their place.
func (s *sheet) fitted(words string, wide float64) string {
	if s.GetStringWidth(words) <= wide {
		return words
	}
	r := []rune(words)
	for len(r) > 1 && s.GetStringWidth(string(r)+"…") > wide {
		r = r[:len(r)-1]
	}
	return string(r) + "…"
}

// unitOf is a score's unit where it belongs behind a number: "3 of 10" would be said of a change
// too.
func unitOf(unit string) string {
	if strings.HasPrefix(unit, "of ") {
		return ""
	}
	return unit
}

func numberOf(v float64) string { return measured(v, "") }
