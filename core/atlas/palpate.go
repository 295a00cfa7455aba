package atlas

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/order"
	"mokren/core/safety"
)

// SitePlace is a site on the figure.
type SitePlace struct {
	Site  string    `json:"site"`
	Name  string    `json:"name"`
	View  body.View `json:"view"`
	X     float64   `json:"x"`
	Y     float64   `json:"y"`
	Reach string    `json:"reach"`
	Note  string    `json:"note,omitempty"`
}

// LandmarkPlace is a landmark of the guide, on the figure where it is shown.
type LandmarkPlace struct {
	Landmark ids.Landmark `json:"landmark"`
	View     body.View    `json:"view"`
	X        float64      `json:"x"`
	Y        float64      `json:"y"`
}

// NearBy is a structure to keep off. Its distance is that of the nearest of the
// guide's sites from its course along the skin of the drawn view; it is absent
// where the site's view does not show the course. Sign is what tells that a
// finger is on it.
type NearBy struct {
	Structure  ids.Structure `json:"structure"`
	Name       string        `json:"name"`
	Sign       string        `json:"sign"`
	DistanceCM *float64      `json:"distance_cm,omitempty" doc:"along the skin"`
	Fingers    *float64      `json:"finger_widths,omitempty" doc:"of the therapist's own finger-width"`
	KeepOffCM  *float64      `json:"keep_off_cm,omitempty" doc:"radius around its course to stay out of"`
	DepthCM    *float64      `json:"depth_cm,omitempty" doc:"how deep below the skin it usually runs; a working value"`
	Text       string        `json:"text"`
}

// Referral is where a site sends pain; a guide, never proof.
type Referral struct {
	Essential []ids.Region `json:"essential"`
	Spillover []ids.Region `json:"spillover"`
}

// Guide is the palpation guide for one muscle and side.
type Guide struct {
	Muscle      ids.Muscle      `json:"muscle"`
	Name        string          `json:"name"`
	Side        ids.Side        `json:"side"`
	Sites       []SitePlace     `json:"sites"`
	Landmarks   []LandmarkPlace `json:"landmarks"`
	Steps       []string        `json:"steps"`
	Draw        []DrawStep      `json:"draw" doc:"what to draw on the figure, step by step"`
	StrumDeg    float64         `json:"strum_deg" doc:"direction across the fibres in the view, 0 to 180 degrees from the picture's right, clockwise"`
	TraceDeg    float64         `json:"trace_deg"`
	Confirm     Confirm         `json:"confirm"`
	Tension     []JointPosition `json:"tension"`
	Slack       []JointPosition `json:"slack"`
	Near        []NearBy        `json:"near"`
	EaseFirst   []ids.Muscle    `json:"ease_first"`
	MistakenFor []Neighbour     `json:"mistaken_for"`
	Referral    Referral        `json:"referral"`
	Positions   []ids.Position  `json:"positions"`
	Contacts    []ids.Contact   `json:"contacts"`
	Draping     string          `json:"draping"`
	Cautions    []string        `json:"cautions"`
	Protocol    Usual           `json:"usual_protocol"`
	Stretch     Stretch         `json:"home_stretch"`
	Synergists  []ids.Muscle    `json:"synergists"`
	Antagonists []ids.Muscle    `json:"antagonists"`
	Latin       string          `json:"latin"`
	Layer       int             `json:"layer"`
	Innervation string          `json:"innervation"`
	Attachments []Attachment    `json:"attachments"`
	Actions     []Motion        `json:"actions"`
	Sources     []string        `json:"sources"`
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
		Referral: Referral{[]ids.Region{}, []ids.Region{}}, Landmarks: []LandmarkPlace{},
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

// near lists the structures to keep off: those that the muscle's file speaks
// of, whether the view shows their course or not, and whatever else the figure
// has within reach of a site, so that no file can forget one.
func (m *Muscle) near(sites []SitePlace, side ids.Side, heightCM, fingerCM float64) []NearBy {
	type reach struct{ cm, keepOff float64 }
	best := map[ids.Structure]reach{}
	for _, s := range sites {
		for _, sh := range safety.Shapes(s.View) {
			if sh.Side != side && sh.Side != ids.Midline {
				continue
			}
			d := sh.Distance(body.Point{X: s.X, Y: s.Y}) * s.View.CMPerUnit(heightCM)
			if old, ok := best[sh.Structure]; !ok || d < old.cm {
				best[sh.Structure] = reach{d, sh.RadiusMM / 10}
			}
		}
	}
	out := []NearBy{}
	for _, st := range safety.Structures() {
		r, shown := best[st.ID]
		i := slices.IndexFunc(m.Near, func(x Near) bool { return x.Structure == st.ID })
		if i < 0 && (!shown || r.cm > nearCM) {
			continue
		}
		n := NearBy{Structure: st.ID, Name: st.Name, Sign: st.Sign, Text: st.Do}
		if i >= 0 {
			n.Text = m.Near[i].Text
		}
		if shown {
			cm, fingers := tenth(r.cm), tenth(r.cm/fingerCM)
			n.DistanceCM, n.Fingers, n.KeepOffCM = &cm, &fingers, &r.keepOff
		}
		if st.DepthMM > 0 {
			depth := st.DepthMM / 10
			n.DepthCM = &depth
		}
		out = append(out, n)
	}
	// The nearest first; what is not shown comes last.
	distance := func(n NearBy) float64 {
		if n.DistanceCM == nil {
			return math.Inf(1)
		}
		return *n.DistanceCM
	}
	order.By(out, func(a, b NearBy) int {
		return cmp.Or(cmp.Compare(distance(a), distance(b)), cmp.Compare(a.Structure, b.Structure))
	})
	return out
}

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

func orEmpty[T any](l []T) []T {
	if l == nil {
		return []T{}
	}
	return l
}
