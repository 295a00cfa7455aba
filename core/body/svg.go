package body

import (
	"fmt"
	"strings"
)

// WriteSVG writes a figure's own shapes and lines as SVG elements, layer by
// layer; core/picture makes a whole drawing of them. A part that lies before
// the rest lets it be seen.
func WriteSVG(b *strings.Builder, f Figure) {
	fmt.Fprintf(b, `<clipPath id="edge-%s">`, f.View)
	for layer := range 2 {
		f.writeShapes(b, layer)
	}
	b.WriteString(`</clipPath>`)
	for layer := range 2 {
		fmt.Fprintf(b, `<g opacity="%s"><g fill="none" stroke="#8a7466" stroke-width="3.4" stroke-linejoin="round">`,
			Coordinate(1-0.3*float64(layer)))
		f.writeShapes(b, layer)
		b.WriteString(`</g><g fill="#ecdccd">`)
		f.writeShapes(b, layer)
		fmt.Fprintf(b, `</g><g fill="#b08468" fill-opacity="0.06" clip-path="url(#edge-%s)">`, f.View)
		f.writeShades(b, layer)
		b.WriteString(`</g><g fill="none" stroke="#a38b7b" stroke-linecap="round">`)
		f.writeLines(b, layer)
		b.WriteString(`</g></g>`)
	}
}

// writeShapes writes one layer's outlines; strokes and fills are set by the group around them.
func (f Figure) writeShapes(b *strings.Builder, layer int) {
	for _, s := range f.Shapes {
		if s.Layer == layer {
			fmt.Fprintf(b, `<path d="%s"/>`, s.Path)
		}
	}
}

// writeShades writes one layer's shadows, each over the one before.
func (f Figure) writeShades(b *strings.Builder, layer int) {
	for _, s := range f.Shades {
		if s.Layer == layer {
			fmt.Fprintf(b, `<path d="%s"/>`, s.Path)
		}
	}
}

// writeLines writes light lines, thicker and darker with their weight.
func (f Figure) writeLines(b *strings.Builder, layer int) {
	for _, l := range f.Inner {
		if l.Layer == layer {
			fmt.Fprintf(b, `<path d="%s" stroke-width="%s" opacity="%.2f"/>`, l.Path,
				Coordinate(0.8+l.Weight*1.2), 0.25+0.6*l.Weight)
		}
	}
}
