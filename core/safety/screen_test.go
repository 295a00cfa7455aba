package safety

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/ids"
)

func allNo() []Answer {
	var out []Answer
	for _, q := range questions {
		out = append(out, Answer{Question: q.ID, Answer: "no"})
	}
	return out
}

func with(a Answer) []Answer {
	var out []Answer
	for _, x := range allNo() {
		if x.Question == a.Question {
			x = a
		}
		out = append(out, x)
	}
	return out
}

func TestEveryQuestionOfTheVocabularyIsAsked(t *testing.T) {
	seen := map[ids.Question]bool{}
	for _, q := range questions {
		assert.Nil(t, q.ID.Check(), "%s", q.ID)
		assert.False(t, seen[q.ID], "%s twice", q.ID)
		seen[q.ID] = true
		assert.NotEmpty(t, q.Ask)
		for _, r := range q.Regions {
			assert.Nil(t, r.Check())
		}
		for _, m := range q.Muscles {
			assert.Nil(t, m.Check())
		}
	}
	for _, id := range ids.Questions() {
		assert.True(t, seen[id], "%s is not asked", id)
	}
}

func TestClearAndMissing(t *testing.T) {
	s := Screen(allNo())
	assert.Equal(t, Clear, s.Outcome)
	assert.Empty(t, s.Missing)
	assert.False(t, s.NoTreatment)
	s = Screen(nil)
	assert.Len(t, s.Missing, len(questions), "a question not asked is missing")
	assert.NotEmpty(t, s.Grave())
	for _, q := range s.Grave() {
		assert.NotContains(t, []ids.Question{"anticoagulant", "open-skin"}, q)
	}
}

// By rule: yes has the question's outcome; unknown is refer-first where it
// might be grave, and counts as yes elsewhere; neither is ever clear.
func TestYesAndUnknownForEveryQuestion(t *testing.T) {
	for _, q := range questions {
		yes := Screen(with(Answer{Question: q.ID, Answer: "yes", Side: ids.Left, Regions: []ids.Region{"heel"}}))
		assert.Equal(t, q.Outcome, yes.Outcome, "%s", q.ID)
		assert.NotEmpty(t, yes.Rules[0].Text)
		unknown := Screen(with(Answer{Question: q.ID, Answer: "unknown"}))
		want := q.Outcome
		if want == Emergency {
			want = ReferFirst
		}
		assert.Equal(t, want, unknown.Outcome, "%s", q.ID)
		assert.Equal(t, yes.Limits, unknown.Limits)
	}
}

func TestAWarmSwollenCalfStopsAllAndBlocksTheLegUntilCleared(t *testing.T) {
	calf := Answer{Question: "calf-warm-swollen", Answer: "yes", Side: ids.Left}
	s := Screen(with(calf))
	assert.Equal(t, ReferFirst, s.Outcome)
	assert.True(t, s.NoTreatment)
	_, blocked := s.Blocks("upper-trapezius", []Place{{Region: "top-of-shoulder", Side: ids.Right}})
	assert.True(t, blocked, "no treatment at all")
	assert.Contains(t, s.Blocked, Place{Region: "upper-calf", Side: ids.Left})
	assert.NotContains(t, s.Blocked, Place{Region: "upper-calf", Side: ids.Right})
	calf.DaysAgo = 20
	assert.True(t, Screen([]Answer{calf}).NoTreatment, "it does not wear off")
	calf.Cleared = true
	assert.False(t, Screen(with(calf)).NoTreatment)
}

func TestLimitsCombineToTheStrictest(t *testing.T) {
	s := Screen([]Answer{
		{Question: "anticoagulant", Answer: "yes"},
		{Question: "first-visit", Answer: "yes"},
		{Question: "high-blood-pressure", Answer: "yes"},
		{Question: "pregnancy", Answer: "yes"},
	})
	require.NotNil(t, s.Limits.Ceiling)
	assert.InDelta(t, 3, *s.Limits.Ceiling, 0)
	assert.InDelta(t, 1, s.Limits.Down, 0)
	assert.InDelta(t, 60, *s.Limits.CapSeconds, 0)
	assert.ElementsMatch(t, []ids.Position{"prone", "supine"}, s.Limits.AvoidPositions)
	assert.Equal(t, Limits{3, 3, 5, 60_000}, s.Limits.On(Limits{6, 7, 8, 90_000}))
	assert.Equal(t, Limits{5, 6, 7, 90_000}, Adaptation{Down: 1}.On(Limits{6, 7, 8, 90_000}))
	why, blocked := s.Blocks("psoas-major", nil)
	assert.True(t, blocked)
	assert.Contains(t, why, "no deep abdomen")
	_, blocked = s.Blocks("deltoid-middle", []Place{{Region: "lateral-shoulder", Side: ids.Left}})
	assert.False(t, blocked)
}

func TestAnswersAge(t *testing.T) {
	at := func(q ids.Question, days float64) bool {
		s := Screen([]Answer{{Question: q, Answer: "no", DaysAgo: days}})
		for _, m := range s.Missing {
			if m == q {
				return true
			}
		}
		return false
	}
	assert.False(t, at("cancer-history", 90))
	assert.True(t, at("cancer-history", 90.5), "older than 90 days")
	assert.False(t, at("fever", 0.5))
	assert.True(t, at("fever", 1), "asked at every visit")
	s := Screen([]Answer{{Question: "anticoagulant", Answer: "yes", DaysAgo: 200}})
	assert.Equal(t, Adapt, s.Outcome, "an aged yes still counts")
}

func TestAvoidHere(t *testing.T) {
	s := Screen(with(Answer{Question: "open-skin", Answer: "yes", Side: ids.Right, Regions: []ids.Region{"shin"}}))
	assert.Equal(t, AvoidHere, s.Outcome)
	_, blocked := s.Blocks("tibialis-anterior", []Place{{Region: "shin", Side: ids.Right}})
	assert.True(t, blocked)
	_, blocked = s.Blocks("tibialis-anterior", []Place{{Region: "shin", Side: ids.Left}})
	assert.False(t, blocked, "the other side")
	s = Screen(with(Answer{Question: "open-skin", Answer: "yes"}))
	assert.True(t, s.NoTreatment, "nobody said where")
	s = Screen(with(Answer{Question: "unstable-neck", Answer: "yes"}))
	_, blocked = s.Blocks("levator-scapulae", []Place{{Region: "neck-angle", Side: ids.Left}})
	assert.True(t, blocked)
}

// More answers never make it milder, and never loosen a limit.
func TestNothingIsLoosenedByAnotherYes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pick := func(name string) []Answer {
			var out []Answer
			for _, i := range rapid.SliceOfNDistinct(rapid.IntRange(0, len(questions)-1), 0, 6, rapid.ID).Draw(t,
				name) {
				out = append(out, Answer{
					Question: questions[i].ID,
					Answer:   rapid.SampledFrom([]string{"yes", "unknown"}).Draw(t, "answer"),
					Regions:  []ids.Region{"heel"},
				})
			}
			return out
		}
		a, b := pick("a"), pick("b")
		one, both := Screen(a), Screen(append(append([]Answer{}, a...), b...))
		assert.False(t, one.Outcome.Worse(both.Outcome))
		l := Limits{6, 7, 8, 90_000}
		assert.True(t, both.Limits.On(l).Within(one.Limits.On(l)))
		if one.NoTreatment {
			assert.True(t, both.NoTreatment)
		}
	})
}
