package treat_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
)

// Every school by its own lines of the handbook, at their boundaries: what is
// said after the last event, and where applicable how the hold ended.
func TestSchools(t *testing.T) {
	for _, c := range []struct {
		school, name, log string
		phase             treat.Phase
		want              []treat.Advice
		ended             treat.Ended
	}{
		{"hold-to-release", "asks every 15 s", "0 contact,14.999 tick", "settle", []treat.Advice{"settle-in"}, ""},
		{"hold-to-release", "asks at 15 s", "0 contact,15 tick", "settle", []treat.Advice{"settle-in", "ask-score"}, ""},
		{"hold-to-release", "again 15 s after", "0 contact,5 score 4,20 tick", "stage", []treat.Advice{"hold", "ask-score"}, ""},
		{"hold-to-release", "softening at 9.999 s waits", "0 contact,5 score 4,14.999 softening", "stage", []treat.Advice{"hold"}, ""},
		{"hold-to-release", "softening at 10 s", "0 contact,5 score 4,15 softening", "release", []treat.Advice{"release-slowly"}, "softened"},
		{"hold-to-release", "early softening acts at 10 s", "0 contact,5 score 4,7 softening,15 tick", "release", []treat.Advice{"release-slowly"}, ""},
		{"hold-to-release", "calm before 10 s waits", "0 contact,5 score 4,14 score 2", "stage", []treat.Advice{"hold"}, ""},
		{"hold-to-release", "calm at 10 s", "0 contact,5 score 4,15 score 2", "release", []treat.Advice{"release-slowly"}, "calm"},
		{"hold-to-release", "another angle at 60 s", "0 contact,5 score 4,30 score 4,50 score 4,60 tick", "settle", []treat.Advice{"change-angle", "ask-score"}, ""},
		{"hold-to-release", "not with a drop of 1", "0 contact,5 score 4,30 score 3,50 score 3,60 tick", "stage", []treat.Advice{"hold"}, ""},
		{"hold-to-release", "no change by the cap", "0 contact,5 score 4,30 score 4,55 score 4,62 score 4,90 score 4,110 score 4,121 release,141 tick", "done", []treat.Advice{"trace-back"}, "no-change"},
		{"hold-to-release", "some change by the cap", "0 contact,5 score 5,30 score 4,55 score 4,80 score 4,100 score 4,121 release,141 tick", "done", []treat.Advice{"done"}, "cap"},

		{"short-repeats", "off at 7 s and asked", "0 contact,7 tick", "rest", []treat.Advice{"rest", "ask-score"}, ""},
		{"short-repeats", "on again at 11 s, deeper", "0 contact,8 score 5,11 tick", "press", []treat.Advice{"next-rep", "sink-slightly"}, ""},
		{"short-repeats", "above the target the same", "0 contact,8 score 5.5,11 tick", "press", []treat.Advice{"next-rep"}, ""},
		{"short-repeats", "no number the same", "0 contact,11 tick", "press", []treat.Advice{"next-rep"}, ""},
		{"short-repeats", "more in the rest is one lighter", "0 contact,8 score 5,9 trend more,11 tick", "press", []treat.Advice{"next-rep"}, ""},
		{"short-repeats", "calm after the first goes on", "0 contact,8 score 2,11 tick", "press", []treat.Advice{"next-rep", "sink-slightly"}, ""},
		{"short-repeats", "calm after the second", "0 contact,8 score 5,19 score 2,22 guard", "flush", []treat.Advice{"flush"}, "calm"},
		{"short-repeats", "the highest of a press counts", "0 contact,8 score 5,12 score 4,19 score 2,22 guard", "press", []treat.Advice{"ease-off"}, ""},
		{"short-repeats", "four are done, the number is asked", "0 contact,8 score 5,19 score 5,30 score 5,40 tick", "release", []treat.Advice{"release-slowly", "ask-score"}, ""},
		{"short-repeats", "contact in a rest changes nothing", "0 contact,8 release,9 contact,10 release", "rest", []treat.Advice{"rest", "ask-score"}, ""},
		{"short-repeats", "a rep late in a press ends it", "0 contact,3 rep", "rest", []treat.Advice{"rest", "ask-score"}, ""},
		{"short-repeats", "a rep early begins it again", "0 contact,2 rep,8.999 tick", "press", []treat.Advice{"settle-in"}, ""},
		{"short-repeats", "and it ends 7 s after", "0 contact,2 rep,9 tick", "rest", []treat.Advice{"rest", "ask-score"}, ""},
		{"short-repeats", "too much twice in rests", "0 contact,8 score 9,19 score 9", "flush", []treat.Advice{"flush"}, "eased"},

		{"pulses", "first to 3", "0 contact,6 score 3,10 guard", "press", []treat.Advice{"ease-off"}, ""},
		{"pulses", "up only at or below the aim", "0 contact,6 score 3.5,10 tick", "press", []treat.Advice{"next-rep"}, ""},
		{"pulses", "above the target one down", "0 contact,6 score 5.5,10 tick", "press", []treat.Advice{"next-rep"}, ""},
		{"pulses", "borne twice", "0 contact,6 score 4,16 score 4,20 guard", "flush", []treat.Advice{"flush"}, "borne"},
		{"pulses", "not with a rise between", "0 contact,6 score 4,16 score 4.5,20 tick", "press", []treat.Advice{"next-rep"}, ""},

		{"slow-ramp", "15 s are free", "0 contact,15 tick", "ramp", []treat.Advice{"hold", "ask-score"}, ""},
		{"slow-ramp", "above the target waits", "0 contact,5 score 4.5", "ramp", []treat.Advice{"hold"}, ""},
		{"slow-ramp", "above soft eases", "0 contact,5 score 5.5", "ramp", []treat.Advice{"ease-off"}, ""},
		{"slow-ramp", "a rise of 2 in 5 s while it runs", "0 contact,5 score 1,10 score 3", "ramp", []treat.Advice{"ease-off"}, ""},
		{"slow-ramp", "a rise of 2 in more is none", "0 contact,5 score 1,10.001 score 3", "ramp", []treat.Advice{"hold"}, ""},
		{"slow-ramp", "borne", "0 contact,10 score 3,30 score 3,50 score 3,70 score 4,90 guard", "release", []treat.Advice{"release-slowly"}, "borne"},
		{"slow-ramp", "the cap first", "0 contact,10 score 4.5,30 score 4.5,55 score 4.5,80 score 4.5,105 score 4.5,120 guard", "release", []treat.Advice{"release-slowly"}, "cap"},

		{"brief-holds", "asks at 8 s", "0 contact,8 tick", "press", []treat.Advice{"settle-in", "ask-score"}, ""},
		{"brief-holds", "then the trend first", "0 contact,8 score 7,16 tick", "press", []treat.Advice{"hold", "ask-trend", "ask-score"}, ""},
		{"brief-holds", "calm lifts for the next", "0 contact,8 score 7,16 score 2,18 release,33 tick", "ready", []treat.Advice{"change-angle", "next-rep"}, ""},
		{"brief-holds", "three answers without a drop", "0 contact,8 score 7,16 score 7,24 score 7,26 release,41 tick", "return", []treat.Advice{"return-lighter"}, "no-change"},
		{"brief-holds", "30 s with a drop lifts", "0 contact,8 score 7,16 score 6,24 score 6,30 tick", "release", []treat.Advice{"release-slowly"}, ""},
		{"brief-holds", "30 s without an answer is no drop", "0 contact,30 tick,31 release,46 tick", "return", []treat.Advice{"return-lighter"}, ""},
		{"brief-holds", "nor on the return", "0 contact,8 score 7,16 score 7,24 score 7,26 release,42 contact,46 score 5,60 score 5,72 tick,73 release,93 tick", "done", []treat.Advice{"trace-back"}, "no-change"},
		{"brief-holds", "the next calm after sinking once", "0 contact,8 score 7,16 score 2,18 release,33 contact,38 score 2,40 score 2", "release", []treat.Advice{"release-slowly"}, "done"},

		{"slack-hold", "test asks at 5 s", "0 contact,5 tick", "test", []treat.Advice{"settle-in", "ask-score"}, ""},
		{"slack-hold", "a number to 5 is a test", "0 contact,5 score 5", "slacken", []treat.Advice{"more-slack", "ask-score"}, ""},
		{"slack-hold", "above hard eases", "0 contact,5 score 5.5", "test", []treat.Advice{"ease-off"}, ""},
		{"slack-hold", "below 2 sinks", "0 contact,5 score 1.5", "test", []treat.Advice{"sink-slightly"}, ""},
		{"slack-hold", "no number in 10 s", "0 contact,10 guard", "release", []treat.Advice{"release-slowly"}, "no-change"},
		{"slack-hold", "ease at 30 %", "0 contact,5 score 5,8 score 1.5", "still", []treat.Advice{"hold"}, ""},
		{"slack-hold", "not at more", "0 contact,5 score 5,8 score 2", "slacken", []treat.Advice{"more-slack"}, ""},
		{"slack-hold", "50 % will do after three", "0 contact,5 score 5,12 score 2.5,22 score 2.5,32 score 2.5,35 tick", "still", []treat.Advice{"hold"}, ""},
		{"slack-hold", "more than 50 % will not", "0 contact,5 score 5,12 score 3,22 score 3,32 score 3,35 guard", "release", []treat.Advice{"release-slowly"}, "no-change"},
		{"slack-hold", "more slack at 45 s", "0 contact,5 score 5,8 score 1,30 score 1,53 tick", "still", []treat.Advice{"more-slack", "ask-score"}, ""},
		{"slack-hold", "softening at 29.999 s waits", "0 contact,5 score 5,8 score 1,37.999 softening", "still", []treat.Advice{"hold"}, ""},
		{"slack-hold", "softening at 30 s brings it back", "0 contact,5 score 5,8 score 1,38 softening", "test", []treat.Advice{"hold"}, ""},
		{"slack-hold", "the end number", "0 contact,5 score 5,8 score 1,38 softening,43 score 1", "release", []treat.Advice{"release-slowly"}, "softened"},

		{"breath-sink", "without a number it stays", "0 contact,5 tick", "sink", []treat.Advice{"hold"}, ""},
		{"breath-sink", "asks every second breath", "0 contact,10 tick", "sink", []treat.Advice{"hold", "ask-score"}, ""},
		{"breath-sink", "sinks with a number", "0 contact,3 score 2,5 tick", "sink", []treat.Advice{"sink-slightly"}, ""},
		{"breath-sink", "its own out-breath", "0 contact,3 score 2,4 breath out", "sink", []treat.Advice{"sink-slightly"}, ""},
		{"breath-sink", "depth at target − 1", "0 contact,3 score 3", "still", []treat.Advice{"hold"}, ""},
		{"breath-sink", "above the target it stays", "0 contact,3 score 4.5,5 tick", "sink", []treat.Advice{"hold"}, ""},
		{"breath-sink", "above soft one step back", "0 contact,3 score 5.5", "sink", []treat.Advice{"ease-off"}, ""},
		{"breath-sink", "softening is the depth", "0 contact,3 softening", "still", []treat.Advice{"hold"}, ""},
		{"breath-sink", "breaths used", "0 contact,3 score 2,20 score 2,30 tick", "still", []treat.Advice{"hold", "ask-score"}, ""},
		{"breath-sink", "done after 10 s", "0 contact,3 score 3,13 guard", "release", []treat.Advice{"release-slowly"}, "done"},

		{"press-and-move", "moves on a baseline", "0 contact,3 score 4", "move", []treat.Advice{"next-rep"}, ""},
		{"press-and-move", "sinks below it", "0 contact,3 score 3.5", "settle", []treat.Advice{"sink-slightly"}, ""},
		{"press-and-move", "asks between", "0 contact,3 score 5,11 tick", "move", []treat.Advice{"next-rep", "ask-score"}, ""},
		{"press-and-move", "above soft eases and goes on", "0 contact,3 score 5,11.5 score 6.5", "move", []treat.Advice{"ease-off"}, ""},
		{"press-and-move", "calm after two goes on", "0 contact,3 score 5,18 score 2,19 tick", "move", []treat.Advice{"next-rep", "ask-score"}, ""},
		{"press-and-move", "calm after three", "0 contact,3 score 5,20 score 2,27 guard", "release", []treat.Advice{"release-slowly"}, "calm"},
		{"press-and-move", "four are done", "0 contact,3 score 5,20 score 4,35 guard", "release", []treat.Advice{"release-slowly"}, "done"},

		{"resisted-lengthening", "rests after 7 s", "0 contact,7 tick", "rest", []treat.Advice{"rest", "ask-score"}, ""},
		{"resisted-lengthening", "three are done", "0 contact,8 score 2,20 score 2,31 guard", "flush", []treat.Advice{"flush", "ask-score"}, "done"},
		{"resisted-lengthening", "above 3 is too much", "0 contact,8 score 3.5", "rest", []treat.Advice{"rest"}, ""},

		{"contract-relax", "first stretch, then push", "0 contact,1 score 2,5 tick", "push", []treat.Advice{"next-rep", "ask-score"}, ""},
		{"contract-relax", "push 15 s, let go", "0 contact,1 score 2,20 tick", "rest", []treat.Advice{"rest", "ask-score"}, ""},
		{"contract-relax", "lengthen on a number", "0 contact,1 score 2,6 score 2,23 tick", "lengthen", []treat.Advice{"next-rep", "ask-score"}, ""},
		{"contract-relax", "three rounds", "0 contact,6 score 2,24 score 2,34 score 2,52 score 2,62 score 2,80 score 2,89 guard", "flush", []treat.Advice{"flush"}, "done"},
		{"contract-relax", "a round that gains 5 goes on", "0 contact,6 score 2,24 score 2,25 range 60,34 score 2,52 score 2,53 range 65", "lengthen", []treat.Advice{"next-rep"}, ""},
		{"contract-relax", "one that gains less is the last", "0 contact,6 score 2,24 score 2,25 range 60,34 score 2,52 score 2,53 range 64.9", "flush", []treat.Advice{"flush"}, "done"},

		{"pin-and-stretch", "lengthens from a baseline", "0 contact,3 score 4", "lengthen", []treat.Advice{"next-rep"}, ""},
		{"pin-and-stretch", "waits without a fresh number", "0 contact,3 score 5,23.001 tick", "release", []treat.Advice{"release-slowly"}, ""},
		{"pin-and-stretch", "its own out-breath", "0 contact,3 score 5,6 breath out", "lengthen", []treat.Advice{"next-rep", "ask-score"}, ""},

		{"attachment-strokes", "strokes after 8 s", "0 contact,8 tick", "stroke", []treat.Advice{"hold", "ask-score"}, ""},
		{"attachment-strokes", "walk round", "0 contact,14 tick", "rest", []treat.Advice{"rest", "ask-score"}, ""},
		{"attachment-strokes", "next with a number sinks", "0 contact,9 score 4,25 tick", "sink", []treat.Advice{"next-rep", "sink-slightly", "ask-score"}, ""},
		{"attachment-strokes", "without stays light", "0 contact,9 score 4.5,25 tick", "sink", []treat.Advice{"next-rep", "ask-score"}, ""},

		{"broad-first", "asks every 15 s", "0 contact,15 tick", "broad", []treat.Advice{"settle-in", "ask-score"}, ""},
		{"broad-first", "narrow when borne", "0 contact,30 score 4,45 tick", "narrow", []treat.Advice{"next-rep", "ask-score"}, ""},
		{"broad-first", "not above the target", "0 contact,30 score 4.5,45 guard", "release", []treat.Advice{"release-slowly"}, "done"},
		{"broad-first", "cramp adds 15 s", "0 contact,30 score 4,30 guard,59.999 tick", "broad", []treat.Advice{"ease-off", "ask-score"}, ""},
		{"broad-first", "cramp again comes off without a return", "0 contact,20 guard,29 guard,31 release,51 tick", "done", []treat.Advice{"done"}, "eased"},
	} {
		t.Run(c.school+"/"+c.name, func(t *testing.T) {
			lines, sum := run(t, treat.Request{Protocol: ids.Protocol(c.school)}, c.log)
			last := lines[len(lines)-1]
			assert.Equal(t, c.phase, last.Phase, last.Text)
			assert.Equal(t, c.want, last.Advice, last.Reason)
			if c.ended != "" {
				require.NotNil(t, sum.Run)
				assert.Equal(t, c.ended, sum.Ended)
			}
		})
	}
}

