package note

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"mokren/core/atlas"
	"mokren/core/ids"
)

// plain is an id in words.
func plain[T ~string](id T) string { return strings.ReplaceAll(string(id), "-", " ") }

func capital(s string) string {
	r, n := utf8.DecodeRuneInString(s)
	return string(unicode.ToUpper(r)) + s[n:]
}

var joints = map[string]string{
	"cervical": "neck", "thoracic": "chest", "lumbar": "low back", "scapula": "shoulder blade",
}

// Movement is a movement as the trade says it: "neck side bend".
func Movement(m ids.Movement) string {
	joint, move, _ := strings.Cut(string(m), ".")
	name, ok := joints[joint]
	if !ok {
		name = plain(joint)
	}
	return name + " " + plain(strings.ReplaceAll(move, "lateral-flexion", "side-bend"))
}

// Muscle is a muscle's name with its side and, where known, its site.
func Muscle(id ids.Muscle, side ids.Side, site string) string {
	name := plain(id)
	m, err := atlas.Get(id)
	if err == nil {
		name = m.Name
	}
	name = onSide(name, side)
	if err != nil || site == "" {
		return name
	}
	if s, ok := m.Site(site); ok {
		return name + " (" + s.Name + ")"
	}
	return name
}

func onSide(what string, side ids.Side) string {
	if side == "" || side == ids.Midline {
		return what
	}
	return what + ", " + string(side)
}

// number has no needless decimals.
func number(v float64) string {
	return strconv.FormatFloat(math.Round(v*10)/10, 'f', -1, 64)
}

func orUnread(v *float64, unit string) string {
	if v == nil {
		return "not read"
	}
	return number(*v) + unit
}

// seconds as they were held: to a tenth, since times appear exactly.
func seconds(s float64) string { return number(s) + " s" }

func count(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

func among(list []string) string { return strings.Join(list, ", ") }

func numbers(list []float64) string {
	out := make([]string, len(list))
	for i, v := range list {
		out[i] = number(v)
	}
	return among(out)
}

func regions(list []ids.Region) string {
	out := make([]string, len(list))
	for i, r := range list {
		out[i] = plain(r)
	}
	return among(out)
}
