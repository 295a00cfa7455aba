package safety

import (
	_ "embed" // the structures
	"math"
	"slices"
	"sync"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/solid"
)

// Structure is something to keep off: what it is, the sign that a finger is
// on it, and what to do then. Courses are placed from anatomy texts on the
// figure's landmarks; they vary from person to person, so the sign counts
// more than the line.
type Structure struct {
	ID   ids.Structure `json:"id"`
	Name string        `json:"name"`
	Sign string        `json:"sign"`
	Do   string        `json:"do"`
}

// Tier says what a stretch of a structure asks for (handbook 4, "Depth").
type Tier string

// The tiers: ceilings and no hard contact; named, no elbow and no tool; named.
const (
	Danger  Tier = "danger"
	Caution Tier = "caution"
	Note    Tier = "note"
)

// stretch is a piece of a structure's path. It goes on from the one before it, unless
// it lies apart.
type stretch struct {
	From   string       `json:"from" enum:"space,front,back,side,inner,sole"`
	Tier   Tier         `json:"tier" enum:"danger,caution,note"`
	Apart  bool         `json:"apart,omitempty"`
	Source string       `json:"source" minLength:"5"`
	Line   [][3]float64 `json:"line" minItems:"1" doc:"as solid.Authored reads them"`
}

// entry is one of data/structures.json: a path in space, of the left half.
type entry struct {
	Structure
	KeepOffMM float64   `json:"keep_off_mm" minimum:"1" maximum:"60" doc:"around its course"`
	RadiusMM  float64   `json:"radius_mm" minimum:"1" maximum:"60" doc:"its own"`
	Middle    bool      `json:"middle,omitempty" doc:"lies on the midline"`
	Only      ids.Side  `json:"only,omitempty" enum:"left,right" doc:"lies on this side only"`
	Stretches []stretch `json:"stretches" minItems:"1"`
}

//go:embed data/structures.json
var structureFile []byte

// keepOff is everything to keep off.
var keepOff = sync.OnceValue(structureData)

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

// piece is a straight piece of a structure, on a side of the body.
type piece struct {
	// of is the structure that it is a part of.
	of       *entry
	side     ids.Side
	from, to solid.Point
	// tier of this stretch: a nerve is dangerous where it lies bare and a caution where muscle
	// covers it.
	tier  Tier
	first bool // of a path
	// middle and half are of a ball around it, by which far pieces are passed over quickly.
	middle solid.Point
	half   float64 // of its length
}

// sides of the body that the structure lies on.
func (e *entry) sides() []ids.Side {
	switch {
	case e.Middle:
		return []ids.Side{ids.Midline}
	case e.Only != "":
		return []ids.Side{e.Only}
	}
	return []ids.Side{ids.Left, ids.Right}
}

// pieces of every structure, on both sides: the only geometry that there is. What a
// view shows and what is near a hand both come from it.
var pieces = sync.OnceValue(func() []piece {
	var out []piece
	for i := range keepOff() {
		e := &keepOff()[i]
		for _, side := range e.sides() {
			out = append(out, e.pieces(side)...)
		}
	}
	for i := range out {
		p := &out[i]
		p.half = p.from.Distance(p.to) / 2
		p.middle = p.from.Along(p.from.To(p.to), 0.5)
	}
	return out
})

// bend is a place of a path, with the tier of what comes before it.
type bend struct {
	at   solid.Point
	tier Tier
}

// paths of the structure, on a side.
func (e *entry) paths(side ids.Side) [][]bend {
	var out [][]bend
	for _, s := range e.Stretches {
		if s.Apart || len(out) == 0 {
			out = append(out, nil)
		}
		last := &out[len(out)-1]
		for _, raw := range s.Line {
			p, _ := solid.Authored(s.From, raw) // a test says that each lies in the body
			if side == ids.Right {
				p = p.Mirrored()
			}
			*last = append(*last, bend{p, s.Tier})
		}
	}
	return out
}

// smoothSteps divide the way between two places of a path, which is a smooth curve.
const smoothSteps = 3