// Where the client's number cannot steer, hold-to-release runs by itself: no
// asking, no silence, softening from 10 s after the fifth, 30 s at most.
func TestWithoutANumberToSteer(t *testing.T) {
	no := false
	req := treat.Request{Protocol: "hold-to-release", NumberSteers: &no}
	lines, _ := run(t, req, "0 contact,14 softening,14.999 tick,15 tick")
	assert.Equal(t, treat.PhaseStage, lines[2].Phase)
	assert.Equal(t, treat.PhaseRelease, lines[3].Phase)
	lines, sum := run(t, req, "0 contact,29.999 tick,30 guard,33 release")
	assert.Empty(t, lines[1].Ask)
	assert.Equal(t, treat.PhaseStage, lines[1].Phase)
	assert.Equal(t, treat.EndedCap, sum.Ended)
	assert.False(t, sum.TraceBack)
	assert.InDelta(t, 3, sum.OverrunS, 1e-9)
	_, err := treat.NewStart(treat.Request{Protocol: "pulses", NumberSteers: &no})
	assert.ErrorContains(t, err, "$.protocol")
}

// On the front of the neck nothing is pressed for more than 10 s at a time,
// whatever happens meanwhile.
func TestTheFrontOfTheNeck(t *testing.T) {
	for _, log := range []string{
		"0 contact,4 off-spot,8 on-spot,9.999 tick",
		"0 contact,3 score 4,6 angle-change,9.999 tick",
		"0 contact,4 score 4,9.999 tick",
	} {
		req := treat.Request{Protocol: "brief-holds", Muscle: "sternocleidomastoid-sternal"}
		lines, _ := run(t, req, log+",10 tick")
		assert.NotEqual(t, treat.PhaseRelease, lines[len(lines)-2].Phase, log)
		assert.Equal(t, treat.PhaseRelease, lines[len(lines)-1].Phase, log)
	}
	req := treat.Request{Protocol: "brief-holds", Muscle: "sternocleidomastoid-clavicular"}
	lines, _ := run(t, req, "0 contact,5 tick,10 tick,11 release,26 tick")
	assert.Contains(t, lines[1].Advice, treat.AskScore, "asked at 5 s")
	assert.InDelta(t, 15, lines[3].WaitLeftS, 1e-9)
	assert.Equal(t, []treat.Advice{treat.ChangeAngle, treat.NextRep}, lines[4].Advice)
	for _, p := range treat.Protocols() {
		_, err := treat.NewStart(treat.Request{Protocol: p.ID, Muscle: "sternocleidomastoid-sternal"})
		assert.Equal(t, treat.ShortEnough(p.ID), err == nil, p.ID)
	}
	front := []safety.Place{{Region: "anterior-neck", Side: "left"}}
	assert.True(t, treat.OnFrontOfNeck("upper-trapezius", front))
	assert.False(t, treat.OnFrontOfNeck("scalenus-anterior", front), "the scalenes are the side")
}

