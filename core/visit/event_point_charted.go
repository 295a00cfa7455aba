package visit

import (
	"fmt"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/wording"
)

var pointCharted = kind{
	name: "point-charted",
	body: func() Body { return new(PointCharted) },
	by:   rights.Role.Clinical,
	acts: first,
}

// PointCharted is a point as found; Corrected sets the same fields again. What was
// not said is absent, and stays unsaid in record, judgement and note.
type PointCharted struct {
	// Point is made on the device and stays the same over corrections.
	Point    UUID       `json:"point"`
	Identity UUID       `json:"identity,omitempty" doc:"the point of an earlier visit that this is the same spot as"`
	Muscle   ids.Muscle `json:"muscle"`
	Side     ids.Side   `json:"side"`
	// Site is a usual one of the muscle, or one of the practice's own; empty is neither.
	Site   string `json:"site,omitempty" maxLength:"40"`
	Figure string `json:"figure" maxLength:"40" doc:"figure version in which it was placed"`
	// View, X and Y are where it was touched, Place where that lies on the muscle; Place
	// rules.
	View  body.View        `json:"view"`
	X     float64          `json:"x" minimum:"0" maximum:"1000"`
	Y     float64          `json:"y" minimum:"0" maximum:"1000"`
	Place atlas.FibrePlace `json:"place"`
	Palpation
}

// Check implements decode.Checker: fields that depend on one another.
func (c PointCharted) Check() *decode.Error {
	if err := leftOrRight(c.Side); err != nil {
		return err
	}
	for i, id := range c.Painted {
		if _, err := body.ParseCell(id); err != nil {
			path := fmt.Sprintf("$.painted[%d]", i)
			return &decode.Error{Path: path, Given: fmt.Sprintf("%q", id), Allowed: "a cell of the lattice"}
		}
	}
	if c.NoReferral && (len(c.Referral) > 0 || len(c.Painted) > 0) {
		return &decode.Error{Path: "$.no_referral", Given: "true", Allowed: "absent where it was felt"}
	}
	return c.number()
}

// admit refuses another muscle under a pressed point, and a place that is not on its muscle.
func (c *PointCharted) admit(j *Validator, e *Event) error {
	p, there := j.points[c.Point]
	switch {
	case e.Type == "point-charted" && there:
		return refuse("$.body.point", string(c.Point), "an id that no point of this visit has")
	case e.Type == "point-corrected" && !there:
		return noPoint(c.Point)
	case there && (c.Muscle != p.Muscle || c.Side != p.Side) && j.pressed(c.Point):
		// The muscle decides the ceilings of a hold, so it cannot change under one.
		return refuse("$.body.muscle", string(c.Muscle),
			"the muscle and side that were pressed; chart a new point instead")
	}
	if there && c.Figure == p.Figure && c.View == p.View && c.X == p.X && c.Y == p.Y && c.Place == p.Place &&
		c.Muscle == p.Muscle && c.Side == p.Side {
		return nil // a correction of what was felt leaves an older figure's place be
	}
	return j.placed(c.Muscle, c.Side, c.Figure, c.View, body.Point{X: c.X, Y: c.Y}, c.Place)
}

// place tells whether a point that was charted again lies elsewhere: what rested on its place
// then has to be asked again.
func (c *PointCharted) place(j *Validator) (moved bool) {
	p, there := j.points[c.Point]
	own := *c
	j.points[c.Point] = &own
	return there && (p.Muscle != c.Muscle || p.Side != c.Side || p.Place != c.Place)
}

func (c *PointCharted) at() UUID { return c.Point }

func (c *PointCharted) carries(j *Validator) string { return j.underPressed(c.Point) }

// sets: only a correction sets what another may have set too.
func (c *PointCharted) sets(e Event) []thing {
	if e.Type == pointCharted.name {
		return nil
	}
	return []thing{{"chart of a point", "point:" + string(c.Point) + ":chart"}}
}

// apply sets a point. The muscle of a pressed point is what was judged, so a
// correction that came too late for it was rejected.
func (c *PointCharted) apply(r *reducer, e Event) error {
	b := *c // the validator has read the same body
	p, err := r.point(b.Point)
	if e.Type == pointCharted.name {
		if err == nil {
			return refuse("$.body.point", string(b.Point), "an id that no point of this visit has")
		}
		if b.Identity == "" {
			b.Identity = b.Point
		}
		b.carry(r.ctx.height(), r.rules.Figure)
		r.state.Points = append(r.state.Points, Point{FoundPoint: FoundPoint{PointCharted: b, ChartedMS: e.At()}})
		return nil
	}
	if err != nil {
		return err
	}
	if b.Identity == "" {
		b.Identity = p.Identity
	}
	b.carry(r.ctx.height(), r.rules.Figure)
	p.PointCharted = b
	return nil
}

// timeline gives muscle, site and the score at test pressure, where one was said.
func (c *PointCharted) timeline() string {
	said := ""
	if c.NPRS != nil {
		said = fmt.Sprintf(", %v of 10", *c.NPRS)
	}
	return "Point charted: " + wording.Muscle(c.Muscle, c.Side, c.Site) + said
}

// underPressed tells that a hold was begun at a point, or "".
func (j *Validator) underPressed(point UUID) string {
	if j.pressed(point) {
		return "A hold rests on this point: correct it instead."
	}
	return ""
}
