package bench

import (
	"fmt"
	"maps"
	"slices"
)

// Mean is a score in one number: every component counts alike.
func Mean(score map[string]float64) float64 {
	if len(score) == 0 {
		return 0
	}
	sum := int64(0)
	for _, k := range slices.Sorted(maps.Keys(score)) {
		sum += int64(score[k]*1000 + 0.5)
	}
	return share(sum / int64(len(score)))
}

// Claim is a statement with its confidence, and whether it was so.
type Claim struct {
	Percent int  `json:"percent" minimum:"0" maximum:"100"`
	IsSo    bool `json:"is_so"`
}

// Calibrated is how far a learner's confidence can be relied on.
type Calibrated struct {
	N int `json:"n"`
	// Brier is the mean squared difference, 0 to 1; absent where nothing was said.
	Brier *float64 `json:"brier,omitempty"`
	// Bins are tenths of confidence in which enough was said.
	Bins []CalibrationBin `json:"bins"`
	Text string           `json:"text"`
}

// CalibrationBin is what was said with about one confidence.
type CalibrationBin struct {
	SaidPct  int `json:"said_pct" doc:"the mean of what was said"`
	RightPct int `json:"right_pct"`
	N        int `json:"n"`
}

// leastInBin: fewer statements say nothing about a confidence.
const leastInBin = 10

// Calibrate puts statements into tenths of confidence, 0–9, 10–19 … 90–100.
func Calibrate(list []Claim) Calibrated {
	out := Calibrated{N: len(list), Bins: []CalibrationBin{}}
	if len(list) == 0 {
		out.Text = "Nothing was named with a confidence yet."
		return out
	}
	var said, right, n [10]int
	all := make([]statement, 0, len(list))
	for _, s := range list {
		i := min(9, s.Percent/10)
		said[i] += s.Percent
		n[i]++
		if s.IsSo {
			right[i]++
		}
		all = append(all, statement{s.Percent, s.IsSo})
	}
	out.Brier = new(float64(brier(all)/1000) / 1000)
	widest := 0
	for i := range n {
		if n[i] < leastInBin {
			continue
		}
		b := CalibrationBin{said[i] / n[i], (200*right[i] + n[i]) / (2 * n[i]), n[i]}
		out.Bins = append(out.Bins, b)
		if off := b.SaidPct - b.RightPct; max(off, -off) >= widest {
			widest = max(off, -off)
			out.Text = fmt.Sprintf("When you say %d %%, you are right %d %% of the time, %d statements.",
				b.SaidPct, b.RightPct, b.N)
		}
	}
	if out.Text == "" {
		out.Text = fmt.Sprintf("%d statements so far; a confidence is judged from ten alike.", len(list))
	}
	return out
}

// Past is a result for what to practise next.
type Past struct {
	Exercise string
	Level    int
	Day      int64 // counted from any day
	Mean     float64
}

// Upcoming is what to practise next, and why.
type Upcoming struct {
	Exercise string `json:"exercise"`
	Level    int    `json:"level"`
	Why      string `json:"why"`
}

// passed is a mean at which an exercise is repeated later; recent is how many results of one kind
// are looked at; intervals are the days until a repetition after so many passes in a row.
const (
	passed = 0.8
	recent = 3
)

var intervals = []int64{1, 3, 7, 14, 30}

// order in which exercises are begun.
var order = []string{"landmarks", "search", "grading", "asking", "reasoning", "visit"}

type kindOf struct {
	exercise string
	level    int
}

