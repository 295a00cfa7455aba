package record

import (
	"fmt"
	"slices"

	"mokren/core/ids"
	"mokren/core/safety"
)

// Reason is a kind of refusal.
type Reason string

// The reasons, by precedence: the first that applies is given.
const (
	Closed        Reason = "closed-today"
	NoTreatment   Reason = "no-treatment"
	NotAsked      Reason = "not-asked"
	TwiceAlready  Reason = "twice-already"
	Blocked       Reason = "blocked"
	NoConsent     Reason = "no-consent"
	NotByGuardian Reason = "no-guardian"
)

// Refusal is why no hold may begin at a place; none without a reason.
type Refusal struct {
	Reason Reason
	Text   string
	// Area is the one whose consent is missing.
	Area safety.Area
}

// Verdict is a state with what the answers come to; it is judged once.
type Verdict struct {
	*State
	// Day is what other visits of today have met on the body.
	Day Day
	// Given are the answers that count, in the form that the screening judges.
	Given     []safety.Answer
	Screening safety.Screening
	// but are reasons that are not asked about this time.
	but []Reason
}

// But leaves reasons out that are told of otherwise.
func (j Verdict) But(reasons ...Reason) Verdict { j.but = reasons; return j }

// Judge screens the answers that count, with the signs and treatments of the day.
func (s *State) Judge(d Day) Verdict {
	d = s.client.Today(d, s.q.SaidMS)
	given := s.Answers(d.Signs)
	return Verdict{State: s, Day: d, Given: given, Screening: safety.Screen(given)}
}

// Standing lists the answers that count, with their stamps.
func (s *State) Standing() []KnownAnswer {
	return slices.DeleteFunc(slices.Clone(s.answers), func(k KnownAnswer) bool { return k.order < 0 })
}

// Consents lists the latest word on each area.
func (s *State) Consents() []AreaConsent { return s.consents }

// Refusal gives the first reason why no hold may begin at a point that lies there.
func (j Verdict) Refusal(at Spot, point string) Refusal {
	h := j.client.Height()
	if why := j.Day.Closed(at, h); why != "" && !slices.Contains(j.but, Closed) {
		return Refusal{Reason: Closed, Text: why}
	}
	grave, why := j.graveRule()
	switch missing := j.Screening.Grave(); {
	case grave:
		return Refusal{Reason: NoTreatment, Text: "Blocked by the screening: " + why}
	case len(missing) > 0 && j.Day.FeltUnwell():
		return Refusal{
			Reason: NotAsked,
			Text:   "The client felt unwell: ask the screening again before anything else is pressed.",
		}
	case len(missing) > 0:
		return Refusal{Reason: NotAsked, Text: fmt.Sprintf("The screening is not complete: %d questions that could "+
			"stop the treatment were not asked.", len(missing))}
	}
	if why := j.Day.Enough(at, h); why != "" && !slices.Contains(j.but, TwiceAlready) {
		return Refusal{Reason: TwiceAlready, Text: why}
	}
	if why := j.Blocked(at, point); why != "" {
		return Refusal{Reason: Blocked, Text: "Blocked by the screening: " + why}
	}
	return j.ConsentMissing(at)
}

// graveRule gives the rule that allows no treatment at all, the worst outcome first.
func (j Verdict) graveRule() (grave bool, why string) {
	for _, worst := range []safety.Outcome{safety.Emergency, safety.ReferFirst} {
		for _, r := range j.Screening.Rules {
			if r.Outcome == worst {
				return true, r.Text
			}
		}
	}
	return false, ""
}

// Overridable lists the answers that block a place, where a licensed person may press
// there all the same; none where one of them lets nobody.
func (j Verdict) Overridable(at Spot) []ids.Question {
	var out []ids.Question
	for _, r := range j.Screening.Rules {
		if !r.At(at.Muscle, at.Where) {
			continue
		}
		if !r.Overridable() {
			return nil
		}
		out = ids.With(out, r.ID)
	}
	return out
}

// Blocked tells what of the answers forbids pressing there, or "": an override of the
// point lifts what it may.
func (j Verdict) Blocked(at Spot, point string) string {
	for _, r := range j.Screening.Rules {
		if r.At(at.Muscle, at.Where) && !j.overridden(r, point) {
			return r.Text
		}
	}
	return ""
}

// overridden reports whether a licensed person's override lifts a rule at a point: one
// that names it, or was made while it stood. A caution that came later ends it.
func (j Verdict) overridden(r safety.AppliedRule, point string) bool {
	if !r.Overridable() {
		return false
	}
	return slices.ContainsFunc(j.overrides, func(o override) bool {
		return o.Point == point && (len(o.Questions) == 0 || slices.Contains(o.Questions, r.ID)) &&
			!slices.ContainsFunc(
				j.answers,
				func(k KnownAnswer) bool { return k.order > o.order && k.Answer.Answer != no },
			)
	})
}

// ConsentMissing tells which consent a hold at a place still needs.
func (j Verdict) ConsentMissing(at Spot) Refusal {
	minor := slices.ContainsFunc(j.Screening.Rules, func(a safety.AppliedRule) bool { return a.ID == "minor" })
	for _, a := range append([]safety.Area{safety.WholeVisit}, safety.SensitiveAreas(at.Muscle, at.Where)...) {
		i := slices.IndexFunc(j.consents, func(c AreaConsent) bool { return c.Area == a && c.Given })
		switch {
		case i < 0 && a == safety.WholeVisit:
			return Refusal{NoConsent, "No consent to today's treatment is recorded.", a}
		case i < 0:
			return Refusal{NoConsent, "The " + string(a) + " needs a consent of its own, and none is recorded.", a}
		case minor && j.consents[i].By != "guardian":
			return Refusal{NotByGuardian, "The client is under age: a guardian's consent is needed.", a}
		}
	}
	return Refusal{}
}

// Clearable tells which answer a clearance's basis does not lift, or nil; what it leaves
// is shown.
func (s *State) Clearable(c Clearance) *KnownAnswer {
	for _, k := range s.answers {
		if k.Question != c.Question || !c.ofSide(k.Side) || !s.at(k, s.q.SaidMS).Lasts() || k.Cleared {
			continue
		}
		if !c.Allows(k.Answer) || c.Basis == ByResolved && k.Answer.Answer == unknown && !s.nowNo(c.Question) {
			return &k
		}
	}
	return nil
}

// nowNo reports whether a licensed person has answered a question no.
func (s *State) nowNo(q ids.Question) bool {
	return slices.ContainsFunc(s.answers, func(k KnownAnswer) bool {
		return k.Question == q && k.Answer.Answer == no && k.word() == licensed
	})
}

// Correctable reports whether the author of a moment may still take back an answer that
// only a clearance lifts.
func (s *State) Correctable(a Stamp, whose string) bool {
	for _, k := range s.answers {
		if k.Event == a.Event && s.at(k, s.q.SaidMS).Lasts() && !s.corrects(s.q.Stamp, whose, k) {
			return false
		}
	}
	return true
}
