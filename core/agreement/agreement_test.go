package agreement_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/agreement"
	"mokren/core/decode"
)

func Example() {
	list := []agreement.Pair{}
	for range 12 {
		list = append(list, pair("band", "yes", "yes"), pair("band", "no", "no"))
	}
	list = append(list, pair("band", "yes", "no"), pair("band", "unsure", "yes"))
	r := agreement.Of(list)["band"]
	fmt.Println(r.N, r.Statistic, *r.Value)
	// Output: 25 kappa 0.920128
}

func pair(measure string, first, second any) agreement.Pair {
	raw := func(v any) json.RawMessage {
		b, err := json.Marshal(v)
		if err != nil {
			panic(err)
		}
		return b
	}
	return agreement.Pair{Measure: measure, First: raw(first), Second: raw(second)}
}

// The published table of two psychologists' diagnoses, with the interval of the large sample.
func TestKappaHasItsPublishedValues(t *testing.T) {
	table := [][]float64{{53, 5, 2}, {11, 14, 5}, {1, 6, 3}}
	k := agreement.KappaOf(table, false)
	assert.InDelta(t, .4286, k.Value, 5e-5)
	assert.InDelta(t, .2797, k.Low, 5e-5)
	assert.InDelta(t, .5774, k.High, 5e-5)
	w := agreement.KappaOf(table, true)
	assert.InDelta(t, .5667, w.Value, 5e-5)
	assert.InDelta(t, .4124, w.Low, 5e-5)
	assert.InDelta(t, .7210, w.High, 5e-5)
	assert.False(t, agreement.KappaOf([][]float64{{9, 0}, {0, 0}}, false).OK, "chance agrees always")
}

// Six subjects and four raters, as published; a negative value is kept.
func TestICCHasItsPublishedValues(t *testing.T) {
	c := agreement.ICCOf([][]float64{
		{9, 2, 5, 8}, {6, 1, 3, 2}, {8, 4, 6, 8}, {7, 1, 2, 6}, {10, 5, 6, 9}, {6, 2, 4, 7},
	})
	assert.InDelta(t, .2898, c.Value, 5e-5)
	assert.InDelta(t, .0188, c.Low, 5e-5)
	assert.InDelta(t, .7611, c.High, 5e-5)
	negative := agreement.ICCOf([][]float64{{1, 5}, {5, 1}, {2, 4}, {4, 2}, {3, 3.5}})
	assert.True(t, negative.OK)
	assert.Negative(t, negative.Value)
	assert.False(t, agreement.ICCOf([][]float64{{3, 3}, {3, 3}}).OK, "nothing differs")
}

// Peak flow by two meters, 17 people; the limits are at ±1.96, not at the paper's ±2.
func TestLimitsHaveTheirPublishedValues(t *testing.T) {
	large := []float64{494, 395, 516, 434, 476, 557, 413, 442, 650, 433, 417, 656, 267, 478, 178, 423, 427}
	mini := []float64{512, 430, 520, 428, 500, 600, 364, 380, 658, 445, 432, 626, 260, 477, 259, 350, 451}
	differences := make([]float64, len(large))
	for i := range large {
		differences[i] = large[i] - mini[i]
	}
	l := agreement.LimitsOf(differences)
	assert.InDelta(t, -2.118, l.Bias, 5e-4)
	assert.InDelta(t, -78.10, l.Low, 5e-3)
	assert.InDelta(t, 73.86, l.High, 5e-3)
	assert.InDelta(t, l.Low, (l.AroundLow[0]+l.AroundLow[1])/2, 1e-9)
	assert.Greater(t, l.AroundLow[1]-l.AroundLow[0], 2.0)
}

// No interval without enough pairs, and the reason instead; unsure is left out and counted.
func TestTooFewPairsHaveNoInterval(t *testing.T) {
	var list []agreement.Pair
	for i := range 9 {
		list = append(list, pair("grade", i%5, (i+i/4)%5), pair("nprs", i, i+1))
	}
	out := agreement.Of(append(list, pair("band", "unsure", "yes")))
	assert.Nil(t, out["grade"].Low)
	assert.NotNil(t, out["grade"].Value)
	assert.Contains(t, out["grade"].Text, "No interval: 9 pairs, 10 are needed.")
	assert.InDelta(t, -1, *out["nprs"].Bias, 1e-9)
	assert.Zero(t, out["band"].N)
	assert.Contains(t, out["band"].Text, "1 pairs with unsure")
	few := agreement.Of(list[1:4])["nprs"]
	assert.Nil(t, few.Value)
	assert.Contains(t, few.Text, "No value: 2 pairs, 5 are needed.")
	// Enough pairs tell how many more would narrow the interval.
	for i := range 6 {
		list = append(list, pair("nprs", float64(i)/2, 4))
	}
	r := agreement.Of(list)["nprs"]
	require.NotNil(t, r.Low)
	require.NotNil(t, r.More)
	assert.Positive(t, *r.More)
}

