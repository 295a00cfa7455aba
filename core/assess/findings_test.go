package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/atlas"
	"mokren/core/ids"
)

func raised(t *testing.T, f Findings, m ids.Muscle, side ids.Side) bool {
	t.Helper()
	return conf(Rank(all(f), nil), m, side) > conf(Rank(all(Findings{}), nil), m, side)+1e-9
}

// Each kind of finding raises the muscles that it names, on their side only.
func TestFindingsRaiseTheirMuscles(t *testing.T) {
	for _, c := range []struct {
		name   string
		f      Findings
		raises ids.Muscle
		side   ids.Side
		not    ids.Side
	}{
		{"left shoulder high", Findings{Posture: []Posture{{
			Measure: "shoulder-height", HighSide: ids.Left,
			Degrees: f(4),
		}}}, "upper-trapezius", ids.Left, ids.Right},
		{"right pelvis high", Findings{Posture: []Posture{{
			Measure: "pelvis-height", HighSide: ids.Right,
			Degrees: f(5),
		}}}, "quadratus-lumborum", ids.Right, ids.Left},
		{"left pelvis tipped forward", Findings{Posture: []Posture{{
			Measure: "pelvic-tilt", Side: ids.Left,
			Degrees: f(18),
		}}}, "rectus-femoris", ids.Left, ids.Right},
		{"right pelvis tipped back", Findings{Posture: []Posture{{
			Measure: "pelvic-tilt", Side: ids.Right,
			Degrees: f(2),
		}}}, "biceps-femoris", ids.Right, ids.Left},
		{
			"left acromion off the table",
			Findings{Posture: []Posture{{
				Measure: "acromion-to-table", Side: ids.Left,
				CM: f(9),
			}, {Measure: "acromion-to-table", Side: ids.Right, CM: f(6)}}},
			"pectoralis-minor", ids.Left,
			ids.Right,
		},
		{
			"bulging to the right: short on the hollow left",
			Findings{Posture: []Posture{{Measure: "side-curve", HighSide: ids.Right}}},
			"quadratus-lumborum", ids.Left, ids.Right,
		},
		{
			"the left blade turns up less: what turns it down",
			Findings{Posture: []Posture{
				{Measure: "scapular-upward-rotation", Side: ids.Left, Degrees: new(10.0)},
				{Measure: "scapular-upward-rotation", Side: ids.Right, Degrees: new(18.0)},
			}},
			"levator-scapulae", ids.Left, ids.Right,
		},
		{
			"left heel lifts",
			Findings{Signs: []SquatSign{{"squat-heels-lift", ids.Left}}},
			"soleus", ids.Left,
			ids.Right,
		},
		{
			"hip hike hurts on the left",
			Findings{Tests: []TestResult{{"hip-hike", ids.Left, "positive"}}},
			"quadratus-lumborum", ids.Left, ids.Right,
		},
		{
			"turning left is short: the left levator",
			Findings{ROM: []ROM{rom("cervical.rotation", ids.Left, 40, "")}},
			"levator-scapulae", ids.Left, ids.Right,
		},
		{
			"bending right is short: the left trapezius",
			Findings{ROM: []ROM{rom("cervical.lateral-flexion", ids.Right, 20, "")}},
			"upper-trapezius", ids.Left,
			ids.Right,
		},
		{
			"turning right is short: the left splenius",
			Findings{ROM: []ROM{rom("cervical.rotation", ids.Right, 40, "")}},
			"splenius-capitis", ids.Left, ids.Right,
		},
		{
			"resisted turn to the right: the left sternocleidomastoid",
			Findings{Tests: []TestResult{{"resisted:cervical.rotation", ids.Right, "positive"}}},
			"sternocleidomastoid-sternal", ids.Left, ids.Right,
		},
	} {
		t.Run(c.name, func(t *testing.T) {
			assert.True(t, raised(t, c.f, c.raises, c.side))
			assert.False(t, raised(t, c.f, c.raises, c.not), "the other side")
		})
	}
	assert.True(t, raised(t, Findings{Loads: []ids.Load{"overhead-work"}}, "supraspinatus", ids.Left))
	assert.True(t, raised(t, Findings{Loads: []ids.Load{"overhead-work"}}, "supraspinatus", ids.Right),
		"a load speaks of both sides")
}

