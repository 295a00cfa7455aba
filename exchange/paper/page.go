package paper

import (
	"bytes"
	"cmp"
	"encoding/xml"
	"fmt"
	"slices"
	"strings"
	"time"

	"codeberg.org/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goitalic"
	"golang.org/x/image/font/gofont/goregular"
)

// Practice is how the practice is named and reached.
type Practice struct {
	Name      string
	Address   string // on lines of its own
	Telephone string
	Hours     string
	Logo      string // printed large; empty is the name
}

// reached is address, telephone and hours on one line.
func (p Practice) reached() string {
	return strings.Join(slices.DeleteFunc([]string{
		strings.Join(strings.FieldsFunc(p.Address, func(r rune) bool { return r == '\n' || r == '\r' }), ", "),
		p.Telephone, p.Hours,
	}, func(s string) bool { return strings.TrimSpace(s) == "" }), " · ")
}

// Heading is what stands on every page.
type Heading struct {
	Title    string
	Practice Practice
	Client   string // empty on a sheet that names nobody
	About    string // what day, by whom
	// Letter is the paper of a practice that measures in inches; else A4.
	Letter bool
	Made   time.Time
}

// Sizes in mm and points.
const (
	margin   = 18.0
	line     = 5.0
	small    = 8.5
	fine     = 9.0
	fineLine = 4.4
	normal   = 10.0
	large    = 17.0
	ink      = 35
	inkSoft  = 105
	rule     = 200
	fontName = "text"
)

// sheet is a document in the making.
type sheet struct {
	*fpdf.Fpdf
	head  Heading
	style string
	size  float64
	// added are the fonts of other scripts that the page has needed so far.
	added map[string]bool
	// unknown tells that a code stands for a sign.
	unknown bool
}

func newSheet(h Heading) *sheet {
	size := "A4"
	if h.Letter {
		size = "Letter"
	}
	pdf := fpdf.New("P", "mm", size, "")
	pdf.SetCatalogSort(true)
	pdf.SetCreationDate(h.Made)
	pdf.SetModificationDate(h.Made)
	pdf.SetTitle(inPlane(h.Title), true)
	pdf.SetLang(language)
	pdf.SetXmpMetadata(metadata(h))
	pdf.SetMargins(margin, margin, margin)
	pdf.SetCellMargin(0)
	pdf.SetAutoPageBreak(true, margin+6)
	pdf.AddUTF8FontFromBytes(fontName, "", goregular.TTF)
	pdf.AddUTF8FontFromBytes(fontName, "B", gobold.TTF)
	pdf.AddUTF8FontFromBytes(fontName, "I", goitalic.TTF)
	s := &sheet{Fpdf: pdf, head: h, added: map[string]bool{}}
	pdf.SetHeaderFunc(s.header)
	pdf.SetFooterFunc(s.footer)
	pdf.AliasNbPages("")
	pdf.AddPage()
	return s
}

// language is the pages' own; what a practice writes may be of another.
const language = "en"

// inPlane leaves out what the library cannot write into a document's own title; the metadata has it.
func inPlane(s string) string {
	return strings.Map(func(r rune) rune {
		if r > 0xffff {
			return -1
		}
		return r
	}, s)
}

// metadata names title, language and, with its zone, which the document's own dates lack, when the
// page was made (XMP).
func metadata(h Heading) []byte {
	var title bytes.Buffer
	if err := xml.EscapeText(&title, []byte(h.Title)); err != nil {
		return nil // a buffer takes everything
	}
	return fmt.Appendf(nil, `<?xpacket begin="" id="W5M0MpCehiHzreSzNTczkc9d"?>
<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description
 rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:xmp="http://ns.adobe.com/xap/1.0/">
<dc:title><rdf:Alt><rdf:li xml:lang="x-default">%s</rdf:li></rdf:Alt></dc:title>
<dc:language><rdf:Bag><rdf:li>%s</rdf:li></rdf:Bag></dc:language><xmp:CreateDate>%[3]s</xmp:CreateDate>
<xmp:ModifyDate>%[3]s</xmp:ModifyDate></rdf:Description></rdf:RDF></x:xmpmeta>
<?xpacket end="r"?>`, title.Bytes(), language, h.Made.Format(time.RFC3339))
}

