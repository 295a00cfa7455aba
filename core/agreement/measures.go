package agreement

import (
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/stable"
)

// Pair is one measure of one site by both people.
type Pair struct {
	// Measure is band, familiar, grade, nprs, ppt-kpa or rom. with a movement.
	Measure string          `json:"measure" maxLength:"60"`
	First   json.RawMessage `json:"first" doc:"band: yes, no, unsure; familiar: yes, partly, no; grade 0 to 4; else a number"`
	Second  json.RawMessage `json:"second" doc:"as first"`
}

// answers are those of each measure that is answered, in their order.
var answers = map[string][]string{
	"band":     {"yes", "no", "unsure"},
	"familiar": {"yes", "partly", "no"},
	"grade":    {"0", "1", "2", "3", "4"},
}

// Check implements decode.Checker.
func (p Pair) Check() *decode.Error {
	if !known(p.Measure) {
		return &decode.Error{
			Path: "$.measure", Given: strconv.Quote(p.Measure),
			Allowed: "band, familiar, grade, nprs, ppt-kpa or rom.<movement>",
		}
	}
	for name, raw := range map[string]json.RawMessage{"$.first": p.First, "$.second": p.Second} {
		if list := answers[p.Measure]; list != nil {
			if !slices.Contains(list, said(raw)) || p.Measure == "grade" == strings.HasPrefix(string(raw), `"`) {
				return &decode.Error{Path: name, Given: string(raw), Allowed: "one of " + strings.Join(list, ", ")}
			}
			continue
		}
		v, err := strconv.ParseFloat(string(raw), 64)
		if least := lowest(p.Measure); err != nil || v < least || v > 5000 || p.Measure == "ppt-kpa" && v == 0 {
			return &decode.Error{Path: name, Given: string(raw), Allowed: fmt.Sprintf("a number from %v", least)}
		}
	}
	return nil
}

// lowest is the least value of a number; a range may end short of its zero.
func lowest(measure string) float64 {
	if strings.HasPrefix(measure, "rom.") {
		return -90
	}
	return 0
}

func known(measure string) bool {
	if movement, ok := strings.CutPrefix(measure, "rom."); ok {
		return slices.Contains(ids.Movements(), ids.Movement(movement))
	}
	return answers[measure] != nil || measure == "nprs" || measure == "ppt-kpa"
}

func said(raw json.RawMessage) string { return strings.Trim(string(raw), `"`) }

// Result is the agreement on one measure.
type Result struct {
	N         int      `json:"n" doc:"pairs that count"`
	Statistic string   `json:"statistic" enum:"kappa,weighted-kappa,icc"`
	Value     *float64 `json:"value,omitempty"`
	Low       *float64 `json:"low,omitempty"`
	High      *float64 `json:"high,omitempty"`
	// Bias and limits are of first minus second; of pressure thresholds first ÷ second.
	Bias   *float64  `json:"bias,omitempty"`
	Limits []float64 `json:"limits,omitempty" doc:"low, high"`
	// LimitsWithin are the intervals of both limits.
	LimitsWithin [][2]float64 `json:"limits_within,omitempty"`
	// More pairs are needed for an interval of ±0.2.
	More *int   `json:"more,omitempty"`
	Text string `json:"text"`
}

const (
	leastForInterval = 10
	leastForICC      = 5
	wanted           = 0.2 // half of an interval that tells something
)

// Of computes the agreement on each measure.
func Of(pairs []Pair) map[string]Result {
	by := map[string][]Pair{}
	for _, p := range pairs {
		by[p.Measure] = append(by[p.Measure], p)
	}
	out := map[string]Result{}
	for measure, list := range by {
		if answers[measure] != nil {
			out[measure] = answered(measure, list)
		} else {
			out[measure] = numbers(measure, list)
		}
	}
	return out
}

// answered is kappa of a table of answers; unsure is left out and counted.
func answered(measure string, list []Pair) Result {
	names := answers[measure]
	weighted := measure == "grade"
	r := Result{Statistic: "kappa"}
	if weighted {
		r.Statistic = "weighted-kappa"
	}
	if measure == "band" {
		names = names[:2]
	}
	table := make([][]float64, len(names))
	for i := range table {
		table[i] = make([]float64, len(names))
	}
	unsure := 0
	for _, p := range list {
		i, j := slices.Index(names, said(p.First)), slices.Index(names, said(p.Second))
		if i < 0 || j < 0 {
			unsure++
			continue
		}
		table[i][j]++
		r.N++
	}
	k := KappaOf(table, weighted)
	if k.OK {
		r.Value = rounded(k.Value)
	}
	why := ""
	switch {
	case !k.OK:
		why = "Both gave one and the same answer everywhere, or nothing counts: no value."
	case r.N < leastForInterval:
		why = fmt.Sprintf("No interval: %d pairs, %d are needed.", r.N, leastForInterval)
	case k.SE == 0:
		why = "No interval: its standard error is 0."
	default:
		r.Low, r.High = rounded(k.Low), rounded(k.High)
	}
	r.say(why, (k.High-k.Low)/2)
	if unsure > 0 {
		r.Text += fmt.Sprintf(" %d pairs with unsure are left out.", unsure)
	}
	return r
}

