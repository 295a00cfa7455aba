package atlas

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
	"sync"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/stable"
)

// SitePlace is a site on the figure.
type SitePlace struct {
	Site string    `json:"site"`
	Name string    `json:"name"`
	View body.View `json:"view"`
	// X and Y are in units of the view, to a tenth.
	X float64 `json:"x"`
	Y float64 `json:"y"`
	// Reach says how hard it is to get at.
	Reach string `json:"reach"`
	Note  string `json:"note,omitempty"`
}

// LandmarkPlace is a landmark of the guide, on the figure where it is shown.
type LandmarkPlace struct {
	Landmark ids.Landmark `json:"landmark"`
	View     body.View    `json:"view"`
	X        float64      `json:"x"`
	Y        float64      `json:"y"`
}

// NearBy is a structure to keep off, as it lies to the nearest of the guide's sites.
// Sign is what tells that a finger is on it.
type NearBy struct {
	Structure  ids.Structure `json:"structure"`
	Name       string        `json:"name"`
	Sign       string        `json:"sign"`
	Tier       safety.Tier   `json:"tier" enum:"danger,caution,note"`
	DistanceCM float64       `json:"distance_cm" doc:"along the skin"`
	Fingers    float64       `json:"finger_widths" doc:"of the therapist's own finger-width"`
	KeepOffCM  float64       `json:"keep_off_cm" doc:"radius around its course to stay out of"`
	DepthCM    float64       `json:"depth_cm" doc:"how deep below the skin it runs there; a working value"`
	Inside     bool          `json:"inside_keep_off" doc:"the line of pressure comes within the radius"`
	Move       string        `json:"move,omitempty" doc:"the way off, where it is inside"`
	Text       string        `json:"text"`
}

// Referral is where a site sends pain; a guide, never proof.
type Referral struct {
	Essential []ids.Region `json:"essential"`
	Spillover []ids.Region `json:"spillover"`
}

// Guide is the palpation guide for one muscle and side.
type Guide struct {
	Muscle ids.Muscle `json:"muscle"`
	Name   string     `json:"name"`
	Side   ids.Side   `json:"side"`
	// Sites are those asked for, in the order of the file; of what is never pressed, none.
	Sites []SitePlace `json:"sites"`
	// Landmarks of the steps, in the view of the first site where it shows them.
	Landmarks []LandmarkPlace `json:"landmarks"`
	// Steps are the words, Draw the same with what to draw.
	Steps    []string   `json:"steps"`
	Draw     []DrawStep `json:"draw" doc:"what to draw on the figure, step by step"`
	StrumDeg float64    `json:"strum_deg" doc:"direction across the fibres in the view, 0 to 180 degrees from the picture's right, clockwise"`
	// TraceDeg is the direction along the fibres, measured in the same way.
	TraceDeg float64         `json:"trace_deg"`
	Confirm  Confirm         `json:"confirm"`
	Tension  []JointPosition `json:"tension"`
	Slack    []JointPosition `json:"slack"`
	// Near are structures within reach of a site, the nearest first.
	Near        []NearBy     `json:"near"`
	EaseFirst   []ids.Muscle `json:"ease_first"`
	MistakenFor []Neighbour  `json:"mistaken_for"`
	// Referral is of all sites asked for together.
	Referral  Referral       `json:"referral"`
	Positions []ids.Position `json:"positions"`
	Contacts  []ids.Contact  `json:"contacts"`
	Draping   string         `json:"draping"`
	Cautions  []string       `json:"cautions"`
	// Protocol is the usual one of the muscle; what suits a point is in core/points.
	Protocol *Usual  `json:"usual_protocol,omitempty"`
	Stretch  Stretch `json:"home_stretch"`
	// Synergists and Antagonists have the strongest first.
	Synergists  []ids.Muscle `json:"synergists"`
	Antagonists []ids.Muscle `json:"antagonists"`
	Latin       string       `json:"latin"`
	Layer       int          `json:"layer"`
	Innervation string       `json:"innervation"`
	Attachments []Attachment `json:"attachments"`
	Actions     []Motion     `json:"actions"`
	Sources     []string     `json:"sources"`
}

// DrawStep is one step of the construction: a landmark that is found, joined
// to the one before, or the site with its arrows.
type DrawStep struct {
	Kind string     `json:"kind" enum:"text,landmark,site,strum,trace,confirm"`
	Text string     `json:"text"`
	View body.View  `json:"view,omitempty"`
	At   body.Point `json:"at"`
	// From is where the line to At begins, when there is one.
	From  *body.Point  `json:"from,omitempty"`
	Label ids.Landmark `json:"landmark,omitempty"`
}

// FingerWidthCM is the default finger-width; the therapist's own is asked once.
const FingerWidthCM = 1.8

