package assess

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/ids"
	"mokren/core/safety"
)

func conf(r Ranking, m ids.Muscle, side ids.Side) float64 {
	return r.Suspects[rankOf(r.Suspects, m, side)].Confidence
}

func all(f Findings) Findings {
	n := 200
	f.Top = &n
	return f
}

// Adding a finding that speaks for a muscle never lowers it; the order in
// which findings are given does not matter.
func TestConfirmingNeverLowersAndOrderDoesNotMatter(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v := vignettes[rapid.IntRange(0, len(vignettes)-1).Draw(t, "vignette")]
		base := all(v.f)
		before := conf(Rank(base, nil), v.muscle, ids.Left)
		m := newModel(nil)
		var confirming []ids.Test
		for _, test := range ids.Tests() {
			for _, x := range m.targets(test, ids.Left) {
				done := false
				for _, d := range base.Tests {
					done = done || d.Test == test
				}
				if x.h.muscle.ID == v.muscle && !done {
					confirming = append(confirming, test)
				}
			}
		}
		if len(confirming) > 0 {
			more := base
			more.Tests = append(append([]TestResult{}, base.Tests...),
				TestResult{rapid.SampledFrom(confirming).Draw(t, "test"), ids.Left, "positive"})
			assert.GreaterOrEqual(t, conf(Rank(more, nil), v.muscle, ids.Left), before-1e-12, "%s %v", v.name,
				more.Tests)
		}
		mixed := base
		mixed.Pain = append([]Pain{}, base.Pain...)
		mixed.ROM = append([]ROM{}, base.ROM...)
		mixed.Tests = append([]TestResult{}, base.Tests...)
		rnd := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 1))
		rnd.Shuffle(len(mixed.Pain), func(i, j int) { mixed.Pain[i], mixed.Pain[j] = mixed.Pain[j], mixed.Pain[i] })
		rnd.Shuffle(len(mixed.ROM), func(i, j int) { mixed.ROM[i], mixed.ROM[j] = mixed.ROM[j], mixed.ROM[i] })
		rnd.Shuffle(len(mixed.Tests), func(i, j int) {
			mixed.Tests[i], mixed.Tests[j] = mixed.Tests[j],
				mixed.Tests[i]
		})
		a, b := Rank(base, nil), Rank(mixed, nil)
		for i := range a.Suspects {
			assert.Equal(t, a.Suspects[i].Muscle, b.Suspects[i].Muscle)
			assert.InDelta(t, a.Suspects[i].Confidence, b.Suspects[i].Confidence, 1e-9)
		}
		assert.Equal(t, a.Next, b.Next)
	})
}

// The best test, once answered, lowers the total entropy of what it was chosen
// for on average: enumerated, both answers, through the whole ranking.
func TestTheBestTestLowersEntropyOnAverage(t *testing.T) {
	for _, v := range vignettes {
		f := all(v.f)
		r := Rank(f, nil)
		if len(r.Next) == 0 {
			continue
		}
		for i, n := range r.Next {
			assert.Positive(t, n.GainBits, v.name)
			if i > 0 {
				assert.LessOrEqual(t, n.GainBits, r.Next[i-1].GainBits)
			}
		}
		best := r.Next[0]
		led := map[string]float64{}
		m := newModel(nil)
		var ps []float64
		for _, x := range m.targets(best.Test, best.Side) {
			p := conf(r, x.h.muscle.ID, x.h.side)
			if p > serious && rankOf(r.Suspects, x.h.muscle.ID, x.h.side) < leading {
				led[string(x.h.muscle.ID)+string(x.h.side)] = p
				ps = append(ps, p)
			}
		}
		total := func(result string) float64 {
			g := f
			g.Tests = append(append([]TestResult{}, f.Tests...), TestResult{best.Test, best.Side, result})
			sum := 0.0
			for _, s := range Rank(g, nil).Suspects {
				if _, ok := led[string(s.Muscle)+string(s.Side)]; ok {
					sum += entropy(s.Confidence)
				}
			}
			return sum
		}
		now := 0.0
		for _, p := range led {
			now += entropy(p)
		}
		pos := ChancePositive(m.ratioOf(best.Test), ps)
		assert.Greater(t, pos, 0.0)
		assert.Less(t, pos, 1.0)
		after := pos*total("positive") + (1-pos)*total("negative")
		assert.Less(t, after, now, v.name)
		assert.InDelta(t, best.GainBits, now-after, 1e-6, "%s: what was promised", v.name)
	}
}

