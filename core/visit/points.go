package visit

import (
	"fmt"
	"math"

	"mokren/core/atlas"
	"mokren/core/body"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
)

// leftOrRight refuses the midline, where no muscle and no test lies.
func leftOrRight(s ids.Side) *decode.Error {
	if s == ids.Midline {
		return &decode.Error{Path: "$.side", Given: `"midline"`, Allowed: "one of left, right"}
	}
	return nil
}

// Palpation is what was felt at a point, by the hand and by the client.
type Palpation struct {
	// Band: a taut band under the finger; unsure is not counted.
	Band   string `json:"taut_band,omitempty" enum:"yes,no,unsure"`
	Nodule string `json:"nodule,omitempty" enum:"none,grain,pea,larger"`
	// Grade of tenderness and NPRS of the client are at one test pressure.
	Grade *int     `json:"grade,omitempty" minimum:"0" maximum:"4"`
	NPRS  *float64 `json:"nprs,omitempty" minimum:"0" maximum:"10" multipleOf:"0.5"`
	// Given is the client's number on another scale, as it was given; NPRS is
	// what it comes to.
	Given *float64 `json:"given,omitempty" minimum:"0" maximum:"10" multipleOf:"0.5"`
	Scale string   `json:"scale,omitempty" enum:"0-5,1-10" doc:"of given"`
	// Referral is where it was felt, on the point's own side or the midline;
	// Painted the same as painted on the body.
	Referral   []ids.Region `json:"referral,omitempty" maxItems:"40"`
	Painted    []string     `json:"painted,omitempty" maxItems:"6000" doc:"cells, view:q,r"`
	NoReferral bool         `json:"no_referral,omitempty" doc:"asked, and felt nowhere else"`
	Asked      string       `json:"asked,omitempty" enum:"openly,volunteered" doc:"how the client came to say it"`
	// Familiar: it is the pain that the client came with, which makes a point active.
	Familiar string `json:"familiar,omitempty" enum:"yes,partly,no,unknown"`
	// Twitch is a local response to strumming.
	Twitch *bool `json:"twitch,omitempty"`
	Jump   *bool `json:"jump,omitempty" doc:"the client jumps"`
	// Feel of the tissue in the therapist's words.
	Feel     string       `json:"feel,omitempty" enum:"adhesed,hypertonic,ropey,normal"`
	Skin     string       `json:"skin,omitempty" enum:"warmer,cooler,same" doc:"by the back of the hand, against the other side"`
	Fibres   *bool        `json:"fibres_checked,omitempty" doc:"fibre direction checked"`
	Contact  ids.Contact  `json:"contact,omitempty"`
	Position ids.Position `json:"position,omitempty"`
	// Moves tells what pressing does to a painful movement.
	Moves *Moves `json:"moves,omitempty"`
	Note  string `json:"note,omitempty" maxLength:"2000"`
}

// Moves is what pressing a point does to a painful movement.
type Moves struct {
	Movement ids.Movement `json:"movement"`
	Side     ids.Side     `json:"side"`
	Becomes  string       `json:"becomes" enum:"easier,same,harder"`
}

// OnNPRS gives what a number on another scale comes to on 0 to 10, in half
// steps: the comfort scale of 0 to 5 doubled; a scale that begins at 1 without
// pain drawn out to begin at 0.
func OnNPRS(given float64, scale string) (nprs float64, ok bool) {
	switch {
	case scale == "0-5" && given >= 0 && given <= 5:
		return given * 2, true
	case scale == "1-10" && given >= 1 && given <= 10:
		return math.Round((given-1)*10/9*2) / 2, true
	}
	return 0, false
}

// number checks a number of another scale against what it comes to.
func (f Palpation) number() *decode.Error {
	if f.Given == nil && f.Scale == "" {
		return nil
	}
	if f.Given == nil {
		return &decode.Error{Path: "$.given", Given: "none", Allowed: "a number on the scale " + f.Scale}
	}
	want, ok := OnNPRS(*f.Given, f.Scale)
	switch {
	case !ok:
		return &decode.Error{Path: "$.given", Given: fmt.Sprint(*f.Given), Allowed: "a number on a scale 0-5 or 1-10"}
	case f.NPRS == nil || *f.NPRS != want:
		return &decode.Error{Path: "$.nprs", Given: fmt.Sprint(said(f.NPRS)), Allowed: fmt.Sprint(want)}
	}
	return nil
}

// said writes a value that may be absent.
func said(v *float64) any {
	if v == nil {
		return "none"
	}
	return *v
}

// answered is where the client felt it, with sides; ok is false when that was
// not asked, or not said.
func (c PointCharted) answered() (places []safety.Place, ok bool) {
	for _, r := range c.Referral {
		side := c.Side
		if atlas.MidlineRegion(r) {
			side = ids.Midline
		}
		places = ids.With(places, safety.Place{Region: r, Side: side})
	}
	for _, r := range cellsOf(c.Painted).Regions() {
		places = ids.With(places, safety.Place{Region: r.Region, Side: r.Side})
	}
	return places, len(places) > 0 || c.NoReferral
}

// cellsOf reads painted cells. Ids of an older figure that name no cell are left out: they
// have no area.
func cellsOf(painted []string) body.CellSet {
	out := body.CellSet{}
	for _, id := range painted {
		if c, err := body.ParseCell(id); err == nil {
			out[c] = true
		}
	}
	return out
}
