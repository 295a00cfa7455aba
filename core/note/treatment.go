package note

import (
	"fmt"

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
	muscle := wording.Muscle(h.Start.Muscle, h.Start.Side, "")
	out := fmt.Sprintf("Pressed at %s, %s: %s", w.clock(h.StartedMS), muscle, name)
	for _, p := range []string{wording.Plain(h.Contact), lies(h.Position), h.MuscleSet} {
		if p != "" {
			out += ", " + p
		}
	}
	if h.Status == visit.HoldRejected {
		return out + ". Set aside: " + stop(h.Why)
	}
	s := h.Summary
	out += fmt.Sprintf("; target %s, ceilings %s and %s; %s pressed in %s", number(s.Limits.Target),
		number(s.Limits.Soft), number(s.Limits.Hard), seconds(s.PressureS), count(s.Count(), "part"))
	if s.OverrunS > 0 {
		out += ", " + seconds(s.OverrunS) + " beyond the limit"
	}
	if course := scores(s.Trace); course != "" {
		out += "; numbers " + course
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
	return out + "; " + string(s.Outcome) + "."
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
