package bench_test

import (
	"encoding/json"
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/bench"
	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
)

// Shipped cases are whole: each read strictly, every protocol, what must be referred, what is sore
// and not the source, and where nothing is to be found.
func TestShippedCases(t *testing.T) {
	protocols, best, ids := map[string]int{}, map[string]int{}, map[string]bool{}
	for _, c := range bench.Cases() {
		assert.False(t, ids[c.ID], c.ID)
		ids[c.ID] = true
		if c.Protocol != "" {
			protocols[string(c.Protocol)]++
		}
		best[c.Best]++
	}
	assert.GreaterOrEqual(t, len(bench.Cases()), 24)
	assert.Len(t, protocols, 14)
	assert.GreaterOrEqual(t, best["refer"], 4)
	assert.GreaterOrEqual(t, best["nothing"], 2)
}

// rank is where a case's own muscle stands in the engine's list of its findings.
func rank(c bench.ClientCase, seed int64) int {
	for i, s := range assess.Rank(c.Findings(seed), assess.Weights{}).Suspects {
		for _, p := range c.Truth.Points {
			if p.Response != "sham" && p.Response != "stubborn" && p.Muscle == s.Muscle && p.Side == s.Side {
				return i + 1
			}
		}
	}
	return 0
}

// The engine finds what is true of a shipped case that is treated.
func TestTheEngineFindsTheShippedOnes(t *testing.T) {
	for _, c := range bench.Cases() {
		if c.Best == "treat" {
			assert.LessOrEqual(t, rank(c, 1), 5, c.ID)
		}
	}
}

// Generated cases hold what is promised of them, at every level.
func TestGeneratedCases(t *testing.T) {
	for seed := range int64(200) {
		c := bench.Generate(seed, int(seed%3)+1)
		raw, err := json.Marshal(c)
		require.NoError(t, err)
		var again bench.ClientCase
		require.NoError(t, decode.JSON(raw, &again), "seed %d: %s", seed, raw)
		assert.Equal(t, c, bench.Generate(seed, int(seed%3)+1))
		if c.Best == "treat" {
			r := rank(c, seed)
			assert.True(t, r >= 1 && r <= 3, "seed %d: the engine has it at %d", seed, r)
		}
	}
}

// chosen is a shipped case as the contract names it.
func chosen(id string) json.RawMessage { return json.RawMessage(`"` + id + `"`) }

func run(t *testing.T, in bench.ExerciseIn) bench.ExerciseOut {
	t.Helper()
	out, err := bench.Run(in)
	require.NoError(t, err)
	return out
}

func actions(t *testing.T, lines ...string) []bench.LearnerAction {
	t.Helper()
	var out []bench.LearnerAction
	for _, l := range lines {
		var a bench.LearnerAction
		require.NoError(t, decode.JSON([]byte(l), &a), l)
		out = append(out, a)
	}
	return out
}

// The truth is told when the exercise is finished, and not a moment before.
func TestTheTruthIsToldAtTheEnd(t *testing.T) {
	in := bench.ExerciseIn{Case: chosen("stiff-neck-desk"), Seed: 5, Exercise: "reasoning", Actions: actions(t,
		`{"t":1,"action":"ask","what":"story"}`, `{"t":2.5,"action":"ask","what":"drawing"}`,
		`{"t":9,"action":"test","movement":"cervical.lateral-flexion","side":"left"}`,
		`{"t":20.125,"action":"name","answers":[{"is":"muscle","muscle":"upper-trapezius","side":"right","percent":80},`+
			`{"is":"refer","percent":10}]}`)}
	out := run(t, in)
	assert.Nil(t, out.Truth)
	assert.NotContains(t, fmt.Sprint(out.Client), "upper-trapezius")
	assert.InDelta(t, 1, out.Score["found"], 0)
	// (0.2² + 0.1²)/2 = 0.025.
	assert.InDelta(t, 0.975, out.Score["confidence"], 1e-9)
	in.Actions = append(in.Actions, actions(t, `{"t":21,"action":"finish"}`)...)
	out = run(t, in)
	require.NotNil(t, out.Truth)
	assert.Equal(t, "stiff-neck-desk", out.Truth.Shows.Case.ID)
	assert.Len(t, out.Truth.Shows.Engine, 3)
}

