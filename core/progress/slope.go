package progress

import (
	"math"
	"slices"
)

// theilSen is the median of all slopes between pairs, per week: one odd visit
// does not bend it. Few readings are paired as they are; many are not, since
// 30,000 have 450 million pairs.
func theilSen(s []Reading) (perWeek float64, ok bool) {
	if len(s) <= fewReadings {
		return medianOfPairs(s)
	}
	p := pairs{s: s, seed: uint64(len(s))}
	p.total = p.countPairs()
	if p.total == 0 {
		return 0, false
	}
	low, high := p.selectTwo((p.total-1)/2, p.total/2)
	return clean((low + high) / 2 * 7), true
}

// fewReadings: up to here every pair is looked at, 45,000 of them.
const fewReadings = 300

func medianOfPairs(s []Reading) (perWeek float64, ok bool) {
	var slopes []float64
	for i := range s {
		for j := i + 1; j < len(s); j++ {
			if d := s[j].Day - s[i].Day; d > 0 {
				slopes = append(slopes, (s[j].Value-s[i].Value)/d)
			}
		}
	}
	if len(slopes) == 0 {
		return 0, false
	}
	slices.Sort(slopes)
	k := len(slopes)
	return clean((slopes[(k-1)/2] + slopes[k/2]) / 2 * 7), true
}

// pairs selects among the slopes of all pairs without listing them: the slopes
// below x are the pairs that change places when the readings are sorted by
// value − x · day (Matoušek 1991: randomised, n log n expected). The seed is
// fixed, so that the same readings always take the same way; the answer does
// not depend on it.
type pairs struct {
	s     []Reading // by day
	total int
	seed  uint64
	keys  []float64
	spare []float64
}

// sampleSize slopes are drawn to find a narrow range around a rank; a range of
// few enough is listed.
const (
	sampleSize = 8000
	maxDraws   = 1_000_000
	listed     = 20 // times the readings
)

// countPairs counts those that are not on one day.
func (p *pairs) countPairs() int {
	n := len(p.s)
	total := n * (n - 1) / 2
	for i := 0; i < n; {
		j := i
		for j < n && p.s[j].Day == p.s[i].Day {
			j++
		}
		total -= (j - i) * (j - i - 1) / 2
		i = j
	}
	return total
}

// selectTwo gives the slopes of two ranks that are the same or neighbours, 0 the
// smallest.
func (p *pairs) selectTwo(rank, next int) (low, high float64) {
	b := bracket{math.Inf(-1), math.Inf(1), 0, p.total}
	for b.upTo-b.below > listed*len(p.s) {
		narrower, exact, found := p.narrow(b, rank)
		if found {
			if next < exact.upTo {
				return exact.lo, exact.lo
			}
			return exact.lo, p.nextAbove(exact)
		}
		if narrower == b {
			break
		}
		b = narrower
	}
	inside := p.list(b.lo, b.hi)
	if next-b.below < len(inside) {
		return nth(inside, rank-b.below), nth(inside, next-b.below)
	}
	return nth(inside, rank-b.below), b.hi
}

// nextAbove is the smallest slope above one that was hit exactly.
func (p *pairs) nextAbove(b bracket) float64 {
	above, _ := p.selectTwo(b.upTo, b.upTo)
	return above
}

// bracket is a range of slopes: below lie under lo, upTo at hi or under it.
type bracket struct {
	lo, hi      float64
	below, upTo int
}

// narrow closes in on a rank; exact is the slope that was hit, with the ranks
// that share it.
func (p *pairs) narrow(b bracket, rank int) (narrower, exact bracket, found bool) {
	if !math.IsInf(b.lo, 0) && !math.IsInf(b.hi, 0) {
		// Near its middle a range is filled evenly, unless slopes repeat.
		n, exact, found := p.between(b, rank, p.evenly(b, rank))
		if found || n.upTo-n.below < (b.upTo-b.below)/8 {
			return n, exact, found
		}
		b = n
	}
	return p.between(b, rank, p.sampled(b, rank))
}

// evenly guesses two slopes around a rank as if the range were filled evenly.
func (p *pairs) evenly(b bracket, rank int) []float64 {
	inside := float64(b.upTo - b.below)
	at, margin := float64(rank-b.below), float64(2*len(p.s))
	perRank := (b.hi - b.lo) / inside
	return []float64{b.lo + (at-margin)*perRank, b.lo + (at+margin)*perRank}
}

