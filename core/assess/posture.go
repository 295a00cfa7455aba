package assess

import (
	"cmp"
	"fmt"
	"math"

	"mokren/core/decode"
	"mokren/core/ids"
)

// Slope is a caliper-inclinometer reading: the distance between two landmarks,
// the height of the second above the first (signed), and the angle of the
// line against the horizontal.
type Slope struct {
	DistanceCM float64 `json:"distance_cm"`
	HeightCM   float64 `json:"height_difference_cm"`
	Deg        float64 `json:"slope_deg"`
}

// Solve computes the third of any two: slope = asin(height / distance).
func Solve(distance, height, deg *float64) (Slope, error) {
	given := 0
	for _, v := range []*float64{distance, height, deg} {
		if v != nil {
			given++
		}
	}
	if given != 2 {
		return Slope{}, &decode.Error{
			Path:    "$",
			Given:   fmt.Sprintf("%d of distance_cm, height_difference_cm, slope_deg", given),
			Allowed: "any two of the three",
		}
	}
	rad := math.Pi / 180
	switch {
	case deg == nil:
		if *distance <= 0 || math.Abs(*height) > *distance {
			return Slope{}, &decode.Error{
				Path: "$.height_difference_cm", Given: fmt.Sprint(*height),
				Allowed: fmt.Sprintf("at most the distance, %v cm, which is above 0", *distance),
			}
		}
		return Slope{*distance, *height, math.Asin(*height / *distance) / rad}, nil
	case height == nil:
		return Slope{*distance, *distance * math.Sin(*deg*rad), *deg}, nil
	default:
		sin := math.Sin(*deg * rad)
		if sin == 0 || *height/sin <= 0 {
			return Slope{}, &decode.Error{
				Path: "$.slope_deg", Given: fmt.Sprint(*deg),
				Allowed: "a slope other than 0 with the sign of the height difference",
			}
		}
		return Slope{*height / sin, *height, *deg}, nil
	}
}

// Posture is one reading.
type Posture struct {
	Measure  ids.Measure `json:"measure"`
	HighSide ids.Side    `json:"high_side,omitempty" doc:"which side is high, or forward, or convex"`
	Side     ids.Side    `json:"side,omitempty" doc:"of a reading taken on each side"`
	Degrees  *float64    `json:"degrees,omitempty" minimum:"-180" maximum:"180"`
	CM       *float64    `json:"cm,omitempty" minimum:"-200" maximum:"200"`
	// Kind of a curve: flat, usual, deep, even, hinge.
	Kind string `json:"kind,omitempty" enum:"flat,usual,deep,even,hinge"`
}

// PostureFlag is a reading judged. Below the flag a difference is noted, not
// hidden. Reason tells where the flag begins, or how far the sides differ; Source
// where that threshold comes from.
type PostureFlag struct {
	Measure ids.Measure `json:"measure"`
	Side    ids.Side    `json:"side,omitempty"`
	Flagged bool        `json:"flagged"`
	Reason  string      `json:"reason"`
	Source  string      `json:"source"`
}

const workingDefault = "working default"

// Flags judges the readings of one client, each side beside the other.
func Flags(list []Posture, own Thresholds) []PostureFlag {
	out := []PostureFlag{}
	for _, p := range list {
		out = append(out, flag(p, otherSide(list, p), own))
	}
	return out
}

// otherSide is the reading of the same measure on the other side; empty without
// one.
func otherSide(list []Posture, p Posture) Posture {
	for _, o := range list {
		if o.Measure == p.Measure && p.Side != "" && o.Side == p.Side.Other() {
			return o
		}
	}
	return Posture{}
}

// flag judges one reading beside the other side's.
func flag(p, o Posture, own Thresholds) PostureFlag {
	f := PostureFlag{Measure: p.Measure, Side: p.Side, Source: own.source(string(p.Measure))}
	at := own.Of(string(p.Measure))
	switch p.Measure {
	case "shoulder-height", "pelvis-height":
		f.judge(p.Degrees, func(d float64) bool { return math.Abs(d) >= at }, fmt.Sprintf("flagged from %v°", at))
	case "pelvic-tilt":
		usual := own.Of("pelvic-tilt-usual")
		f.judge(p.Degrees, func(d float64) bool { return math.Abs(d-usual) > at },
			fmt.Sprintf("usual %v° ± %v°", usual, at))
		f.apart(p.Degrees, o.Degrees, own.Of("pelvic-tilt-sides"), "°")
	case "scapula-distance", "acromion-to-table":
		f.apart(p.CM, o.CM, at, " cm")
	case "scapular-upward-rotation":
		f.apart(p.Degrees, o.Degrees, at, "°")
	case "craniovertebral-angle":
		f.judge(p.Degrees, func(d float64) bool { return d < at }, fmt.Sprintf("flagged below %v°", at))
	case "shoulder-girdle-rotation", "pelvis-rotation", "side-curve":
		f.Flagged = p.HighSide == ids.Left || p.HighSide == ids.Right
		f.because(fmt.Sprintf("toward the %s", p.HighSide))
	case "lumbar-curve":
		f.Flagged = p.Kind == "hinge"
		f.because(p.Kind)
	}
	f.Reason = cmp.Or(f.Reason, "noted")
	return f
}

// because adds a reason to those that are there: a reading may be flagged for two.
func (f *PostureFlag) because(reason string) {
	if f.Reason != "" && reason != "" {
		f.Reason += "; "
	}
	f.Reason += reason
}

// judge flags a reading, where there is one.
func (f *PostureFlag) judge(v *float64, flagged func(float64) bool, reason string) {
	if v != nil {
		f.Flagged = flagged(*v)
		f.because(reason)
	}
}

// apart flags sides that differ by so much.
func (f *PostureFlag) apart(mine, theirs *float64, by float64, unit string) {
	if mine == nil || theirs == nil {
		return
	}
	if d := math.Abs(*mine - *theirs); d >= by-1e-9 {
		f.Flagged = true
		f.because(fmt.Sprintf("sides differ by %.1f%s, flagged from %v%s", d, unit, by, unit))
	}
}
