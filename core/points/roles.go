package points

import (
	"cmp"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/stable"
)

// Role is the part that a point plays beside another.
type Role struct {
	Role string `json:"role" enum:"primary,satellite,functional"`
	Of   string `json:"of,omitempty" doc:"the point that it depends on"`
	Text string `json:"text"`

	strength float64
}

// beside is a point with what is asked of it for every other: looked up once.
type beside struct {
	*Point
	muscle *atlas.Muscle
	// where it lies, by region and side.
	where []safety.Place
	// does tells of every painful action what the muscle's part in it is.
	does []part
	// active: only such a point can have satellites.
	active bool
	// Of an active point: where its pain is felt, and whose word that is.
	felt  []safety.Place
	whose string
	name  string
}

// newBeside looks everything up once that is asked of a point for each of the others.
func newBeside(p *Point, active bool, painful []Action) beside {
	out := beside{Point: p, where: p.where(), active: active}
	if active {
		out.felt, out.whose = p.zone()
		out.name = name(p.Muscle, p.Side)
	}
	m, err := atlas.Get(p.Muscle)
	if err != nil {
		return out
	}
	out.muscle, out.does = m, make([]part, len(painful))
	for i, a := range painful {
		out.does[i] = partIn(m, p.Side, a)
	}
	return out
}

// roles lists every part that p plays, strongest first; a point that depends on
// no other is a primary candidate.
func roles(p *beside, active []*beside, painful []Action) []Role {
	out := []Role{}
	for _, of := range active {
		if of.ID == p.ID || !sameSide(of.Side, p.Side) {
			continue
		}
		if r, ok := satellite(p, of); ok {
			out = append(out, r)
		}
		if r, ok := functional(p, of, painful); ok {
			out = append(out, r)
		}
	}
	stable.Sort(out, func(a, b Role) int {
		return cmp.Or(cmp.Compare(b.strength, a.strength), cmp.Compare(a.Of, b.Of), cmp.Compare(a.Role, b.Role))
	})
	if len(out) == 0 {
		out = append(out, Role{Role: "primary", Text: "Depends on no other active point: a primary candidate."})
	}
	return out
}

// How strongly a zone speaks, by whose word it is.
var zoneStrength = map[string]float64{"painted": 3, "this client's": 2.5, "usual": 2}

// satellite: p lies where an active point sends its pain, and that point is at
// least as tender or older.
func satellite(p, of *beside) (Role, bool) {
	tender, older := of.asTender(p.Point), of.before(p.Point)
	if !tender && !older || !covers(of.felt, p.where) {
		return Role{}, false
	}
	why := "which is at least as tender"
	if !tender {
		why = "which was charted at an earlier visit"
	}
	r := Role{Role: "satellite", Of: of.ID, strength: zoneStrength[of.whose]}
	r.Text = "Lies in the " + of.whose + " referral of " + of.name + ", " + why + "."
	if t, ok := of.tenderness(); ok {
		r.strength += t / 100
	}
	return r, true
}

// functional: the other point's muscle makes an action that is painful or restricted,
// and p's muscle makes it too, or works against it. Of two active points that help one
// another only the one that comes after is functional to the first: somebody is primary.
func functional(p, of *beside, painful []Action) (Role, bool) {
	if p.muscle == nil || of.muscle == nil || p.muscle == of.muscle {
		return Role{}, false
	}
	for i, a := range painful {
		if of.does[i] != makes || p.does[i] == none || p.does[i] == makes && p.active && p.outranks(of.Point) {
			continue
		}
		kind := "Helps"
		if p.does[i] == against {
			kind = "Works against"
		}
		return Role{
			Role: "functional", Of: of.ID, strength: 1,
			Text: kind + " " + of.name + " in " + plain(string(a.Movement)) + ", which is painful or restricted.",
		}, true
	}
	return Role{}, false
}

// outranks orders two points: the more tender, then the older, then by id.
func (p *Point) outranks(o *Point) bool {
	a, b := p.asTender(o), o.asTender(p)
	switch {
	case a != b:
		return a
	case p.before(o) || o.before(p):
		return p.before(o)
	}
	return p.ID < o.ID
}

// part is what a muscle does in an action.
type part uint8

const (
	none part = iota
	makes
	against // makes the opposite, or limits it when short
)

// partIn tells what the muscle of a side does in an action of a side.
func partIn(m *atlas.Muscle, side ids.Side, a Action) part {
	for _, x := range m.Actions {
		if x.Movement == a.Movement && toward(x, side, a.Side) {
			return makes
		}
	}
	for _, x := range m.Actions {
		if o, ok := atlas.Opposite(a.Movement); ok && x.Movement == o && sameSide(side, a.Side) ||
			x.Toward != "" && x.Movement == a.Movement && !toward(x, side, a.Side) {
			return against
		}
	}
	for _, x := range m.Restricts {
		if x.Movement == a.Movement && toward(x, side, a.Side) {
			return against
		}
	}
	return none
}

// toward tells whether a motion of a muscle of a side goes to the side of an action: a
// turn or a side-bend goes to the muscle's own side or to the other, anything else
// happens at the joint of its own side.
func toward(x atlas.Motion, side, action ids.Side) bool {
	if x.Toward == "other" {
		return action != side || side == ids.Midline
	}
	return sameSide(side, action)
}
