package visit

import (
	"cmp"

	"mokren/core/rights"
)

var pointIdentified = kind{
	name: "point-identified",
	body: func() Body { return new(PointIdentified) },
	by:   rights.Role.Clinical,
}

// PointIdentified says which spot of earlier visits a point is; without one it is a
// spot of its own.
type PointIdentified struct {
	Point    UUID `json:"point"`
	Identity UUID `json:"identity,omitempty"`
}

func (b *PointIdentified) about() UUID { return b.Point }

// sets: which spot of earlier visits a point is, is one thing.
func (b *PointIdentified) sets(Event) []thing {
	return []thing{{"identity of a point", "point:" + string(b.Point) + ":identity"}}
}

// apply joins the point to an earlier spot, or, without one, makes it a spot of its own.
func (b *PointIdentified) apply(r *reducer, _ Event) error {
	p, err := r.point(b.Point)
	if err != nil {
		return err
	}
	p.Identity = cmp.Or(b.Identity, p.Point)
	return nil
}

func (b *PointIdentified) timeline() string { return "Point told from, or joined to, an earlier spot" }
