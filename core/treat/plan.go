package treat

import (
	"fmt"
	"slices"
	"strings"

	"mokren/core/decode"
	"mokren/core/ids"
)

const second = int64(1000)

// Plan is a protocol resolved for one hold: every number that the coach needs.
// It is written into the start event, so that a hold replays the same whatever
// a practice tunes later. Times are milliseconds; 0 is "not in this protocol".
type Plan struct {
	// Strategy names the kind of strategy; see strategies.
	Strategy string `json:"steering"`
	// Name is the practice's own, where it tuned a copy.
	Name string `json:"name,omitempty"`
	// Presses: the pressure clock runs and the cap applies; without it TotalMS.
	Presses bool `json:"presses,omitempty"`
	// TotalMS bounds a protocol that presses nothing, from contact on.
	TotalMS int64 `json:"total_ms,omitempty"`
	// Returns: the one lighter return of rules 6 and 8 belongs to it.
	Returns bool `json:"returns,omitempty"`
	// Baseline: nothing begins before a score that rule 3 accepts.
	Baseline bool `json:"baseline,omitempty"`
	// ByBreath: an out-breath ends its lengthening.
	ByBreath bool `json:"by_breath,omitempty"`

	// Reps counts presses, movements or rounds.
	Reps int `json:"reps,omitempty"`
	// PressMS is one press, RestMS the rest behind it or between two movements.
	PressMS int64 `json:"press_ms,omitempty"`
	RestMS  int64 `json:"rest_ms,omitempty"`
	// AskMS is how long after contact and after an answer the score is asked for.
	AskMS int64 `json:"ask_ms,omitempty"`
	// AngleMS is the pressure after which another angle is tried, once.
	AngleMS int64 `json:"angle_after_ms,omitempty"`
	// RampMS is how long the force rises, while it may.
	RampMS int64 `json:"ramp_ms,omitempty"`
	// StillMS is the stillness at depth or in the position of ease.
	StillMS int64 `json:"still_ms,omitempty"`
	// Tries are searches for a position of ease.
	Tries int `json:"tries,omitempty"`
	// Breaths are out-breaths, of BreathMS each where the coach's clock counts them.
	Breaths  int   `json:"breaths,omitempty"`
	BreathMS int64 `json:"breath_ms,omitempty"`
	// Moves are movements under a kept contact, of MoveMS each.
	Moves  int   `json:"moves,omitempty"`
	MoveMS int64 `json:"move_ms,omitempty"`
	// Places along the muscle at which the same is done.
	Places int `json:"places,omitempty"`
	// PushMS is one contraction against the hand, LengthenMS the stretch after it.
	PushMS     int64 `json:"push_ms,omitempty"`
	LengthenMS int64 `json:"lengthen_ms,omitempty"`
	// Stations along an attachment, each with Strokes along and across.
	Stations int `json:"stations,omitempty"`
	Strokes  int `json:"strokes,omitempty"`
	// StrokeMS is one stroke; SinkMS is the way down to bone depth before.
	StrokeMS int64 `json:"stroke_ms,omitempty"`
	SinkMS   int64 `json:"sink_ms,omitempty"`
	// BroadMS is the wide contact before it is narrowed.
	BroadMS int64 `json:"broad_ms,omitempty"`

	// FirstAim and AimStep (NPRS): presses that climb by the score; without
	// them a press is deeper, the same or lighter than the one before.
	FirstAim float64 `json:"first_aim,omitempty"`
	AimStep  float64 `json:"aim_step,omitempty"`
	// CalmFromRep: from this press on a calm score ends it.
	CalmFromRep int `json:"calm_from_rep,omitempty"`
	// MinGainDeg: a round that gains less than this is the last.
	MinGainDeg float64 `json:"min_gain_deg,omitempty"`
	// Variant is how the same strategy is done otherwise: reciprocal, small, imagined.
	Variant string `json:"variant,omitempty"`

	// TestSoft is the soft ceiling of slack-hold's test alone.
	TestSoft float64 `json:"test_soft,omitempty"`
	// PressMaxMS bounds unbroken pressing (front of the neck).
	PressMaxMS int64 `json:"press_max_ms,omitempty"`
	// AskArm: each asking also asks for the arm.
	AskArm bool `json:"ask_arm,omitempty"`
	// Unsteered: the client's score cannot steer.
	Unsteered bool `json:"unsteered,omitempty"`
}

// Bounds is how far a practice's own copy may set one number, and why.
type Bounds struct {
	Number string  `json:"number"`
	Min    float64 `json:"min"`
	Max    float64 `json:"max"`
	Why    string  `json:"why"`
}

