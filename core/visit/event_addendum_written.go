package visit

import "mokren/core/rights"

var addendumWritten = kind{
	name:   "addendum-written",
	body:   func() Body { return new(Addendum) },
	by:     rights.Role.Clinical,
	stays:  staysWritten,
	closed: takesAlways,
}

// Addendum is what is added to a visit after it was closed.
type Addendum struct {
	Text string `json:"text" maxLength:"20000"`
}

// apply adds it to what was written before: an addendum is never changed or taken back.
func (b *Addendum) apply(r *reducer, e Event) error {
	r.state.Addenda = append(r.state.Addenda, DatedText{e.At(), e.Author, b.Text})
	return nil
}

func (b *Addendum) timeline() string { return "Addendum: " + b.Text }
