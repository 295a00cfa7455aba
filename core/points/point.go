package points

import (
	"slices"

	"mokren/core/atlas"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
)

// Point as it was charted. Absent is not said: no default stands for it.
type Point struct {
	ID     string     `json:"id" maxLength:"60"`
	Muscle ids.Muscle `json:"muscle"`
	Side   ids.Side   `json:"side"`
	// Site without an id has no usual pattern.
	Site string `json:"site,omitempty" maxLength:"40" doc:"a usual site of the muscle; absent is its own place"`
	Band string `json:"taut_band,omitempty" enum:"yes,no,unsure"`
	// Grade is tenderness at the same pressure, NPRS the client's score for it.
	Grade *int     `json:"grade,omitempty" minimum:"0" maximum:"4" doc:"tenderness"`
	NPRS  *float64 `json:"nprs,omitempty" minimum:"0" maximum:"10" doc:"at test pressure"`
	// PPT is the pressure pain threshold, Other that of the other side, by which it is judged.
	PPT   *float64 `json:"ppt_kpa,omitempty" minimum:"0" maximum:"5000"`
	Other *float64 `json:"ppt_other_side_kpa,omitempty" minimum:"0" maximum:"5000"`
	// Referral is where pressing it was felt elsewhere, as the client answered.
	Referral []safety.Place `json:"referral,omitempty" maxItems:"200"`
	// Painted are the lattice's cells of that answer, when it was painted.
	Painted []string `json:"painted,omitempty" maxItems:"20000" doc:"cells, view:q,r"`
	// NoReferral: asked, and felt nowhere else.
	NoReferral bool `json:"no_referral,omitempty"`
	// Own is where this client has answered at this point before, from the second
	// time on; it counts before the usual pattern.
	Own []safety.Place `json:"own_referral,omitempty" maxItems:"200"`
	// Familiar: is it the pain that the client came with?
	Familiar string `json:"familiar,omitempty" enum:"yes,partly,no,unknown"`
	// Twitch is a local response; absent was not looked for.
	Twitch *bool `json:"twitch,omitempty"`
	// FoundAt orders the visits at which points were first charted.
	FoundAt *float64 `json:"found_at,omitempty"`
	// Where the point lies; absent is where its site lies.
	Where []safety.Place `json:"where,omitempty" maxItems:"20"`
}

// Check implements decode.Checker: a muscle that may be pressed, and a site that it has.
func (p Point) Check() *decode.Error {
	if e := atlas.Pressable(p.Muscle, "$.muscle"); e != nil {
		return e
	}
	m, err := atlas.Get(p.Muscle)
	if err != nil {
		return nil // the id's own check says so
	}
	if _, ok := m.Site(p.Site); !ok {
		allowed := "one of"
		for _, s := range m.Sites {
			allowed += " " + s.ID
		}
		return &decode.Error{Path: "$.site", Given: `"` + p.Site + `"`, Allowed: allowed}
	}
	return nil
}

// Action that is painful or restricted.
type Action struct {
	Movement ids.Movement `json:"movement"`
	Side     ids.Side     `json:"side"`
}

// where the point lies on the body.
func (p *Point) where() []safety.Place {
	if len(p.Where) > 0 {
		return p.Where
	}
	m, err := atlas.Get(p.Muscle)
	if err != nil {
		return nil
	}
	if where := m.PressedAt(p.Site, p.Side); where != nil && p.Site != "" {
		return where
	}
	return m.Places(p.Side)
}

// zone is where pain from a point is felt, and whose word that is: the client's
// answer today, the same client's earlier ones, else the usual pattern.
func (p *Point) zone() (zone []safety.Place, whose string) {
	switch {
	case len(p.Referral) > 0:
		return p.Referral, "painted"
	case p.NoReferral:
		return nil, "none felt"
	case len(p.Own) > 0:
		return p.Own, "this client's"
	}
	return p.usual(true), "usual"
}

// Zone is where the point lies and where its pain is felt.
func (p Point) Zone() []safety.Place {
	zone, _ := p.zone()
	return append(slices.Clone(p.where()), zone...)
}

// usual is the pattern of the point's site, of all sites when it has its own
// place; spill adds the zones to which the pain sometimes spreads.
func (p *Point) usual(spill bool) []safety.Place {
	m, err := atlas.Get(p.Muscle)
	if err != nil {
		return nil
	}
	var out []safety.Place
	for i := range m.Sites {
		s := &m.Sites[i]
		if p.Site != "" && s.ID != p.Site {
			continue
		}
		for _, r := range s.Essential {
			out = ids.With(out, placed(r, p.Side))
		}
		if !spill {
			continue
		}
		for _, r := range s.Spillover {
			out = ids.With(out, placed(r, p.Side))
		}
	}
	return out
}

// placed is a region on a side; what lies on the midline has none.
func placed(r ids.Region, side ids.Side) safety.Place {
	if atlas.MidlineRegion(r) {
		return safety.Place{Region: r, Side: ids.Midline}
	}
	return safety.Place{Region: r, Side: side}
}

// covers tells whether any of some places lies in a zone.
func covers(zone, where []safety.Place) bool {
	for _, z := range zone {
		for _, w := range where {
			if z.Region == w.Region && sameSide(z.Side, w.Side) {
				return true
			}
		}
	}
	return false
}

// sameSide: the midline belongs to both.
func sameSide(a, b ids.Side) bool { return a == b || a == ids.Midline || b == ids.Midline }

// tenderness from 0 to 10, by the number, else the grade; ok is false when
// neither was said.
func (p *Point) tenderness() (v float64, ok bool) {
	switch {
	case p.NPRS != nil:
		return *p.NPRS, true
	case p.Grade != nil:
		return float64(*p.Grade) * 2.5, true
	}
	return 0, false
}

// asTender tells whether p is at least as tender as o, on a scale that both
// have.
func (p *Point) asTender(o *Point) bool {
	switch {
	case p.NPRS != nil && o.NPRS != nil:
		return *p.NPRS >= *o.NPRS
	case p.Grade != nil && o.Grade != nil:
		return *p.Grade >= *o.Grade
	}
	return false
}

// before tells whether p was charted at an earlier visit than o.
func (p *Point) before(o *Point) bool {
	return p.FoundAt != nil && o.FoundAt != nil && *p.FoundAt < *o.FoundAt
}
