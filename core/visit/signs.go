package visit

import (
	"fmt"
	"slices"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
)

// Spot is where a hand is: on a muscle, and on the body.
type Spot struct {
	Muscle ids.Muscle       `json:"muscle"`
	Side   ids.Side         `json:"side"`
	Place  atlas.FibrePlace `json:"place"`
	Where  []safety.Place   `json:"where"`
}

// Pressed is a sign during a hold, with where the hand was. Signs close places
// for the client and the day, on every device and in every visit of that day,
// whatever follows.
type Pressed struct {
	Spot
	Sign string `json:"sign" enum:"nerve-sign,pulse,unwell,skin-reaction"`
	AtMS int64  `json:"at_ms"`
	Hold UUID   `json:"hold"`
	// from is the event; it is not known for another visit's sign.
	from Event
}

// How often a sign closes its site (handbook 2).
const (
	nervesClose = 2
	pulsesClose = 3
)

// closesAt reports whether a sign of this kind closes, being the nth there.
func closesAt(kind treat.Kind, nth int) bool {
	switch kind {
	case treat.KindUnwell, treat.KindSkinReaction:
		return true
	case treat.KindNerveSign:
		return nth >= nervesClose
	case treat.KindPulse:
		return nth >= pulsesClose
	}
	return false
}

// isSign reports whether an event of a hold is one of the signs that count.
func isSign(kind string) bool {
	switch treat.Kind(kind) {
	case treat.KindUnwell, treat.KindSkinReaction, treat.KindNerveSign, treat.KindPulse:
		return true
	}
	return false
}

// sameSite: the same muscle and side, within the tolerance of a point's
// identity.
func (s Spot) sameSite(o Spot, heightCM float64) bool {
	if s.Muscle != o.Muscle || s.Side != o.Side {
		return false
	}
	m, err := atlas.Get(s.Muscle)
	return err != nil || m.SameSite(s.Place, o.Place, s.Side, heightCM)
}

// sharesRegion reports whether two spots lie in one region of one side.
func (s Spot) sharesRegion(o Spot) bool {
	return slices.ContainsFunc(s.Where, func(p safety.Place) bool { return slices.Contains(o.Where, p) })
}

// closedBy tells why a spot is closed for today, or "".
func closedBy(signs []Pressed, at Spot, heightCM float64) string {
	nerves, pulses := 0, 0
	for _, s := range signs {
		here := s.sameSite(at, heightCM)
		switch treat.Kind(s.Sign) {
		case treat.KindUnwell:
			if here {
				return "Closed for today: the client felt unwell here."
			}
			if safety.OnNeck(at.Muscle, at.Where) {
				return "The neck is closed for today: the client felt unwell."
			}
		case treat.KindSkinReaction:
			if here || s.sharesRegion(at) {
				return "Closed for today: the skin reacted here."
			}
		case treat.KindNerveSign:
			if here {
				nerves++
			}
		case treat.KindPulse:
			if here {
				pulses++
			}
		}
	}
	switch {
	case nerves >= nervesClose:
		return fmt.Sprintf("Closed for today: a nerve sign %s.", times(nerves))
	case pulses >= pulsesClose:
		return fmt.Sprintf("Closed for today: a pulse under the finger %s.", times(pulses))
	}
	return ""
}

// ownSigns are the signs of this visit that count.
func (j *Judge) ownSigns() []Pressed {
	out := []Pressed{}
	for _, s := range j.signs {
		if s.from.ID != "" && s.Sign != "" {
			s.from = Event{}
			out = append(out, s)
		}
	}
	return out
}

func times(n int) string {
	if n == 2 {
		return "twice"
	}
	return fmt.Sprintf("%d times", n)
}
