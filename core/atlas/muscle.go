// Package atlas knows the muscles: where they run, where their trigger points
// usually lie, how to find and confirm them, what is near, and where they send
// pain. The knowledge is data, one file per muscle in data/; this package
// loads and checks it and places it on the figure.
//
// What the atlas says is a guide from the standard anatomy and myofascial-pain
// literature, never proof about one client.
package atlas

import (
	"embed"
	"fmt"
	"io/fs"
	"slices"
	"sync"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/strict"
)

// Anchor is a place given from a landmark: units outward (toward the side,
// negative inward) and down, in the view's units.
type Anchor struct {
	Landmark ids.Landmark `json:"landmark"`
	Out      float64      `json:"out,omitempty"`
	Down     float64      `json:"down,omitempty"`
}

// Fibre is one line along which the muscle runs, in one view. The view "sole"
// means the sole of the muscle's side.
type Fibre struct {
	View     string   `json:"view" enum:"front,back,sole"`
	Path     []Anchor `json:"path" minItems:"2"`
	SpreadMM float64  `json:"spread_mm" minimum:"5" maximum:"150" doc:"width of the muscle across this line, mm"`
}

// Site is a usual trigger-point site: a place on a fibre with its own
// referral pattern.
type Site struct {
	ID         string       `json:"id"`
	Name       string       `json:"name"`
	Fibre      int          `json:"fibre" minimum:"0"`
	AlongPct   float64      `json:"along_pct" minimum:"0" maximum:"100" doc:"percent of the fibre's length from its start"`
	AcrossMM   float64      `json:"across_mm,omitempty" doc:"mm from the fibre line, outward positive"`
	Reach      string       `json:"reach" enum:"easy,moderate,hard,not on large bodies"`
	Essential  []ids.Region `json:"essential" minItems:"1"`
	Spillover  []ids.Region `json:"spillover,omitempty"`
	Particular string       `json:"note,omitempty"`
}

// Step is one palpation step at a landmark.
type Step struct {
	Landmark ids.Landmark `json:"landmark,omitempty"`
	Text     string       `json:"text"`
}

// JointPosition is a movement and, where known, how far in degrees.
type JointPosition struct {
	Movement ids.Movement `json:"movement"`
	Deg      *float64     `json:"deg,omitempty"`
	Text     string       `json:"text,omitempty"`
}

// Neighbour is a muscle that is mistaken for this one.
type Neighbour struct {
	Muscle ids.Muscle `json:"muscle"`
	Tell   string     `json:"tell"`
}

// Near is a structure to keep off, as a line in the muscle's first view.
type Near struct {
	Structure ids.Structure `json:"structure"`
	Line      []Anchor      `json:"line" minItems:"1"`
	Text      string        `json:"text"`
}

// Confirm is the contraction to ask for and what should be felt.
type Confirm struct {
	Movement ids.Movement `json:"movement"`
	Text     string       `json:"text"`
}

// Usual is the usual protocol for this muscle and why.
type Usual struct {
	Protocol ids.Protocol `json:"protocol"`
	Why      string       `json:"why"`
}

// Stretch is the home stretch.
type Stretch struct {
	Text    string `json:"text"`
	Repeats int    `json:"repeats" minimum:"1" maximum:"10"`
	HoldS   int    `json:"hold_s" minimum:"1" maximum:"120"`
}

// Attachment of the muscle, as a landmark and in words.
type Attachment struct {
	Landmark ids.Landmark `json:"landmark"`
	Text     string       `json:"text"`
}

// Muscle is one data file.
type Muscle struct {
	ID          ids.Muscle      `json:"id"`
	Name        string          `json:"name"`
	Latin       string          `json:"latin"`
	Region      string          `json:"region" enum:"head-and-neck,shoulder-girdle,arm-and-hand,trunk,hip-and-thigh,leg-and-foot"`
	Layer       int             `json:"layer" minimum:"1" maximum:"4"`
	Attachments []Attachment    `json:"attachments" minItems:"2"`
	Fibres      []Fibre         `json:"fibres" minItems:"1"`
	Actions     []ids.Movement  `json:"actions" minItems:"1"`
	Restricts   []ids.Movement  `json:"restricts" minItems:"1"`
	Innervation string          `json:"innervation"`
	Synergists  []ids.Muscle    `json:"synergists"`
	Antagonists []ids.Muscle    `json:"antagonists"`
	Sites       []Site          `json:"sites" minItems:"1"`
	Find        []Step          `json:"find" minItems:"3"`
	Strum       string          `json:"strum"`
	Trace       string          `json:"trace"`
	MistakenFor []Neighbour     `json:"mistaken_for" minItems:"1"`
	Confirm     Confirm         `json:"confirm"`
	Tension     []JointPosition `json:"tension" minItems:"1"`
	Slack       []JointPosition `json:"slack" minItems:"1"`
	Positions   []ids.Position  `json:"positions" minItems:"1"`
	Contacts    []ids.Contact   `json:"contacts" minItems:"1"`
	Draping     string          `json:"draping"`
	Near        []Near          `json:"near"`
	EaseFirst   []ids.Muscle    `json:"ease_first"`
	Cautions    []string        `json:"cautions" minItems:"1"`
	Usual       Usual           `json:"usual_protocol"`
	Stretch     Stretch         `json:"home_stretch"`
	Sources     []string        `json:"sources" minItems:"1"`
}

