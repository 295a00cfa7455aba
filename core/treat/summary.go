package treat

import (
	"slices"

	"mokren/core/ids"
	"mokren/core/safety"
)

// Outcome of a hold.
type Outcome string

// Released: calm, and two below the spot's first baseline, or softened where a
// protocol ends by it. Reduced: some stage ended 2 or more below its baseline.
const (
	Released  Outcome = "released"
	Reduced   Outcome = "reduced"
	Unchanged Outcome = "unchanged"
	Stopped   Outcome = "stopped"
)

// Outcomes lists them all.
func Outcomes() []Outcome { return []Outcome{Released, Reduced, Unchanged, Stopped} }

// StageRecord is one stretch of pressure compared with its own baseline.
type StageRecord struct {
	Stage      int     `json:"stage"`
	StartS     float64 `json:"start_s"`
	EndS       float64 `json:"end_s"`
	StartScore float64 `json:"start_score"`
	EndScore   float64 `json:"end_score"`
	// EndedBy: drop, calm, window, no-drop, eased, off-spot, paused, angle,
	// guard, moved-off, stop, cap, silence, let-go; empty while it runs.
	EndedBy string `json:"ended_by,omitempty"`
}

// TracePoint is one score as it was given, on the 0–10 scale.
type TracePoint struct {
	T     float64 `json:"t"`
	Score float64 `json:"score"`
}

// Summary is what a hold leaves behind. Scores are 0–10, times seconds.
type Summary struct {
	Outcome Outcome `json:"outcome"`
	// Stages are compared stretches, each with its own baseline.
	Stages    []StageRecord `json:"stages"`
	PressureS float64       `json:"pressure_s"`
	OverrunS  float64       `json:"overrun_s"`
	// Eased is how often it was made lighter.
	Eased int `json:"eased"`
	// HighestScore and LastScore are of scores under pressure.
	HighestScore float64  `json:"highest_score"`
	LastScore    *float64 `json:"last_score,omitempty"`
	Twitch       bool     `json:"twitch"`
	// Referral are the regions where it was felt elsewhere.
	Referral []ids.Region `json:"referral,omitempty"`
	// Returned: the one lighter return was made.
	Returned bool `json:"returned"`
	// TraceBack: it did not let go, so its source should be looked for.
	TraceBack bool `json:"trace_back"`
	// SiteClosed: no more pressure belongs here today.
	SiteClosed bool     `json:"site_closed"`
	Signs      []string `json:"signs,omitempty"`
	// Gentler is what to change to after two scores above the hard ceiling.
	Gentler ids.Protocol `json:"gentler_protocol,omitempty"`
	// Trace is every score with its time, for the picture.
	Trace    []TracePoint `json:"trace"`
	Protocol ids.Protocol `json:"protocol"`
	// Limits as they were in force at the beginning.
	Limits safety.Limits `json:"limits"`
	Rules  string        `json:"rules_version"`
	*Run
}

// EndReason is why the last release was advised.
type EndReason string

// The reasons.
const (
	EndedCalm      EndReason = "calm"
	EndedSoftened  EndReason = "softened"
	EndedBorne     EndReason = "borne"
	EndedDone      EndReason = "done"
	EndedCap       EndReason = "cap"
	EndedSilence   EndReason = "silence"
	EndedEased     EndReason = "eased"
	EndedNoChange  EndReason = "no-change"
	EndedNotTender EndReason = "not-tender"
	EndedMovedOff  EndReason = "moved-off"
	EndedLetGo     EndReason = "let-go"
	EndedStopped   EndReason = "stopped"
)

// EndReasons lists the reasons.
func EndReasons() []EndReason {
	return []EndReason{
		EndedCalm, EndedSoftened, EndedBorne, EndedDone, EndedCap, EndedSilence, EndedEased, EndedNoChange,
		EndedNotTender, EndedMovedOff, EndedLetGo, EndedStopped,
	}
}

// Run is what a hold went through, part by part; holds of the first rules have
// none.
type Run struct {
	Ended EndReason `json:"ended"`
	// Worked: released, reduced, borne or enough degrees gained; what worked here
	// is offered again.
	Worked bool         `json:"worked"`
	Parts  []PartRecord `json:"parts"`
	Reps   int          `json:"reps"`
	// Rounds of contract-relax; Places, or stations, along the muscle.
	Rounds      int      `json:"rounds"`
	Places      int      `json:"places"`
	RampPercent float64  `json:"ramp_percent"`
	GainDeg     *float64 `json:"gain_deg,omitempty"`
}

