package sequence

import (
	"fmt"
	"slices"
	"strings"
	"sync"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
)

// Dose is how much: exactly one of the four ways of counting.
type Dose struct {
	Seconds     *float64 `json:"seconds,omitempty" minimum:"1" maximum:"1200"`
	Repetitions *int     `json:"repetitions,omitempty" minimum:"1" maximum:"100"`
	Breaths     *int     `json:"breaths,omitempty" minimum:"1" maximum:"60"`
	Stations    *int     `json:"stations,omitempty" minimum:"1" maximum:"40"`
	// EachS is the seconds of one repetition or station.
	EachS *float64 `json:"each_s,omitempty" minimum:"1" maximum:"120"`
}

// TechniqueStep is a technique at a place.
type TechniqueStep struct {
	Technique ids.Technique `json:"technique"`
	// Where is a region, a muscle, a muscle with one of its usual places (soleus:middle), or
	// points: each point that is charted.
	Where    string       `json:"where" maxLength:"80"`
	Position ids.Position `json:"position,omitempty"`
	Contact  ids.Contact  `json:"contact,omitempty"`
	Dose     *Dose        `json:"dose,omitempty"`
	// Importance 5 is given up last.
	Importance int `json:"importance,omitempty" minimum:"1" maximum:"5"`
	// Say is what is said to the client.
	Say string `json:"say,omitempty" maxLength:"300"`
}

// Sides are how the sides go.
type Sides string

const (
	// Once: on the side that is asked for.
	Once Sides = "once"
	// Each step on both sides in turn.
	Each Sides = "each"
	// Whole: all on one side, then all on the other.
	Whole Sides = "whole"
)

// Sequence is a suggested order.
type Sequence struct {
	Steps []TechniqueStep `json:"steps" minItems:"1" maxItems:"60"`
	Sides Sides           `json:"sides,omitempty" enum:"once,each,whole"`
}

// Shipped is a sequence of our own making. Its positions are written for the left side.
type Shipped struct {
	ID     ids.Sequence `json:"id"`
	Name   string       `json:"name"`
	Why    string       `json:"for" doc:"what it is for, in a line"`
	Block  string       `json:"block" enum:"warm-up,lengthen,close" doc:"the part of a session that it fills"`
	Source string       `json:"source" doc:"class of its source"`
	// Regions are those whose planned points choose it.
	Regions []ids.Region `json:"regions,omitempty"`
	Sequence
}

// For is a sequence that is written for the left, as it is begun on a side: on the right the client
// lies the other way round.
func (s Sequence) For(side ids.Side) Sequence {
	if side != ids.Right {
		return s
	}
	out := Sequence{Sides: s.Sides, Steps: slices.Clone(s.Steps)}
	for i := range out.Steps {
		out.Steps[i].Position = mirrored(out.Steps[i].Position)
	}
	return out
}

// points is the place of a step that is done at each charted point.
const points = "points"

// muscleOf gives the muscle of a place, if it names one, and the usual place.
func muscleOf(where string) (*atlas.Muscle, string) {
	name, site, _ := strings.Cut(where, ":")
	if !slices.Contains(ids.Muscles(), ids.Muscle(name)) {
		return nil, ""
	}
	m, err := atlas.Get(ids.Muscle(name))
	if err != nil {
		return nil, ""
	}
	return m, site
}

// Check implements decode.Checker: the place is known, and the dose is of the technique's kind and
// within its bounds.
func (s TechniqueStep) Check() *decode.Error {
	t, _ := Find(s.Technique)
	if e := s.checkWhere(); e != nil {
		return e
	}
	if s.Contact != "" && !slices.Contains(t.Contacts, s.Contact) {
		allowed := "none: nothing is touched"
		if len(t.Contacts) > 0 {
			allowed = "one of " + joined(t.Contacts)
		}
		return &decode.Error{Path: "$.contact", Given: `"` + string(s.Contact) + `"`, Allowed: allowed}
	}
	if s.Dose == nil {
		return nil
	}
	return s.Dose.check(&t)
}

func (s TechniqueStep) checkWhere() *decode.Error {
	if s.Where == points || slices.Contains(ids.Regions(), ids.Region(s.Where)) {
		return nil
	}
	m, site := muscleOf(s.Where)
	if m == nil {
		return &decode.Error{
			Path: "$.where", Given: `"` + s.Where + `"`, Allowed: "a region, a muscle, a muscle:place, or points",
		}
	}
	if site != "" && !slices.ContainsFunc(m.Sites, func(x atlas.Site) bool { return x.ID == site }) {
		return &decode.Error{Path: "$.where", Given: `"` + s.Where + `"`, Allowed: "a usual place of " + string(m.ID)}
	}
	return nil
}

