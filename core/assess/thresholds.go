package assess

import (
	"fmt"

	"mokren/core/decode"
)

// FlagThreshold is where a posture flag begins. A practice may set its own within
// the bounds.
type FlagThreshold struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Value  float64 `json:"value"`
	Unit   string  `json:"unit"`
	Min    float64 `json:"min"`
	Max    float64 `json:"max"`
	Source string  `json:"source"`
}

var thresholds = []FlagThreshold{
	{"shoulder-height", "Shoulder height, slope from", 3, "°", 0.5, 10, workingDefault},
	{"pelvis-height", "Pelvis height, slope from", 3, "°", 0.5, 10, workingDefault},
	{"pelvic-tilt-usual", "Pelvic tilt, usual", 10, "°", 0, 20, workingDefault},
	{"pelvic-tilt", "Pelvic tilt, further from the usual than", 4, "°", 1, 15, workingDefault},
	{"pelvic-tilt-sides", "Pelvic tilt, sides differ by", 4, "°", 1, 15, workingDefault},
	{"scapula-distance", "Blade's border to spine, sides differ by", 1.5, "cm", 0.5, 5, workingDefault},
	{"scapular-upward-rotation", "Scapular upward rotation, sides differ by", 5, "°", 1, 20, workingDefault},
	{"craniovertebral-angle", "Forward head, angle below", 50, "°", 40, 60, workingDefault},
	{"acromion-to-table", "Acromion to table, sides differ by", 1.5, "cm", 0.5, 5, workingDefault},
}

// DefaultThresholds lists the thresholds as shipped.
func DefaultThresholds() []FlagThreshold { return append([]FlagThreshold{}, thresholds...) }

// Thresholds are a practice's own, by id, over the shipped ones.
type Thresholds map[string]float64

// Of gives the threshold that counts; 0 for an id that has none.
func (t Thresholds) Of(id string) float64 {
	if v, ok := t[id]; ok {
		return v
	}
	for _, d := range thresholds {
		if d.ID == id {
			return d.Value
		}
	}
	return 0
}

// source says whether the practice has set it, under any of the names that a measure's
// thresholds have.
func (t Thresholds) source(id string) string {
	for _, k := range []string{id, id + "-usual", id + "-sides"} {
		if _, own := t[k]; own {
			return "set by this practice"
		}
	}
	return workingDefault
}

// CheckThreshold refuses an unknown id and a value out of bounds.
func CheckThreshold(id string, v float64) *decode.Error {
	for _, d := range thresholds {
		if d.ID != id {
			continue
		}
		if v < d.Min || v > d.Max {
			return &decode.Error{
				Path: "$.value", Given: fmt.Sprint(v),
				Allowed: fmt.Sprintf("%v to %v %s", d.Min, d.Max, d.Unit),
			}
		}
		return nil
	}
	return &decode.Error{Path: "$.threshold", Given: fmt.Sprintf("%q", id), Allowed: "an id of the list of thresholds"}
}

// Check implements decode.Checker.
func (t Thresholds) Check() *decode.Error {
	for id, v := range t {
		if e := CheckThreshold(id, v); e != nil {
			return e
		}
	}
	return nil
}
