package treat

import (
	"mokren/core/ids"
	"mokren/core/safety"
)

// Outcome of a hold.
type Outcome string

// Released: a score of 2 or less was reached in a stage. Reduced: some stage
// ended 2 or more below its baseline.
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
	Outcome      Outcome       `json:"outcome"`
	Stages       []StageRecord `json:"stages"`
	PressureS    float64       `json:"pressure_s"`
	OverrunS     float64       `json:"overrun_s"`
	Eased        int           `json:"eased"`
	HighestScore float64       `json:"highest_score"`
	LastScore    *float64      `json:"last_score,omitempty"`
	Twitch       bool          `json:"twitch"`
	Referral     []ids.Region  `json:"referral,omitempty"`
	Returned     bool          `json:"returned"`
	TraceBack    bool          `json:"trace_back"`
	SiteClosed   bool          `json:"site_closed"`
	Signs        []string      `json:"signs,omitempty"`
	Gentler      ids.Protocol  `json:"gentler_protocol,omitempty"`
	Trace        []TracePoint  `json:"trace"`
	Protocol     ids.Protocol  `json:"protocol"`
	Limits       safety.Limits `json:"limits"`
	Rules        string        `json:"rules_version"`
}

func (s *state) summary(st Start) Summary {
	sum := Summary{
		Outcome: Unchanged, Stages: append([]StageRecord{}, s.stages...),
		PressureS: seconds(s.pressed), OverrunS: seconds(s.overrun),
		Eased: s.eased, HighestScore: s.highest, LastScore: s.lastScore, Twitch: s.twitch, Referral: s.referral,
		Returned: s.returned, TraceBack: s.traceBack, SiteClosed: s.siteClosed, Signs: s.signs, Gentler: s.gentler,
		Trace: append([]TracePoint{}, s.trace...), Protocol: st.Protocol, Limits: st.Limits, Rules: st.Rules,
	}
	if s.running {
		running := s.open
		running.EndS = seconds(s.now)
		sum.Stages = append(sum.Stages, running)
	}
	for _, g := range s.stages {
		// A stretch broken by slipping off proves nothing about the tissue.
		if g.EndedBy != "" && g.EndedBy != "off-spot" && g.StartScore-g.EndScore >= 2 {
			sum.Outcome = Reduced
		}
	}
	if s.released {
		sum.Outcome = Released
	}
	if s.place == PhaseStopped {
		sum.Outcome = Stopped
	}
	return sum
}

func seconds(ms int64) float64 { return float64(ms) / 1000 }
