package visit

import (
	"slices"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/wording"
)

var postureRead = kind{
	name: "posture-read",
	body: func() Body { return new(PostureRead) },
	by:   rights.Role.Clinical,
}

// PostureRead is a caliper-inclinometer reading, before treatment where nothing else is said.
type PostureRead struct {
	assess.Posture
	Moment string `json:"moment,omitempty" enum:"before,after"`
}

// sets: a reading is of one measure on one side at one moment.
func (b *PostureRead) sets(Event) []thing {
	return []thing{{"posture reading", again("posture:"+string(b.Measure)+":"+string(b.Side), b.Moment)}}
}

// again is the key of what is looked at after treatment: a thing of its own.
func again(key, moment string) string {
	if moment == after {
		return key + ":" + after
	}
	return key
}

// after treatment; what is absent or "before" is of before.
const after = "after"

// apply keeps the latest reading of each measure and side at its moment.
func (b *PostureRead) apply(r *reducer, _ Event) error {
	list := &r.state.Posture
	if b.Moment == after {
		list = &r.state.PostureAfter
	}
	*list = append(slices.DeleteFunc(*list,
		func(p assess.Posture) bool { return p.Measure == b.Measure && p.Side == b.Side }), b.Posture)
	return nil
}

// postureAfter is the reading after treatment of one measure on one side.
func (s State) postureAfter(m ids.Measure, side ids.Side) (assess.Posture, bool) {
	i := slices.IndexFunc(s.PostureAfter, func(p assess.Posture) bool { return p.Measure == m && p.Side == side })
	if i < 0 {
		return assess.Posture{}, false
	}
	return s.PostureAfter[i], true
}

func (b *PostureRead) timeline() string { return "Posture read: " + wording.Plain(b.Measure) }
