package visit

import (
	"fmt"
	"strings"

	"mokren/core/progress"
)

// CourseSummary is a client's course in counts and in words.
type CourseSummary struct {
	// First and Last count what changed since the first reading of each, and since
	// the visit before the last one.
	First Counts `json:"since_first"`
	Last  Counts `json:"since_last"`
	// Signal is the client's: worse before all else, resolved only when every point
	// is and nothing measured hurts or is short.
	Signal progress.Signal `json:"signal"`
	Next   string          `json:"next,omitempty"`
	Text   string          `json:"text"`
}

// Counts of what changed by its threshold, of so many that were read twice.
type Counts struct {
	Points    ChangeCounts `json:"points"`
	Movements ChangeCounts `json:"movements"`
	Scores    ChangeCounts `json:"scores"`
}

// ChangeCounts counts directions.
type ChangeCounts struct {
	Of     int `json:"of"`
	Better int `json:"better"`
	Worse  int `json:"worse"`
}

// count adds one judged change; what has too few readings is not counted at all.
func (c *ChangeCounts) count(ch *progress.Change) {
	if ch == nil {
		return
	}
	c.Of++
	switch ch.Direction {
	case progress.Better:
		c.Better++
	case progress.Worse:
		c.Worse++
	}
}

// sumUp counts directions over points, movements and scores, and chooses the client's signal:
// worse comes before all else.
func sumUp(h History) CourseSummary {
	var s CourseSummary
	for _, p := range h.Points {
		s.First.Points.count(p.Number)
		s.Last.Points.count(p.Since)
	}
	for _, r := range h.Ranges {
		s.First.Movements.count(r.Change)
		s.Last.Movements.count(r.Since)
	}
	for _, x := range h.Scores {
		s.First.Scores.count(x.Change)
		s.Last.Scores.count(x.Since)
	}
	s.Signal = signalOf(h)
	s.Next = s.Signal.Next()
	first, last := s.First.words(), s.Last.words()
	switch {
	case len(h.Points)+len(h.Ranges)+len(h.Scores) == 0:
		s.Text = "Nothing has been charted or measured yet."
	case first == "":
		s.Text = "Everything was read once so far: there is nothing to compare yet."
	default:
		s.Text = "Since the first visit: " + first + ". Since the last one: " + last + "."
	}
	return s
}

// words names only what has changed, so that a sentence on top stays short.
func (c Counts) words() string {
	var out []string
	for _, x := range []struct {
		what string
		c    ChangeCounts
	}{{"point", c.Points}, {"movement", c.Movements}, {"own score", c.Scores}} {
		if w := x.c.words(x.what); w != "" {
			out = append(out, w)
		}
	}
	return strings.Join(out, "; ")
}

// words: "3 of 5 points clearly better, 1 worse".
func (c ChangeCounts) words(what string) string {
	if c.Of == 0 {
		return ""
	}
	if c.Of > 1 {
		what += "s"
	}
	out := fmt.Sprintf("%d of %d %s clearly better", c.Better, c.Of, what)
	if c.Better == 0 {
		out = fmt.Sprintf("no clear gain in %d %s", c.Of, what)
	}
	if c.Worse > 0 {
		out += fmt.Sprintf(", %d worse", c.Worse)
	}
	return out
}

// signalOf reads a client's course as a whole.
func signalOf(h History) progress.Signal {
	n := map[progress.Signal]int{}
	for _, p := range h.Points {
		if p.Number == nil {
			n[progress.TooFew]++
			continue
		}
		n[p.Number.Signal]++
	}
	switch {
	case n[progress.Worsening] > 0:
		return progress.Worsening
	case len(h.Points) > 0 && n[progress.Resolved] == len(h.Points) && h.painless():
		return progress.Resolved
	case n[progress.Improving]+n[progress.Resolved] > 0:
		return progress.Improving
	case n[progress.Plateau] > 0:
		return progress.Plateau
	}
	return progress.TooFew
}

// painless: no movement hurt when it was read last.
func (h History) painless() bool {
	for _, r := range h.Ranges {
		if v := r.Visits[len(r.Visits)-1]; v.Pain != nil && *v.Pain > 0 {
			return false
		}
	}
	return true
}
