package device

// PadSample is one sample of a pressure pad.
type PadSample struct {
	T       float64 `json:"t" minimum:"0" maximum:"86400" doc:"seconds"`
	DepthMM float64 `json:"depth_mm" minimum:"0" maximum:"200"`
	N       float64 `json:"force_n" minimum:"0" maximum:"1000"`
}

// PadReading is what a pad's samples come to at their last one.
type PadReading struct {
	N        float64     `json:"force_n"`
	Touching bool        `json:"touching"`
	First    *Resistance `json:"resistance,omitempty" doc:"of this press; absent before there are enough samples"`
	// CV is the steadiness over the last 3 s, in percent; 0 before that.
	CV float64 `json:"cv_percent"`
	// The band is about the force that the last number was given at, else about
	// the first resistance; absent before either.
	Low  *float64 `json:"low_n,omitempty"`
	High *float64 `json:"high_n,omitempty"`
	In   bool     `json:"in_band"`
	// By is what the band lies about.
	By string `json:"band_by,omitempty" enum:"number,resistance"`
}

const (
	touchN    = 0.5  // force at which the pad has met the skin
	steadyFor = 3.0  // s
	bandShare = 0.15 // of the force, either way
	leastBand = 1.0  // N, either way
)

// ReadPad judges a press from its samples, the first of which may lie before
// contact. at is the force that the last number was given at, 0 for none.
func ReadPad(samples []PadSample, at float64) PadReading {
	out := PadReading{}
	if len(samples) == 0 {
		return out
	}
	last := samples[len(samples)-1]
	out.N, out.Touching = last.N, last.N >= touchN
	var late []float64
	press := make([]DepthForce, 0, len(samples))
	for _, s := range samples {
		if s.N >= touchN {
			press = append(press, DepthForce{s.DepthMM, s.N})
		}
		if s.T >= last.T-steadyFor {
			late = append(late, s.N)
		}
	}
	if last.T-samples[0].T >= steadyFor && out.Touching {
		_, out.CV = MeanCV(late)
	}
	out.By = "number"
	if r, err := FirstResistance(press); err == nil {
		out.First = &r
		if at == 0 && r.Found {
			at, out.By = *r.N, "resistance"
		}
	}
	if at == 0 {
		out.By = ""
	} else {
		wide := max(leastBand, bandShare*at)
		out.Low, out.High = new(round3(max(0, at-wide))), new(round3(at+wide))
		out.In = out.N >= *out.Low && out.N <= *out.High
	}
	return out
}
