package plan

import (
	"math/bits"
	"slices"

	"mokren/core/ids"
)

// problem is what is to be solved: which of the open points, in which order.
type problem struct {
	r Request
	// fixed are the minutes of recheck, warm-up, lengthening and closing.
	fixed fixed
	room  float64 // minutes for points and turns
	most  int     // points
	// all are the points of the request; open are those that may be planned.
	all  []candidate
	open []candidate
	// Worked out once for the open points: which lie in one region, which on one
	// site, the pressure that each region has had, and which is the primary.
	sameRegion, sameSite, primary []uint
	had                           []float64
	primaryDone                   []bool
}

// prepare works out what every set is asked for.
func (p *problem) prepare() {
	for _, c := range p.open {
		var region, site, primary uint
		for o, d := range p.open {
			if d.region == c.region {
				region |= 1 << o
			}
			if c.Site != "" && d.Site == c.Site && d.Muscle == c.Muscle && d.Side == c.Side {
				site |= 1 << o
			}
			if c.Role == "satellite" && d.ID == c.Of {
				primary |= 1 << o
			}
		}
		had, done := 0.0, false
		for _, d := range p.r.Done {
			if regionOf(d.Muscle, d.Side) == c.region {
				had += d.PressureS
			}
			done = done || c.Role == "satellite" && d.Point == c.Of
		}
		p.sameRegion, p.sameSite = append(p.sameRegion, region), append(p.sameSite, site)
		p.primary, p.had = append(p.primary, primary), append(p.had, had)
		p.primaryDone = append(p.primaryDone, done)
	}
}

// route is a choice of open points in order, and how the client lies for each.
type route struct {
	order   []int
	lying   []ids.Position
	turns   int
	minutes float64 // of points and turns
}

// set is the points of a route without their order.
func (r route) set() uint {
	var out uint
	for _, k := range r.order {
		out |= 1 << k
	}
	return out
}

// worthOf a set: a satellite counts half beside its primary, which was treated
// before or is in the set.
func (p *problem) worthOf(set uint) float64 {
	sum := 0.0
	for rest := set; rest != 0; rest &= rest - 1 {
		k := bits.TrailingZeros(rest)
		if set&p.primary[k] != 0 || p.primaryDone[k] {
			sum += p.open[k].worth * besideItsPrimary
		} else {
			sum += p.open[k].worth
		}
	}
	return sum
}

// overDose: too many points, too much pressure in one region, or one site too
// often.
func (p *problem) overDose(set uint) bool {
	if bits.OnesCount(set) > p.most {
		return true
	}
	for rest := set; rest != 0; rest &= rest - 1 {
		if p.tooMuchAt(bits.TrailingZeros(rest), set) {
			return true
		}
	}
	return false
}

// tooMuchAt tells it for the region and the site of one point of a set.
func (p *problem) tooMuchAt(k int, set uint) bool {
	pressure := p.had[k]
	for rest := set & p.sameRegion[k]; rest != 0; rest &= rest - 1 {
		pressure += p.open[bits.TrailingZeros(rest)].pressureS
	}
	return pressure > mostInRegionS || p.open[k].Treated+bits.OnesCount(set&p.sameSite[k]) > mostOnOneSite
}

// first are the open points that must come before k, when they are treated.
func (p *problem) first() []uint {
	out := make([]uint, len(p.open))
	for k, c := range p.open {
		for o, d := range p.open {
			if o != k && goesBefore(d.Point, c.Point) != "" {
				out[k] |= 1 << o
			}
		}
	}
	return out
}

// broken names the order rules that the point at i breaks.
func (p *problem) broken(order []int, i int) []string {
	var out []string
	c := p.open[order[i]]
	for _, later := range order[i+1:] {
		if why := goesBefore(p.open[later].Point, c.Point); why != "" {
			out = append(out, "Before "+p.open[later].ID+": "+why+".")
		}
	}
	if i > 0 && clash(p.open[order[i-1]].Point, c.Point) {
		out = append(out, "Both sides of the neck directly one after the other.")
	}
	return out
}

// lie finds how the client lies with the fewest turns, for an order that is
// given: a point's position is kept as long as it will do.
func (p *problem) lie(order []int) route {
	out := route{order: order, lying: make([]ids.Position, len(order))}
	may := []ids.Position{}
	if p.r.Position != "" {
		may = append(may, p.r.Position)
	}
	from := 0
	settle := func(to int) {
		for i := from; i < to; i++ {
			out.lying[i] = may[0]
		}
		from = to
	}
	for i, k := range order {
		c := p.open[k]
		both := slices.DeleteFunc(slices.Clone(may),
			func(x ids.Position) bool { return !slices.Contains(c.positions, x) })
		if len(may) == 0 {
			both = c.positions
		}
		if len(both) == 0 {
			settle(i)
			out.turns++
			both = c.positions
		}
		may = both
		out.minutes += c.minutes
	}
	if len(order) > 0 {
		settle(len(order))
	}
	out.minutes += turnMin * float64(out.turns)
	return out
}

// byHand takes the therapist's order and no more; the dose and the rule of the
// two sides of the neck hold all the same.
func (p *problem) byHand() route {
	var order []int
	var set uint
	take := func(k int) {
		if k < 0 || set&(1<<k) != 0 || p.overDose(set|1<<k) {
			return
		}
		if n := len(order); n > 0 && clash(p.open[order[n-1]].Point, p.open[k].Point) {
			return
		}
		order = append(order, k)
		set |= 1 << k
	}
	for _, id := range p.r.Order {
		take(slices.IndexFunc(p.open, func(c candidate) bool { return c.ID == id }))
	}
	return p.lie(order)
}
