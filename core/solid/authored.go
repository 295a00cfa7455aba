package solid

import "mokren/core/body"

// MMPerUnit is what a thousandth of the height is in a body of the default height.
const MMPerUnit = body.DefaultHeightCM / 100.0

// Authored is a place of the left half as the data files give it. From "space" it is
// x, y, z. Seen from front, back, side or sole it is the authored place of that view and
// the depth in mm below the skin there, in a body of 170 cm; "inner" is the inner side
// of a leg, given by z, y and depth. ok is false beside the figure.
func Authored(from string, p [3]float64) (q Point, ok bool) {
	depth := p[2] / MMPerUnit
	a := body.Point{X: p[0], Y: p[1]}
	switch from {
	case "space":
		return at3(p), true
	case "front":
		q, _, ok = seenAlongZ(a, 1)
		q.Z -= depth
	case "back":
		q, _, ok = seenAlongZ(a, -1)
		q.Z += depth
	case "side":
		q, _, ok = fromBeside(a, false)
		q.X -= depth
	case "inner":
		q, _, ok = fromBeside(a, false)
		row := stacks()[leg].at(a.Y)
		q.X = max(2*row.x-q.X, 0) + depth
	case "sole":
		q, _, ok = fromBelow(a)
		q.Y -= depth
	}
	return q, ok
}
