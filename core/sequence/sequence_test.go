package sequence_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/sequence"
)

func Example() {
	s, _ := sequence.Get("calf-and-sole")
	minutes := 6.0
	p := sequence.Lay(s.For(ids.Left), ids.Left, &minutes, sequence.Client{})
	first := p.Steps[0]
	fmt.Println(first.Technique, first.Where, first.Side, first.StartsS, first.Seconds)
	fmt.Println(p.Seconds <= 360)
	// Output:
	// gliding-strokes upper-calf left 0 9
	// true
}

func screened(yes ...ids.Question) sequence.Client {
	var a []safety.Answer
	for _, q := range yes {
		a = append(a, safety.Answer{Question: q, Answer: "yes"})
	}
	return sequence.Client{Screening: safety.Screen(a)}
}

// steps is a sequence of one step each, by technique and place.
func steps(pairs ...string) sequence.Sequence {
	var s sequence.Sequence
	for i := 0; i+1 < len(pairs); i += 2 {
		s.Steps = append(s.Steps, sequence.TechniqueStep{Technique: ids.Technique(pairs[i]), Where: pairs[i+1]})
	}
	return s
}

func TestEveryTechniqueIsWhole(t *testing.T) {
	list := sequence.Techniques()
	require.GreaterOrEqual(t, len(list), 25)
	assert.Len(t, list, len(ids.Techniques()))
	for _, x := range list {
		_, known := sequence.Find(x.ID)
		assert.True(t, known)
		assert.Contains(t, ids.Techniques(), x.ID)
		assert.NotEmpty(t, x.How, "%s", x.ID)
		assert.NotEmpty(t, x.Feel, "%s", x.ID)
		for _, r := range []sequence.DoseBounds{x.Amount, x.Each} {
			assert.True(t, r.Least <= r.Usual && r.Usual <= r.Most, "%s", x.ID)
		}
		counts := x.Steer == sequence.Repetitions || x.Steer == sequence.Stations
		assert.Equal(t, counts, x.Each.Usual > 0, "%s", x.ID)
		if x.Presses != "none" {
			assert.NotEmpty(t, x.Contacts, "%s", x.ID)
		}
	}
}

// A healthy client gets all of every shipped sequence, on both sides where it has two.
func TestShippedSequencesAreWhole(t *testing.T) {
	list := sequence.Known()
	require.GreaterOrEqual(t, len(list), 10)
	assert.Len(t, list, len(ids.Sequences()))
	for _, s := range list {
		for _, side := range []ids.Side{ids.Left, ids.Right} {
			p := sequence.Lay(s.For(side), side, nil, sequence.Client{})
			assert.Empty(t, p.LeftOut, "%s", s.ID)
			require.NotEmpty(t, p.Steps, "%s", s.ID)
			assert.Contains(t, []ids.Side{side, ids.Midline}, p.Steps[0].Side, "%s", s.ID)
			assert.Less(t, p.Seconds, 20*60.0, "%s", s.ID)
			last := p.Steps[len(p.Steps)-1]
			assert.InDelta(t, p.Seconds, last.StartsS+last.Seconds, 1e-9)
		}
		assert.NotEmpty(t, s.Source)
	}
}

// Wherever a point lies, some sequence is for its region.
func TestEveryRegionHasASequence(t *testing.T) {
	for _, r := range ids.Regions() {
		found := false
		for _, s := range sequence.Known() {
			found = found || slices.Contains(s.Regions, r)
		}
		assert.True(t, found, "%s", r)
	}
}

func TestSidesInTurnOrWhole(t *testing.T) {
	s := steps("kneading", "upper-calf", "gliding-strokes", "upper-calf", "resting-hands", "sacrum")
	order := func(sides sequence.Sides) (out []string) {
		s.Sides = sides
		for _, l := range sequence.Lay(s, ids.Right, nil, sequence.Client{}).Steps {
			out = append(out, fmt.Sprintf("%d %s", l.Step, l.Side))
		}
		return out
	}
	assert.Equal(t, []string{"1 right", "2 right", "3 midline"}, order(sequence.Once))
	assert.Equal(t, []string{"1 right", "1 left", "2 right", "2 left", "3 midline"}, order(sequence.Each))
	assert.Equal(t, []string{"1 right", "2 right", "3 midline", "1 left", "2 left"}, order(sequence.Whole))
}

// A turn is 120 s; the first position is free, and the other side lies the other way round.
func TestTurnsAreCounted(t *testing.T) {
	s := steps("kneading", "lateral-hip", "kneading", "upper-calf")
	s.Steps[0].Position, s.Steps[1].Position = "side-lying-right", "prone"
	s.Sides = sequence.Whole
	p := sequence.Lay(s, ids.Left, nil, sequence.Client{})
	require.Len(t, p.Steps, 4)
	assert.Equal(t, 3, p.Turns)
	assert.InDelta(t, 180, p.Steps[1].StartsS, 1e-9)
	assert.Equal(t, ids.Position("side-lying-left"), p.Steps[2].Position)
	assert.InDelta(t, 4*60+3*120, p.Seconds, 1e-9)
}

