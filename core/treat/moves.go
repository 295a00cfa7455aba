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
	var asks []safety.Motion
	switch p {
	case "contract-relax", "resisted-lengthening":
		asks = []safety.Motion{m.Worked(), m.Lengthened()}
	case "pin-and-stretch":
		asks = []safety.Motion{m.Lengthened()}
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
