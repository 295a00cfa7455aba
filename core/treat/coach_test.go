package treat_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mokren/core/ids"
	"mokren/core/treat"
)

func start(t require.TestingT, r treat.Request) treat.Start {
	if r.Protocol == "" {
		r.Protocol = "graded-stages"
	}
	s, err := treat.NewStart(r)
	require.NoError(t, err)
	return s
}

// run plays a log written as "seconds event [value]", separated by commas.
func run(t *testing.T, r treat.Request, log string) (lines []treat.Line, sum treat.Summary) {
	t.Helper()
	c := treat.NewCoach(start(t, r))
	scale := c.Start().Scale
	for entry := range strings.SplitSeq(log, ",") {
		f := strings.Fields(entry)
		s, err := strconv.ParseFloat(f[0], 64)
		require.NoError(t, err)
		var value json.RawMessage
		if len(f) > 2 {
			value = json.RawMessage(f[2])
			if _, err := strconv.ParseFloat(f[2], 64); err != nil {
				value = json.RawMessage(`"` + f[2] + `"`)
			}
		}
		e, err := treat.ParseEvent(int64(s*1000+0.5), f[1], value, scale)
		require.NoError(t, err, entry)
		lines = append(lines, c.Apply(e))
	}
	return lines, c.Summary()
}

