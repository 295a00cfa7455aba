package body

import (
	"fmt"
	"strings"
)

// SVG writes a view as a drawing of its own, the same that the screen shows.
func SVG(v View) string {
	f := Draw(v)
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %s 1000" role="img" aria-label="Body, %s">`, short(f.Width), v)
	b.WriteString(`<g fill="none" stroke="#8a7466" stroke-width="3.4" stroke-linejoin="round">`)
	for _, s := range f.Shapes {
		fmt.Fprintf(&b, `<path d="%s"/>`, s.Path)
	}
	b.WriteString(`</g><g fill="#ecdccd">`)
	for _, s := range f.Shapes {
		fmt.Fprintf(&b, `<path d="%s"/>`, s.Path)
	}
	b.WriteString(`</g><g fill="none" stroke="#a38b7b" stroke-linecap="round">`)
	for _, l := range f.Inner {
		fmt.Fprintf(&b, `<path id="%s" d="%s" stroke-width="%s" opacity="%.2f"/>`, l.ID, l.Path, short(0.8+l.Weight*1.2), 0.25+0.6*l.Weight)
	}
	b.WriteString(`</g></svg>`)
	return b.String()
}
