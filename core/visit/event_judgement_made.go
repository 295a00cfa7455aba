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
	Point     UUID   `json:"point"`
	Certainty string `json:"certainty,omitempty" enum:"trigger-point,possible,tender-spot"`
	Activity  string `json:"activity,omitempty" enum:"active,latent,none"`
	Role      string `json:"role,omitempty" enum:"primary,satellite,functional"`
	Of        UUID   `json:"of,omitempty" doc:"the point that it depends on"`
	Reason    string `json:"reason" maxLength:"500"`
}

// Check implements decode.Checker: a correction has a reason.
func (b JudgementMade) Check() *decode.Error {
	if b.Reason == "" && (b.Certainty != "" || b.Activity != "" || b.Role != "") {
		return &decode.Error{Path: "$.reason", Given: `""`, Allowed: "why it is judged otherwise"}
	}
	return nil
}

func (b *JudgementMade) about() UUID { return b.Point }

func (b *JudgementMade) sets(Event) []thing {
	return []thing{{"judgement of a point", "point:" + string(b.Point) + ":judgement"}}
}

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
