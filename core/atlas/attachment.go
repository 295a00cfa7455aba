package atlas

import (
	"strings"

	"mokren/core/ids"
)

const attachmentSteps = 16

// AttachmentCM is the length of the muscle's longest attachment along bone, in
// cm: what attachment strokes are spread over.
func (m *Muscle) AttachmentCM(side ids.Side, heightCM float64) float64 {
	longest := 0.0
	for i := range m.Parts {
		s := m.Parts[i].sheet(side)
		scale := s.view.CMPerUnit(heightCM)
		longest = max(longest, s.origin.length()*scale, s.insertion.length()*scale)
	}
	return longest
}

func (c curve) length() float64 {
	sum := 0.0
	last := c.at(0)
	for i := 1; i <= attachmentSteps; i++ {
		p := c.at(float64(i) / attachmentSteps)
		sum += last.Distance(p)
		last = p
	}
	return sum
}

// OfSpine reports whether the muscle moves the spine or the pelvis before any
// limb.
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
