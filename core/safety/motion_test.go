package safety_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/ids"
	"mokren/core/safety"
)

// What answers say of joints (handbook: screening reaches tests, stretches and
// sequences as well as holds).
func TestMotionsAndTheScreening(t *testing.T) {
	m := func(way safety.Way, movements string) safety.Motion {
		return safety.Motion{Way: way, Movements: ids.List[ids.Movement](movements)}
	}
	const on, end, alone, apart = safety.Resisted, safety.Stretched, safety.Active, safety.Drawn
	for _, c := range []struct {
		question ids.Question
		motion   safety.Motion
		muscle   ids.Muscle
		regions  []ids.Region
		forbids  string
		caution  string
	}{
		{question: "unstable-neck", motion: m(on, "cervical.flexion"), forbids: "Nothing by hand"},
		{question: "recent-whiplash", motion: m(apart, "cervical.extension"), forbids: "No push, stretch or pull"},
		{question: "recent-whiplash", motion: m(alone, "cervical.flexion"), caution: "Slowly, and not into pain."},
		{question: "recent-whiplash", motion: m(end, "hip.flexion")},
		{question: "osteoporosis", motion: m(apart, "cervical.extension"), forbids: "No pull at the head"},
		{question: "osteoporosis", motion: m(end, "knee.flexion lumbar.flexion"), forbids: "Thin bones"},
		{question: "osteoporosis", motion: m(on, "cervical.flexion"), caution: "Lightly and without jerks"},
		{question: "dizziness", motion: m(end, "cervical.rotation"), forbids: "With dizziness"},
		{question: "dizziness", motion: m(end, "cervical.lateral-flexion"), caution: "stop at the first"},
		{question: "hip-replacement", motion: m(end, "hip.internal-rotation"), forbids: "Replaced hip"},
		{question: "hip-replacement", motion: m(alone, "hip.flexion"), caution: "Hip below 90 degrees"},
		{question: "hip-replacement", motion: m(end, "knee.flexion")},
		{question: "stiff-shoulder-painful", motion: m(end, "shoulder.abduction"), forbids: "No forced range"},
		{question: "hypermobility", motion: m(end, "elbow.extension"), caution: "Not to the end of the range."},
		{question: "hernia", motion: m(on, "trunk.rotation"), forbids: "No push of the belly wall"},
		{
			question: "acute-muscle-tear", regions: []ids.Region{"upper-calf"}, muscle: "soleus",
			motion: m(end, "ankle.dorsiflexion-knee-bent"), forbids: "Neither pulled nor pushed: not here",
		},
		{
			question: "open-skin", regions: []ids.Region{"upper-calf"}, muscle: "soleus",
			motion: m(end, "ankle.dorsiflexion-knee-bent"),
		},
		{question: "fever", motion: m(alone, "knee.flexion"), forbids: "Possible infection."},
	} {
		s := safety.Screen([]safety.Answer{{Question: c.question, Answer: "yes", Regions: c.regions, Side: "left"}})
		no, say := s.Moves(c.motion, c.muscle, []safety.Place{{Region: "upper-calf", Side: "left"}})
		if c.forbids == "" {
			assert.Empty(t, no, "%s %v", c.question, c.motion)
		} else {
			assert.Contains(t, no, c.forbids, "%s %v", c.question, c.motion)
		}
		if c.caution == "" {
			assert.Empty(t, say, "%s %v", c.question, c.motion)
		} else if assert.Len(t, say, 1, "%s %v", c.question, c.motion) {
			assert.Contains(t, say[0], c.caution)
		}
		other := safety.Screen([]safety.Answer{{Question: c.question, Answer: "no"}})
		no, say = other.Moves(c.motion, c.muscle, nil)
		assert.Empty(t, no)
		assert.Empty(t, say)
	}
}
