package assess

import (
	"fmt"
	"math"

	"mokren/core/decode"
	"mokren/core/ids"
)

// Gauge is a measure of its own kind beside the ranges of motion: the toe-touch
// in cm from fingertips to floor, the weight-bearing lunge and the straight-leg
// raise in degrees on a side, and where the breath goes.
type Gauge struct {
	ID    string   `json:"gauge" enum:"toe-touch,weight-bearing-lunge,straight-leg-raise,breathing"`
	Side  ids.Side `json:"side" doc:"midline for toe-touch and breathing"`
	Value *float64 `json:"value,omitempty" minimum:"-40" maximum:"180" doc:"cm above the floor (below the soles is negative), or degrees"`
	Kind  string   `json:"kind,omitempty" enum:"apical,diaphragmatic" doc:"of breathing"`
}

// GaugeInfo tells how a gauge is taken and from where on it is flagged.
type GaugeInfo struct {
	ID     string     `json:"id"`
	Name   string     `json:"name"`
	How    string     `json:"how"`
	Unit   string     `json:"unit,omitempty"`
	Sides  []ids.Side `json:"sides"`
	Min    float64    `json:"min"`
	Max    float64    `json:"max"`
	Usual  string     `json:"usual,omitempty"`
	Source string     `json:"source"`
	// below: a reading under it is flagged; apart: so is this difference.
	below, apart float64
	test         ids.Test
}

var both, middle = []ids.Side{ids.Left, ids.Right}, []ids.Side{ids.Midline}

// The straight-leg raise follows the rule for references of 40° and more: 85 %
// of 80°, sides 10° apart.
var gauges = []GaugeInfo{
	{
		ID: "toe-touch", Name: "Toe-touch", How: "Standing, knees straight, reach down: fingertips to floor.",
		Unit: "cm", Sides: middle, Min: -40, Max: 100, Source: workingDefault,
	},
	{
		ID: "weight-bearing-lunge", Name: "Weight-bearing lunge",
		How: "Knee to the wall, heel down: the shin against the upright.", Unit: "°", Sides: both, Min: 0, Max: 70,
		Usual: "35 to 40°", Source: workingDefault, below: 35, apart: 5, test: "calf-length-knee-bent",
	},
	{
		ID: "straight-leg-raise", Name: "Straight-leg raise",
		How: "On the back, raise the straight leg until it pulls behind the thigh. Shooting pain is a nerve sign: " +
			"stop.", Unit: "°", Sides: both, Min: 0, Max: 130, Usual: "80°", Source: workingDefault, below: 0.85 * 80,
		apart: 10, test: "straight-leg-raise",
	},
	{
		ID: "breathing", Name: "Breathing at rest",
		How: "Watch a quiet breath: does the belly move first, or the top of the chest?", Sides: middle,
		Usual: "diaphragmatic", Source: workingDefault,
	},
}

// Gauges lists them in the order in which they are taken.
func Gauges() []GaugeInfo { return append([]GaugeInfo{}, gauges...) }

// gaugeInfo finds a gauge by id; one that is not known has no bounds and no flag.
func gaugeInfo(id string) GaugeInfo {
	for _, g := range gauges {
		if g.ID == id {
			return g
		}
	}
	return GaugeInfo{}
}

// Check implements decode.Checker: the value fits the gauge and the side.
func (g Gauge) Check() *decode.Error {
	info := gaugeInfo(g.ID)
	if info.ID == "" {
		return &decode.Error{
			Path: "$.gauge", Given: fmt.Sprintf("%q", g.ID),
			Allowed: "toe-touch, weight-bearing-lunge, straight-leg-raise, breathing",
		}
	}
	if (g.Side == ids.Midline) != (len(info.Sides) == 1) {
		return &decode.Error{Path: "$.side", Given: fmt.Sprintf("%q", g.Side), Allowed: fmt.Sprint(info.Sides)}
	}
	if info.Unit == "" {
		if g.Kind == "" || g.Value != nil {
			return &decode.Error{
				Path: "$.kind", Given: fmt.Sprintf("%q", g.Kind),
				Allowed: "apical or diaphragmatic, and no value",
			}
		}
		return nil
	}
	if g.Value == nil || g.Kind != "" {
		return &decode.Error{Path: "$.value", Given: "nothing", Allowed: "a value in " + info.Unit + ", and no kind"}
	}
	if *g.Value < info.Min || *g.Value > info.Max {
		return &decode.Error{
			Path: "$.value", Given: fmt.Sprint(*g.Value),
			Allowed: fmt.Sprintf("%v to %v %s", info.Min, info.Max, info.Unit),
		}
	}
	return nil
}

// gaugeFlag judges one gauge beside the other side's reading (nil where there
// is none); the reason is empty when nothing is flagged.
func gaugeFlag(g Gauge, other *float64) string {
	info := gaugeInfo(g.ID)
	switch {
	case g.Kind == "apical":
		return "high in the chest"
	case g.Value == nil || info.below == 0:
		return ""
	case *g.Value < info.below:
		return fmt.Sprintf("%v%s, flagged below %v%s", *g.Value, info.Unit, info.below, info.Unit)
	case other != nil && *other-*g.Value >= info.apart-1e-9:
		return fmt.Sprintf("%v%s less than the other side", math.Round(math.Abs(*other-*g.Value)*10)/10, info.Unit)
	}
	return ""
}

// GaugeFlags judges gauges, each side beside the other, in the same order.
func GaugeFlags(list []Gauge) []string {
	out := make([]string, len(list))
	for i, g := range list {
		var other *float64
		for _, o := range list {
			if o.ID == g.ID && g.Side != ids.Midline && o.Side == g.Side.Other() {
				other = o.Value
			}
		}
		out[i] = gaugeFlag(g, other)
	}
	return out
}

// gauges weigh as the test that they measure, unless that test was answered
// itself; the breath high in the chest raises the muscles that lift the ribs.
func (m *model) gauges(list []Gauge, tests []TestResult) {
	flags := GaugeFlags(list)
	for i, g := range list {
		flagged := flags[i] != ""
		if g.Kind != "" {
			if !flagged {
				continue
			}
			for _, mu := range apicalMuscles {
				for _, h := range m.on(mu, ids.Midline) {
					h.add("bearing", "breathing", m.w.of("breathing").Plus, "Breathing high in the chest")
				}
			}
			continue
		}
		test := gaugeInfo(g.ID).test
		asked := false
		for _, t := range tests {
			asked = asked || t.Test == test && t.Side == g.Side && t.Result != "unclear"
		}
		if test == "" || asked {
			continue
		}
		r := TestResult{test, g.Side, "negative"}
		if flagged {
			r.Result = "positive"
		}
		m.test(r)
	}
}
