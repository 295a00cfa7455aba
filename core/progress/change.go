package progress

import (
	"fmt"
	"math"
	"strings"

	"mokren/core/decode"
	"mokren/core/ids"
)

// Threshold is the smallest change that counts: an absolute one in the
// measure's unit, a percentage of the earlier value, or either.
type Threshold struct {
	Absolute *float64 `json:"absolute,omitempty"`
	Percent  *float64 `json:"percent,omitempty"`
}

// Direction of a meaningful change; none when it is not meaningful.
type Direction string

// The directions.
const (
	Better Direction = "better"
	Worse  Direction = "worse"
	None   Direction = "none"
)

// Signal is what a series of visits says.
type Signal string

// The signals.
const (
	Improving Signal = "improving"
	Plateau   Signal = "plateau"
	Worsening Signal = "worse"
	Resolved  Signal = "resolved"
	TooFew    Signal = "too-few"
)

// Signals lists them all.
func Signals() []Signal { return []Signal{Improving, Plateau, Worsening, Resolved, TooFew} }

// rule is one row of the table of meaningful change. The source of each
// number is shown wherever the number is used.
type rule struct {
	absolute, percent float64 // 0: not used
	moreIsBetter      bool
	lo, hi            float64
	unit, source      string
}

var rules = map[ids.Measure]rule{
	"nprs": {2, 30, false, 0, 10, "NPRS", "Farrar et al. 2001"},
	"ppt-kpa": {
		100, 30, true, 0, 2000, "kPa",
		"working default; the side difference that counts as abnormal is 196 kPa (Fischer 1987)",
	},
	"tenderness-grade": {1, 0, false, 0, 4, "grade", "working default"},
	"psfs-mean":        {2, 0, true, 0, 10, "points", "Stratford et al. 1995"},
	"psfs-item":        {3, 0, true, 0, 10, "points", "Stratford et al. 1995"},
	"pain-area-cm2":    {0, 30, false, 0, 30000, "cm²", "working default"},
}

// ruleOf finds the row for a measure; ROM rows are made from the movement.
func ruleOf(m ids.Measure) (rule, error) {
	if r, ok := rules[m]; ok {
		return r, nil
	}
	if mv, ok := strings.CutPrefix(string(m), "rom."); ok && ids.Movement(mv).Check() == nil {
		joint, _, _ := strings.Cut(mv, ".")
		switch joint {
		case "cervical", "thoracic", "lumbar", "trunk":
			return rule{7, 0, true, -90, 360, "°", "working default for the spine"}, nil
		case "jaw":
			return rule{5, 0, true, 0, 100, "mm", "working default"}, nil
		}
		return rule{5, 0, true, -90, 360, "°", "clinical goniometry texts"}, nil
	}
	return rule{}, &decode.Error{
		Path: "$.measure", Given: `"` + string(m) + `"`,
		Allowed: "nprs, rom.<movement>, ppt-kpa, tenderness-grade, psfs-mean, psfs-item or pain-area-cm2",
	}
}

// Reading is one value on a day (days count from any fixed day).
type Reading struct {
	Day   float64 `json:"day"`
	Value float64 `json:"value"`
}

// Change is the judgement of a pair or a series.
type Change struct {
	// Delta is after minus before, in the measure's unit.
	Delta     float64   `json:"delta"`
	Threshold Threshold `json:"threshold"`
	// Meaningful: at least the least change that is more than error.
	Meaningful bool `json:"meaningful"`
	// Direction is for better or worse, which depends on the measure.
	Direction Direction `json:"direction"`
	// Source of the threshold.
	Source       string   `json:"source"`
	Unit         string   `json:"unit"`
	Text         string   `json:"text"`
	SlopePerWeek *float64 `json:"slope_per_week,omitempty"`
	// Trend is there once there are readings of four visits.
	Trend  *Trend `json:"trend,omitempty"`
	Signal Signal `json:"signal,omitempty"`
	// Next is what the signal asks for.
	Next string `json:"next,omitempty"`
}

func (r rule) holds(v float64) bool { return v >= r.lo && v <= r.hi }

