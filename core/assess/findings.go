package assess

import (
	"mokren/core/ids"
	"mokren/core/safety"
)

// Pain is a region of the pain drawing.
type Pain struct {
	Region    ids.Region `json:"region"`
	Side      ids.Side   `json:"side"`
	Intensity float64    `json:"intensity" minimum:"0" maximum:"10"`
	Kind      string     `json:"kind,omitempty" enum:"ache,sharp,burning,numb-tingling,headache"`
}

// ROM is a reading of a movement on a side; for side-bends and turns of the
// spine the side is the direction of movement.
type ROM struct {
	Movement ids.Movement `json:"movement"`
	Side     ids.Side     `json:"side"`
	Active   *float64     `json:"active_deg,omitempty" minimum:"-90" maximum:"360"`
	Passive  *float64     `json:"passive_deg,omitempty" minimum:"-90" maximum:"360"`
	Pain     *float64     `json:"pain_nprs,omitempty" minimum:"0" maximum:"10"`
	Felt     string       `json:"felt,omitempty" enum:"pull,pinch,pain"`
	FeltAt   ids.Region   `json:"felt_region,omitempty"`
	EndFeel  string       `json:"end_feel,omitempty" enum:"soft,firm,hard,empty,springy"`
}

// SquatSign is a sign seen in the squat or toe-touch.
type SquatSign struct {
	Sign ids.Sign `json:"sign"`
	Side ids.Side `json:"side"`
}

// TestResult is a test done.
type TestResult struct {
	Test   ids.Test `json:"test"`
	Side   ids.Side `json:"side"`
	Result string   `json:"result" enum:"positive,negative,unclear"`
}

// EarlierPoint is a point that this client had before.
type EarlierPoint struct {
	Muscle  ids.Muscle `json:"muscle"`
	Side    ids.Side   `json:"side"`
	DaysAgo float64    `json:"days_ago" minimum:"0"`
}

// Findings is everything that the evidence is drawn from.
type Findings struct {
	Pain      []Pain          `json:"pain" maxItems:"400"`
	ROM       []ROM           `json:"rom,omitempty" maxItems:"400"`
	Posture   []Posture       `json:"posture,omitempty" maxItems:"100"`
	Gauges    []Gauge         `json:"gauges,omitempty" maxItems:"20"`
	Signs     []SquatSign     `json:"signs,omitempty" maxItems:"100"`
	Tests     []TestResult    `json:"tests,omitempty" maxItems:"400"`
	Loads     []ids.Load      `json:"loads,omitempty" maxItems:"50"`
	Earlier   []EarlierPoint  `json:"earlier_points,omitempty" maxItems:"400"`
	Screening []safety.Answer `json:"screening,omitempty" maxItems:"400"`
	Top       *int            `json:"top,omitempty" minimum:"1" maximum:"200"`
	// Thresholds of the practice, where it has its own.
	Thresholds Thresholds `json:"thresholds,omitempty"`
	// Age in years lowers the usual ranges; 0 is not known.
	Age int `json:"age,omitempty" minimum:"0" maximum:"130"`
}