// Pressure thresholds are compared as ratios.
func TestThresholdsAreRatios(t *testing.T) {
	var list []agreement.Pair
	for i := range 12 {
		list = append(list, pair("ppt-kpa", 2*(100+10*i), 100+10*i))
	}
	r := agreement.Of(list)["ppt-kpa"]
	assert.InDelta(t, 2, *r.Bias, 1e-6)
	assert.InDelta(t, 2, r.Limits[0], 1e-6)
}

func at(x, y float64) agreement.Chart {
	return agreement.Chart{Muscle: "soleus", Side: "left", View: "back", X: &x, Y: &y}
}

// Charts are matched one to one by the least distance in all, not each to its nearest.
func TestChartsAreMatchedOneToOne(t *testing.T) {
	// At 170 cm a unit is 1.7 mm: 10 units are 17 mm.
	first, second := []agreement.Chart{at(100, 700), at(110, 700)}, []agreement.Chart{at(108, 700), at(122, 700)}
	m := agreement.Match(first, second, 170)
	assert.Equal(t, 2, m.Both)
	assert.InDeltaSlice(t, []float64{13.6, 20.4}, m.DistancesMM, 1e-9)
	assert.InDelta(t, 1, m.Positive, 1e-9)
	// Beyond 40 mm, or on the other side, nothing is matched.
	other := at(100, 700)
	other.Side = "right"
	m = agreement.Match([]agreement.Chart{at(100, 700), at(300, 100)}, []agreement.Chart{at(124, 700), other}, 170)
	assert.Equal(t, 0, m.Both)
	assert.Equal(t, 2, m.FirstOnly)
	assert.Equal(t, 2, m.SecondOnly)
	assert.Empty(t, agreement.Match(nil, nil, 170).DistancesMM)
}

// No other way of matching a few points is better than the one that is found.
func TestTheMatchingIsTheBest(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7))
	for range 200 {
		draw := func() (out []agreement.Chart) {
			for range 1 + r.IntN(5) {
				out = append(out, at(100+r.Float64()*60, 700+r.Float64()*30))
			}
			return out
		}
		a, b := draw(), draw()
		m := agreement.Match(a, b, 170)
		sum := 0.0
		for _, d := range m.DistancesMM {
			sum += d
		}
		n, least := best(a, b, 0, map[int]bool{})
		assert.Equal(t, n, m.Both)
		assert.InDelta(t, least, sum, 0.06*float64(n)+1e-9)
	}
}

// best tries every way: most matches first, then the least distance.
func best(a, b []agreement.Chart, i int, used map[int]bool) (n int, sum float64) {
	if i == len(a) {
		return 0, 0
	}
	n, sum = best(a, b, i+1, used)
	for j := range b {
		d := agreement.Match(a[i:i+1], b[j:j+1], 170)
		if used[j] || d.Both == 0 {
			continue
		}
		used[j] = true
		k, s := best(a, b, i+1, used)
		used[j] = false
		if k+1 > n || k+1 == n && s+d.DistancesMM[0] < sum {
			n, sum = k+1, s+d.DistancesMM[0]
		}
	}
	return n, sum
}

func TestABadPairIsRefusedByItsField(t *testing.T) {
	for raw, path := range map[string]string{
		`{"measure":"charm","first":1,"second":2}`:              "$.measure",
		`{"measure":"rom.neck.wiggle","first":1,"second":2}`:    "$.measure",
		`{"measure":"band","first":"maybe","second":"yes"}`:     "$.first",
		`{"measure":"grade","first":2,"second":5}`:              "$.second",
		`{"measure":"grade","first":"2","second":3}`:            "$.first",
		`{"measure":"nprs","first":"six","second":5}`:           "$.first",
		`{"measure":"ppt-kpa","first":0,"second":5}`:            "$.first",
		`{"measure":"rom.knee.flexion","first":-91,"second":5}`: "$.first",
	} {
		var p agreement.Pair
		var e *decode.Error
		require.ErrorAs(t, decode.JSON([]byte(raw), &p), &e, raw)
		assert.Equal(t, path, e.Path, raw)
	}
}