//go:embed data/*.json
var data embed.FS

var load = sync.OnceValues(func() (map[ids.Muscle]*Muscle, error) { return read(data) })

// read loads and checks every file of a folder; an error names file and field.
func read(files fs.FS) (map[ids.Muscle]*Muscle, error) {
	names, err := fs.Glob(files, "data/*.json")
	if err != nil {
		return nil, err
	}
	all := map[ids.Muscle]*Muscle{}
	for _, n := range names {
		raw, err := fs.ReadFile(files, n)
		if err != nil {
			return nil, err
		}
		m := new(Muscle)
		if err := strict.Decode(raw, m); err != nil {
			return nil, fmt.Errorf("atlas: %s: %w", n, err)
		}
		if string(m.ID)+".json" != n[len("data/"):] {
			return nil, fmt.Errorf("atlas: %s: $.id: given %q; allowed: the file's name", n, m.ID)
		}
		if err := m.check(); err != nil {
			return nil, fmt.Errorf("atlas: %s: %w", n, err)
		}
		all[m.ID] = m
	}
	return all, nil
}

// check holds what a single file can tell about itself.
func (m *Muscle) check() error {
	refuse := func(path, given, allowed string) error {
		return &strict.Error{Path: path, Given: given, Allowed: allowed}
	}
	for i, f := range m.Fibres {
		for j, a := range f.Path {
			v := viewOf(f.View, ids.Left)
			p, err := a.point(v, ids.Left)
			if err != nil {
				return refuse(fmt.Sprintf("$.fibres[%d].path[%d]", i, j), string(a.Landmark), "a landmark that this view shows")
			}
			figure := body.Draw(v)
			if !figure.Contains(p) {
				return refuse(fmt.Sprintf("$.fibres[%d].path[%d]", i, j), fmt.Sprint(p), "a place on the figure")
			}
		}
	}
	seen := map[string]bool{}
	for i, s := range m.Sites {
		path := fmt.Sprintf("$.sites[%d]", i)
		if s.Fibre >= len(m.Fibres) {
			return refuse(path+".fibre", fmt.Sprint(s.Fibre), fmt.Sprintf("0 to %d", len(m.Fibres)-1))
		}
		if seen[s.ID] {
			return refuse(path+".id", s.ID, "an id of its own")
		}
		seen[s.ID] = true
		if half := m.Fibres[s.Fibre].SpreadMM / 2; s.AcrossMM > half || s.AcrossMM < -half {
			return refuse(path+".across_mm", fmt.Sprint(s.AcrossMM), fmt.Sprintf("within %v mm of the fibre", half))
		}
		for _, r := range s.Spillover {
			if slices.Contains(s.Essential, r) {
				return refuse(path+".spillover", string(r), "a region that is not essential already")
			}
		}
	}
	for i, n := range m.Near {
		for j, a := range n.Line {
			if _, err := a.point(viewOf(m.Fibres[0].View, ids.Left), ids.Left); err != nil {
				return refuse(fmt.Sprintf("$.near[%d].line[%d]", i, j), string(a.Landmark), "a landmark of the muscle's first view")
			}
		}
	}
	return nil
}

// Get gives a muscle's data. Not every muscle of the vocabulary has data yet.
func Get(id ids.Muscle) (*Muscle, error) {
	all, err := load()
	if err != nil {
		return nil, err
	}
	m, ok := all[id]
	if !ok {
		return nil, fmt.Errorf("atlas: no data for %s yet", id)
	}
	return m, nil
}

// All gives every muscle with data, by id.
func All() []*Muscle {
	all, err := load()
	if err != nil {
		panic(err) // the data is embedded and tested
	}
	out := make([]*Muscle, 0, len(all))
	for _, id := range ids.Muscles() {
		if m, ok := all[id]; ok {
			out = append(out, m)
		}
	}
	return out
}

// Site finds a site by id; the empty id is the first site.
func (m *Muscle) Site(id string) (*Site, bool) {
	for i := range m.Sites {
		if id == "" || m.Sites[i].ID == id {
			return &m.Sites[i], true
		}
	}
	return nil, false
}
