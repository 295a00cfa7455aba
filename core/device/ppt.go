package device

import (
	"fmt"
	"math"
	"slices"

	"mokren/core/decode"
)

// Force is one sample of an algometer: the force on its tip at a time.
type Force struct {
	T float64 `json:"t" minimum:"0" maximum:"86400" doc:"seconds"`
	N float64 `json:"force_n" minimum:"0" maximum:"1000"`
}

// Trial is one ramp, stopped by the client when pressure turns to pain.
type Trial struct {
	Samples  []Force `json:"samples" minItems:"2" maxItems:"20000"`
	StoppedT float64 `json:"stopped_at_t" minimum:"0" maximum:"86400" doc:"seconds"`
}

// PPT is the pressure pain threshold over some trials.
type PPT struct {
	KPa    float64   `json:"kpa" doc:"mean of the trials"`
	Trials []float64 `json:"trials_kpa"`
	// CV is the standard deviation by the mean; over 20 % the trials disagree.
	CV   float64   `json:"cv_percent"`
	Ramp []float64 `json:"ramp_kpa_per_s" doc:"rise of each trial, from contact to the stop"`
	Wide bool      `json:"wide" doc:"cv over 20 %"`
}

// Trials and their spacing; a ramp within these bounds counts as even enough.
// Published reliability studies of algometry use 30 to 50 kPa/s and rests of 10 s
// and more; the bounds are working values around them.
const (
	MostTrials  = 3
	RestS       = 10.0
	RampSlowKPa = 20.0
	RampFastKPa = 60.0
	WideCV      = 20.0
	// contactN is the force at which the tip has met the skin.
	contactN = 0.5
)

// kPaPerNcm2: one newton on a square centimetre is 10 kPa.
const kPaPerNcm2 = 10.0

// MeasurePPT computes the threshold from its trials with a tip of some cm².
func MeasurePPT(trials []Trial, tipCM2 float64) (PPT, error) {
	out := PPT{Trials: []float64{}, Ramp: []float64{}}
	for i, t := range trials {
		if err := t.check(i); err != nil {
			return PPT{}, err
		}
		out.Trials = append(out.Trials, round3(t.at(t.StoppedT)*kPaPerNcm2/tipCM2))
		out.Ramp = append(out.Ramp, round3(t.rise()*kPaPerNcm2/tipCM2))
	}
	out.KPa, out.CV = MeanCV(out.Trials)
	out.Wide = out.CV > WideCV
	return out, nil
}

// MeanCV gives the mean of some readings and their coefficient of variation in
// percent (sample deviation; 0 for one reading).
func MeanCV(v []float64) (mean, cv float64) {
	if len(v) == 0 {
		return 0, 0
	}
	for _, x := range v {
		mean += x / float64(len(v))
	}
	if len(v) < 2 || mean == 0 {
		return round3(mean), 0
	}
	sum := 0.0
	for _, x := range v {
		sum += (x - mean) * (x - mean)
	}
	return round3(mean), round3(math.Sqrt(sum/float64(len(v)-1)) / mean * 100)
}

// check asks that time goes on from sample to sample: a rate of pressing is worked out from
// it.
func (t Trial) check(i int) error {
	for k, s := range t.Samples[1:] {
		if s.T <= t.Samples[k].T {
			return &decode.Error{
				Path: fmt.Sprintf("$.trials[%d].samples[%d].t", i, k+1), Given: fmt.Sprint(s.T),
				Allowed: fmt.Sprintf("more than the sample before, %v", t.Samples[k].T),
			}
		}
	}
	first, last := t.Samples[0].T, t.Samples[len(t.Samples)-1].T
	if t.StoppedT < first || t.StoppedT > last {
		return &decode.Error{
			Path: fmt.Sprintf("$.trials[%d].stopped_at_t", i), Given: fmt.Sprint(t.StoppedT),
			Allowed: fmt.Sprintf("within the samples, %v to %v", first, last),
		}
	}
	return nil
}

// at is the force at a time, between samples by a straight line.
func (t Trial) at(when float64) float64 {
	for i, s := range t.Samples {
		if s.T < when {
			continue
		}
		if i == 0 || s.T == when {
			return s.N
		}
		a := t.Samples[i-1]
		return a.N + (s.N-a.N)*(when-a.T)/(s.T-a.T)
	}
	return t.Samples[len(t.Samples)-1].N
}

// rise in N/s from contact to the stop, by least squares.
func (t Trial) rise() float64 {
	var n, st, sf, stt, stf float64
	upTo := append(slices.DeleteFunc(slices.Clone(t.Samples), func(s Force) bool { return s.T >= t.StoppedT }),
		Force{t.StoppedT, t.at(t.StoppedT)})
	for _, s := range upTo {
		if s.N < contactN {
			n, st, sf, stt, stf = 0, 0, 0, 0, 0 // the tip was lifted: the ramp begins again
			continue
		}
		n, st, sf = n+1, st+s.T, sf+s.N
		stt, stf = stt+s.T*s.T, stf+s.T*s.N
	}
	if d := n*stt - st*st; n >= 2 && d > 0 {
		return (n*stf - st*sf) / d
	}
	return 0
}

func round3(v float64) float64 { return math.Round(v*1000) / 1000 }
