// Package wording says ids of the core as the trade says them.
package wording

import (
	"strings"
	"unicode"
	"unicode/utf8"

	"mokren/core/atlas"
	"mokren/core/ids"
)

// Plain is an id in words.
func Plain[T ~string](id T) string { return strings.ReplaceAll(string(id), "-", " ") }

var joints = map[string]string{
	"cervical": "neck", "thoracic": "chest", "lumbar": "low back", "scapula": "shoulder blade",
}

// Movement is a movement as the trade says it: "neck side bend".
func Movement(m ids.Movement) string {
	joint, move, _ := strings.Cut(string(m), ".")
	name, ok := joints[joint]
	if !ok {
		name = Plain(joint)
	}
	return name + " " + Plain(strings.ReplaceAll(move, "lateral-flexion", "side-bend"))
}

// Test is a test as the trade says it: "resisted neck rotation", "straight leg raise".
func Test(t ids.Test) string {
	how, movement, of := strings.Cut(string(t), ":")
	if !of {
		return Plain(t)
	}
	return how + " " + Movement(ids.Movement(movement))
}

// Muscle is a muscle's name with its side and, where known, its site.
func Muscle(id ids.Muscle, side ids.Side, site string) string {
	name := Plain(id)
	m, err := atlas.Get(id)
	if err == nil {
		name = m.Name
	}
	name = OnSide(name, side)
	if err != nil || site == "" {
		return name
	}
	if s, ok := m.Site(site); ok {
		return name + " (" + within(s.Name) + ")"
	}
	return name
}

// within is a name as it stands within a sentence: "Upper edge" is the upper edge, "C5" stays.
func within(name string) string {
	first, n := utf8.DecodeRuneInString(name)
	next, _ := utf8.DecodeRuneInString(name[n:])
	if !unicode.IsLower(next) {
		return name
	}
	return string(unicode.ToLower(first)) + name[n:]
}

// OnSide adds the side of what has one.
func OnSide(what string, side ids.Side) string {
	if side == "" || side == ids.Midline {
		return what
	}
	return what + ", " + string(side)
}
