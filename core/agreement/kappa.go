package agreement

import "math"

// z is the normal quantile of a 95 % interval.
const z = 1.959964

// Kappa is agreement beyond chance, with its interval.
type Kappa struct {
	Value, Low, High float64
	// SE is the standard error of the large sample, not under the hypothesis of no agreement.
	SE float64
	// OK is false where chance alone would agree always: there is no value then.
	OK bool
}

// unweighted counts equal answers only; squared weighs by the square of the distance.
//
// Both give the weight of a pair in row i and column j of k answers, from 0 for none to 1 for full
// agreement.
func unweighted(i, j, _ int) float64 {
	if i == j {
		return 1
	}
	return 0
}

func squared(i, j, k int) float64 {
	d := float64(i-j) / float64(k-1)
	return 1 - d*d
}

// KappaOf computes kappa of a square table of counts: first by rows, second by columns.
func KappaOf(table [][]float64, weighted bool) Kappa {
	k := len(table)
	weight := unweighted
	if weighted {
		weight = squared
	}
	n := 0.0
	for _, row := range table {
		for _, c := range row {
			n += c
		}
	}
	// The margins: how often each of the two gives each answer.
	rows, cols := make([]float64, k), make([]float64, k)
	for i := range k {
		for j := range k {
			rows[i] += table[i][j] / n
			cols[j] += table[i][j] / n
		}
	}
	var po, pe float64
	// The mean weight of each row and column, over what the other would say by chance.
	rowW, colW := make([]float64, k), make([]float64, k)
	for i := range k {
		for j := range k {
			w := weight(i, j, k)
			po += w * table[i][j] / n
			pe += w * rows[i] * cols[j]
			rowW[i] += w * cols[j]
			colW[j] += w * rows[i]
		}
	}
	if n == 0 || 1-pe < 1e-12 {
		return Kappa{}
	}
	// The variance weighs each cell by how far it moves the value if it held one pair more: by its
	// own weight, and by what it does to the margins.
	sum := 0.0
	for i := range k {
		for j := range k {
			d := weight(i, j, k)*(1-pe) - (rowW[i]+colW[j])*(1-po)
			sum += table[i][j] / n * d * d
		}
	}
	off := po*pe - 2*pe + po
	variance := (sum - off*off) / (n * math.Pow(1-pe, 4))
	out := Kappa{Value: (po - pe) / (1 - pe), SE: math.Sqrt(max(0, variance)), OK: true}
	out.Low, out.High = max(-1, out.Value-z*out.SE), min(1, out.Value+z*out.SE)
	return out
}
