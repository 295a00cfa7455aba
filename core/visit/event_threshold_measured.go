package visit

import (
	"mokren/core/device"
	"mokren/core/rights"
)

var thresholdMeasured = kind{
	name: "threshold-measured",
	body: func() Body { return new(ThresholdMeasured) },
	by:   rights.Role.Clinical,
}

// ThresholdMeasured is the pressure pain threshold at a point, or at the same
// place of the other side.
type ThresholdMeasured struct {
	Point UUID `json:"point"`
	// Other is the same place of the other side, beside which a threshold is judged.
	Other bool `json:"other_side,omitempty"`
	// Trials in kPa, three at most, of which the mean counts.
	Trials []float64 `json:"trials_kpa" minItems:"1" maxItems:"3" minimum:"0" maximum:"5000"`
	// Ramp is how fast the pressure rose in each; too fast reads too high.
	Ramp []float64 `json:"ramp_kpa_per_s,omitempty" maxItems:"3" minimum:"-1000" maximum:"1000"`
	// TipCM2 is the area of the tip, by which force becomes pressure.
	TipCM2 float64 `json:"tip_area_cm2" minimum:"0.01" maximum:"20"`
	Moment string  `json:"moment,omitempty" enum:"before,after"`
}

func (b *ThresholdMeasured) about() UUID { return b.Point }

// sets: a point's own threshold and that of the other side are two things.
func (b *ThresholdMeasured) sets(Event) []thing {
	key := "point:" + string(b.Point)
	if b.Other {
		return []thing{{"threshold of the other side", again(key+":threshold-other", b.Moment)}}
	}
	return []thing{{"threshold of a point", again(key+":threshold", b.Moment)}}
}

// apply takes the mean of the trials in kPa, with their spread; a wide spread is flagged and
// kept.
func (b *ThresholdMeasured) apply(r *reducer, _ Event) error {
	p, err := r.point(b.Point)
	if err != nil {
		return err
	}
	t := &PainThreshold{Trials: b.Trials, Ramp: b.Ramp}
	t.KPa, t.CV = device.MeanCV(b.Trials)
	t.Wide = t.CV > device.WideCV
	switch {
	case b.Moment == after && b.Other: // the other side was not pressed: it is not compared again
	case b.Moment == after:
		p.ThresholdAfter = t
	case b.Other:
		p.ThresholdOther = t
	default:
		p.Threshold = t
	}
	return nil
}

func (b *ThresholdMeasured) timeline() string { return "Pressure pain threshold measured" }

// PainThreshold is a pressure pain threshold with its spread.
type PainThreshold struct {
	KPa    float64   `json:"kpa" doc:"mean"`
	Trials []float64 `json:"trials_kpa"`
	CV     float64   `json:"cv_percent"`
	Wide   bool      `json:"wide" doc:"the trials differ by more than 20 %"`
	Ramp   []float64 `json:"ramp_kpa_per_s,omitempty"`
}