func TestWhatTodayRulesOutIsLeftOutAndSaysWhy(t *testing.T) {
	for name, c := range map[string]struct {
		at     sequence.Sequence
		client sequence.Client
		reason string
	}{
		"circles of the neck": {
			steps("joint-circles", "posterior-neck"), screened(),
			"No full circles of the neck.",
		},
		"traction, unstable neck": {
			steps("gentle-traction", "suboccipital"), screened("unstable-neck"),
			"Nothing by hand",
		},
		"traction, thin bones": {
			steps("gentle-traction", "suboccipital"), screened("osteoporosis"),
			"No pull at the head",
		},
		"stretch, whiplash": {
			steps("passive-stretch", "upper-trapezius"), screened("recent-whiplash"),
			"whiplash",
		},
		"push, loose joints": {
			steps("slow-lowering", "biceps-femoris"), screened("hypermobility"),
			"hypermobility",
		},
		"an emergency": {
			steps("kneading", "upper-calf"), screened("calf-warm-swollen"),
			"No treatment today",
		},
		"firm over a vessel": {steps("longitudinal-strokes", "popliteal"), screened(), "Nothing firm"},
		"strokes at the throat": {
			steps("cross-fibre-strokes", "anterior-neck"), screened(),
			"front and side of the neck",
		},
	} {
		p := sequence.Lay(c.at, ids.Left, nil, c.client)
		assert.Empty(t, p.Steps, name)
		require.Len(t, p.LeftOut, 1, name)
		assert.Equal(t, 1, p.LeftOut[0].Step, name)
		assert.Contains(t, p.LeftOut[0].Reason, c.reason, name)
	}
	// A movement that the client makes alone stays, with its caution.
	p := sequence.Lay(steps("active-movement", "posterior-neck"), ids.Left, nil, screened("unstable-neck"))
	require.Len(t, p.Steps, 1)
	assert.Contains(t, p.Steps[0].Text, "Only as far as the neck goes by itself.")
}

// Firm work waits for 48 hours on the side that was pressed; a closed place takes no hand.
func TestFirmWorkWaits(t *testing.T) {
	s := steps("longitudinal-strokes", "soleus", "kneading", "soleus")
	s.Sides = sequence.Each
	hours := 47.9
	c := screened()
	c.Points = []sequence.Point{{ID: "a", Muscle: "soleus", Side: ids.Left, HoursAgo: &hours}}
	p := sequence.Lay(s, ids.Left, nil, c)
	require.Len(t, p.LeftOut, 1)
	wait := "Pressed 48 hours ago: nothing firm before 48."
	assert.Equal(t, sequence.LeftOutStep{Step: 1, Side: ids.Left, Reason: wait}, p.LeftOut[0])
	hours = 48
	assert.Empty(t, sequence.Lay(s, ids.Left, nil, c).LeftOut)
	c.Points[0].Closed = "Closed for today: a nerve sign."
	p = sequence.Lay(s, ids.Left, nil, c)
	assert.Len(t, p.LeftOut, 2, "nothing at all is pressed there")
}

// Where a position, a contact or a limit is barred, what is allowed is taken instead.
func TestWhatIsAllowedIsTaken(t *testing.T) {
	s := steps("longitudinal-strokes", "soleus", "small-circles", "upper-calf")
	s.Steps[0].Position = "prone"
	p := sequence.Lay(s, ids.Left, nil, screened("pregnancy"))
	for _, l := range p.Steps {
		assert.NotEqual(t, ids.Position("prone"), l.Position)
		assert.NotEmpty(t, l.Position)
	}
	plain := sequence.Lay(s, ids.Left, nil, screened()).Steps[0]
	lower := sequence.Lay(s, ids.Left, nil, screened("hypermobility")).Steps[0]
	assert.Less(t, lower.Seconds, plain.Seconds)
	assert.Contains(t, lower.Text, "Lighter")
	broad := sequence.Lay(s, ids.Left, nil, screened("anticoagulant"))
	for _, l := range broad.Steps {
		if l.Technique == "longitudinal-strokes" {
			assert.True(t, safety.Broad(l.Contact), "%s", l.Contact)
		}
	}
}

// Steps at the charted points are one for each, on its own side.
func TestAStepAtThePointsThatAreCharted(t *testing.T) {
	c := screened()
	c.Points = []sequence.Point{
		{ID: "a", Muscle: "soleus", Side: ids.Right}, {ID: "b", Muscle: "infraspinatus", Side: ids.Left},
	}
	s := steps("flush", "points")
	s.Sides = sequence.Each
	p := sequence.Lay(s, ids.Left, nil, c)
	require.Len(t, p.Steps, 2)
	assert.Equal(t, "soleus", p.Steps[0].Where)
	assert.Equal(t, ids.Right, p.Steps[0].Side)
	assert.Equal(t, "b", p.Steps[1].Point)
}

