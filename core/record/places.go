package record

import (
	"fmt"
	"slices"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
)

// Spot is where a hand is: on a muscle, and on the body.
type Spot struct {
	Muscle ids.Muscle       `json:"muscle,omitempty"`
	Side   ids.Side         `json:"side"`
	Place  atlas.FibrePlace `json:"place"`
	Where  []safety.Place   `json:"where"`
}

// PressedPlace is a sign during a hold, with where the hand was. Signs close places
// for the client and the day, on every device and in every visit of that day,
// whatever follows.
type PressedPlace struct {
	Spot
	Sign string `json:"sign" enum:"nerve-sign,pulse,unwell,skin-reaction"`
	AtMS int64  `json:"at_ms"`
	Hold string `json:"hold"`
	// From is the event; it is not known for another visit's sign.
	From Stamp `json:"-"`
}

// The signs, and how often one closes its site (handbook 2).
const (
	unwell   = "unwell"
	skin     = "skin-reaction"
	nerve    = "nerve-sign"
	pulse    = "pulse"
	nervesIn = 2
	pulsesIn = 3
)

// IsSign reports whether an event of a hold is one of the signs that count.
func IsSign(kind string) bool {
	return kind == unwell || kind == skin || kind == nerve || kind == pulse
}

// ClosesAt reports whether a sign of this kind closes, being the nth there.
func ClosesAt(kind string, nth int) bool {
	switch kind {
	case nerve:
		return nth >= nervesIn
	case pulse:
		return nth >= pulsesIn
	}
	return kind == unwell || kind == skin
}

// before reports whether an answer was given after the sign: by the device's own sequence,
// else by when both were said.
func (p PressedPlace) before(a Stamp) bool {
	if p.From.Event != "" && a.Device == p.From.Device {
		return a.Seq > p.From.Seq
	}
	return a.SaidMS > p.AtMS
}

// Treatment is a treatment: a hold with pressure enough to count.
type Treatment struct {
	Spot
	Hold string `json:"hold"`
	AtMS int64  `json:"at_ms"`
}

// At one place a client is treated so often a day, by holds of so many seconds.
const (
	MostADay      = 2
	LeastPressedS = 5
)

// Day is what the hands have done and met on the body, of all visits.
type Day struct {
	Signs   []PressedPlace
	Treated []Treatment
}

// Same reports whether two spots are one site: the same muscle and side, within the
// tolerance of a point's identity.
func (s Spot) Same(o Spot, heightCM float64) bool {
	// A step of a sequence may name a region alone.
	if s.Muscle == "" || o.Muscle == "" {
		return s.sharesRegion(o)
	}
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

// Today leaves those of the practice's day of a moment.
func (c Client) Today(d Day, ms int64) Day {
	var out Day
	day := c.day(ms)
	for _, p := range d.Signs {
		if p.Sign != "" && c.day(p.AtMS) == day {
			out.Signs = append(out.Signs, p)
		}
	}
	for _, t := range d.Treated {
		if c.day(t.AtMS) == day {
			out.Treated = append(out.Treated, t)
		}
	}
	return out
}

// Height is the client's, or a middling one.
func (c Client) Height() float64 {
	if c.HeightCM > 0 {
		return c.HeightCM
	}
	return body.DefaultHeightCM
}

// Closed tells why a place takes no more pressure on this day, or "".
func (d Day) Closed(at Spot, heightCM float64) string {
	nerves, pulses := 0, 0
	for _, s := range d.Signs {
		here := s.Same(at, heightCM)
		switch s.Sign {
		case unwell:
			if here {
				return "Closed for today: the client felt unwell here."
			}
			if safety.OnNeck(at.Muscle, at.Where) {
				return "The neck is closed for today: the client felt unwell."
			}
		case skin:
			if here || s.sharesRegion(at) {
				return "Closed for today: the skin reacted here."
			}
		case nerve:
			if here {
				nerves++
			}
		case pulse:
			if here {
				pulses++
			}
		}
	}
	switch {
	case nerves >= nervesIn:
		return fmt.Sprintf("Closed for today: a nerve sign %s.", times(nerves))
	case pulses >= pulsesIn:
		return fmt.Sprintf("Closed for today: a pulse under the finger %s.", times(pulses))
	}
	return ""
}

// Times counts the day's treatments of a place.
func (d Day) Times(at Spot, heightCM float64) int {
	n := 0
	for _, t := range d.Treated {
		if t.Same(at, heightCM) {
			n++
		}
	}
	return n
}

// Enough tells that a place was treated as often as a day allows, or "".
func (d Day) Enough(at Spot, heightCM float64) string {
	if d.Times(at, heightCM) < MostADay {
		return ""
	}
	return "Treated twice today: that is enough for this place."
}

// FeltUnwell reports whether the client felt unwell on this day.
func (d Day) FeltUnwell() bool {
	return slices.ContainsFunc(d.Signs, func(p PressedPlace) bool { return p.Sign == unwell })
}

// times counts treatments in words.
func times(n int) string {
	if n == 2 {
		return "twice"
	}
	return fmt.Sprintf("%d times", n)
}