// Every numbered rule of the coach, at its boundary. want is the advice after
// the last event, rule the number that the coach names for it.
func TestCoachRules(t *testing.T) {
	const in6 = "0 contact,2 score 6"
	cap120 := int64(120_000)
	for _, c := range []struct {
		name    string
		req     treat.Request
		log     string
		phase   treat.Phase
		want    []treat.Advice
		rule    int
		outcome treat.Outcome
		check   func(t *testing.T, l treat.Line, s treat.Summary)
	}{
		{
			name: "1: nothing asked before 5 s", log: "0 contact,4.999 tick", phase: "settle",
			want: []treat.Advice{"settle-in"},
		},
		{
			name: "1: asks 5 s after contact", log: "0 contact,5 tick", phase: "settle",
			want: []treat.Advice{"settle-in", "ask-score"},
		},
		{
			name: "1: asks 10 s after an answer", log: in6 + ",12 tick", phase: "stage",
			want: []treat.Advice{"hold", "ask-score"},
		},
		{name: "1: not before 10 s", log: in6 + ",11.999 tick", phase: "stage", want: []treat.Advice{"hold"}},
		{
			name: "1: a trend is an answer", log: in6 + ",11 trend same,20.9 tick", phase: "stage",
			want: []treat.Advice{"hold"},
		},
		{
			name: "1: softening is an answer", log: in6 + ",11 softening,20.9 tick", phase: "stage",
			want: []treat.Advice{"hold"},
		},
		{
			name: "1: on-spot is an answer", log: in6 + ",11 on-spot,20.9 tick", phase: "stage",
			want: []treat.Advice{"hold"},
		},
		{
			name: "1: 30 s of silence after contact", log: "0 contact,30 tick", phase: "release",
			want: []treat.Advice{"release-slowly"}, rule: 1,
		},
		{
			name: "1: silence to the window's end is no rule 6", log: in6 + ",32.001 release,60 tick", phase: "done",
			want: []treat.Advice{"done"}, rule: 11,
		},
		{
			name: "1: an answer at 30 s still counts", log: "0 contact,30 score 6", phase: "stage",
			want: []treat.Advice{"hold"},
		},

		{
			name: "2: at the soft ceiling a stage begins", log: "0 contact,2 score 7", phase: "stage",
			want: []treat.Advice{"hold"},
		},
		{
			name: "2: above the soft ceiling", log: "0 contact,2 score 7.5", phase: "settle",
			want: []treat.Advice{"ease-off"}, rule: 2,
		},
		{
			name: "2: at the hard ceiling", log: "0 contact,2 score 8,4 score 8", phase: "settle",
			want: []treat.Advice{"ease-off"}, rule: 2,
		},
		{
			name: "2: above the hard ceiling once", log: "0 contact,2 score 9", phase: "settle",
			want: []treat.Advice{"ease-off"}, rule: 2,
		},
		{
			name: "2: above the hard ceiling twice", log: "0 contact,2 score 9,4 score 8.5", phase: "release",
			want: []treat.Advice{"release-slowly"}, rule: 2,
			check: func(t *testing.T, l treat.Line, s treat.Summary) {
				assert.Equal(t, ids.Protocol("slow-ramp"), s.Gentler)
				assert.Contains(t, l.Reason, "gentler")
			},
		},

		{
			name: "3: at target − 1 a stage begins", log: "0 contact,2 score 5", phase: "stage",
			want: []treat.Advice{"hold"},
		},
		{
			name: "3: below target − 1", log: "0 contact,2 score 4.5", phase: "settle",
			want: []treat.Advice{"sink-slightly"}, rule: 3,
		},
		{
			name: "3: two after sinking once sinks again", log: "0 contact,2 score 1,4 score 2", phase: "settle",
			want: []treat.Advice{"sink-slightly"}, rule: 3,
		},
		{
			name: "3: two after sinking twice", log: "0 contact,2 score 1,4 score 2,6 score 2", phase: "release",
			want: []treat.Advice{"release-slowly", "flush"}, rule: 3, outcome: treat.Unchanged,
			check: func(t *testing.T, l treat.Line, _ treat.Summary) {
				assert.Contains(t, l.Reason, "Too little tenderness to treat")
			},
		},
		{
			name: "3: three after sinking twice begins the stage", log: "0 contact,2 score 1,4 score 2,6 score 3",
			phase: "stage", want: []treat.Advice{"hold"},
		},
		{
			name: "3: a higher number after sinking is no rise", log: "0 contact,2 score 3,4 score 6", phase: "stage",
			want:  []treat.Advice{"hold"},
			check: func(t *testing.T, _ treat.Line, s treat.Summary) { assert.Zero(t, s.Eased) },
		},

		{
			name: "4: drop of 2 before 20 s holds", log: in6 + ",21.999 score 4", phase: "stage",
			want: []treat.Advice{"hold"}, rule: 4,
		},
		{
			name: "4: drop of 2 at 20 s deepens", log: in6 + ",22 score 4", phase: "settle",
			want: []treat.Advice{"breathe-and-deepen"}, rule: 4, outcome: treat.Reduced,
		},
		{
			name: "4: an early drop deepens by itself at 20 s", log: in6 + ",12 score 4,22 tick", phase: "settle",
			want: []treat.Advice{"breathe-and-deepen", "ask-score"}, rule: 4,
		},
		{
			name: "4: a lower number after easing is no drop", log: "0 contact,2 score 8,6 score 6,25.9 tick",
			phase: "stage", want: []treat.Advice{"hold", "ask-score"},
		},
		{
			name: "4: third stage comes off", log: in6 + ",22 score 4,24 score 6,44 score 4,46 score 6,66 score 4",
			phase: "release", want: []treat.Advice{"release-slowly"}, rule: 4, outcome: treat.Reduced,
			check: func(t *testing.T, _ treat.Line, s treat.Summary) { assert.Len(t, s.Stages, 3) },
		},

		{
			name: "5: two beats the drop", log: in6 + ",12 score 5,22 score 2", phase: "release",
			want: []treat.Advice{"release-slowly"}, rule: 5, outcome: treat.Released,
		},
		{
			name: "5: at once, also before 20 s", log: in6 + ",7 score 4,12 score 2", phase: "release",
			want: []treat.Advice{"release-slowly"}, rule: 5, outcome: treat.Released,
		},
		{
			name: "5: a fall of 4 within 5 s asks first", log: in6 + ",7 score 2", phase: "check",
			want: []treat.Advice{"ask-still-on"}, rule: 5, outcome: treat.Unchanged,
		},
		{
			name: "5: a fall of 4 in more than 5 s is believed", log: in6 + ",7.001 score 2", phase: "release",
			want: []treat.Advice{"release-slowly"}, rule: 5, outcome: treat.Released,
		},
		{
			name: "5: confirmed on the spot", log: in6 + ",7 score 2,9 on-spot", phase: "release",
			want: []treat.Advice{"release-slowly"}, rule: 5, outcome: treat.Released,
		},
		{
			name: "5: slipped after all", log: in6 + ",7 score 2,9 off-spot", phase: "off-spot",
			want: []treat.Advice{"ask-still-on"}, rule: 10, outcome: treat.Unchanged,
		},
		{
			name: "5: then flush, then done", log: in6 + ",12 score 2,15 release,35 tick", phase: "done",
			want: []treat.Advice{"done"}, rule: 11, outcome: treat.Released,
		},

		{
			name: "6: window over, drop of 1: 15 s more", log: in6 + ",30 score 5,32 tick", phase: "stage",
			want: []treat.Advice{"hold"}, rule: 6,
			check: func(t *testing.T, l treat.Line, _ treat.Summary) { assert.InDelta(t, 15, l.StageLeftS, 1e-9) },
		},
		{
			name: "6: after 45 s as rule 4 with whatever it is", log: in6 + ",30 score 5,40 score 5,47 tick",
			phase: "settle", want: []treat.Advice{"breathe-and-deepen"}, rule: 4,
		},
		{
			name: "6: window over, no drop", log: in6 + ",30 score 6,32 tick", phase: "release",
			want: []treat.Advice{"release-slowly"}, rule: 6, outcome: treat.Unchanged,
		},
		{
			name: "6: the flush before a return is 15 s", log: in6 + ",30 score 6,33 release,47.999 tick",
			phase: "flush", want: []treat.Advice{"flush"}, rule: 11,
		},
		{
			name: "6: then return lighter", log: in6 + ",30 score 6,33 release,48 tick", phase: "return",
			want: []treat.Advice{"return-lighter"}, rule: 6,
		},
		{
			name: "6: the return has target − 2", log: in6 + ",30 score 6,33 release,50 contact,52 score 3",
			phase: "stage", want: []treat.Advice{"hold"},
			check: func(t *testing.T, _ treat.Line, s treat.Summary) { assert.True(t, s.Returned) },
		},
		{
			name: "6: no drop on the return: trace back",
			log:  in6 + ",30 score 6,33 release,50 contact,52 score 4,70 score 4,83 release,103 tick", phase: "done",
			want: []treat.Advice{"trace-back"}, rule: 6,
			check: func(t *testing.T, _ treat.Line, s treat.Summary) { assert.True(t, s.TraceBack) },
		},
		{
			name: "6: a drop on the return deepens",
			log:  in6 + ",30 score 6,33 release,50 contact,52 score 5,72 score 3", phase: "settle",
			want: []treat.Advice{"breathe-and-deepen"}, rule: 4,
		},

		{
			name: "7: a rise of 1 eases", log: in6 + ",10 score 7", phase: "settle", want: []treat.Advice{"ease-off"},
			rule: 7,
		},
		{
			name: "7: a rise of a half does not", log: in6 + ",10 score 6.5", phase: "stage",
			want: []treat.Advice{"hold"},
		},
		{
			name: "7: trend more eases", log: in6 + ",10 trend more", phase: "settle", want: []treat.Advice{"ease-off"},
			rule: 7,
		},
		{
			name: "7: the second time comes off", log: in6 + ",10 score 7,14 score 5,20 score 6", phase: "release",
			want: []treat.Advice{"release-slowly"}, rule: 7,
		},
		{
			name: "7: number and trend count together", log: in6 + ",10 trend more,14 score 6,20 trend more",
			phase: "release", want: []treat.Advice{"release-slowly"}, rule: 7,
		},
		{
			name: "7: a higher number after deepening is no rise", log: in6 + ",22 score 4,26 score 6", phase: "stage",
			want: []treat.Advice{"hold"},
			check: func(t *testing.T, l treat.Line, s treat.Summary) {
				assert.Zero(t, s.Eased)
				assert.Equal(t, 2, l.Stage)
			},
		},

		{name: "8: guarding eases", log: in6 + ",10 guard", phase: "settle", want: []treat.Advice{"ease-off"}, rule: 8},
		{
			name: "8: again comes off", log: in6 + ",10 guard,14 score 6,16 guard", phase: "release",
			want: []treat.Advice{"release-slowly"}, rule: 8,
		},
		{
			name: "8: and returns in slack after 15 s", log: in6 + ",10 guard,14 score 6,16 guard,18 release,33 tick",
			phase: "return", want: []treat.Advice{"return-lighter"}, rule: 8,
			check: func(t *testing.T, l treat.Line, _ treat.Summary) { assert.Contains(t, l.Text, "slack") },
		},
		{
			name: "8: one return in all", log: in6 +
				",10 guard,14 score 6,16 guard,18 release,34 contact,36 score 4,50 score 4,67 release,90 tick",
			phase: "done", want: []treat.Advice{"trace-back"}, rule: 6,
		},

		{
			name: "9: nerve sign moves off", log: in6 + ",10 nerve-sign tingling,20 tick", phase: "moved-off",
			want: []treat.Advice{"move-off"}, rule: 9,
			check: func(t *testing.T, l treat.Line, _ treat.Summary) { assert.InDelta(t, 10, l.PressureS, 1e-9) },
		},
		{
			name: "9: second nerve sign closes the site", log: in6 + ",10 nerve-sign,20 contact,25 nerve-sign numb",
			phase: "stopped", want: []treat.Advice{"move-off", "stop"}, rule: 9, outcome: treat.Stopped,
			check: func(t *testing.T, _ treat.Line, s treat.Summary) { assert.True(t, s.SiteClosed) },
		},
		{
			name: "9: second pulse moves off", log: "0 contact,1 pulse,5 contact,6 pulse", phase: "moved-off",
			want: []treat.Advice{"move-off"}, rule: 9,
		},
		{
			name: "9: third pulse stops", log: "0 contact,1 pulse,5 contact,6 pulse,9 contact,10 pulse",
			phase: "stopped", want: []treat.Advice{"stop"}, rule: 9, outcome: treat.Stopped,
		},
		{
			name: "9: unwell stops", log: in6 + ",10 unwell dizzy", phase: "stopped", want: []treat.Advice{"stop"},
			rule: 9, outcome: treat.Stopped,
		},
		{
			name: "9: skin reaction stops", log: in6 + ",10 skin-reaction", phase: "stopped",
			want: []treat.Advice{"stop"}, rule: 9, outcome: treat.Stopped,
		},
		{
			name: "9: client stops", log: in6 + ",10 client-stop,20 tick", phase: "stopped",
			want: []treat.Advice{"stop"}, rule: 9, outcome: treat.Stopped,
			check: func(t *testing.T, l treat.Line, _ treat.Summary) { assert.InDelta(t, 10, l.PressureS, 1e-9) },
		},

		{
			name: "10: off the spot the pressure clock runs", log: in6 + ",10 off-spot,15 tick", phase: "off-spot",
			want: []treat.Advice{"ask-still-on"}, rule: 10,
			check: func(t *testing.T, l treat.Line, _ treat.Summary) {
				assert.InDelta(t, 15, l.PressureS, 1e-9)
				assert.Zero(t, l.StageLeftS)
			},
		},
		{
			name: "10: back on it needs a baseline", log: in6 + ",10 off-spot,15 on-spot,17 score 6,46.9 trend same",
			phase: "stage", want: []treat.Advice{"hold"},
		},
		{
			name: "10: a twitch is not looked for again", log: in6 + ",10 twitch", phase: "stage",
			want: []treat.Advice{"hold"}, rule: 10,
			check: func(t *testing.T, l treat.Line, s treat.Summary) {
				assert.True(t, s.Twitch)
				assert.Contains(t, l.Text, "not look for it again")
			},
		},

		{
			name: "11: every release is followed by a flush", log: in6 + ",10 release", phase: "flush",
			want: []treat.Advice{"flush"}, rule: 11,
		},
		{
			name: "11: flush lasts 20 s", log: in6 + ",10 release,29.999 tick", phase: "flush",
			want: []treat.Advice{"flush"}, rule: 11,
		},
		{
			name:  "11: a pending trace-back survives the cap",
			log:   in6 + ",30 score 6,33 release,50 contact,52 score 4,70 score 4,140 tick,141 release,170 tick",
			phase: "done", want: []treat.Advice{"trace-back"}, rule: 6,
			check: func(t *testing.T, l treat.Line, s treat.Summary) {
				assert.InDelta(t, 90, s.PressureS, 1e-9)
				assert.InDelta(t, 34, s.OverrunS, 1e-9)
			},
		},
		{
			name: "11: stop is final", log: in6 + ",10 client-stop,20 contact", phase: "stopped",
			want: []treat.Advice{"stop"}, rule: 9,
			check: func(t *testing.T, l treat.Line, s treat.Summary) {
				assert.True(t, l.Ignored)
				assert.InDelta(t, 10, s.PressureS, 1e-9)
			},
		},
		{
			name: "11: flushing is allowed after a stop", log: in6 + ",10 client-stop,20 release", phase: "stopped",
			want: []treat.Advice{"flush"}, rule: 11,
		},

		{
			name:  "cap: the clock stops at the cap",
			log:   "0 contact,8 score 6,28 score 4,35 score 6,55 score 4,60 score 6,89 trend same,95 tick",
			phase: "release", want: []treat.Advice{"release-slowly"},
			check: func(t *testing.T, l treat.Line, s treat.Summary) {
				assert.InDelta(t, 90, l.PressureS, 1e-9)
				assert.InDelta(t, 5, l.OverrunS, 1e-9)
			},
		},
		{
			name: "cap: it can be raised to 120", req: treat.Request{CapMS: &cap120},
			log: "0 contact,8 score 6,38 release", phase: "flush", want: []treat.Advice{"flush"}, rule: 11,
		},
		{
			name: "pause stops the pressure clock", log: in6 + ",10 pause,60 tick,70 resume,72 tick", phase: "settle",
			want:  []treat.Advice{"settle-in"},
			check: func(t *testing.T, l treat.Line, _ treat.Summary) { assert.InDelta(t, 12, l.PressureS, 1e-9) },
		},
		{
			name: "scale 5 is doubled", req: treat.Request{Scale: 5}, log: "0 contact,2 score 3.5,6 score 4",
			phase: "settle", want: []treat.Advice{"ease-off"}, rule: 2,
			check: func(t *testing.T, _ treat.Line, s treat.Summary) { assert.InDelta(t, 8, s.HighestScore, 1e-9) },
		},
		{
			name: "a score before contact changes nothing", log: "0 score 6", phase: "ready", want: []treat.Advice{},
			check: func(t *testing.T, l treat.Line, _ treat.Summary) {
				assert.True(t, l.Ignored)
				assert.NotEmpty(t, l.Reason)
			},
		},
	} {
		t.Run(c.name, func(t *testing.T) {
			lines, sum := run(t, c.req, c.log)
			l := lines[len(lines)-1]
			assert.Equal(t, c.phase, l.Phase)
			assert.Equal(t, c.want, l.Advice)
			assert.Equal(t, c.rule, l.Rule, l.Reason)
			if c.outcome != "" {
				assert.Equal(t, c.outcome, sum.Outcome)
			}
			if c.check != nil {
				c.check(t, l, sum)
			}
			assert.NotEmpty(t, l.Text)
		})
	}
}