// A test speaks for the source but for its own error, and says the same again; one that the evidence
// does not know is refused.
func TestSpecialTestsSpeakForTheSource(t *testing.T) {
	right, n := 0, 60
	for seed := range int64(n) {
		in := bench.ExerciseIn{Case: chosen("heel-in-the-morning"), Seed: seed, Exercise: "reasoning"}
		c, err := bench.CaseOf(in)
		require.NoError(t, err)
		side := c.Truth.Points[0].Side
		line := fmt.Sprintf(`{"t":1,"action":"test","test":"calf-length-knee-bent","side":%q}`, side)
		in.Actions = actions(t, line, line)
		told := run(t, in).Client
		assert.Equal(t, told[0].Shows.Result, told[1].Shows.Result)
		if told[0].Shows.Result == "positive" {
			right++
		}
	}
	assert.Greater(t, right, n*3/4)
	assert.Less(t, right, n, "a test errs")
	_, err := bench.Run(bench.ExerciseIn{Case: chosen("warm-calf"), Exercise: "reasoning", Actions: actions(t,
		`{"t":1,"action":"test","test":"calf-length-knee-bent"}`)})
	require.ErrorContains(t, err, "$.actions[0].test")
}

// Whoever is sure and wrong, asks leadingly, or leaves a red flag unasked scores lower in that
// component, and not higher in any.
func TestModelsThatDoWorseScoreLower(t *testing.T) {
	worse := func(good, bad bench.ExerciseOut, in string) {
		t.Helper()
		assert.Less(t, bad.Score[in], good.Score[in])
		var a, b float64
		for k := range good.Score {
			a, b = a+good.Score[k], b+bad.Score[k]
		}
		assert.Less(t, b, a)
	}
	for _, c := range bench.Cases() {
		of := func(exercise string, lines ...string) bench.ExerciseOut {
			return run(t, bench.ExerciseIn{Case: chosen(c.ID), Seed: 3, Exercise: exercise, Actions: actions(t,
				lines...)})
		}
		naming := func(percent int) bench.ExerciseOut {
			return of("reasoning", fmt.Sprintf(
				`{"t":1,"action":"name","answers":[{"is":"muscle","muscle":"soleus","side":"left","percent":%d}]}`, percent,
			))
		}
		worse(naming(10), naming(95), "confidence")
		var open, leading, skipped []string
		for i, q := range append([]ids.Question{"fever"}, c.Yes...) {
			open = append(open, fmt.Sprintf(`{"t":%d,"action":"ask","question":%q,"form":"open"}`, i, q))
			leading = append(leading, fmt.Sprintf(`{"t":%d,"action":"ask","question":%q,"form":"leading"}`, i, q))
		}
		skipped = append(skipped, open[0], `{"t":90,"action":"finish"}`)
		good := of("asking", append(open, `{"t":90,"action":"finish"}`)...)
		bad := of("asking", append(leading, `{"t":90,"action":"finish"}`)...)
		assert.Less(t, bad.Score["open"], good.Score["open"], c.ID)
		assert.LessOrEqual(t, bad.Score["flags"], good.Score["flags"], c.ID)
		if c.Best == "refer" {
			assert.InDelta(t, 1, good.Score["flags"], 0, c.ID)
			worse(good, of("asking", skipped...), "flags")
		}
	}
}

// Landmarks that are touched where they are score full; a touch beside one is named with how far.
func TestLandmarks(t *testing.T) {
	in := bench.ExerciseIn{Case: chosen("stiff-neck-desk"), Seed: 11, Exercise: "landmarks"}
	for i := range 6 {
		told := run(t, in).Client
		l := told[len(told)-1].Shows
		p, err := body.FindLandmark(l.View, l.Landmark, l.Side)
		require.NoError(t, err)
		if i == 5 {
			p.X += 60
		}
		in.Actions = append(in.Actions, actions(t, fmt.Sprintf(`{"t":%d,"action":"touch","view":%q,"x":%g,"y":%g}`, 3*i+3,
			l.View, p.X, p.Y))...)
	}
	out := run(t, in)
	assert.InDelta(t, 0.833, out.Score["found"], 0)
	assert.InDelta(t, 1, out.Score["pace"], 0)
	require.Len(t, out.Marks, 1)
	assert.Equal(t, "landmark-missed", out.Marks[0].Rule)
	assert.Contains(t, out.Marks[0].Text, "mm off")
}

