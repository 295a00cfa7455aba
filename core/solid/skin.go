package solid

import (
	"math"

	"mokren/core/body"
	"mokren/core/ids"
)

// Skin is a place on the skin with the way in: a unit vector, square to the skin.
type Skin struct {
	At   Point
	In   Point
	part part
}

// axis of a place within a part, and its place across and deep there.
func (k part) axis(p Point) (along, across, deep float64) {
	switch k {
	case hand:
		q := body.Front.OnHand(body.Point{X: p.X, Y: p.Y})
		return q.Y, q.X, p.Z
	case foot:
		return p.Z, p.X, p.Y
	}
	return p.Y, p.X, p.Z
}

// far is the level of what is nowhere near a part.
const far = 40

// level is below 0 within a part of the left half, 0 on its skin and above 0 outside;
// in units of its half widths.
func (k part) level(p Point) float64 {
	if !k.mayHold(p) {
		return far
	}
	s := &stacks()[k]
	along, x, z := k.axis(p)
	if along < s.from-far || along > s.to()+far {
		return far
	}
	c := s.at(along)
	dx, dz := math.Abs(x-c.x)/c.a, math.Abs(z-c.z)/c.b
	l := s.root(s.sum(dx, dz)) - 1
	if over := max(s.from-along, along-s.to(), 0); over > 0 {
		l = max(l, 0) + over/min(c.a, c.b)
	}
	if k == foot && p.Y > ground {
		l = max(l, 0) + (p.Y-ground)/c.b
	}
	return l
}

// within finds the part of the left half that holds a place, the one where it lies
// deepest; outside the body the nearest.
func within(p Point) (part, float64) {
	best, at := math.Inf(1), head
	for k := head; k < parts; k++ {
		if l := k.level(p); l < best {
			best, at = l, k
		}
	}
	return at, best
}

// steepness of the level at a place.
func (k part) steepness(p Point) Point {
	const h = 0.75
	return Point{
		(k.level(Point{p.X + h, p.Y, p.Z}) - k.level(Point{p.X - h, p.Y, p.Z})) / (2 * h),
		(k.level(Point{p.X, p.Y + h, p.Z}) - k.level(Point{p.X, p.Y - h, p.Z})) / (2 * h),
		(k.level(Point{p.X, p.Y, p.Z + h}) - k.level(Point{p.X, p.Y, p.Z - h})) / (2 * h),
	}
}

// left mirrors a place of the right half; the sections are of the left.
func left(p Point) (q Point, mirrored bool) {
	if p.X < 0 {
		return p.Mirrored(), true
	}
	return p, false
}

// skin is a place on the skin with the way in, against the steepest rise of the level.
func skin(k part, p Point, mirrored bool) Skin {
	in := k.steepness(p).unit()
	s := Skin{p, Point{-in.X, -in.Y, -in.Z}, k}
	if mirrored {
		s.At, s.In = s.At.Mirrored(), s.In.Mirrored()
	}
	return s
}

// Inside reports whether a place lies within the body.
func Inside(p Point) bool {
	q, _ := left(p)
	for k := head; k < parts; k++ {
		if k.holds(q) {
			return true
		}
	}
	return false
}

// Heights between which hand and foot lie, with room.
const (
	handFrom, handTo = 490, 660
	footFrom         = 930
)

// mayHold rules a part out at no cost.
func (k part) mayHold(p Point) bool {
	switch k {
	case hand:
		return p.Y > handFrom && p.Y < handTo && p.X > shoulder
	case foot:
		return p.Y > footFrom
	}
	return true
}

// holds is level < 0, at less cost.
func (k part) holds(p Point) bool {
	if !k.mayHold(p) {
		return false
	}
	s := &stacks()[k]
	along, x, z := k.axis(p)
	if along < s.from || along > s.to() || k == foot && p.Y > ground {
		return false
	}
	c := s.at(along)
	dx, dz := math.Abs(x-c.x)/c.a, math.Abs(z-c.z)/c.b
	return dx < 1 && dz < 1 && s.sum(dx, dz) < 1
}

