package ids

import (
	"slices"
	"strings"

	"mokren/core/decode"
)

// Kinds of id. Side is "left", "right" or "midline".
type (
	Side      string
	Muscle    string
	Region    string
	Movement  string
	Landmark  string
	Structure string
	Protocol  string
	Technique string
	Sequence  string
	Contact   string
	Position  string
	Measure   string
	Question  string
	Sign      string
	Test      string
	Load      string
)

// Sides of the body, named from the client's point of view.
const (
	Left    Side = "left"
	Right   Side = "right"
	Midline Side = "midline"
)

// Other returns the opposite side; the midline is its own opposite.
func (s Side) Other() Side {
	switch s {
	case Left:
		return Right
	case Right:
		return Left
	}
	return s
}

// check refuses an id that is not of its kind, and names the nearest one: most wrong ids are
// typing errors.
func check(kind, id string, list []string) *decode.Error {
	if slices.Contains(list, id) {
		return nil
	}
	allowed := "a known " + kind + " id"
	if near := nearest(id, list); near != "" {
		allowed += " (nearest: " + near + ")"
	}
	if len(list) <= 6 {
		allowed = "one of " + strings.Join(list, ", ")
	}
	return &decode.Error{Path: "$", Given: `"` + shorten(id) + `"`, Allowed: allowed}
}

// shorten keeps an error to a line, whatever somebody sent as an id.
func shorten(s string) string {
	if r := []rune(s); len(r) > 60 {
		return strings.Map(oneLine, string(r[:57])) + "…"
	}
	return strings.Map(oneLine, s)
}

// oneLine takes control characters out of what is quoted in an error.
func oneLine(r rune) rune {
	if r < ' ' {
		return ' '
	}
	return r
}

// nearest offers the id that begins or ends like the misspelt one.
func nearest(id string, list []string) string {
	best, score := "", 3
	for _, c := range list {
		n := 0
		for n < len(id) && n < len(c) && id[n] == c[n] {
			n++
		}
		m := 0
		for m < len(id)-n && m < len(c)-n && id[len(id)-1-m] == c[len(c)-1-m] {
			m++
		}
		if n+m > score {
			best, score = c, n+m
		}
	}
	return best
}

// Check implements decode.Checker for each kind.
func (s Side) Check() *decode.Error      { return check("side", string(s), sides) }
func (m Muscle) Check() *decode.Error    { return check("muscle", string(m), muscles) }
func (r Region) Check() *decode.Error    { return check("region", string(r), regions) }
func (m Movement) Check() *decode.Error  { return check("movement", string(m), movements) }
func (l Landmark) Check() *decode.Error  { return check("landmark", string(l), landmarks) }
func (s Structure) Check() *decode.Error { return check("structure", string(s), structures) }
func (p Protocol) Check() *decode.Error  { return check("protocol", string(p), protocols) }
func (t Technique) Check() *decode.Error { return check("technique", string(t), techniques) }
func (s Sequence) Check() *decode.Error  { return check("sequence", string(s), sequences) }
func (c Contact) Check() *decode.Error   { return check("contact", string(c), contacts) }
func (p Position) Check() *decode.Error  { return check("position", string(p), positions) }
func (m Measure) Check() *decode.Error   { return check("measure", string(m), measures()) }
func (q Question) Check() *decode.Error  { return check("question", string(q), questions) }
func (s Sign) Check() *decode.Error      { return check("sign", string(s), signs) }
func (t Test) Check() *decode.Error      { return check("test", string(t), tests()) }
func (l Load) Check() *decode.Error      { return check("load", string(l), loads) }

// Kind is one list of ids.
type Kind struct {
	Name string
	IDs  []string
}

// All lists every kind with its ids, in a fixed order.
func All() []Kind {
	return []Kind{
		{"muscles", muscles},
		{"regions", regions},
		{"movements", movements},
		{"landmarks", landmarks},
		{"structures", structures},
		{"protocols", protocols},
		{"contacts", contacts},
		{"positions", positions},
		{"questions", questions},
		{"signs", signs},
		{"tests", tests()},
		{"measures", measures()},
		{"loads", loads},
		{"techniques", techniques},
		{"sequences", sequences},
	}
}

// Muscles, Regions and the others list the ids of their kind.
func Muscles() []Muscle       { return typed[Muscle](muscles) }
func Regions() []Region       { return typed[Region](regions) }
func Movements() []Movement   { return typed[Movement](movements) }
func Landmarks() []Landmark   { return typed[Landmark](landmarks) }
func Structures() []Structure { return typed[Structure](structures) }
func Questions() []Question   { return typed[Question](questions) }
func Signs() []Sign           { return typed[Sign](signs) }
func Tests() []Test           { return typed[Test](tests()) }
func Loads() []Load           { return typed[Load](loads) }
func Sides() []Side           { return typed[Side](sides) }
func Protocols() []Protocol   { return typed[Protocol](protocols) }
func Techniques() []Technique { return typed[Technique](techniques) }
func Sequences() []Sequence   { return typed[Sequence](sequences) }
func Contacts() []Contact     { return typed[Contact](contacts) }
func Positions() []Position   { return typed[Position](positions) }

// List reads ids separated by white space.
func List[T ~string](spaced string) []T { return typed[T](strings.Fields(spaced)) }

// With is the list with x at its end, unless it is there.
func With[T comparable](list []T, x T) []T {
	if slices.Contains(list, x) {
		return list
	}
	return append(list, x)
}

// typed gives a list in the type of its kind.
func typed[T ~string](list []string) []T {
	out := make([]T, len(list))
	for i, s := range list {
		out[i] = T(s)
	}
	return out
}