func TestKneeStraightAgainstKneeBent(t *testing.T) {
	only := Rank(all(Findings{ROM: []ROM{
		rom("ankle.dorsiflexion-knee-straight", ids.Left, 2, ""),
		rom("ankle.dorsiflexion-knee-bent", ids.Left, 20, ""),
	}}), nil)
	assert.Greater(t, conf(only, "gastrocnemius-medial", ids.Left), 2*conf(only, "soleus", ids.Left),
		"short with the knee straight only")
	both := Rank(all(Findings{ROM: []ROM{
		rom("ankle.dorsiflexion-knee-straight", ids.Left, 0, ""),
		rom("ankle.dorsiflexion-knee-bent", ids.Left, 8, ""),
	}}), nil)
	assert.Greater(t, conf(both, "soleus", ids.Left), 2*conf(both, "gastrocnemius-medial", ids.Left),
		"short with it bent as well")
}

func TestStiffShoulderNote(t *testing.T) {
	reading := func(m ids.Movement, a, p float64) ROM {
		return ROM{Movement: m, Side: ids.Left, Active: f(a), Passive: f(p)}
	}
	capsular := []ROM{
		reading("shoulder.external-rotation", 30, 32), reading("shoulder.abduction", 90, 95),
		reading("shoulder.internal-rotation", 50, 54),
	}
	r := Rank(Findings{ROM: capsular}, nil)
	require.Len(t, r.Notes, 1)
	assert.Contains(t, r.Notes[0], "Stiff shoulder, left")
	capsular[0] = reading("shoulder.external-rotation", 30, 80)
	assert.Empty(t, Rank(Findings{ROM: capsular}, nil).Notes, "active far less than passive is no stiff joint")
	weak := Rank(all(Findings{ROM: []ROM{reading("shoulder.abduction", 90, 170)}}), nil)
	assert.Greater(t, conf(weak, "supraspinatus", ids.Left), prior, "weak or painful in its own action")
}

func TestFeltPlaceAndEndFeelCount(t *testing.T) {
	base := ROM{Movement: "cervical.lateral-flexion", Side: ids.Right, Active: f(25)}
	at := func(change func(*ROM)) float64 {
		r := base
		change(&r)
		return conf(Rank(all(Findings{ROM: []ROM{r}}), nil), "upper-trapezius", ids.Left)
	}
	pull := at(func(r *ROM) { r.Felt = "pull" })
	plainShort := at(func(*ROM) {})
	pinch := at(func(r *ROM) { r.Felt = "pinch" })
	hard := at(func(r *ROM) { r.EndFeel = "hard" })
	assert.Greater(t, pull, plainShort)
	assert.Greater(t, plainShort, hard)
	assert.Greater(t, plainShort, pinch, "a pinch raises the joint, not the muscle")
}

func TestGroupsAreDamped(t *testing.T) {
	h := hypothesis{}
	for _, id := range []string{"a", "b", "c"} {
		h.add("g", id, math.E, "")
	}
	sum, _ := h.reasons()
	assert.InDelta(t, 1.75, sum, 1e-9, "1 + ½ + ¼")
	h.add("other", "d", math.E, "")
	sum, _ = h.reasons()
	assert.InDelta(t, 2.75, sum, 1e-9)
}

// vignette gives the findings of the first one that is about a muscle.
func vignette(t testing.TB, m ids.Muscle) Findings {
	t.Helper()
	for _, v := range vignettes {
		if v.muscle == m {
			return v.f
		}
	}
	require.Fail(t, "no vignette", m)
	return Findings{}
}

func TestBlockedSuspectsAreNotReady(t *testing.T) {
	f := vignette(t, "soleus")
	f.Tests = append(f.Tests, TestResult{"calf-length-knee-bent", ids.Left, "positive"},
		TestResult{"resisted:ankle.plantarflexion", ids.Left, "positive"})
	r := Rank(f, nil)
	assert.True(t, r.Suspects[0].Ready)
	f.Screening = []safety.Answer{{
		Question: "open-skin", Answer: "yes", Side: ids.Left,
		Regions: []ids.Region{"upper-calf", "lower-calf", "medial-leg", "lateral-leg"},
	}}
	r = Rank(f, nil)
	assert.True(t, r.Suspects[0].Blocked)
	assert.False(t, r.Suspects[0].Ready)
	assert.NotEmpty(t, r.Suspects[0].Because)
}