// Touch is the place on the skin that is seen at a place of a view, on a side of the
// body. ok is false beside the figure.
func Touch(v body.View, p body.Point, side ids.Side) (s Skin, ok bool) {
	return touch(v, p, side, true)
}

// TouchBehind is Touch of what lies behind the hanging arm in a side view.
func TouchBehind(v body.View, p body.Point, side ids.Side) (s Skin, ok bool) {
	return touch(v, p, side, false)
}

// touch finds the skin that a view shows at a point. A touch just over the midline is taken
// for the side that was meant.
func touch(v body.View, p body.Point, side ids.Side, arms bool) (s Skin, ok bool) {
	a := v.Authored(p)
	if !v.OneSided() && side != ids.Midline && v.SideAt(p) != side {
		a.X = -a.X // just over the midline
	}
	var k part
	var q Point
	switch {
	case v == body.Front:
		q, k, ok = seenAlongZ(a, 1)
	case v == body.Back:
		q, k, ok = seenAlongZ(a, -1)
	case v == body.SoleLeft || v == body.SoleRight:
		q, k, ok = fromBelow(a)
	default:
		q, k, ok = fromBeside(a, arms && (v == body.LeftSide || v == body.RightSide))
	}
	if !ok {
		return Skin{}, false
	}
	right := side == ids.Right || side == ids.Midline && v.SideAt(p) == ids.Right
	if v == body.SoleLeft || v == body.SoleRight {
		return sole(q, right), true
	}
	return skin(k, q, right), true
}

// edge is how far beside the sections a touch still means them.
const edge = 4

// seenAlongZ is the foremost skin (or, with toward −1, the rearmost) at x and y.
func seenAlongZ(a body.Point, toward float64) (q Point, k part, ok bool) {
	best := math.Inf(-1)
	for _, c := range []part{head, trunk, arm, leg} {
		s := &stacks()[c]
		if a.Y < s.from-2 || a.Y > s.to()+2 {
			continue
		}
		row := s.at(a.Y)
		if c == arm && a.Y > wrist || math.Abs(a.X-row.x) > row.a+edge {
			continue
		}
		x := min(max(a.X, row.x-row.a), row.x+row.a)
		z := row.z + toward*s.reach(row, x)
		if z*toward > best {
			best, q, k, ok = z*toward, Point{x, a.Y, z}, c, true
		}
	}
	if h := body.Front.OnHand(a); !ok && h.Y >= -2 && h.Y <= stacks()[hand].to() {
		s := &stacks()[hand]
		row := s.at(h.Y)
		if math.Abs(h.X-row.x) <= row.a+edge {
			return Point{a.X, a.Y, row.z + toward*s.reach(row, h.X)}, hand, true
		}
	}
	if !ok && a.Y > stacks()[leg].to() {
		return overFoot(a, toward)
	}
	return q, k, ok
}

// overFoot is the foremost or rearmost skin of the foot at x and y.
func overFoot(a body.Point, toward float64) (q Point, k part, ok bool) {
	s := &stacks()[foot]
	from, to, step := s.to(), s.from, -1.0
	if toward < 0 {
		from, to, step = s.from, s.to(), 1
	}
	for z := from; (to-z)*step >= 0; z += step {
		row := s.at(z)
		if math.Abs(a.X-row.x) <= row.a+edge && ground-s.reach(row, min(max(a.X, row.x-row.a), row.x+row.a)) <= a.Y {
			return Point{a.X, min(a.Y, ground), z}, foot, true
		}
	}
	return q, k, false
}

// fromBelow is the skin of a sole, which lies flat on the ground.
func fromBelow(a body.Point) (Point, part, bool) {
	x, z := onSole(a)
	row := stacks()[foot].at(z)
	if math.Abs(x-row.x) > row.a+edge {
		return Point{}, foot, false
	}
	return Point{x, ground, z}, foot, true
}

// turn is how far the forearm that the side view shows is turned about its axis.
func turn(y float64) float64 { return min(max((y-elbow)/(wrist-elbow), 0), 1) * math.Pi / 2 }

