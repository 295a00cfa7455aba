package safety

import (
	"slices"

	"mokren/core/ids"
)

// Forbids tells why a screening lets a school of treatment not be used, or "".
// frontOfNeck: the place pressed lies there.
func (s Screening) Forbids(p ids.Protocol, frontOfNeck bool) string {
	switch {
	case s.Limits.NumberCannotSteer && p != "hold-to-release":
		return "The client's number cannot steer today: only hold to release, broad, 30 s."
	case frontOfNeck && s.has("anticoagulant"):
		return "Nothing on the front of the neck with an anticoagulant or bleeding disorder."
	case p != "resisted-lengthening":
		return ""
	case s.has("hypermobility"), s.has("osteoporosis"):
		return "Resisted lengthening: not with hypermobility or osteoporosis."
	case s.has("stiff-shoulder-painful"):
		return "Resisted lengthening: not while a stiff shoulder is in its painful stage."
	}
	return ""
}

func (s Screening) has(q ids.Question) bool {
	return slices.ContainsFunc(s.Rules, func(a Applied) bool { return a.ID == q })
}