// pieces are the straight parts of a course on a side, short enough for distances to be exact.
func (e *entry) pieces(side ids.Side) []piece {
	var out []piece
	for _, path := range e.paths(side) {
		points := make([]solid.Point, len(path))
		for i, b := range path {
			points[i] = b.at
		}
		first := true
		for i := 1; i < len(path); i++ {
			steps := smoothSteps
			if len(path) == 2 {
				steps = 1
			}
			for k := range steps {
				from := solid.OnCurve(points, i, float64(k)/float64(steps))
				to := solid.OnCurve(points, i, float64(k+1)/float64(steps))
				out = append(out, piece{of: e, side: side, from: from, to: to, tier: path[i].tier, first: first})
				first = false
			}
		}
	}
	return out
}

// Shape is what a view shows of a structure: a line with a keep-off radius in mm
// around it. Far: it lies on the side that is turned away.
type Shape struct {
	Structure ids.Structure `json:"structure"`
	Side      ids.Side      `json:"side"`
	View      body.View     `json:"view"`
	RadiusMM  float64       `json:"radius_mm"`
	Tier      Tier          `json:"tier"`
	Far       bool          `json:"far,omitempty"`
	Line      []body.Point  `json:"line"`
}

// bendMM is how long a piece may be before it is drawn in shorter ones.
const bendMM = 20

// Shapes gives the projections of every structure into a view.
func Shapes(v body.View) []Shape { return slices.Clone(allShapes()[v]) }

var allShapes = sync.OnceValue(func() map[body.View][]Shape {
	out := map[body.View][]Shape{}
	for _, v := range body.Views {
		out[v] = project(v)
	}
	return out
})

// project draws every course in a view, cut where it passes from the near side to the far one.
func project(v body.View) []Shape {
	var out []Shape
	open := false // the last shape may go on
	for _, p := range pieces() {
		n := max(int(math.Ceil(p.from.Distance(p.to)*solid.MMPerUnit/bendMM)), 1)
		for i := range n {
			a := p.from.Along(p.from.To(p.to), float64(i)/float64(n))
			b := p.from.Along(p.from.To(p.to), float64(i+1)/float64(n))
			middle := a.Along(a.To(b), 0.5)
			pa, _, oka := a.In(v)
			pb, _, okb := b.In(v)
			_, near, ok := middle.In(v)
			if !oka || !okb || !ok {
				open = false
				continue
			}
			last := len(out) - 1
			if !open || i == 0 && p.first || out[last].Far == near || out[last].Tier != p.tier ||
				out[last].Structure != p.of.ID || out[last].Side != p.side {
				out = append(out, Shape{p.of.ID, p.side, v, p.of.KeepOffMM, p.tier, !near, []body.Point{pa}})
				last++
			}
			out[last].Line = append(out[last].Line, pb)
			open = true
		}
	}
	return out
}

// Crossing is a structure that a level cuts.
type Crossing struct {
	Structure Structure
	Side      ids.Side
	Tier      Tier
	// At is where its course goes through the level.
	At        solid.Point
	KeepOffMM float64
	// RadiusMM is its own, KeepOffMM what has to be kept around it.
	RadiusMM float64
}

// CrossingsAt lists the structures that a level cuts.
func CrossingsAt(y float64) []Crossing {
	var out []Crossing
	for _, p := range pieces() {
		if (p.from.Y-y)*(p.to.Y-y) > 0 || p.from.Y == p.to.Y {
			continue
		}
		at := p.from.Along(p.from.To(p.to), (y-p.from.Y)/(p.to.Y-p.from.Y))
		if slices.ContainsFunc(out, func(c Crossing) bool {
			return c.Structure.ID == p.of.ID && c.Side == p.side && c.At.Distance(at) < 1
		}) {
			continue // where two pieces meet
		}
		out = append(out, Crossing{p.of.Structure, p.side, p.tier, at, p.of.KeepOffMM, p.of.RadiusMM})
	}
	return out
}
