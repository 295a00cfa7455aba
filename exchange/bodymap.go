package exchange

import (
	"fmt"
	"html"
	"slices"
	"strings"

	"mokren/core/body"
	"mokren/core/points"
	"mokren/core/visit"
	"mokren/core/wording"
)

// WriteBodyMap draws the points of the latest visit that charted any, in the views
// they lie in: an SVG of its own, in view units. A point says in its title what it
// is; an active one is filled.
func WriteBodyMap(a Archive, states map[visit.UUID]visit.State) ([]byte, error) {
	a.Sort()
	var spots []visit.TreatedPoint
	for _, v := range a.Visits {
		if found := states[v.ID].Treated(); len(found) > 0 {
			spots = found
		}
	}
	var views []body.View
	for _, p := range spots {
		if !slices.Contains(views, p.View) {
			views = append(views, p.View)
		}
	}
	if len(views) == 0 {
		views = []body.View{body.Front, body.Back}
	}
	width, drawn := 0.0, strings.Builder{}
	for _, v := range views {
		fmt.Fprintf(&drawn, `<g transform="translate(%g 0)">`, width)
		f := body.Draw(v)
		body.WriteSVG(&drawn, f)
		for _, p := range spots {
			if p.View == v {
				writeSpot(&drawn, p)
			}
		}
		drawn.WriteString(`</g>`)
		width += f.Width + mapGap
	}
	legend := ""
	if len(spots) > 0 {
		legend = mapLegend
	}
	return []byte(fmt.Sprintf(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 -4 %g 1046" role="img" `+
		`aria-label="Points of the latest visit">%s<text x="4" y="1030" font-family="sans-serif" font-size="15">%s</text>`+
		`</svg>`, width-mapGap, drawn.String(), legend)), nil
}

// mapLegend says how it is read.
const mapLegend = "Full: active. Larger: more tender. Number: pain at test pressure, of 10."

// mapGap keeps two views apart.
const mapGap = 24

func writeSpot(b *strings.Builder, p visit.TreatedPoint) {
	fill := "none"
	if p.Activity == points.Active {
		fill = "#3c3c3c"
	}
	title, number := wording.Muscle(p.Muscle, p.Side, ""), ""
	if p.NPRS != nil {
		title += fmt.Sprintf(": %g of 10", *p.NPRS)
		number = fmt.Sprintf("%g", *p.NPRS)
	}
	grade := 0
	if p.Grade != nil {
		grade = *p.Grade
		title += fmt.Sprintf(", tenderness %d of 4", grade)
	}
	r := 5 + 1.5*float64(grade)
	fmt.Fprintf(b, `<circle cx="%.1f" cy="%.1f" r="%g" fill="%s" stroke="#26221f" stroke-width="1.6"><title>%s</title></circle>`,
		p.X, p.Y, r, fill, html.EscapeString(title))
	fmt.Fprintf(b, `<text x="%.1f" y="%.1f" font-family="sans-serif" font-size="13" font-weight="600">%s</text>`,
		p.X+r+3, p.Y+4.5, number)
}
