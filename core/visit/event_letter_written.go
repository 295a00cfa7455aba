package visit

import (
	"strings"

	"mokren/core/decode"
	"mokren/core/rights"
)

var letterWritten = kind{
	name:   "letter-written",
	body:   func() Body { return new(Letter) },
	by:     rights.Role.Licensed,
	stays:  staysWritten,
	closed: takesAlways,
}

// Letter is a referral letter: a draft while nobody's name stands under it, and from then on
// as it was signed, word for word.
type Letter struct {
	To   string `json:"to" maxLength:"400" doc:"whom it goes to, on lines of their own"`
	Text string `json:"text" maxLength:"20000"`
	Name string `json:"name,omitempty" maxLength:"200" doc:"of who signs; absent in a draft"`
}

// Check implements decode.Checker: what is signed says something, and to whom.
func (b Letter) Check() *decode.Error {
	if b.Name == "" {
		return nil
	}
	for _, f := range []struct{ path, v, what string }{
		{"$.to", b.To, "whom the letter goes to"}, {"$.text", b.Text, "what it says"}, {"$.name", b.Name, "a name"},
	} {
		if strings.TrimSpace(f.v) == "" {
			return &decode.Error{Path: f.path, Given: "nothing", Allowed: f.what}
		}
	}
	return nil
}

// apply keeps the latest draft; a signed letter stays, and the next one begins anew.
func (b *Letter) apply(r *reducer, e Event) error {
	dated := DatedLetter{e.At(), e.Author, *b}
	if b.Name == "" {
		r.state.LetterDraft = &dated
		return nil
	}
	r.state.LetterDraft = nil
	r.state.Letters = append(r.state.Letters, dated)
	return nil
}

func (b *Letter) timeline() string {
	if b.Name == "" {
		return "Referral letter drafted"
	}
	to, _, _ := strings.Cut(b.To, "\n")
	return "Referral letter signed, to " + to
}

// DatedLetter is a letter with when and by whom it was written.
type DatedLetter struct {
	AtMS   int64  `json:"at_ms"`
	Author string `json:"author"`
	Letter
}
