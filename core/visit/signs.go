package visit

import "mokren/core/record"

type (
	// Spot is where a hand is: on a muscle, and on the body.
	Spot = record.Spot
	// Pressed is a sign during a hold, with where the hand was.
	Pressed = record.PressedPlace
)

// day is what the hands have done and met: of this visit, and of the client's others.
func (j *Validator) day() record.Day {
	return record.Day{Signs: j.signs, Treated: append(j.treated(nil), j.ctx.Treated...)}
}

// treated are this visit's treatments: accepted holds with pressure enough, the return
// included, or with a push or a movement. but is left out.
func (j *Validator) treated(but *begun) []record.Treatment {
	var out []record.Treatment
	for id, h := range j.holds {
		if h != but && h.event.Verdict == Accepted && h.counts() {
			out = append(out, record.Treatment{Spot: h.spot, Hold: string(id), AtMS: h.event.At()})
		}
	}
	return out
}

// counts reports whether a hold was a treatment.
func (h *begun) counts() bool {
	if h.counted == nil {
		s, err := h.replay()
		yes := err != nil || s.Treats(record.LeastPressedS)
		h.counted = &yes
	}
	return *h.counted
}

// ownSigns are the signs of this visit that count.
func (j *Validator) ownSigns() []Pressed {
	out := []Pressed{}
	for _, s := range j.signs {
		if s.From.Event != "" && s.Sign != "" {
			s.From = record.Stamp{}
			out = append(out, s)
		}
	}
	return out
}
