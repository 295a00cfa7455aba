package plan

import (
	"fmt"
	"math"
	"slices"

	"mokren/core/atlas"
	"mokren/core/ids"
	"mokren/core/safety"
	"mokren/core/treat"
)

// The dose of a session (working defaults of experienced practitioners).
const (
	mostPoints      = 8
	mostAtFirst     = 4
	mostOnOneSite   = 2
	mostInRegionS   = 360.0 // pressure in one region on one side
	restHours       = 48.0  // before a site takes deep work again
	lightTarget     = 3.0   // up to here pressing is not deep work
	aroundAPressS   = 60.0  // finding the spot, and the flush after it
	roundToMinutes  = 0.5
	defaultProtocol = "graded-stages"
)

// firstThen lists what is eased before what lies under it or depends on it, in
// one area.
var firstThen = []struct {
	first, then []ids.Muscle
}{
	{many("pectoralis-major"), many("pectoralis-minor")},
	{many("upper-trapezius middle-trapezius lower-trapezius"), many("levator-scapulae")},
	{
		many("sternocleidomastoid-sternal sternocleidomastoid-clavicular " +
			"upper-trapezius middle-trapezius lower-trapezius"),
		many("scalenus-anterior scalenus-medius scalenus-posterior"),
	},
	{many("gluteus-maximus"), many("piriformis")},
	{many("gastrocnemius-medial gastrocnemius-lateral"), many("soleus")},
	{many("latissimus-dorsi teres-major teres-minor"), many("subscapularis")},
	{many("iliacus"), many("psoas-major")},
}

func many(list string) []ids.Muscle { return ids.List[ids.Muscle](list) }

// goesBefore tells why a goes before b, or "".
func goesBefore(a, b Point) string {
	if b.Of == a.ID && b.Role == "satellite" && a.Activity == "active" && a.Of != b.ID {
		return "the point it depends on comes first"
	}
	if a.Side != b.Side && a.Side != ids.Midline && b.Side != ids.Midline {
		return ""
	}
	for _, p := range firstThen {
		if slices.Contains(p.first, a.Muscle) && slices.Contains(p.then, b.Muscle) {
			return "what lies over it comes first"
		}
	}
	return ""
}

// pair names the muscles of the neck of which both sides are never pressed one
// directly after the other: 0 for all others.
func pair(m ids.Muscle) int {
	switch m {
	case "scalenus-anterior", "scalenus-medius", "scalenus-posterior":
		return 1
	case "sternocleidomastoid-sternal", "sternocleidomastoid-clavicular":
		return 2
	}
	return 0
}

// clash tells whether two points may not follow one another directly.
func clash(a, b Point) bool {
	return pair(a.Muscle) != 0 && pair(a.Muscle) == pair(b.Muscle) && a.Side != b.Side
}

// candidate is a point with all that its place in a plan depends on.
type candidate struct {
	Point
	where []safety.Place
	// positions in which it can be worked today, on its side.
	positions []ids.Position
	// minutes that it takes, with asking and flushing; a working value for each protocol.
	minutes float64
	// pressureS is the pressure that it adds to its region, in seconds.
	pressureS float64
	region    string
	// worth is how much it matters today; sets are compared by their sum.
	worth float64
	never string // why it can be in no plan
}

// candidates weighs every point by itself.
func (r Request) candidates(s safety.Screening, f fixed) []candidate {
	out := make([]candidate, len(r.Points))
	for i, p := range r.Points {
		c := candidate{Point: p, where: p.Where, worth: worth(p)}
		m, err := atlas.Get(p.Muscle)
		if err != nil {
			c.never = err.Error()
			out[i] = c
			continue
		}
		if len(c.where) == 0 {
			c.where = m.Places(p.Side)
		}
		proto, ok := treat.Find(p.Protocol)
		if !ok {
			proto, _ = treat.Find(defaultProtocol)
		}
		site, _ := safety.Site(p.Muscle, c.where)
		limits := s.Limits.On(proto.Limits.Strictest(site))
		c.pressureS = float64(limits.CapMS) / 1000
		c.minutes = math.Ceil((c.pressureS+aroundAPressS)/60/roundToMinutes) * roundToMinutes
		c.region = regionOf(p.Muscle, p.Side)
		c.positions = m.Lying(p.Side, s.Limits.AvoidPositions)
		c.never = r.refused(c, s, limits, f)
		out[i] = c
	}
	return out
}

// regionOf a muscle on its side: where pressure adds up.
func regionOf(m ids.Muscle, side ids.Side) string {
	if d, err := atlas.Get(m); err == nil {
		return d.Region + " " + string(side)
	}
	return ""
}

// refused tells why a point can be in no plan today, or "".
func (r Request) refused(c candidate, s safety.Screening, limits safety.Limits, f fixed) string {
	why, blocked := s.Blocks(c.Muscle, c.where)
	switch {
	case c.Blocked != "":
		return c.Blocked
	case blocked:
		return why
	case slices.Contains(r.Dropped, c.ID):
		return "Left out by hand."
	case len(c.positions) == 0:
		return "No position in which it can be reached is allowed today."
	case c.HoursAgo != nil && *c.HoursAgo < restHours && limits.Target > lightTarget:
		return fmt.Sprintf("Treated %.0f hours ago: no deep work here before %.0f.", *c.HoursAgo, restHours)
	case c.Treated >= mostOnOneSite:
		return "This site was treated twice in this session already."
	case c.worth == 0 && !slices.Contains(r.Must, c.ID):
		return "Neither active nor latent: nothing to treat."
	case f.cold && len(r.Done) == 0 && safety.OnNeck(c.Muscle, c.where):
		return "The neck is not worked without a warm-up."
	}
	return ""
}

// worth by itself; a satellite of a treated primary is worth half.
func worth(p Point) float64 {
	v := 0.0
	switch p.Activity {
	case "active":
		v = 3
	case "latent":
		v = 1
	}
	if p.Role == "primary" {
		v *= 1.5
	}
	if p.Complaint {
		v *= 1.5
	}
	return v
}

const besideItsPrimary = 0.5

// intensity orders what comes last: the least.
func (c candidate) intensity() float64 {
	p, ok := treat.Find(c.Protocol)
	if !ok {
		p, _ = treat.Find(defaultProtocol)
	}
	return p.Limits.Target
}
