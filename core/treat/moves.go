package treat

import (
	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
)

// Moves tells why a client's answers forbid what a protocol asks of the joints, beside
// the pressure, or "", and what to say with it where they do not.
func Moves(p ids.Protocol, muscle ids.Muscle, side ids.Side, s safety.Screening) (no string, say []string) {
	m, err := atlas.Get(muscle)
	if err != nil {
		return "", nil
	}
	demands := demandsOf(p)
	var asks []safety.Motion
	if demands.Works {
		asks = append(asks, m.Worked())
	}
	if demands.Lengthens {
		asks = append(asks, m.Lengthened())
	}
	for _, a := range asks {
		no, cautions := s.Moves(a, muscle, m.Places(side))
		if no != "" {
			return no, nil
		}
		for _, c := range cautions {
			say = ids.With(say, c)
		}
	}
	return "", say
}

// Forbids tells why a screening does not let a protocol be used, or "". frontOfNeck: the
// place pressed lies there.
func Forbids(p ids.Protocol, s safety.Screening, frontOfNeck bool) string {
	return s.Forbids(demandsOf(p), frontOfNeck)
}

// demandsOf gives the demands of a protocol's row; an id that is not known asks for nothing.
func demandsOf(p ids.Protocol) safety.Demands {
	known, _ := Find(p)
	return known.Demands
}
