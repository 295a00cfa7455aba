package note

import (
	"fmt"

	"mokren/core/safety"
	"mokren/core/visit"
	"mokren/core/wording"
)

// LetterDraft is a draft of a letter to whom a client is referred.
type LetterDraft struct {
	Text string `json:"text"`
	// Why are the program's own reasons to refer; none where it has none.
	Why []string `json:"why"`
}

// Letter drafts a referral letter from a visit: what the client said, the screening, what was
// found, done and advised. It names nobody; name and date of birth stand in its heading.
func Letter(v Visit) LetterDraft {
	w := writer{Visit: v, work: v.State.Work(v.Context, v.Earlier, v.Suspects)}
	out := LetterDraft{Why: reasons(v.State)}
	// Where the program has no reason of its own, the therapist writes theirs.
	var l lines
	l.add("Dear colleague,")
	l.add("I ask you to examine this client, whom I saw for massage therapy.")
	l.labelled("Reason for referral", joined(out.Why))
	l.add("")
	w.said(&l)
	w.found(&l)
	l.add(w.didAndAdvised())
	l.add("A massage therapist does not diagnose: this is what I saw and was told. I would be glad to hear whether " +
		"treatment by hand may go on, and where it should not.")
	l.add("With kind regards")
	out.Text = l.text("")
	return out
}

// reasons are the program's own: what the screening sends to a doctor, and signs under the
// hand that ended the treatment of a place.
func reasons(s visit.State) []string {
	out := []string{}
	for _, r := range s.Screening.Rules {
		if r.Outcome == safety.Emergency || r.Outcome == safety.ReferFirst {
			out = append(out, r.Text)
		}
	}
	for _, h := range s.Holds {
		if h.Status == visit.HoldRejected || !h.Summary.SiteClosed || len(h.Summary.Signs) == 0 {
			continue
		}
		out = append(out, fmt.Sprintf("%s under pressure at %s", capital(among(words(h.Summary.Signs))),
			wording.Muscle(h.Start.Muscle, h.Start.Side, "")))
	}
	return out
}

// The parts of a letter are those of the note, fewer of them: who reads it has a minute.

// said is the complaint and what the screening was answered.
func (w *writer) said(l *lines) {
	if i := w.State.Interview; i != nil {
		l.labelled("Complaint", i.Complaint)
		l.labelled("Pain, 0–10", pain(i))
		l.labelled("Since", i.Since)
		l.labelled("Medication", i.Medication)
	} else {
		l.labelled("Reason for the visit", w.State.Reason)
	}
	w.screening(l)
}

// found is what was measured and felt, in short.
func (w *writer) found(l *lines) {
	for _, r := range w.State.Ranges {
		l.add(reading(r))
	}
	for _, t := range w.State.Tests {
		if t.Result == "positive" {
			l.labelled("Test", wording.OnSide(wording.Test(t.Test), t.Side)+" positive")
		}
	}
	for i, p := range w.work.Points {
		l.add(w.judged(w.State.Points[i], p))
	}
}

// didAndAdvised is what was done at the visit, and what the client was told.
func (w *writer) didAndAdvised() string {
	var l lines
	pressed := []string{}
	for _, h := range w.State.Holds {
		if h.Status != visit.HoldRejected {
			pressed = append(pressed, wording.Muscle(h.Start.Muscle, h.Start.Side, "")+", "+h.Summary.Result())
		}
	}
	if len(pressed) == 0 {
		l.add("Nothing was pressed.")
	}
	l.labelled("Pressed", joined(pressed))
	l.labelled("Advised", w.State.NotTreated)
	return l.text("")
}
