package solid

import "math"

// Ring is a closed outline in a level slice, X to the client's left, Z forward.
type Ring struct {
	Name string
	Line []Point
}

// partNames are what the slices call them.
var partNames = [parts]string{"head", "trunk", "arm", "hand", "leg", "foot"}

const ringSteps = 72

// Slice gives the skin's outlines at a level, of both sides. Hand and foot, which are
// not sliced level, are left out.
func Slice(y float64) []Ring {
	var out []Ring
	for _, k := range []part{head, trunk, arm, leg} {
		s := &stacks()[k]
		if y < s.from || y > s.to() || k == trunk && y > hipEnds || k == leg && y <= hipEnds {
			continue
		}
		row := s.at(y)
		r := Ring{partNames[k], make([]Point, ringSteps)}
		mirror := Ring{partNames[k], make([]Point, ringSteps)}
		for i := range r.Line {
			r.Line[i] = ring(s, row, 2*math.Pi*float64(i)/ringSteps, y)
			mirror.Line[i] = r.Line[i].Mirrored()
		}
		out = append(out, r)
		if row.x != 0 {
			out = append(out, mirror)
		}
	}
	return out
}

// hipEnds is where trunk gives way to two legs.
const hipEnds = 520

// Cut is where a bone's axis crosses a level.
type Cut struct {
	Bone string
	// At is where it crosses, Radius how thick the bone is there.
	At     Point
	Radius float64
}

// BonesAt lists the bones that a level cuts, of both sides.
func BonesAt(y float64) []Cut {
	var out []Cut
	for _, b := range bones() {
		for i := 1; i < len(b.Line); i++ {
			p, q := at3(b.Line[i-1]), at3(b.Line[i])
			if (p.Y-y)*(q.Y-y) > 0 || p.Y == q.Y {
				continue
			}
			at := p.Along(p.To(q), (y-p.Y)/(q.Y-p.Y))
			out = append(out, Cut{b.ID, at, b.Radius})
			if !b.Middle {
				out = append(out, Cut{b.ID, at.Mirrored(), b.Radius})
			}
		}
	}
	return out
}
