package treat

import (
	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
)

// Moves tells why a client's answers forbid what a protocol asks of the joints, beside
// the pressure, or "".
func Moves(p ids.Protocol, muscle ids.Muscle, side ids.Side, s safety.Screening) string {
	m, err := atlas.Get(muscle)
	if err != nil {
		return ""
	}
	var asks []safety.Motion
	switch p {
	case "contract-relax", "resisted-lengthening":
		asks = []safety.Motion{m.Worked(), m.Lengthened()}
	case "pin-and-stretch":
		asks = []safety.Motion{m.Lengthened()}
	}
	for _, a := range asks {
		if no, _ := s.Moves(a, muscle, m.Places(side)); no != "" {
			return no
		}
	}
	return ""
}
