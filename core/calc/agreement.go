//go:build !js

package calc

import (
	"mokren/core/agreement"
	"mokren/core/bench"
	"mokren/core/decode"
)

// AgreementIn is pairs on a fixed list of sites, or two free charts of one person.
type AgreementIn struct {
	Pairs    []agreement.Pair  `json:"pairs,omitempty" maxItems:"10000"`
	First    []agreement.Chart `json:"first,omitempty" maxItems:"60"`
	Second   []agreement.Chart `json:"second,omitempty" maxItems:"60"`
	HeightCM *float64          `json:"height_cm,omitempty" minimum:"50" maximum:"250"`
}

// Check implements decode.Checker: one of the two ways.
func (in AgreementIn) Check() *decode.Error {
	if (in.Pairs == nil) == (in.First == nil && in.Second == nil) {
		return &decode.Error{Path: "$.pairs", Given: "both or neither", Allowed: "pairs, or first and second"}
	}
	return nil
}

// AgreementOut has each measure, and of charts what they have in common.
type AgreementOut struct {
	Measures map[string]agreement.Result `json:"measures"`
	Matching *agreement.Matching         `json:"matching,omitempty"`
}

// Answers of free charts are matched and counted, and their numbers compared; their band and
// tenderness are not, for what one of the two did not find would be missing.

// Agreement tells how far two people find the same.
func Agreement(in AgreementIn) (AgreementOut, error) {
	if in.Pairs != nil {
		return AgreementOut{Measures: agreement.Of(in.Pairs)}, nil
	}
	m := agreement.Match(in.First, in.Second, height(in.HeightCM))
	return AgreementOut{agreement.Of(agreement.Numbers(in.First, in.Second, m)), &m}, nil
}

// native are those that a browser never asks for, and that bring along what is heavy there.
func native() []Calc {
	return []Calc{
		document("agreement", "How far two people find the same: pairs of findings, or two charts",
			`{"pairs":[{"measure":"grade","first":2,"second":3},{"measure":"band","first":"yes","second":"yes"}]}`,
			Agreement),
		document("bench", "What a learner's actions with a simulated client come to", `{"case":"stiff-neck-desk",`+
			`"seed":1,"exercise":"reasoning","actions":[{"t":4,"action":"ask","what":"story"},{"t":9.5,"action":"name",`+
			`"answers":[{"is":"muscle","muscle":"upper-trapezius","side":"right","percent":70}]},{"t":12,"action":"finish"}]}`,
			bench.Run),
	}
}

// shippedCases names the cases of the bench.
func shippedCases() []string { return bench.IDs() }
