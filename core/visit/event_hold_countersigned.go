package visit

import "mokren/core/rights"

var holdCountersigned = kind{
	name:   "hold-countersigned",
	body:   func() Body { return new(HoldCountersigned) },
	by:     rights.Role.Licensed,
	stays:  staysPressed,
	closed: takesAlways,
	acts:   last,
}

// HoldCountersigned is a licensed person's word on a student's hold.
type HoldCountersigned struct {
	Hold UUID `json:"hold"`
}

// admit: whoever stands for a student's hold is a licensed member now.
func (b *HoldCountersigned) admit(j *Validator, e *Event) error {
	if h, ok := j.holds[b.Hold]; !ok || h.event.Verdict != Accepted {
		return noHold(b.Hold)
	}
	if !j.ctx.licensed(e.Author) {
		return because("A licensed member of this practice countersigns.")
	}
	return nil
}

// apply notes who stands for a student's hold. Whether they may is asked on admission.
func (b *HoldCountersigned) apply(r *reducer, e Event) error {
	h, err := r.hold(b.Hold)
	if err != nil {
		return err
	}
	h.Countersigned = e.Author
	return nil
}

func (b *HoldCountersigned) timeline() string { return "Hold countersigned" }
