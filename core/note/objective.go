package note

import (
	"fmt"

	"mokren/core/assess"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/visit"
	"mokren/core/wording"
)

// objective is what was measured, found and done.
func (w *writer) objective() string {
	var l lines
	for _, r := range w.State.Ranges {
		l.add(reading(r))
	}
	for _, g := range w.State.Gauges {
		l.add(gauge(g))
	}
	for i, p := range w.State.Posture {
		flagged := i < len(w.State.PostureFlags) && w.State.PostureFlags[i].Flagged
		l.add(posture(p, flagged))
	}
	for _, t := range w.State.Tests {
		l.labelled("Test", fmt.Sprintf("%s %s", wording.OnSide(wording.Test(t.Test), t.Side), t.Result))
	}
	for _, s := range w.State.Signs {
		l.labelled("Seen", wording.OnSide(wording.Plain(s.Sign), s.Side))
	}
	if late := w.State.PutOff; late != nil {
		l.labelled("Consent and screening",
			fmt.Sprintf("asked after hands were on, %s: %s", w.clock(late.AtMS), late.Text))
	}
	for _, p := range w.State.Points {
		l.add(point(p))
	}
	for _, s := range w.State.Searched {
		result := map[string]string{"nothing": "no point found", "not-reachable": "not reachable"}[s.Result]
		l.labelled("Searched", wording.Muscle(s.Muscle, s.Side, "")+": "+result)
	}
	for _, h := range w.State.Holds {
		l.add(w.hold(h))
	}
	for _, r := range w.State.Runs {
		l.add(r.Words())
	}
	for _, p := range w.State.Points {
		l.add(rechecked(p))
	}
	w.again(&l)
	return l.text("Nothing was measured, charted or pressed.")
}

// unitOf is degrees, but for the jaw, whose opening is a distance.
func unitOf(r visit.Range) string {
	if r.Movement == "jaw.opening" {
		return " mm"
	}
	return "°"
}

// reading is one movement: before, and after where it was read again.
func reading(r visit.Range) string {
	unit := unitOf(r)
	out := fmt.Sprintf("%s: %s", capital(wording.OnSide(wording.Movement(r.Movement), r.Side)),
		orUnread(r.Before, unit))
	if len(r.Trials) > 1 {
		out += " (mean of " + numbers(r.Trials) + ")"
	}
	if r.Passive != nil {
		out += ", passive " + number(*r.Passive) + unit
	}
	if r.BeforePain != nil {
		out += ", pain " + number(*r.BeforePain)
	}
	if r.Felt != "" {
		out += ", " + r.Felt
		if r.FeltAt != "" {
			out += " at " + wording.Plain(r.FeltAt)
		}
	}
	if r.EndFeel != "" {
		out += ", end feel " + r.EndFeel
	}
	if r.After != nil {
		out += "; after treatment " + number(*r.After) + unit
	}
	if r.Tool != "" {
		out += "; by " + r.Tool
	}
	return out + "."
}

// gauge writes a measure with its unit, before and after.
func gauge(g visit.GaugePair) string {
	of := assess.GaugeInfo{Name: capital(wording.Plain(g.Gauge))}
	for _, known := range assess.Gauges() {
		if known.ID == g.Gauge {
			of = known
		}
	}
	unit := of.Unit
	if unit != "°" && unit != "" {
		unit = " " + unit
	}
	before, after := g.Kind, g.AfterKind
	if g.Before != nil {
		before = number(*g.Before) + unit
	}
	if g.After != nil {
		after = number(*g.After) + unit
	}
	if before == "" && after == "" {
		return ""
	}
	out := wording.OnSide(of.Name, g.Side)
	if before != "" {
		out += ": " + wording.Plain(before)
	}
	if after != "" {
		out += "; after treatment " + wording.Plain(after)
	}
	return out + "."
}

// posture writes a reading with its side, and whether it lies beyond its bounds.
func posture(p assess.Posture, flagged bool) string {
	out := "Posture, " + wording.OnSide(wording.Plain(p.Measure), p.Side) + ":"
	if p.Degrees != nil {
		out += " " + number(*p.Degrees) + "°"
	}
	if p.CM != nil {
		out += " " + number(*p.CM) + " cm"
	}
	if p.Kind != "" {
		out += " " + p.Kind
	}
	if p.HighSide != "" && p.HighSide != ids.Midline {
		out += ", more on the " + string(p.HighSide)
	}
	if flagged {
		out += ", marked"
	}
	return out + "."
}

