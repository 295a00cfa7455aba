package treat_test

import (
	"encoding/json"
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

// A hold that nobody attends stops at its last sign of life, 120 s past its cap without
// a key; a key starts the wait anew, and the rules of before ran on.
func TestAHoldThatNobodyAttends(t *testing.T) {
	apply := func(c *treat.Coach, at int64, event string, value json.RawMessage) treat.Line {
		e, err := treat.ParseEvent(at, event, value, 10)
		require.NoError(t, err)
		return c.Apply(e)
	}
	begun := func(rules string) *treat.Coach {
		c := coachOf(t, rules)
		apply(c, 0, "contact", nil)
		apply(c, 3000, "score", json.RawMessage(`6`))
		apply(c, 23_000, "score", json.RawMessage(`5`))
		return c
	}
	c := begun(treat.RulesVersion)
	capMS := c.Start().Limits.CapMS
	before := c.At(capMS + 119_999)
	assert.InDelta(t, 119.999, before.OverrunS, 1e-9)
	at, due := c.Due(capMS + 1)
	assert.True(t, due)
	assert.Equal(t, capMS+120_000, at)
	after := c.At(capMS + 120_000)
	assert.Equal(t, treat.PhasePaused, after.Phase)
	assert.InDelta(t, 23, after.PressureS, 1e-9)
	assert.Zero(t, after.OverrunS)
	// A contact goes on; what was pressed before counts, what nobody attended does not.
	on := apply(c, 1_800_000, "contact", nil)
	assert.InDelta(t, 23, on.PressureS, 1e-9)
	assert.InDelta(t, 33, c.At(1_810_000).PressureS, 1e-9)

	c = begun(treat.RulesVersion)
	apply(c, capMS+100_000, "score", json.RawMessage(`5`))
	assert.NotEqual(t, treat.PhasePaused, c.At(capMS+200_000).Phase, "a key is a sign of life")
	assert.InDelta(t, 100, c.At(capMS+220_000).OverrunS, 1e-9)

	assert.InDelta(t, 1800-float64(capMS)/1000, begun("2027-01").At(1_800_000).OverrunS, 1e-9)
}

// With less of the cap left than a first question takes, the hand does not come on again;
// with just enough it does, and the rules of before began whatever was left.
func TestNoPressBeginsJustBeforeTheCap(t *testing.T) {
	flushed := func(rules string, pressed int64) treat.Line {
		capMS := int64(60_000)
		start, err := treat.NewStart(treat.Request{Protocol: "brief-holds", CapMS: &capMS})
		require.NoError(t, err)
		start.Rules = rules
		c, err := treat.Replayer(start)
		require.NoError(t, err)
		at := int64(0)
		apply := func(after int64, k treat.Kind, score float64) treat.Line {
			at += after
			return c.Apply(treat.Event{At: at, Kind: k, Score: score})
		}
		for _, s := range []int64{28_000, pressed - 28_000} {
			apply(20_000, treat.KindContact, 0)
			apply(3000, treat.KindScore, 7)
			apply(s-4000, treat.KindScore, 2)
			apply(1000, treat.KindRelease, 0)
		}
		require.InDelta(t, float64(pressed)/1000, c.At(at).PressureS, 1e-9)
		return c.At(at + 20_000)
	}
	assert.Equal(t, treat.PhaseReady, flushed(treat.RulesVersion, 55_000).Phase, "5 s are enough")
	assert.Equal(t, treat.PhaseDone, flushed(treat.RulesVersion, 55_001).Phase)
	assert.Equal(t, treat.PhaseReady, flushed("2027-02", 58_000).Phase)
}
