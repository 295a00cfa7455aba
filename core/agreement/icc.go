package agreement

import (
	"math"

	"gonum.org/v1/gonum/stat/distuv"
)

// ICC is the intraclass correlation ICC(2,1), with its interval.
type ICC struct {
	Value, Low, High float64
	OK               bool
}

// ICCOf computes ICC(2,1) of ratings: a row for each subject, a column for each rater.
func ICCOf(rows [][]float64) ICC {
	n, k := float64(len(rows)), 0.0
	if n < 2 {
		return ICC{}
	}
	k = float64(len(rows[0]))
	grand := 0.0
	raters := make([]float64, len(rows[0]))
	for _, r := range rows {
		for j, x := range r {
			grand += x / (n * k)
			raters[j] += x / n
		}
	}
	// Two ways of an analysis of variance: between the subjects, across the raters, and what is left
	// for error.
	var between, across, total float64
	for _, r := range rows {
		mean := 0.0
		for _, x := range r {
			mean += x / k
			total += (x - grand) * (x - grand)
		}
		between += k * (mean - grand) * (mean - grand)
	}
	for _, m := range raters {
		across += n * (m - grand) * (m - grand)
	}
	msr, msc := between/(n-1), across/(k-1)
	mse := max(0, total-between-across) / ((n - 1) * (k - 1))
	// The raters' own differences count against agreement, which is what makes it absolute.
	denominator := msr + (k-1)*mse + k*(msc-mse)/n
	if math.Abs(denominator) < 1e-12 {
		return ICC{}
	}
	out := ICC{Value: (msr - mse) / denominator, OK: true}
	out.Low, out.High = interval(out.Value, msr, msc, mse, n, k)
	return out
}

// interval is McGraw and Wong's, by Satterthwaite's degrees of freedom.
func interval(icc, msr, msc, mse, n, k float64) (low, high float64) {
	if 1-icc < 1e-12 || mse < 1e-12 {
		return math.NaN(), math.NaN()
	}
	// The error of the numerator mixes two mean squares; v are the degrees of freedom of a single one
	// that varies as much.
	a := k * icc / (n * (1 - icc))
	b := 1 + k*icc*(n-1)/(n*(1-icc))
	v := math.Pow(a*msc+b*mse, 2) / (math.Pow(a*msc, 2)/(k-1) + math.Pow(b*mse, 2)/((n-1)*(k-1)))
	lower := distuv.F{D1: n - 1, D2: v}.Quantile(0.975)
	upper := distuv.F{D1: v, D2: n - 1}.Quantile(0.975)
	low = n * (msr - lower*mse) / (lower*(k*msc+(k*n-k-n)*mse) + n*msr)
	high = n * (upper*msr - mse) / (k*msc + (k*n-k-n)*mse + n*upper*msr)
	return low, high
}

// Limits are the bias and the limits of agreement of first minus second, each limit with its
// interval.
type Limits struct {
	Bias, Low, High     float64
	AroundLow, AroundHi [2]float64
}

// LimitsOf computes the limits of agreement of differences, at ±1.96 standard deviations (n − 1).
func LimitsOf(differences []float64) Limits {
	n := float64(len(differences))
	mean, sum := 0.0, 0.0
	for _, d := range differences {
		mean += d / n
	}
	for _, d := range differences {
		sum += (d - mean) * (d - mean)
	}
	sd := math.Sqrt(sum / (n - 1))
	out := Limits{Bias: mean, Low: mean - z*sd, High: mean + z*sd}
	// A limit is less certain than the bias: its variance adds that of the standard deviation.
	half := distuv.StudentsT{Mu: 0, Sigma: 1, Nu: n - 1}.Quantile(0.975) * sd * math.Sqrt(1/n+z*z/(2*(n-1)))
	out.AroundLow = [2]float64{out.Low - half, out.Low + half}
	out.AroundHi = [2]float64{out.High - half, out.High + half}
	return out
}
