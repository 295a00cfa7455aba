package note

import (
	"cmp"
	"fmt"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/stable"
	"mokren/core/visit"
	"mokren/core/wording"
)

// subjective is what the client said.
func (w *writer) subjective() string {
	var l lines
	l.labelled("Reason for the visit", w.State.Reason)
	w.reaction(&l)
	w.interview(&l)
	w.drawing(&l)
	l.labelled("Loads", among(words(w.State.Loads)))
	w.screening(&l)
	for _, n := range w.State.ClientNotes {
		l.labelled("Said during the visit", "“"+n.Text+"”")
	}
	return l.text("The client's story was not taken down.")
}

// words writes ids as words.
func words[T ~string](list []T) []string {
	out := make([]string, len(list))
	for i, v := range list {
		out[i] = wording.Plain(v)
	}
	return out
}

// reaction is how the client was after the last visit, where that was asked.
func (w *writer) reaction(l *lines) {
	r := w.State.Reaction
	if r == nil {
		return
	}
	since := map[string]string{"better": "better", "same": "the same", "worse": "worse"}[r.Since]
	l.labelled("Since the last visit", since+and(r.Note))
}

// and joins a remark to what it belongs to.
func and(note string) string {
	if note == "" {
		return ""
	}
	return "; " + note
}

// interview writes the story in the order in which it is asked.
func (w *writer) interview(l *lines) {
	i := w.State.Interview
	if i == nil {
		return
	}
	l.labelled("Complaint", i.Complaint)
	l.labelled("Pain, 0–10", pain(i))
	l.labelled("Onset", i.Since)
	l.labelled("Pattern over the day", i.Pattern)
	l.labelled("Eased by", i.Eases)
	l.labelled("Made worse by", i.Worsens)
	l.labelled("Medication", i.Medication)
	l.labelled("Earlier treatment", i.Treatment)
	for _, a := range i.Activities {
		l.labelled("Function (0 unable, 10 as before the problem)", fmt.Sprintf("%s %d", a.Name, a.Score))
	}
}

// pain writes the scores that were given: now, at worst, at best.
func pain(i *visit.InterviewNoted) string {
	var out []string
	for _, p := range []struct {
		what string
		v    *float64
	}{{"now", i.Now}, {"worst", i.Worst}, {"best", i.Best}} {
		if p.v != nil {
			out = append(out, p.what+" "+number(*p.v))
		}
	}
	return among(out)
}

// drawing names where the pain was drawn, the strongest region first.
func (w *writer) drawing(l *lines) {
	type place struct {
		kind string
		body.RegionCover
	}
	worst := map[place]int{}
	for _, s := range w.State.Drawing {
		for _, id := range s.Cells {
			c, err := body.ParseCell(id)
			if err != nil {
				continue // checked when it was painted
			}
			if r, ok := body.RegionOf(c); ok {
				k := place{s.Kind, body.RegionCover{Region: r.Region, Side: r.Side}}
				worst[k] = max(worst[k], s.Intensity)
			}
		}
	}
	places := make([]place, 0, len(worst))
	for p := range worst {
		places = append(places, p)
	}
	stable.Sort(places, func(a, b place) int {
		return cmp.Or(cmp.Compare(worst[b], worst[a]), cmp.Compare(a.Region, b.Region),
			cmp.Compare(a.Side, b.Side), cmp.Compare(a.kind, b.kind))
	})
	out := make([]string, len(places))
	for i, p := range places {
		out[i] = fmt.Sprintf("%s: %s %d", wording.OnSide(wording.Plain(p.Region), p.Side),
			wording.Plain(p.kind), worst[p])
	}
	l.labelled("Pain drawn (0–10)", joined(out))
}

// joined parts things that have commas within.
func joined(list []string) string {
	out := ""
	for i, s := range list {
		if i > 0 {
			out += "; "
		}
		out += s
	}
	return out
}

// screening names every yes, and what was not answered.
func (w *writer) screening(l *lines) {
	var yes []string
	for _, a := range w.State.Answers {
		if a.Answer != "yes" {
			continue
		}
		said := wording.OnSide(wording.Plain(a.Question), a.Side)
		if len(a.Regions) > 0 {
			said += " (" + regions(a.Regions) + ")"
		}
		if a.Cleared {
			said += ", cleared"
		}
		yes = append(yes, said+and(a.Note))
	}
	l.labelled("Screening, answered yes", joined(yes))
	if len(yes) == 0 && len(w.State.Answers) > 0 {
		l.add("Screening: no to every question that was asked.")
	}
	l.labelled("Screening, not answered", joined(words(unasked(w.State.Screening.Missing))))
	for _, c := range w.State.Cleared {
		l.labelled("Cleared", fmt.Sprintf("%s by %s, %s%s", wording.Plain(c.Question), c.By, c.On, and(c.Note)))
	}
	for _, c := range w.State.Consents {
		l.labelled("Consent", consent(c))
	}
}

// unasked is at most a handful: a whole unanswered form is said in one word.
func unasked(missing []ids.Question) []ids.Question {
	if len(missing) > 6 {
		return []ids.Question{ids.Question(fmt.Sprintf("%d questions", len(missing)))}
	}
	return missing
}

// consent writes what was agreed to or withdrawn, for the visit or for an area.
func consent(c visit.ConsentRecorded) string {
	out := "given"
	if !c.Given {
		out = "withdrawn"
	}
	if c.Area == safety.WholeVisit {
		out += " for the visit"
	} else {
		out += " for the " + wording.Plain(c.Area)
	}
	if c.By == "guardian" {
		out += " by a guardian"
	}
	if c.Chaperone != "" {
		out += ", chaperone " + c.Chaperone
	}
	return out + and(c.Note)
}
