package picture

import (
	"fmt"
	"strings"

	"mokren/core/body"
)

// SVG writes a view with its layers as a drawing of its own, in the same order
// and with the same shapes as the screen: figure, bones, muscles, referral,
// structures, landmarks.
func SVG(w LayerRequest) string {
	d := Draw(w)
	f := body.Draw(w.View)
	k := 1.0
	if w.View.OneSided() && w.View != body.LeftSide && w.View != body.RightSide {
		k = 2.4 // close-ups are seen larger than the whole body
	}
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="-4 -4 %s 1008" role="img" aria-label="Body, %s">`, num(f.Width+8), w.View)
	body.WriteSVG(&b, f)
	b.WriteString(`<g id="bones" fill="none" stroke="#8d8377" stroke-linecap="round">`)
	for _, l := range d.Bones {
		fmt.Fprintf(&b, `<path d="%s" stroke-width="%s" opacity="%.2f"/>`, l.Path, num((0.6+l.Weight)*k),
			0.35+0.5*l.Weight)
	}
	b.WriteString(`</g><clipPath id="skin-` + string(w.View) + `">`)
	for _, s := range f.Shapes {
		fmt.Fprintf(&b, `<path d="%s"/>`, s.Path)
	}
	b.WriteString(`</clipPath><g id="muscles" clip-path="url(#skin-` + string(w.View) +
		`)" fill="none" stroke-linecap="round" stroke-linejoin="round">`)
	for _, s := range d.Strands {
		s.write(&b, k)
	}
	b.WriteString(`</g><g id="referral" fill="#96731a">`)
	for _, z := range d.Zones {
		for _, c := range z.Essential {
			fmt.Fprintf(&b, `<circle cx="%s" cy="%s" r="%s"/>`, num(c[0]), num(c[1]), num(z.Size*0.34))
		}
		for _, c := range z.Spillover {
			fmt.Fprintf(&b, `<circle cx="%s" cy="%s" r="%s"/>`, num(c[0]), num(c[1]), num(z.Size*0.17))
		}
	}
	b.WriteString(`</g><g id="structures" fill="none" stroke="#356a86" stroke-linecap="round" stroke-linejoin="round">`)
	for i, s := range d.Structures {
		line := points(s.Line)
		if len(s.Line) == 1 {
			line += " " + points(s.Line)
		}
		broad, dash := "0.16", ""
		if s.Far { // on the side that is turned away
			broad, dash = "0.06", fmt.Sprintf(` stroke-dasharray="%s %s"`, num(2*k), num(4*k))
		}
		fmt.Fprintf(&b, `<g id="%s-%s-%d"><title>%s, %s</title>`+
			`<polyline points="%s" stroke-width="%s" opacity="%s"/>`+
			`<polyline points="%s" stroke-width="%s"%s/></g>`,
			s.Structure, s.Side, i, s.Name, s.Side, line, num(2*s.Radius), broad, line, num(1.5*k), dash)
	}
	b.WriteString(`</g><g id="landmarks" fill="#2d5a50" stroke="#fdfaf5">`)
	for _, l := range d.Landmarks {
		fmt.Fprintf(&b, `<circle cx="%s" cy="%s" r="%s" stroke-width="%s"><title>%s, %s</title></circle>`, num(l.X),
			num(l.Y), num(3*k), num(k), l.ID, l.Side)
	}
	b.WriteString(`</g></svg>`)
	return b.String()
}

// write draws a part of a muscle; k widens lines in a close-up.
func (s Strand) write(b *strings.Builder, k float64) {
	opacity := "1"
	if s.Faded {
		opacity = "0.1"
	}
	fmt.Fprintf(b, `<g id="%s-%s" opacity="%s"><title>%s, %s</title>`, s.Muscle, s.Side, opacity, s.Name, s.Side)
	area := func(path, fill, stroke string) {
		if path != "" {
			fmt.Fprintf(b, `<path d="%s" fill="%s" stroke="%s" stroke-width="%s"/>`, path, fill, stroke, num(0.6*k))
		}
	}
	area(s.Sinew, "#e6d6bd", "#a58f6f")
	area(s.Belly, "#b4705c", "#7c4034")
	for _, band := range s.Bands {
		area(band, "#e6d6bd", "none")
	}
	for _, f := range s.Fibres {
		fmt.Fprintf(b, `<path d="%s" stroke="#7c4034" stroke-width="%s" opacity="0.5"/>`, f, num(0.5*k))
	}
	b.WriteString(`</g>`)
}

var num = body.Coordinate

// points writes corners as SVG does.
func points(l []body.Point) string {
	out := make([]string, len(l))
	for i, p := range l {
		out[i] = num(p.X) + "," + num(p.Y)
	}
	return strings.Join(out, " ")
}
