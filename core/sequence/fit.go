package sequence

import (
	"cmp"
	"slices"

	"mokren/core/stable"
)

// fit brings the plan into so many seconds: doses are shortened to their minimum by ascending
// importance, later steps first; then steps are dropped in the same order, both sides together;
// what closes comes last in both. Nothing is lengthened.
func (p *LaidOut) fit(seconds float64) {
	p.time()
	// The order is of the steps as they were before anything was given up, so that two plans of
	// nearly the same minutes look alike.
	order := p.givenUp()
	for _, step := range order {
		if p.Seconds <= seconds {
			return
		}
		for i := range p.Steps {
			if l := &p.Steps[i]; l.Step == step {
				l.Dose = l.shortest()
			}
		}
		p.time()
	}
	for _, step := range order {
		if p.Seconds <= seconds {
			return
		}
		p.Steps = slices.DeleteFunc(p.Steps, func(l Laid) bool { return l.Step == step })
		p.LeftOut = append(p.LeftOut, LeftOutStep{Step: step, Reason: "There is no time for it."})
		p.time()
	}
}

// shortest is the least dose, or what it is where that is less.
func (l *Laid) shortest() Dose {
	t := l.technique
	amount, _ := l.Dose.amount(t.Steer)
	each := t.Each.Least
	if l.Dose.EachS != nil {
		each = min(each, *l.Dose.EachS)
	}
	return t.doseOf(min(amount, t.Amount.Least), each)
}

// givenUp are the steps in the order in which they are given up.
func (p *LaidOut) givenUp() []int {
	type step struct {
		n, importance int
		closes        bool
	}
	var list []step
	for _, l := range p.Steps {
		s := step{l.Step, l.importance, l.technique.closes()}
		if !slices.Contains(list, s) {
			list = append(list, s)
		}
	}
	stable.Sort(list, func(a, b step) int {
		if a.closes != b.closes {
			if a.closes {
				return 1
			}
			return -1
		}
		return cmp.Or(cmp.Compare(a.importance, b.importance), cmp.Compare(b.n, a.n))
	})
	out := make([]int, len(list))
	for i, s := range list {
		out[i] = s.n
	}
	return out
}
