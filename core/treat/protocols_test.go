package treat_test

import (
	_ "embed"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
)

// protocolsText says every protocol by its own lines of the handbook, at their
// boundaries. A heading names the protocol; a case is its name, a log ("seconds
// event value"), and what is said after the last event: the phase, the advice,
// and how the hold ended.
//
//go:embed protocols_test.txt
var protocolsText string

type protocolCase struct {
	protocol  ids.Protocol
	name, log string
	phase     treat.Phase
	want      []treat.Advice
	ended     treat.EndReason
}

func protocolCases(t *testing.T) (out []protocolCase) {
	t.Helper()
	var protocol ids.Protocol
	var c protocolCase
	for _, l := range strings.Split(protocolsText, "\n") {
		switch {
		case l == "":
		case strings.HasPrefix(l, "# "):
			protocol = ids.Protocol(l[2:])
		case !strings.HasPrefix(l, "\t"):
			c = protocolCase{protocol: protocol, name: l}
		case c.log == "":
			c.log = l[1:]
		default:
			phase, rest, ok := strings.Cut(l[1:], ": ")
			require.True(t, ok, l)
			rest, ended, _ := strings.Cut(strings.TrimSuffix(rest, ")"), " (")
			c.phase, c.ended = treat.Phase(phase), treat.EndReason(ended)
			for _, a := range strings.Fields(rest) {
				c.want = append(c.want, treat.Advice(a))
			}
			out = append(out, c)
		}
	}
	return out
}

func TestProtocols(t *testing.T) {
	cases := protocolCases(t)
	require.Greater(t, len(cases), 90)
	for _, c := range cases {
		t.Run(string(c.protocol)+"/"+c.name, func(t *testing.T) {
			lines, sum := run(t, treat.Request{Protocol: c.protocol}, c.log)
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
	req := treat.Request{Protocol: "hold-to-release", ScoreSteers: &no}
	lines, _ := run(t, req, "0 contact,14 softening,14.999 tick,15 tick")
	assert.Equal(t, treat.PhaseStage, lines[2].Phase)
	assert.Equal(t, treat.PhaseRelease, lines[3].Phase)
	lines, sum := run(t, req, "0 contact,29.999 tick,30 guard,33 release")
	assert.Empty(t, lines[1].Ask)
	assert.Equal(t, treat.PhaseStage, lines[1].Phase)
	assert.Equal(t, treat.EndedCap, sum.Ended)
	assert.False(t, sum.TraceBack)
	assert.InDelta(t, 3, sum.OverrunS, 1e-9)
	_, err := treat.NewStart(treat.Request{Protocol: "pulses", ScoreSteers: &no})
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
		assert.Equal(t, p.ShortPresses, err == nil, p.ID)
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
		protocol ids.Protocol
		cap      int64
		fits     bool
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
		s, err := treat.NewStart(treat.Request{Protocol: c.protocol, CapMS: &c.cap})
		if !c.fits {
			assert.ErrorContains(t, err, "$.cap_seconds", c.protocol)
			continue
		}
		require.NoError(t, err, c.protocol)
		switch c.protocol {
		case "slow-ramp":
			assert.Equal(t, int64(60_000), s.Plan.RampMS)
		case "attachment-strokes":
			assert.Equal(t, 3, s.Plan.Stations)
		case "pulses":
			assert.Equal(t, 2, s.Plan.Reps)
		}
	}
}

// A practice tunes within the bounds, and nothing from outside gets past them.
func TestTuningStaysWithinItsBounds(t *testing.T) {
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
		"other steering": func(p *treat.Plan) { p.Strategy = "stages" },
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

// The ids that files and the API know are those of the table, and each row says what it is.
func TestEveryProtocolIsARow(t *testing.T) {
	var rows []ids.Protocol
	for _, p := range treat.Protocols() {
		rows = append(rows, p.ID)
		assert.NotEmpty(t, p.Name, p.ID)
		assert.NotEmpty(t, p.What, p.ID)
		start, err := treat.NewStart(treat.Request{Protocol: p.ID})
		require.NoError(t, err, p.ID)
		assert.NotEmpty(t, start.Plan.Strategy, p.ID)
	}
	assert.Equal(t, ids.Protocols(), rows)
}
