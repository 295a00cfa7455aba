package calc

import (
	"encoding/json"
	"strings"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/plan"
	"mokren/core/safety"
	"mokren/core/sequence"
)

// SequenceIn asks for a sequence laid out for a client today.
type SequenceIn struct {
	// Sequence is the id of a shipped one, or the steps themselves.
	Sequence json.RawMessage `json:"sequence" doc:"the id of a shipped sequence, or {\"steps\":[…],\"sides\":…}"`
	// Side is the first one, or the only one; left where it is left out.
	Side      ids.Side        `json:"side,omitempty" enum:"left,right"`
	Minutes   *float64        `json:"minutes,omitempty" minimum:"0" maximum:"180"`
	Screening []safety.Answer `json:"screening,omitempty" maxItems:"400"`
	Points    []plan.Point    `json:"points,omitempty" maxItems:"60"`
}

// Sequence lays a sequence out: sides, what is ruled out, times, and what fits.
func Sequence(in SequenceIn) (sequence.LaidOut, error) {
	s, err := sequenceOf(in.Sequence, in.Side)
	if err != nil {
		return sequence.LaidOut{}, err
	}
	c := sequence.Client{Screening: safety.Screen(in.Screening)}
	for _, p := range in.Points {
		c.Points = append(c.Points, sequence.Point{
			ID: p.ID, Muscle: p.Muscle, Side: p.Side, HoursAgo: p.HoursAgo, Treated: p.Treated, Closed: p.Blocked,
		})
	}
	return sequence.Lay(s, in.Side, in.Minutes, c), nil
}

// A point's own id stands in the answer with the steps that are done at it; its protocol, worth and
// role are the plan's, and a sequence does not ask for them.

// sequenceOf reads an id or the steps; the error names the field.
func sequenceOf(raw json.RawMessage, side ids.Side) (sequence.Sequence, error) {
	if strings.HasPrefix(strings.TrimSpace(string(raw)), "{") {
		var s sequence.Sequence
		if err := decode.JSON(raw, &s); err != nil {
			return s, under("$.sequence", err)
		}
		return s, nil
	}
	var id string
	if err := decode.JSON(raw, &id); err != nil {
		return sequence.Sequence{}, &decode.Error{
			Path: "$.sequence", Given: string(raw), Allowed: "the id of a shipped sequence, or steps",
		}
	}
	known, err := sequence.Get(ids.Sequence(id))
	if err != nil {
		return sequence.Sequence{}, err
	}
	return known.For(side), nil
}

// under puts the path of a part below the field that it stands in.
func under(field string, err error) error {
	e, ok := err.(*decode.Error) //nolint:errorlint // decode gives no other
	if !ok {
		return err
	}
	out := *e
	out.Path = field + strings.TrimPrefix(e.Path, "$")
	return &out
}

// Shipped lists the ids of what a computation ships, if it ships anything.
func Shipped(name string) ([]string, bool) {
	switch name {
	case "bench":
		return shippedCases(), true
	case "sequence":
	default:
		return nil, false
	}
	out := []string{}
	for _, s := range sequence.Known() {
		out = append(out, string(s.ID))
	}
	return out, true
}