// fromBeside is the outermost skin at z and y; in a side view the arm hangs before the
// trunk.
func fromBeside(a body.Point, arms bool) (q Point, k part, ok bool) {
	z, y := a.X, a.Y
	if arms {
		if q, k, ok := armBeside(a); ok {
			return q, k, ok
		}
	}
	best := math.Inf(-1)
	for _, c := range []part{head, trunk, leg} {
		s := &stacks()[c]
		if y < s.from-2 || y > s.to() {
			continue
		}
		row := s.at(y)
		deep := math.Abs(z-row.z) / row.b
		if deep > 1+edge/row.b {
			continue
		}
		x := row.x + row.a*s.root(1-s.sum(min(deep, 1), 0))
		if x > best {
			best, q, k, ok = x, Point{x, y, min(max(z, row.z-row.b), row.z+row.b)}, c, true
		}
	}
	if ok || y <= stacks()[leg].to() {
		return q, k, ok
	}
	s := &stacks()[foot]
	row := s.at(z)
	up := (ground - y) / row.b
	if up > 1+edge/row.b || z < s.from-edge || z > s.to()+edge {
		return q, foot, false
	}
	x := row.x + row.a*s.root(1-s.sum(max(min(up, 1), 0), 0))
	return Point{x, min(y, ground), z}, foot, true
}

// armBeside is the skin of the arm that hangs in a side view, where the forearm has turned.
func armBeside(a body.Point) (Point, part, bool) {
	s := &stacks()[arm]
	if a.Y >= s.from-3 && a.Y <= wrist {
		row := s.at(a.Y)
		if forward := (a.X - row.z) / row.seen; math.Abs(forward) <= 1 {
			t := math.Acos(forward) + turn(a.Y)
			return ring(s, row, t, a.Y), arm, true
		}
	}
	if a.Y > wrist-8 {
		h := body.LeftSide.OnHand(a)
		row := stacks()[hand].at(h.Y)
		if h.Y >= -8 && h.Y <= stacks()[hand].to() && math.Abs(h.X-row.x) <= row.a+edge {
			p := body.Front.FromHand(h) // the back of the hand
			return Point{p.X, p.Y, row.z - stacks()[hand].reach(row, h.X)}, hand, true
		}
	}
	return Point{}, arm, false
}

// ring is a place on a section's skin by its angle: 0 in front, a quarter turn outward.
func ring(s *stack, row section, t, y float64) Point {
	sin, cos := math.Sin(t), math.Cos(t)
	k := 1 / s.root(s.sum(math.Abs(sin), math.Abs(cos)))
	return Point{row.x + row.a*k*sin, y, row.z + row.b*k*cos}
}

// In is where a place is seen in a view. near: on the side of its part that is turned
// to the viewer. ok is false where the view does not show that part of the body.
func (p Point) In(v body.View) (at body.Point, near, ok bool) {
	q, mirrored := left(p)
	side := ids.Left
	if mirrored {
		side = ids.Right
	}
	if v.OneSided() && v.SideAt(body.Point{}) != side && p.X != 0 {
		return at, false, false
	}
	if v.OneSided() {
		side = v.SideAt(body.Point{})
	}
	k, _ := within(q)
	along, _, deep := k.axis(q)
	row := stacks()[k].at(along)
	switch v {
	case body.Front, body.Back:
		near = (deep >= row.z) == (v == body.Front)
		if k == foot {
			over := q.Y < ground-row.b/2 // what lies lower is seen from below
			near = v == body.Front && over || v == body.Back && q.Z < -20
		}
		return v.Place(body.Point{X: q.X, Y: q.Y}, side), near, true
	case body.SoleLeft, body.SoleRight:
		return v.Place(fromSole(q.X, q.Z), side), q.Y > ground-row.b/2, k == foot
	}
	a := body.Point{X: q.Z, Y: q.Y}
	near = q.X >= row.x
	switch k {
	case arm:
		dx, dz := (q.X-row.x)/row.a, (q.Z-row.z)/row.b
		t := turn(q.Y)
		a.X = row.z + row.seen*(dz*math.Cos(t)+dx*math.Sin(t))
		near = dx*math.Cos(t)-dz*math.Sin(t) >= 0
	case hand:
		a = body.LeftSide.FromHand(body.Front.OnHand(body.Point{X: q.X, Y: q.Y}))
		near = q.Z <= row.z
	}
	if v == body.HeadLeft || v == body.HeadRight {
		ok = (k == head || k == trunk) && q.Y < 197
	} else {
		ok = true
	}
	return v.Place(a, side), near, ok
}