func joined[T ~string](list []T) string {
	out := make([]string, len(list))
	for i, s := range list {
		out[i] = string(s)
	}
	return strings.Join(out, ", ")
}

// check bounds a dose by its technique.
func (d *Dose) check(t *Technique) *decode.Error {
	given := 0
	for _, set := range []bool{d.Seconds != nil, d.Repetitions != nil, d.Breaths != nil, d.Stations != nil} {
		if set {
			given++
		}
	}
	amount, ok := d.amount(t.Steer)
	if given != 1 || !ok {
		return &decode.Error{
			Path: "$.dose", Given: fmt.Sprintf("%d ways of counting", given),
			Allowed: fmt.Sprintf("%s alone: that is how %s is counted", t.Steer, t.ID),
		}
	}
	if !t.Amount.holds(amount) {
		return &decode.Error{
			Path: "$.dose." + string(t.Steer), Given: fmt.Sprint(amount),
			Allowed: fmt.Sprintf("%v to %v", t.Amount.Least, t.Amount.Most),
		}
	}
	if d.EachS == nil {
		return nil
	}
	if t.Each == (DoseBounds{}) {
		return &decode.Error{
			Path: "$.dose.each_s", Given: fmt.Sprint(*d.EachS), Allowed: "nothing: it counts " + string(t.Steer),
		}
	}
	if !t.Each.holds(*d.EachS) {
		return &decode.Error{
			Path: "$.dose.each_s", Given: fmt.Sprint(*d.EachS),
			Allowed: fmt.Sprintf("%v to %v", t.Each.Least, t.Each.Most),
		}
	}
	return nil
}

// amount is what is counted in one way, if it is.
func (d *Dose) amount(by Steer) (float64, bool) {
	whole := func(n *int) (float64, bool) {
		if n == nil {
			return 0, false
		}
		return float64(*n), true
	}
	switch by {
	case Repetitions:
		return whole(d.Repetitions)
	case Breaths:
		return whole(d.Breaths)
	case Stations:
		return whole(d.Stations)
	}
	if d.Seconds == nil {
		return 0, false
	}
	return *d.Seconds, true
}

// shipped are the sequences by id.
var shipped = sync.OnceValue(func() map[ids.Sequence]Shipped {
	out := map[ids.Sequence]Shipped{}
	for _, s := range shippedData() {
		out[s.ID] = s
	}
	return out
})

// Known lists the shipped sequences in the order of their ids.
func Known() []Shipped {
	out := []Shipped{}
	for _, id := range ids.Sequences() {
		if s, ok := shipped()[id]; ok {
			out = append(out, s)
		}
	}
	return out
}

// Get gives a shipped sequence; the error is a *decode.Error at "$.sequence".
func Get(id ids.Sequence) (Shipped, error) {
	s, ok := shipped()[id]
	if !ok {
		return Shipped{}, &decode.Error{
			Path: "$.sequence", Given: `"` + string(id) + `"`, Allowed: "one of " + joined(ids.Sequences()),
		}
	}
	return s, nil
}

// middle reports whether a place has no sides.
func middle(where string) bool {
	if m, _ := muscleOf(where); m != nil || where == points {
		return false
	}
	return atlas.MidlineRegion(ids.Region(where))
}

// behind reports whether a region is seen from the back rather than from the front.
var behind = sync.OnceValue(func() map[ids.Region]bool {
	count := map[ids.Region]int{}
	for v, by := range map[body.View]int{body.Front: -1, body.Back: 1} {
		for _, n := range body.Cells(v) {
			count[n.Region] += by
		}
	}
	out := map[ids.Region]bool{}
	for r, n := range count {
		out[r] = n > 0
	}
	return out
})

// PlaceOf is where a step works: the muscle and the place on it, if it names one, and the regions
// and structures there.
func PlaceOf(where string, side ids.Side) (ids.Muscle, atlas.FibrePlace, []safety.Place) {
	m, site := muscleOf(where)
	if m == nil {
		return "", atlas.FibrePlace{}, []safety.Place{{Region: ids.Region(where), Side: side}}
	}
	for i, s := range m.Sites {
		if s.ID != site && (site != "" || i > 0) {
			continue
		}
		place := s.Place(body.DefaultHeightCM)
		if site == "" {
			return m.ID, place, m.Places(side)
		}
		v, p := m.OnFigure(place, side, body.DefaultHeightCM)
		return m.ID, place, m.PressedThrough(place, side, v, p)
	}
	return m.ID, atlas.FibrePlace{}, m.Places(side)
}
