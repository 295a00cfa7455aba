package paper

import (
	"fmt"
	"strings"
	"unicode"

	"golang.org/x/image/font/sfnt"
	"golang.org/x/image/math/fixed"
)

// What follows sets text of every script where the PDF library sets one font from left to right.
// Text of the page's own font goes to the library as it is.

func code(r rune) string { return fmt.Sprintf("U+%04X", r) }

// unknownSigns is said at the end of a page on which a code stands for a sign.
const unknownSigns = "A code such as [U+1234] stands for a sign that the fonts of this page do not have."

// pieces are a line's, set apart by fonts.
func (s *sheet) pieces(line string) []piece {
	return seen(line, func() { s.unknown = true })
}

// files are those of the fonts that a page takes when it needs them, by name and style.
var files = map[string][]byte{
	wideFont: wideTTF, wideFont + "B": wideBoldTTF, eastFont: eastTTF, korean: koreanTTF,
}

// font chooses one for a piece; what is outlined needs none.
func (s *sheet) font(name string) {
	style := s.style
	switch {
	case name == outlined:
		return
	case name == eastFont, name == korean, name == wideFont && style == "I":
		style = ""
	}
	if ttf := files[name+style]; ttf != nil && !s.added[name+style] {
		s.AddUTF8FontFromBytes(name, style, ttf)
		s.added[name+style] = true
	}
	s.SetFont(name, style, s.size)
}

// GetStringWidth measures text of any script.
func (s *sheet) GetStringWidth(words string) float64 {
	if plain(words) {
		return s.Fpdf.GetStringWidth(words)
	}
	defer s.font(fontName)
	wide := 0.0
	for _, p := range s.pieces(words) {
		wide += s.wideOf(p)
	}
	return wide
}

func (s *sheet) wideOf(p piece) float64 {
	if p.font != outlined {
		s.font(p.font)
		return s.Fpdf.GetStringWidth(p.words)
	}
	wide := 0.0
	for _, r := range p.words {
		_, advance := s.outline(r)
		wide += advance
	}
	return wide
}

// Text sets text of any script at a place.
func (s *sheet) Text(x, y float64, words string) {
	if plain(words) {
		s.Fpdf.Text(x, y, words)
		return
	}
	defer s.font(fontName)
	for _, p := range s.pieces(words) {
		wide := s.wideOf(p)
		if p.font == outlined {
			s.outlines(p.words, x, y)
		} else {
			s.Fpdf.Text(x, y, p.words)
		}
		x += wide
	}
}

// CellFormat sets one line of any script.
func (s *sheet) CellFormat(w, h float64, words, border string, ln int, align string, fill bool, link int, to string) {
	if plain(words) {
		s.Fpdf.CellFormat(w, h, words, border, ln, align, fill, link, to)
		return
	}
	x := s.GetX()
	s.Fpdf.CellFormat(w, h, "", border, ln, align, fill, link, to)
	nextX, nextY := s.GetXY()
	y := nextY
	if ln > 0 {
		y -= h
	}
	if w == 0 {
		w = margin + s.width() - x
	}
	inner := s.GetCellMargin()
	switch {
	case strings.Contains(align, "R"):
		x += w - inner - s.GetStringWidth(words)
	case strings.Contains(align, "C"):
		x += (w - s.GetStringWidth(words)) / 2
	default:
		x += inner
	}
	// Where the library has its own base line.
	_, size := s.GetFontSize()
	s.Text(x, y+0.5*h+0.3*size, words)
	s.SetXY(nextX, nextY)
}

// MultiCell sets lines of any script; those that begin from the right stand at the right.
func (s *sheet) MultiCell(w, h float64, words, border, align string, fill bool) {
	if plain(words) {
		s.Fpdf.MultiCell(w, h, words, border, align, fill)
		return
	}
	x := s.GetX()
	if w == 0 {
		w = margin + s.width() - x
	}
	lines := s.SplitText(words, w-2*s.GetCellMargin())
	for i, l := range lines {
		to := align
		if align == "L" && fromRight(l) {
			to = "R"
		}
		edge := ""
		if border == "1" {
			edge = "LR"
			if i == 0 {
				edge += "T"
			}
			if i == len(lines)-1 {
				edge += "B"
			}
		}
		s.SetX(x)
		s.CellFormat(w, h, l, edge, 1, to, fill, 0, "")
	}
}

