package paper

import (
	"fmt"
	"slices"
	"strings"

	"mokren/core/body"
	"mokren/core/visit"
)

// NotePage is a visit's note as it is printed.
type NotePage struct {
	Heading
	Text visit.NoteText
	// SignedBy is who signed, and when; empty on a note that nobody has signed.
	SignedBy string
	Addenda  []string
	Spots    []Spot
	// Points and Ranges are the tables beside the map, as the visit stands.
	Points []PointRow
	Ranges []RangeRow
}

// PointRow is a point with what became of it; Number is that of the map.
type PointRow struct {
	Number                 int
	Name                   string
	Before, After, Results string
}

// RangeRow is a movement on one side, before and after.
type RangeRow struct{ Name, Before, After, Change string }

// Note sets a note: what was found and done at a glance, then the text word for word.
func Note(n NotePage) ([]byte, error) {
	s := newSheet(n.Heading)
	s.glance(n)
	for _, part := range []struct{ title, text string }{
		{"Subjective", n.Text.Subjective},
		{"Objective", n.Text.Objective},
		{"Assessment", n.Text.Assessment},
		{"Plan", n.Text.Plan},
	} {
		s.heading(part.title)
		s.text("", fine, ink)
		for l := range strings.SplitSeq(part.text, "\n") {
			if strings.TrimSpace(l) != "" {
				s.MultiCell(0, fineLine, l, "", "L", false)
				s.Ln(0.4)
			}
		}
	}
	s.Ln(3)
	s.ruled()
	s.Ln(2)
	if n.SignedBy == "" {
		s.text("I", normal, ink)
		s.MultiCell(0, line, "Not signed: a draft.", "", "L", false)
	} else {
		s.text("B", normal, ink)
		s.MultiCell(0, line, "Signed: "+n.SignedBy, "", "L", false)
	}
	for i, a := range n.Addenda {
		if i == 0 {
			s.heading("Addenda")
		}
		s.paragraph(a)
	}
	return s.bytes()
}

// glance is the body map with the points and ranges of the visit, before and after.
func (s *sheet) glance(n NotePage) {
	if len(n.Spots) > 0 {
		s.bodyMap(viewsOf(n.Spots), n.Spots, 62)
		s.legend("Full: the client's own pain. Larger: more tender. Numbers as below.")
	}
	wide := s.width()
	if len(n.Points) > 0 {
		rows := make([][]string, len(n.Points))
		for i, p := range n.Points {
			rows[i] = []string{fmt.Sprint(p.Number), p.Name, p.Before, p.After, p.Results}
		}
		s.rows([]string{"", "Point", "Before", "After", "Result"},
			[]float64{7, 62, 16, 16, wide - 101}, rows)
		s.Ln(3)
	}
	if len(n.Ranges) > 0 {
		rows := make([][]string, len(n.Ranges))
		for i, r := range n.Ranges {
			rows[i] = []string{r.Name, r.Before, r.After, r.Change}
		}
		s.rows([]string{"Range", "Before", "After", "Change"}, []float64{69, 16, 16, wide - 101}, rows)
		s.Ln(3)
	}
}

// viewsOf are front and back, and every other view in which a point lies: none is numbered in
// the table and missing on the map.
func viewsOf(spots []Spot) []body.View {
	views := []body.View{body.Front, body.Back}
	for _, v := range body.Views {
		lies := slices.ContainsFunc(spots, func(p Spot) bool { return p.View == v })
		if lies && !slices.Contains(views, v) {
			views = append(views, v)
		}
	}
	return views
}

// IncidentPage is what went wrong at a visit, for whoever asks for it.
type IncidentPage struct {
	Heading
	// Incidents are the visit's, each with when and by whom it was written.
	Incidents []DatedIncident
}

// DatedIncident is one with when and by whom it was written.
type DatedIncident struct {
	Written string
	visit.Incident
}

// Incident sets the record of what went wrong.
func Incident(p IncidentPage) ([]byte, error) {
	s := newSheet(p.Heading)
	for _, x := range p.Incidents {
		s.heading("Written " + x.Written)
		for _, part := range []struct{ title, text string }{
			{"What happened", x.Happened}, {"What was done", x.Done}, {"Who was told", x.Told},
		} {
			s.text("B", normal, ink)
			s.MultiCell(0, line, part.title, "", "L", false)
			s.paragraph(part.text)
		}
	}
	return s.bytes()
}

// LetterPage is a referral letter.
type LetterPage struct {
	Heading
	visit.Letter
}

// Letter sets it; one without a name says that it is a draft.
func Letter(p LetterPage) ([]byte, error) {
	s := newSheet(p.Heading)
	s.text("", normal, ink)
	s.MultiCell(0, line, p.To, "", "L", false)
	s.Ln(4)
	for l := range strings.SplitSeq(p.Text, "\n") {
		if strings.TrimSpace(l) == "" {
			s.Ln(2)
			continue
		}
		s.paragraph(l)
	}
	s.Ln(6)
	if p.Name == "" {
		s.text("I", normal, ink)
		s.MultiCell(0, line, "Not signed: a draft.", "", "L", false)
	} else {
		s.text("B", normal, ink)
		s.MultiCell(0, line, p.Name, "", "L", false)
	}
	return s.bytes()
}

// callUs heads what is not usual, with the number where the practice has one.
func callUs(telephone string) string {
	if telephone == "" {
		return "Not usual: call us"
	}
	return "Not usual: call us, " + telephone
}

// AftercarePage is the sheet that a client takes home.
type AftercarePage struct {
	Heading
	Care visit.Aftercare
	// Emergency is the number that is called for urgent medical care.
	Emergency string
}

// Aftercare sets it; it names nobody.
func Aftercare(a AftercarePage) ([]byte, error) {
	s := newSheet(a.Heading)
	s.heading("Worked today")
	for _, w := range a.Care.Worked {
		s.item(w)
	}
	s.heading("Stretches")
	if slices.ContainsFunc(a.Care.Stretches, func(x visit.HomeStretch) bool { return x.Drawing != nil }) {
		s.paragraph("The drawings show which way a muscle is lengthened, as you stand.")
	}
	for _, x := range a.Care.Stretches {
		sides := make([]string, len(x.Sides))
		for i, side := range x.Sides {
			sides[i] = string(side)
		}
		s.shown(x.Drawing, fmt.Sprintf("%s, %s: %s %d times, hold %d s each, without pain; compare the other side.",
			x.Name, strings.Join(sides, " and "), x.Text, x.Repeats, x.HoldS))
	}
	s.heading("Usual after this")
	for _, u := range a.Care.Usual {
		s.item(u)
	}
	s.heading(callUs(a.Practice.Telephone))
	s.caution(strings.Join(a.Care.NotUsual, "\n"))
	s.paragraph("Urgent medical care: " + a.Emergency + ".")
	s.heading("Next visit")
	s.paragraph(fmt.Sprintf("In %d to %d days. %s", a.Care.Next.FromDays, a.Care.Next.ToDays, a.Care.Next.Why))
	return s.bytes()
}