// ways out of the body, level all round; the crown and the sole are reached upright.
var waysOut = func() (out [10]Point) {
	for i := range 8 {
		sin, cos := math.Sincos(float64(i) * math.Pi / 4)
		out[i] = Point{sin, 0, cos}
	}
	out[8], out[9] = Point{0, -1, 0}, Point{0, 1, 0}
	return out
}()

// Over is the skin over a place within the body, seen from a hand: of eleven ways out,
// the hand's own among them, the shortest, and of those about as short the one that ends
// nearest to the hand.
func Over(p Point, hand Skin) Skin {
	q, mirrored := left(p)
	if k, _ := within(q); k == foot && q.Y > ground-stacks()[foot].at(q.Z).b*0.6 {
		return sole(Point{q.X, ground, q.Z}, mirrored)
	}
	const aboutAsShort, slack = 1.3, 2
	best := math.Inf(1)
	near, other := left(hand.At)
	own := Point{-hand.In.X, -hand.In.Y, -hand.In.Z}
	if other {
		own = own.Mirrored()
	}
	var ways [len(waysOut) + 1]Point
	copy(ways[:], waysOut[:])
	ways[len(waysOut)] = own
	var out [len(ways)]float64
	for i, way := range ways {
		out[i] = q.wayOut(way, best*aboutAsShort+slack)
		best = min(best, out[i])
	}
	at, gap := q, math.Inf(1)
	for i, way := range ways {
		if end := q.Along(way, out[i]); out[i] <= best*aboutAsShort+slack && end.Distance(near) < gap {
			at, gap = end, end.Distance(near)
		}
	}
	k, _ := within(at)
	return skin(k, at, mirrored)
}

// wayOut is how far the skin is in a direction; what is farther than enough is not
// looked for closely.
func (p Point) wayOut(way Point, enough float64) float64 {
	const stride = 5.0
	from, to := 0.0, 0.0
	for Inside(p.Along(way, to)) {
		if from, to = to, to+stride; from > enough {
			return math.Inf(1)
		}
	}
	for range 5 {
		if m := (from + to) / 2; Inside(p.Along(way, m)) {
			from = m
		} else {
			to = m
		}
	}
	return to
}

// sole presses straight up.
func sole(p Point, mirrored bool) Skin {
	if mirrored {
		p = p.Mirrored()
	}
	return Skin{p, Point{0, -1, 0}, foot}
}

// Skinwise is how far two places of the skin lie apart along it: round the section
// between them and along the part; straight where they are of different parts.
func Skinwise(a, b Skin) float64 {
	straight := a.At.Distance(b.At)
	if a.part != b.part || a.part == foot || a.At.X*b.At.X < 0 && a.part != head && a.part != trunk {
		return straight
	}
	p, q := a.At, b.At
	if p.X < 0 && q.X <= 0 {
		p, q = p.Mirrored(), q.Mirrored()
	}
	ka, xa, za := a.part.axis(p)
	kb, xb, zb := a.part.axis(q)
	s := &stacks()[a.part]
	row := s.at((ka + kb) / 2)
	ra, rb := s.at(ka), s.at(kb)
	ta := math.Atan2((xa-ra.x)/ra.a, (za-ra.z)/ra.b)
	tb := math.Atan2((xb-rb.x)/rb.a, (zb-rb.z)/rb.b)
	d := math.Remainder(tb-ta, 2*math.Pi)
	const steps = 12
	round, at := 0.0, ring(s, row, ta, 0)
	for i := 1; i <= steps; i++ {
		next := ring(s, row, ta+d*float64(i)/steps, 0)
		round += at.Distance(next)
		at = next
	}
	return max(straight, math.Hypot(round, kb-ka))
}
