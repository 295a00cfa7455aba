package treat

// Advice is what the coach says to do, by id.
type Advice string

// The advice ids.
const (
	SettleIn      Advice = "settle-in"
	AskScore      Advice = "ask-score"
	AskTrend      Advice = "ask-trend"
	AskStillOn    Advice = "ask-still-on"
	SinkSlightly  Advice = "sink-slightly"
	EaseOff       Advice = "ease-off"
	Hold          Advice = "hold"
	Deepen        Advice = "breathe-and-deepen"
	MoreSlack     Advice = "more-slack"
	ReleaseSlowly Advice = "release-slowly"
	Flush         Advice = "flush"
	ReturnLighter Advice = "return-lighter"
	ChangeAngle   Advice = "change-angle"
	MoveOff       Advice = "move-off"
	Rest          Advice = "rest"
	NextRep       Advice = "next-rep"
	Done          Advice = "done"
	TraceBack     Advice = "trace-back"
	Stop          Advice = "stop"
)

// Phase is where a hold stands.
type Phase string

// The phases. Settle waits for a baseline; check waits for "still on it?";
// release means that coming off has been advised and is awaited.
const (
	PhaseReady    Phase = "ready"
	PhaseSettle   Phase = "settle"
	PhaseStage    Phase = "stage"
	PhaseCheck    Phase = "check"
	PhaseOffSpot  Phase = "off-spot"
	PhasePaused   Phase = "paused"
	PhaseMovedOff Phase = "moved-off"
	PhaseRelease  Phase = "release"
	PhaseFlush    Phase = "flush"
	PhaseReturn   Phase = "return"
	PhaseDone     Phase = "done"
	PhaseStopped  Phase = "stopped"
)

// The parts of the other protocols, each shown as the phase; see parts.
const (
	PhasePress    Phase = "press"
	PhaseRest     Phase = "rest"
	PhaseRamp     Phase = "ramp"
	PhaseTest     Phase = "test"
	PhaseSlacken  Phase = "slacken"
	PhaseStill    Phase = "still"
	PhaseSink     Phase = "sink"
	PhaseMove     Phase = "move"
	PhasePush     Phase = "push"
	PhaseLengthen Phase = "lengthen"
	PhaseStroke   Phase = "stroke"
	PhaseBroad    Phase = "broad"
	PhaseNarrow   Phase = "narrow"
)

// Advices lists them all.
func Advices() []Advice {
	return []Advice{
		SettleIn, AskScore, AskTrend, AskStillOn, SinkSlightly, EaseOff, Hold, Deepen, MoreSlack, ReleaseSlowly,
		Flush, ReturnLighter, ChangeAngle, MoveOff, Rest, NextRep, Done, TraceBack, Stop,
	}
}

// Phases lists them all.
func Phases() []Phase {
	return []Phase{
		PhaseReady, PhaseSettle, PhaseStage, PhaseCheck, PhaseOffSpot, PhasePaused, PhaseMovedOff, PhaseRelease,
		PhaseFlush, PhaseReturn, PhaseDone, PhaseStopped,
		PhasePress, PhaseRest, PhaseRamp, PhaseTest, PhaseSlacken, PhaseStill, PhaseSink, PhaseMove, PhasePush,
		PhaseLengthen, PhaseStroke, PhaseBroad, PhaseNarrow,
	}
}

// Course is how far a protocol has come; the first rules knew none of it.
type Course struct {
	// Rep counts presses, movements, rounds, breaths or stations, of Reps.
	Rep  int `json:"rep"`
	Reps int `json:"reps"`
	// PartS is how long the part is that runs, PartLeftS what is left of it; both
	// are 0 of an open one.
	PartS       float64 `json:"part_s"`
	PartLeftS   float64 `json:"part_left_s"`
	RampPercent float64 `json:"ramp_percent"`
	// Place counts the places or stations along the muscle.
	Place int `json:"place"`
	// Aim is the score that is pressed to now.
	Aim float64 `json:"aim"`
}

// Line is what the coach shows after an event. Times are seconds.
type Line struct {
	// T is the time since the start.
	T     float64 `json:"t"`
	Phase Phase   `json:"phase"`
	// Advice are ids, the first the most important; empty never.
	Advice []Advice `json:"advice"`
	// Ask is the question that waits for an answer; empty while none does.
	Ask string `json:"ask,omitempty"`
	// Stage counts from 1; 0 before the first and at a new spot.
	Stage      int     `json:"stage"`
	StageLeftS float64 `json:"stage_left_s"`
	// PressureS is bounded by the cap; OverrunS is what was pressed beyond it.
	PressureS float64 `json:"pressure_s"`
	OverrunS  float64 `json:"overrun_s"`
	// WaitLeftS is what is left of a flush, in seconds.
	WaitLeftS float64 `json:"wait_left_s"`
	// Text says what to do, Reason why.
	Text   string `json:"text"`
	Reason string `json:"reason"`
	// Rule is the number of the coach rule behind the advice, 0 for none.
	Rule int `json:"rule"`
	*Course
	// Ignored tells that the event was recorded but changed nothing.
	Ignored bool     `json:"ignored,omitempty"`
	Summary *Summary `json:"summary,omitempty"`
}