// openStage is the stage that runs; one that is not counted is a comparison
// within a part, and leaves no record.
type openStage struct {
	StageRecord
	counted bool
}

// summary is made from the state as it stands; a stage and a part that still run are in it
// with the present time.
func (s *state) summary(st Start) Summary {
	k := s.kept
	sum := Summary{
		Outcome: s.outcome(), Stages: shared(s.stages.ended),
		PressureS: seconds(s.pressed), OverrunS: seconds(s.overrun),
		Eased: k.eased, Twitch: k.twitch, Referral: slices.Clip(k.referral),
		Returned: s.returned, TraceBack: k.traceBack, SiteClosed: k.siteClosed, Signs: slices.Clip(k.signs),
		Trace: shared(k.trace), Protocol: st.Protocol, Limits: st.Limits, Rules: st.Rules,
	}
	for _, p := range k.trace {
		sum.HighestScore, sum.LastScore = max(sum.HighestScore, p.Score), &p.Score
	}
	if s.overHard >= 2 {
		sum.Gentler = "slow-ramp"
	}
	if s.compared.runs && s.stages.open.counted {
		running := s.stages.open.StageRecord
		running.EndS = seconds(s.now)
		sum.Stages = append(sum.Stages, running)
	}
	if !s.rules.noParts {
		sum.Run = s.run(sum.Outcome)
	}
	return sum
}

// shared gives a list that the state goes on with: what the state adds is not seen, and adding to
// it leaves the state as it is. There is always one, if an empty one.
func shared[T any](list []T) []T {
	if list == nil {
		return []T{}
	}
	return slices.Clip(list)
}

// Count is how many parts a hold went through; stages, by the first rules.
func (s Summary) Count() int {
	if s.Run == nil {
		return len(s.Stages)
	}
	return len(s.Parts)
}

// Treats reports whether the hold was a treatment of its place: so many seconds of
// pressure, the return included, or a first push or movement against resistance.
func (s Summary) Treats(leastS float64) bool {
	return s.PressureS+s.OverrunS >= leastS || s.Run != nil && slices.ContainsFunc(s.Parts, func(p PartRecord) bool {
		return p.Kind == PhasePush || p.Kind == PhaseLengthen
	})
}

// LetGo reports whether the hold worked, so that it may be offered again.
func (s Summary) LetGo() bool {
	if s.Run == nil {
		return s.Outcome == Released || s.Outcome == Reduced
	}
	return s.Worked
}

// outcome takes the strongest that is true: a stop before all, then released, then reduced by
// a stage or by the strategy.
func (s *state) outcome() Outcome {
	switch {
	case s.phase == PhaseStopped:
		return Stopped
	case s.released && (s.rules.noParts || s.mayBelieve()):
		return Released
	case s.strategy.progress(s).reduced:
		return Reduced
	}
	for _, g := range s.stages.ended {
		// A stretch broken by slipping off proves nothing about the tissue.
		if g.EndedBy != "" && g.EndedBy != "off-spot" && g.StartScore-g.EndScore >= 2 {
			return Reduced
		}
	}
	return Unchanged
}

// mayBelieve: what was eased or met with silence is never released.
func (s *state) mayBelieve() bool { return s.ended != EndedEased && s.ended != EndedSilence }

// run is what the hold went through.
func (s *state) run(o Outcome) *Run {
	did := s.strategy.progress(s)
	r := &Run{
		Ended: s.ended, Parts: shared(s.kept.parts), Reps: did.rep, Places: did.place,
	}
	if s.part.kind != "" {
		r.Parts = append(r.Parts, s.part.record(s.now))
	}
	for _, p := range r.Parts {
		if p.Kind == PhasePush {
			r.Rounds++
		}
	}
	if s.plan.RampMS > 0 {
		r.RampPercent = float64(did.ramped) * 100 / float64(s.plan.RampMS)
	}
	gained := false
	if n := len(s.kept.ranges); n > 1 {
		gain := s.kept.ranges[n-1] - s.kept.ranges[0]
		r.GainDeg = &gain
		gained = s.plan.MinGainDeg > 0 && gain >= s.plan.MinGainDeg
	}
	r.Worked = o == Released || o == Reduced || did.borne && o != Stopped || gained && o != Stopped
	return r
}

func seconds(ms int64) float64 { return float64(ms) / 1000 }
