package treat

import (
	"fmt"

	"mokren/core/decode"
	"mokren/core/safety"
)

// A plan comes from outside (a screen, an import, an outbox), so it is looked at
// twice: check bounds what any version of the rules could have written, planned
// asks whether today's protocol allows exactly this one.

const (
	leastPart = second // no part is shorter
	longest   = 180 * second
	mostOften = 20
)

// check bounds a plan, so that no log is long to replay.
func (p *Plan) check() error {
	if _, ok := strategies[p.Strategy]; !ok {
		return &decode.Error{Path: "$.plan.steering", Given: `"` + p.Strategy + `"`, Allowed: "a kind of steering"}
	}
	for name, number := range numbers {
		var v, low, high int64
		switch f := number(p).(type) {
		case *int64:
			v, low, high = *f, leastPart, longest
		case *int:
			v, low, high = int64(*f), 1, mostOften
		}
		if v != 0 && (v < low || v > high) {
			return &decode.Error{
				Path: "$.plan", Given: fmt.Sprintf("%s of %v", name, p.Number(name)),
				Allowed: "parts of 1 to 180 s, at most 20 of them",
			}
		}
	}
	for _, ms := range []int64{p.TotalMS, p.BreathMS, p.StrokeMS, p.SinkMS, p.PressMaxMS} {
		if ms != 0 && (ms < leastPart || ms > longest) {
			return &decode.Error{Path: "$.plan", Given: fmt.Sprint(ms), Allowed: "parts of 1000 to 180000 ms"}
		}
	}
	if p.Stations < 0 || p.Stations > maxStations || p.Tries < 0 || p.Tries > mostOften {
		return &decode.Error{Path: "$.plan", Given: fmt.Sprint(p.Stations), Allowed: "at most 12 stations"}
	}
	return p.complete()
}

// complete refuses a plan whose strategy lacks a number that it goes by.
func (p *Plan) complete() error {
	proto := protocols[0]
	for _, q := range protocols {
		if q.Plan.Strategy == p.Strategy && q.Plan.Presses == p.Presses {
			proto = q
		}
	}
	for name := range numbers {
		optional := name == "moves"
		if want := proto.Plan.Number(name); want > 0 && !optional && p.Number(name) == 0 {
			return &decode.Error{Path: "$.plan", Given: "no " + name, Allowed: "every number of its steering"}
		}
	}
	return nil
}

// shortened are the numbers that a short cap brings below their bounds.
var shortened = map[string]bool{"reps": true, "ramp_s": true, "breaths": true}

// planned says whether today's protocol, within its bounds, comes to this plan
// at this place.
func (s Start) planned(p Protocol, where []safety.Place) error {
	refuse := func(given, allowed string) error {
		return &decode.Error{Path: "$.plan", Given: given, Allowed: allowed}
	}
	if s.Plan == nil {
		return refuse("nothing", "the plan of the protocol")
	}
	if !s.Limits.Within(p.Limits) {
		return &decode.Error{
			Path: "$.limits", Given: describe(s.Limits), Allowed: "at most " + describe(p.Limits) + ", the protocol's",
		}
	}
	want := p.Plan
	for _, b := range p.Tunable {
		v := s.Plan.Number(b.Number)
		if v > b.Max || v < b.Min && !shortened[b.Number] {
			return refuse(fmt.Sprintf("%s of %v", b.Number, v), fmt.Sprintf("%v to %v: %s", b.Min, b.Max, b.Why))
		}
		want.set(b.Number, s.Plan.Number(b.Number))
	}
	have := *s.Plan
	want.Name, want.Variant, want.MinGainDeg = have.Name, have.Variant, have.MinGainDeg
	want.AskArm, want.Unsteered = have.AskArm, have.Unsteered
	want.Stations, want.TestSoft = have.Stations, have.TestSoft
	same := Start{Protocol: s.Protocol, Limits: s.Limits, Muscle: s.Muscle, Plan: &want}
	if err := same.place(where); err != nil {
		return err
	}
	if *same.Plan != have || same.Limits != s.Limits {
		return refuse("another plan", "the protocol's numbers, within their bounds, at this place")
	}
	return nil
}
