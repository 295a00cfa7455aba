package bench_test

import (
	"encoding/json"
	"fmt"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/bench"
	"mokren/core/ids"
	"mokren/core/treat"
)

// follower presses as the coach says, a second at a time: it asks when a number is wanted, does less
// when it is told to, and comes back when it may.
type follower struct {
	t      *testing.T
	live   *bench.Live
	force  float64
	ceil   float64 // it does not press harder than that
	asks   int     // every so many seconds at the least
	grade  float64 // as it was charted before the hold: it says where the number is to be looked for
	deaf   bool    // it does not do what it is told
	number float64
}

func (f *follower) act(s int, more string, a ...any) {
	f.t.Helper()
	line := fmt.Sprintf(`{"t":%d,`, s) + fmt.Sprintf(more, a...) + `}`
	require.NoError(f.t, f.live.Act(actions(f.t, line)[0]), line)
}

func (f *follower) press(s int, newtons float64) {
	f.force = max(0, newtons)
	f.act(s, `"action":"press","force_n":%g`, f.force)
}

// hears gives the last number that the client said.
func (f *follower) hears() {
	told := f.live.Told(0)
	for _, x := range slices.Backward(told) {
		if _, err := fmt.Sscan(x.Says, &f.number); err == nil {
			return
		}
	}
}

// off are advices at which a hand comes off.
var off = []treat.Advice{
	treat.ReleaseSlowly, treat.MoveOff, treat.Stop, treat.Done, treat.Flush, treat.Rest, treat.TraceBack,
}

// toward is the next force on the way to where the number is looked for, and a newton more behind it.
func (f *follower) toward(aim float64) float64 {
	if f.force < aim {
		return min(aim, f.force+2)
	}
	return min(f.ceil, f.force+1)
}

// stay are advices at which a hand does not go deeper.
var stay = []treat.Advice{treat.Hold, treat.MoreSlack, treat.AskTrend, treat.AskStillOn, treat.ChangeAngle}

// until it is over, at most so many seconds.
func (f *follower) until(most int) (treat.Summary, bench.ExerciseOut) {
	asked, offFor := 0, 0
	s := 1
	for ; s < most && offFor < 60; s++ {
		f.live.Look(int64(s) * 1000)
		line, sum, ok := f.live.Coach()
		require.True(f.t, ok)
		offFor++
		// Where the number is about to be what is aimed at: this case gives it in proportion.
		aim := min(f.ceil, 8+6*sum.Limits.Target/f.grade)
		said := append(line.Advice, "")[0]
		switch {
		case f.deaf:
			f.press(s, min(f.ceil, f.force+20))
			offFor = 0
		case slices.Contains(off, said):
			if f.force > 0 {
				f.press(s, f.force-4)
			}
			f.number = 0
			continue
		case f.number > sum.Limits.Soft && !slices.Contains(stay, said) || said == treat.EaseOff:
			f.press(s, f.force-2)
			offFor = 0
		case f.number < sum.Limits.Target-1 && f.force < f.ceil && !slices.Contains(stay, said):
			f.press(s, f.toward(aim))
			offFor = 0
		default:
			offFor = 0
		}
		// Below the first resistance nothing hurts: there is nothing to ask.
		asks := f.asks
		if slices.Contains(stay, said) && !slices.Contains(line.Advice, treat.AskScore) {
			asks = 15
		}
		if (f.force >= aim || f.number > 0) && s-asked >= asks {
			f.act(s, `"action":"ask"`)
			asked = s
			f.hears()
		}
	}
	_, sum, _ := f.live.Coach()
	f.act(s, `"action":"finish"`)
	return sum, f.live.Out()
}

// steered is a case's own protocol, or, where that is done by moving and by counting, one that the
// client's number steers.
func steered(p ids.Protocol) ids.Protocol {
	if slices.Contains([]ids.Protocol{"graded-stages", "hold-to-release", "slack-hold"}, p) {
		return p
	}
	return "hold-to-release"
}

// following opens a case's own hold and follows its coach.
func following(t *testing.T, name json.RawMessage, protocol ids.Protocol, grade int) (treat.Summary,
	bench.ExerciseOut,
) {
	live, err := bench.Open(bench.ExerciseIn{Case: name, Seed: 1, Exercise: "grading", Protocol: protocol})
	require.NoError(t, err)
	f := &follower{t: t, live: live, ceil: 30, asks: 2, grade: float64(grade)}
	return f.until(1500)
}

// unsafe are marks that a hand which follows the coach never gets.
var unsafe = []string{"over-hard-ceiling", "guarding", "sudden-release", "advice-not-followed", "sign-missed"}