func TestTheWholeHold(t *testing.T) {
	lines, sum := run(t, treat.Request{},
		"0 contact,3 score 6,14 score 5,23 score 4,27 score 6,47 score 3,51 score 6,71 score 2,74 release,94 tick")
	got := []treat.Advice{}
	for _, l := range lines {
		got = append(got, l.Advice[0])
	}
	assert.Equal(t, []treat.Advice{
		"settle-in", "hold", "hold", "breathe-and-deepen", "hold", "breathe-and-deepen",
		"hold", "release-slowly", "flush", "done",
	}, got)
	assert.Equal(t, treat.Released, sum.Outcome)
	require.Len(t, sum.Stages, 3)
	assert.Equal(t, treat.StageRecord{Stage: 3, StartS: 51, EndS: 71, StartScore: 6, EndScore: 2, EndedBy: "calm"},
		sum.Stages[2])
	assert.InDelta(t, 74, sum.PressureS, 1e-9)
	assert.Zero(t, sum.OverrunS)
}

func TestLimitsResolveToTheStrictest(t *testing.T) {
	f := func(v float64) *float64 { return &v }
	ms := func(v int64) *int64 { return &v }
	s := start(t, treat.Request{Muscle: "scalenus-medius", Target: f(6)})
	assert.Equal(t, []float64{4, 4, 5}, []float64{s.Limits.Target, s.Limits.Soft, s.Limits.Hard})
	s = start(t, treat.Request{Protocol: "brief-holds", Muscle: "sternocleidomastoid-sternal"})
	assert.Equal(t, int64(30_000), s.Limits.CapMS, "in all")
	assert.Equal(t, int64(10_000), s.Plan.PressMaxMS, "at a time")
	s = start(t, treat.Request{Muscle: "coccyx-region"})
	assert.Equal(t, []float64{3, 4, 5}, []float64{s.Limits.Target, s.Limits.Soft, s.Limits.Hard})
	s = start(t, treat.Request{Muscle: "soleus", Target: f(3)})
	assert.Equal(t, []float64{3, 7, 8}, []float64{s.Limits.Target, s.Limits.Soft, s.Limits.Hard})

	for _, c := range []struct {
		r     treat.Request
		field string
	}{
		{treat.Request{CapMS: ms(9_999)}, "$.cap_seconds"},
		{treat.Request{CapMS: ms(120_001)}, "$.cap_seconds"},
		{treat.Request{Target: f(11)}, "$.target"},
		{treat.Request{Target: f(8)}, "$.target"},
		{treat.Request{Hard: f(6)}, "$.soft_ceiling"},
		{treat.Request{Scale: 7}, "$.scale"},
		{treat.Request{Muscle: "sternocleidomastoid-sternal"}, "$.protocol"},
		{treat.Request{Protocol: "press"}, "$.protocol"},
	} {
		if c.r.Protocol == "" {
			c.r.Protocol = "graded-stages"
		}
		_, err := treat.NewStart(c.r)
		assert.ErrorContains(t, err, c.field)
	}
}

