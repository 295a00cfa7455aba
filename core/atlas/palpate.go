package atlas

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mokren/core/body"
	"mokren/core/ids"
)

func sortCandidates(c []Candidate) {
	weight := func(x Candidate) float64 {
		w := x.OffMM + 3*float64(x.Layer)
		if x.Site != "" {
			w -= 12
		}
		return w
	}
	slices.SortStableFunc(c, func(a, b Candidate) int { return cmp.Compare(weight(a), weight(b)) })
}

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

// NearBy is a structure to keep off with its distance from the nearest of the
// guide's sites, along the skin of the drawn view.
type NearBy struct {
	Structure  ids.Structure `json:"structure"`
	DistanceCM float64       `json:"distance_cm"`
	Fingers    float64       `json:"finger_widths"`
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
	Sources     []string        `json:"sources"`
}

// FingerWidthCM is the default finger-width; the therapist's own is asked once.
const FingerWidthCM = 1.8

// Palpate computes the guide. Without a site it covers all of them.
func (m *Muscle) Palpate(side ids.Side, site string, heightCM float64) (Guide, error) {
	g := Guide{
		Muscle: m.ID, Name: m.Name, Side: side, Confirm: m.Confirm, Tension: m.Tension, Slack: m.Slack,
		EaseFirst: orEmpty(m.EaseFirst), MistakenFor: m.MistakenFor, Near: []NearBy{},
		Positions: m.Positions, Contacts: m.Contacts, Draping: m.Draping, Cautions: m.Cautions, Protocol: m.Usual, Sources: m.Sources,
		Referral: Referral{[]ids.Region{}, []ids.Region{}},
	}
	fibre := -1
	for _, s := range m.Sites {
		if site != "" && s.ID != site {
			continue
		}
		v, p := m.OnFigure(FibrePlace{s.Fibre, s.AlongPct, s.AcrossMM}, side, heightCM)
		g.Sites = append(g.Sites, SitePlace{s.ID, s.Name, v, tenth(p.X), tenth(p.Y), s.Reach, s.Particular})
		for _, r := range s.Essential {
			g.Referral.Essential = appendNew(g.Referral.Essential, r)
		}
		if fibre < 0 {
			fibre = s.Fibre
			_, dir := m.Fibres[s.Fibre].Line(side).at(s.AlongPct)
			g.TraceDeg = halfTurn(math.Atan2(dir.Y, dir.X))
			g.StrumDeg = halfTurn(math.Atan2(dir.Y, dir.X) + math.Pi/2)
		}
	}
	if fibre < 0 {
		return Guide{}, fmt.Errorf("atlas: %s has no site %q", m.ID, site)
	}
	for _, s := range m.Sites {
		if site != "" && s.ID != site {
			continue
		}
		for _, r := range s.Spillover {
			if !slices.Contains(g.Referral.Essential, r) {
				g.Referral.Spillover = appendNew(g.Referral.Spillover, r)
			}
		}
	}
	v := viewOf(m.Fibres[fibre].View, side)
	for _, st := range m.Find {
		g.Steps = append(g.Steps, st.Text)
		if p, err := body.FindLandmark(v, st.Landmark, side); st.Landmark != "" && err == nil {
			g.Landmarks = append(g.Landmarks, LandmarkPlace{st.Landmark, v, p.X, p.Y})
		}
	}
	g.Steps = append(g.Steps, m.Strum, m.Trace)
	for _, n := range m.Near {
		d := m.distance(n, g.Sites, side) * viewOf(m.Fibres[0].View, side).CMPerUnit(heightCM)
		g.Near = append(g.Near, NearBy{n.Structure, tenth(d), tenth(d / FingerWidthCM), n.Text})
	}
	return g, nil
}

// distance in view units from the nearest site to a structure's line.
func (m *Muscle) distance(n Near, sites []SitePlace, side ids.Side) float64 {
	v := viewOf(m.Fibres[0].View, side)
	best := math.Inf(1)
	for _, s := range sites {
		for i := range n.Line {
			a, _ := n.Line[i].point(v, side)
			b, _ := n.Line[min(i+1, len(n.Line)-1)].point(v, side)
			best = min(best, body.ToSegment(body.Point{X: s.X, Y: s.Y}, a, b))
		}
	}
	return best
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

func appendNew(list []ids.Region, r ids.Region) []ids.Region {
	if slices.Contains(list, r) {
		return list
	}
	return append(list, r)
}
