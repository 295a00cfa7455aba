package safety

import (
	_ "embed" // the structures
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"sync"

	"mokren/core/body"
	"mokren/core/ids"
)

// Structure is something to keep off: what it is, the sign that a finger is
// on it, and what to do then. Courses are drawn from anatomy texts on the
// figure's landmarks; they vary from person to person, so the sign counts
// more than the line.
type Structure struct {
	ID   ids.Structure `json:"id"`
	Name string        `json:"name"`
	Sign string        `json:"sign"`
	Do   string        `json:"do"`
	// DepthMM is how deep below the skin it usually runs where it is nearest to
	// a hand, in a body of middling build: a working value. Absent: just below
	// the skin, or not known.
	DepthMM float64 `json:"depth_mm,omitempty" minimum:"0" maximum:"120"`
}

// Shape is a structure's geometry in one view: a line (a point when it has
// one place) with a keep-off radius in mm around it.
type Shape struct {
	Structure ids.Structure `json:"structure"`
	Side      ids.Side      `json:"side"`
	View      body.View     `json:"view"`
	RadiusMM  float64       `json:"radius_mm"`
	Line      []body.Point  `json:"line"`
}

// course is authored like the figure: front and back as the half with x
// outward, the side view with x forward.
type course struct {
	View     body.View    `json:"view"`
	Middle   bool         `json:"middle,omitempty" doc:"lies on the midline"`
	Only     ids.Side     `json:"only,omitempty" enum:"left,right" doc:"lies on this side only"`
	RadiusMM float64      `json:"radius_mm" minimum:"1" maximum:"60"`
	Line     [][2]float64 `json:"line" minItems:"1" doc:"x, y in view units"`
}

// point of the line.
func (c course) point(i int) body.Point { return body.Point{X: c.Line[i][0], Y: c.Line[i][1]} }

// entry is one of data/structures.json.
type entry struct {
	Structure
	Courses []course `json:"courses" minItems:"1"`
}

//go:embed data/structures.json
var structureFile []byte

// keepOff reads the embedded file; the tests have read it strictly.
var keepOff = sync.OnceValue(func() []entry {
	var out []entry
	if err := json.Unmarshal(structureFile, &out); err != nil {
		panic(fmt.Errorf("reading structures.json: %w", err))
	}
	return out
})

// Structures lists everything to keep off.
func Structures() []Structure {
	out := make([]Structure, len(keepOff()))
	for i, e := range keepOff() {
		out[i] = e.Structure
	}
	return out
}

// FindStructure gives a structure by id.
func FindStructure(id ids.Structure) (Structure, bool) {
	for _, e := range keepOff() {
		if e.ID == id {
			return e.Structure, true
		}
	}
	return Structure{}, false
}

// Shapes gives the geometry of every structure that a view shows.
func Shapes(v body.View) []Shape {
	var out []Shape
	for _, e := range keepOff() {
		for _, c := range e.Courses {
			if !v.Shows(c.View, c.point(0)) {
				continue
			}
			for _, s := range c.sides(v) {
				sh := Shape{e.ID, s, v, c.RadiusMM, make([]body.Point, len(c.Line))}
				for i := range c.Line {
					sh.Line[i] = v.Place(c.point(i), s)
				}
				out = append(out, sh)
			}
		}
	}
	return out
}

// sides of the body on which a view shows the course.
func (c course) sides(v body.View) []ids.Side {
	shown := []ids.Side{ids.Left, ids.Right}
	if v.OneSided() {
		shown = []ids.Side{v.SideAt(body.Point{})}
	}
	switch {
	case c.Middle:
		return []ids.Side{ids.Midline}
	case c.Only != "":
		return slices.DeleteFunc(shown, func(s ids.Side) bool { return s != c.Only })
	}
	return shown
}

// Within lists the structures within whose keep-off radius a place of a view lies.
func Within(v body.View, p body.Point, side ids.Side, heightCM float64) []ids.Structure {
	var out []ids.Structure
	for _, s := range shapesOf(v) {
		if (s.Side == side || s.Side == ids.Midline) && s.Distance(p)*v.CMPerUnit(heightCM)*10 <= s.RadiusMM {
			out = ids.With(out, s.Structure)
		}
	}
	return out
}

// shapesOf keeps the geometry of each view.
func shapesOf(v body.View) []Shape { return allShapes()[v] }

var allShapes = sync.OnceValue(func() map[body.View][]Shape {
	out := map[body.View][]Shape{}
	for _, v := range body.Views {
		out[v] = Shapes(v)
	}
	return out
})

// Distance in view units from a point to the structure's line.
func (s Shape) Distance(p body.Point) float64 {
	best := math.Inf(1)
	for i := range s.Line {
		best = min(best, body.ToSegment(p, s.Line[i], s.Line[min(i+1, len(s.Line)-1)]))
	}
	return best
}
