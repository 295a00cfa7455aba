package visit

import (
	"slices"

	"mokren/core/rights"
)

var pointRemoved = kind{
	name: "point-removed",
	body: func() Body { return new(PointRemoved) },
	by:   rights.Role.Clinical,
}

// PointRemoved takes a point away; undo brings it back.
type PointRemoved struct {
	Point UUID `json:"point"`
}

// admit: a place that was pressed stays, for the hold's record would lie nowhere without it.
func (b *PointRemoved) admit(j *Validator, _ *Event) error {
	if _, ok := j.points[b.Point]; !ok {
		return noPoint(b.Point)
	}
	if j.pressed(b.Point) {
		return refuse("$.body.point", string(b.Point), "a point without holds; what was pressed stays in the record")
	}
	return nil
}

// place takes it out of what later events may name.
func (b *PointRemoved) place(j *Validator) (moved bool) {
	delete(j.points, b.Point)
	return true
}

func (b *PointRemoved) at() UUID { return b.Point }

func (b *PointRemoved) carries(j *Validator) string { return j.underPressed(b.Point) }

// apply takes it out of the state; the events that charted it stay in the log.
func (b *PointRemoved) apply(r *reducer, _ Event) error {
	r.state.Points = slices.DeleteFunc(r.state.Points, func(p Point) bool { return p.Point == b.Point })
	return nil
}

func (b *PointRemoved) timeline() string { return "Point removed" }
