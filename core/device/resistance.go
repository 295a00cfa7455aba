package device

import (
	"fmt"
	"math"
	"slices"

	"mokren/core/decode"
	"mokren/core/stable"
)

// DepthForce is one sample of a pressure pad: how deep, and against what force.
type DepthForce struct {
	DepthMM float64 `json:"depth_mm" minimum:"0" maximum:"200"`
	N       float64 `json:"force_n" minimum:"0" maximum:"1000"`
}

// Resistance is where tissue first resists: the knee of force against depth.
type Resistance struct {
	Found   bool     `json:"found"`
	DepthMM *float64 `json:"depth_mm,omitempty"`
	N       *float64 `json:"force_n,omitempty"`
	// Ratio is the later slope by the earlier.
	Ratio *float64 `json:"stiffness_ratio,omitempty"`
}

// LeastSamples of a press; fewer tell no knee from noise.
const LeastSamples = 20

const (
	// stiffer: the later slope is at least so many times the earlier.
	stiffer = 2.0
	// plainly: so much better must two lines fit than one (an F ratio with 2 and
	// n − 4 degrees of freedom); a straight line with noise comes there in less
	// than one of a thousand.
	plainly = 8.0
	// eachSide is the least share of the samples on either side of a knee.
	eachSide = 0.1
	// flattest stands for an earlier slope of nothing, as a share of the later.
	flattest = 0.02
	// unevenly: forces are about so uncertain, of themselves and at the least.
	unevenly, leastForceN = 0.05, 0.1
	coarseMM, fineMM      = 0.5, 0.05
)

// FirstResistance fits two lines that meet to force against depth, by weighted
// least squares since a pad's error grows with the force, and gives where they
// meet; not found where the later is not at least twice as steep, or where one
// line does as well.
func FirstResistance(samples []DepthForce) (Resistance, error) {
	if len(samples) < LeastSamples {
		return Resistance{}, &decode.Error{
			Path: "$.samples", Given: fmt.Sprintf("%d samples", len(samples)),
			Allowed: fmt.Sprintf("at least %d", LeastSamples),
		}
	}
	s := slices.Clone(samples)
	stable.Sort(s, func(a, b DepthForce) int {
		switch {
		case a.DepthMM < b.DepthMM:
			return -1
		case a.DepthMM > b.DepthMM:
			return 1
		}
		return 0
	})
	weights := evenly(s)
	best := bestHinge(s, weights)
	// Once more, with weights by what the first fit says of each force.
	weights = byForce(s, best)
	best = bestHinge(s, weights)
	one := hinge(s, weights, math.Inf(1))
	f := (one.rest - best.rest) / 2 / (best.rest / float64(len(s)-4))
	later := best.slope + best.bend
	earlier := max(best.slope, flattest*later)
	if later <= 0 || later < stiffer*earlier || best.rest > 0 && f < plainly {
		return Resistance{}, nil
	}
	return Resistance{
		Found: true, DepthMM: new(round3(best.at)), N: new(round3(max(0, best.force(best.at)))),
		Ratio: new(round3(later / earlier)),
	}, nil
}

// bent is a fitted line with one bend: n + slope·x, and bend more from at on.
type bent struct {
	at, n, slope, bend float64
	rest               float64 // weighted squares that are left
}

func (b bent) force(x float64) float64 { return b.n + b.slope*x + b.bend*max(0, x-b.at) }

// evenly is the first guess: every sample weighs the same.
func evenly(s []DepthForce) []float64 {
	w := make([]float64, len(s))
	for i := range w {
		w[i] = 1
	}
	return w
}

// byForce weighs by how exact a sample is: a sensor is out by a share of the force, and by a
// least amount near nothing.
func byForce(s []DepthForce, fit bent) []float64 {
	w := make([]float64, len(s))
	for i, p := range s {
		sd := max(leastForceN, unevenly*math.Abs(fit.force(p.DepthMM)))
		w[i] = 1 / (sd * sd)
	}
	return w
}

// bestHinge tries every place for the bend that leaves samples on both sides.
func bestHinge(s []DepthForce, w []float64) bent {
	edge := max(3, int(eachSide*float64(len(s))))
	low, high := s[edge].DepthMM, s[len(s)-1-edge].DepthMM
	best := tried(s, w, low, high, coarseMM)
	return tried(s, w, max(low, best.at-coarseMM), min(high, best.at+coarseMM), fineMM)
}

// tried is the best bend among evenly spaced ones; a finer search follows around it.
func tried(s []DepthForce, w []float64, low, high, step float64) bent {
	best := bent{rest: math.Inf(1)}
	for x := low; x <= high; x += step {
		if b := hinge(s, w, x); b.rest < best.rest {
			best = b
		}
	}
	return best
}

// hinge solves the three normal equations for a bend at x; an infinite x is a
// straight line.
func hinge(s []DepthForce, w []float64, x float64) bent {
	var a [3][4]float64
	for i, p := range s {
		row := [3]float64{1, p.DepthMM, max(0, p.DepthMM-x)}
		for r := range 3 {
			for c := range 3 {
				a[r][c] += w[i] * row[r] * row[c]
			}
			a[r][3] += w[i] * row[r] * p.N
		}
	}
	v := solve(a)
	b := bent{at: x, n: v[0], slope: v[1], bend: v[2]}
	if math.IsInf(x, 1) {
		b.bend = 0
	}
	for i, p := range s {
		d := p.N - b.line(p.DepthMM)
		b.rest += w[i] * d * d
	}
	return b
}

// line is the force at a depth: one straight line where no bend was found, else the bent one.
func (b bent) line(x float64) float64 {
	if math.IsInf(b.at, 1) {
		return b.n + b.slope*x
	}
	return b.force(x)
}

// solve is Gauss–Jordan with pivots; an unknown that nothing determines is 0.
func solve(a [3][4]float64) (v [3]float64) {
	const nothing = 1e-12
	for c := range 3 {
		p := c
		for r := c + 1; r < 3; r++ {
			if math.Abs(a[r][c]) > math.Abs(a[p][c]) {
				p = r
			}
		}
		a[c], a[p] = a[p], a[c]
		if math.Abs(a[c][c]) < nothing {
			continue
		}
		for r := range 3 {
			if r == c {
				continue
			}
			f := a[r][c] / a[c][c]
			for k := c; k < 4; k++ {
				a[r][k] -= f * a[c][k]
			}
		}
	}
	for r := range 3 {
		if math.Abs(a[r][r]) >= nothing {
			v[r] = a[r][3] / a[r][r]
		}
	}
	return v
}
