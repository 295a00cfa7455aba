package plan

import (
	"math"
	"math/bits"
	"slices"

	"mokren/core/ids"
)

// The best route by dynamic programming: for every set of points, how the
// client lies at its end and which side of the neck was pressed last, the
// fewest turns; among those the complaint early and the least intense last.
// What a set is worth, its pressure and its minutes do not depend on its order.

// How the client can lie, and what was pressed last that matters: nothing, or
// one side of the scalenes or of the sternocleidomastoids.
var lyings = ids.Positions()

const lasts = 5

// tail is the end of a route through a set.
type tail struct {
	turns int16
	late  float32 // how late the complaint comes; the last one's intensity
	from  int32   // the tail before, or −1
	point int8
	known bool
}

// last numbers what was pressed by muscle pair and side, nothing being 0, so that the search
// can tell a clash by arithmetic.
func last(c candidate) int {
	k := pair(c.Muscle)
	if k == 0 {
		return 0
	}
	if c.Side == ids.Left {
		return 2*k - 1
	}
	return 2 * k
}

// clashes: the other side of the same muscles.
func clashes(a, b int) bool { return a != 0 && b != 0 && a != b && (a+1)/2 == (b+1)/2 }

// solver is a problem with what is asked at every step worked out once.
type solver struct {
	*problem
	// n points are open; width is how many ends a set can have: positions by what was pressed
	// last.
	n, width int
	// first says of each point which others must come before it, as a set.
	first  []uint
	places [][]int // positions of each point, as indices
	last   []int
	// tails holds the best end of every set, by set, position and last; 2 to the n times width
	// of them.
	tails  []tail
	follow []following // room for those that come next
	heavy  []float64   // how intense each point is
}

// best fills the table of all sets from the smallest to the largest and takes the best of
// those that fit.
func (p *problem) best() route {
	s := solver{problem: p, n: len(p.open), width: len(lyings) * lasts, first: p.first()}
	for _, c := range p.open {
		var at []int
		for _, x := range c.positions {
			at = append(at, slices.Index(lyings, x))
		}
		s.places = append(s.places, at)
		s.last, s.heavy = append(s.last, last(c)), append(s.heavy, c.intensity())
	}
	s.tails = make([]tail, s.width<<s.n)
	s.begin()
	open := s.open()
	for set := uint(1); set < 1<<s.n; set++ {
		if open[set] {
			s.extend(set, open)
		}
	}
	return s.pick(open)
}

// open tells which sets can be treated within the dose and the time, were there
// no turns: a set can if it can without its first point, and with it.
func (s *solver) open() []bool {
	out := make([]bool, 1<<s.n)
	out[0] = true
	for set := uint(1); set < 1<<s.n; set++ {
		out[set] = out[set&(set-1)] && bits.OnesCount(set) <= s.most &&
			!s.tooMuchAt(bits.TrailingZeros(set), set) && s.minutesOf(set) <= s.room+1e-9
	}
	return out
}

// minutesOf adds up the points of a set; their order does not matter to it.
func (s *solver) minutesOf(set uint) float64 {
	sum := 0.0
	for ; set != 0; set &= set - 1 {
		sum += s.problem.open[bits.TrailingZeros(set)].minutes
	}
	return sum
}

// begin puts every point first.
func (s *solver) begin() {
	for k, at := range s.places {
		for _, x := range at {
			turns := 0
			if s.r.Position != "" && lyings[x] != s.r.Position {
				turns = 1
			}
			s.better(1<<k, x, k, tail{int16(turns), s.late(k, 0), -1, int8(k), true})
		}
	}
}

// extend puts every point that may come next after the routes through a set.
func (s *solver) extend(set uint, open []bool) {
	next := s.next(set, open)
	if len(next) == 0 {
		return
	}
	for i := range s.width {
		at := int(set)*s.width + i
		from := s.tails[at]
		if !from.known {
			continue
		}
		lying, before := i/lasts, i%lasts
		for _, n := range next {
			if clashes(before, s.last[n.point]) {
				continue
			}
			for _, x := range s.places[n.point] {
				turns := from.turns
				if x != lying {
					turns++
				}
				s.better(n.set, x, n.point, tail{turns, from.late + n.late, int32(at), int8(n.point), true})
			}
		}
	}
}

