package assess_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/assess"
)

// What was found is set against what was said, band by band; a band that says
// too much or too little is named only where chance does not explain it.
func TestTheListIsHeldToItsWord(t *testing.T) {
	c := assess.Calibrate([]assess.SearchTally{
		{Region: "leg-and-foot", Confidence: 0.95, Found: 19, InVain: 1},
		{Region: "leg-and-foot", Confidence: 0.85, Found: 8, InVain: 12},
		{Region: "trunk", Confidence: 0.55, Found: 18, InVain: 2},
		{Region: "trunk", Confidence: 0.65, Found: 1, InVain: 3},
		{Region: "trunk", Confidence: 0.3, Found: 0, InVain: 50},
		{Region: "trunk", Confidence: 1, Found: 1},
	}, nil)
	require.Len(t, c.Bands, 5)
	var verdicts []string
	for _, b := range c.Bands {
		verdicts = append(verdicts, b.Verdict)
	}
	assert.Equal(t, []string{"more-than-said", "none", "none", "less-than-said", "none"}, verdicts)
	assert.True(t, c.Bands[1].Found.Few)
	assert.Zero(t, c.Bands[2].Found.Of)
	assert.Equal(t, 21, c.Bands[4].Found.Of, "1.00 is of the last band")
	require.Len(t, c.Regions, 2)
	assert.Equal(t, 40, c.Regions[0].Found.Of)
	assert.Equal(t, 25, c.Regions[1].Found.Of, "what is below the bands is not of them")
	assert.Empty(t, c.Proposals)
}

// A finding's weight is questioned from twenty searches on, when its interval
// leaves out what was said; at most by half or double, within a ratio's bounds.
func TestAProposalHasItsCountsAndItsBounds(t *testing.T) {
	at := func(found, inVain int, w assess.Weights) []assess.Proposal {
		return assess.Calibrate([]assess.SearchTally{{
			Region: "trunk", Confidence: 0.8, Findings: []string{"load"}, Found: found, InVain: inVain,
		}}, w).Proposals
	}
	assert.Empty(t, at(4, 15, nil), "19 are not enough")
	assert.Empty(t, at(16, 4, nil), "it keeps its word")
	less := at(4, 16, assess.Weights{"load": {Plus: 3, Minus: 1}})
	require.Len(t, less, 1)
	assert.InDelta(t, 1.5, less[0].Proposed.Plus, 1e-9, "half at most")
	assert.Equal(t, 20, less[0].Found.Of)
	assert.Contains(t, less[0].Text, "fewer")
	more := at(60, 0, assess.Weights{"load": {Plus: 40, Minus: 1}})
	require.Len(t, more, 1)
	assert.InDelta(t, 50, more[0].Proposed.Plus, 1e-9, "within the bounds")
	assert.Empty(t, at(4, 16, assess.Weights{"load": {Plus: 1, Minus: 1}}), "a ratio of 1 cannot weigh less")
}

func TestKindsOfFindings(t *testing.T) {
	for finding, kind := range map[string]string{
		"referral": "referral", "test:ober-type:left": "length-test",
		"test:resisted:knee.flexion:left": "contraction", "sign:squat-knees-in:left": "squat",
		"load:running": "load", "earlier-point": "earlier-point",
	} {
		assert.Equal(t, kind, assess.KindOf(finding), finding)
	}
}
