package progress

import "math"

// Trend is the robust slope of a series with its range.
type Trend struct {
	PerWeek float64 `json:"per_week" doc:"median of the slopes between all pairs (Theil 1950, Sen 1968)"`
	// Low and High hold the slope with 95 % confidence (Sen 1968).
	Low  float64 `json:"low"`
	High float64 `json:"high"`
	N    int     `json:"n" doc:"readings"`
}

// TrendOf needs readings of four visits; one odd visit does not bend it.
func TrendOf(s []Reading) *Trend {
	return spreadOf(s).trend(len(s))
}

// spread is the slope of a series, per week, with the range of it.
type spread struct {
	perWeek, low, high float64
	there              bool
}

// trend needs some visits before it says anything; with fewer a line can be drawn through
// chance.
func (x spread) trend(n int) *Trend {
	if !x.there || n < trendVisits {
		return nil
	}
	return &Trend{PerWeek: x.perWeek, Low: x.low, High: x.high, N: n}
}

// spreadOf looks at the pairs once.
func spreadOf(s []Reading) (x spread) {
	first, last, total := ranks(s)
	if len(s) > fewReadings {
		if x.perWeek, x.there = theilSen(s); x.there {
			p := pairs{s: s, seed: uint64(len(s)), total: total}
			x.low, _ = p.selectTwo(first, first)
			x.high, _ = p.selectTwo(last, last)
			x.low, x.high = clean(x.low*7), clean(x.high*7)
		}
		return x
	}
	all := slopesOfPairs(s)
	k := len(all)
	if k == 0 {
		return x
	}
	// What is selected parts the list: the other ranks lie in their own halves.
	low, rest := nth(all, (k-1)/2), all[(k-1)/2:]
	high := nth(rest, k/2-(k-1)/2)
	from, to := nth(all[:(k-1)/2+1], first), nth(rest, last-(k-1)/2)
	return spread{clean((low + high) / 2 * 7), clean(from * 7), clean(to * 7), true}
}

// z95 cuts off 2.5 % on either side of a normal distribution.
const z95 = 1.959964

// ranks are those that Kendall's score may reach by chance (Sen 1968): for few
// readings the smallest and the largest of all slopes.
func ranks(s []Reading) (first, last, total int) {
	n := float64(len(s))
	p := pairs{s: s}
	total = p.countPairs()
	half := z95 * math.Sqrt(n*(n-1)*(2*n+5)/18)
	first = max(0, int((float64(total)-half)/2))
	last = max(0, min(total-1, int(math.Ceil((float64(total)+half)/2))))
	return min(first, last), last, total
}

// Next is what a signal asks for; "" asks for nothing.
func (s Signal) Next() string {
	switch s {
	case Plateau:
		return "No clear change in the last three treated visits: trace back, change the protocol, or refer."
	case Worsening:
		return "Worse at two visits in a row: stop this approach and screen again."
	case Resolved:
		return "2 or less at the last two visits: space visits out, or discharge."
	case Improving:
		return "Improving: go on as it is."
	}
	return ""
}