// numbers is the ICC with bias and limits.
func numbers(measure string, list []Pair) Result {
	r := Result{Statistic: "icc", N: len(list)}
	rows := make([][]float64, len(list))
	differences := make([]float64, len(list))
	ratio := measure == "ppt-kpa"
	for i, p := range list {
		a, _ := strconv.ParseFloat(string(p.First), 64)
		b, _ := strconv.ParseFloat(string(p.Second), 64)
		rows[i] = []float64{a, b}
		differences[i] = a - b
		if ratio {
			differences[i] = math.Log(a) - math.Log(b)
		}
	}
	if r.N >= 2 {
		r.limits(LimitsOf(differences), ratio)
	}
	if r.N < leastForICC {
		r.say(fmt.Sprintf("No value: %d pairs, %d are needed.", r.N, leastForICC), 0)
		return r
	}
	c := ICCOf(rows)
	if c.OK {
		r.Value = rounded(c.Value)
	}
	why := ""
	switch {
	case !c.OK:
		why = "Nobody's readings differ: no value."
	case r.N < leastForInterval:
		why = fmt.Sprintf("No interval: %d pairs, %d are needed.", r.N, leastForInterval)
	case math.IsNaN(c.Low):
		why = "No interval: its standard error is 0."
	default:
		r.Low, r.High = rounded(c.Low), rounded(c.High)
	}
	r.say(why, (c.High-c.Low)/2)
	return r
}

// limits writes bias and limits; of logarithms they are ratios.
func (r *Result) limits(l Limits, ratio bool) {
	of := func(v float64) float64 {
		if ratio {
			v = math.Exp(v)
		}
		return *rounded(v)
	}
	bias := of(l.Bias)
	r.Bias, r.Limits = &bias, []float64{of(l.Low), of(l.High)}
	r.LimitsWithin = [][2]float64{
		{of(l.AroundLow[0]), of(l.AroundLow[1])}, {of(l.AroundHi[0]), of(l.AroundHi[1])},
	}
}

// say puts into a sentence what the value means. why is why there is no interval; half is half of
// it. The words are the working scale of practitioners' reliability studies.
func (r *Result) say(why string, half float64) {
	var text []string
	if r.Value != nil {
		v := *r.Value
		word := "almost the same"
		for _, step := range []struct {
			below float64
			word  string
		}{
			{0, "less alike than by chance"},
			{0.2, "hardly alike"},
			{0.4, "somewhat alike"},
			{0.6, "moderately alike"},
			{0.8, "clearly alike"},
		} {
			if v < step.below {
				word = step.word
				break
			}
		}
		text = append(text, fmt.Sprintf("The two find it %s (%.2f of %d pairs).", word, v, r.N))
	}
	if why != "" {
		text = append(text, why)
	} else if half > 0 {
		more := max(0, int(math.Ceil(float64(r.N)*(half/wanted)*(half/wanted)))-r.N)
		r.More = &more
		if more > 0 {
			text = append(text, fmt.Sprintf("%d more pairs are needed for ±%.1f.", more, wanted))
		}
		text = append(text, "Points of one person depend on each other: the interval is too narrow.")
	}
	r.Text = strings.Join(text, " ")
}

// rounded keeps six decimals: more than any hand is worth, and the same on every machine.
func rounded(v float64) *float64 {
	v = math.Round(v*1e6) / 1e6
	return &v
}

// Numbers are the pairs of numbers of matched charts. Answers of matched charts are none: their
// agreement would be inflated.
func Numbers(first, second []Chart, m Matching) []Pair {
	var out []Pair
	add := func(measure string, a, b *float64) {
		if a != nil && b != nil {
			out = append(out, Pair{measure, number(*a), number(*b)})
		}
	}
	stable.Sort(m.pairs, func(a, b [2]int) int { return a[0] - b[0] })
	for _, p := range m.pairs {
		a, b := first[p[0]], second[p[1]]
		add("nprs", a.NPRS, b.NPRS)
		if a.PPT != nil && b.PPT != nil && *a.PPT > 0 && *b.PPT > 0 {
			add("ppt-kpa", a.PPT, b.PPT)
		}
	}
	return out
}

func number(v float64) json.RawMessage { return json.RawMessage(strconv.FormatFloat(v, 'g', -1, 64)) }
