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
}

// sets: a sign is of one place on one side.
func (b *SignSeen) sets(Event) []thing {
	return []thing{{"sign", "sign:" + string(b.Sign) + ":" + string(b.Side)}}
}

// apply keeps signs that are present; one that was looked for and is absent says nothing here.
func (b *SignSeen) apply(r *reducer, _ Event) error {
	r.state.Signs = slices.DeleteFunc(r.state.Signs,
		func(s SignSeen) bool { return s.Sign == b.Sign && s.Side == b.Side })
	if b.Present {
		r.state.Signs = append(r.state.Signs, *b)
	}
	return nil
}

// timeline tells also when a sign was taken off again.
func (b *SignSeen) timeline() string {
	if !b.Present {
		return "Sign taken off: " + wording.OnSide(wording.Plain(b.Sign), b.Side)
	}
	return "Sign seen: " + wording.OnSide(wording.Plain(b.Sign), b.Side)
}