func TestUndoEqualsTheLogWithoutIt(t *testing.T) {
	_, with := run(t, treat.Request{}, "0 contact,3 score 9,5 undo,6 score 6,20 score 5")
	_, without := run(t, treat.Request{}, "0 contact,6 score 6,20 score 5")
	assert.Equal(t, without, with)
	_, twice := run(t, treat.Request{}, "0 contact,3 score 9,4 tick,4 score 9,5 undo,5 undo,6 score 6,20 score 5")
	assert.Equal(t, without, twice)
	lines, _ := run(t, treat.Request{}, "1 undo")
	assert.True(t, lines[0].Ignored)
}

func TestEventContentIsStrict(t *testing.T) {
	for _, c := range []struct{ kind, value, field string }{
		{"press", "", "$.event"},
		{"Score", "3", "$.event"},
		{"score", "", "$.value"},
		{"score", "10.5", "$.value"},
		{"score", "-1", "$.value"},
		{"score", "3.3", "$.value"},
		{"score", `"3"`, "$.value"},
		{"trend", `"up"`, "$.value"},
		{"trend", "", "$.value"},
		{"nerve-sign", `"itch"`, "$.value"},
		{"unwell", `3`, "$.value"},
		{"referral", `["nowhere"]`, "$.value[0]"},
		{"pressure", "-1", "$.value"},
		{"guard", "1", "$.value"},
		{"breath", `"hold"`, "$.value"},
	} {
		var v json.RawMessage
		if c.value != "" {
			v = json.RawMessage(c.value)
		}
		_, err := treat.ParseEvent(0, c.kind, v, 10)
		assert.ErrorContains(t, err, c.field, "%s %s", c.kind, c.value)
	}
	_, err := treat.ParseEvent(0, "score", json.RawMessage("5.5"), 5)
	assert.ErrorContains(t, err, "$.value")
	e, err := treat.ParseEvent(0, "score", json.RawMessage("3.5"), 5)
	require.NoError(t, err)
	assert.InDelta(t, 7, e.Score, 0)
}