// check refuses a value that the measure cannot have.
func (r rule) check(path string, v float64) error {
	if !r.holds(v) {
		return &decode.Error{
			Path: path, Given: fmt.Sprint(v),
			Allowed: fmt.Sprintf("a number from %v to %v %s", r.lo, r.hi, r.unit),
		}
	}
	return nil
}

// tolerance keeps 7 → 4.9 at exactly 30 % in spite of binary fractions.
const tolerance = 1e-9

// judge compares two values: by the least change that counts, in the measure's unit, in
// percent, or by either.
func (r rule) judge(before, after float64) Change {
	c := Change{Delta: clean(after - before), Direction: None, Source: r.source, Unit: r.unit}
	size := math.Abs(after - before)
	if r.absolute > 0 {
		a := r.absolute
		c.Threshold.Absolute = &a
		c.Meaningful = size >= r.absolute-tolerance
	}
	if r.percent > 0 {
		p := r.percent
		c.Threshold.Percent = &p
		// A percentage of nothing says nothing.
		if before > 0 && size/before*100 >= r.percent-tolerance {
			c.Meaningful = true
		}
	}
	c.Text = "no clear change"
	if c.Meaningful {
		c.Direction, c.Text = Worse, "clearly worse"
		if (after > before) == r.moreIsBetter {
			c.Direction, c.Text = Better, "clearly better"
		}
	}
	return c
}

func clean(f float64) float64 { return math.Round(f*1e6) / 1e6 }

// Pair judges one value against an earlier one.
func Pair(m ids.Measure, before, after float64) (Change, error) {
	r, err := ruleOf(m)
	if err != nil {
		return Change{}, err
	}
	if err := r.check("$.before", before); err != nil {
		return Change{}, err
	}
	if err := r.check("$.after", after); err != nil {
		return Change{}, err
	}
	return r.judge(before, after), nil
}

// trendVisits is how many readings a trend needs.
const trendVisits = 4

// Series judges first against last, and reads the signal. Readings are in the
// order of their days.
func Series(m ids.Measure, s []Reading) (Change, error) {
	r, err := ruleOf(m)
	if err != nil {
		return Change{}, err
	}
	if len(s) == 0 {
		return Change{}, &decode.Error{Path: "$.series", Given: "[]", Allowed: "at least one reading"}
	}
	for i, x := range s {
		if !r.holds(x.Value) {
			return Change{}, r.check(fmt.Sprintf("$.series[%d].value", i), x.Value)
		}
		if i > 0 && x.Day < s[i-1].Day {
			return Change{}, &decode.Error{
				Path: fmt.Sprintf("$.series[%d].day", i), Given: fmt.Sprint(x.Day),
				Allowed: "days in order, never going back",
			}
		}
	}
	c := r.judge(s[0].Value, s[len(s)-1].Value)
	if x := spreadOf(s); x.there {
		c.SlopePerWeek, c.Trend = &x.perWeek, x.trend(len(s))
	}
	c.Signal = r.signal(m, s)
	c.Next = c.Signal.Next()
	return c, nil
}

// signal reads the last visits first: what happens now matters more than what
// happened over all.
func (r rule) signal(m ids.Measure, s []Reading) Signal {
	n := len(s)
	if m == "nprs" && n >= 2 && s[n-1].Value <= 2 && s[n-2].Value <= 2 {
		return Resolved
	}
	if n >= 3 && r.judge(s[n-3].Value, s[n-2].Value).Direction == Worse &&
		r.judge(s[n-2].Value, s[n-1].Value).Direction == Worse {
		return Worsening
	}
	if n < trendVisits {
		return TooFew
	}
	still := true
	for i := n - 3; i < n; i++ {
		for j := i + 1; j < n; j++ {
			still = still && !r.judge(s[i].Value, s[j].Value).Meaningful
		}
	}
	if still {
		return Plateau
	}
	switch r.judge(s[0].Value, s[n-1].Value).Direction {
	case Better:
		return Improving
	case Worse:
		return Worsening
	}
	return Plateau
}
