package paper

import (
	_ "embed"
	"slices"
	"strings"
	"sync"
	"unicode"

	"golang.org/x/image/font/gofont/goregular"
	"golang.org/x/image/font/sfnt"
	"golang.org/x/text/unicode/bidi"
	"golang.org/x/text/unicode/norm"
)

// Fonts that are shipped beside the text's own; fonts/README.md says where each is from. Only
// what a page says is put into it.
var (
	//go:embed fonts/dejavu/DejaVuSans.ttf
	wideTTF []byte
	//go:embed fonts/dejavu/DejaVuSans-Bold.ttf
	wideBoldTTF []byte
	//go:embed fonts/droid/DroidSansFallbackFull.ttf
	eastTTF []byte
	//go:embed fonts/nanum/NanumGothicCoding.ttf
	koreanTTF []byte
	//go:embed fonts/symbola/Symbola.ttf
	signsTTF []byte
)

// Names of the fonts within a document.
const (
	wideFont = "wide" // Hebrew, Arabic, rare Latin, Greek and Cyrillic
	eastFont = "east" // Chinese, Japanese
	korean   = "korean"
	outlined = "signs"
)

// covers tells which signs a font has; without any, one that cannot be read.
type covers struct {
	font func() *sfnt.Font
}

func coverage(ttf *[]byte) covers {
	return covers{sync.OnceValue(func() *sfnt.Font {
		f, err := sfnt.Parse(*ttf)
		if err != nil {
			panic("a font of this program cannot be read: " + err.Error())
		}
		return f
	})}
}

func (c covers) has(r rune) bool {
	i, err := c.font().GlyphIndex(nil, r)
	return err == nil && i != 0
}

var (
	textTTF  = goregular.TTF
	text     = coverage(&textTTF)
	wide     = coverage(&wideTTF)
	east     = coverage(&eastTTF)
	hangul   = coverage(&koreanTTF)
	signs    = coverage(&signsTTF)
	ordinary = &unicode.RangeTable{R16: []unicode.Range16{{Lo: ' ', Hi: '~', Stride: 1}, {
		Lo: 0xa0, Hi: 0x17f,
		Stride: 1,
	}}}
)

// plain tells that the text's own font sets all of it, from left to right.
func plain(s string) bool {
	for _, r := range s {
		if r != '\n' && !unicode.Is(ordinary, r) && !text.has(r) {
			return false
		}
	}
	return true
}

// piece is what one font sets, in the order in which it is seen.
type piece struct {
	font  string
	words string
}

// fontOf is the first that has a sign; "" where none has. PDF fonts here end at U+FFFF: what lies
// beyond is drawn by its outline.
func fontOf(r rune) string {
	const last = 0xffff
	switch {
	case r <= last && text.has(r):
		return fontName
	case r <= last && wide.has(r):
		return wideFont
	case r <= last && east.has(r):
		return eastFont
	case r <= last && hangul.has(r):
		return korean
	case signs.has(r):
		return outlined
	}
	return ""
}

// seen puts a line in the order in which it is read on paper, letters joined, cut by fonts. unknown
// is called for each sign that no font has.
func seen(line string, unknown func()) []piece {
	var out []piece
	add := func(font, words string) {
		if n := len(out) - 1; n >= 0 && out[n].font == font {
			out[n].words += words
			return
		}
		out = append(out, piece{font, words})
	}
	for _, r := range ordered(line) {
		if silent(r) {
			continue
		}
		font := fontOf(r)
		if font == "" {
			unknown()
			add(fontName, "["+code(r)+"]")
			continue
		}
		add(font, string(r))
	}
	return out
}

// silent signs only tell how others look: variation, joiners, marks of direction, skin tones.
func silent(r rune) bool {
	return unicode.Is(unicode.Cf, r) || unicode.Is(unicode.Variation_Selector, r) || r >= 0x1f3fb && r <= 0x1f3ff ||
		unicode.IsControl(r)
}

