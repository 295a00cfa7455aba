package treat

import (
	"slices"

	"mokren/core/ids"
	"mokren/core/safety"
)

// Protocol is one way of treating a spot: which kind of strategy runs it, its limits, its
// numbers, and what it asks of the client. All that is known of a protocol is in its row.
type Protocol struct {
	ID   ids.Protocol
	Name string
	// What is done, in a line.
	What string
	// Limits are the highest; a place and a screening lower them.
	Limits safety.Limits
	// Demands are what it asks of joints and client, by which the screening can forbid it.
	Demands safety.Demands
	// ShortPresses: short enough for the front of the neck.
	ShortPresses bool
	// InSlack: it wants the muscle short.
	InSlack bool
	// Plan holds the numbers that a practice has not tuned.
	Plan Plan
	// Tunable are the numbers that a practice's own copy may set, and how far.
	Tunable []Bounds
	// LeastCapMS is the shortest cap in which it can be done at all.
	LeastCapMS int64
}

// The defaults are practitioners' working choices or from trials: 90 s at the
// pain threshold or 30 s midway to tolerance (Hou et al. 2002). Where pressing
// is not what is done (resisted-lengthening, contract-relax) the score is of
// the stretch, the pressure clock stands, and the whole lasts 180 s at most.
var protocols = []Protocol{
	{
		ID: "graded-stages", Name: "Graded stages",
		What:   "Press to the number, hold still; when it has dropped, sink to it again on an out-breath.",
		Limits: safety.Limits{Target: 6, Soft: 7, Hard: 8, CapMS: 90 * second},
		Plan:   Plan{Strategy: "stages", Presses: true, Returns: true},
	},
	{
		ID: "hold-to-release", Name: "Hold to release",
		Demands: safety.Demands{ScoreOptional: true},
		What:    "Press to the first resistance only and hold until the tissue softens.",
		Limits:  safety.Limits{Target: 4, Soft: 5, Hard: 7, CapMS: 120 * second},
		Plan:    Plan{Strategy: "steady", Presses: true, Returns: true, AngleMS: 60 * second},
		Tunable: []Bounds{{"angle_after_s", 30, 90, "When nothing has changed, another angle is tried."}},
	},
	{
		ID: "short-repeats", Name: "Short repeats",
		ShortPresses: true,
		What:         "A few short holds, each a little deeper.",
		Limits:       safety.Limits{Target: 5, Soft: 6, Hard: 8, CapMS: 48 * second},
		LeastCapMS:   6 * second,
		Plan: Plan{
			Strategy: "paced", Presses: true, Returns: true,
			Reps: 4, PressMS: 7 * second, RestMS: 4 * second, CalmFromRep: 2,
		},
		Tunable: []Bounds{
			{"press_s", 6, 8, "Shorter does not reach the tissue, longer is another protocol."},
			{"rest_s", 2, 6, "Blood returns in a few seconds; longer rests lose the pace."},
			{"reps", 3, 6, "Fewer tell nothing, more only irritate."},
		},
	},
	{
		ID: "pulses", Name: "Pulses",
		ShortPresses: true,
		What:         "On and off, a little more each time while it stays calm.",
		Limits:       safety.Limits{Target: 5, Soft: 5, Hard: 6, CapMS: 96 * second}, LeastCapMS: 3 * second,
		Plan: Plan{
			Strategy: "paced", Presses: true, Returns: true,
			Reps: 10, PressMS: 5 * second, RestMS: 5 * second, FirstAim: 3, AimStep: 0.5,
		},
		Tunable: []Bounds{
			{"press_s", 3, 8, "A pulse ends before a sensitised tissue answers it."},
			{"rest_s", 3, 8, "As long off as on, or nearly."},
			{"reps", 6, 12, "It is a beginning, not the treatment."},
		},
	},
	{
		ID: "slow-ramp", Name: "Slow ramp",
		What:   "The force rises evenly while the number stays comfortable.",
		Limits: safety.Limits{Target: 4, Soft: 5, Hard: 6, CapMS: 120 * second}, LeastCapMS: 70 * second,
		Plan:    Plan{Strategy: "ramped", Presses: true, Returns: true, RampMS: 90 * second},
		Tunable: []Bounds{{"ramp_s", 60, 110, "The cap must leave 10 s beyond the ramp."}},
	},
	{
		ID: "brief-holds", Name: "Brief holds",
		ShortPresses: true,
		What:         "Hold, ask until it is low, lift, flush, return from another angle.",
		Limits:       safety.Limits{Target: 7, Soft: 7, Hard: 8, CapMS: 90 * second},
		Plan: Plan{
			Strategy: "brief", Presses: true, Returns: true,
			Reps: 4, PressMS: 30 * second, AskMS: 8 * second,
		},
		Tunable: []Bounds{
			{"reps", 2, 5, "Each comes from another angle; there are not many."},
			{"ask_s", 6, 10, "The client needs time to feel a change."},
		},
	},
	{
		ID: "slack-hold", Name: "Slack hold",
		InSlack: true,
		What:    "Shorten the muscle until the tenderness is mostly gone; keep still.",
		Limits:  safety.Limits{Target: 3, Soft: 3, Hard: 5, CapMS: 120 * second}, LeastCapMS: 60 * second,
		Plan:    Plan{Strategy: "positional", Presses: true, Returns: true, StillMS: 90 * second, Tries: 3},
		Tunable: []Bounds{{"still_s", 30, 90, "Most of the change comes in the first 90 s."}},
	},
	{
		ID: "breath-sink", Name: "Breath sink",
		InSlack: true,
		What:    "Deeper only on each out-breath; stop at depth and hold still.",
		Limits:  safety.Limits{Target: 4, Soft: 5, Hard: 6, CapMS: 90 * second}, LeastCapMS: 30 * second,
		Plan: Plan{
			Strategy: "breath", Presses: true, Returns: true,
			Breaths: 6, BreathMS: 5 * second, StillMS: 10 * second, MoveMS: 8 * second, Places: 1,
		},
		Tunable: []Bounds{
			{"breaths", 3, 6, "Depth is reached in a few breaths or not today."},
			{"still_s", 8, 15, "Long enough to feel a change at depth."},
			{"moves", 0, 3, "The client moves the limb under the contact."},
			{"places", 1, 2, "More than two places is another treatment."},
		},
	},
	{
		ID: "press-and-move", Name: "Press and move",
		What:       "Keep the pressure while the client moves.",
		Limits:     safety.Limits{Target: 5, Soft: 6, Hard: 8, CapMS: 90 * second},
		LeastCapMS: 30 * second,
		Plan: Plan{
			Strategy: "movements", Presses: true, Returns: true, Reps: 4, MoveMS: 8 * second, Baseline: true,
		},
		Tunable: []Bounds{{"reps", 3, 5, "Slowly, through the whole movement."}},
	},
	{
		ID: "resisted-lengthening", Name: "Resisted lengthening",
		Demands: safety.Demands{Works: true, Lengthens: true, Eccentric: true},
		What:    "The client resists while you slowly win.",
		Limits:  safety.Limits{Target: 3, Soft: 3, Hard: 5, CapMS: 120 * second},
		Plan: Plan{
			Strategy: "movements", Reps: 3, MoveMS: 7 * second, RestMS: 5 * second, TotalMS: 180 * second,
			MinGainDeg: 5,
		},
		Tunable: []Bounds{
			{"reps", 2, 5, "Contraction while lengthening makes sore in numbers."},
			{"move_s", 5, 8, "Slowly, and never jerking."},
		},
	},
	{
		ID: "contract-relax", Name: "Contract relax",
		Demands: safety.Demands{Works: true, Lengthens: true},
		What:    "Lengthen, push gently against the hand, breathe, lengthen again.",
		Limits:  safety.Limits{Target: 3, Soft: 3, Hard: 5, CapMS: 120 * second},
		Plan: Plan{
			Strategy: "rounds", Reps: 3, PushMS: 15 * second, RestMS: 3 * second, LengthenMS: 10 * second,
			TotalMS: 180 * second, MinGainDeg: 5,
		},
		Tunable: []Bounds{
			{"reps", 2, 4, "After the third round little is gained."},
			{"push_s", 10, 20, "Gently; strength is not what lets it go."},
			{"lengthen_s", 6, 15, "Into what the breath has given."},
		},
	},
	{
		ID: "pin-and-stretch", Name: "Pin and stretch",
		Demands:    safety.Demands{Lengthens: true},
		What:       "Pin at the barrier and lengthen with the breath.",
		Limits:     safety.Limits{Target: 5, Soft: 6, Hard: 7, CapMS: 60 * second},
		LeastCapMS: 20 * second,
		Plan: Plan{
			Strategy: "pinned", Presses: true, Returns: true, ByBreath: true, Breaths: 4, BreathMS: 5 * second,
			Baseline: true,
		},
		Tunable: []Bounds{{"breaths", 3, 5, "On the out-breath; the in-breath waits."}},
	},
	{
		ID: "attachment-strokes", Name: "Attachment strokes",
		InSlack:    true,
		What:       "At bone depth along the attachment: strokes one way, then across.",
		Limits:     safety.Limits{Target: 4, Soft: 5, Hard: 7, CapMS: 120 * second},
		LeastCapMS: 60 * second,
		Plan: Plan{
			Strategy: "stations", Presses: true, Returns: true, Stations: 6, Strokes: 3,
			StrokeMS: 2 * second, SinkMS: 8 * second, RestMS: 5 * second,
		},
		Tunable: []Bounds{{"strokes", 2, 4, "Each way, at bone depth, without sliding on the skin."}},
	},
	{
		ID: "broad-first", Name: "Broad first",
		InSlack: true,
		What:    "A wide contact with small movements, then narrow.",
		Limits:  safety.Limits{Target: 4, Soft: 5, Hard: 6, CapMS: 90 * second}, LeastCapMS: 40 * second,
		Plan:    Plan{Strategy: "broad", Presses: true, Returns: true, BroadMS: 45 * second},
		Tunable: []Bounds{{"broad_s", 30, 60, "A place prone to cramp is asked gently first."}},
	},
}

// Protocols lists them all, in the order in which they are offered.
func Protocols() []Protocol { return slices.Clone(protocols) }

// Find gives a protocol by its id.
func Find(id ids.Protocol) (Protocol, bool) {
	i := slices.IndexFunc(protocols, func(p Protocol) bool { return p.ID == id })
	if i < 0 {
		return Protocol{}, false
	}
	return protocols[i], true
}