// numbers reach a plan's field by its name: seconds where the name ends in _s,
// else a count.
var numbers = map[string]func(*Plan) any{
	"reps":          func(p *Plan) any { return &p.Reps },
	"press_s":       func(p *Plan) any { return &p.PressMS },
	"rest_s":        func(p *Plan) any { return &p.RestMS },
	"ask_s":         func(p *Plan) any { return &p.AskMS },
	"angle_after_s": func(p *Plan) any { return &p.AngleMS },
	"ramp_s":        func(p *Plan) any { return &p.RampMS },
	"still_s":       func(p *Plan) any { return &p.StillMS },
	"breaths":       func(p *Plan) any { return &p.Breaths },
	"moves":         func(p *Plan) any { return &p.Moves },
	"move_s":        func(p *Plan) any { return &p.MoveMS },
	"places":        func(p *Plan) any { return &p.Places },
	"push_s":        func(p *Plan) any { return &p.PushMS },
	"lengthen_s":    func(p *Plan) any { return &p.LengthenMS },
	"strokes":       func(p *Plan) any { return &p.Strokes },
	"broad_s":       func(p *Plan) any { return &p.BroadMS },
}

// Number gives a tunable number as a practice knows it: seconds or a count.
func (p *Plan) Number(name string) float64 {
	switch f := numbers[name](p).(type) {
	case *int64:
		return seconds(*f)
	case *int:
		return float64(*f)
	}
	return 0
}

// set writes a number in the unit that a practice knows it by: seconds, rounded to ms, or a
// count.
func (p *Plan) set(name string, v float64) {
	switch f := numbers[name](p).(type) {
	case *int64:
		*f = int64(v*1000 + 0.5)
	case *int:
		*f = int(v)
	}
}

// Tuned is a practice's own setting of a protocol: numbers by name, each within
// its bounds. The error is a *decode.Error below "$.numbers".
func (p Protocol) Tuned(tuned map[string]float64) (Plan, error) {
	plan := p.Plan
	for _, name := range sortedKeys(tuned) {
		v := tuned[name]
		i := slices.IndexFunc(p.Tunable, func(b Bounds) bool { return b.Number == name })
		if i < 0 {
			return plan, &decode.Error{
				Path: "$.numbers." + name, Given: fmt.Sprint(v), Allowed: "one of " + p.tunableNames(),
			}
		}
		b := p.Tunable[i]
		whole := strings.HasSuffix(name, "_s") || v == float64(int(v))
		if v < b.Min || v > b.Max || !whole {
			return plan, &decode.Error{
				Path: "$.numbers." + name, Given: fmt.Sprint(v),
				Allowed: fmt.Sprintf("a number from %v to %v: %s", b.Min, b.Max, b.Why),
			}
		}
		plan.set(name, v)
	}
	return plan, nil
}

// sortedKeys makes the first error of several the same each time.
func sortedKeys(m map[string]float64) []string {
	out := make([]string, 0, len(m))
	for k := range m {
		out = append(out, k)
	}
	slices.Sort(out)
	return out
}

// tunableNames lists what may be tuned, for the refusal of what may not.
func (p Protocol) tunableNames() string {
	var names []string
	for _, b := range p.Tunable {
		names = append(names, b.Number)
	}
	if len(names) == 0 {
		return "none: this protocol has no numbers to tune"
	}
	return strings.Join(names, ", ")
}

// Places of the body that make a plan stricter.
var (
	frontOfNeckMuscles = ids.List[ids.Muscle]("sternocleidomastoid-sternal sternocleidomastoid-clavicular")
	armMuscles         = ids.List[ids.Muscle]("scalenus-anterior scalenus-medius scalenus-posterior")
	movedMuscles       = ids.List[ids.Muscle]("psoas-major iliacus")
)

const (
	neckPressMS = 10 * second // unbroken pressing on the front of the neck
	neckCapMS   = 30 * second // in all
	neckAskMS   = 5 * second
	rampBeyond  = 10 * second // a ramp leaves this much of the cap
	minStations = 3
	maxStations = 12
)

// fit puts a plan into the time that its cap leaves. The error says why it
// cannot be done.
func (p *Plan) fit(capMS int64) error {
	short := func(why string) error {
		return &decode.Error{
			Path: "$.cap_seconds", Given: fmt.Sprint(seconds(capMS)), Allowed: why,
		}
	}
	switch p.Strategy {
	case "ramped":
		p.RampMS = min(p.RampMS, capMS-rampBeyond)
	case "paced":
		p.Reps = max(1, min(p.Reps, int(capMS/p.PressMS)))
	case "stations":
		one := p.SinkMS + 2*int64(p.Strokes)*p.StrokeMS
		fits := int(capMS / one)
		if fits < minStations {
			return short(fmt.Sprintf("at least %v, the time of three stations", seconds(minStations*one)))
		}
		p.Stations = max(minStations, min(p.Stations, fits, maxStations))
	case "breath":
		if p.Places == 2 {
			p.Breaths = min(p.Breaths, breathsOfTwo)
		}
	}
	return nil
}
