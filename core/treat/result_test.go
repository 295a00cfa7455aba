package treat_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mokren/core/ids"
	"mokren/core/treat"
)

// A result is said by the measure of its protocol, whatever the bare outcome is.
func TestAResultIsSaidByItsProtocolsMeasure(t *testing.T) {
	course := func(scores ...float64) (out []treat.TracePoint) {
		for i, v := range scores {
			out = append(out, treat.TracePoint{T: float64(i), Score: v})
		}
		return out
	}
	ran := func(p ids.Protocol, o treat.Outcome, run treat.Run, scores ...float64) treat.Summary {
		high := 0.0
		for _, v := range scores {
			high = max(high, v)
		}
		return treat.Summary{Outcome: o, Protocol: p, Run: &run, Trace: course(scores...), HighestScore: high}
	}
	gain := func(v float64) treat.Run { return treat.Run{GainDeg: &v} }
	borne := treat.Run{Ended: treat.EndedBorne}
	for want, s := range map[string]treat.Summary{
		"released, 6 → 2":                    ran("graded-stages", treat.Released, treat.Run{}, 6, 4, 2),
		"unchanged, 6 → 5":                   ran("hold-to-release", treat.Unchanged, treat.Run{}, 6, 5),
		"unchanged":                          ran("hold-to-release", treat.Unchanged, treat.Run{}, 6, 4),
		"tolerated to 5, 2 → 5":              ran("pulses", treat.Unchanged, borne, 2, 5),
		"25 % left, 4 → 1":                   ran("slack-hold", treat.Unchanged, treat.Run{}, 4, 2, 1),
		"+9°":                                ran("contract-relax", treat.Unchanged, gain(8.7), 1, 1),
		"−2°":                                ran("resisted-lengthening", treat.Unchanged, gain(-2)),
		"no degree gained":                   ran("contract-relax", treat.Unchanged, gain(0.2)),
		"done, the range was not read twice": ran("contract-relax", treat.Unchanged, treat.Run{}, 1),
		"stopped":                            ran("contract-relax", treat.Stopped, gain(9)),
		"reduced, 5 → 2 in one stage": {
			Outcome: treat.Reduced, Trace: course(4, 5, 2, 5),
			Stages: []treat.StageRecord{{StartScore: 5, EndScore: 2}, {StartScore: 5, EndScore: 5}},
		},
		"reduced, 6.5 → 4": {Outcome: treat.Reduced, Trace: course(6.5, 4)},
	} {
		assert.Equal(t, want, s.Result())
	}
}
