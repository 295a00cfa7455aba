package treat

import (
	"cmp"
	"strings"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/wording"
)

// Moving says what moves in a hold whose protocol moves: which movement, in which direction, and
// what the hand feels of it. It is empty where nothing moves but the pressing hand.
func (s Start) Moving() string {
	m, err := atlas.Get(s.Muscle)
	if err != nil || s.Plan == nil || len(m.Actions) == 0 {
		return ""
	}
	to := positions(m.Tension, s.Side)
	does := motionWords(m.Actions[0], s.Side)
	hand := " Feel for it: " + lowerFirst(m.Confirm.Text)
	// The strategy says what moves: protocols that share one differ in numbers alone.
	switch s.Plan.Strategy {
	case "rounds":
		if s.Plan.Variant == "reciprocal" {
			return "Lengthen: " + to + ". The client pushes further that way, against your hand."
		}
		return "Lengthen: " + to + ". The client pushes back: " + does + "." + hand
	case "movements":
		if s.Plan.Presses {
			return "The client moves: " + does + ", and back."
		}
		return "From " + positions(m.Slack, s.Side) + ". The client holds " + does + "; you win, to " + to + "." + hand
	case "pinned":
		return "Lengthen on the out-breath: " + to + "."
	}
	return ""
}

// positions are joint positions in words, one after the other.
func positions(list []atlas.JointPosition, own ids.Side) string {
	out := make([]string, len(list))
	for i, p := range list {
		out[i] = cmp.Or(p.Text, motionWords(atlas.Motion{Movement: p.Movement, Toward: p.Toward}, own))
	}
	return strings.Join(out, ", ")
}

// motionWords is a movement with the side that it goes to, where it goes to one.
func motionWords(m atlas.Motion, own ids.Side) string {
	words := wording.Movement(m.Movement)
	switch m.Toward {
	case "own":
		return words + " to the " + string(own)
	case "other":
		return words + " to the " + string(own.Other())
	}
	return words
}

func lowerFirst(s string) string {
	if s == "" {
		return s
	}
	return strings.ToLower(s[:1]) + s[1:]
}
