package visit

import (
	"fmt"

	"mokren/core/ids"
	"mokren/core/progress"
)

// ToRecheck is one thing to be looked at again before the client leaves: what was not as it
// should be before treatment, and each point that was pressed. Only these are asked again.
type ToRecheck struct {
	Kind     string       `json:"kind" enum:"point,threshold,range,gauge,posture,sign,activity,walk"`
	Point    UUID         `json:"point,omitempty" doc:"of a point or a threshold"`
	Movement ids.Movement `json:"movement,omitempty" doc:"of a range"`
	Gauge    string       `json:"gauge,omitempty"`
	Measure  ids.Measure  `json:"measure,omitempty" doc:"of a posture reading"`
	Sign     ids.Sign     `json:"sign,omitempty"`
	Activity string       `json:"activity,omitempty" doc:"in the client's words"`
	Side     ids.Side     `json:"side,omitempty"`
	// Why says what was found before; Done, that it has been looked at again.
	Why  string `json:"why"`
	Done bool   `json:"done"`
}

// toRecheck lists what is looked at again, points first. It is computed at the end of a replay,
// for flags of posture and gauges depend on both sides, and a hold counts by its status.
func (r *reducer) toRecheck() []ToRecheck {
	out := []ToRecheck{}
	for _, p := range r.state.Points {
		if !r.state.hasHold(p.Point) {
			continue
		}
		out = append(out, ToRecheck{
			Kind: "point", Point: p.Point, Side: p.Side, Why: "Pressed", Done: p.AfterNPRS != nil,
		})
		if p.Threshold != nil {
			out = append(out, ToRecheck{
				Kind: "threshold", Point: p.Point, Side: p.Side,
				Why: fmt.Sprintf("%.0f kPa before", p.Threshold.KPa), Done: p.ThresholdAfter != nil,
			})
		}
	}
	// Standing and walking is asked for as soon as there is anything to ask for at all.
	pressed := len(out) > 0
	out = append(out, r.rangesAgain()...)
	for _, g := range r.state.Gauges {
		if g.Flag != "" {
			out = append(out, ToRecheck{
				Kind: "gauge", Gauge: g.Gauge, Side: g.Side, Why: g.Flag, Done: g.After != nil || g.AfterKind != "",
			})
		}
	}
	for i, p := range r.state.Posture {
		if f := r.state.PostureFlags[i]; f.Flagged {
			_, done := r.state.postureAfter(p.Measure, p.Side)
			out = append(out, ToRecheck{Kind: "posture", Measure: p.Measure, Side: p.Side, Why: f.Reason, Done: done})
		}
	}
	for _, s := range r.state.Signs {
		_, done := r.state.signAfter(s.Sign, s.Side)
		out = append(out, ToRecheck{Kind: "sign", Sign: s.Sign, Side: s.Side, Why: "Seen before", Done: done})
	}
	return append(out, r.saidAgain(pressed || len(out) > 0)...)
}

// rangesAgain are the movements that were short or hurt, each once: both sides are read again,
// for one is judged beside the other.
func (r *reducer) rangesAgain() []ToRecheck {
	out := []ToRecheck{}
	at := map[ids.Movement]int{}
	for _, x := range r.state.Ranges {
		why := ""
		switch {
		case x.Before == nil:
			continue
		case progress.Flag(x.Movement, *x.Before, r.state.otherSide(x), r.ctx.Age).Flagged:
			why = "Short before"
		case x.BeforePain != nil && *x.BeforePain > 0:
			why = "Painful before"
		default:
			continue
		}
		if _, twice := at[x.Movement]; !twice {
			at[x.Movement] = len(out)
			out = append(out, ToRecheck{Kind: "range", Movement: x.Movement, Side: x.Side, Why: why, Done: true})
		}
	}
	for _, x := range r.state.Ranges {
		if i, asked := at[x.Movement]; asked && x.Before != nil && x.After == nil {
			out[i].Done = false
		}
	}
	return out
}

// saidAgain is what the client is asked and shows: activities that are not as before, and,
// where anything was done or found, standing and walking.
func (r *reducer) saidAgain(worked bool) []ToRecheck {
	out := []ToRecheck{}
	if r.state.Interview != nil {
		for _, a := range r.state.Interview.Activities {
			if a.Score >= asBefore {
				continue
			}
			out = append(out, ToRecheck{
				Kind: "activity", Activity: a.Name, Why: fmt.Sprintf("%d of 10 before", a.Score),
				Done: r.state.After.scored(a.Name),
			})
		}
	}
	if worked || len(out) > 0 {
		out = append(out, ToRecheck{
			Kind: "walk", Why: "Before the client goes", Done: r.state.After != nil && r.state.After.Walk != "",
		})
	}
	return out
}

// asBefore is the score of an activity that the client can do as before the complaint.
const asBefore = 10

// scored reports whether an activity was scored again.
func (b *RecheckNoted) scored(name string) bool {
	if b == nil {
		return false
	}
	for _, a := range b.Activities {
		if a.Name == name {
			return true
		}
	}
	return false
}
