package visit

import (
	"slices"

	"mokren/core/record"
)

// GivenAnswer is an answer with whose word it is, and whether it was cleared since.
type GivenAnswer struct {
	ScreenedAnswer
	By      string `json:"by,omitempty" enum:"therapist,client"`
	Cleared bool   `json:"cleared,omitempty"`
}

// given are the answers of this visit that count, as they were written.
func (j *Validator) given(k record.Verdict) []GivenAnswer {
	out := []GivenAnswer{}
	for _, a := range k.Standing() {
		b, ok := j.said[a.Event].(*ScreeningAnswered)
		if !ok {
			continue
		}
		i := slices.IndexFunc(b.Answers, func(x ScreenedAnswer) bool {
			return x.Question == a.Question && x.Answer == a.Answer.Answer && x.Side == a.Side
		})
		if i >= 0 {
			out = append(out, GivenAnswer{b.Answers[i], b.By, a.Cleared})
		}
	}
	return out
}

// agreed are this visit's latest words on the visit and each area.
func (j *Validator) agreed(k record.Verdict) []ConsentRecorded {
	out := []ConsentRecorded{}
	for _, a := range k.Consents() {
		if b, ok := j.said[a.Event].(*ConsentRecorded); ok {
			out = append(out, *b)
		}
	}
	return out
}