func TestBelowTheFlagNothingIsRaised(t *testing.T) {
	assert.False(t, raised(t, Findings{Posture: []Posture{{
		Measure: "shoulder-height", HighSide: ids.Left,
		Degrees: f(2),
	}}}, "upper-trapezius", ids.Left))
	assert.False(t, raised(t, Findings{ROM: []ROM{rom("cervical.rotation", ids.Left, 78, "")}}, "levator-scapulae",
		ids.Left))
	assert.False(t, raised(t, Findings{Tests: []TestResult{{"hip-hike", ids.Left, "unclear"}}}, "quadratus-lumborum",
		ids.Left))
}

func TestNegativeLowers(t *testing.T) {
	base := Findings{Pain: pain(ids.Left, "lateral-hip iliac-crest", "")}
	with := base
	with.Tests = []TestResult{{"hip-hike", ids.Left, "negative"}}
	assert.Less(t, conf(Rank(all(with), nil), "quadratus-lumborum", ids.Left),
		conf(Rank(all(base), nil), "quadratus-lumborum", ids.Left))
}

func TestMatchOfADrawingWithAPattern(t *testing.T) {
	s := &atlas.Site{Essential: []ids.Region{"heel", "achilles"}, Spillover: []ids.Region{"lower-calf"}}
	m := func(list ...Pain) float64 {
		total := 0.0
		for _, p := range list {
			total += p.Intensity
		}
		return match(s, ids.Left, list, total)
	}
	heel := Pain{"heel", ids.Left, 6, ""}
	tendon := Pain{"achilles", ids.Left, 6, ""}
	assert.InDelta(t, 1, m(heel, tendon), 1e-9, "all explained, all present")
	assert.InDelta(t, 0.6+0.2, m(heel), 1e-9, "half of the pattern is there")
	assert.InDelta(t, 0.3, m(Pain{"lower-calf", ids.Left, 6, ""}), 1e-9, "spill-over counts half")
	assert.InDelta(t, 0, m(Pain{"heel", ids.Right, 6, ""}), 1e-9, "the other side's pain is not explained")
	assert.InDelta(t, 0.6*0.5+0.2, m(heel, Pain{"jaw", ids.Left, 6, ""}), 1e-9, "weighted by intensity")
	sacrum := &atlas.Site{Essential: []ids.Region{"sacrum"}}
	assert.InDelta(t, 1, match(sacrum, ids.Left, []Pain{{"sacrum", ids.Midline, 5, ""}}, 5), 1e-9,
		"midline belongs to both")
	assert.InDelta(t, 1, match(sacrum, ids.Right, []Pain{{"sacrum", ids.Left, 5, ""}}, 5), 1e-9)
}

// The chance of a positive answer is the false-positive rate when no muscle is
// suspected and rises with each that is.
func TestChanceOfAPositiveAnswer(t *testing.T) {
	r := Ratio{3.5, 0.5}
	none := ChancePositive(r, []float64{0, 0})
	assert.InDelta(t, 1.0/6, none, 1e-9)
	sure := ChancePositive(r, []float64{1})
	assert.InDelta(t, 3.5/6, sure, 1e-9, "the sensitivity")
	assert.Greater(t, ChancePositive(r, []float64{0.5, 0.5}), ChancePositive(r, []float64{0.5}))
	assert.Less(t, ChancePositive(r, []float64{1, 1, 1, 1}), 1.0)
}

func TestNothingFoundSuspectsNobody(t *testing.T) {
	r := Rank(Findings{}, nil)
	for _, s := range r.Suspects {
		assert.InDelta(t, prior, s.Confidence, 1e-9)
		assert.False(t, s.Ready)
	}
	assert.Empty(t, r.Next, "no test is worth doing for nobody")
	one := 1
	assert.Len(t, Rank(Findings{Top: &one}, nil).Suspects, 1)
}