// randomLog draws any events at all, sensible or not.
func randomLog(t *rapid.T) []treat.Event {
	kinds := []treat.Kind{
		"contact", "contact", "score", "score", "score", "score", "trend", "twitch", "guard",
		"nerve-sign", "pulse", "softening",
		"off-spot", "on-spot", "angle-change", "pause", "resume", "release", "undo", "tick", "tick", "rep", "breath",
		"unwell", "skin-reaction", "client-stop", "start",
	}
	n := rapid.IntRange(1, 60).Draw(t, "n")
	var log []treat.Event
	at := int64(0)
	for range n {
		at += rapid.Int64Range(0, 20_000).Draw(t, "dt")
		e := treat.Event{At: at, Kind: rapid.SampledFrom(kinds).Draw(t, "kind")}
		switch e.Kind {
		case "score":
			e.Score = float64(rapid.IntRange(0, 20).Draw(t, "score")) / 2
		case "trend":
			e.Word = rapid.SampledFrom([]string{"same", "less", "more"}).Draw(t, "trend")
		}
		log = append(log, e)
	}
	return log
}

func randomStart(t *rapid.T) treat.Start {
	muscle := rapid.SampledFrom([]ids.Muscle{
		"", "soleus", "scalenus-medius", "coccyx-region",
		"suboccipitals",
	}).Draw(t, "muscle")
	cap := rapid.Int64Range(10_000, 120_000).Draw(t, "cap")
	return start(t, treat.Request{Muscle: muscle, CapMS: &cap})
}

