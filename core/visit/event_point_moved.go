package visit

import (
	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/rights"
)

var pointMoved = kind{
	name: "point-moved",
	body: func() Body { return new(PointMoved) },
	by:   rights.Role.Clinical,
}

// PointMoved corrects the place of a point.
type PointMoved struct {
	Point UUID `json:"point"`
	// Figure that it was placed on; older ones are carried to today's.
	Figure string    `json:"figure" maxLength:"40"`
	View   body.View `json:"view"`
	X      float64   `json:"x" minimum:"0" maximum:"1000"`
	Y      float64   `json:"y" minimum:"0" maximum:"1000"`
	// Place on the muscle, which must be where the coordinates are.
	Place atlas.FibrePlace `json:"place"`
}

// admit asks the same of the new place as of the first: on the figure, on the muscle, on its
// side.
func (b *PointMoved) admit(j *Validator, _ *Event) error {
	p, ok := j.points[b.Point]
	if !ok {
		return noPoint(b.Point)
	}
	return j.placed(p.Muscle, p.Side, b.Figure, b.View, body.Point{X: b.X, Y: b.Y}, b.Place)
}

// place moves the point for what is judged after it; an override of the old place ends by it.
func (b *PointMoved) place(j *Validator) (moved bool) {
	p, ok := j.points[b.Point]
	if ok {
		p.Figure, p.View, p.X, p.Y, p.Place = b.Figure, b.View, b.X, b.Y, b.Place
	}
	return ok
}

func (b *PointMoved) at() UUID { return b.Point }

func (b *PointMoved) carries(j *Validator) string { return j.underPressed(b.Point) }

// sets: the place is a thing of its own, beside what was felt there.
func (b *PointMoved) sets(Event) []thing {
	return []thing{{"place of a point", "point:" + string(b.Point) + ":place"}}
}

// apply keeps the place with the figure that it was placed on, carried to today's.
func (b *PointMoved) apply(r *reducer, _ Event) error {
	p, err := r.point(b.Point)
	if err != nil {
		return err
	}
	p.Figure, p.View, p.X, p.Y, p.Place = b.Figure, b.View, b.X, b.Y, b.Place
	p.carry(r.ctx.height(), r.rules.Figure)
	return nil
}

func (b *PointMoved) timeline() string { return "Point moved" }