// nearCM is how far from a site a structure still belongs in its guide.
const nearCM = 4

// Palpate computes the guide. Without a site it covers all of them. fingerCM
// is the therapist's finger-width; 0 is the default.
func (m *Muscle) Palpate(side ids.Side, site string, heightCM, fingerCM float64) (Guide, error) {
	if fingerCM == 0 {
		fingerCM = FingerWidthCM
	}
	syn, ant := m.Relations()
	g := Guide{
		Muscle: m.ID, Name: m.Name, Side: side, Confirm: m.Confirm, Tension: m.Tension, Slack: m.Slack,
		EaseFirst: orEmpty(m.EaseFirst), MistakenFor: m.MistakenFor,
		Positions: m.Positions, Contacts: m.Contacts, Draping: m.Draping, Cautions: m.Cautions, Protocol: m.Usual,
		Sources: m.Sources,
		Stretch: m.Stretch, Synergists: orEmpty(syn), Antagonists: orEmpty(ant), Latin: m.Latin, Layer: m.Layer,
		Innervation: m.Innervation, Attachments: m.Attachments, Actions: orEmpty(m.Actions),
		Referral: Referral{[]ids.Region{}, []ids.Region{}}, Landmarks: []LandmarkPlace{}, Sites: []SitePlace{},
	}
	if !m.IsPressed() {
		g.Draw, g.Near = []DrawStep{}, []NearBy{}
		for _, st := range m.Find {
			g.Steps = append(g.Steps, st.Text)
		}
		return g, nil
	}
	for _, s := range m.Sites {
		if site != "" && s.ID != site {
			continue
		}
		v, p := m.OnFigure(s.Place(heightCM), side, heightCM)
		g.Sites = append(g.Sites, SitePlace{s.ID, s.Name, v, tenth(p.X), tenth(p.Y), s.Reach, s.Note})
		for _, r := range s.Essential {
			g.Referral.Essential = ids.With(g.Referral.Essential, r)
		}
	}
	if len(g.Sites) == 0 {
		return Guide{}, fmt.Errorf("atlas: %s has no site %q", m.ID, site)
	}
	for _, s := range m.Sites {
		if site != "" && s.ID != site {
			continue
		}
		for _, r := range s.Spillover {
			if !slices.Contains(g.Referral.Essential, r) {
				g.Referral.Spillover = ids.With(g.Referral.Spillover, r)
			}
		}
	}
	first, _ := m.Site(g.Sites[0].Site)
	dir := m.FibreDirection(first.Place(heightCM), side, heightCM)
	g.TraceDeg = halfTurn(math.Atan2(dir.Y, dir.X))
	g.StrumDeg = halfTurn(math.Atan2(dir.Y, dir.X) + math.Pi/2)
	m.steps(&g, side)
	g.Near = m.near(g.Sites, side, heightCM, fingerCM)
	return g, nil
}

// steps writes the guide's steps and what each draws. A landmark is drawn in
// the view of the first site, else in the first view that shows it.
func (m *Muscle) steps(g *Guide, side ids.Side) {
	at := g.Sites[0]
	var last *body.Point
	for _, st := range m.Find {
		d := DrawStep{Kind: "text", Text: st.Text}
		if st.Landmark != "" {
			v, p := landmarkNear(at.View, st.Landmark, side)
			g.Landmarks = append(g.Landmarks, LandmarkPlace{st.Landmark, v, tenth(p.X), tenth(p.Y)})
			d.Kind, d.View, d.At, d.Label = "landmark", v, body.Point{X: tenth(p.X), Y: tenth(p.Y)}, st.Landmark
			if v == at.View {
				d.From, last = last, &body.Point{X: d.At.X, Y: d.At.Y}
			}
		}
		g.Draw = append(g.Draw, d)
	}
	spot := body.Point{X: at.X, Y: at.Y}
	g.Draw = append(g.Draw,
		DrawStep{Kind: "site", Text: "The place: " + lowerFirst(at.Name) + ".", View: at.View, At: spot, From: last},
		DrawStep{Kind: "strum", Text: m.Strum, View: at.View, At: spot},
		DrawStep{Kind: "trace", Text: m.Trace, View: at.View, At: spot},
		DrawStep{Kind: "confirm", Text: m.Confirm.Text, View: at.View, At: spot})
	for _, d := range g.Draw {
		if d.Kind != "site" && d.Kind != "confirm" {
			g.Steps = append(g.Steps, d.Text)
		}
	}
}

