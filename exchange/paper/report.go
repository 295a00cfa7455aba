package paper

import (
	"fmt"
	"strings"

	"mokren/core/body"
	"mokren/core/visit"
	"mokren/core/wording"
)

// ReportPage is a client's progress as it is printed.
type ReportPage struct {
	Heading
	History visit.History
	Visits  int
}

// Report sets the sentence on top, the body, every course as a small chart, and
// what worked.
func Report(p ReportPage) ([]byte, error) {
	s := newSheet(p.Heading)
	s.text("B", 11.5, ink)
	s.MultiCell(0, 6, p.History.Summed.Text, "", "L", false)
	s.paragraph(fmt.Sprintf("%d visits. %s", p.Visits, p.History.Summed.Next))
	var spots []Spot
	for i, h := range p.History.Points {
		last := h.Visits[len(h.Visits)-1]
		spot := Spot{View: h.View, X: h.X, Y: h.Y, Number: i + 1, Active: last.Before != nil && *last.Before > 2}
		if last.Grade != nil {
			spot.Grade = *last.Grade
		}
		spots = append(spots, spot)
	}
	if len(spots) > 0 {
		s.bodyMap([]body.View{body.Front, body.Back}, spots, 95)
		s.legend("Full: above 2 of 10 when found last. Larger: more tender. Numbers as below.")
	}
	s.courses(p.History)
	s.worked(p.History)
	return s.bytes()
}

// courses sets a chart for each point, score and movement, two beside each other.
func (s *sheet) courses(h visit.History) {
	var charts []chart
	for i, p := range h.Points {
		c := chart{
			title: fmt.Sprintf(
				"%d  %s, %s",
				i+1,
				p.Name,
				p.Side,
			), min: 0, max: 10, words: changeWords(p.Number, ""),
		}
		for _, v := range p.Visits {
			c.add(v.Date, v.Before, v.After)
		}
		charts = append(charts, c)
	}
	for _, x := range h.Scores {
		c := chart{title: x.Name, min: 0, max: 10, unit: unitOf(x.Unit), words: changeWords(x.Change, unitOf(x.Unit))}
		for _, v := range x.Visits {
			c.max = max(c.max, v.Value)
			c.add(v.Date, &v.Value, nil)
		}
		charts = append(charts, c)
	}
	for _, r := range h.Ranges {
		side := ""
		if r.Side != "midline" {
			side = ", " + string(r.Side)
		}
		name, unit := wording.Movement(r.Movement), "°"
		if r.Movement == "jaw.opening" {
			unit = "mm"
		}
		c := chart{
			title: strings.ToUpper(name[:1]) + name[1:] + side, min: 0, max: r.Reference * 1.15, unit: unit,
			band: [2]float64{r.FlagBelow, r.Reference}, words: changeWords(r.Change, unit),
		}
		for _, v := range r.Visits {
			c.add(v.Date, v.Before, v.After)
		}
		charts = append(charts, c)
	}
	if len(charts) > 0 {
		s.heading("Course")
		s.text("", small, inkSoft)
		s.MultiCell(0, 4, "Hollow: before. Full: after. Grey band: usual range.", "", "L", false)
	}
	s.grid(charts)
}

func (s *sheet) worked(h visit.History) {
	if len(h.Worked) == 0 {
		return
	}
	s.heading("What worked")
	for _, w := range h.Worked {
		words := fmt.Sprintf("%s: number clearly lower after %d of %d treatments, mean change %+.1f",
			strings.ReplaceAll(string(w.Protocol), "-", " "), w.Clear.Yes, w.Clear.Of, -w.Drop)
		if w.SecondsPerPoint != nil {
			words += fmt.Sprintf(", %.0f s of pressure for each point of drop", *w.SecondsPerPoint)
		}
		if w.Clear.Few {
			words += " (too few to say more)"
		}
		s.item(words + ".")
	}
}