func TestNoLogBreaksASafetyRule(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		st := randomStart(t)
		log := randomLog(t)
		c := treat.NewCoach(st)
		stopped, undone := false, false
		lastScore := -1.0
		before := treat.PhaseReady
		for _, e := range log {
			l := c.Apply(e)
			undone = e.Kind == "undo"
			if undone {
				stopped, lastScore = l.Phase == treat.PhaseStopped, -1
			}
			assert.LessOrEqual(t, l.PressureS, float64(st.Limits.CapMS)/1000, "past the cap")
			assert.LessOrEqual(t, l.PressureS, 120.0)
			if e.Kind == "score" {
				lastScore = e.Score
				if e.Score > st.Limits.Soft {
					assert.NotContains(t, l.Advice, treat.Deepen)
					assert.NotContains(t, l.Advice, treat.SinkSlightly)
				}
			}
			if contains(l.Advice, treat.Deepen) || contains(l.Advice, treat.SinkSlightly) {
				assert.LessOrEqual(t, lastScore, st.Limits.Soft, "deepening above the soft ceiling")
			}
			pressing := map[treat.Phase]bool{
				"settle": true, "stage": true, "check": true, "off-spot": true,
				"release": true,
			}[before]
			if e.Kind == "release" && pressing {
				assert.Contains(t, l.Advice, treat.Flush, "a release without a flush")
			}
			if stopped {
				assert.Equal(t, treat.PhaseStopped, l.Phase, "went on after a stop")
				for _, a := range l.Advice {
					assert.Contains(t, []treat.Advice{treat.Stop, treat.MoveOff, treat.Flush}, a)
				}
			}
			stopped = l.Phase == treat.PhaseStopped
			before = l.Phase
		}
	})
}