// The second level counts spinous tips down from a start, the third asks for a muscle's usual place;
// whoever counts one wrong is told how far off it is.
func TestLandmarksByLevel(t *testing.T) {
	for level := 2; level <= 3; level++ {
		in := bench.ExerciseIn{
			Case: json.RawMessage(fmt.Sprintf(`{"seed":5,"level":%d}`, level)), Seed: 5, Exercise: "landmarks",
		}
		for i := range 6 {
			told := run(t, in).Client
			l := told[len(told)-1].Shows
			var p body.Point
			if level == 2 {
				of, err := body.Count(l.Landmark, l.Down)
				require.NoError(t, err)
				p, err = body.FindLandmark(body.Back, of.Level, ids.Midline)
				require.NoError(t, err)
			} else {
				m, err := atlas.Get(l.Muscle)
				require.NoError(t, err)
				site, ok := m.Site(l.Site)
				require.True(t, ok)
				_, p = m.OnFigure(site.Place(body.DefaultHeightCM), l.Side, body.DefaultHeightCM)
			}
			if i == 5 {
				p.Y += 30
			}
			in.Actions = append(in.Actions, actions(t, fmt.Sprintf(`{"t":%d,"action":"touch","view":%q,"x":%g,"y":%g}`, 3*i+3,
				l.View, p.X, p.Y))...)
		}
		out := run(t, in)
		assert.InDelta(t, 0.833, out.Score["found"], 0, "level %d", level)
		require.Len(t, out.Marks, 1)
		assert.Contains(t, out.Marks[0].Text, "mm off")
	}
}

// A stroke across the band meets it, and more where the nodule is; pressing there hurts, beside it
// not. Whoever marks it where it is scores full, whoever presses hard is told so.
func TestSearch(t *testing.T) {
	c := bench.Cases()[0]
	p := c.Truth.Points[0]
	m, err := atlas.Get(p.Muscle)
	require.NoError(t, err)
	place := atlas.FibrePlace{Fibre: p.Fibre, AlongPct: p.AlongPct, AcrossMM: p.AcrossMM}
	v, at := m.OnFigure(place, p.Side, body.DefaultHeightCM)
	way := m.FibreDirection(place, p.Side, body.DefaultHeightCM)
	_, there := m.OnFigure(place, p.Side.Other(), body.DefaultHeightCM)
	deg := (int(math.Round(math.Atan2(-way.Y, way.X)*180/math.Pi)) + 180) % 180
	touch := func(s string, at body.Point, more string) string {
		return fmt.Sprintf(`{"t":1,"action":%q,"view":%q,"x":%g,"y":%g%s}`, s, v, at.X, at.Y, more)
	}
	far := body.Point{X: at.X + 30*way.Y, Y: at.Y - 30*way.X}
	end := body.Point{X: at.X - 30*way.Y, Y: at.Y + 30*way.X}
	lines := []string{
		touch("stroke", far, fmt.Sprintf(`,"force_n":12,"to_x":%g,"to_y":%g`, end.X, end.Y)),
		touch("press", at, `,"force_n":15`), touch("press", far, `,"force_n":15`), touch("press", there, `,"force_n":15`),
		touch("mark", at, fmt.Sprintf(`,"muscle":%q,"side":%q,"direction_deg":%d`, p.Muscle, p.Side, deg)),
		`{"t":9,"action":"finish"}`,
	}
	in := bench.ExerciseIn{Case: chosen(c.ID), Seed: 1, Exercise: "search", Actions: actions(t, lines...)}
	out := run(t, in)
	stroke := out.Client[1].Feels
	assert.Greater(t, stroke[4], stroke[0]+15, "the band in the middle: %v", stroke)
	assert.NotEmpty(t, out.Client[2].Says, "it hurts there")
	assert.Empty(t, out.Client[3].Says, "beside it not")
	for _, k := range []string{"distance", "direction", "muscle", "gentle", "other_side", "strokes"} {
		assert.InDelta(t, 1, out.Score[k], 0, k)
	}
	in.Actions = append(actions(t, touch("press", at, `,"force_n":60`)), in.Actions...)
	hard := run(t, in)
	assert.Less(t, hard.Score["gentle"], 1.0)
	assert.Equal(t, "too-hard", hard.Marks[0].Rule)
}