// Whoever follows the coach ends each generated case well: what may be treated lets go or is less,
// without a mark of safety.
func TestWhoeverFollowsTheCoachEndsWell(t *testing.T) {
	n := int64(200)
	if os.Getenv("MOKREN_LONG") != "" {
		n = 10_000
	}
	ends := map[string]int{}
	for seed := range n {
		level := int(seed%3) + 1
		c := bench.Generate(seed, level)
		if c.Best != "treat" {
			continue
		}
		protocol := steered(c.Protocol)
		r := rank(c, seed)
		assert.True(t, r >= 1 && r <= 3, "seed %d: the engine has it at %d", seed, r)
		sum, out := following(t, json.RawMessage(fmt.Sprintf(`{"seed":%d,"level":%d}`, seed, level)), protocol, c.Truth.Points[0].Tenderness)
		ends[string(protocol)+" "+c.Truth.Points[0].Response+" "+string(sum.Outcome)]++
		assert.Contains(t, []treat.Outcome{treat.Released, treat.Reduced}, sum.Outcome, "seed %d %s %s t%d", seed,
			protocol,
			c.Truth.Points[0].Response, c.Truth.Points[0].Tenderness)
		for _, m := range out.Marks {
			assert.NotContains(t, unsafe, m.Rule, "seed %d at %g: %s", seed, m.T, m.Text)
		}
	}
	t.Log(ends)
}

// Where the source lies elsewhere nothing falls, and the coach says to trace it back.
func TestAStubbornPointIsTracedBack(t *testing.T) {
	sum, _ := following(t, chosen("does-not-give"), "hold-to-release", 3)
	assert.True(t, sum.TraceBack)
	assert.Equal(t, treat.Unchanged, sum.Outcome)
}

// Whoever leaves untreated what is not to be pressed scores full, whoever presses is told so.
func TestOthersAreLeftUntreated(t *testing.T) {
	for seed := range int64(200) {
		c := bench.Generate(seed, int(seed%3)+1)
		if c.Best == "treat" {
			continue
		}
		name := json.RawMessage(fmt.Sprintf(`{"seed":%d,"level":%d}`, seed, c.Level))
		left := run(t, bench.ExerciseIn{Case: name, Exercise: "grading", Actions: actions(t, `{"t":1,"action":"finish"}`)})
		assert.InDelta(t, len(left.Score), total(left), 0, "seed %d", seed)
		assert.Empty(t, left.Marks)
		_, pressed := following(t, name, "hold-to-release", 1)
		assert.InDelta(t, 0, pressed.Score["rightly"], 0, "seed %d", seed)
		assert.Contains(t, fmt.Sprint(pressed.Marks), "not-to-press", "seed %d", seed)
	}
}

// total is a score in all.
func total(o bench.ExerciseOut) (all float64) {
	for _, v := range o.Score {
		all += v
	}
	return all
}

// A hand that presses as hard as it can, whatever it is told, scores lower where that is scored, and
// never higher in all, on generated cases of every kind.
func TestAHardHandScoresLower(t *testing.T) {
	for seed := range int64(60) {
		c := bench.Generate(seed, 2)
		if c.Best != "treat" {
			continue
		}
		name := json.RawMessage(fmt.Sprintf(`{"seed":%d,"level":2}`, seed))
		protocol := steered(c.Protocol)
		_, good := following(t, name, protocol, c.Truth.Points[0].Tenderness)
		live, err := bench.Open(bench.ExerciseIn{Case: name, Seed: 1, Exercise: "grading", Protocol: protocol})
		require.NoError(t, err)
		_, hard := (&follower{t: t, live: live, ceil: 45, asks: 5, grade: 3, deaf: true}).until(90)
		assert.Less(t, hard.Score["ceilings"], good.Score["ceilings"], "seed %d", seed)
		assert.Less(t, total(hard), total(good), "seed %d", seed)
		assert.Contains(t, fmt.Sprint(hard.Marks), "guarding", "seed %d", seed)
	}
}

// Whoever asks leadingly, or skips the screening, scores lower where that is scored and never higher in
// all, on generated cases too.
func TestALeadingAndASkippingAskerScoreLower(t *testing.T) {
	for seed := range int64(200) {
		level := int(seed%3) + 1
		c := bench.Generate(seed, level)
		name := json.RawMessage(fmt.Sprintf(`{"seed":%d,"level":%d}`, seed, level))
		asks := func(form string, list ...ids.Question) bench.ExerciseOut {
			var lines []string
			for i, q := range list {
				lines = append(lines, fmt.Sprintf(`{"t":%d,"action":"ask","question":%q,"form":%q}`, i, q, form))
			}
			lines = append(lines, `{"t":99,"action":"finish"}`)
			return run(t, bench.ExerciseIn{Case: name, Seed: seed, Exercise: "asking", Actions: actions(t, lines...)})
		}
		all := append([]ids.Question{"fever", "calf-warm-swollen"}, c.Yes...)
		good, leading := asks("open", all...), asks("leading", all...)
		assert.Less(t, leading.Score["open"], good.Score["open"], "seed %d", seed)
		assert.LessOrEqual(t, leading.Score["flags"], good.Score["flags"], "seed %d", seed)
		assert.Less(t, total(leading), total(good), "seed %d", seed)
		if c.Best == "refer" {
			skipping := asks("open", "fever")
			if !slices.Contains(c.Yes, "fever") {
				assert.Less(t, skipping.Score["flags"], good.Score["flags"], "seed %d", seed)
				assert.Less(t, total(skipping), total(good), "seed %d", seed)
			}
		}
	}
}
