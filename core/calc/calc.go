// Package calc is the door to the core: a name, a JSON document in, a JSON
// document out. The command line, the HTTP API and the browser all come
// through here, so they cannot differ.
//
//	out, err := calc.Run("change", []byte(`{"measure":"nprs","before":7,"after":4}`))
//
// Errors are *strict.Error and name the field by its JSON path.
package calc

import (
	"encoding/json"
	"fmt"
	"strings"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/strict"
)

// Calc is one named computation.
type Calc struct {
	Name    string
	Summary string
	Example string // a valid input
	Lines   bool   // JSON lines in and out instead of one document
	run     func(raw []byte) ([]byte, error)
}

var all = []Calc{
	{"cells", "The cells of some regions in a view", `{"view":"back","regions":[{"region":"heel","side":"left"}]}`, false, typed(Cells)},
	{"change", "Is the change of a measure meaningful?", `{"measure":"nprs","before":7,"after":4}`, false, typed(Change)},
	{"coach", "Run the log of one hold", coachExample, true, coachLines},
	{"palpate", "How to find and confirm a muscle on this client", `{"muscle":"infraspinatus","side":"left","site":"upper-inner","height_cm":168}`, false, typed(Palpate)},
	{"range", "Is a range of motion reading short?", `{"movement":"cervical.rotation","active_deg":60,"other_side_deg":74,"age":44}`, false, typed(Range)},
	{"under", "Which muscles lie under a touched place", `{"view":"back","x":195,"y":770,"height_cm":170}`, false, typed(Under)},
}

// List gives the computations in the order of their names.
func List() []Calc { return all }

// Find looks a computation up.
func Find(name string) (Calc, bool) {
	for _, c := range all {
		if c.Name == name {
			return c, true
		}
	}
	return Calc{}, false
}

// Run computes. The output ends with a newline.
func Run(name string, raw []byte) ([]byte, error) {
	c, ok := Find(name)
	if !ok {
		names := make([]string, len(all))
		for i := range all {
			names[i] = all[i].Name
		}
		return nil, &strict.Error{Path: "NAME", Given: fmt.Sprintf("%q", name), Allowed: "one of " + strings.Join(names, ", ")}
	}
	return c.run(raw)
}

func typed[In, Out any](f func(In) (Out, error)) func([]byte) ([]byte, error) {
	return func(raw []byte) ([]byte, error) {
		var in In
		if err := strict.Decode(raw, &in); err != nil {
			return nil, err
		}
		out, err := f(in)
		if err != nil {
			return nil, err
		}
		b, err := json.Marshal(out)
		return append(b, '\n'), err
	}
}

// ChangeIn asks about a pair or a series.
type ChangeIn struct {
	Measure ids.Measure        `json:"measure"`
	Before  *float64           `json:"before,omitempty"`
	After   *float64           `json:"after,omitempty"`
	Series  []progress.Reading `json:"series,omitempty"`
}

// Change judges whether a change is meaningful.
func Change(in ChangeIn) (progress.Change, error) {
	if in.Series != nil {
		if in.Before != nil || in.After != nil {
			return progress.Change{}, &strict.Error{Path: "$.series", Given: "a series and a pair", Allowed: "before and after, or series"}
		}
		return progress.Series(in.Measure, in.Series)
	}
	for _, f := range []struct {
		path string
		v    *float64
	}{{"$.before", in.Before}, {"$.after", in.After}} {
		if f.v == nil {
			return progress.Change{}, &strict.Error{Path: f.path, Given: "nothing", Allowed: "a number (or give series)"}
		}
	}
	return progress.Pair(in.Measure, *in.Before, *in.After)
}

// PalpateIn names a muscle on a side; without a site it means all of them.
type PalpateIn struct {
	Muscle   ids.Muscle `json:"muscle"`
	Side     ids.Side   `json:"side"`
	Site     string     `json:"site,omitempty"`
	HeightCM *float64   `json:"height_cm,omitempty" minimum:"50" maximum:"250"`
}