// pressing is a hold by a model: it presses so hard, asks every so many seconds, and does less within
// two seconds of the client's number being above 5.
func pressing(t *testing.T, id string, newtons float64, ask int) bench.ExerciseOut {
	t.Helper()
	in := bench.ExerciseIn{Case: chosen(id), Seed: 1, Exercise: "grading", Protocol: "hold-to-release"}
	say := func(s string, a ...any) { in.Actions = append(in.Actions, actions(t, fmt.Sprintf(s, a...))...) }
	force := 4.0
	say(`{"t":1,"action":"press","force_n":%g}`, force)
	for s := 2; s < 60; s++ {
		if force < newtons {
			force = min(newtons, force+3)
			say(`{"t":%d,"action":"press","force_n":%g}`, s, force)
		}
		if s%ask == 0 {
			say(`{"t":%d.5,"action":"ask"}`, s)
		}
	}
	for i := range 4 {
		say(`{"t":%d,"action":"press","force_n":%g}`, 60+i, force*float64(3-i)/4)
	}
	say(`{"t":66,"action":"finish"}`)
	return run(t, in)
}

// A hand that presses as it should and asks scores higher in each component than one that presses
// too hard, or does not ask; the number falls under suitable pressure, and not where the source lies
// elsewhere.
func TestGrading(t *testing.T) {
	good := pressing(t, "stiff-neck-desk", 14, 6)
	assert.InDelta(t, 1, good.Score["release"], 0)
	assert.Greater(t, good.Score["asked"], 0.8)
	first, last := good.Client[0].Says, good.Client[len(good.Client)-1].Says
	assert.Greater(t, first, last, "from %s to %s", first, last)
	hard := pressing(t, "stiff-neck-desk", 40, 6)
	assert.Less(t, hard.Score["ceilings"], good.Score["ceilings"])
	assert.Contains(t, fmt.Sprint(hard.Marks), "guarding")
	silent := pressing(t, "stiff-neck-desk", 14, 50)
	assert.Less(t, silent.Score["asked"], good.Score["asked"])
	sum := func(o bench.ExerciseOut) (all float64) {
		for _, v := range o.Score {
			all += v
		}
		return all
	}
	assert.Less(t, sum(hard), sum(good))
	assert.Less(t, sum(silent), sum(good))
	sham := pressing(t, "nothing-to-find", 14, 6)
	assert.Equal(t, sham.Client[3].Says, sham.Client[len(sham.Client)-1].Says, "nothing falls where nothing is")
}

// What cannot be is refused by its field.
func TestWhatCannotBeIsRefused(t *testing.T) {
	one := func(exercise string, lines ...string) bench.ExerciseIn {
		return bench.ExerciseIn{Case: chosen("warm-calf"), Exercise: exercise, Actions: actions(t, lines...)}
	}
	for _, x := range []struct {
		in   bench.ExerciseIn
		says string
	}{
		{bench.ExerciseIn{Case: chosen("nobody"), Exercise: "asking"}, "$.case"},
		{one("asking", `{"t":2,"action":"finish"}`, `{"t":1,"action":"finish"}`), "$.actions[1].t"},
		{one("asking", `{"t":1.2345,"action":"finish"}`), "$.actions[0].t"},
		{one("asking", `{"t":1,"action":"ask","question":"fever"}`), "$.actions[0].form"},
		{one("asking", `{"t":1,"action":"finish"}`, `{"t":2,"action":"finish"}`), "$.actions[1].action"},
		{one("reasoning", `{"t":1,"action":"test","movement":"knee.flexion"}`), "$.actions[0].movement"},
		{one("landmarks", `{"t":1,"action":"touch","view":"front"}`), "$.actions[0].x"},
	} {
		_, err := bench.Run(x.in)
		require.ErrorContains(t, err, x.says)
	}
}