func TestEarlierPointsRaiseByRecency(t *testing.T) {
	at := func(days float64) float64 {
		return conf(Rank(all(Findings{Earlier: []EarlierPoint{{"soleus", ids.Left, days}}}), nil), "soleus", ids.Left)
	}
	assert.Greater(t, at(3), at(60))
	assert.Greater(t, at(60), at(600))
	assert.GreaterOrEqual(t, at(600), prior-1e-9)
	many := Findings{Earlier: []EarlierPoint{
		{"soleus", ids.Left, 30},
		{"soleus", ids.Left, 3},
		{"soleus", ids.Left, 10},
	}}
	assert.InDelta(t, at(3), conf(Rank(all(many), nil), "soleus", ids.Left), 1e-12,
		"the same point over visits counts once")
}

func TestOwnWeights(t *testing.T) {
	f := vignette(t, "upper-trapezius")
	a := Rank(f, nil).Suspects[0].Confidence
	b := Rank(f, Weights{"referral": {30, 0.45}}).Suspects[0].Confidence
	assert.Greater(t, b, a)
	for _, e := range Defaults() {
		assert.NotEmpty(t, e.Source)
		assert.GreaterOrEqual(t, e.Ratio.Plus, 1.0)
		assert.LessOrEqual(t, e.Ratio.Minus, 1.0)
	}
}

func TestEveryTestAndSignAndLoadNamesMuscles(t *testing.T) {
	m := newModel(nil)
	for id, list := range testMuscles() {
		assert.Nil(t, id.Check())
		assert.NotEmpty(t, TestName(id), "%s", id)
		assert.Contains(t, TestHow(id), "positive when", "%s", id)
		for _, mu := range list {
			assert.NotEmpty(t, m.on(mu, ids.Left), "%s", mu)
		}
	}
	for _, id := range ids.Signs() {
		assert.NotEmpty(t, squatMuscles()[string(id)], "%s", id)
	}
	for _, id := range ids.Loads() {
		assert.NotEmpty(t, loadMuscles()[string(id)], "%s", id)
	}
}

// Hand-computed geometry.
func TestSlope(t *testing.T) {
	s, err := Solve(f(34), f(17), nil)
	require.NoError(t, err)
	assert.InDelta(t, 30, s.Deg, 1e-9)
	s, err = Solve(f(34), nil, f(-30))
	require.NoError(t, err)
	assert.InDelta(t, -17, s.HeightCM, 1e-9, "signed")
	s, err = Solve(nil, f(17), f(30))
	require.NoError(t, err)
	assert.InDelta(t, 34, s.DistanceCM, 1e-9)
	for _, c := range [][3]*float64{
		{f(1), nil, nil},
		{f(1), f(1), f(1)},
		{f(3), f(4), nil},
		{nil, f(4), f(0)},
		{nil, f(4), f(-10)},
	} {
		_, err := Solve(c[0], c[1], c[2])
		assert.Error(t, err)
	}
}

func TestPostureFlagsAtTheirBoundaries(t *testing.T) {
	one := func(p ...Posture) bool { return Flags(p, nil)[0].Flagged }
	for _, c := range []struct {
		name string
		p    []Posture
		want bool
	}{
		{"shoulder 2.9", []Posture{{Measure: "shoulder-height", Degrees: f(2.9)}}, false},
		{"shoulder 3", []Posture{{Measure: "shoulder-height", Degrees: f(-3)}}, true},
		{"tilt 14", []Posture{{Measure: "pelvic-tilt", Side: ids.Left, Degrees: f(14)}}, false},
		{"tilt 14.1", []Posture{{Measure: "pelvic-tilt", Side: ids.Left, Degrees: f(14.1)}}, true},
		{"tilt 5.9", []Posture{{Measure: "pelvic-tilt", Side: ids.Left, Degrees: f(5.9)}}, true},
		{"tilt sides differ by 4", []Posture{
			{Measure: "pelvic-tilt", Side: ids.Left, Degrees: f(8)},
			{Measure: "pelvic-tilt", Side: ids.Right, Degrees: f(12)},
		}, true},
		{"scapula 1.4", []Posture{
			{Measure: "scapula-distance", Side: ids.Left, CM: f(7.4)},
			{Measure: "scapula-distance", Side: ids.Right, CM: f(6)},
		}, false},
		{"scapula 1.5", []Posture{
			{Measure: "scapula-distance", Side: ids.Left, CM: f(7.5)},
			{Measure: "scapula-distance", Side: ids.Right, CM: f(6)},
		}, true},
		{"head 50", []Posture{{Measure: "craniovertebral-angle", Degrees: f(50)}}, false},
		{"head 49.9", []Posture{{Measure: "craniovertebral-angle", Degrees: f(49.9)}}, true},
		{"upward rotation 5", []Posture{
			{Measure: "scapular-upward-rotation", Side: ids.Left, Degrees: f(5)},
			{Measure: "scapular-upward-rotation", Side: ids.Right, Degrees: f(0)},
		}, true},
		{"hinge", []Posture{{Measure: "lumbar-curve", Kind: "hinge"}}, true},
		{"deep but even", []Posture{{Measure: "lumbar-curve", Kind: "deep"}}, false},
	} {
		assert.Equal(t, c.want, one(c.p...), c.name)
	}
}

