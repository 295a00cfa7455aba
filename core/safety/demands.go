package safety

import (
	"slices"

	"mokren/core/ids"
)

// Demands is what a protocol asks of the client, beside bearing the pressure.
type Demands struct {
	// Works: the muscle contracts against resistance. Lengthens: it is brought to length.
	Works, Lengthens bool
	// Eccentric: it contracts while it is lengthened.
	Eccentric bool
	// ScoreOptional: it can be done where the client's score cannot steer.
	ScoreOptional bool
}

// Forbids tells why a screening does not let a protocol be used, or "". frontOfNeck: the
// place pressed lies there.
func (s Screening) Forbids(d Demands, frontOfNeck bool) string {
	switch {
	case s.Limits.ScoreCannotSteer && !d.ScoreOptional:
		return "The client's number cannot steer today: only hold to release, broad, 30 s."
	case frontOfNeck && s.has("anticoagulant"):
		return "Nothing on the front of the neck with an anticoagulant or bleeding disorder."
	case !d.Eccentric:
		return ""
	case s.has("hypermobility"), s.has("osteoporosis"):
		return "Resisted lengthening: not with hypermobility or osteoporosis."
	case s.has("stiff-shoulder-painful"):
		return "Resisted lengthening: not while a stiff shoulder is in its painful stage."
	}
	return ""
}

// has reports whether an answer has set off a rule.
func (s Screening) has(q ids.Question) bool {
	return slices.ContainsFunc(s.Rules, func(a AppliedRule) bool { return a.ID == q })
}
