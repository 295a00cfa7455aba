package points

import (
	"cmp"
	"slices"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/order"
	"mokren/core/safety"
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
	// helps and opposes are the muscles that work with and against it.
	helps, opposes []ids.Muscle
	where          []safety.Place
	// works tells of every painful action whether the muscle takes part.
	works []bool
	// Of an active point: where its pain is felt, and whose word that is.
	felt  []safety.Place
	whose string
	name  string
}

func newBeside(p *Point, active bool, painful []Action) beside {
	out := beside{Point: p, where: p.where()}
	if active {
		out.felt, out.whose = p.zone()
		out.name = name(p.Muscle, p.Side)
	}
	m, err := atlas.Get(p.Muscle)
	if err != nil {
		return out
	}
	out.muscle, out.works = m, make([]bool, len(painful))
	if active {
		out.helps, out.opposes = m.Relations()
	}
	for i, a := range painful {
		out.works[i] = works(m, a.Movement)
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
	order.By(out, func(a, b Role) int {
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

// functional: p's muscle works with or against the other's in an action that is
// painful or restricted.
func functional(p, of *beside, painful []Action) (Role, bool) {
	if p.muscle == nil || of.muscle == nil || p.muscle == of.muscle {
		return Role{}, false
	}
	for i, a := range painful {
		if !p.works[i] || !of.works[i] || !sameSide(a.Side, of.Side) {
			continue
		}
		kind := ""
		switch {
		case slices.Contains(of.helps, p.Muscle):
			kind = "Helps"
		case slices.Contains(of.opposes, p.Muscle):
			kind = "Works against"
		default:
			continue
		}
		return Role{
			Role: "functional", Of: of.ID, strength: 1,
			Text: kind + " " + of.name + " in " + plain(string(a.Movement)) + ", which is painful or restricted.",
		}, true
	}
	return Role{}, false
}

// works tells whether a muscle takes part in a movement: it makes it, makes its
// opposite, or limits it when short.
func works(m *atlas.Muscle, movement ids.Movement) bool {
	opposite, _ := atlas.Opposite(movement)
	part := func(x atlas.Motion) bool { return x.Movement == movement || x.Movement == opposite && opposite != "" }
	return slices.ContainsFunc(m.Actions, part) || slices.ContainsFunc(m.Restricts, part)
}