// SplitText breaks text of any script into lines of a width: behind spaces and between the signs
// of scripts that have none.
func (s *sheet) SplitText(words string, wide float64) []string {
	if plain(words) {
		return s.Fpdf.SplitText(words, wide)
	}
	var lines []string
	for part := range strings.SplitSeq(words, "\n") {
		line := ""
		for _, word := range breakable(part) {
			if line != "" && s.GetStringWidth(line+strings.TrimRight(word, " ")) > wide {
				lines = append(lines, strings.TrimRight(line, " "))
				line = ""
			}
			line += word
			for cut := s.fits(line, wide); cut < len(line); cut = s.fits(line, wide) {
				lines = append(lines, line[:cut])
				line = line[cut:]
			}
		}
		lines = append(lines, strings.TrimRight(line, " "))
	}
	return lines
}

// fits is how much of a word has room on a line of its own: at least one sign.
func (s *sheet) fits(word string, wide float64) int {
	if s.GetStringWidth(strings.TrimRight(word, " ")) <= wide {
		return len(word)
	}
	at := 0
	for i := range word {
		if i > 0 && s.GetStringWidth(word[:i]) > wide {
			break
		}
		at = i
	}
	if at == 0 {
		_, at = firstSign(word)
	}
	return at
}

func firstSign(word string) (rune, int) {
	for i, r := range word {
		if i > 0 {
			return r, i
		}
	}
	return 0, len(word)
}

// breakable cuts a line where it may be broken; spaces stay behind their word.
func breakable(line string) []string {
	var out []string
	from, prev := 0, rune(0)
	for i, r := range line {
		if i > 0 && (prev == ' ' && r != ' ' || prev != ' ' && (unspaced(r) || unspaced(prev)) && r != ' ' &&
			!closing(r)) {
			out = append(out, line[from:i])
			from = i
		}
		prev = r
	}
	return append(out, line[from:])
}

func unspaced(r rune) bool { return unicode.In(r, unicode.Han, unicode.Hiragana, unicode.Katakana) }

// closing signs do not begin a line.
func closing(r rune) bool {
	return strings.ContainsRune("、。，．）」』！？：；ー", r) || unicode.Is(unicode.Mn, r)
}

// outline is a sign's shape in mm, and how wide it is.
func (s *sheet) outline(r rune) (sfnt.Segments, float64) {
	var b sfnt.Buffer
	f := signs.font()
	i, err := f.GlyphIndex(&b, r)
	if err != nil {
		return nil, 0
	}
	_, size := s.GetFontSize()
	shape, err := f.LoadGlyph(&b, i, fixed.I(outlineEm), nil)
	if err != nil {
		return nil, 0
	}
	advance, err := f.GlyphAdvance(&b, i, fixed.I(outlineEm), 0)
	if err != nil {
		return nil, 0
	}
	return shape, float64(advance) / 64 / outlineEm * size
}

// outlineEm is how many units an em has while an outline is read.
const outlineEm = 1000

// outlines draws signs as shapes, in the colour of the text.
func (s *sheet) outlines(words string, x, y float64) {
	_, size := s.GetFontSize()
	r, g, b := s.GetFillColor()
	s.SetFillColor(s.GetTextColor())
	for _, sign := range words {
		shape, wide := s.outline(sign)
		at := func(p fixed.Point26_6) (float64, float64) {
			return x + float64(p.X)/64/outlineEm*size, y + float64(p.Y)/64/outlineEm*size
		}
		for i, seg := range shape {
			ax, ay := at(seg.Args[0])
			bx, by := at(seg.Args[1])
			cx, cy := at(seg.Args[2])
			switch seg.Op {
			case sfnt.SegmentOpMoveTo:
				if i > 0 {
					s.ClosePath()
				}
				s.MoveTo(ax, ay)
			case sfnt.SegmentOpLineTo:
				s.LineTo(ax, ay)
			case sfnt.SegmentOpQuadTo:
				s.CurveTo(ax, ay, bx, by)
			case sfnt.SegmentOpCubeTo:
				s.CurveBezierCubicTo(ax, ay, bx, by, cx, cy)
			}
		}
		if len(shape) > 0 {
			s.ClosePath()
			s.DrawPath("F")
		}
		x += wide
	}
	s.SetFillColor(r, g, b)
}
