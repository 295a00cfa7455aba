package assess

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/safety"
)

// A whiplash and thin bones: the neck's next best test was a push of the neck.
func TestNoTestThatTheAnswersForbid(t *testing.T) {
	f := vignette(t, "levator-scapulae")
	f.Tests = nil
	free := Rank(f, nil)
	assert.Empty(t, free.Today, "nothing was answered")
	neck := func(n NextTest) bool { return strings.HasPrefix(asksOf(n.Test).movements, "cervical.") }
	require.True(t, slices.ContainsFunc(free.Next, neck), "%v", free.Next)

	f.Screening = []safety.Answer{
		{Question: "recent-whiplash", Answer: "yes"},
		{Question: "osteoporosis", Answer: "yes"},
	}
	held := Rank(f, nil)
	assert.False(t, slices.ContainsFunc(held.Next, neck), "%v", held.Next)
	require.NotEmpty(t, held.Next, "another one is offered")
	word := wordOn(held.Today, "resisted:cervical.flexion", ids.Left)
	assert.Contains(t, word.Forbidden, "whiplash")
	word = wordOn(held.Today, "resisted:shoulder.abduction", ids.Left)
	assert.Empty(t, word.Forbidden)
	assert.Equal(t, []string{"Lightly and without jerks: thin bones."}, word.Cautions)
	for _, n := range held.Next {
		assert.Equal(t, wordOn(held.Today, n.Test, n.Side).Cautions, n.Cautions)
	}
}

func TestMovementsToday(t *testing.T) {
	assert.Empty(t, MovementsToday(safety.Screen(nil)))
	said := MovementsToday(safety.Screen([]safety.Answer{{Question: "recent-whiplash", Answer: "yes"}}))
	require.NotEmpty(t, said)
	for _, m := range said {
		assert.Contains(t, m.Movement, "cervical.")
		assert.Equal(t, []string{"Slowly, and not into pain."}, m.Cautions)
	}
}

func TestTestsToday(t *testing.T) {
	m := newModel(nil)
	at := func(q ids.Question, region ids.Region) safety.Answer {
		return safety.Answer{Question: q, Regions: []ids.Region{region}, Side: "left"}
	}
	skin, tear := at("open-skin", "anterior-shoulder"), at("acute-muscle-tear", "upper-calf")
	for _, c := range []struct {
		answer safety.Answer
		test   ids.Test
		side   ids.Side
		why    string
	}{
		{safety.Answer{Question: "hip-replacement"}, "thomas-type", ids.Right, "Replaced hip"},
		{safety.Answer{Question: "hip-replacement"}, "ober-type", ids.Left, "Replaced hip"},
		{safety.Answer{Question: "pregnancy"}, "straight-leg-raise", ids.Left, "Not supine today."},
		{skin, "coracoid-tender", ids.Left, "Not on or near it."},
		{skin, "coracoid-tender", ids.Right, ""},
		{tear, "calf-length-knee-straight", ids.Left, "Neither pulled nor pushed"},
		{tear, "calf-length-knee-straight", ids.Right, ""},
		{safety.Answer{Question: "stiff-shoulder-painful"}, "painful-arc", ids.Left, ""},
		{safety.Answer{Question: "stiff-shoulder-painful"}, "pectoral-length", ids.Left, "No forced range"},
		{safety.Answer{Question: "unstable-neck"}, "first-rib-rise", ids.Left, "No work on the neck."},
	} {
		c.answer.Answer = "yes"
		got := m.today(c.test, c.side, safety.Screen([]safety.Answer{c.answer}))
		if c.why == "" {
			assert.Empty(t, got.Forbidden, "%s %s %s", c.answer.Question, c.test, c.side)
			continue
		}
		assert.Contains(t, got.Forbidden, c.why, "%s %s %s", c.answer.Question, c.test, c.side)
	}
}

// Every test says what it asks of joints, or where it presses.
func TestEveryTestCanBeScreened(t *testing.T) {
	for _, id := range ids.Tests() {
		a := asksOf(id)
		assert.True(t, a.movements != "" || a.presses != "", "%s", id)
		for _, mv := range a.motion().Movements {
			assert.Nil(t, mv.Check(), "%s", id)
		}
	}
}
