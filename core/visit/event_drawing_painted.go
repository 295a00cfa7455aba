package visit

import (
	"cmp"
	"fmt"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/rights"
)

var drawingPainted = kind{
	name: "drawing-painted",
	body: func() Body { return new(DrawingPainted) },
	by:   rights.Role.Clinical,
}

// Stroke is cells of a pain drawing of one kind and intensity. Intensity 0
// erases.
type Stroke struct {
	Kind      string   `json:"kind" enum:"ache,sharp,burning,numb-tingling,headache"`
	Intensity int      `json:"intensity" minimum:"0" maximum:"10"`
	Cells     []string `json:"cells" maxItems:"20000"`
}

// Check implements decode.Checker: every cell has a name that a figure of ours
// can have. Whether it is on today's is asked when it is judged.
func (s Stroke) Check() *decode.Error {
	for i, id := range s.Cells {
		if _, err := body.ParseCell(id); err == nil {
			continue
		}
		return &decode.Error{
			Path: fmt.Sprintf("$.cells[%d]", i), Given: fmt.Sprintf("%q", id),
			Allowed: "a cell on the figure, written view:q,r",
		}
	}
	return nil
}

// DrawingPainted adds strokes to the visit's pain drawing.
type DrawingPainted struct {
	Figure  string   `json:"figure" maxLength:"40" doc:"figure version in which it was painted"`
	Strokes []Stroke `json:"strokes" minItems:"1" maxItems:"400"`
	// By tells who drew: the therapist, or the client on an own device.
	By string `json:"by,omitempty" enum:"therapist,client"`
}

// OnFigure refuses a drawing of a figure that never was, or with a cell off
// today's. Of an earlier figure a cell need only lie in its view: one that
// today's has not is named nowhere.
func (p DrawingPainted) OnFigure(version string) *decode.Error {
	if p.Figure != version && p.Figure != atlas.Figure1 && p.Figure != atlas.Figure2 {
		return &decode.Error{Path: "$.figure", Given: fmt.Sprintf("%q", p.Figure), Allowed: version}
	}
	for i, s := range p.Strokes {
		for k, id := range s.Cells {
			if c, err := body.ParseCell(id); err == nil {
				_, on := body.RegionOf(c)
				if on || p.Figure == atlas.Figure1 && c.InView() {
					continue
				}
			}
			return &decode.Error{
				Path: fmt.Sprintf("$.strokes[%d].cells[%d]", i, k), Given: fmt.Sprintf("%q", id),
				Allowed: "a cell on the figure, written view:q,r",
			}
		}
	}
	return nil
}

// admit asks that every cell lies on the figure of today: areas are counted in cells.
func (p *DrawingPainted) admit(j *Validator, _ *Event) error {
	if e := p.OnFigure(j.rules.Figure); e != nil {
		return e.Under("$.body")
	}
	return nil
}

// apply lays the strokes over what was painted before; a later stroke covers an earlier one.
func (p *DrawingPainted) apply(r *reducer, _ Event) error {
	r.paint(p)
	return nil
}

// timeline says whose hand it was, for a client paints on a device of their own.
func (p *DrawingPainted) timeline() string {
	return "Pain drawing painted, by the " + cmp.Or(p.By, "therapist")
}
