package atlas

import (
	"fmt"
	"slices"
	"sync"

	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
)

// Anchor is a place given from a landmark: units outward (toward the side,
// negative inward) and down, in the view's units.
type Anchor struct {
	Landmark ids.Landmark `json:"landmark"`
	Out      float64      `json:"out,omitempty"`
	Down     float64      `json:"down,omitempty"`
}

// Part is one sheet of the muscle in one view: the area between an origin line
// and an insertion line along bone, both given from the first edge to the last,
// with the two edges as curves. The views "side", "head" and "sole" mean those
// of the muscle's side.
type Part struct {
	// View in which the sheet is seen.
	View string `json:"view" enum:"front,back,side,head,sole"`
	// Origin and Insertion run from the first edge to the last, at least one point each.
	Origin    []Anchor `json:"origin" minItems:"1"`
	Insertion []Anchor `json:"insertion" minItems:"1"`
	// First and Last are what the edges pass on their way, where they are not
	// straight.
	First []Anchor `json:"first_edge,omitempty"`
	Last  []Anchor `json:"last_edge,omitempty"`
	// Tendon is the share of the length that is tendon at either end.
	Tendon [2]float64 `json:"tendon_pct" doc:"percent at the origin, at the insertion"`
	// Behind is the trunk's region where the hanging arm hides it in a side view.
	Behind ids.Region `json:"behind_arm,omitempty"`
	// Bands are where tendon crosses the belly.
	Bands []float64 `json:"bands_pct,omitempty" doc:"percent of the length"`
}

// Site is a usual trigger-point site: a place in a part with its own
// referral pattern, which is the lattice's cells of these regions on the
// muscle's side. A contact's site has no pattern.
type Site struct {
	// ID is the site's own within the muscle; records name it, so it never changes.
	ID       string   `json:"id"`
	Name     string   `json:"name" doc:"{measure} stands for the words of the measure"`
	Measure  *Measure `json:"measure,omitempty"`
	Fibre    int      `json:"fibre" minimum:"0" doc:"index of the part"`
	AlongPct float64  `json:"along_pct" minimum:"0" maximum:"100" doc:"percent of the way from origin to insertion"`
	AcrossMM float64  `json:"across_mm,omitempty" doc:"mm from the middle fibre in a body of 170 cm, outward or forward positive"`
	// Reach is how hard the place is to get at, in words of the trade.
	Reach string `json:"reach" enum:"easy,moderate,hard,not on large bodies"`
	// Essential regions are usually felt, Spillover less often.
	Essential []ids.Region `json:"essential,omitempty"`
	Spillover []ids.Region `json:"spillover,omitempty"`
	Note      string       `json:"note,omitempty"`
}

// Step is one palpation step, at a landmark where it has one.
type Step struct {
	Landmark ids.Landmark `json:"landmark,omitempty"`
	Text     string       `json:"text" doc:"{measure} stands for the words of the measure"`
	Measure  *Measure     `json:"measure,omitempty"`
}

// Motion is a movement; for the spine, where a movement has a direction, also
// whether it goes toward the muscle's own side or the other.
type Motion struct {
	Movement ids.Movement `json:"movement"`
	Toward   string       `json:"toward,omitempty" enum:"own,other"`
}

// JointPosition is a movement and, where known, how far in degrees.
type JointPosition struct {
	Movement ids.Movement `json:"movement"`
	Toward   string       `json:"toward,omitempty" enum:"own,other"`
	Deg      *float64     `json:"deg,omitempty"`
	Text     string       `json:"text,omitempty"`
}

func (p JointPosition) motion() Motion { return Motion{p.Movement, p.Toward} }

// Lengthened is what takes the muscle to its end.
func (m *Muscle) Lengthened() safety.Motion {
	out := safety.Motion{Way: safety.Stretched}
	for _, p := range m.Tension {
		out.Movements = append(out.Movements, p.Movement)
	}
	return out
}

// Worked is the muscle's own work against a hand.
func (m *Muscle) Worked() safety.Motion {
	out := safety.Motion{Way: safety.Resisted}
	for _, a := range m.Actions {
		out.Movements = append(out.Movements, a.Movement)
	}
	return out
}

