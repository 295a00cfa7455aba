package points

import (
	"cmp"
	"fmt"
	"slices"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
)

// Role is the part that a point plays beside another.
type Role struct {
	Role string `json:"role" enum:"primary,satellite,functional"`
	Of   string `json:"of,omitempty" doc:"the point that it depends on"`
	Text string `json:"text"`

	strength float64
}

// dominant is an active point, with where its pain is felt and whose word that
// is.
type dominant struct {
	Point
	felt  []safety.Place
	whose string
}

// roles lists every part that p plays, strongest first; a point that depends on
// no other is a primary candidate.
func roles(p Point, active []dominant, painful []Action) []Role {
	out := []Role{}
	where := p.where()
	for _, of := range active {
		if of.ID == p.ID || !sameSide(of.Side, p.Side) {
			continue
		}
		if r, ok := satellite(p, where, of); ok {
			out = append(out, r)
		}
		if r, ok := functional(p, of.Point, painful); ok {
			out = append(out, r)
		}
	}
	slices.SortFunc(out, func(a, b Role) int {
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
func satellite(p Point, where []safety.Place, of dominant) (Role, bool) {
	tender, older := of.asTender(p), of.before(p)
	if !tender && !older || !covers(of.felt, where) {
		return Role{}, false
	}
	why := "which is at least as tender"
	if !tender {
		why = "which was charted at an earlier visit"
	}
	r := Role{Role: "satellite", Of: of.ID, strength: zoneStrength[of.whose]}
	r.Text = fmt.Sprintf("Lies in the %s referral of %s, %s.", of.whose, name(of.Muscle, of.Side), why)
	if t, ok := of.tenderness(); ok {
		r.strength += t / 100
	}
	return r, true
}

// functional: p's muscle works with or against the other's in an action that is
// painful or restricted.
func functional(p, of Point, painful []Action) (Role, bool) {
	mine, err := atlas.Get(p.Muscle)
	theirs, err2 := atlas.Get(of.Muscle)
	if err != nil || err2 != nil || p.Muscle == of.Muscle {
		return Role{}, false
	}
	helps, opposes := theirs.Relations()
	for _, a := range painful {
		if !sameSide(a.Side, of.Side) || !works(theirs, a.Movement) || !works(mine, a.Movement) {
			continue
		}
		kind := ""
		switch {
		case slices.Contains(helps, p.Muscle):
			kind = "Helps"
		case slices.Contains(opposes, p.Muscle):
			kind = "Works against"
		default:
			continue
		}
		return Role{
			Role: "functional", Of: of.ID, strength: 1,
			Text: fmt.Sprintf("%s %s in %s, which is painful or restricted.", kind, name(of.Muscle, of.Side),
				plain(string(a.Movement))),
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