// The arm is asked for at each asking over the scalenes.
func TestTheArmIsAskedFor(t *testing.T) {
	lines, _ := run(t, treat.Request{Protocol: "hold-to-release", Muscle: "scalenus-medius"}, "0 contact,15 tick")
	assert.Contains(t, lines[1].Ask, "arm")
}

// A cap shortens what can be shortened, and refuses the rest by name.
func TestACapShortensOrRefuses(t *testing.T) {
	for _, c := range []struct {
		school ids.Protocol
		cap    int64
		fits   bool
	}{
		{"slow-ramp", 69_999, false},
		{"slow-ramp", 70_000, true},
		{"slack-hold", 59_999, false},
		{"slack-hold", 60_000, true},
		{"attachment-strokes", 59_999, false},
		{"attachment-strokes", 60_000, true},
		{"broad-first", 39_999, false},
		{"pulses", 10_000, true},
		{"graded-stages", 10_000, true},
	} {
		s, err := treat.NewStart(treat.Request{Protocol: c.school, CapMS: &c.cap})
		if !c.fits {
			assert.ErrorContains(t, err, "$.cap_seconds", c.school)
			continue
		}
		require.NoError(t, err, c.school)
		switch c.school {
		case "slow-ramp":
			assert.Equal(t, int64(60_000), s.Plan.RampMS)
		case "attachment-strokes":
			assert.Equal(t, 3, s.Plan.Stations)
		case "pulses":
			assert.Equal(t, 2, s.Plan.Reps)
		}
	}
}

