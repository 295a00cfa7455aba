package calc

import (
	"fmt"
	"math"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/solid"
)

// NearIn names a usual site of a muscle, or a touched place of a view.
type NearIn struct {
	Muscle   ids.Muscle  `json:"muscle,omitempty"`
	Side     ids.Side    `json:"side,omitempty" enum:"left,right"`
	Site     string      `json:"site,omitempty"`
	View     body.View   `json:"view,omitempty" enum:"front,back,left,right,head-left,head-right,sole-left,sole-right"`
	X        *float64    `json:"x,omitempty" minimum:"0" maximum:"1000"`
	Y        *float64    `json:"y,omitempty" minimum:"0" maximum:"1000"`
	Contact  ids.Contact `json:"contact,omitempty"`
	HeightCM *float64    `json:"height_cm,omitempty" minimum:"50" maximum:"250"`
}

// Check implements decode.Checker: one way to name the place, and all of it.
func (in NearIn) Check() *decode.Error {
	const allowed = "muscle and side, with a site or without, or view with x and y"
	switch {
	case (in.Muscle == "") == (in.View == ""):
		return &decode.Error{Path: "$.muscle", Given: "both or neither of muscle and view", Allowed: allowed}
	case in.Muscle != "" && in.Side == "":
		return &decode.Error{Path: "$.side", Given: "nothing", Allowed: "one of left, right"}
	case in.Muscle != "" && (in.X != nil || in.Y != nil), in.View != "" && (in.Side != "" || in.Site != ""):
		return &decode.Error{Path: "$.view", Given: "a mixture", Allowed: allowed}
	case in.View != "" && in.X == nil:
		return &decode.Error{Path: "$.x", Given: "nothing", Allowed: "a number of view units"}
	case in.View != "" && in.Y == nil:
		return &decode.Error{Path: "$.y", Given: "nothing", Allowed: "a number of view units"}
	}
	return nil
}

// NearOut is what lies near, and what follows for the hand.
type NearOut struct {
	Near     []NearStructure     `json:"near"`
	Ceilings *NearCeilings       `json:"ceilings,omitempty"`
	Refused  []ids.Contact       `json:"contacts_refused"`
	Muscles  []atlas.MuscleDepth `json:"muscles"`
}

// NearStructure is a structure near the line of pressure.
type NearStructure struct {
	Structure ids.Structure `json:"structure"`
	Name      string        `json:"name"`
	Side      ids.Side      `json:"side"`
	Tier      safety.Tier   `json:"tier" enum:"danger,caution,note"`
	AlongCM   float64       `json:"along_cm" doc:"along the skin"`
	DepthCM   float64       `json:"depth_cm"`
	GapCM     float64       `json:"gap_cm" doc:"from the line of pressure"`
	Relation  string        `json:"relation" enum:"above,beside,beneath" doc:"to what is squeezed"`
	Inside    bool          `json:"inside_keep_off"`
	Move      string        `json:"move" doc:"the way off, empty where there is nothing to move off"`
	MoveDeg   *float64      `json:"move_deg,omitempty" doc:"in the view, from the picture's right, clockwise"`
}

// NearCeilings are the scores that a hold there is kept within.
type NearCeilings struct {
	Target float64 `json:"target"`
	Soft   float64 `json:"soft"`
	Hard   float64 `json:"hard"`
}

// placed is a place to be pressed, however it was named.
type placed struct {
	view body.View
	at   body.Point
	// line is the line of pressure at the place.
	line solid.Pressure
	// where are the regions that it goes through, and the structures that it comes too near.
	where  []safety.Place
	muscle ids.Muscle
	// usual are the contacts that the muscle takes; empty where no muscle is named.
	usual []ids.Contact
	top   float64 // cm below the skin at which what is pressed begins
}

// Near tells what lies near a line of pressure.
func Near(in NearIn) (NearOut, error) {
	h := height(in.HeightCM)
	p, err := in.place(h)
	if err != nil {
		return NearOut{}, err
	}
	out := NearOut{Near: []NearStructure{}, Refused: []ids.Contact{}, Muscles: atlas.Layers(p.line, p.view, p.at, h)}
	for _, l := range out.Muscles {
		if l.Muscle == p.muscle {
			p.top = l.DepthCM
		}
	}
	reach := safety.ReachMM(in.Contact)
	var off *safety.Away
	for _, c := range safety.Near(p.line, h, reach) {
		n := p.structure(c, reach)
		if n.Inside && c.Tier != safety.Note {
			if off == nil {
				off = new(safety.Off(p.line, h, reach))
			}
			n.Move = off.Text
			if deg, ok := off.Deg(p.view, p.line.From); ok {
				n.MoveDeg = new(math.Round(deg*10) / 10)
			}
		}
		out.Near = append(out.Near, n)
	}
	if l, at := safety.Site(p.muscle, p.where); at != "" {
		out.Ceilings = &NearCeilings{l.Target, l.Soft, l.Hard}
	}
	for _, c := range ids.Contacts() {
		if safety.ContactForbidden(p.muscle, p.where, p.usual, c) != "" {
			out.Refused = append(out.Refused, c)
		}
	}
	return out, nil
}

// structure says how a structure lies to the line of pressure: above the muscle, beneath it,
// within it, or beside the line.
func (p placed) structure(c safety.Close, reachMM float64) NearStructure {
	n := NearStructure{
		Structure: c.Structure.ID, Name: c.Structure.Name, Side: c.Side, Tier: c.Tier, AlongCM: tenth(c.AlongMM / 10),
		DepthCM: tenth(c.DepthMM / 10), GapCM: tenth(c.GapMM / 10), Relation: "beside", Inside: c.Inside(),
	}
	switch {
	case c.GapMM > reachMM:
	case c.LineMM/10 < p.top:
		n.Relation = "above"
	default:
		n.Relation = "beneath"
	}
	return n
}

func tenth(f float64) float64 { return math.Round(f*10) / 10 }

// place finds what is named.
func (in NearIn) place(h float64) (placed, error) {
	if in.View != "" {
		return in.touched(h)
	}
	m, err := atlas.Get(in.Muscle)
	if err != nil {
		return placed{}, err
	}
	s, ok := m.Site(in.Site)
	if !ok {
		return placed{}, noSite(m, in.Site)
	}
	f := s.Place(h)
	v, at := m.OnFigure(f, in.Side, h)
	l, ok := m.Pressed(f, in.Side, v, at)
	if !ok {
		return placed{}, fmt.Errorf("%s %s lies beside the figure", m.ID, s.ID) // a test says that none does
	}
	return placed{v, at, l, m.PressedThrough(f, in.Side, v, at), m.ID, m.Contacts, 0}, nil
}

// touched reads a place by its view and coordinates. It must lie on the figure, or there is no
// skin to press.
func (in NearIn) touched(h float64) (placed, error) {
	v, at := in.View, body.Point{X: *in.X, Y: *in.Y}
	s, ok := solid.Touch(v, at, v.SideAt(at))
	n, on := body.RegionOf(body.CellAt(v, at))
	if !ok || !on {
		return placed{}, &decode.Error{
			Path: "$.x", Given: fmt.Sprintf("%v, %v", at.X, at.Y), Allowed: "a place on the figure",
		}
	}
	l := solid.Press(s)
	where := []safety.Place{{Region: n.Region, Side: n.Side}}
	for _, c := range safety.Within(l, h) {
		where = append(where, safety.Place{Region: n.Region, Side: n.Side, Structure: c.Structure.ID, Tier: c.Tier})
	}
	return placed{v, at, l, where, "", nil, 0}, nil
}