// In too little time, the least important is shortened first, then dropped; what closes stays longest.
func TestFittedByImportance(t *testing.T) {
	s := steps("kneading", "upper-calf", "kneading", "lower-calf", "light-compressions", "upper-calf")
	s.Steps[0].Importance, s.Steps[1].Importance, s.Steps[2].Importance = 5, 1, 1
	at := func(seconds float64) sequence.LaidOut {
		m := seconds / 60
		return sequence.Lay(s, ids.Left, &m, sequence.Client{})
	}
	whole := at(1000)
	assert.InDelta(t, 60+60+18, whole.Seconds, 1e-9, "never lengthened")
	one := at(100)
	assert.InDelta(t, 60+20+18, one.Seconds, 1e-9, "the unimportant is shortened")
	two := at(50)
	assert.InDelta(t, 20+20+6, two.Seconds, 1e-9, "then all are, the closing last")
	three := at(30)
	assert.Equal(t, []sequence.LeftOutStep{{Step: 2, Reason: "There is no time for it."}}, three.LeftOut)
	four := at(10)
	require.Len(t, four.Steps, 1)
	assert.Equal(t, ids.Technique("light-compressions"), four.Steps[0].Technique)
}

// Whatever is asked, a plan fits its minutes, lengthens nothing and drops both sides together.
func TestAPlanFitsItsMinutes(t *testing.T) {
	all := sequence.Known()
	rapid.Check(t, func(t *rapid.T) {
		s := rapid.SampledFrom(all).Draw(t, "sequence")
		minutes := rapid.Float64Range(0, 25).Draw(t, "minutes")
		c := screened(rapid.SliceOfN(rapid.SampledFrom(ids.Questions()), 0, 2).Draw(t, "answers")...)
		usual := map[string]float64{}
		for _, l := range sequence.Lay(s.For(ids.Left), ids.Left, nil, c).Steps {
			usual[fmt.Sprint(l.Step, l.Side)] = l.Seconds
		}
		p := sequence.Lay(s.For(ids.Left), ids.Left, &minutes, c)
		if p.Seconds > minutes*60+1e-9 {
			t.Fatalf("%v s in %v min", p.Seconds, minutes)
		}
		end := 0.0
		for _, l := range p.Steps {
			if l.Seconds > usual[fmt.Sprint(l.Step, l.Side)]+1e-9 {
				t.Fatalf("step %d is longer than usual", l.Step)
			}
			if l.StartsS < end-1e-9 {
				t.Fatalf("step %d begins before the one before it ends", l.Step)
			}
			end = l.StartsS + l.Seconds
		}
		for _, o := range p.LeftOut {
			for _, l := range p.Steps {
				if o.Reason == "There is no time for it." && l.Step == o.Step {
					t.Fatalf("one side of step %d is left", o.Step)
				}
			}
		}
	})
}

func TestABadSequenceIsRefusedByItsField(t *testing.T) {
	for raw, path := range map[string]string{
		`{"steps":[]}`: "$.steps",
		`{"steps":[{"technique":"juggling","where":"heel"}]}`:                                               "$.steps[0].technique",
		`{"steps":[{"technique":"kneading","where":"moon"}]}`:                                               "$.steps[0].where",
		`{"steps":[{"technique":"kneading","where":"soleus:nowhere"}]}`:                                     "$.steps[0].where",
		`{"steps":[{"technique":"kneading","where":"heel","dose":{"seconds":5}}]}`:                          "$.steps[0].dose.seconds",
		`{"steps":[{"technique":"kneading","where":"heel","dose":{"breaths":5}}]}`:                          "$.steps[0].dose",
		`{"steps":[{"technique":"passive-stretch","where":"soleus","dose":{"repetitions":3,"each_s":90}}]}`: "$.steps[0].dose.each_s",
		`{"steps":[{"technique":"kneading","where":"heel","contact":"elbow"}]}`:                             "$.steps[0].contact",
		`{"steps":[{"technique":"kneading","where":"heel","importance":6}]}`:                                "$.steps[0].importance",
		`{"steps":[{"technique":"kneading","where":"heel"}],"sides":"both"}`:                                "$.sides",
	} {
		var s sequence.Sequence
		err := decode.JSON([]byte(raw), &s)
		var e *decode.Error
		require.ErrorAs(t, err, &e, raw)
		assert.Equal(t, path, e.Path, raw)
	}
	many := `{"steps":[` + `{"technique":"kneading","where":"heel"}`
	for range 9_999 {
		many += `,{"technique":"kneading","where":"heel"}`
	}
	var s sequence.Sequence
	assert.ErrorContains(t, decode.JSON([]byte(many+"]}"), &s), "$.steps")
}

func BenchmarkLayFortySteps(b *testing.B) {
	var s sequence.Sequence
	for i := range 40 {
		t := sequence.Techniques()[i%len(sequence.Techniques())]
		where := []string{"upper-calf", "soleus", "scapula"}[i%3]
		s.Steps = append(s.Steps, sequence.TechniqueStep{Technique: t.ID, Where: where})
	}
	s.Sides = sequence.Each
	minutes := 30.0
	c := screened("hypermobility", "pregnancy")
	for b.Loop() {
		if p := sequence.Lay(s, ids.Left, &minutes, c); math.IsNaN(p.Seconds) {
			b.Fatal(p)
		}
	}
}
