package visit

import (
	"slices"

	"mokren/core/assess"
	"mokren/core/rights"
	"mokren/core/wording"
)

var postureRead = kind{
	name: "posture-read",
	body: func() Body { return new(PostureRead) },
	by:   rights.Role.Clinical,
}

// PostureRead is a caliper-inclinometer reading.
type PostureRead struct{ assess.Posture }

// sets: a reading is of one measure on one side.
func (b *PostureRead) sets(Event) []thing {
	return []thing{{"posture reading", "posture:" + string(b.Measure) + ":" + string(b.Side)}}
}

// apply keeps the latest reading of each measure and side.
func (b *PostureRead) apply(r *reducer, _ Event) error {
	r.state.Posture = slices.DeleteFunc(r.state.Posture,
		func(p assess.Posture) bool { return p.Measure == b.Measure && p.Side == b.Side })
	r.state.Posture = append(r.state.Posture, b.Posture)
	return nil
}

func (b *PostureRead) timeline() string { return "Posture read: " + wording.Plain(b.Measure) }