// Palpate computes the palpation guide.
func Palpate(in PalpateIn) (atlas.Guide, error) {
	if in.Side == ids.Midline {
		return atlas.Guide{}, &strict.Error{Path: "$.side", Given: `"midline"`, Allowed: "one of left, right"}
	}
	m, err := atlas.Get(in.Muscle)
	if err != nil {
		var with []string
		for _, m := range atlas.All() {
			with = append(with, string(m.ID))
		}
		return atlas.Guide{}, &strict.Error{Path: "$.muscle", Given: fmt.Sprintf("%q", in.Muscle), Allowed: "a muscle with atlas data: " + strings.Join(with, ", ")}
	}
	if _, ok := m.Site(in.Site); !ok {
		var sites []string
		for _, s := range m.Sites {
			sites = append(sites, s.ID)
		}
		return atlas.Guide{}, &strict.Error{Path: "$.site", Given: fmt.Sprintf("%q", in.Site), Allowed: "one of " + strings.Join(sites, ", ")}
	}
	return m.Palpate(in.Side, in.Site, height(in.HeightCM))
}

func height(h *float64) float64 {
	if h == nil {
		return body.DefaultHeightCM
	}
	return *h
}

// UnderIn is a touched place of a view.
type UnderIn struct {
	View     string   `json:"view" enum:"front,back,sole-left,sole-right"`
	X        float64  `json:"x" minimum:"0" maximum:"1000"`
	Y        float64  `json:"y" minimum:"0" maximum:"1000"`
	HeightCM *float64 `json:"height_cm,omitempty" minimum:"50" maximum:"250"`
}

// UnderOut names the place and the muscles beneath it, likeliest first.
type UnderOut struct {
	Region  ids.Region        `json:"region,omitempty" doc:"empty off the figure"`
	Side    ids.Side          `json:"side"`
	Cell    string            `json:"cell"`
	Muscles []atlas.Candidate `json:"muscles"`
}

// Under answers a touch on the figure.
func Under(in UnderIn) (UnderOut, error) {
	v, p := body.View(in.View), body.Point{X: in.X, Y: in.Y}
	cell := body.CellAt(v, p)
	out := UnderOut{Cell: cell.String(), Side: v.SideAt(p), Muscles: []atlas.Candidate{}}
	if n, ok := body.RegionOf(cell); ok {
		out.Region, out.Side = n.Region, n.Side
		out.Muscles = append(out.Muscles, atlas.Under(v, p, height(in.HeightCM))...)
	}
	return out, nil
}

// RegionSide is a region of the body on a side; midline regions accept any.
type RegionSide struct {
	Region ids.Region `json:"region"`
	Side   ids.Side   `json:"side"`
}

// CellsIn asks for the cells of regions in one view.
type CellsIn struct {
	View    string       `json:"view" enum:"front,back,sole-left,sole-right"`
	Regions []RegionSide `json:"regions" maxItems:"200"`
}

// CellsOut gives the centres of the cells, in view units, and their distance.
type CellsOut struct {
	Size  float64      `json:"size"`
	Cells [][2]float64 `json:"cells"`
}

// Cells finds the cells that belong to the regions, for drawing them.
func Cells(in CellsIn) (CellsOut, error) {
	v := body.View(in.View)
	out := CellsOut{Size: v.CellSize(), Cells: [][2]float64{}}
	for _, n := range body.Cells(v) {
		for _, r := range in.Regions {
			if n.Region == r.Region && (n.Side == r.Side || n.Side == ids.Midline || r.Side == ids.Midline) {
				p := n.Cell.Center()
				out.Cells = append(out.Cells, [2]float64{p.X, p.Y})
				break
			}
		}
	}
	return out, nil
}

// RangeIn is one reading; without degrees it only asks for the reference.
type RangeIn struct {
	Movement  ids.Movement `json:"movement"`
	ActiveDeg *float64     `json:"active_deg,omitempty" minimum:"-90" maximum:"360"`
	OtherDeg  *float64     `json:"other_side_deg,omitempty" minimum:"-90" maximum:"360"`
	Age       int          `json:"age,omitempty" minimum:"0" maximum:"130" doc:"years; 0 or absent is unknown"`
}

// Range flags a short reading, with the reference and the reason.
func Range(in RangeIn) (progress.RangeFlag, error) {
	if _, ok := progress.Reference(in.Movement, in.Age); !ok {
		return progress.RangeFlag{}, &strict.Error{Path: "$.movement", Given: fmt.Sprintf("%q", in.Movement), Allowed: "a movement with a reference range"}
	}
	if in.ActiveDeg == nil {
		f := progress.Flag(in.Movement, 360, nil, in.Age)
		return f, nil
	}
	return progress.Flag(in.Movement, *in.ActiveDeg, in.OtherDeg, in.Age), nil
}
