package visit

import (
	"fmt"
	"slices"
	"strings"

	"mokren/core/ids"
	"mokren/core/rights"
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
	// ScreeningCleared lifts the answers to a question that arrived before it. A
	// licensed person records it, and says on what it rests; nothing else lifts a yes,
	// or an answer that is not known, on an emergency or refer-first question.
	ScreeningCleared struct {
		Question ids.Question `json:"question"`
		// Side limits it to answers of this side; absent is every side.
		Side  ids.Side `json:"side,omitempty"`
		Basis Basis    `json:"basis,omitempty" enum:"clinician,resolved,mistaken" doc:"clinician when left out"`
		By    string   `json:"by" maxLength:"200" doc:"the clinician; the therapist for another basis"`
		On    string   `json:"on" maxLength:"40" doc:"when"`
		Note  string   `json:"note,omitempty" maxLength:"2000" doc:"the reason, for a mistaken answer"`
	}
	// BlockOverridden is a licensed person's decision to press in a blocked
	// place all the same, with the reason. It never lifts refer-first or
	// emergency, nor questions that were not asked.
	BlockOverridden struct {
		Point  UUID   `json:"point"`
		Reason string `json:"reason" maxLength:"2000"`
	}
)

// Basis is what a clearance rests on.
type Basis string

// The bases. A clinician's word is the only one that lifts an emergency yes; resolved is
// a licensed therapist's own examination today; mistaken says that the answer was wrong.
const (
	ByClinician Basis = "clinician"
	ByResolved  Basis = "resolved"
	ByMistaken  Basis = "mistaken"
)

// leastReason is how many letters a reason has at least.
const leastReason = 10

// Check implements strict.Checker.
func (c ScreeningCleared) Check() *strict.Error {
	for _, f := range []struct{ path, v string }{{"$.by", c.By}, {"$.on", c.On}} {
		if strings.TrimSpace(f.v) == "" {
			return &strict.Error{Path: f.path, Given: "nothing", Allowed: "who cleared it, and when"}
		}
	}
	if c.Basis == ByMistaken && len(strings.TrimSpace(c.Note)) < leastReason {
		return &strict.Error{
			Path: "$.note", Given: fmt.Sprintf("%q", c.Note),
			Allowed: "why the answer was wrong, at least ten letters",
		}
	}
	return nil
}

// lifts reports whether the clearance is of an answer's side.
func (c ScreeningCleared) lifts(side ids.Side) bool {
	return c.Side == "" || c.Side == ids.Midline || c.Side == side
}

// clearable tells why a clearance on its basis does not lift what stands, or nil.
func (j *Judge) clearable(e *Event, b *ScreeningCleared) error {
	if b.Basis == "" || b.Basis == ByClinician {
		return nil
	}
	q, ok := safety.FindQuestion(b.Question)
	if !ok {
		return nil // Check refuses it where it is asked
	}
	for _, a := range j.knownTo(e).merged() {
		if a.Question != b.Question || !a.Lasts() || !b.lifts(a.Side) {
			continue
		}
		switch {
		case q.Outcome == safety.Emergency && a.Answer == "yes":
			return because("Only a clinician clears an emergency: name who, and when.")
		case b.Basis == ByResolved && a.Answer == "yes" && !q.Resolves():
			return because("Your own examination lifts a fever, a swollen joint and what was not known. " +
				"A clinician clears this one; or say why the answer was a mistake.")
		}
	}
	return nil
}

// Check implements strict.Checker.
func (b BlockOverridden) Check() *strict.Error {
	if len(strings.TrimSpace(b.Reason)) < leastReason {
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
// (the other side, say), and never lifts a caution of the therapist's. What only a
// clearance lifts stays beside any later answer; corrects tells what its author may
// still take back.
func answered(given []Given, a ScreenedAnswer, w word, corrects func(Given) bool) []Given {
	by, e := w.by, w.event
	own := by == safety.Client || w.student
	out := make([]Given, 0, len(given)+1)
	fresh := Given{ScreenedAnswer: a, By: by, from: e}
	done := false
	for _, g := range given {
		switch {
		case g.Question != a.Question:
			out = append(out, g)
		case own && g.By != safety.Client && safety.Milder(a.Answer, g.Answer) && !(w.student && corrects(g)):
			return given
		case own && g.By != safety.Client && a.Answer == g.Answer:
			out = append(out, g)
		case g.answer().Lasts() && !g.saysMore(a) && !corrects(g):
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

// word is whose an answer is, and the event that brought it.
type word struct {
	by string
	// student: it adds caution and takes none away.
	student bool
	event   Event
}

// saysMore reports whether a later answer says what this one does, and nothing less: the
// same answer, of its side or of both, with every place that was named.
func (g Given) saysMore(a ScreenedAnswer) bool {
	if a.Answer != g.Answer || a.Side != g.Side && a.Side != "" && a.Side != ids.Midline {
		return false
	}
	for _, r := range g.Regions {
		if !slices.Contains(a.Regions, r) {
			return false
		}
	}
	return true
}

// correctedWithin: whoever gave a mistaken answer may correct it for so long, until a
// hold rests on it.
const correctedWithin = 5 * 60_000

func (j *Judge) wordOf(b *Screened, e Event) word {
	return word{b.By, j.ctx.Roles[e.Author] == rights.Student, e}
}

// corrects reports whether an event's author may still take an answer back by another.
func (j *Judge) corrects(e Event) func(Given) bool {
	return func(g Given) bool {
		if g.from.Author != e.Author || e.At()-g.from.At() > correctedWithin || e.At() < g.from.At() {
			return false
		}
		for _, h := range j.holds {
			began, now := j.arrived[h.event.ID], j.arrived[e.ID] // now is 0 for what is judged just now
			if h.event.Verdict == Accepted && began > j.arrived[g.from.ID] && (now == 0 || began < now) {
				return false
			}
		}
		return true
	}
}

func (r *reducer) screened(e Event, b *Screened) {
	for _, a := range b.Answers {
		r.sets("answer to "+string(a.Question), "screen:"+string(a.Question), e)
	}
}