// sampled takes two slopes around a rank from those of random pairs.
func (p *pairs) sampled(b bracket, rank int) []float64 {
	sample := p.draw(b.lo, b.hi)
	if len(sample) < 8 {
		return nil
	}
	slices.Sort(sample)
	share := float64(rank-b.below) / float64(b.upTo-b.below)
	at := share * float64(len(sample))
	margin := 2.5*math.Sqrt(float64(len(sample))*share*(1-share)) + 3
	var out []float64
	for _, k := range []int{int(at - margin), int(at + margin)} {
		if k >= 0 && k < len(sample) {
			out = append(out, sample[k])
		}
	}
	return out
}

// between counts at some slopes and keeps the range that holds the rank.
func (p *pairs) between(b bracket, rank int, at []float64) (narrower, exact bracket, found bool) {
	for _, x := range at {
		if x <= b.lo || x >= b.hi {
			continue
		}
		less, equal := p.count(x)
		switch {
		case rank < less:
			b.hi, b.upTo = x, less
		case rank < less+equal:
			return b, bracket{x, x, less, less + equal}, true
		default:
			b.lo, b.below = x, less+equal
		}
	}
	return b, b, false
}

// nth selects the k-th smallest (quickselect); it reorders the list.
func nth(list []float64, k int) float64 {
	k = min(max(0, k), len(list)-1)
	for lo, hi := 0, len(list)-1; lo < hi; {
		pivot, i, j := list[(lo+hi)/2], lo, hi
		for i <= j {
			for list[i] < pivot {
				i++
			}
			for list[j] > pivot {
				j--
			}
			if i <= j {
				list[i], list[j] = list[j], list[i]
				i, j = i+1, j-1
			}
		}
		switch {
		case k <= j:
			hi = j
		case k >= i:
			lo = i
		default:
			return list[k]
		}
	}
	return list[k]
}

// random draws from 0 to n−1 by a linear congruence (Knuth's MMIX constants):
// a generator with a package of its own would weigh on every tablet.
func (p *pairs) random(n int) int {
	p.seed = p.seed*6364136223846793005 + 1442695040888963407
	return int(p.seed >> 33 % uint64(n))
}

// draw gives slopes of random pairs strictly between lo and hi.
func (p *pairs) draw(lo, hi float64) []float64 {
	out := make([]float64, 0, sampleSize)
	n := len(p.s)
	for range maxDraws {
		i, j := p.random(n), p.random(n)
		a, b := p.s[min(i, j)], p.s[max(i, j)]
		if b.Day == a.Day {
			continue
		}
		if x := (b.Value - a.Value) / (b.Day - a.Day); x > lo && x < hi {
			if out = append(out, x); len(out) == sampleSize {
				break
			}
		}
	}
	return out
}

// near is how close two keys are the same, against binary fractions.
func (p *pairs) near(x float64) float64 {
	first, last := p.s[0], p.s[len(p.s)-1]
	return 1e-10 * (1 + math.Abs(first.Value) + math.Abs(x)*(math.Abs(first.Day)+math.Abs(last.Day)))
}

// count tells how many slopes are below x, and how many are x: the pairs, of
// different days, whose key falls from the earlier to the later day, and those
// whose key stays.
func (p *pairs) count(x float64) (less, equal int) {
	n := len(p.s)
	if cap(p.keys) < n {
		p.keys, p.spare = make([]float64, n), make([]float64, n)
	}
	p.keys = p.keys[:n]
	for i, r := range p.s {
		p.keys[i] = r.Value - x*r.Day
	}
	eps := p.near(x)
	var all, sameDay falls
	for i := 0; i < n; {
		j := i + 1
		for j < n && p.s[j].Day == p.s[i].Day {
			j++
		}
		if j > i+1 {
			// Readings of one day have no slope: what they would count is taken off.
			sameDay.count(slices.Clone(p.keys[i:j]), make([]float64, j-i), eps)
		}
		i = j
	}
	all.count(p.keys, p.spare[:n], eps)
	less = all.clear - sameDay.clear
	return less, all.clear + all.level - sameDay.clear - sameDay.level - less
}

// falls counts pairs i < j of keys: clear where keys[j] lies more than eps below
// keys[i], level where it lies within eps.
type falls struct{ clear, level int }

