package plan

import (
	"fmt"
	"slices"

	"mokren/core/atlas"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/safety"
)

// Point to be treated, as it was judged.
type Point struct {
	ID     string     `json:"id" maxLength:"60"`
	Muscle ids.Muscle `json:"muscle"`
	Side   ids.Side   `json:"side"`
	// Activity and Role decide what it is worth.
	Activity string `json:"activity" enum:"active,latent,none"`
	Role     string `json:"role" enum:"primary,satellite,functional"`
	Of       string `json:"satellite_of,omitempty" maxLength:"60"`
	// Complaint: its zone lies where the client hurts.
	Complaint bool `json:"complaint_region,omitempty"`
	// HoursAgo since it was treated last; sore tissue waits.
	HoursAgo *float64 `json:"hours_since_treated,omitempty" minimum:"0"`
	// Protocol by which it is done; the minutes follow from it.
	Protocol ids.Protocol `json:"protocol,omitempty"`
	// Site tells which points are one site; absent is a site of its own.
	Site string `json:"site,omitempty" maxLength:"60"`
	// Treated is how often the site was treated in this session already.
	Treated int `json:"treated,omitempty" minimum:"0" maximum:"20"`
	// Where it lies; absent is where the muscle's sites lie.
	Where []safety.Place `json:"where,omitempty" maxItems:"20"`
	// Blocked tells why nothing is pressed there, beyond the screening.
	Blocked string `json:"blocked_because,omitempty" maxLength:"500"`
}

// Blocks are the fixed parts of a session, in minutes.
type Blocks struct {
	Recheck  *float64 `json:"recheck,omitempty" minimum:"0" maximum:"60"`
	WarmUp   *float64 `json:"warm_up,omitempty" minimum:"0" maximum:"60"`
	Lengthen *float64 `json:"lengthen,omitempty" minimum:"0" maximum:"60"`
	Close    *float64 `json:"close,omitempty" minimum:"0" maximum:"60"`
}

// TreatedPoint is a point that was treated in this session.
type TreatedPoint struct {
	Point     string     `json:"point" maxLength:"60"`
	Muscle    ids.Muscle `json:"muscle"`
	Side      ids.Side   `json:"side"`
	PressureS float64    `json:"pressure_s" minimum:"0"`
}

// Request asks for a plan. Minutes are of the whole session; GoneMin of them
// have passed.
type Request struct {
	Minutes float64 `json:"minutes" minimum:"0" maximum:"600"`
	// FirstVisit allows four points at most.
	FirstVisit bool `json:"first_visit,omitempty"`
	// Points in any order; the plan does not depend on it.
	Points []Point `json:"points" maxItems:"60"`
	// Answers of the screening, judged anew here.
	Answers []safety.Answer `json:"screening,omitempty" maxItems:"400"`
	// Blocks in minutes; nil takes the usual ones.
	Blocks *Blocks `json:"blocks,omitempty"`
	// Order is the therapist's own; points that it does not name are left out.
	Order []string `json:"order,omitempty" maxItems:"60"`
	// Must be treated, and Dropped must not.
	Must    []string `json:"must,omitempty" maxItems:"60"`
	Dropped []string `json:"dropped,omitempty" maxItems:"60"`
	// What has passed of the session, how the client lies, what was done.
	GoneMin  float64        `json:"gone_min,omitempty" minimum:"0" maximum:"600"`
	Position ids.Position   `json:"position,omitempty"`
	Done     []TreatedPoint `json:"done,omitempty" maxItems:"60"`
}

// Check implements decode.Checker: each id once, and those named are there.
func (r Request) Check() *decode.Error {
	seen := map[string]bool{}
	for i, p := range r.Points {
		if seen[p.ID] {
			return &decode.Error{
				Path: fmt.Sprintf("$.points[%d].id", i), Given: fmt.Sprintf("%q", p.ID), Allowed: "each id once",
			}
		}
		seen[p.ID] = true
		if e := atlas.Pressable(p.Muscle, fmt.Sprintf("$.points[%d].muscle", i)); e != nil {
			return e
		}
	}
	for _, list := range []struct {
		path string
		ids  []string
	}{{"order", r.Order}, {"must", r.Must}, {"dropped", r.Dropped}} {
		for i, id := range list.ids {
			if !seen[id] || slices.Contains(list.ids[:i], id) {
				return &decode.Error{
					Path: fmt.Sprintf("$.%s[%d]", list.path, i), Given: fmt.Sprintf("%q", id),
					Allowed: "the id of a point, once",
				}
			}
		}
	}
	return nil
}

// The fixed parts, in minutes (working values); a turn of the client takes 2.
const (
	recheckMin  = 5.0
	warmUpMin   = 5.0
	lengthenMin = 5.0
	closeMin    = 5.0
	turnMin     = 2.0
)

// fixed are the blocks' lengths.
type fixed struct {
	recheck, warmUp, lengthen, close float64
	// cold: no warm-up is wanted.
	cold bool
}

func (f fixed) sum() float64 { return f.recheck + f.warmUp + f.lengthen + f.close }

// fix resolves the blocks; where not even they fit, lengthening and warm-up go
// first, the closing last.
func (r Request) fix() fixed {
	f := fixed{recheck: recheckMin, warmUp: warmUpMin, lengthen: lengthenMin, close: closeMin}
	if b := r.Blocks; b != nil {
		for _, o := range []struct {
			src *float64
			dst *float64
		}{{b.Recheck, &f.recheck}, {b.WarmUp, &f.warmUp}, {b.Lengthen, &f.lengthen}, {b.Close, &f.close}} {
			if o.src != nil {
				*o.dst = *o.src
			}
		}
	}
	f.cold = f.warmUp == 0
	if r.GoneMin > 0 {
		both := f.recheck + f.warmUp - r.GoneMin
		f.recheck, f.warmUp = max(0, f.recheck-r.GoneMin), max(0, min(f.warmUp, both))
	}
	if len(r.Done) > 0 {
		f.recheck, f.warmUp = 0, 0
	}
	over := f.sum() - r.left()
	for _, part := range []*float64{&f.lengthen, &f.warmUp, &f.recheck, &f.close} {
		if over <= 0 {
			break
		}
		cut := min(*part, over)
		*part -= cut
		over -= cut
	}
	return f
}

func (r Request) left() float64 { return max(0, r.Minutes-r.GoneMin) }
