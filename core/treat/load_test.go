package treat_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/treat"
)

func TestHandLoad(t *testing.T) {
	l, err := treat.LoadOf([]treat.HandUse{
		{"thumb-pad", 1200, 9},
		{"elbow", 4000, 10},
		{"thumb-pad", 600.06, 10},
		{"own-thigh", 5000, 11},
		{"knuckle", 120, 4},
		{"knuckle", 120, 5},
	})
	require.NoError(t, err)
	assert.Equal(t, []treat.DayLoad{
		{4, 1, false}, {5, 1, false}, {9, 20, false}, {10, 20.001, true}, {11, 0, false},
	}, l.Days, "20 minutes are the limit, more is over")
	assert.InDelta(t, 41.001, l.Week, 1e-9, "seven days to the last: the fifth to the eleventh")

	_, err = treat.LoadOf([]treat.HandUse{{"thumb", 1, 1}})
	assert.ErrorContains(t, err, "$.holds[0].contact")
	for _, c := range ids.Contacts() {
		_, err := treat.LoadOf([]treat.HandUse{{c, 1, 1}})
		assert.NoError(t, err, "every contact has its strain: %s", c)
	}
}

// A hold that would bring the hand over its day is told, with the contact that spares it
// most; at the limit itself nothing is said.
func TestAHoldThatStrainsTheHand(t *testing.T) {
	done := []treat.HandUse{{"thumb-pad", 18 * 60, 10}, {"thumb-pad", 3600, 9}}
	suit := []ids.Contact{"thumb-pad", "knuckle", "elbow"}
	at, err := treat.Spare(done, treat.HandUse{Contact: "thumb-pad", Seconds: 120, Day: 10}, suit)
	require.NoError(t, err)
	assert.Equal(t, treat.Sparing{After: 20, Limit: 20}, at)
	over, err := treat.Spare(done, treat.HandUse{Contact: "thumb-pad", Seconds: 121, Day: 10}, suit)
	require.NoError(t, err)
	assert.True(t, over.Over)
	assert.Equal(t, ids.Contact("elbow"), over.Instead)
	none, err := treat.Spare(done, treat.HandUse{Contact: "elbow", Seconds: 3600, Day: 10}, suit)
	require.NoError(t, err)
	assert.True(t, none.Over)
	assert.Empty(t, none.Instead, "nothing spares it more")
	_, err = treat.Spare(done, treat.HandUse{Contact: "thumb", Day: 10}, suit)
	assert.ErrorContains(t, err, "contact")
}