// count sorts the keys as it goes.
func (f *falls) count(keys, spare []float64, eps float64) {
	n := len(keys)
	if n <= shortRun {
		f.countShort(keys, eps)
		return
	}
	m := n / 2
	left, right := keys[:m], keys[m:]
	f.count(left, spare[:m], eps)
	f.count(right, spare[m:], eps)
	if left[m-1] < right[0]-eps {
		return // in order already, and nothing is level
	}
	clear, level := 0, 0
	for _, k := range left {
		for clear < len(right) && right[clear] < k-eps {
			clear++
		}
		for level < len(right) && right[level] <= k+eps {
			level++
		}
		f.clear += clear
		f.level += level - clear
	}
	merge(left, right, spare)
	copy(keys, spare)
}

// shortRun is sorted by insertion, which is faster for so few.
const shortRun = 12

func (f *falls) countShort(keys []float64, eps float64) {
	for j := 1; j < len(keys); j++ {
		k := keys[j]
		for _, before := range keys[:j] {
			switch {
			case k < before-eps:
				f.clear++
			case k <= before+eps:
				f.level++
			}
		}
		i := j
		for ; i > 0 && keys[i-1] > k; i-- {
			keys[i] = keys[i-1]
		}
		keys[i] = k
	}
}

func merge(a, b, out []float64) {
	i, j := 0, 0
	for k := range out {
		if j == len(b) || i < len(a) && a[i] <= b[j] {
			out[k] = a[i]
			i++
		} else {
			out[k] = b[j]
			j++
		}
	}
}

// list gives every slope strictly between lo and hi; there are few. Sorted by
// the keys at lo, they are the pairs that lie the wrong way at hi.
func (p *pairs) list(lo, hi float64) []float64 {
	from, to := p.keysAt(lo+gap(lo)), p.keysAt(hi-gap(hi))
	order := make([]keyed, len(p.s))
	for i, k := range from {
		order[i] = keyed{k, i}
	}
	slices.SortFunc(order, keyed.compare)
	for i := range order {
		order[i].key = to[order[i].index]
	}
	c := changed{s: p.s, slopes: make([]float64, 0, 4*len(p.s))}
	c.collect(order, make([]keyed, len(order)))
	return c.slopes
}

// keyed is a reading's place with its key.
type keyed struct {
	key   float64
	index int
}

// compare orders by key, equal ones by place; keys are never NaN.
func (a keyed) compare(b keyed) int {
	switch {
	case a.key < b.key:
		return -1
	case a.key > b.key:
		return 1
	}
	return a.index - b.index
}

// gap keeps the ends of a range out of it, against binary fractions.
func gap(x float64) float64 {
	if math.IsInf(x, 0) {
		return 0
	}
	return 1e-9 * (1 + math.Abs(x))
}

// keysAt are value − x · day; at an infinite slope only the days order.
func (p *pairs) keysAt(x float64) []float64 {
	out := make([]float64, len(p.s))
	for i, r := range p.s {
		switch {
		case math.IsInf(x, -1):
			out[i] = r.Day
		case math.IsInf(x, 1):
			out[i] = -r.Day
		default:
			out[i] = r.Value - x*r.Day
		}
	}
	return out
}

// changed lists the slopes of pairs that change places.
type changed struct {
	s      []Reading
	slopes []float64
}

// collect merge-sorts by the keys.
func (c *changed) collect(order, spare []keyed) {
	n := len(order)
	if n < 2 {
		return
	}
	m := n / 2
	c.collect(order[:m], spare[:m])
	c.collect(order[m:], spare[m:])
	if order[m-1].key <= order[m].key {
		return // nothing changes places here
	}
	i, j := 0, m
	for k := range spare {
		if j == n || i < m && order[i].key <= order[j].key {
			spare[k] = order[i]
			i++
			continue
		}
		for _, l := range order[i:m] {
			c.add(l.index, order[j].index)
		}
		spare[k] = order[j]
		j++
	}
	copy(order, spare)
}

func (c *changed) add(i, j int) {
	a, b := c.s[min(i, j)], c.s[max(i, j)]
	if b.Day != a.Day {
		c.slopes = append(c.slopes, (b.Value-a.Value)/(b.Day-a.Day))
	}
}
