package treat

import (
	"fmt"
	"math"
	"strconv"

	"mokren/core/ids"
)

// Result says what a hold came to, by the measure of its own protocol: degrees where it
// lengthens, what is left of the first score in a slack hold, the score that was tolerated,
// else whether it released. It is the one place that says so; a screen, a note and a page all
// show these words.
func (s Summary) Result() string {
	switch {
	case s.Outcome == Stopped:
		return "stopped"
	case s.Run != nil && s.GainDeg != nil:
		return s.gained()
	case s.Run != nil && !presses(s.Protocol):
		return "done, the range was not read twice"
	case s.Run != nil && s.Ended == EndedBorne:
		return "tolerated to " + score(s.HighestScore) + s.course()
	case s.Protocol == "slack-hold":
		return s.left()
	case s.Run != nil && s.Worked && s.Outcome == Unchanged:
		return "tolerated" + s.course()
	}
	if n := len(s.Trace); s.Outcome == Unchanged && n > 1 && s.Trace[0].Score-s.Trace[n-1].Score >= fall {
		return string(s.Outcome) // no stage showed it: the scores fell because the hand was lighter
	}
	return string(s.Outcome) + s.course()
}

// gained is the range that a hold has won or lost, in degrees.
func (s Summary) gained() string {
	switch gain := math.Round(*s.GainDeg); {
	case gain > 0:
		return fmt.Sprintf("+%.0f°", gain)
	case gain < 0:
		return fmt.Sprintf("−%.0f°", -gain)
	}
	return "no degree gained"
}

// left is how much of the first score a position of ease has left, at the end.
func (s Summary) left() string {
	if len(s.Trace) < 2 || s.Trace[0].Score <= 0 {
		return string(s.Outcome)
	}
	// Of the first score, as the rule of the protocol takes it; not of the highest.
	share := math.Round(100 * s.Trace[len(s.Trace)-1].Score / s.Trace[0].Score)
	return fmt.Sprintf("%.0f %% left%s", share, s.course())
}

// fall is what the outcomes released and reduced mean: so much below a baseline.
const fall = 2

// course is the first and the last score, where there are two. Where a fall is claimed that
// these two do not show, because the hand went deeper in between, it is the stage or part that
// shows it most: a hold is never said to be "reduced, 4 → 5".
func (s Summary) course() string {
	if len(s.Trace) < 2 {
		return ""
	}
	from, to := s.Trace[0].Score, s.Trace[len(s.Trace)-1].Score
	where := ""
	if (s.Outcome == Released || s.Outcome == Reduced) && from-to < fall {
		for _, p := range s.pairs() {
			if p[0]-p[1] > from-to {
				from, to, where = p[0], p[1], " in one stage"
			}
		}
	}
	return ", " + score(from) + " → " + score(to) + where
}

// pairs are the first and last scores of the stages and of the parts that have them.
func (s Summary) pairs() (out [][2]float64) {
	for _, g := range s.Stages {
		if g.EndedBy != "off-spot" {
			out = append(out, [2]float64{g.StartScore, g.EndScore})
		}
	}
	if s.Run == nil {
		return out
	}
	for _, p := range s.Parts {
		if p.FirstScore != nil && p.LastScore != nil {
			out = append(out, [2]float64{*p.FirstScore, *p.LastScore})
		}
	}
	return out
}

// score is written without needless decimals.
func score(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

// presses reports whether a protocol presses; one that is not known is taken to.
func presses(id ids.Protocol) bool {
	p, ok := Find(id)
	return !ok || p.Plan.Presses
}
