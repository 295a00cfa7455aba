package assess

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/progress"
)

// joint is the group of a movement's findings.
func joint(m ids.Movement) string { j, _, _ := strings.Cut(string(m), "."); return j }

// readings are those of a client, with what is usual at an age.
type readings struct {
	list []ROM
	age  int
}

// find is the reading of a movement on a side, or nil where it was not taken.
func (l readings) find(mv ids.Movement, side ids.Side) *ROM {
	for i := range l.list {
		if l.list[i].Movement == mv && l.list[i].Side == side {
			return &l.list[i]
		}
	}
	return nil
}

// short compares like with like: passive with passive where both sides have it.
func (l readings) short(r *ROM) bool {
	v := cmp.Or(r.Passive, r.Active)
	if v == nil {
		return false
	}
	var other *float64
	if o := l.find(r.Movement, r.Side.Other()); o != nil && r.Side != ids.Midline {
		if other = o.Passive; other == nil || r.Passive == nil {
			other = o.Active
		}
	}
	return progress.Flag(r.Movement, *v, other, l.age).Flagged
}

// ranges weighs the readings against what is usual at an age.
func (m *model) ranges(list []ROM, age int) {
	l := readings{list, age}
	for i := range list {
		r := &list[i]
		if r.Active == nil && r.Passive == nil && r.Pain == nil {
			continue
		}
		isShort := l.short(r)
		for _, h := range m.all {
			m.length(h, l, r, isShort)
			m.weakness(h, r)
		}
	}
}

// length weighs what a reading says of a muscle that would shorten it.
func (m *model) length(h *hypothesis, l readings, r *ROM, isShort bool) {
	if !slices.ContainsFunc(h.muscle.Restricts, func(mo atlas.Motion) bool {
		return mo.Movement == r.Movement && speaksOf(mo, r.Side, h.side)
	}) {
		return
	}
	group, key := "length:"+joint(r.Movement), "rom:"+string(r.Movement)+":"+string(r.Side)
	words := plain(string(r.Movement))
	switch {
	case isShort:
		plus, text := m.shortWeight(r, h)
		if other := calfTwin(r.Movement); other != "" {
			plus, text = m.calf(l.find(other, r.Side), l.short, r.Movement, h, plus, text)
		}
		h.add(group, key, plus, text)
	case r.Pain != nil && *r.Pain > 0:
		h.add(group, key, m.w.of("painful-movement").Plus, "Painful in full range: "+words)
	case r.Active != nil || r.Passive != nil:
		h.add(group, key, m.w.of("restricted").Minus, "Full range: "+words)
	}
}

// weakDeg: a passive range so much wider than the active one is weakness.
const weakDeg = 15

// weakness weighs an active range that falls far short of the passive one.
func (m *model) weakness(h *hypothesis, r *ROM) {
	if r.Active == nil || r.Passive == nil || *r.Passive-*r.Active < weakDeg {
		return
	}
	for _, a := range h.muscle.Actions {
		if a.Movement == r.Movement && speaksOf(a, r.Side, h.side) {
			h.add("action:"+joint(r.Movement), "weak:"+string(r.Movement)+":"+string(r.Side),
				m.w.of("weak-active").Plus, "Active far less than passive: "+plain(string(r.Movement)))
		}
	}
}

// speaksOf tells whether a motion of a muscle on one side is the motion that
// was read.
func speaksOf(mo atlas.Motion, reading, muscle ids.Side) bool {
	return reading == ids.Midline || ownSide(mo, reading) == muscle
}

// shortWeight: a pull on the lengthened side raises a muscle more, a pinch on
// the shortened side raises the joint, not the muscle; an end that is hard or
// empty speaks little of muscle.
func (m *model) shortWeight(r *ROM, h *hypothesis) (plus float64, text string) {
	text = "Short: " + plain(string(r.Movement))
	switch {
	case r.Felt == "pinch":
		return m.w.of("restricted-pinch").Plus, text + ", felt as a pinch"
	case r.EndFeel == "hard" || r.EndFeel == "empty":
		return math.Sqrt(m.w.of("restricted").Plus), text + ", end feel " + r.EndFeel
	case r.Felt == "pull" && (r.FeltAt == "" || h.muscle.At(r.FeltAt)):
		return m.w.of("restricted-pull").Plus, text + ", felt as a pull there"
	}
	return m.w.of("restricted").Plus, text
}

// calfTwin is the same movement with the knee the other way.
func calfTwin(m ids.Movement) ids.Movement {
	switch m {
	case "ankle.dorsiflexion-knee-straight":
		return "ankle.dorsiflexion-knee-bent"
	case "ankle.dorsiflexion-knee-bent":
		return "ankle.dorsiflexion-knee-straight"
	}
	return ""
}

// calf reads straight against bent: short with the knee straight only is
// gastrocnemius; short with it bent as well is explained by soleus.
func (m *model) calf(twin *ROM, short func(*ROM) bool, mv ids.Movement, h *hypothesis, plus float64,
	text string,
) (float64, string) {
	if twin == nil || mv != "ankle.dorsiflexion-knee-straight" {
		return plus, text
	}
	both := slices.ContainsFunc(h.muscle.Restricts,
		func(r atlas.Motion) bool { return r.Movement == "ankle.dorsiflexion-knee-bent" })
	switch {
	case both && !short(twin):
		return m.w.of("restricted").Minus, "Short with the knee straight only: not this one"
	case !both && short(twin):
		return m.w.of("restricted-pinch").Plus, "Short with the knee bent too: soleus explains it"
	}
	return plus, text
}

// notes says what the readings suggest beyond single muscles.
func notes(list []ROM, age int) []string {
	out := []string{}
	for _, side := range StiffShoulders(list, age) {
		out = append(out, fmt.Sprintf("Stiff shoulder, %s? Active and passive range are equally short, "+
			"outward turn most, then raising sideways, then inward turn: the capsule's order. Nothing is "+
			"forced in its painful stage.", side))
	}
	return out
}

// StiffShoulders gives the sides on which the readings are short in the order of
// a stiff shoulder: active and passive alike, outward turn most, then raising
// sideways, then inward turn.
func StiffShoulders(list []ROM, age int) []ids.Side {
	var out []ids.Side
	for _, side := range bothSides {
		loss := map[ids.Movement]float64{}
		even := true
		for _, r := range list {
			ref, ok := progress.Reference(r.Movement, age)
			if r.Side != side || !ok || r.Active == nil || r.Passive == nil || joint(r.Movement) != "shoulder" {
				continue
			}
			loss[r.Movement] = 1 - *r.Passive/ref
			even = even && math.Abs(*r.Passive-*r.Active) < 10
		}
		er, ok1 := loss["shoulder.external-rotation"]
		ab, ok2 := loss["shoulder.abduction"]
		ir, ok3 := loss["shoulder.internal-rotation"]
		if ok1 && ok2 && ok3 && even && er > ab && ab > ir && er >= 0.25 && ab >= 0.15 {
			out = append(out, side)
		}
	}
	return out
}
