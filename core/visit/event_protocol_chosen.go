package visit

import (
	"cmp"

	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/wording"
)

var protocolChosen = kind{
	name: "protocol-chosen",
	body: func() Body { return new(ProtocolChosen) },
	by:   rights.Role.Clinical,
}

// ProtocolChosen is the therapist's choice at a point.
type ProtocolChosen struct {
	Point    UUID         `json:"point"`
	Protocol ids.Protocol `json:"protocol,omitempty" doc:"absent takes the suggestion again"`
}

func (b *ProtocolChosen) about() UUID { return b.Point }

// sets: the protocol of a point is one thing, however it was chosen.
func (b *ProtocolChosen) sets(Event) []thing {
	return []thing{{"protocol of a point", "point:" + string(b.Point) + ":protocol"}}
}

// apply keeps the choice; whether it may be done there is asked when a hold begins.
func (b *ProtocolChosen) apply(r *reducer, _ Event) error {
	p, err := r.point(b.Point)
	if err != nil {
		return err
	}
	p.Chosen = b.Protocol
	return nil
}

// timeline names it; without one the point is back to what is suggested.
func (b *ProtocolChosen) timeline() string {
	return "Protocol chosen: " + wording.Plain(cmp.Or(b.Protocol, "as suggested"))
}
