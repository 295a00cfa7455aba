package note

import (
	"fmt"

	"mokren/core/ids"
	"mokren/core/progress"
	"mokren/core/safety"
	"mokren/core/visit"
	"mokren/core/wording"
)

// assessment is what the findings come to.
func (w *writer) assessment() string {
	var l lines
	for i, p := range w.work.Points {
		l.add(w.judged(w.State.Points[i], p))
	}
	for _, r := range w.State.Ranges {
		l.add(
			changed(capital(wording.OnSide(wording.Movement(r.Movement), r.Side)),
				"rom."+ids.Measure(r.Movement), unitOf(r), r.Before, r.After),
		)
	}
	for _, p := range w.State.Points {
		l.add(changed("Score, "+wording.Muscle(p.Muscle, p.Side, p.Site), "nprs", "", p.NPRS, p.AfterNPRS))
	}
	// Two answers may ask for the same care; it is written once.
	said := map[string]bool{}
	for _, r := range w.State.Screening.Rules {
		if line := ruleName[r.Outcome] + r.Text; !said[line] {
			said[line] = true
			l.labelled(ruleName[r.Outcome], r.Text)
		}
	}
	for _, p := range w.State.Points {
		if p.Closed != "" && w.State.ClosedMS == 0 {
			l.labelled("Not again today, "+wording.Muscle(p.Muscle, p.Side, p.Site), p.Closed)
		}
	}
	for _, o := range w.State.Overrides {
		l.labelled("Pressed against a caution", o.Reason)
	}
	l.add(w.State.Note)
	return l.text("Nothing was found that would be judged.")
}

// ruleName is what a rule of the screening asks for, in the words of its group on screen.
var ruleName = map[safety.Outcome]string{
	safety.Emergency: "Emergency signs", safety.ReferFirst: "Refer before treating",
	safety.AvoidHere: "Avoid these areas", safety.Adapt: "Precaution",
}

// judged says what a point comes to, by hand where the therapist has said otherwise.
func (w *writer) judged(p visit.Point, work visit.PointWork) string {
	activity := string(work.Activity)
	if activity == "none" {
		activity = ""
	} else {
		activity += " "
	}
	out := fmt.Sprintf("%s: %s%s", wording.Muscle(p.Muscle, p.Side, p.Site), activity, wording.Plain(work.Certainty))
	if work.Role != "" && work.Role != "primary" {
		out += ", " + work.Role
		if of := w.pointOf(work.Of); of != "" {
			out += " to " + of
		}
	}
	if p.ByHand != nil && p.ByHand.Reason != "" {
		out += " (judged by hand: " + p.ByHand.Reason + ")"
	}
	return stop(out)
}

// pointOf names the point that another depends on.
func (w *writer) pointOf(id visit.UUID) string {
	for _, p := range w.State.Points {
		if p.Point == id {
			return wording.Muscle(p.Muscle, p.Side, "")
		}
	}
	return ""
}

// changed says whether a pair is a real change, by which threshold.
func changed(what string, m ids.Measure, unit string, before, after *float64) string {
	if before == nil || after == nil {
		return ""
	}
	c, err := progress.Pair(m, *before, *after)
	if err != nil {
		return ""
	}
	return fmt.Sprintf("%s: %s%s → %s%s, %s.", what, number(*before), unit, number(*after), unit, c.Text)
}