// A picture measured straight, and the same one rolled by 7°, agree.
func TestPhotoGeometry(t *testing.T) {
	straight := Photo{View: "front", Plumb: [2][2]float64{{500, 100}, {500, 1100}}, Landmarks: map[string][2]float64{
		"acromion-left": {620, 280}, "acromion-right": {380, 292}, "navel": {510, 600},
	}, HeightCM: f(170)}
	a, err := MeasurePhoto(straight)
	require.NoError(t, err)
	assert.InDelta(t, 0, a.RollDeg, 1e-9)
	assert.InDelta(t, math.Atan2(12, 240)*180/math.Pi, a.Angles["shoulder-height"], 1e-9, "the client's left is high")
	assert.InDelta(t, 1.7, a.Offsets["navel"], 1e-9, "10 px of 1000 px for 170 cm")
	turn := func(p [2]float64) [2]float64 {
		s, c := math.Sincos(7 * math.Pi / 180)
		return [2]float64{500 + (p[0]-500)*c - (p[1]-600)*s, 600 + (p[0]-500)*s + (p[1]-600)*c}
	}
	rolled := Photo{View: "front", HeightCM: f(170), Landmarks: map[string][2]float64{}}
	for i, p := range straight.Plumb {
		rolled.Plumb[i] = turn(p)
	}
	for id, p := range straight.Landmarks {
		rolled.Landmarks[id] = turn(p)
	}
	b, err := MeasurePhoto(rolled)
	require.NoError(t, err)
	assert.InDelta(t, 7, b.RollDeg, 1e-9)
	for m, v := range a.Angles {
		assert.InDelta(t, v, b.Angles[m], 1e-9)
	}
	for l, v := range a.Offsets {
		assert.InDelta(t, v, b.Offsets[l], 1e-9)
	}

	// From the left side the client faces left in the picture.
	side := Photo{View: "left", Plumb: [2][2]float64{{400, 0}, {400, 1000}}, Landmarks: map[string][2]float64{
		"tragus": {370, 100}, "C7": {430, 160}, "psis": {450, 500}, "asis": {350, 517.632698},
	}}
	c, err := MeasurePhoto(side)
	require.NoError(t, err)
	assert.InDelta(t, 45, c.Angles["craniovertebral-angle"], 1e-9)
	assert.InDelta(t, 10, c.Angles["pelvic-tilt"], 1e-6)
	assert.InDelta(t, 0.03, c.Offsets["tragus"], 1e-9, "forward")
	assert.Equal(t, "fraction", c.Unit)
	back := straight
	back.View = "back"
	d, err := MeasurePhoto(back)
	require.NoError(t, err)
	assert.InDelta(t, -1.7, d.Offsets["navel"], 1e-9, "from behind the client's left is on the left")

	for _, bad := range []Photo{
		{View: "front", Plumb: [2][2]float64{{1, 1}, {1, 1}}},
		{View: "front", Plumb: [2][2]float64{{1, 9}, {1, 1}}},
		{View: "front", Plumb: straight.Plumb, Landmarks: map[string][2]float64{"acromion": {1, 1}}},
		{View: "left", Plumb: straight.Plumb, Landmarks: map[string][2]float64{"acromion-left": {1, 1}}},
		{View: "left", Plumb: straight.Plumb, Landmarks: map[string][2]float64{"nose": {1, 1}}},
	} {
		_, err := MeasurePhoto(bad)
		assert.Error(t, err)
	}
}

func BenchmarkRankWholeAtlas(b *testing.B) {
	f := vignette(b, "soleus")
	Rank(f, nil)
	for b.Loop() {
		Rank(f, nil)
	}
}