func (s *sheet) width() float64 {
	w, _ := s.GetPageSize()
	return w - 2*margin
}

func (s *sheet) text(style string, size float64, grey int) {
	s.style, s.size = style, size
	s.SetFont(fontName, style, size)
	s.SetTextColor(grey, grey, grey)
}

// header is large on the first page and one line on the others.
func (s *sheet) header() {
	if s.PageNo() > 1 {
		s.text("", small, inkSoft)
		s.CellFormat(0, line, s.head.Title+dot(s.head.Client), "", 1, "L", false, 0, "")
		s.Ln(2)
		return
	}
	s.text("B", normal, ink)
	s.CellFormat(0, line, cmp.Or(s.head.Practice.Logo, s.head.Practice.Name), "", 1, "L", false, 0, "")
	s.text("", small, inkSoft)
	named := ""
	if logo := s.head.Practice.Logo; logo != "" && logo != s.head.Practice.Name {
		named = s.head.Practice.Name
	}
	if words := strings.Trim(named+dot(s.head.Practice.reached()), " ·"); words != "" {
		s.MultiCell(0, line-0.8, words, "", "L", false)
	}
	s.Ln(1.5)
	s.text("B", large, ink)
	s.MultiCell(0, 8, s.head.Title, "", "L", false)
	s.text("", normal, inkSoft)
	who := s.head.Client
	if who != "" && s.head.About != "" {
		who += " · "
	}
	if who += s.head.About; who != "" {
		s.MultiCell(0, line+0.5, who, "", "L", false)
	}
	s.Ln(1.5)
	s.ruled()
	s.Ln(3)
}

func dot(s string) string {
	if s == "" {
		return ""
	}
	return " · " + s
}

func (s *sheet) footer() {
	s.SetY(-margin)
	s.text("", small, inkSoft)
	s.CellFormat(s.width()/2, line, "Made "+s.head.Made.Format("2 January 2006, 15:04"), "", 0, "L", false, 0, "")
	s.CellFormat(s.width()/2, line, fmt.Sprintf("%d of {nb}", s.PageNo()), "", 0, "R", false, 0, "")
}

// ruled draws a hairline over the width.
func (s *sheet) ruled() {
	s.SetDrawColor(rule, rule, rule)
	s.SetLineWidth(0.25)
	s.Line(margin, s.GetY(), margin+s.width(), s.GetY())
}

// heading keeps some lines of what follows with it.
func (s *sheet) heading(words string) {
	s.room(22)
	s.Ln(2)
	s.text("B", 12, ink)
	s.CellFormat(0, 7, words, "", 1, "L", false, 0, "")
	s.text("", normal, ink)
}

// room begins a new page where less than so many mm are left.
func (s *sheet) room(mm float64) {
	_, h := s.GetPageSize()
	if s.GetY()+mm > h-margin-6 {
		s.AddPage()
	}
}

func (s *sheet) paragraph(words string) {
	s.text("", normal, ink)
	s.MultiCell(0, line, words, "", "L", false)
	s.Ln(1)
}

// item is a line of a list.
func (s *sheet) item(words string) {
	s.text("", normal, ink)
	x := s.GetX()
	s.CellFormat(5, line, "–", "", 0, "L", false, 0, "")
	s.MultiCell(0, line, words, "", "L", false)
	s.SetX(x)
	s.Ln(0.6)
}

// caution stands in a box, so that it is seen in grey too.
func (s *sheet) caution(words string) {
	s.room(14)
	s.SetDrawColor(ink, ink, ink)
	s.SetLineWidth(0.5)
	s.text("", normal, ink)
	s.SetCellMargin(2.5)
	s.MultiCell(0, line+1.5, words, "1", "L", false)
	s.SetCellMargin(0)
	s.Ln(2)
}

// bytes ends the document.
func (s *sheet) bytes() ([]byte, error) {
	if s.unknown {
		s.Ln(2)
		s.text("I", small, inkSoft)
		s.MultiCell(0, line, unknownSigns, "", "L", false)
	}
	var b bytes.Buffer
	if err := s.Output(&b); err != nil {
		return nil, fmt.Errorf("setting a page: %w", err)
	}
	return b.Bytes(), nil
}
