package visit

import (
	"fmt"

	"mokren/core/rights"
)

var pointRechecked = kind{
	name: "point-rechecked",
	body: func() Body { return new(PointRechecked) },
	by:   rights.Role.Clinical,
}

// PointRechecked is the number (and grade) at a point after treatment.
type PointRechecked struct {
	Point UUID    `json:"point"`
	NPRS  float64 `json:"nprs" minimum:"0" maximum:"10" multipleOf:"0.5"`
	Grade *int    `json:"grade,omitempty" minimum:"0" maximum:"4"`
}

func (b *PointRechecked) about() UUID { return b.Point }

// sets: the recheck is a thing of its own, beside what was found before treatment.
func (b *PointRechecked) sets(Event) []thing {
	return []thing{{"recheck of a point", "point:" + string(b.Point) + ":recheck"}}
}

// apply keeps the latest recheck; a grade is given only where it was taken again.
func (b *PointRechecked) apply(r *reducer, _ Event) error {
	p, err := r.point(b.Point)
	if err != nil {
		return err
	}
	p.AfterNPRS, p.AfterGrade = &b.NPRS, b.Grade
	return nil
}

func (b *PointRechecked) timeline() string { return fmt.Sprintf("Point rechecked: %v of 10", b.NPRS) }
