package bench_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/bench"
)

// asked asks a desk as a page does.
func asked[Out any](t *testing.T, d *bench.Desk, name, in string) Out {
	t.Helper()
	answer, err := d.Answer(name, []byte(in))
	require.NoError(t, err, "%s %s", name, in)
	raw, err := json.Marshal(answer)
	require.NoError(t, err)
	var out Out
	require.NoError(t, json.Unmarshal(raw, &out))
	return out
}

// A page that acts step by step is told what a run of the same actions tells, each once; what is
// refused names its field and is no action.
func TestADeskTellsStepByStep(t *testing.T) {
	var d bench.Desk
	assert.Len(t, asked[bench.BenchCases](t, &d, "cases", `{}`).Cases, len(bench.Cases()))
	const of = `"case":"stiff-neck-desk","seed":1,"exercise":"grading"`
	place := asked[bench.BenchPlace](t, &d, "pressed", `{`+of+`,"actions":[]}`)
	assert.Equal(t, "upper-trapezius", string(place.Muscle))
	asked[bench.BenchStep](t, &d, "open", `{"session":"a",`+of+`,"actions":[]}`)
	var told []bench.ClientTold
	lines := []string{
		`{"t":1,"action":"press","force_n":9}`, `{"t":2,"action":"press","force_n":14}`, `{"t":3,"action":"press","force_n":19}`,
		`{"t":4,"action":"ask"}`, `{"t":14,"action":"ask"}`, `{"t":20,"action":"finish"}`,
	}
	all := ""
	for i, l := range lines {
		told = append(told, asked[bench.BenchStep](t, &d, "look", `{"session":"a","ms":1000}`).Told...)
		told = append(told, asked[bench.BenchStep](t, &d, "act", `{"session":"a","action":`+l+`}`).Told...)
		if i > 0 {
			all += ","
		}
		all += l
	}
	out := asked[bench.ExerciseOut](t, &d, "out", `{"session":"a"}`)
	assert.Equal(t, out, asked[bench.ExerciseOut](t, &d, "run", `{`+of+`,"actions":[`+all+`]}`))
	assert.Equal(t, out.Client, told)
	_, err := d.Answer("act", []byte(`{"session":"a","action":{"t":21,"action":"ask"}}`))
	require.ErrorContains(t, err, "$.actions[6].action")
	_, err = d.Answer("look", []byte(`{"session":"b","ms":1}`))
	require.ErrorContains(t, err, "$.session")
	_, err = d.Answer("dance", []byte(`{}`))
	require.ErrorContains(t, err, "$.name")

	asked[bench.BenchStep](t, &d, "open", `{"session":"s","case":"stiff-neck-desk","seed":1,"exercise":"search","actions":[]}`)
	felt := func(x string) int {
		in := `{"session":"s","view":"back","x":` + x + `,"y":157.7,"force_n":12}`
		return asked[bench.BenchFelt](t, &d, "feel", in).Feels
	}
	assert.Greater(t, felt("279"), felt("240")+15, "the band under a finger on its way")
	alike := asked[bench.BenchAlike](t, &d, "pressure", `{"first":[20,21,19,20,20],"second":[15,16,14,15,15]}`)
	assert.InDelta(t, 3.5, *alike.First.CVPercent, 0.05)
	assert.Contains(t, alike.Heavier, "first hand is heavier, by 33 %")
}

// What to practise next: what was never done in the order of the work, what went worst, and what was
// passed only after it has rested, longer each time.
func TestWhatToPractiseNext(t *testing.T) {
	assert.Equal(t, "landmarks", bench.Next(nil, 100).Exercise)
	past := []bench.Past{
		{"landmarks", 1, 90, 0.9}, {"search", 1, 95, 0.4}, {"grading", 1, 96, 0.6}, {"asking", 1, 97, 0.9},
	}
	assert.Equal(t, "search", bench.Next(past, 97).Exercise)
	past = append(past, bench.Past{"search", 1, 97, 0.95}, bench.Past{"search", 1, 97, 0.95}, bench.Past{
		"search",
		1, 97, 1,
	},
		bench.Past{"grading", 1, 97, 0.9})
	assert.Equal(t, "landmarks", bench.Next(past, 97).Exercise, "it has rested")
	past = append(past, bench.Past{"landmarks", 1, 97, 0.9})
	assert.Equal(t, "reasoning", bench.Next(past, 97).Exercise, "never done")
	assert.Equal(t, "grading", bench.Next(past, 98).Exercise, "a day after one pass")
	by, ok := bench.Trend([]float64{.4, .5, .6, .7, .8, .9})
	assert.True(t, ok)
	assert.InDelta(t, .3, by, 1e-9)
	_, ok = bench.Trend([]float64{.4, .5})
	assert.False(t, ok)
}

// A tenth of confidence counts from ten statements on; the Brier score is of all.
func TestCalibration(t *testing.T) {
	var list []bench.Claim
	for i := range 21 {
		list = append(list, bench.Claim{Percent: 80, IsSo: i < 13})
	}
	list = append(list, bench.Claim{Percent: 20})
	c := bench.Calibrate(list)
	require.Len(t, c.Bins, 1)
	assert.Equal(t, bench.CalibrationBin{SaidPct: 80, RightPct: 62, N: 21}, c.Bins[0])
	assert.Equal(t, "When you say 80 %, you are right 62 % of the time, 21 statements.", c.Text)
	assert.InDelta(t, (13*.04+8*.64+.04)/22, *c.Brier, 1e-3)
	assert.Nil(t, bench.Calibrate(nil).Brier)
}
