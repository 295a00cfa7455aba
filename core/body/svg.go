package body

import (
	"fmt"
	"strings"
)

// WriteSVG writes a figure's own shapes and lines as SVG elements, layer by
// layer; core/picture makes a whole drawing of them.
func WriteSVG(b *strings.Builder, f Figure) {
	for layer := range 2 {
		b.WriteString(`<g fill="none" stroke="#8a7466" stroke-width="3.4" stroke-linejoin="round">`)
		for _, s := range f.Shapes {
			if s.Layer == layer {
				fmt.Fprintf(b, `<path d="%s"/>`, s.Path)
			}
		}
		b.WriteString(`</g><g fill="#ecdccd">`)
		for _, s := range f.Shapes {
			if s.Layer == layer {
				fmt.Fprintf(b, `<path d="%s"/>`, s.Path)
			}
		}
		b.WriteString(`</g><g fill="none" stroke="#a38b7b" stroke-linecap="round">`)
		for _, l := range f.Inner {
			if l.Layer == layer {
				fmt.Fprintf(b, `<path d="%s" stroke-width="%s" opacity="%.2f"/>`, l.Path, Coordinate(0.8+l.Weight*1.2),
					0.25+0.6*l.Weight)
			}
		}
		b.WriteString(`</g>`)
	}
}
