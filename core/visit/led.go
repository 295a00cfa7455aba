package visit

import (
	"slices"

	"mokren/core/assess"
	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
)

// Guidance leads through a stiff shoulder: how the arm lies, the muscles in their
// order, and what is not done.
type Guidance struct {
	// Side of the shoulder that is stiff.
	Side ids.Side `json:"side"`
	Why  string   `json:"why"`
	// Arm says how it lies, so that nothing pulls on the capsule.
	Arm string `json:"arm"`
	// Order of the muscles, from the easiest to reach.
	Order    []GuidanceStep `json:"order"`
	Cautions []string       `json:"cautions"`
}

// GuidanceStep is one muscle of the order.
type GuidanceStep struct {
	Muscle ids.Muscle `json:"muscle"`
	Name   string     `json:"name"`
	How    string     `json:"how"`
}

// shoulderOrder is the order of the handbook: front of the chest, small chest
// muscle with the coracoid, biceps tendon, back of the shoulder, under the blade,
// teres.
var shoulderOrder = []GuidanceStep{
	{Muscle: "pectoralis-major", How: "Front of the chest: grasp the fold towards the arm."},
	{Muscle: "pectoralis-minor", How: "Through the large one, to the tender coracoid."},
	{Muscle: "biceps-brachii", How: "The tendon in its groove, lightly; the client turns the arm a little."},
	{Muscle: "infraspinatus", How: "The back of the shoulder; a small outward turn under the finger."},
	{Muscle: "subscapularis", How: "Under the blade, in front of its free border; turning inward confirms it."},
	{Muscle: "teres-major", How: "The lower border of the armpit, grasped."},
	{Muscle: "teres-minor", How: "Above it, on the outer border of the blade."},
}

const (
	armAt90   = "Arm at 90° to the side, or at 30–40° where that hurts."
	armInPain = "Arm at 30–40°, supported; nothing is forced in its painful stage."
)

var shoulderCautions = []string{
	"Active and passive range before and after.",
	"Press with small, resisted or imagined movement; small counts.",
	"The joint itself is for joint mobilisation where the licence covers it, else a referral.",
}

// leads gives the shoulders that are led: by the readings, or by the screening.
func (s State) leads(ctx Context) []Guidance {
	painful := slices.ContainsFunc(s.Screening.Rules, func(a safety.AppliedRule) bool {
		return a.ID == "stiff-shoulder-painful"
	})
	out := []Guidance{}
	for _, side := range assess.StiffShoulders(s.Findings(ctx, nil, 0).ROM, ctx.Age) {
		l := Guidance{
			Side: side, Why: "Active and passive range are equally short, in the order of a stiff shoulder.",
			Arm: armAt90, Cautions: shoulderCautions, Order: slices.Clone(shoulderOrder),
		}
		if painful {
			l.Arm = armInPain
		}
		for i := range l.Order {
			if m, err := atlas.Get(l.Order[i].Muscle); err == nil {
				l.Order[i].Name = m.Name
			}
		}
		out = append(out, l)
	}
	return out
}
