package visit

import (
	"slices"

	"mokren/core/device"
	"mokren/core/ids"
	"mokren/core/plan"
	"mokren/core/safety"
	"mokren/core/strict"
)

// The events by which points are followed, judged, given a protocol and
// planned.
type (
	// Identified says which spot of earlier visits a point is; without one it is a
	// spot of its own.
	Identified struct {
		Point    UUID `json:"point"`
		Identity UUID `json:"identity,omitempty"`
	}
	// ThresholdMeasured is the pressure pain threshold at a point, or at the same
	// place of the other side.
	ThresholdMeasured struct {
		Point  UUID      `json:"point"`
		Other  bool      `json:"other_side,omitempty"`
		Trials []float64 `json:"trials_kpa" minItems:"1" maxItems:"3" minimum:"0" maximum:"5000"`
		Ramp   []float64 `json:"ramp_kpa_per_s,omitempty" maxItems:"3" minimum:"-1000" maximum:"1000"`
		TipCM2 float64   `json:"tip_area_cm2" minimum:"0.01" maximum:"20"`
	}
	// JudgementMade is the therapist's own judgement beside the computed one; what
	// is absent is as computed, and without any of them it is taken back.
	JudgementMade struct {
		Point     UUID   `json:"point"`
		Certainty string `json:"certainty,omitempty" enum:"trigger-point,possible,tender-spot"`
		Activity  string `json:"activity,omitempty" enum:"active,latent,none"`
		Role      string `json:"role,omitempty" enum:"primary,satellite,functional"`
		Of        UUID   `json:"of,omitempty" doc:"the point that it depends on"`
		Reason    string `json:"reason" maxLength:"500"`
	}
	// ProtocolChosen is the therapist's choice at a point.
	ProtocolChosen struct {
		Point    UUID         `json:"point"`
		Protocol ids.Protocol `json:"protocol,omitempty" doc:"absent takes the suggestion again"`
	}
	// MuscleSearched is a search that found no point; open takes it back.
	MuscleSearched struct {
		Muscle ids.Muscle `json:"muscle"`
		Side   ids.Side   `json:"side"`
		Result string     `json:"result" enum:"nothing,not-reachable,open"`
	}
	// PlanMade is the session as the therapist has accepted it. Without an order
	// the best one is taken.
	PlanMade struct {
		Minutes float64      `json:"minutes" minimum:"5" maximum:"240"`
		Blocks  *plan.Blocks `json:"blocks,omitempty"`
		Order   []UUID       `json:"order,omitempty" maxItems:"60"`
		Must    []UUID       `json:"must,omitempty" maxItems:"60"`
		Dropped []UUID       `json:"dropped,omitempty" maxItems:"60"`
	}
	// ReactionNoted is how the client was after the last visit.
	ReactionNoted struct {
		Since string `json:"since" enum:"better,same,worse"`
		Note  string `json:"note,omitempty" maxLength:"1000"`
	}
	// AskingPutOff is why hands were on before consent and screening were asked for; no
	// hold begins by it.
	AskingPutOff struct {
		Reason string `json:"reason" minLength:"3" maxLength:"300"`
		// Areas are the sensitive areas that it waits with; another is asked for anew.
		Areas []safety.Area `json:"areas,omitempty" maxItems:"10"`
	}
	// NextNoted is what is meant to be done at the next visit.
	NextNoted struct {
		Text string `json:"text" maxLength:"2000"`
	}
)

// Check implements strict.Checker: a correction has a reason.
func (b JudgementMade) Check() *strict.Error {
	if b.Reason == "" && (b.Certainty != "" || b.Activity != "" || b.Role != "") {
		return &strict.Error{Path: "$.reason", Given: `""`, Allowed: "why it is judged otherwise"}
	}
	return nil
}

// Check implements strict.Checker: a side that a muscle has.
func (b MuscleSearched) Check() *strict.Error {
	if b.Side == ids.Midline {
		return &strict.Error{Path: "$.side", Given: `"midline"`, Allowed: "one of left, right"}
	}
	return nil
}

// PainThreshold is a pressure pain threshold with its spread.
type PainThreshold struct {
	KPa    float64   `json:"kpa" doc:"mean"`
	Trials []float64 `json:"trials_kpa"`
	CV     float64   `json:"cv_percent"`
	Wide   bool      `json:"wide" doc:"the trials differ by more than 20 %"`
	Ramp   []float64 `json:"ramp_kpa_per_s,omitempty"`
}

// pointOfWork names the point that an event of this file is about.
func pointOfWork(b any) (UUID, bool) {
	switch b := b.(type) {
	case *Identified:
		return b.Point, true
	case *ThresholdMeasured:
		return b.Point, true
	case *JudgementMade:
		return b.Point, true
	case *ProtocolChosen:
		return b.Point, true
	}
	return "", false
}

// work lets such an event act.
func (r *reducer) work(e Event, b any) error {
	if id, about := pointOfWork(b); about {
		p, err := r.point(id)
		if err != nil {
			return err
		}
		r.onPoint(e, b, p)
		return nil
	}
	s := &r.state
	switch b := b.(type) {
	case *MuscleSearched:
		r.sets("search of a muscle", "search:"+string(b.Muscle)+":"+string(b.Side), e)
		s.Searched = slices.DeleteFunc(s.Searched,
			func(x MuscleSearched) bool { return x.Muscle == b.Muscle && x.Side == b.Side })
		if b.Result != "open" {
			s.Searched = append(s.Searched, *b)
		}
	case *PlanMade:
		r.sets("plan", "plan", e)
		if s.Plan == nil || s.Plan.Minutes != b.Minutes {
			s.PlanMS = e.At()
		}
		s.Plan = b
	case *ReactionNoted:
		r.sets("reaction", "reaction", e)
		s.Reaction = b
	case *AskingPutOff:
		s.putOff(e, b)
	case *NextNoted:
		r.sets("what is to be done next", "next", e)
		s.Next = b.Text
	}
	return nil
}

// putOff keeps the latest reason, and every area that was put off.
func (s *State) putOff(e Event, b *AskingPutOff) {
	put := &PutOff{AtMS: e.At(), Author: e.Author, Text: b.Reason}
	if s.PutOff != nil {
		put.Areas = slices.Clone(s.PutOff.Areas)
	}
	for _, a := range b.Areas {
		put.Areas = ids.With(put.Areas, a)
	}
	s.PutOff = put
}

func (r *reducer) onPoint(e Event, b any, p *Point) {
	key := "point:" + string(p.Point)
	switch b := b.(type) {
	case *Identified:
		r.sets("identity of a point", key+":identity", e)
		p.Identity = b.Identity
		if p.Identity == "" {
			p.Identity = p.Point
		}
	case *ThresholdMeasured:
		t := &PainThreshold{Trials: b.Trials, Ramp: b.Ramp}
		t.KPa, t.CV = device.MeanCV(b.Trials)
		t.Wide = t.CV > device.WideCV
		if b.Other {
			r.sets("threshold of the other side", key+":threshold-other", e)
			p.ThresholdOther = t
			return
		}
		r.sets("threshold of a point", key+":threshold", e)
		p.Threshold = t
	case *JudgementMade:
		r.sets("judgement of a point", key+":judgement", e)
		p.ByHand = b
		if b.Certainty == "" && b.Activity == "" && b.Role == "" {
			p.ByHand = nil
		}
	case *ProtocolChosen:
		r.sets("protocol of a point", key+":protocol", e)
		p.Chosen = b.Protocol
	}
}
