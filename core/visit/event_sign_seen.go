package visit

import (
	"slices"

	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/wording"
)

var signSeen = kind{
	name: "sign-seen",
	body: func() Body { return new(SignSeen) },
	by:   rights.Role.Clinical,
}

// SignSeen is a sign in the squat or toe-touch.
type SignSeen struct {
	Sign    ids.Sign `json:"sign"`
	Side    ids.Side `json:"side"`
	Present bool     `json:"present"`
	Moment  string   `json:"moment,omitempty" enum:"before,after"`
}

// sets: a sign is of one place on one side at one moment.
func (b *SignSeen) sets(Event) []thing {
	return []thing{{"sign", again("sign:"+string(b.Sign)+":"+string(b.Side), b.Moment)}}
}

// apply keeps signs that are present; one that was looked for and is absent says nothing before
// treatment, and that it has gone after it.
func (b *SignSeen) apply(r *reducer, _ Event) error {
	if b.Moment == after {
		r.state.SignsAfter = append(slices.DeleteFunc(r.state.SignsAfter,
			func(s SignSeen) bool { return s.Sign == b.Sign && s.Side == b.Side }), *b)
		return nil
	}
	r.state.Signs = slices.DeleteFunc(r.state.Signs,
		func(s SignSeen) bool { return s.Sign == b.Sign && s.Side == b.Side })
	if b.Present {
		r.state.Signs = append(r.state.Signs, *b)
	}
	return nil
}

// signAfter is what was seen of a sign after treatment.
func (s State) signAfter(sign ids.Sign, side ids.Side) (SignSeen, bool) {
	i := slices.IndexFunc(s.SignsAfter, func(x SignSeen) bool { return x.Sign == sign && x.Side == side })
	if i < 0 {
		return SignSeen{}, false
	}
	return s.SignsAfter[i], true
}

// timeline tells also when a sign was taken off again.
func (b *SignSeen) timeline() string {
	if !b.Present {
		return "Sign taken off: " + wording.OnSide(wording.Plain(b.Sign), b.Side)
	}
	return "Sign seen: " + wording.OnSide(wording.Plain(b.Sign), b.Side)
}