// ordered gives a line's signs from left to right by the Unicode bidirectional algorithm.
func ordered(line string) string {
	line = norm.NFC.String(line)
	var p bidi.Paragraph
	if _, err := p.SetString(line); err != nil {
		return line
	}
	order, err := p.Order()
	if err != nil {
		return line
	}
	runs := make([]directed, order.NumRuns())
	for i := range runs {
		run := order.Run(i)
		runs[i] = directed{run.String(), run.Direction() == bidi.RightToLeft}
	}
	return laidOut(runs, fromRight(line))
}

// directed is a stretch of one direction, in the order in which it is spoken.
type directed struct {
	words     string
	fromRight bool
}

func (d directed) visual() string {
	if !d.fromRight {
		return d.words
	}
	return backwards(joined([]rune(d.words)))
}

// number is a stretch that a number's digits make: it goes with the words around it.
func (d directed) number() bool {
	return !d.fromRight && !strings.ContainsFunc(d.words, unicode.IsLetter)
}

// laidOut puts stretches beside each other. Numbers between words from the right belong to them.
func laidOut(runs []directed, base bool) string {
	var b strings.Builder
	put := func(group []directed) {
		for _, d := range slices.Backward(group) {
			b.WriteString(d.visual())
		}
	}
	if base {
		put(runs)
		return b.String()
	}
	for i := 0; i < len(runs); {
		end := i + 1
		if runs[i].fromRight {
			for k := end; k < len(runs) && (runs[k].fromRight || runs[k].number()); k++ {
				if runs[k].fromRight {
					end = k + 1
				}
			}
		}
		put(runs[i:end])
		i = end
	}
	return b.String()
}

// fromRight tells whether the first letter of a line is of a script from the right.
func fromRight(line string) bool {
	for _, r := range line {
		p, _ := bidi.LookupRune(r)
		switch p.Class() {
		case bidi.L:
			return false
		case bidi.R, bidi.AL:
			return true
		}
	}
	return false
}

// backwards turns signs around; a mark stays behind its letter, and brackets open the other way.
func backwards(s string) string {
	return bidi.ReverseString(s)
}

// Forms of an Arabic letter, in the order of Unicode's own table.
const (
	alone = iota
	ending
	beginning
	within
)

// forms are the letters of Arabic scripts as they look by their neighbours, and lam with alef:
// read out of Unicode's decompositions, since the PDF library joins no letters by itself.
var forms = sync.OnceValue(func() map[string][]rune {
	out := map[string][]rune{}
	for _, block := range [][2]rune{{0xfe80, 0xfefc}, {0xfb50, 0xfbb1}, {0xfbd3, 0xfbe9}, {0xfbfc, 0xfbff}} {
		for r := block[0]; r <= block[1]; r++ {
			if base := norm.NFKD.String(string(r)); base != string(r) {
				base = norm.NFC.String(base)
				out[base] = append(out[base], r)
			}
		}
	}
	return out
})

// joined gives letters the forms that their neighbours ask for; order stays.
func joined(letters []rune) string {
	var out []rune
	before := false // whether the letter before reaches over
	for i := 0; i < len(letters); i++ {
		of, long := formsAt(letters, i)
		if of == nil {
			out = append(out, letters[i])
			if !unicode.Is(unicode.Mn, letters[i]) {
				before = letters[i] == tatweel
			}
			continue
		}
		form := alone
		if before && len(of) > ending {
			form = ending
		}
		reaches := len(of) > within && takes(letters[i+long:])
		if reaches {
			form += beginning
		}
		out = append(out, shown(letters[i], of[form]))
		before = reaches
		i += long - 1
	}
	return string(out)
}

// tatweel lengthens the line between two letters.
const tatweel = 0x640

// formsAt are the forms of the letter at i, and of how many signs it is.
func formsAt(letters []rune, i int) ([]rune, int) {
	if i+1 < len(letters) {
		if of := forms()[string(letters[i:i+2])]; of != nil {
			return of, 2
		}
	}
	return forms()[string(letters[i])], 1
}

// takes tells whether the next letter, behind marks, lets itself be joined.
func takes(rest []rune) bool {
	for i, r := range rest {
		if unicode.Is(unicode.Mn, r) {
			continue
		}
		of, _ := formsAt(rest, i)
		return r == tatweel || len(of) > ending
	}
	return false
}

// shown is a letter's form where the font has it.
func shown(letter, form rune) rune {
	if wide.has(form) {
		return form
	}
	return letter
}