// Next is the exercise and level with the lowest recent scores among those that are due: what was
// passed is due again after growing intervals. Where nothing is due, it is what was never done, in
// the order of the work; then a level more. Results come in the order of their days.
func Next(past []Past, today int64) Upcoming {
	of := map[kindOf][]Past{}
	for _, p := range past {
		k := kindOf{p.Exercise, p.Level}
		of[k] = append(of[k], p)
	}
	var lowest *Upcoming
	least := 2.0
	for level := 1; level <= 3; level++ {
		for _, e := range order {
			list := of[kindOf{e, level}]
			if len(list) == 0 || today < list[len(list)-1].Day+rest(list) {
				continue
			}
			mean := meanOf(list[max(0, len(list)-recent):])
			if mean < least {
				least = mean
				lowest = &Upcoming{e, level, fmt.Sprintf("Lowest of what is due: %.0f of 100 over the last %d.",
					100*mean,
					min(recent, len(list)))}
			}
		}
	}
	if lowest != nil {
		return *lowest
	}
	for level := 1; level <= 3; level++ {
		for _, e := range order {
			if len(of[kindOf{e, level}]) == 0 {
				return Upcoming{e, level, "Not practised yet."}
			}
		}
	}
	return Upcoming{"visit", 3, "Everything was passed and rests; a whole visit keeps it together."}
}

// rest is how long a kind rests after its last result: longer with each pass in a row, and not at all
// after one that was not passed.
func rest(list []Past) int64 {
	row := 0
	for _, p := range slices.Backward(list) {
		if p.Mean < passed {
			break
		}
		row++
	}
	if row == 0 {
		return 0
	}
	return intervals[min(row, len(intervals))-1]
}

func meanOf(list []Past) float64 {
	sum := 0.0
	for _, p := range list {
		sum += p.Mean
	}
	return sum / float64(len(list))
}

// Trend is the mean of the last three results less that of the first three, where there are six.
func Trend(means []float64) (float64, bool) {
	if len(means) < 2*recent {
		return 0, false
	}
	sum := 0.0
	for i := range recent {
		sum += means[len(means)-1-i] - means[i]
	}
	return float64(int64(sum/recent*1000)) / 1000, true
}

// Pressed are repeated presses to one aim, in newtons.
type Pressed struct {
	N         int      `json:"n"`
	MeanN     float64  `json:"mean_n"`
	CVPercent *float64 `json:"cv_percent,omitempty" doc:"coefficient of variation; absent for fewer than three"`
	Text      string   `json:"text"`
}

// leastPresses for a variation.
const leastPresses = 3

// SamePressure tells how alike presses are: their standard deviation (n − 1) in percent of the mean.
func SamePressure(newtons []float64) Pressed {
	n := len(newtons)
	out := Pressed{N: n}
	if n == 0 {
		out.Text = "Nothing was pressed yet."
		return out
	}
	sum := 0.0
	for _, f := range newtons {
		sum += f
	}
	mean := sum / float64(n)
	out.MeanN = tenthOf(mean)
	if n < leastPresses || mean == 0 {
		out.Text = fmt.Sprintf("%.1f N; at least %d presses say how alike they are.", mean, leastPresses)
		return out
	}
	squares := int64(0)
	for _, f := range newtons {
		d := int64((f - mean) * 1000)
		squares += d * d
	}
	sd := float64(root(squares/int64(n-1))) / 1000
	cv := tenthOf(100 * sd / mean)
	out.CVPercent = &cv
	word := "uneven: a hand that is watched becomes even"
	switch {
	case cv <= 10:
		word = "even"
	case cv <= 20:
		word = "fairly even"
	}
	out.Text = fmt.Sprintf("%.1f N on the average, varying by %.1f %%: %s.", mean, cv, word)
	return out
}

func tenthOf(f float64) float64 { return float64(int64(f*10+0.5)) / 10 }

// Heavier says whose hand is heavier, and by how much, from two people's presses to one aim.
func Heavier(first, second []float64) string {
	a, b := SamePressure(first), SamePressure(second)
	if a.N < leastPresses || b.N < leastPresses || a.MeanN == 0 || b.MeanN == 0 {
		return fmt.Sprintf("At least %d presses of both are needed.", leastPresses)
	}
	switch more := int64(100*(a.MeanN-b.MeanN)/b.MeanN + 0.5); {
	case more > 0:
		return fmt.Sprintf("The first hand is heavier, by %d %%.", more)
	case a.MeanN < b.MeanN:
		return fmt.Sprintf("The second hand is heavier, by %d %%.", int64(100*(b.MeanN-a.MeanN)/a.MeanN+0.5))
	}
	return "Both hands press alike."
}
