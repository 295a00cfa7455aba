package picture

import (
	"cmp"
	"math"
	"slices"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/stable"
)

// Layer names what can be laid on a figure.
type Layer string

// The layers.
const (
	Bones      Layer = "bones"
	Landmarks  Layer = "landmarks"
	Muscles    Layer = "muscles"
	Structures Layer = "structures"
	Referral   Layer = "referral"
)

var layers = []Layer{Bones, Landmarks, Muscles, Structures, Referral}

// Check implements decode.Checker.
func (l Layer) Check() *decode.Error {
	if slices.Contains(layers, l) {
		return nil
	}
	return &decode.Error{Path: "$", Given: string(l), Allowed: "one of bones, landmarks, muscles, structures, referral"}
}

// LayerRequest says which view and layers. Depth peels: muscles that lie above that
// layer fade (1 superficial … 4 deep; 0 fades none); Only keeps these muscles;
// Side keeps one side.
type LayerRequest struct {
	View     body.View    `json:"view"`
	Layers   []Layer      `json:"layers" maxItems:"10"`
	Depth    int          `json:"depth,omitempty" minimum:"0" maximum:"4"`
	Only     []ids.Muscle `json:"only,omitempty" maxItems:"100"`
	Side     ids.Side     `json:"side,omitempty"`
	HeightCM float64      `json:"height_cm,omitempty" minimum:"0" maximum:"250" doc:"0 or absent is 170"`
}

// Strand is one part of a muscle as SVG paths, in the order of drawing: the
// whole sheet where it has tendons, the belly over it, tendinous bands, and the
// lines of its fibres. Faded is what lies above the depth that is looked at.
type Strand struct {
	Muscle ids.Muscle `json:"muscle"`
	Name   string     `json:"name"`
	Side   ids.Side   `json:"side"`
	Layer  int        `json:"layer"`
	Sinew  string     `json:"sinew,omitempty"`
	Belly  string     `json:"belly,omitempty"`
	Bands  []string   `json:"bands"`
	Fibres []string   `json:"fibres"`
	Faded  bool       `json:"faded,omitempty"`
}

// Keep is a structure to keep off, with its radius in view units.
type Keep struct {
	Structure ids.Structure `json:"structure"`
	Name      string        `json:"name"`
	Side      ids.Side      `json:"side"`
	Sign      string        `json:"sign"`
	Do        string        `json:"do"`
	Tier      safety.Tier   `json:"tier" enum:"danger,caution,note"`
	Far       bool          `json:"far,omitempty" doc:"on the side that is turned away"`
	Radius    float64       `json:"radius"`
	Line      []body.Point  `json:"line"`
}

// Zone is a muscle's usual referral in the view.
type Zone struct {
	Muscle    ids.Muscle   `json:"muscle"`
	Side      ids.Side     `json:"side"`
	Size      float64      `json:"size" doc:"distance of neighbouring cells, view units"`
	Essential [][2]float64 `json:"essential"`
	Spillover [][2]float64 `json:"spillover"`
}

// ViewLayers is the layers of one view. Layers that were not asked for are empty.
type ViewLayers struct {
	// Bones, Landmarks, Muscles and Structures are there only when they were asked for.
	Bones      []body.Inner    `json:"bones"`
	Landmarks  []body.Landmark `json:"landmarks"`
	Strands    []Strand        `json:"strands"`
	Structures []Keep          `json:"structures"`
	Zones      []Zone          `json:"zones"`
	// Box holds the muscles that only were asked for, with their referral.
	Box *Box `json:"box,omitempty"`
}

// Draw lays the layers on a view.
func Draw(w LayerRequest) ViewLayers {
	d := ViewLayers{
		Bones: []body.Inner{}, Landmarks: []body.Landmark{}, Strands: []Strand{}, Structures: []Keep{}, Zones: []Zone{},
	}
	if w.HeightCM == 0 {
		w.HeightCM = body.DefaultHeightCM
	}
	d.guides(w)
	for _, m := range atlas.All() {
		if len(w.Only) > 0 && !slices.Contains(w.Only, m.ID) {
			continue
		}
		for _, side := range []ids.Side{ids.Left, ids.Right} {
			if w.shows(side) {
				d.muscle(w, m, side)
			}
		}
	}
	// The deepest first, so that superficial ones are drawn over them.
	stable.Sort(d.Strands, func(a, b Strand) int { return cmp.Compare(b.Layer, a.Layer) })
	return d
}

func (w LayerRequest) shows(s ids.Side) bool { return w.Side == "" || s == w.Side || s == ids.Midline }

// guides lays what is no muscle: bones, landmarks, structures to keep off.
func (d *ViewLayers) guides(w LayerRequest) {
	if w.has(Bones) {
		d.Bones = append(d.Bones, body.Bones(w.View)...)
	}
	if w.has(Landmarks) {
		for _, l := range body.LandmarksOf(w.View) {
			if w.shows(l.Side) {
				d.Landmarks = append(d.Landmarks, l)
			}
		}
	}
	if !w.has(Structures) {
		return
	}
	perMM := 0.1 / w.View.CMPerUnit(w.HeightCM)
	for _, s := range safety.Shapes(w.View) {
		if st, _ := safety.FindStructure(s.Structure); w.shows(s.Side) {
			d.Structures = append(d.Structures,
				Keep{s.Structure, st.Name, s.Side, st.Sign, st.Do, s.Tier, s.Far, s.RadiusMM * perMM, s.Line})
		}
	}
}

// muscle lays a muscle of a side, and, where it was asked for by name, its
// usual referral.
func (d *ViewLayers) muscle(w LayerRequest, m *atlas.Muscle, side ids.Side) {
	if w.has(Muscles) {
		for _, a := range m.Areas(w.View, side) {
			d.Strands = append(d.Strands, Strand{
				Muscle: m.ID, Name: m.Name, Side: side, Layer: m.Layer, Faded: m.Layer < w.Depth,
				Sinew: a.Sinew, Belly: a.Belly, Bands: a.Bands, Fibres: a.Fibres,
			})
		}
	}
	if len(w.Only) == 0 {
		return
	}
	if z, ok := zone(m, side, w.View); ok && w.has(Referral) {
		d.Zones = append(d.Zones, z)
	}
	if box, ok := boxOf(m, side, w, d.Zones); ok {
		if d.Box != nil {
			box = box.join(*d.Box)
		}
		d.Box = &box
	}
}

func (w LayerRequest) has(l Layer) bool { return slices.Contains(w.Layers, l) }

// zone lists the cells of a muscle's usual referral in a view, essential ones apart from
// spillover.
func zone(m *atlas.Muscle, side ids.Side, v body.View) (Zone, bool) {
	z := Zone{m.ID, side, v.CellSize(), [][2]float64{}, [][2]float64{}}
	ess, spill := map[ids.Region]bool{}, map[ids.Region]bool{}
	for _, s := range m.Sites {
		for _, r := range s.Essential {
			ess[r] = true
		}
		for _, r := range s.Spillover {
			spill[r] = true
		}
	}
	for _, n := range body.Cells(v) {
		if n.Side != side && n.Side != ids.Midline {
			continue
		}
		p := n.Cell.Center()
		at := [2]float64{math.Round(p.X*10) / 10, math.Round(p.Y*10) / 10}
		switch {
		case ess[n.Region]:
			z.Essential = append(z.Essential, at)
		case spill[n.Region]:
			z.Spillover = append(z.Spillover, at)
		}
	}
	return z, len(z.Essential)+len(z.Spillover) > 0
}
