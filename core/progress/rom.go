package progress

import (
	"fmt"

	"mokren/core/ids"
)

// reference values in degrees for adults: AAOS (1965) for the limbs, AMA
// Guides for the spine; hip extension from measured means. jaw.opening in mm.
var references = map[ids.Movement]float64{
	"cervical.flexion": 50, "cervical.extension": 60, "cervical.lateral-flexion": 45, "cervical.rotation": 80,
	"thoracic.rotation": 30, "lumbar.flexion": 60, "lumbar.extension": 25, "lumbar.lateral-flexion": 25,
	"jaw.opening":      40,
	"shoulder.flexion": 180, "shoulder.extension": 60, "shoulder.abduction": 180, "shoulder.horizontal-adduction": 130,
	"shoulder.internal-rotation": 70, "shoulder.external-rotation": 90, "elbow.flexion": 150, "elbow.extension": 0,
	"forearm.pronation": 80, "forearm.supination": 80, "wrist.flexion": 80, "wrist.extension": 70,
	"wrist.radial-deviation": 20, "wrist.ulnar-deviation": 30,
	"hip.flexion": 120, "hip.extension": 20, "hip.abduction": 45, "hip.adduction": 30, "hip.internal-rotation": 45,
	"hip.external-rotation": 45,
	"knee.flexion":          135, "knee.extension": 0, "ankle.dorsiflexion-knee-straight": 10,
	"ankle.dorsiflexion-knee-bent": 20, "ankle.plantarflexion": 50,
	"ankle.inversion": 35, "ankle.eversion": 15, "great-toe.extension": 70,
}

// Measurable is a movement that has a reference range.
type Measurable struct {
	Movement  ids.Movement `json:"movement"`
	Reference float64      `json:"reference" doc:"degrees, mm for jaw.opening"`
	Sides     []ids.Side   `json:"sides"`
}

// midlineMovements have no side.
var midlineMovements = map[ids.Movement]bool{
	"cervical.flexion": true, "cervical.extension": true,
	"lumbar.flexion": true, "lumbar.extension": true, "jaw.opening": true,
}

// MeasurableMovements lists the movements with a reference range, in the order
// of the body.
func MeasurableMovements() []Measurable {
	out := []Measurable{}
	for _, m := range ids.Movements() {
		if ref, ok := references[m]; ok {
			sides := []ids.Side{ids.Left, ids.Right}
			if midlineMovements[m] {
				sides = []ids.Side{ids.Midline}
			}
			out = append(out, Measurable{m, ref, sides})
		}
	}
	return out
}

// Reference is the usual range of a movement at an age in years (0 for
// unknown): over 60 times 0.9, over 75 times 0.85 (working default).
func Reference(m ids.Movement, age int) (deg float64, ok bool) {
	deg, ok = references[m]
	switch {
	case age > 75:
		deg *= 0.85
	case age > 60:
		deg *= 0.9
	}
	return deg, ok
}

// RangeFlag tells whether a reading is short, with the reason. other is the
// other side's reading, if there is one.
type RangeFlag struct {
	Flagged   bool    `json:"flagged"`
	Reference float64 `json:"reference"`
	FlagBelow float64 `json:"flag_below" doc:"readings below this are short"`
	Reason    string  `json:"reason,omitempty"`
}

// Flag applies the range rule: references of 40 and more are short below 85 %
// or when the sides differ by 10; smaller ones when 5 short or the sides
// differ by 5; a reference of 0 when 5 short.
func Flag(m ids.Movement, deg float64, other *float64, age int) RangeFlag {
	ref, ok := Reference(m, age)
	if !ok {
		return RangeFlag{}
	}
	f := RangeFlag{Reference: ref}
	limit, sides := ref-5, 5.0
	if references[m] >= 40 {
		limit, sides = ref*0.85, 10
		f.FlagBelow = limit
		f.Flagged = deg < limit-tolerance
	} else {
		f.FlagBelow = limit
		f.Flagged = deg <= limit+tolerance
	}
	if f.Flagged {
		f.Reason = fmt.Sprintf("%v° (usual %v°)", clean(deg), clean(ref))
	}
	if other != nil && references[m] != 0 && *other-deg >= sides-tolerance {
		f.Flagged = true
		if f.Reason != "" {
			f.Reason += "; "
		}
		f.Reason += fmt.Sprintf("%v° less than the other side", clean(*other-deg))
	}
	return f
}
