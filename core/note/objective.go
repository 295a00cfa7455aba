package note

import (
	"fmt"

	"mokren/core/assess"
	"mokren/core/ids"
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
		l.labelled("Test", fmt.Sprintf("%s %s", wording.OnSide(wording.Plain(t.Test), t.Side), t.Result))
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
	for _, p := range w.State.Points {
		l.add(rechecked(p))
	}
	return l.text("Nothing was measured, charted or pressed.")
}

// reading is one movement: before, and after where it was read again.
func reading(r visit.Range) string {
	unit := "°"
	if r.Movement == "jaw.opening" {
		unit = " mm"
	}
	out := fmt.Sprintf("Range, %s: %s", wording.OnSide(wording.Movement(r.Movement), r.Side), orUnread(r.Before, unit))
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
	out := "Point, " + wording.Muscle(p.Muscle, p.Side, p.Site) + ":"
	if p.Grade != nil {
		out += fmt.Sprintf(" tenderness %d of 4,", *p.Grade)
	}
	if p.NPRS != nil {
		out += " number " + number(*p.NPRS) + " of 10,"
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
		out += " nodule (" + p.Nodule + "),"
	}
	if p.Twitch != nil && *p.Twitch {
		out += " local twitch,"
	}
	switch {
	case len(p.Referral) > 0:
		out += " felt in " + regions(p.Referral) + ","
	case p.NoReferral:
		out += " felt nowhere else,"
	}
	switch p.Familiar {
	case "yes", "partly", "no":
		out += " the client's own pain: " + p.Familiar + ","
	}
	if p.Threshold != nil {
		out += " pressure threshold " + number(p.Threshold.KPa) + " kPa"
		if o := p.ThresholdOther; o != nil {
			out += " (other side " + number(o.KPa) + " kPa)"
		}
		out += ","
	}
	if p.Note != "" {
		out += " " + p.Note + ","
	}
	return out[:len(out)-1] + "."
}

// rechecked writes score and grade before and after; what was not taken again is not
// mentioned.
func rechecked(p visit.Point) string {
	if p.AfterNPRS == nil {
		return ""
	}
	out := fmt.Sprintf("Recheck, %s: number %s → %s", wording.Muscle(p.Muscle, p.Side, p.Site), orUnread(p.NPRS, ""),
		number(*p.AfterNPRS))
	if p.AfterGrade != nil && p.Grade != nil {
		out += fmt.Sprintf(", tenderness %d → %d", *p.Grade, *p.AfterGrade)
	}
	return out + "."
}
