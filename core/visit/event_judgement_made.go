package visit

import (
	"mokren/core/decode"
	"mokren/core/rights"
)

var judgementMade = kind{
	name: "judgement-made",
	body: func() Body { return new(JudgementMade) },
	by:   rights.Role.Clinical,
}

// JudgementMade is the therapist's own judgement beside the computed one; what
// is absent is as computed, and without any of them it is taken back.
type JudgementMade struct {
	Point UUID `json:"point"`
	// Certainty, Activity and Role each replace what is computed; an empty one is as computed.
	Certainty string `json:"certainty,omitempty" enum:"trigger-point,possible,tender-spot"`
	Activity  string `json:"activity,omitempty" enum:"active,latent,none"`
	Role      string `json:"role,omitempty" enum:"primary,satellite,functional"`
	Of        UUID   `json:"of,omitempty" doc:"the point that it depends on"`
	// Reason is asked for: another therapist will want to know why.
	Reason string `json:"reason" maxLength:"500"`
}

// Check implements decode.Checker: a correction has a reason.
func (b JudgementMade) Check() *decode.Error {
	if b.Reason == "" && (b.Certainty != "" || b.Activity != "" || b.Role != "") {
		return &decode.Error{Path: "$.reason", Given: `""`, Allowed: "why it is judged otherwise"}
	}
	return nil
}

func (b *JudgementMade) about() UUID { return b.Point }

// sets: a judgement is one thing, even where it names certainty, activity and role.
func (b *JudgementMade) sets(Event) []thing {
	return []thing{{"judgement of a point", "point:" + string(b.Point) + ":judgement"}}
}

// apply puts the therapist's word over what is computed; without any field it is as computed
// again.
func (b *JudgementMade) apply(r *reducer, _ Event) error {
	p, err := r.point(b.Point)
	if err != nil {
		return err
	}
	p.ByHand = b
	if b.Certainty == "" && b.Activity == "" && b.Role == "" {
		p.ByHand = nil
	}
	return nil
}

func (b *JudgementMade) timeline() string { return "Point judged by hand: " + b.Reason }
