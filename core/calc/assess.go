package calc

import (
	"mokren/core/assess"
	"mokren/core/device"
	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/safety"
)

// SlopeIn is any two of a caliper-inclinometer reading's three values.
type SlopeIn struct {
	DistanceCM *float64 `json:"distance_cm,omitempty" minimum:"0" maximum:"300"`
	HeightCM   *float64 `json:"height_difference_cm,omitempty" minimum:"-300" maximum:"300" doc:"signed"`
	Deg        *float64 `json:"slope_deg,omitempty" minimum:"-90" maximum:"90"`
}

// SlopeOf computes the third value.
func SlopeOf(in SlopeIn) (assess.Slope, error) {
	return assess.Solve(in.DistanceCM, in.HeightCM, in.Deg)
}

// ScreenIn is the answers to a screening.
type ScreenIn struct {
	Answers []safety.Answer `json:"answers" maxItems:"400"`
}

// Screen judges a screening.
func Screen(in ScreenIn) (safety.Screening, error) { return safety.Screen(in.Answers), nil }

// SuspectsIn is the findings, with a practice's own weights if it has any.
type SuspectsIn struct {
	assess.Findings
	Weights assess.Weights `json:"weights,omitempty"`
}

// Suspects ranks the muscles.
func Suspects(in SuspectsIn) (assess.Ranking, error) {
	return assess.Rank(in.Findings, in.Weights), nil
}

// QuestionsOut is the screening in the order in which it is asked.
type QuestionsOut struct {
	Questions []safety.Question `json:"questions"`
}

// Questions lists the screening.
func Questions(struct{}) (QuestionsOut, error) { return QuestionsOut{safety.Questions()}, nil }

// TestsOut lists the tests with their instructions.
type TestsOut struct {
	Tests []TestEntry `json:"tests"`
}

// TestEntry is a test in words.
type TestEntry struct {
	ID   ids.Test `json:"id"`
	Name string   `json:"name"`
	How  string   `json:"how"`
}

// Tests lists every test that the evidence knows.
func Tests(struct{}) (TestsOut, error) {
	out := TestsOut{Tests: []TestEntry{}}
	for _, t := range ids.Tests() {
		out.Tests = append(out.Tests, TestEntry{t, assess.TestName(t), assess.TestHow(t)})
	}
	return out, nil
}

// EvidenceOut lists the weights as shipped, with their sources.
type EvidenceOut struct {
	Evidence []assess.Evidence `json:"evidence"`
}

// Evidence lists the likelihood ratios.
func Evidence(struct{}) (EvidenceOut, error) { return EvidenceOut{assess.Defaults()}, nil }

// MovementsIn may name the client's answers.
type MovementsIn struct {
	Screening []safety.Answer `json:"screening,omitempty" maxItems:"400"`
}

// MovementsOut lists the movements that can be measured, and what the answers say.
type MovementsOut struct {
	Movements []progress.Measurable  `json:"movements"`
	Today     []assess.MovementToday `json:"today"`
}

// Movements lists the movements with a reference range.
func Movements(in MovementsIn) (MovementsOut, error) {
	return MovementsOut{progress.MeasurableMovements(), assess.MovementsToday(safety.Screen(in.Screening))}, nil
}

// GaugesOut lists the measures beside the ranges of motion.
type GaugesOut struct {
	Gauges []assess.GaugeInfo `json:"gauges"`
}

// Gauges lists toe-touch, lunge, straight-leg raise and breathing.
func Gauges(struct{}) (GaugesOut, error) { return GaugesOut{assess.Gauges()}, nil }

// SignsOut lists the places of the signs and of the posture measures.
type SignsOut struct {
	Spots []assess.SignSpot `json:"spots"`
	// Posture is where the measures of posture are read.
	Posture []assess.PostureLine `json:"posture"`
}

// Signs lists where the signs and the measures of posture are touched on the figure.
func Signs(struct{}) (SignsOut, error) {
	return SignsOut{assess.SignSpots(), assess.PostureLines()}, nil
}

// ThresholdsOut lists the thresholds as shipped.
type ThresholdsOut struct {
	Thresholds []assess.FlagThreshold `json:"thresholds"`
}

// Thresholds lists where each posture flag begins.
func Thresholds(struct{}) (ThresholdsOut, error) {
	return ThresholdsOut{assess.DefaultThresholds()}, nil
}

// SteadyIn is a stream's next samples, with what the samples before came to.
type SteadyIn struct {
	Watch   device.Watch    `json:"watch"`
	Samples []device.Sample `json:"samples" maxItems:"2000"`
}

// SteadyOut is what to hand in with the next samples, and the readings taken.
type SteadyOut struct {
	Watch device.Watch           `json:"watch"`
	Taken []device.SteadyReading `json:"taken"`
}

// Steady follows a stream and takes its steady readings.
func Steady(in SteadyIn) (SteadyOut, error) {
	out := SteadyOut{Watch: in.Watch, Taken: []device.SteadyReading{}}
	for _, s := range in.Samples {
		if t := out.Watch.Add(s); t != nil {
			out.Taken = append(out.Taken, *t)
		}
	}
	return out, nil
}
