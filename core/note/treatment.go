package note

import (
	"fmt"
	"slices"

	"mokren/core/ids"
	"mokren/core/treat"
	"mokren/core/visit"
	"mokren/core/wording"
)

// hold is one hold with its times, repeats and numbers as they were.
func (w *writer) hold(h visit.Hold) string {
	name := wording.Plain(h.Start.Protocol)
	if h.Start.Plan != nil && h.Start.Plan.Name != "" {
		name = h.Start.Plan.Name
	}
	out := fmt.Sprintf("%s at %s, %s: %s", deed(h), w.clock(h.StartedMS), w.where(h), name)
	for _, p := range []string{wording.Plain(h.Contact), lies(h.Position), set(h.MuscleSet)} {
		if p != "" {
			out += ", " + p
		}
	}
	if h.Status == visit.HoldRejected {
		return out + ". Set aside: " + stop(h.Why)
	}
	s := h.Summary
	out += fmt.Sprintf("; target %s, ceilings %s and %s; %s", number(s.Limits.Target),
		number(s.Limits.Soft), number(s.Limits.Hard), done(h))
	if s.OverrunS > 0 {
		out += ", " + seconds(s.OverrunS) + " over the limit"
	}
	if said := counting(s); len(said) != 0 && len(said) != 2 { // the result says two
		out += "; scores " + scores(said)
	}
	if s.Eased > 0 {
		out += "; eased " + times(s.Eased)
	}
	if len(s.Signs) > 0 {
		out += "; " + among(words(s.Signs))
	}
	if s.Twitch {
		out += "; local twitch"
	}
	if len(s.Referral) > 0 {
		out += "; felt in " + regions(s.Referral)
	}
	if h.Status == visit.Live {
		return out + "; not ended."
	}
	return out + "; " + s.Result() + "."
}

// presses reports whether a hold is of a protocol that presses; the first rules knew no other.
func presses(h visit.Hold) bool { return h.Start.Plan == nil || h.Start.Plan.Presses }

// deed is what was done, in a word.
func deed(h visit.Hold) string {
	if presses(h) {
		return "Pressed"
	}
	return "Lengthened"
}

// done is how long it was pressed, or how often it was lengthened, in how many parts.
func done(h visit.Hold) string {
	s := h.Summary
	switch {
	case presses(h):
		return fmt.Sprintf("%s of pressure in %s", seconds(s.PressureS), count(s.Count(), "step"))
	case s.Run != nil && s.Rounds > 0:
		return count(s.Rounds, "round")
	case s.Run != nil && s.Reps > 0:
		return count(s.Reps, "repeat")
	}
	return count(s.Count(), "step")
}

// where is the muscle with the place of the point: a muscle may have been pressed at two.
func (w *writer) where(h visit.Hold) string {
	for _, p := range w.State.Points {
		if p.Point == h.Point {
			return wording.Muscle(p.Muscle, p.Side, p.Site)
		}
	}
	return wording.Muscle(h.Start.Muscle, h.Start.Side, "")
}

// set is how the muscle lay: longer or shorter than at rest.
func set(s string) string {
	switch s {
	case "tension":
		return "muscle on stretch"
	case "slack":
		return "muscle on slack"
	}
	return wording.Plain(s)
}

// counting are the scores that count: those said before the hand came off.
func counting(s treat.Summary) []treat.TracePoint {
	if s.Run == nil || len(s.Parts) == 0 {
		return s.Trace
	}
	off := s.Parts[len(s.Parts)-1].EndS
	return slices.DeleteFunc(slices.Clone(s.Trace), func(p treat.TracePoint) bool { return p.T > off })
}

// lies is how the client lay, as a sentence has it.
func lies(p ids.Position) string {
	switch p {
	case "side-lying-left":
		return "lying on the left side"
	case "side-lying-right":
		return "lying on the right side"
	}
	return wording.Plain(p)
}

// scores are the numbers in their order; of many the first, the highest and the
// last say enough.
func scores(trace []treat.TracePoint) string {
	out := ""
	for i, p := range trace {
		if i > 0 {
			out += " → "
		}
		out += number(p.Score)
	}
	return out
}

// times counts in words.
func times(n int) string {
	if n == 1 {
		return "once"
	}
	return fmt.Sprintf("%d times", n)
}
