package calc

import (
	"fmt"

	"mokren/core/assess"
	"mokren/core/decode"
	"mokren/core/device"
	"mokren/core/ids"
	"mokren/core/plan"
	"mokren/core/points"
	"mokren/core/safety"
	"mokren/core/visit"
)

// JudgeIn is points to be judged beside one another.
type JudgeIn struct {
	Points  []points.Point  `json:"points" maxItems:"200"`
	Painful []points.Action `json:"painful_actions,omitempty" maxItems:"100" doc:"painful or restricted"`
}

// JudgeOut judges each, in the order given.
type JudgeOut struct {
	Points []points.Judgement `json:"points"`
}

// Check implements decode.Checker.
func (in JudgeIn) Check() *decode.Error { return eachOnce(in.Points) }

// eachOnce refuses a list in which two points have one id: roles refer to points by their ids.
func eachOnce(list []points.Point) *decode.Error {
	seen := map[string]bool{}
	for i, p := range list {
		if seen[p.ID] {
			return &decode.Error{
				Path: fmt.Sprintf("$.points[%d].id", i), Given: fmt.Sprintf("%q", p.ID), Allowed: "each id once",
			}
		}
		seen[p.ID] = true
	}
	return nil
}

// Judge judges points.
func Judge(in JudgeIn) (JudgeOut, error) {
	return JudgeOut{points.Judge(in.Points, in.Painful)}, nil
}

// TraceIn asks where a point may come from.
type TraceIn struct {
	Point     string                  `json:"point" maxLength:"60" doc:"the id of one of the points"`
	Points    []points.Point          `json:"points" maxItems:"200"`
	Painful   []points.Action         `json:"painful_actions,omitempty" maxItems:"100"`
	Suspects  []TraceSuspect          `json:"suspects,omitempty" maxItems:"400"`
	Searched  []points.SearchedMuscle `json:"searched,omitempty" maxItems:"400"`
	Screening []safety.Answer         `json:"screening,omitempty" maxItems:"400"`
}

// TraceSuspect is an entry of suspects as it came out; the confidence counts.
type TraceSuspect struct {
	points.SuspectedMuscle
	Name    string       `json:"name,omitempty"`
	Region  string       `json:"region,omitempty"`
	Ready   bool         `json:"ready,omitempty"`
	Blocked bool         `json:"blocked,omitempty"`
	Because string       `json:"blocked_because,omitempty"`
	Why     []assess.Why `json:"why,omitempty"`
	Raised  bool         `json:"raised,omitempty"`
}

// TraceOut is at most eight muscles, the likeliest first.
type TraceOut struct {
	Candidates []points.Candidate `json:"candidates"`
}

// Check implements decode.Checker.
func (in TraceIn) Check() *decode.Error { return eachOnce(in.Points) }

// Trace ranks where a point may come from.
func Trace(in TraceIn) (TraceOut, error) {
	s := points.Search{
		Point: in.Point, Points: in.Points, Painful: in.Painful, Searched: in.Searched,
		Screening: safety.Screen(in.Screening),
	}
	for _, x := range in.Suspects {
		s.Suspects = append(s.Suspects, x.SuspectedMuscle)
	}
	out, ok := points.Trace(s)
	if !ok {
		return TraceOut{}, &decode.Error{
			Path: "$.point", Given: fmt.Sprintf("%q", in.Point), Allowed: "the id of one of the points",
		}
	}
	return TraceOut{out}, nil
}

// SuggestIn asks for a protocol.
type SuggestIn struct {
	Point     points.Point    `json:"point"`
	First     bool            `json:"first_visit,omitempty"`
	Screening []safety.Answer `json:"screening,omitempty" maxItems:"400"`
	Touchable *bool           `json:"belly_touchable,omitempty" doc:"true when left out"`
	Worked    ids.Protocol    `json:"worked_before,omitempty"`
	Default   ids.Protocol    `json:"default_protocol,omitempty" doc:"the practice's; graded-stages when left out"`
	Instead   ids.Protocol    `json:"instead,omitempty" doc:"chosen by hand in place of what is suggested"`
}

// Suggest names a protocol with its limits and the reason, or why there is none.
func Suggest(in SuggestIn) (points.Suggestion, error) {
	return points.Suggest(points.Request{
		Point: in.Point, FirstVisit: in.First, Screening: safety.Screen(in.Screening),
		BellyTouchable: in.Touchable == nil || *in.Touchable, WorkedBefore: in.Worked, Default: in.Default,
		Instead: in.Instead,
	}), nil
}

// Plan fits a session into its minutes.
func Plan(in plan.Request) (plan.Plan, error) { return plan.Make(in) }

// NumberIn is a client's number on another scale.
type NumberIn struct {
	Given float64 `json:"given" minimum:"0" maximum:"10"`
	Scale string  `json:"scale" enum:"0-5,1-10"`
}

// NumberOut is what it comes to.
type NumberOut struct {
	NPRS float64 `json:"nprs"`
}

// Number maps a number of the practice's own scale to 0 to 10.
func Number(in NumberIn) (NumberOut, error) {
	v, ok := visit.OnNPRS(in.Given, in.Scale)
	if !ok {
		return NumberOut{}, &decode.Error{
			Path: "$.given", Given: fmt.Sprint(in.Given), Allowed: "a number on the scale " + in.Scale,
		}
	}
	return NumberOut{v}, nil
}

// AlgometryOut is how the threshold is measured.
type AlgometryOut struct {
	Trials int     `json:"trials" doc:"on each side"`
	RestS  float64 `json:"rest_s" doc:"between trials"`
	Slow   float64 `json:"slow_kpa_per_s" doc:"below this the ramp is too slow"`
	Fast   float64 `json:"fast_kpa_per_s" doc:"above this it is too fast"`
}

// Algometry tells the numbers of a trial.
func Algometry(struct{}) (AlgometryOut, error) {
	return AlgometryOut{device.MostTrials, device.RestS, device.RampSlowKPa, device.RampFastKPa}, nil
}

// PPTIn is an algometer's trials.
type PPTIn struct {
	Trials []device.Trial `json:"trials" minItems:"1" maxItems:"3"`
	TipCM2 float64        `json:"tip_area_cm2" minimum:"0.01" maximum:"20"`
}

// PPT computes the pressure pain threshold.
func PPT(in PPTIn) (device.PPT, error) { return device.MeasurePPT(in.Trials, in.TipCM2) }
