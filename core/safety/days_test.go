package safety_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/ids"
	"mokren/core/safety"
)

// The questions that a review added, with their outcomes (handbook 2).
func TestQuestionsAddedByReview(t *testing.T) {
	for outcome, list := range map[safety.Outcome]string{
		safety.Emergency: "acute-belly-or-testicular-pain pregnancy-warning-signs fever-stiff-neck-headache",
		safety.ReferFirst: "aneurysm kidney-signs heart-failure recent-heart-attack-or-stroke cannot-bear-weight " +
			"fragility-fracture one-leg-swollen",
		safety.AvoidHere: "kidney-disease enlarged-spleen lymphoedema",
		safety.Adapt:     "hip-replacement",
	} {
		for _, id := range ids.List[ids.Question](list) {
			yes := safety.Answer{Question: id, Answer: "yes", Side: ids.Left, Regions: []ids.Region{"heel"}}
			s := safety.Screen([]safety.Answer{yes})
			assert.Equal(t, outcome, s.Outcome, id)
		}
	}
	flank := []safety.Place{{Region: "flank", Side: ids.Left}}
	kidneys := safety.Screen([]safety.Answer{{Question: "kidney-disease", Answer: "yes"}})
	_, blocked := kidneys.Blocks("quadratus-lumborum", flank)
	assert.True(t, blocked)
	l := safety.Screen([]safety.Answer{{Question: "osteoporosis", Answer: "yes"}}).Limits
	ribs := []safety.Place{{Region: "posterior-lower-ribs", Side: ids.Left}}
	assert.NotEmpty(t, l.TooHard(ribs, "elbow"))
	assert.Empty(t, l.TooHard(ribs, "thumb-pad"))
	assert.Empty(t, l.TooHard([]safety.Place{{Region: "upper-calf", Side: ids.Left}}, "elbow"))
}

// What happened, or is due, on a day: absent means the strictest.
func TestDaysOfWhatHappened(t *testing.T) {
	day := func(n float64) *float64 { return &n }
	calf := []safety.Place{{Region: "upper-calf", Side: ids.Right}}
	surgery := func(days *float64, cleared bool) bool {
		_, blocked := safety.Screen([]safety.Answer{{
			Question: "recent-surgery", Answer: "yes", Side: ids.Left, Regions: []ids.Region{"heel"},
			EventDaysAgo: days, Cleared: cleared,
		}}).Blocks("soleus", calf)
		return blocked
	}
	assert.True(t, surgery(nil, true), "no day was said")
	assert.True(t, surgery(day(84), true), "clots are a danger for twelve weeks, cleared or not")
	assert.False(t, surgery(day(85), true))
	injected := func(days *float64) bool {
		return len(safety.Screen([]safety.Answer{{
			Question: "recent-injection", Answer: "yes", Regions: []ids.Region{"heel"}, EventDaysAgo: days,
		}}).Rules) > 0
	}
	assert.True(t, injected(nil))
	assert.True(t, injected(day(7)))
	assert.False(t, injected(day(8)))
	lying := func(weeks *float64) []ids.Position {
		return safety.Screen([]safety.Answer{{Question: "pregnancy", Answer: "yes", WeeksPregnant: weeks}}).
			Limits.AvoidPositions
	}
	assert.Equal(t, []ids.Position{"prone", "supine"}, lying(nil))
	assert.Empty(t, lying(day(13)))
	assert.Equal(t, []ids.Position{"prone"}, lying(day(19.9)))
	assert.Equal(t, []ids.Position{"prone", "supine"}, lying(day(20)))
	tear := safety.Answer{Question: "acute-muscle-tear", Answer: "yes", Regions: []ids.Region{"heel"}, Cleared: true}
	for days, lifted := range map[float64]bool{0: false, 2.9: false, 3: true} {
		tear.DaysAgo = days
		assert.Equal(t, lifted, len(safety.Screen([]safety.Answer{tear}).Rules) == 0, "%v days", days)
	}
}