// point is what was felt there, by the hand and by the client; what was not
// asked is not said.
func point(p visit.Point) string {
	out := wording.Muscle(p.Muscle, p.Side, p.Site) + ":"
	if p.Grade != nil {
		out += fmt.Sprintf(" tenderness %d of 4,", *p.Grade)
	}
	if p.NPRS != nil {
		out += " score " + number(*p.NPRS) + " of 10,"
	}
	switch p.Band {
	case "yes":
		out += " taut band,"
	case "no":
		out += " no taut band,"
	case "unsure":
		out += " band unsure,"
	}
	if p.Nodule != "" && p.Nodule != "none" {
		out += " " + p.Nodule + "-sized nodule,"
	}
	if p.Twitch != nil && *p.Twitch {
		out += " local twitch,"
	}
	switch felt := p.Answer(p.ChartedMS); {
	case felt != nil && len(felt.Places) > 0:
		out += " felt in " + places(felt.Places, p.Side) + ","
	case p.NoReferral:
		out += " felt nowhere else,"
	}
	switch p.Familiar {
	case "yes":
		out += " the pain that the client came with,"
	case "partly":
		out += " partly the pain that the client came with,"
	case "no":
		out += " not the pain that the client came with,"
	}
	if p.Threshold != nil {
		out += " pressure threshold " + number(p.Threshold.KPa) + " kPa"
		if o := p.ThresholdOther; o != nil {
			out += " (other side " + number(o.KPa) + " kPa)"
		}
		out += ","
	}
	out = out[:len(out)-1] + "."
	if p.Note != "" {
		out += " " + stop(p.Note)
	}
	return out
}

// places lists where something is felt, with the side where that is not the point's own.
func places(list []safety.Place, own ids.Side) string {
	var out []string
	for _, p := range list {
		words := wording.Plain(p.Region)
		if p.Side != own {
			words = wording.OnSide(words, p.Side)
		}
		out = ids.With(out, words)
	}
	return among(out)
}

// rechecked writes score and grade before and after; what was not taken again is not
// mentioned.
func rechecked(p visit.Point) string {
	if p.AfterNPRS == nil {
		return ""
	}
	out := fmt.Sprintf("Recheck, %s: score %s → %s", wording.Muscle(p.Muscle, p.Side, p.Site), orUnread(p.NPRS, ""),
		number(*p.AfterNPRS))
	if p.AfterGrade != nil && p.Grade != nil {
		out += fmt.Sprintf(", tenderness %d → %d", *p.Grade, *p.AfterGrade)
	}
	if p.ThresholdAfter != nil && p.Threshold != nil {
		out += fmt.Sprintf(", pressure threshold %s → %s kPa", number(p.Threshold.KPa), number(p.ThresholdAfter.KPa))
	}
	return out + "."
}

// again is what else was looked at after treatment: posture, signs, the client's activities,
// and how the client stands and walks.
func (w *writer) again(l *lines) {
	for _, p := range w.State.PostureAfter {
		l.labelled("Recheck", posture(p, false))
	}
	for _, s := range w.State.SignsAfter {
		seen := map[bool]string{true: "still seen", false: "gone"}[s.Present]
		l.labelled("Recheck", wording.OnSide(wording.Plain(s.Sign), s.Side)+": "+seen)
	}
	a := w.State.After
	if a == nil {
		return
	}
	for _, x := range a.Activities {
		l.labelled("Recheck", fmt.Sprintf("%s: %s of 10", x.Name, activityCourse(w.State.Interview, x)))
	}
	if a.Walk != "" {
		l.labelled("Recheck", "standing and walking "+a.Walk)
	}
	if a.Note != "" {
		l.labelled("Recheck", a.Note)
	}
}

// activityCourse is an activity's score, with the one before where it was asked.
func activityCourse(before *visit.InterviewNoted, now visit.Activity) string {
	if before != nil {
		for _, b := range before.Activities {
			if b.Name == now.Name {
				return fmt.Sprintf("%d → %d", b.Score, now.Score)
			}
		}
	}
	return fmt.Sprint(now.Score)
}
