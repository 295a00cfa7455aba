package visit

import (
	"cmp"

	"mokren/core/rights"
)

var pointIdentified = kind{
	name: "point-identified",
	body: func() Body { return new(Identified) },
	by:   rights.Role.Clinical,
}

// Identified says which spot of earlier visits a point is; without one it is a
// spot of its own.
type Identified struct {
	Point    UUID `json:"point"`
	Identity UUID `json:"identity,omitempty"`
}

func (b *Identified) about() UUID { return b.Point }

func (b *Identified) sets(Event) []thing {
	return []thing{{"identity of a point", "point:" + string(b.Point) + ":identity"}}
}

func (b *Identified) apply(r *reducer, _ Event) error {
	p, err := r.point(b.Point)
	if err != nil {
		return err
	}
	p.Identity = cmp.Or(b.Identity, p.Point)
	return nil
}

func (b *Identified) timeline() string { return "Point told from, or joined to, an earlier spot" }