// Neighbour is a muscle that is mistaken for this one.
type Neighbour struct {
	Muscle ids.Muscle `json:"muscle"`
	Tell   string     `json:"tell"`
}

// Near says what a structure to keep off means at this muscle; its geometry
// is the figure's (core/safety).
type Near struct {
	Structure ids.Structure `json:"structure"`
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

// Attachment of the muscle, in words and, where one is near, as a landmark.
type Attachment struct {
	Landmark ids.Landmark `json:"landmark,omitempty"`
	Text     string       `json:"text"`
}

// Corrections mend by hand what is computed from the actions: a helper that acts over another
// joint, or one that shares an action only on paper.
type Corrections struct {
	Synergists     []ids.Muscle `json:"synergists,omitempty"`
	NotSynergists  []ids.Muscle `json:"not_synergists,omitempty"`
	Antagonists    []ids.Muscle `json:"antagonists,omitempty"`
	NotAntagonists []ids.Muscle `json:"not_antagonists,omitempty"`
}

// Muscle is one data file. A contact is a ligament or fascia: a pressing
// technique only, without trigger points, actions and referral. Anatomy is what no finger can
// reach without harm: it has no site, no contact and no protocol, and stands here for what it
// does, for its neighbours and for why it is left alone.
//
// Actions stand with the strongest first, for relations weigh them by their place. Layer 1 is
// next to the skin. Tension and Slack are joint positions that lengthen and shorten it, within
// what the client's answers allow.
type Muscle struct {
	// ID is the file's name.
	ID ids.Muscle `json:"id"`
	// Kind is muscle, contact for a ligament or fascia, or anatomy for a muscle that is never
	// pressed.
	Kind  string `json:"kind" enum:"muscle,contact,anatomy"`
	Name  string `json:"name"`
	Latin string `json:"latin"`
	// Region is where the list of muscles has it, not where it is pressed.
	Region string `json:"region" enum:"head-and-neck,shoulder-girdle,arm-and-hand,trunk,hip-and-thigh,leg-and-foot"`
	Layer  int    `json:"layer" minimum:"1" maximum:"4"`
	// Attachments begin with the origin.
	Attachments []Attachment `json:"attachments" minItems:"2"`
	// Parts are the sheets that views show; places are kept by their index, so they are only
	// added to.
	Parts []Part `json:"parts" minItems:"1"`
	// Actions stand with the strongest first.
	Actions   []Motion `json:"actions"`
	Restricts []Motion `json:"restricts" doc:"movements that it limits when short"`
	// Innervation with segments, as textbooks write it.
	Innervation string       `json:"innervation"`
	Corrections *Corrections `json:"corrections,omitempty"`
	// Sites are usual ones, the most usual first; anatomy has none.
	Sites []Site `json:"sites"`
	// Find are the steps of palpation, from a landmark to the place.
	Find []Step `json:"find" minItems:"3"`
	// Strum is how fibres are felt across, Trace how the band is followed along them.
	Strum string `json:"strum"`
	Trace string `json:"trace"`
	// MistakenFor are neighbours, each with what tells them apart.
	MistakenFor []Neighbour `json:"mistaken_for"`
	Confirm     Confirm     `json:"confirm"`
	// Tension lengthens the muscle and Slack shortens it, without pain.
	Tension []JointPosition `json:"tension" minItems:"1"`
	Slack   []JointPosition `json:"slack" minItems:"1"`
	// Positions in which a client can be worked on here.
	Positions []ids.Position `json:"positions" minItems:"1"`
	// Contacts that suit it, the usual one first; anatomy has none.
	Contacts []ids.Contact `json:"contacts"`
	Draping  string        `json:"draping"`
	// Near are words about structures; where they run is in core/safety.
	Near []Near `json:"near"`
	// EaseFirst are muscles that are worked before this one.
	EaseFirst []ids.Muscle `json:"ease_first"`
	// Cautions are shown wherever the muscle is pressed.
	Cautions []string `json:"cautions" minItems:"1"`
	Usual    *Usual   `json:"usual_protocol,omitempty" doc:"anatomy has none"`
	Stretch  Stretch  `json:"home_stretch"`
	// Sources are those of the whole file.
	Sources []string `json:"sources" minItems:"1"`
}

//go:generate ../../scripts/atlas-files

// load gives the muscles that have data, by id.
var load = sync.OnceValue(func() map[ids.Muscle]*Muscle {
	list := muscleData()
	all := make(map[ids.Muscle]*Muscle, len(list))
	for i := range list {
		all[list[i].ID] = &list[i]
	}
	return all
})

// files are the embedded ones by the muscle's id.
func files() map[ids.Muscle][]byte {
	out := make(map[ids.Muscle][]byte, len(embedded))
	for _, f := range embedded {
		out[f.id] = *f.raw
	}
	return out
}

// Verify reads muscle files, by id, strictly and checks each by itself and all of them
// together. An error names file and field.
func Verify(files map[ids.Muscle][]byte) error {
	all, err := read(files, func(raw []byte, m *Muscle) error {
		if err := decode.JSON(raw, m); err != nil {
			return err
		}
		return m.check()
	})
	if err != nil {
		return err
	}
	return together(all)
}

// read decodes each file and writes its measures into its words. A file's name is its id.
func read(files map[ids.Muscle][]byte, decode func([]byte, *Muscle) error) (map[ids.Muscle]*Muscle, error) {
	all := map[ids.Muscle]*Muscle{}
	for id, raw := range files {
		name := fmt.Sprintf("data/%s.json", id)
		m := new(Muscle)
		if err := decode(raw, m); err != nil {
			return nil, fmt.Errorf("atlas: %s: %w", name, err)
		}
		if m.ID != id {
			return nil, fmt.Errorf("atlas: %s: $.id: given %q; allowed: the file's name", name, m.ID)
		}
		m.fillMeasures()
		all[id] = m
	}
	return all, nil
}

// Get gives a muscle's data.
func Get(id ids.Muscle) (*Muscle, error) {
	m, ok := load()[id]
	if !ok {
		return nil, fmt.Errorf("atlas: no data for %s", id)
	}
	return m, nil
}

// All gives every muscle with data, by id.
func All() []*Muscle {
	all := load()
	out := make([]*Muscle, 0, len(all))
	for _, id := range ids.Muscles() {
		if m, ok := all[id]; ok {
			out = append(out, m)
		}
	}
	return out
}

// Place of the site in its part, for a client's height: the file's mm are those
// of a body of the default height.
func (s Site) Place(heightCM float64) FibrePlace {
	return FibrePlace{s.Fibre, s.AlongPct, s.AcrossMM * heightCM / body.DefaultHeightCM}
}

// IsPressed reports whether there is a way to it that harms nothing.
func (m *Muscle) IsPressed() bool { return m.Kind != "anatomy" }

// Pressable is the error of a muscle that is never pressed where one is to be pressed, or nil.
func Pressable(id ids.Muscle, path string) *decode.Error {
	if m, err := Get(id); err != nil || m.IsPressed() {
		return nil // an id that is not known is refused by its own check
	}
	return &decode.Error{Path: path, Given: fmt.Sprintf("%q", id), Allowed: "a muscle that may be pressed"}
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

// Lying gives the positions in which the muscle of a side is worked, without
// those to be avoided. Lying on a side frees the other one, except for what is
// worked only on the leg that lies below.
func (m *Muscle) Lying(side ids.Side, avoid []ids.Position) []ids.Position {
	out := slices.DeleteFunc(slices.Clone(m.Positions), func(p ids.Position) bool { return slices.Contains(avoid, p) })
	if !slices.Contains(m.Positions, "side-lying-left") || !slices.Contains(m.Positions, "side-lying-right") {
		return out
	}
	below := ids.Position("side-lying-" + string(side))
	free := slices.DeleteFunc(slices.Clone(out), func(p ids.Position) bool { return p == below })
	if len(free) == 0 {
		return out
	}
	return free
}
