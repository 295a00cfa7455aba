package visit

import (
	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/strict"
)

// Charted is a point as found; Corrected sets the same fields again.
type Charted struct {
	Point    UUID             `json:"point"`
	Identity UUID             `json:"identity,omitempty" doc:"the point of an earlier visit that this is the same spot as"`
	Muscle   ids.Muscle       `json:"muscle"`
	Side     ids.Side         `json:"side"`
	Site     string           `json:"site,omitempty" maxLength:"40"`
	Figure   string           `json:"figure" maxLength:"40" doc:"figure version in which it was placed"`
	View     body.View        `json:"view"`
	X        float64          `json:"x" minimum:"0" maximum:"1000"`
	Y        float64          `json:"y" minimum:"0" maximum:"1000"`
	Place    atlas.FibrePlace `json:"place"`
	Band     string           `json:"taut_band" enum:"yes,no,unsure"`
	Nodule   string           `json:"nodule,omitempty" enum:"none,grain,pea,larger"`
	Grade    int              `json:"grade" minimum:"0" maximum:"4"`
	NPRS     *float64         `json:"nprs,omitempty" minimum:"0" maximum:"10" multipleOf:"0.5"`
	Referral []ids.Region     `json:"referral,omitempty" maxItems:"40"`
	Familiar string           `json:"familiar" enum:"yes,partly,no,unknown"`
	Twitch   bool             `json:"twitch,omitempty"`
	Note     string           `json:"note,omitempty" maxLength:"2000"`
}

// Moved corrects the place of a point.
type Moved struct {
	Point  UUID             `json:"point"`
	Figure string           `json:"figure" maxLength:"40"`
	View   body.View        `json:"view"`
	X      float64          `json:"x" minimum:"0" maximum:"1000"`
	Y      float64          `json:"y" minimum:"0" maximum:"1000"`
	Place  atlas.FibrePlace `json:"place"`
}

// Removed takes a point away; undo brings it back.
type Removed struct {
	Point UUID `json:"point"`
}

// Rechecked is the number (and grade) at a point after treatment.
type Rechecked struct {
	Point UUID    `json:"point"`
	NPRS  float64 `json:"nprs" minimum:"0" maximum:"10" multipleOf:"0.5"`
	Grade *int    `json:"grade,omitempty" minimum:"0" maximum:"4"`
}

// Check implements strict.Checker: fields that depend on one another.
func (c Charted) Check() *strict.Error {
	if c.Side == ids.Midline {
		return &strict.Error{Path: "$.side", Given: `"midline"`, Allowed: "one of left, right"}
	}
	return nil
}
