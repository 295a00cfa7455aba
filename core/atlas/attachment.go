package atlas

import (
	"strings"

	"mokren/core/body"
	"mokren/core/ids"
)

// AttachmentCM is the length of the muscle's longest attachment along bone, in
// cm: what attachment strokes are spread over.
func (m *Muscle) AttachmentCM(side ids.Side, heightCM float64) float64 {
	_, _, length := m.longestAttachment(side, heightCM)
	return length
}

// Stations are n places at even distances along the longest attachment, where
// attachment strokes are given, and the view that they are drawn on.
func (m *Muscle) Stations(side ids.Side, n int, heightCM float64) (body.View, []body.Point) {
	view, along, _ := m.longestAttachment(side, heightCM)
	out := make([]body.Point, n)
	for i := range out {
		out[i] = along.at((float64(i) + 0.5) / float64(n))
	}
	return view, out
}

// longestAttachment compares the origin and the insertion of every part, in cm: a fan that is
// narrow at one bone is worked at the other.
func (m *Muscle) longestAttachment(side ids.Side, heightCM float64) (view body.View, along curve, cm float64) {
	cm = -1
	for i := range m.Parts {
		s := m.Parts[i].sheet(side)
		scale := s.view.CMPerUnit(heightCM)
		for _, c := range []curve{s.origin, s.insertion} {
			if length := c.length() * scale; length > cm {
				view, along, cm = s.view, c, length
			}
		}
	}
	return view, along, cm
}

// OfSpine reports whether the muscle moves the spine or the pelvis before any limb: whether its
// first action, which is its strongest, is of the trunk.
func (m *Muscle) OfSpine() bool {
	for _, a := range m.Actions {
		joint, _, _ := strings.Cut(string(a.Movement), ".")
		switch joint {
		case "cervical", "lumbar", "trunk", "pelvis", "breathing", "jaw":
			return true
		}
		return false
	}
	return false
}
