package visit

import (
	"fmt"
	"math"
	"slices"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/rights"
	"mokren/core/wording"
)

var rangeMeasured = kind{
	name: "range-measured",
	body: func() Body { return new(RangeMeasured) },
	by:   rights.Role.Clinical,
}

// RangeMeasured is one range of motion reading, before or after treatment.
type RangeMeasured struct {
	Movement ids.Movement `json:"movement"`
	Side     ids.Side     `json:"side"`
	// Moment is before or after treatment; a visit compares the two.
	Moment string   `json:"moment" enum:"before,after"`
	Active *float64 `json:"active_deg,omitempty" minimum:"-90" maximum:"360" doc:"left out where trials are given: their mean counts"`
	// Passive is what the hand reaches beyond the client's own movement.
	Passive *float64  `json:"passive_deg,omitempty" minimum:"-90" maximum:"360"`
	Trials  []float64 `json:"trials,omitempty" maxItems:"3" doc:"active readings, degrees"`
	// Felt at the end of the movement: a pull on the long side, a pinch on the short one, or
	// pain.
	Felt   string     `json:"felt,omitempty" enum:"pull,pinch,pain"`
	FeltAt ids.Region `json:"felt_region,omitempty" doc:"where it is felt or hurts"`
	// EndFeel is what stops a passive movement, under the hand.
	EndFeel string   `json:"end_feel,omitempty" enum:"soft,firm,hard,empty,springy"`
	Pain    *float64 `json:"pain_nprs,omitempty" minimum:"0" maximum:"10" multipleOf:"0.5"`
	// Tool that measured it; readings of two tools are not compared without saying so.
	Tool string `json:"tool,omitempty" maxLength:"40"`
}

// Check implements decode.Checker: the reading fits the movement and side.
func (m RangeMeasured) Check() *decode.Error {
	if _, ok := progress.Reference(m.Movement, 0); !ok {
		return &decode.Error{
			Path: "$.movement", Given: fmt.Sprintf("%q", m.Movement),
			Allowed: "a movement with a reference range",
		}
	}
	for i, t := range m.Trials {
		if t < -90 || t > 360 {
			return &decode.Error{Path: fmt.Sprintf("$.trials[%d]", i), Given: fmt.Sprint(t), Allowed: "-90 to 360"}
		}
	}
	active := m.active()
	if active == nil && m.Passive == nil && m.Pain == nil && m.Felt == "" && m.EndFeel == "" {
		return &decode.Error{
			Path: "$.active_deg", Given: "nothing",
			Allowed: "a reading, a pain number, what was felt or the end feel",
		}
	}
	if m.Active != nil && math.Abs(*m.Active-*active) > 0.05 {
		return &decode.Error{
			Path: "$.active_deg", Given: fmt.Sprint(*m.Active),
			Allowed: fmt.Sprintf("%.1f, the mean of the trials, or left out", *active),
		}
	}
	return nil
}

// active is the reading that counts: the mean of the trials where there are
// any, to a tenth of a degree, which is finer than any tool reads.
func (m RangeMeasured) active() *float64 {
	if len(m.Trials) == 0 {
		return m.Active
	}
	var sum float64
	for _, t := range m.Trials {
		sum += t
	}
	mean := math.Round(10*sum/float64(len(m.Trials))) / 10
	return &mean
}

// sets: before and after treatment are two things.
func (m *RangeMeasured) sets(Event) []thing {
	key := "range:" + string(m.Movement) + ":" + string(m.Side) + ":" + m.Moment
	return []thing{{"reading of " + string(m.Movement), key}}
}

// apply pairs the reading with that of the other moment; the mean of its trials is the value.
func (m *RangeMeasured) apply(r *reducer, _ Event) error {
	i := slices.IndexFunc(r.state.Ranges, func(x Range) bool { return x.Movement == m.Movement && x.Side == m.Side })
	if i < 0 {
		i = len(r.state.Ranges)
		r.state.Ranges = append(r.state.Ranges, Range{Movement: m.Movement, Side: m.Side})
	}
	x := &r.state.Ranges[i]
	if m.Moment == "after" {
		x.After, x.AfterTrials, x.AfterPain = m.active(), m.Trials, m.Pain
		return nil
	}
	x.Before, x.Trials, x.BeforePain, x.Passive = m.active(), m.Trials, m.Pain, m.Passive
	x.Felt, x.FeltAt, x.EndFeel, x.Tool = m.Felt, m.FeltAt, m.EndFeel, m.Tool
	return nil
}

// timeline names movement, side and moment; degrees stand in the step itself.
func (m *RangeMeasured) timeline() string {
	return fmt.Sprintf("Range measured: %s, %s", wording.OnSide(wording.Movement(m.Movement), m.Side), m.Moment)
}
