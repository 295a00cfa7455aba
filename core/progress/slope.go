package progress

import (
	"math"
	"slices"

	"mokren/core/stable"
)

// theilSen is the median of all slopes between pairs, per week: one odd visit
// does not bend it. It lists no pairs, since 30,000 readings have 450 million; of
// few readings spreadOf pairs all.
func theilSen(s []Reading) (perWeek float64, ok bool) {
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

// slopesOfPairs are the slopes between all pairs of different days, per day.
func slopesOfPairs(s []Reading) []float64 {
	slopes := make([]float64, 0, len(s)*(len(s)-1)/2)
	for i := range s {
		for j := i + 1; j < len(s); j++ {
			if d := s[j].Day - s[i].Day; d > 0 {
				slopes = append(slopes, (s[j].Value-s[i].Value)/d)
			}
		}
	}
	return slopes
}

// pairs selects among the slopes of all pairs without listing them: the slopes
// below x are the pairs that change places when the readings are sorted by
// value − x · day (Matoušek 1991: randomised, n log n expected). The seed is
// fixed, so that the same readings always take the same way; the answer does
// not depend on it.
type pairs struct {
	s []Reading // by day
	// total is how many pairs of different days there are.
	total int
	// seed makes the choice of pairs the same in each run: a result must not change by itself.
	seed uint64
	// keys and spare are room for sorting, used again for every slope.
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
	b := p.around(rank)
	if b.isOne() {
		low = (b.lo + b.hi) / 2
	} else {
		inside := p.list(b.lo, b.hi)
		low = nth(inside, rank-b.below)
		if next < b.upTo {
			return low, nth(inside, next-b.below)
		}
	}
	if next < b.upTo {
		return low, low
	}
	high, _ = p.selectTwo(b.upTo, b.upTo)
	return low, high
}

// around closes in on a rank until the slopes left are few or all the same.
func (p *pairs) around(rank int) interval {
	b := interval{math.Inf(-1), math.Inf(1), 0, p.total}
	for b.upTo-b.below > listed*len(p.s) && !b.isOne() {
		narrower := p.narrow(b, rank)
		if narrower == b {
			break
		}
		b = narrower
	}
	return b
}

// bounds is a range of slopes: below lie under lo, upTo under hi.
type interval struct {
	lo, hi      float64
	below, upTo int
}

// isOne tells that the range holds one slope, as far as it matters.
func (b interval) isOne() bool {
	return !math.IsInf(b.lo, 0) && b.hi-b.lo <= 4*same(b.lo)
}

// same is how close two slopes are taken for one.
func same(x float64) float64 { return 1e-10 * (1 + math.Abs(x)) }

// narrow closes in on a rank.
func (p *pairs) narrow(b interval, rank int) interval {
	if !math.IsInf(b.lo, 0) && !math.IsInf(b.hi, 0) {
		// Near its middle a range is filled evenly, unless slopes repeat.
		n := p.between(b, rank, p.evenly(b, rank))
		if n.upTo-n.below < (b.upTo-b.below)/8 {
			return n
		}
		b = n
	}
	return p.between(b, rank, p.sampled(b, rank))
}

// evenly guesses two slopes around a rank as if the range were filled evenly.
func (p *pairs) evenly(b interval, rank int) []float64 {
	inside := float64(b.upTo - b.below)
	at, margin := float64(rank-b.below), float64(2*len(p.s))
	perRank := (b.hi - b.lo) / inside
	return []float64{b.lo + (at-margin)*perRank, b.lo + (at+margin)*perRank}
}

// sampled takes two slopes around a rank from those of random pairs, each with
// a hair's breadth on either side: a slope that many pairs share lies between.
func (p *pairs) sampled(b interval, rank int) []float64 {
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
			x := sample[k]
			out = append(out, x-same(x), x+same(x))
		}
	}
	return out
}

// between counts at some slopes and keeps the range that holds the rank.
func (p *pairs) between(b interval, rank int, at []float64) interval {
	for _, x := range at {
		if x <= b.lo || x >= b.hi {
			continue
		}
		if below := p.below(x); rank < below {
			b.hi, b.upTo = x, below
		} else {
			b.lo, b.below = x, below
		}
	}
	return b
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

// below tells how many slopes are less than x: the pairs, of different days,
// whose key falls from the earlier to the later day.
func (p *pairs) below(x float64) int {
	n := len(p.s)
	p.keys = p.keysAt(x, p.keys)
	p.spare = slices.Grow(p.spare[:0], n)[:n]
	sameDay := 0
	for i := 0; i < n; {
		j := i + 1
		for j < n && p.s[j].Day == p.s[i].Day {
			j++
		}
		if j > i+1 {
			// Readings of one day have no slope: what they would count is taken off.
			sameDay += falls(slices.Clone(p.keys[i:j]), p.spare[i:j])
		}
		i = j
	}
	return falls(p.keys, p.spare) - sameDay
}

// falls counts the pairs i < j with keys[j] < keys[i]; it sorts the keys as it
// goes.
func falls(keys, spare []float64) int {
	n := len(keys)
	if n <= shortRun {
		return fallsOfFew(keys)
	}
	m := n / 2
	left, right := keys[:m], keys[m:]
	count := falls(left, spare[:m]) + falls(right, spare[m:])
	if left[m-1] <= right[0] {
		return count // in order already
	}
	before := 0
	for _, k := range left {
		for before < len(right) && right[before] < k {
			before++
		}
		count += before
	}
	merge(left, right, spare)
	copy(keys, spare)
	return count
}

// shortRun is sorted by insertion, which is faster for so few.
const shortRun = 12

// fallsOfFew counts by insertion: for a handful of values it is faster than merging.
func fallsOfFew(keys []float64) int {
	count := 0
	for j := 1; j < len(keys); j++ {
		k := keys[j]
		i := j
		for ; i > 0 && keys[i-1] > k; i-- {
			keys[i] = keys[i-1]
		}
		keys[i] = k
		count += j - i
	}
	return count
}

// merge joins two sorted halves; of equal values the left one comes first.
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

// list gives every slope from lo up to hi; there are few. Sorted by the keys at
// lo, they are the pairs that lie the wrong way at hi: by the very keys that
// were counted, so that a rank is the same here and there.
func (p *pairs) list(lo, hi float64) []float64 {
	from, to := p.keysAt(lo, nil), p.keysAt(hi, nil)
	sorted := make([]keyed, len(p.s))
	for i, k := range from {
		sorted[i] = keyed{k, i}
	}
	stable.Sort(sorted, keyed.compare)
	for i := range sorted {
		sorted[i].key = to[sorted[i].index]
	}
	c := changed{s: p.s, slopes: make([]float64, 0, 4*len(p.s))}
	c.collect(sorted, make([]keyed, len(sorted)))
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

// keysAt are value − x · day; at an infinite slope only the days order.
func (p *pairs) keysAt(x float64, room []float64) []float64 {
	out := slices.Grow(room[:0], len(p.s))[:len(p.s)]
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

// add keeps the slope of a pair. Two readings of one day have none.
func (c *changed) add(i, j int) {
	a, b := c.s[min(i, j)], c.s[max(i, j)]
	if b.Day != a.Day {
		c.slopes = append(c.slopes, (b.Value-a.Value)/(b.Day-a.Day))
	}
}
