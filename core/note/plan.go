package note

import (
	"fmt"

	"mokren/core/wording"
)

// plan is what is meant to be done next.
func (w *writer) plan() string {
	var l lines
	l.labelled("Next time", w.State.Next)
	for _, p := range w.State.LeftOff().Points {
		if p.LeftOut == "" {
			continue
		}
		l.labelled("Not treated today", wording.Muscle(p.Muscle, p.Side, p.Site)+": "+p.LeftOut)
	}
	care := w.State.Aftercare(w.Earlier)
	for _, s := range care.Stretches {
		sides := among(words(s.Sides))
		l.labelled(
			"Stretch at home",
			fmt.Sprintf("%s, %s: %s × %d s", s.Name, sides, count(s.Repeats, "time"), s.HoldS),
		)
	}
	l.labelled("Next visit", care.Next.Why)
	return l.text("")
}
