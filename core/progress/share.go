package progress

import "math"

// Share is a proportion with what it is worth.
type Share struct {
	Of  int `json:"of"`
	Yes int `json:"yes"`
	// Low and High hold the true share with 95 % confidence (Wilson 1927).
	Low  float64 `json:"low"`
	High float64 `json:"high"`
	// Few: too few to say anything.
	Few bool `json:"few"`
}

// fewest is from how many on a share is worth a look; below it the interval is
// wider than half of all there is.
const fewest = 8

// ShareOf gives yes of so many with its interval.
func ShareOf(yes, of int) Share {
	s := Share{Of: of, Yes: yes, Low: 0, High: 1, Few: of < fewest}
	if of == 0 {
		return s
	}
	n, p := float64(of), float64(yes)/float64(of)
	z2 := z95 * z95
	middle := (p + z2/(2*n)) / (1 + z2/n)
	half := z95 / (1 + z2/n) * math.Sqrt(p*(1-p)/n+z2/(4*n*n))
	s.Low, s.High = math.Max(0, clean(middle-half)), math.Min(1, clean(middle+half))
	return s
}