func TestReplayAndTicks(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		st := randomStart(t)
		log := randomLog(t)
		a, b := treat.Replay(st, log), treat.Replay(st, log)
		assert.Equal(t, a, b, "the same log gave another output")
		var bare []treat.Event
		for _, e := range log {
			if e.Kind != "tick" {
				bare = append(bare, e)
			}
		}
		sum := a[len(a)-1].Summary
		if len(bare) == 0 {
			return
		}
		c := treat.Replay(st, bare)
		assert.Equal(t, sum, c[len(c)-1].Summary, "ticks changed the summary")
		// More ticks change nothing either, wherever they fall.
		d := treat.NewCoach(st)
		for i, e := range bare {
			from := int64(0)
			if i > 0 {
				from = bare[i-1].At
			}
			d.At((from + e.At) / 2)
			d.At(e.At)
			d.Apply(e)
		}
		assert.Equal(t, *sum, d.Summary())
	})
}

func contains(list []treat.Advice, a treat.Advice) bool {
	for _, x := range list {
		if x == a {
			return true
		}
	}
	return false
}

func TestLateValuesAreSortedIn(t *testing.T) {
	log := treat.SortLate([]treat.Event{
		{At: 0, Kind: "contact"},
		{At: 9000, Kind: "guard"},
		{At: 3000, Kind: "score", Score: 6},
	})
	assert.Equal(t, treat.Kind("score"), log[1].Kind)
}

