package treat_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/treat"
)

func coachOf(t *testing.T, rules string) *treat.Coach {
	t.Helper()
	start, err := treat.NewStart(treat.Request{Protocol: "graded-stages"})
	require.NoError(t, err)
	start.Rules = rules
	c, err := treat.Replayer(start)
	require.NoError(t, err)
	return c
}

// A fall of 4 within exactly 5.000 s asks before it is believed, at whatever
// moment it began; the first rules missed it at some, and still do.
func TestASuddenFallIsSeenAtEveryMoment(t *testing.T) {
	missed := map[string]int{}
	for _, rules := range []string{"2026-11", treat.RulesVersion} {
		for from := int64(1000); from < 20_000; from++ {
			c := coachOf(t, rules)
			c.Apply(treat.Event{At: 0, Kind: treat.KindContact})
			c.Apply(treat.Event{At: from, Kind: treat.KindScore, Score: 7})
			if c.Apply(treat.Event{At: from + 5000, Kind: treat.KindScore, Score: 3}).Phase != treat.PhaseCheck {
				missed[rules]++
			}
		}
	}
	assert.Equal(t, map[string]int{"2026-11": 2360}, missed)
	c := coachOf(t, treat.RulesVersion)
	c.Apply(treat.Event{At: 0, Kind: treat.KindContact})
	c.Apply(treat.Event{At: 1000, Kind: treat.KindScore, Score: 7})
	assert.Equal(t, treat.PhaseStage, c.Apply(treat.Event{At: 6001, Kind: treat.KindScore, Score: 3}).Phase, "5.001 s")
}

// A nerve sign in the flush takes the return away, and the line says so.
func TestANerveSignInTheFlushCancelsTheReturn(t *testing.T) {
	c := coachOf(t, treat.RulesVersion)
	for _, e := range []treat.Event{
		{At: 0, Kind: treat.KindContact},
		{At: 2000, Kind: treat.KindScore, Score: 6},
		{At: 20_000, Kind: treat.KindScore, Score: 6},
		{At: 34_000, Kind: treat.KindRelease},
	} {
		c.Apply(e)
	}
	l := c.Apply(treat.Event{At: 37_000, Kind: treat.KindNerveSign})
	assert.False(t, l.Ignored)
	assert.Equal(t, []treat.Advice{treat.MoveOff, treat.Flush}, l.Advice)
	assert.Contains(t, l.Reason, "the return is off")
	assert.Equal(t, treat.PhaseDone, c.At(60_000).Phase)
	assert.False(t, c.Summary().Returned)
}

// Undo takes back the last event of its own source, and never a stop.
func TestUndoIsOfItsOwnSource(t *testing.T) {
	c := coachOf(t, treat.RulesVersion)
	c.Apply(treat.Event{At: 0, Kind: treat.KindContact, Source: "tablet"})
	c.Apply(treat.Event{At: 2000, Kind: treat.KindScore, Score: 6, Source: "pad"})
	c.Apply(treat.Event{At: 3000, Kind: treat.KindTwitch, Source: "tablet"})
	c.Apply(treat.Event{At: 4000, Kind: treat.KindUndo, Source: "pad"})
	s := c.Summary()
	assert.True(t, s.Twitch, "the tablet's stays")
	assert.Empty(t, s.Trace, "the pad's own is gone")
	c.Apply(treat.Event{At: 5000, Kind: treat.KindClientStop, Source: "tablet"})
	l := c.Apply(treat.Event{At: 6000, Kind: treat.KindUndo, Source: "tablet"})
	assert.True(t, l.Ignored)
	assert.Equal(t, treat.PhaseStopped, l.Phase)
}

// Signs count after a stop too.
func TestSignsCountAfterAStop(t *testing.T) {
	c := coachOf(t, treat.RulesVersion)
	c.Apply(treat.Event{At: 0, Kind: treat.KindContact})
	c.Apply(treat.Event{At: 1000, Kind: treat.KindNerveSign})
	c.Apply(treat.Event{At: 2000, Kind: treat.KindClientStop})
	assert.False(t, c.Summary().SiteClosed)
	c.Apply(treat.Event{At: 3000, Kind: treat.KindNerveSign})
	assert.True(t, c.Summary().SiteClosed)
}

func TestRulesThatAreNotKnownAreNotReplayed(t *testing.T) {
	_, err := treat.Replayer(treat.Start{Protocol: "graded-stages", Rules: "1999-01"})
	assert.ErrorContains(t, err, "$.rules_version")
}
