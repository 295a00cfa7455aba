package atlas

import (
	"math"
	"strings"

	"mokren/core/body"
	"mokren/core/ids"
)

// Measure is how far a site lies from a landmark, or from a place beside it in units of
// the site's view. Words take it from the place itself, so the two cannot disagree.
type Measure struct {
	From ids.Landmark `json:"from"`
	Out  float64      `json:"out,omitempty"`
	Down float64      `json:"down,omitempty"`
	In   string       `json:"in" enum:"fingers,finger-widths,hands"`
	// To is the site that a step measures to, the first where none is named.
	To string `json:"to,omitempty"`
}

// slot is where the words of a measure go, in the name of a site or the text of a step.
const slot = "{measure}"

// fillMeasures writes the measures into the names and steps.
func (m *Muscle) fillMeasures() {
	for i := range m.Sites {
		if s := &m.Sites[i]; s.Measure != nil {
			s.Name = filled(s.Name, m.words(*s.Measure, s))
		}
	}
	for i := range m.Find {
		if st := &m.Find[i]; st.Measure != nil {
			if s, ok := m.Site(st.Measure.To); ok {
				st.Text = filled(st.Text, m.words(*st.Measure, s))
			}
		}
	}
}

// filled puts the words of a measure into a text, with a capital where they begin it.
func filled(text, words string) string {
	if strings.HasPrefix(text, slot) {
		words = sentenceCase(words)
	}
	return strings.Replace(text, slot, words, 1)
}

func sentenceCase(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

// words tell the distance of a site in a body of 170 cm.
func (m *Muscle) words(x Measure, s *Site) string {
	v, p := m.OnFigure(s.Place(body.DefaultHeightCM), ids.Left, body.DefaultHeightCM)
	from, err := body.FindLandmark(v, x.From, ids.Left)
	if err != nil {
		return "" // checked when the file was read
	}
	cm := p.Distance(body.Offset(v, from, ids.Left, x.Out, x.Down)) * v.CMPerUnit(body.DefaultHeightCM)
	switch x.In {
	case "hands":
		return inHands(cm / (4 * FingerWidthCM))
	case "finger-widths":
		return strings.Replace(inFingers(cm/FingerWidthCM), "finger", "finger-width", 1)
	}
	return inFingers(cm / FingerWidthCM)
}

var numerals = [...]string{"no", "one", "two", "three", "four", "five", "six", "seven", "eight"}

// between is how far from a whole finger-width a distance is told as from one to the
// next.
const between = 0.35

// inFingers rounds to a finger, or says "two to three" where it lies in between.
func inFingers(n float64) string {
	low := int(math.Floor(n + between))
	if n-math.Floor(n) > between && n-math.Floor(n) < 1-between {
		low = int(math.Floor(n))
		return numeral(low) + " to " + numeral(low+1) + " fingers"
	}
	if low == 1 {
		return "one finger"
	}
	return numeral(low) + " fingers"
}

// numeral is a number in words; beyond eight nobody counts fingers.
func numeral(n int) string { return numerals[min(max(n, 0), len(numerals)-1)] }

// inHands rounds to half a hand.
func inHands(n float64) string {
	halves := max(int(math.Round(n*2)), 1)
	switch {
	case halves == 1:
		return "half a hand"
	case halves == 2:
		return "a hand"
	case halves == 3:
		return "a hand and a half"
	case halves%2 == 1:
		return numeral(halves/2) + " and a half hands"
	}
	return numeral(halves/2) + " hands"
}
