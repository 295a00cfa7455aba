package visit

import (
	"fmt"
	"strings"

	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/strict"
)

type (
	// Screened answers questions of the screening; a later answer counts.
	Screened struct {
		Answers []ScreenedAnswer `json:"answers" minItems:"1" maxItems:"200"`
		// By tells who answered: the therapist, or the client on an own device.
		By string `json:"by,omitempty" enum:"therapist,client"`
	}
	// ScreenedAnswer is one answer with where and since when.
	ScreenedAnswer struct {
		Question ids.Question `json:"question"`
		Answer   string       `json:"answer" enum:"yes,no,unknown"`
		Side     ids.Side     `json:"side,omitempty"`
		Regions  []ids.Region `json:"regions,omitempty" maxItems:"100"`
		Since    string       `json:"since,omitempty" maxLength:"100"`
		Note     string       `json:"note,omitempty" maxLength:"2000"`
	}
	// ScreeningCleared records that a clinician has cleared an answer.
	ScreeningCleared struct {
		Question ids.Question `json:"question"`
		By       string       `json:"by" maxLength:"200" doc:"the clinician"`
		On       string       `json:"on" maxLength:"40" doc:"when"`
		Note     string       `json:"note,omitempty" maxLength:"2000"`
	}
	// BlockOverridden is a licensed person's decision to press in a blocked
	// place all the same, with the reason. It never lifts refer-first or
	// emergency, nor questions that were not asked.
	BlockOverridden struct {
		Point  UUID   `json:"point"`
		Reason string `json:"reason" maxLength:"2000"`
	}
)

// Check implements strict.Checker.
func (c ScreeningCleared) Check() *strict.Error {
	for _, f := range []struct{ path, v string }{{"$.by", c.By}, {"$.on", c.On}} {
		if strings.TrimSpace(f.v) == "" {
			return &strict.Error{Path: f.path, Given: "nothing", Allowed: "who cleared it, and when"}
		}
	}
	return nil
}

// Check implements strict.Checker.
func (b BlockOverridden) Check() *strict.Error {
	if len(strings.TrimSpace(b.Reason)) < 10 {
		return &strict.Error{
			Path: "$.reason", Given: fmt.Sprintf("%q", b.Reason),
			Allowed: "the clinical reason, at least ten letters",
		}
	}
	return nil
}

// Given is an answer with whose word it is, and whether a clinician has cleared
// it since.
type Given struct {
	ScreenedAnswer
	By      string `json:"by,omitempty" enum:"therapist,client"`
	Cleared bool   `json:"cleared,omitempty"`
	from    Event
}

func (g Given) answer() safety.Answer {
	return safety.Answer{
		Question: g.Question, Answer: g.Answer, Side: g.Side, Regions: g.Regions, By: g.By, Cleared: g.Cleared,
	}
}

// answered lays an answer over those given. The therapist's is the last word. A
// client's own takes the place of a milder one and stands beside an equal one
// (the other side, say), and never lifts a caution of the therapist's.
func answered(given []Given, a ScreenedAnswer, by string, e Event) []Given {
	own := by == safety.Client
	out := make([]Given, 0, len(given)+1)
	fresh := Given{ScreenedAnswer: a, By: by, from: e}
	done := false
	for _, g := range given {
		switch {
		case g.Question != a.Question:
			out = append(out, g)
		case own && g.By != safety.Client && safety.Milder(a.Answer, g.Answer):
			return given
		case own && g.By != safety.Client && a.Answer == g.Answer:
			out = append(out, g)
		case !done:
			out, done = append(out, fresh), true
		}
	}
	if !done {
		out = append(out, fresh)
	}
	return out
}

func (r *reducer) screened(e Event, b *Screened) {
	for _, a := range b.Answers {
		r.sets("answer to "+string(a.Question), "screen:"+string(a.Question), e)
	}
}
