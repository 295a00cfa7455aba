package sequence

import (
	"fmt"
	"slices"
	"strings"

	"mokren/core/decode"
	"mokren/core/ids"
)

// OwnSequence is a practice's own sequence: a copy of a shipped one, changed within the bounds of its
// techniques, or one of their own making.
type OwnSequence struct {
	Name  string `json:"name" minLength:"1" maxLength:"120"`
	Why   string `json:"for,omitempty" maxLength:"300" doc:"what it is for, in a line"`
	Block string `json:"block" enum:"warm-up,lengthen,close" doc:"the part of a session that it fills"`
	// From is the shipped one that it was copied from; only for the reader.
	From ids.Sequence `json:"from,omitempty"`
	Sequence
}

// Check implements decode.Checker: it has a name and from one to sixty steps, each allowed by its
// technique. The error names the step by its place in the list, from 0.
func (o OwnSequence) Check() *decode.Error {
	if strings.TrimSpace(o.Name) == "" {
		return &decode.Error{Path: "$.name", Given: fmt.Sprintf("%q", o.Name), Allowed: "a name"}
	}
	if !slices.Contains([]string{"warm-up", "lengthen", "close"}, o.Block) {
		return &decode.Error{
			Path: "$.block", Given: fmt.Sprintf("%q", o.Block), Allowed: "one of warm-up, lengthen, close",
		}
	}
	if !slices.Contains([]Sides{"", Once, Each, Whole}, o.Sides) {
		return &decode.Error{Path: "$.sides", Given: fmt.Sprintf("%q", o.Sides), Allowed: "one of once, each, whole"}
	}
	if n := len(o.Steps); n == 0 || n > MostSteps {
		return &decode.Error{Path: "$.steps", Given: fmt.Sprint(n, " steps"), Allowed: fmt.Sprint("1 to ", MostSteps)}
	}
	for i, s := range o.Steps {
		at := fmt.Sprintf("$.steps[%d]", i)
		if !slices.Contains(ids.Techniques(), s.Technique) {
			return s.Technique.Check().Under(at + ".technique")
		}
		if e := s.Check(); e != nil {
			return e.Under(at)
		}
		if s.Importance < 0 || s.Importance > 5 {
			return &decode.Error{Path: at + ".importance", Given: fmt.Sprint(s.Importance), Allowed: "1 to 5"}
		}
		if s.Position != "" && !slices.Contains(ids.Positions(), s.Position) {
			return s.Position.Check().Under(at + ".position")
		}
	}
	return nil
}

// MostSteps is how long a sequence may be.
const MostSteps = 60

// Regions are where its steps work, so that it is suggested for points that lie there.
func (s Sequence) Regions() []ids.Region {
	var out []ids.Region
	for _, step := range s.Steps {
		if step.Where == points {
			continue
		}
		_, _, where := PlaceOf(step.Where, ids.Left)
		for _, p := range where {
			out = ids.With(out, p.Region)
		}
	}
	return out
}
