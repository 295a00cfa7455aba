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

func (b *ProtocolChosen) sets(Event) []thing {
	return []thing{{"protocol of a point", "point:" + string(b.Point) + ":protocol"}}
}

func (b *ProtocolChosen) apply(r *reducer, _ Event) error {
	p, err := r.point(b.Point)
	if err != nil {
		return err
	}
	p.Chosen = b.Protocol
	return nil
}

func (b *ProtocolChosen) timeline() string {
	return "Protocol chosen: " + wording.Plain(cmp.Or(b.Protocol, "as suggested"))
}