func BenchmarkCoachEvent(b *testing.B) {
	st, _ := treat.NewStart(treat.Request{Protocol: "graded-stages"})
	log := []treat.Event{
		{At: 0, Kind: "contact"},
		{At: 3000, Kind: "score", Score: 6},
		{At: 14000, Kind: "score", Score: 5},
		{At: 23000, Kind: "score", Score: 4},
		{At: 27000, Kind: "score", Score: 6},
		{At: 47000, Kind: "score", Score: 3},
		{At: 50000, Kind: "tick"},
		{At: 51000, Kind: "score", Score: 6},
		{At: 71000, Kind: "score", Score: 2},
		{At: 74000, Kind: "release"},
	}
	b.ReportAllocs()
	for b.Loop() {
		c := treat.NewCoach(st)
		for _, e := range log {
			c.Apply(e)
		}
	}
	b.ReportMetric(float64(b.Elapsed().Nanoseconds())/float64(b.N)/float64(len(log))/1000, "µs/event")
}

func ExampleCoach() {
	s, _ := treat.NewStart(treat.Request{Protocol: "graded-stages", Muscle: "soleus"})
	c := treat.NewCoach(s)
	c.Apply(treat.Event{At: 0, Kind: treat.KindContact})
	c.Apply(treat.Event{At: 3_000, Kind: treat.KindScore, Score: 6})
	l := c.Apply(treat.Event{At: 24_000, Kind: treat.KindScore, Score: 4})
	fmt.Println(l.Text)
	// Output: On the out-breath, sink back to 6.
}

// Due is when the line changes by itself: until then it says the same, and waiting for one
// due time after another comes to an end.
func TestDueIsWhenTheLineChangesByItself(t *testing.T) {
	says := func(l treat.Line) string {
		return fmt.Sprint(l.Phase, l.Advice, l.Ask, l.Stage, l.Text, l.Reason)
	}
	rapid.Check(t, func(t *rapid.T) {
		c := treat.NewCoach(randomStart(t))
		for _, e := range randomLog(t) {
			c.Apply(e)
			at := e.At
			for range 40 {
				due, ok := c.Due(at)
				if !ok {
					break
				}
				if due <= at {
					t.Fatalf("due at %d, after %d", due, at)
				}
				if now, before := says(c.At(at)), says(c.At(due-1)); now != before {
					t.Fatalf("%q at %d, %q at %d: due at %d only", now, at, before, due-1, due)
				}
				at = due
			}
			if _, ok := c.Due(at); ok {
				t.Fatalf("something is due for ever after %d", e.At)
			}
		}
	})
}

// A summary shares its lists with the hold that goes on; an undo and what is said in place of it do
// not reach into it.
func TestASummaryStaysWhatItWas(t *testing.T) {
	c := treat.NewCoach(start(t, treat.Request{Muscle: "soleus", Side: "left"}))
	score := func(at int64, v float64) {
		c.Apply(treat.Event{At: at, Kind: treat.KindScore, Score: v, Source: "tablet"})
	}
	c.Apply(treat.Event{At: 0, Kind: treat.KindContact, Source: "tablet"})
	for i, v := range []float64{6, 6, 6, 6, 6, 5, 5, 5} {
		score(int64(10_000+i*1000), v)
	}
	before := c.Summary()
	was := slices.Clone(before.Trace)
	require.Len(t, was, 8)
	for range 2 {
		c.Apply(treat.Event{At: 18_000, Kind: treat.KindUndo, Source: "tablet"})
	}
	score(19_000, 7)
	score(20_000, 8)
	require.Equal(t, was, before.Trace)
	require.Equal(t, []float64{6, 6, 6, 6, 6, 5, 7, 8}, scores(c.Summary().Trace))
}

func scores(trace []treat.TracePoint) (out []float64) {
	for _, p := range trace {
		out = append(out, p.Score)
	}
	return out
}
