package note_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/note"
	"mokren/core/safety"
	"mokren/core/treat"
)

func TestALetterTellsWhatTheNoteDoesInShort(t *testing.T) {
	v := aVisit()
	v.State.Screening.Rules = []safety.AppliedRule{
		{
			ID: "unexplained-weight-loss", Outcome: safety.ReferFirst,
			Text: "Weight lost without a reason: to a doctor first.",
		},
		{ID: "anticoagulant", Outcome: safety.Adapt, Text: "Slack or broad contact only."},
	}
	l := note.Letter(v)
	assert.Equal(t, []string{"Weight lost without a reason: to a doctor first."}, l.Why, "adapting is no reason")
	for _, part := range []string{
		"Dear colleague", "Reason for referral: Weight lost without a reason", "Pain, 0–10: now 6, best 0.",
		"Screening, answered yes: anticoagulant; since May.", "Ankle dorsiflexion knee bent, left: 9°",
		"Soleus, left: active trigger point", "Pressed: Soleus, left, released, 6 → 3.5.",
	} {
		assert.Contains(t, l.Text, part)
	}
}

func TestASignThatClosedAPlaceIsAReasonToRefer(t *testing.T) {
	v := aVisit()
	v.State.Holds[0].Summary.SiteClosed = true
	assert.Equal(t, []string{"Pulse under pressure at Soleus, left"}, note.Letter(v).Why)
	v.State.Holds[0].Summary.Outcome = treat.Stopped
	assert.Contains(t, note.Letter(v).Text, "Pressed: Soleus, left, stopped.")
	v.State.Holds = nil
	assert.Contains(t, note.Letter(v).Text, "Nothing was pressed.")
	assert.Empty(t, note.Letter(v).Why)
}
