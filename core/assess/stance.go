package assess

import (
	"fmt"
	"math"

	"mokren/core/ids"
)

// posture adds what flagged readings say. A reading within its bounds says nothing against a
// muscle: posture is a weak sign.
func (m *model) posture(list []Posture, own Thresholds) {
	flags := Flags(list, own)
	for i, p := range list {
		if !flags[i].Flagged {
			continue
		}
		// On a pair of sides the larger reading's side is the high one.
		if p.HighSide == "" && p.Side != "" && p.Measure != "pelvic-tilt" {
			p.HighSide = larger(p, list)
			if p.HighSide != p.Side {
				continue // the other reading says it
			}
		}
		for _, hit := range postureMuscles(p, own) {
			for _, mu := range hit.muscles {
				for _, h := range m.on(mu, hit.side) {
					h.add("bearing", "posture:"+string(p.Measure)+":"+string(p.Side), m.w.of("posture").Plus,
						p.inWords()+": "+flags[i].Reason)
				}
			}
		}
	}
}

// inWords is the reading as a reason names it: "Shoulder height 4.0°".
func (p Posture) inWords() string {
	name := sentence(plain(string(p.Measure)))
	switch {
	case p.Degrees != nil && p.HighSide != "": // the side says which way
		return fmt.Sprintf("%s %.1f°", name, math.Abs(*p.Degrees))
	case p.Degrees != nil:
		return fmt.Sprintf("%s %.1f°", name, *p.Degrees)
	case p.CM != nil:
		return fmt.Sprintf("%s %.1f cm", name, *p.CM)
	}
	return name
}

// larger is the side of a pair with the greater reading.
func larger(p Posture, list []Posture) ids.Side {
	val := func(p Posture) float64 {
		switch {
		case p.CM != nil:
			return *p.CM
		case p.Degrees != nil:
			return *p.Degrees
		}
		return 0
	}
	for _, o := range list {
		if o.Measure == p.Measure && o.Side == p.Side.Other() && val(o) > val(p) {
			return o.Side
		}
	}
	return p.Side
}