// landmarkNear is a landmark in the view asked for or, where that does not show it, in the first
// one that does.
func landmarkNear(v body.View, id ids.Landmark, side ids.Side) (body.View, body.Point) {
	if p, err := body.FindLandmark(v, id, side); err == nil {
		return v, p
	}
	for _, o := range body.Views {
		if p, err := body.FindLandmark(o, id, side); err == nil {
			return o, p
		}
	}
	return v, body.Point{} // every landmark has a view; a test says so
}

// near lists the structures to keep off: those that the muscle's file speaks of, and
// whatever else lies within reach of a site, so that no file can forget one.
func (m *Muscle) near(sites []SitePlace, side ids.Side, heightCM, fingerCM float64) []NearBy {
	out := []NearBy{}
	for _, s := range sites {
		k := m.kept(s.Site, side, heightCM)
		for _, c := range k.near {
			m.addNear(&out, c, k.off, fingerCM)
		}
	}
	stable.Sort(out, func(a, b NearBy) int {
		return cmp.Or(cmp.Compare(a.DistanceCM, b.DistanceCM), cmp.Compare(a.Structure, b.Structure))
	})
	return out
}

// keptNear is what lies near a site, as it was worked out: sites never move, and a page
// asks for the same guide again and again.
type keptNear struct {
	near []safety.Close
	off  func() string
}

// nearKey is what a site's surroundings depend on.
type nearKey struct {
	muscle   ids.Muscle
	site     string
	side     ids.Side
	heightCM float64
}

// nears is emptied when it has grown to mostNears: heights are many.
var nears = struct {
	sync.Mutex
	of map[nearKey]keptNear
}{of: map[nearKey]keptNear{}}

const mostNears = 1000

// kept works out what lies near a site, or gives what was worked out before. The way off costs
// most and is asked for seldom, so it waits until it is.
func (m *Muscle) kept(site string, side ids.Side, heightCM float64) keptNear {
	key := nearKey{m.ID, site, side, heightCM}
	nears.Lock()
	k, ok := nears.of[key]
	nears.Unlock()
	if ok {
		return k
	}
	s, _ := m.Site(site)
	f := s.Place(heightCM)
	v, p := m.OnFigure(f, side, heightCM)
	if l, ok := m.Pressed(f, side, v, p); ok {
		k.near = safety.Near(l, heightCM, safety.ReachMM(""), m.named()...)
		k.off = sync.OnceValue(func() string { return safety.Off(l, heightCM, safety.ReachMM("")).Text })
	}
	nears.Lock()
	defer nears.Unlock()
	if len(nears.of) >= mostNears {
		clear(nears.of)
	}
	nears.of[key] = k
	return k
}

// named are the structures that the muscle's file speaks of.
func (m *Muscle) named() []ids.Structure {
	out := make([]ids.Structure, len(m.Near))
	for i, n := range m.Near {
		out[i] = n.Structure
	}
	return out
}

// addNear keeps the nearest of a structure; of two as near the one that is inside.
func (m *Muscle) addNear(list *[]NearBy, c safety.Close, off func() string, fingerCM float64) {
	i := slices.IndexFunc(m.Near, func(x Near) bool { return x.Structure == c.Structure.ID })
	if i < 0 && !c.Inside() && c.AlongMM > nearCM*10 {
		return
	}
	n := NearBy{
		Structure: c.Structure.ID, Name: c.Structure.Name, Sign: c.Structure.Sign, Tier: c.Tier,
		Text: c.Structure.Do, DistanceCM: tenth(c.AlongMM / 10), Fingers: tenth(c.AlongMM / 10 / fingerCM),
		KeepOffCM: c.KeepOffMM / 10, DepthCM: tenth(c.DepthMM / 10), Inside: c.Inside(),
	}
	if i >= 0 {
		n.Text = m.Near[i].Text
	}
	if n.Inside && c.Tier != safety.Note {
		n.Move = off()
	}
	k := slices.IndexFunc(*list, func(o NearBy) bool { return o.Structure == n.Structure })
	switch {
	case k < 0:
		*list = append(*list, n)
	case n.Inside && !(*list)[k].Inside, n.Inside == (*list)[k].Inside && n.DistanceCM < (*list)[k].DistanceCM:
		(*list)[k] = n
	}
}

// lowerFirst makes a name fit into a sentence.
func lowerFirst(s string) string {
	if s == "" {
		return s
	}
	return strings.ToLower(s[:1]) + s[1:]
}

func tenth(f float64) float64 { return math.Round(f*10) / 10 }

// halfTurn maps an angle in radians to 0 ≤ degrees < 180: a strum goes both ways.
func halfTurn(rad float64) float64 {
	d := tenth(math.Mod(rad*180/math.Pi+360, 180))
	if d >= 180 {
		return 0
	}
	return d
}

// orEmpty keeps a list from being null in JSON.
func orEmpty[T any](l []T) []T {
	if l == nil {
		return []T{}
	}
	return l
}