// A practice tunes within the brackets, and nothing from outside gets past them.
func TestTuningStaysWithinTheBrackets(t *testing.T) {
	for _, p := range treat.Protocols() {
		for _, b := range p.Tunable {
			for _, v := range []float64{b.Min, b.Max} {
				s, err := treat.NewStart(treat.Request{Protocol: p.ID, Numbers: map[string]float64{b.Number: v}})
				require.NoError(t, err, "%s %s %v", p.ID, b.Number, v)
				require.NoError(t, s.Begins(treat.RulesVersion, safety.Open, "", nil), "%s %s %v", p.ID, b.Number, v)
			}
			for _, v := range []float64{b.Min - 0.5, b.Max + 0.5} {
				_, err := treat.NewStart(treat.Request{Protocol: p.ID, Numbers: map[string]float64{b.Number: v}})
				assert.ErrorContains(t, err, "$.numbers."+b.Number)
			}
			assert.NotEmpty(t, b.Why)
		}
		_, err := treat.NewStart(treat.Request{Protocol: p.ID, Numbers: map[string]float64{"speed": 3}})
		assert.ErrorContains(t, err, "$.numbers.speed")
	}
	s := start(t, treat.Request{Protocol: "pulses"})
	for name, mend := range map[string]func(*treat.Plan){
		"longer presses": func(p *treat.Plan) { p.PressMS = 60_000 },
		"another climb":  func(p *treat.Plan) { p.AimStep = 3 },
		"other steering": func(p *treat.Plan) { p.Steering = "stages" },
		"no return":      func(p *treat.Plan) { p.Returns = false },
		"no clock":       func(p *treat.Plan) { p.Presses = false },
	} {
		plan := *s.Plan
		mend(&plan)
		forged := s
		forged.Plan = &plan
		assert.ErrorContains(t, forged.Begins(treat.RulesVersion, safety.Open, "", nil), "$.plan", name)
	}
	neck := start(t, treat.Request{Protocol: "pulses", Muscle: "sternocleidomastoid-sternal"})
	neck.Plan.PressMaxMS = 0
	assert.Error(t, neck.Begins(treat.RulesVersion, safety.Open, "", nil), "the neck's bound is not left out")
}
