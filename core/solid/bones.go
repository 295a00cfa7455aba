package solid

import (
	_ "embed" // the bones
	"math"
	"sync"
)

// bone is an axis with a radius: what a pressing hand stops at.
type bone struct {
	ID     string       `json:"id"`
	Middle bool         `json:"middle,omitempty" doc:"lies on the midline"`
	Radius float64      `json:"radius" minimum:"1" maximum:"20"`
	Line   [][3]float64 `json:"line" minItems:"2"`
}

//go:embed data/bones.json
var bonesFile []byte

// bones have axes that follow the drawn bones in front and from the side.
var bones = sync.OnceValue(boneData)

func at3(p [3]float64) Point { return Point{p[0], p[1], p[2]} }

// ToSegment is how far a place lies from a stretch, and where on it the nearest is.
func ToSegment(p, a, b Point) (d float64, at Point) {
	ab := a.To(b)
	l := ab.dot(ab)
	k := 0.0
	if l > 0 {
		k = min(max(a.To(p).dot(ab)/l, 0), 1)
	}
	at = a.plus(ab, k)
	return p.Distance(at), at
}

// Cage and skull are shells: what lies within is behind ribs or in the skull.
const (
	cageTop, cageBottom = 186, 345
	cageInset           = 0.86
	cageFront, cageBack = 9.0, 15.0
	skullInset          = 0.9
	skullBottom         = 92
)

// shaft is a straight piece of a bone.
type shaft struct {
	id        string
	from, to  Point
	radius    float64
	low, high float64 // heights that it may reach
}

var shafts = sync.OnceValue(func() []shaft {
	var out []shaft
	for _, b := range bones() {
		for i := 1; i < len(b.Line); i++ {
			p, q := at3(b.Line[i-1]), at3(b.Line[i])
			out = append(out, shaft{b.ID, p, q, b.Radius, min(p.Y, q.Y) - b.Radius, max(p.Y, q.Y) + b.Radius})
		}
	}
	return out
})

// bonesBetween are the pieces of bone that lie between two heights.
func bonesBetween(low, high float64) []shaft {
	var out []shaft
	for _, s := range shafts() {
		if s.high >= low && s.low <= high {
			out = append(out, s)
		}
	}
	return out
}

// boneAt tells in which of some pieces of bone a place lies, or that it lies behind ribs
// or in the skull.
func boneAt(p Point, of []shaft) (id string, is bool) {
	q, _ := left(p)
	for i := range of {
		s := &of[i]
		if q.Y < s.low || q.Y > s.high {
			continue
		}
		if d, _ := ToSegment(q, s.from, s.to); d <= s.radius {
			return s.id, true
		}
	}
	switch {
	case q.Y < skullBottom && inset(head, q, skullInset, 6, 6) < 0:
		return "skull", true
	case q.Y > cageTop && q.Y < cageBottom && inset(trunk, q, cageInset, cageFront, cageBack) < 0:
		return "ribs", true
	}
	return "", false
}

// inset is the level of a shell within a part: narrower by a share, and shallower by
// so much in front and behind.
func inset(k part, p Point, share, front, behind float64) float64 {
	c := stacks()[k].at(p.Y)
	z, b := c.z+(behind-front)/2, c.b-(behind+front)/2
	if b < 1 {
		return 1
	}
	return math.Pow(math.Abs(p.X-c.x)/(c.a*share), 2.4) + math.Pow(math.Abs(p.Z-z)/b, 2.4) - 1
}

// deepest is how far in a hand may reach where no bone stops it, in mm in a body of
// 170 cm: no further than half through a part, and in a neck or a calf less.
func (s Skin) deepest() float64 {
	switch {
	case s.part == hand:
		return 14
	case s.part == foot:
		return 26
	case s.part == trunk && s.At.Y < neckEnds:
		return 42
	case s.part == leg && s.At.Y > kneeEnds:
		return 48
	}
	return 71
}

const (
	neckEnds = 168
	kneeEnds = 730
)

// Pressure is a line of pressure: from the skin straight in, down to what is squeezed
// before bone.
type Pressure struct {
	From  Skin
	Depth float64 `json:"depth"`
	// Onto is the bone that it ends on, empty where it ends in soft tissue.
	Onto string `json:"onto,omitempty"`
}

// Press is the line of pressure at a place of the skin, straight in.
func Press(s Skin) Pressure {
	const stride = 1.5
	most := s.deepest() / MMPerUnit
	end := s.At.Along(s.In, most).Y
	of := bonesBetween(min(s.At.Y, end), max(s.At.Y, end))
	least := 1.0
	for d := stride; d < most; d += stride {
		p := s.At.Along(s.In, d)
		if id, is := boneAt(p, of); is {
			return Pressure{s, d, id}
		}
		q, _ := left(p)
		l := s.part.level(q)
		if l > least+0.02 && s.part != foot || l > 0.02 && d > 3 { // past the middle of the part
			return Pressure{s, d, ""}
		}
		least = min(least, l)
	}
	return Pressure{s, most, ""}
}

// End is where the line ends.
func (l Pressure) End() Point { return l.From.At.Along(l.From.In, l.Depth) }

// ToPath is how near the line comes to a stretch: how far, where on the stretch, and
// how deep along the line.
func (l Pressure) ToPath(a, b Point) (d float64, at Point, depth float64) {
	ab, way := a.To(b), l.From.At.To(a)
	long, slant := ab.dot(ab), l.From.In.dot(ab)
	// The nearest places of two straight lines, each kept within its ends.
	k := 0.0
	if square := long - slant*slant; square > 1e-9 {
		k = (slant*l.From.In.dot(way) - ab.dot(way)) / square
	}
	k = min(max(k, 0), 1)
	depth = min(max(l.From.In.dot(way.plus(ab, k)), 0), l.Depth)
	if long > 0 {
		k = min(max(a.To(l.From.At.Along(l.From.In, depth)).dot(ab)/long, 0), 1)
	}
	at = a.plus(ab, k)
	depth = min(max(l.From.In.dot(l.From.At.To(at)), 0), l.Depth)
	return at.Distance(l.From.At.Along(l.From.In, depth)), at, depth
}

// ToBone is how near a line of pressure comes to bone: its surface, ribs or skull, 0
// where it ends on one; and which.
func (l Pressure) ToBone() (gap float64, id string) {
	if l.Onto != "" {
		return 0, l.Onto
	}
	q, _ := left(l.From.At)
	from, end := l.From.At.Y-l.Depth, l.From.At.Y+l.Depth
	side := l
	if q != l.From.At {
		side.From.At, side.From.In = q, l.From.In.Mirrored()
	}
	gap = math.Inf(1)
	for _, s := range bonesBetween(from, end) {
		if d, _, _ := side.ToPath(s.from, s.to); d-s.radius < gap {
			gap, id = max(d-s.radius, 0), s.id
		}
	}
	return gap, id
}
