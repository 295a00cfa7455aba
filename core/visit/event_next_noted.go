package visit

import "mokren/core/rights"

var nextNoted = kind{
	name: "next-noted",
	body: func() Body { return new(NextNoted) },
	by:   rights.Role.Clinical,
}

// NextNoted is what is meant to be done at the next visit.
type NextNoted struct {
	Text string `json:"text" maxLength:"2000"`
}

func (b *NextNoted) sets(Event) []thing { return []thing{{"what is to be done next", "next"}} }

// apply replaces what was meant before; the next visit shows it first.
func (b *NextNoted) apply(r *reducer, _ Event) error {
	r.state.Next = b.Text
	return nil
}

func (b *NextNoted) timeline() string { return "Next time: " + b.Text }