// following is a point that may come after a set.
type following struct {
	point int
	set   uint // with it
	late  float32
}

// next lists the points that may follow a set: within the dose, and with none
// in the set that should have come after.
func (s *solver) next(set uint, open []bool) []following {
	tooLate := set
	for rest := set; rest != 0; rest &= rest - 1 {
		tooLate |= s.first[bits.TrailingZeros(rest)]
	}
	nth := bits.OnesCount(set)
	out := s.follow[:0]
	for k := range s.n {
		if with := set | 1<<k; tooLate&(1<<k) == 0 && open[with] {
			out = append(out, following{k, with, s.late(k, nth)})
		}
	}
	s.follow = out
	return out
}

// late is what it costs to treat a point as the nth: the complaint should come
// in the first half, and the least intense at the end.
func (s *solver) late(k, nth int) float32 {
	cost := 0.0
	if s.problem.open[k].Complaint {
		cost += float64(nth)
	}
	return float32(cost + 0.01*float64(nth)*s.heavy[k])
}

// better keeps the tail with fewer turns and, among those, with the complaint earlier.
func (s *solver) better(set uint, lying, k int, t tail) {
	old := &s.tails[int(set)*s.width+lying*lasts+s.last[k]]
	if !old.known || t.turns < old.turns || t.turns == old.turns && t.late < old.late {
		*old = t
	}
}

// pick takes the set that is worth most, then with the fewest turns, then the
// shortest; of equals the one whose order is best.
func (s *solver) pick(open []bool) route {
	must := s.must()
	best, at := value{worth: math.Inf(-1)}, -1
	for set := uint(1); set < 1<<s.n; set++ {
		if !open[set] || set&must != must {
			continue
		}
		v := value{worth: s.worthOf(set), minutes: s.minutesOf(set)}
		for i := range s.width {
			t := s.tails[int(set)*s.width+i]
			if !t.known || v.minutes+turnMin*float64(t.turns) > s.room+1e-9 {
				continue
			}
			w := v
			w.turns, w.late = int(t.turns), t.late
			w.minutes += turnMin * float64(t.turns)
			if w.better(best) {
				best, at = w, int(set)*s.width+i
			}
		}
	}
	if at < 0 && must != 0 {
		s.r.Must = nil // they do not fit all together: without that wish
		return s.pick(open)
	}
	if at < 0 || best.worth <= 0 && must == 0 {
		return route{}
	}
	return s.unwind(at)
}

// must is the set of points that have to be in the plan.
func (s *solver) must() uint {
	var out uint
	for k, c := range s.problem.open {
		if slices.Contains(s.r.Must, c.ID) {
			out |= 1 << k
		}
	}
	return out
}

// value of a route, in the order in which it counts.
type value struct {
	worth   float64
	turns   int
	minutes float64
	// late is how late the complaint comes, the last thing by which plans differ.
	late float32
}

// better compares plans by worth, then turns, then minutes. Values that differ by rounding
// alone are equal.
func (v value) better(o value) bool {
	const near = 1e-9
	switch {
	case math.Abs(v.worth-o.worth) > near:
		return v.worth > o.worth
	case v.turns != o.turns:
		return v.turns < o.turns
	case math.Abs(v.minutes-o.minutes) > near:
		return v.minutes < o.minutes
	}
	return v.late < o.late
}

// unwind follows the tails back to the beginning.
func (s *solver) unwind(at int) route {
	var out route
	for i := at; i >= 0; {
		t := s.tails[i]
		out.order = append(out.order, int(t.point))
		out.lying = append(out.lying, lyings[i%s.width/lasts])
		out.minutes += s.problem.open[t.point].minutes
		i = int(t.from)
	}
	slices.Reverse(out.order)
	slices.Reverse(out.lying)
	out.turns = int(s.tails[at].turns)
	out.minutes += turnMin * float64(out.turns)
	return out
}
