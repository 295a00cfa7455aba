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
	if len(s) < trendVisits {
		return nil
	}
	slope, ok := theilSen(s)
	if !ok {
		return nil
	}
	low, high := slopeRange(s)
	return &Trend{PerWeek: slope, Low: low, High: high, N: len(s)}
}

// z95 cuts off 2.5 % on either side of a normal distribution.
const z95 = 1.959964

// slopeRange gives the slopes of the ranks that Kendall's score may reach by
// chance (Sen 1968): for few readings the smallest and the largest of all.
func slopeRange(s []Reading) (low, high float64) {
	n := float64(len(s))
	p := pairs{s: s, seed: uint64(len(s))}
	p.total = p.countPairs()
	half := z95 * math.Sqrt(n*(n-1)*(2*n+5)/18)
	first := max(0, int((float64(p.total)-half)/2))
	last := min(p.total-1, int(math.Ceil((float64(p.total)+half)/2)))
	if len(s) <= fewReadings {
		all := slopesOfPairs(s)
		return clean(all[first] * 7), clean(all[last] * 7)
	}
	low, _ = p.selectTwo(first, first)
	high, _ = p.selectTwo(last, last)
	return clean(low * 7), clean(high * 7)
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
