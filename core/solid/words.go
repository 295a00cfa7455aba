package solid

import (
	"math"
	"strings"
)

// Frame is two ways along the skin, square to each other: toward the head, and across.
func (s Skin) Frame() (up, across Point) {
	up = Point{0, -1, 0}
	if math.Abs(s.In.Y) > 0.9 { // the crown, the sole: forward
		up = Point{0, 0, 1}
	}
	up = up.plus(s.In, -up.dot(s.In)).unit()
	across = Point{
		up.Y*s.In.Z - up.Z*s.In.Y, up.Z*s.In.X - up.X*s.In.Z, up.X*s.In.Y - up.Y*s.In.X,
	}
	return up, across
}

// Onto lays a place near the skin onto it, on the same part and side of the body as
// another.
func Onto(p Point, like Skin) (Skin, bool) {
	q, mirrored := left(p)
	if like.At.X*p.X < 0 && like.part != trunk && like.part != head {
		return Skin{}, false
	}
	k := like.part
	if k == foot && like.At.Y == ground {
		row := stacks()[foot].at(q.Z)
		return sole(Point{q.X, ground, q.Z}, mirrored), math.Abs(q.X-row.x) < row.a
	}
	const tries = 8
	for range tries {
		g := k.steepness(q)
		steep := g.dot(g)
		if steep == 0 {
			return Skin{}, false
		}
		l := k.level(q)
		if math.Abs(l) < 0.004 {
			break
		}
		q = q.plus(g, -l/steep)
	}
	if math.Abs(k.level(q)) > 0.05 {
		return Skin{}, false
	}
	if other, l := within(q); l < -0.15 && other != k {
		return Skin{}, false // it would lie within another part
	}
	return skin(k, q, mirrored), true
}

// ends of a part's axis, in words, and what lies to its outer and inner side.
var partWords = [parts]struct{ up, down, outer, inner, front, back string }{
	head:  {"up", "down", "outward", "toward the midline", "forward", "back"},
	trunk: {"toward the head", "toward the feet", "outward", "toward the midline", "forward", "back"},
	arm: {
		"toward the shoulder", "toward the hand", "toward the outer side", "toward the inner side",
		"toward the front", "toward the back",
	},
	hand: {"toward the wrist", "toward the fingers", "toward the thumb", "toward the little finger", "", ""},
	leg:  {"toward the hip", "toward the foot", "outward", "inward", "toward the front", "toward the back"},
	foot: {
		"up", "toward the sole", "toward the little toe", "toward the great toe", "toward the toes", "toward the heel",
	},
}

// Words tell a step along the skin in words of the body.
func Words(from, to Skin) string {
	d := from.At.To(to.At).unit()
	w := partWords[from.part]
	if from.part == arm && from.At.Y > elbow+10 {
		w.outer, w.inner = "toward the thumb", "toward the little finger"
	}
	if from.At.X < 0 || from.At.X == 0 && to.At.X < 0 {
		d.X = -d.X
	}
	type way struct {
		much float64
		text string
	}
	pick := func(k float64, more, less string) way {
		if k > 0 {
			return way{k, more}
		}
		return way{-k, less}
	}
	ways := []way{pick(d.Y, w.down, w.up), pick(d.X, w.outer, w.inner), pick(d.Z, w.front, w.back)}
	var said []string
	for len(said) < 2 {
		best := way{much: 0.38}
		for i, x := range ways {
			// The skin curves back at once: forward and back are said where they are most of it.
			if i == 2 && x.much < 0.6 {
				continue
			}
			if x.much > best.much && x.text != "" && !strings.Contains(strings.Join(said, " "), x.text) {
				best = x
			}
		}
		if best.text == "" {
			break
		}
		said = append(said, best.text)
	}
	return strings.Join(said, " and ")
}
