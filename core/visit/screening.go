package visit

import (
	"fmt"
	"slices"
	"strings"

	"mokren/core/assess"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/strict"
	"mokren/core/treat"
)

// Context is what a visit's log is read against: what earlier visits have
// left behind, and who is licensed. The server and the browser read with the
// same one.
type Context struct {
	// Carried are the answers of earlier visits, aged to this one, and those
	// that follow from the record (first visit, under age).
	Carried []safety.Answer `json:"carried"`
	// Licensed are the persons who may override a block.
	Licensed []string `json:"licensed"`
	// Thresholds are the practice's own, from where on a reading is flagged.
	Thresholds assess.Thresholds `json:"thresholds"`
}

type (
	// Screened answers questions of the screening; a later answer counts.
	Screened struct {
		Answers []ScreenedAnswer `json:"answers" minItems:"1" maxItems:"200"`
		// By tells who answered: the therapist, or the client on an own device.
		// A client's answer does not soften what the therapist has noted.
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

func (a ScreenedAnswer) answer() safety.Answer {
	return safety.Answer{Question: a.Question, Answer: a.Answer, Side: a.Side, Regions: a.Regions}
}

// screening judges what is known at this moment of the log.
func (r *reducer) screening() safety.Screening {
	own := make([]safety.Answer, 0, len(r.state.Answers))
	for _, a := range r.state.Answers {
		own = append(own, a.answer())
	}
	merged := safety.Merge(r.ctx.Carried, own)
	for i := range merged {
		if slices.ContainsFunc(r.state.Cleared,
			func(c ScreeningCleared) bool { return c.Question == merged[i].Question }) {
			merged[i].Cleared = true
		}
	}
	return safety.Screen(merged)
}

func (r *reducer) screened(e Event, b *Screened) {
	for _, a := range b.Answers {
		r.sets("answer to "+string(a.Question), "screen:"+string(a.Question), e)
		i := slices.IndexFunc(r.state.Answers, func(x ScreenedAnswer) bool { return x.Question == a.Question })
		if i < 0 {
			r.state.Answers = append(r.state.Answers, a)
			continue
		}
		if b.By != "client" || !milder(a.Answer, r.state.Answers[i].Answer) {
			r.state.Answers[i] = a
		}
	}
}

// milder reports whether answer a asks for less caution than b.
func milder(a, b string) bool {
	weight := map[string]int{"no": 0, "unknown": 1, "yes": 2}
	return weight[a] < weight[b]
}

func (r *reducer) override(e Event, b *BlockOverridden) error {
	if _, err := r.point(b.Point); err != nil {
		return err
	}
	if !slices.Contains(r.ctx.Licensed, e.Author) {
		return refuse("$.author", e.Author, "a licensed person of the practice")
	}
	r.state.Overrides = append(r.state.Overrides, *b)
	return nil
}

// where a point lies, as regions on a side.
func (p Point) where() []safety.Place {
	if n, ok := body.RegionOf(body.CellAt(p.View, body.Point{X: p.X, Y: p.Y})); ok {
		return []safety.Place{{Region: n.Region, Side: n.Side}}
	}
	return nil
}

// refusal tells why the screening lets no hold begin at a point now, or "".
// With consentMissing it decides for every screen, import and replay.
func (r *reducer) refusal(p Point, s safety.Screening) string {
	if grave := s.Grave(); len(grave) > 0 {
		return fmt.Sprintf("The screening is not complete: %d questions that could stop the treatment "+
			"were not asked.", len(grave))
	}
	why, blocked := s.Blocks(p.Muscle, p.where())
	if !blocked {
		return ""
	}
	overridden := slices.ContainsFunc(r.state.Overrides, func(b BlockOverridden) bool { return b.Point == p.Point })
	if overridden && !s.NoTreatment {
		return ""
	}
	return "Blocked by the screening: " + why
}

// withinScreening tells why a hold's start does not respect the screening, or "".
func withinScreening(st treat.Start, s safety.Screening) string {
	if s.Limits.NumberCannotSteer && treat.SteeredByNumber(st.Protocol) {
		return "The client's number cannot steer today; this protocol is steered by it."
	}
	if allowed, err := st.Under(s.Limits); err != nil || !st.Limits.Within(allowed) {
		return "The limits are above what the screening allows today."
	}
	return ""
}
