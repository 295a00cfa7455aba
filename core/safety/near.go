package safety

import (
	"cmp"
	"math"
	"slices"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/solid"
	"mokren/core/stable"
)

// reachMM is the radius of what a contact presses on (working values).
var reachMM = map[ids.Contact]float64{
	"tool": 4, "fingertips": 6, "knuckle": 7, "thumb-pad": 8, "thumb-over-thumb": 8, "pincer": 8,
	"pisiform-over-thumb": 8, "braced-fingers": 10, "thenar-over-thumb": 12, "elbow": 12, "forearm": 30,
	"palm": 35, "own-thigh": 50,
}

// DefaultContact is what a place is judged for when no contact is named.
const DefaultContact = "thumb-pad"

// ReachMM is the radius of a contact.
func ReachMM(c ids.Contact) float64 { return reachMM[cmp.Or(c, DefaultContact)] }

// Close is a structure near a line of pressure.
type Close struct {
	Structure Structure
	Side      ids.Side
	Tier      Tier
	// KeepOffMM is the radius around the course that no pressure may enter, at this client's
	// height.
	KeepOffMM float64
	// GapMM is from the line to the course, FloorMM what of it has to be kept.
	GapMM, FloorMM float64
	// AlongMM is along the skin to the place over the course, DepthMM how deep it runs
	// there, LineMM how deep the line comes nearest to it.
	AlongMM, DepthMM, LineMM float64
	// at is the place of the course that is nearest to the line.
	at solid.Point
}

// Inside reports whether the course comes within its keep-off radius.
func (c Close) Inside() bool { return c.GapMM <= c.FloorMM }

// Sight is as far as a structure is looked for, in mm from the line of pressure.
const sightMM = 40

// Near lists what lies near a line of pressure, and what is named wherever it lies: of
// every structure and side the place that comes nearest to breaking in, the nearest
// along the skin first. The radius is the contact's.
func Near(l solid.Pressure, heightCM, contactMM float64, named ...ids.Structure) []Close {
	of := around(l, heightCM, widestMM, named...)
	out := slices.DeleteFunc(nearest(l, of, heightCM, contactMM), func(c Close) bool {
		return c.GapMM > sightMM && !c.Inside() && !slices.Contains(named, c.Structure.ID)
	})
	mm := heightCM / 100
	for i := range out {
		out[i].onSkin(l.From, of, mm)
	}
	stable.Sort(out, func(a, b Close) int { return cmp.Compare(a.AlongMM, b.AlongMM) })
	return out
}

// besideUnits is how far along the course the nearest place of the skin is looked for.
const besideUnits = 9

// onSkin measures along the skin: to the place over the course that lies nearest.
func (c *Close) onSkin(hand solid.Skin, of []*piece, mm float64) {
	c.AlongMM = math.Inf(1)
	c.over(c.at, hand, mm)
	nearest, gap := c.at, c.at.Distance(hand.At)
	for _, p := range of {
		if p.of.ID != c.Structure.ID || p.side != c.Side || p.to.Distance(c.at) > besideUnits {
			continue
		}
		if d := p.to.Distance(hand.At); d < gap {
			nearest, gap = p.to, d
		}
	}
	if nearest != c.at {
		c.over(nearest, hand, mm)
	}
}

// over keeps the nearest place of a course, along the skin from the hand, with how deep it
// runs there.
func (c *Close) over(p solid.Point, hand solid.Skin, mm float64) {
	over := solid.Over(p, hand)
	if along := solid.Skinwise(hand, over) * mm; along < c.AlongMM {
		c.AlongMM, c.DepthMM = along, over.At.Distance(p)*mm
	}
}

// tierRank puts the gravest first.
var tierRank = [...]Tier{Danger, Caution, Note}

// around are the pieces of which some place may lie within so many mm of a line, and all
// of what is named.
func around(l solid.Pressure, heightCM, withinMM float64, named ...ids.Structure) []*piece {
	out := make([]*piece, 0, 64)
	middle := l.From.At.Along(l.From.In, l.Depth/2)
	room := l.Depth/2 + withinMM/(heightCM/100)
	all := pieces()
	for i := range all {
		p := &all[i]
		if p.middle.Distance(middle) <= p.half+room || slices.Contains(named, p.of.ID) {
			out = append(out, p)
		}
	}
	return out
}

// widestMM is more than any keep-off with any contact.
const widestMM = 110

// nearest finds the nearest place of each structure among some pieces, without the place
// on the skin.
func nearest(l solid.Pressure, of []*piece, heightCM, contactMM float64) []Close {
	out := make([]Close, 0, 24)
	mm := heightCM / 100
	for _, p := range of {
		d, at, deep := l.ToPath(p.from, p.to)
		c := Close{
			Structure: p.of.Structure, Side: p.side, Tier: p.tier, KeepOffMM: p.of.KeepOffMM,
			GapMM: d * mm, FloorMM: p.of.KeepOffMM + contactMM, LineMM: deep * mm, at: at,
		}
		i := slices.IndexFunc(out, func(o Close) bool { return o.Structure.ID == c.Structure.ID && o.Side == c.Side })
		switch {
		case i < 0:
			out = append(out, c)
		case c.worse(out[i]):
			out[i] = c
		}
	}
	return out
}

// worse tells which of two stretches of one structure counts: one that comes inside
// before one that does not, then the graver, then the nearer.
func (c Close) worse(o Close) bool {
	if c.Inside() != o.Inside() {
		return c.Inside()
	}
	if c.Inside() && c.Tier != o.Tier {
		return slices.Index(tierRank[:], c.Tier) < slices.Index(tierRank[:], o.Tier)
	}
	return c.GapMM < o.GapMM
}

// Within lists what a line of pressure comes too near, by tier; a note asks for nothing.
func Within(l solid.Pressure, heightCM float64) []Close {
	return slices.DeleteFunc(nearest(l, around(l, heightCM, widestMM), heightCM, ReachMM("")), func(c Close) bool {
		return !c.Inside() || c.Tier == Note
	})
}

// clearanceMM is how much room a line leaves to the nearest of some pieces that asks for
// some; negative within a keep-off.
func clearanceMM(l solid.Pressure, of []*piece, heightCM, contactMM float64) float64 {
	least := math.Inf(1)
	for _, p := range of {
		if p.tier != Note {
			d, _, _ := l.ToPath(p.from, p.to)
			least = min(least, d*heightCM/100-p.of.KeepOffMM-contactMM)
		}
	}
	return least
}

// Steps of the way off.
var stepsMM = [...]float64{10, 15, 20}

// directions to try; betterMM is what a step has to gain.
const (
	directions = 16
	betterMM   = 2
	mattersMM  = 45
)

// Away is the way off a structure: a step along the skin.
type Away struct {
	// Words of the body; Stay is set where no step helps.
	Text string
	To   solid.Skin
	MM   float64
	Stay bool
}

// StayOff is said where no step of 2 cm helps.
const StayOff = "Do not press here."

// Off finds the step of 1 to 2 cm with the greatest least clearance from everything
// that asks for some.
func Off(l solid.Pressure, heightCM, contactMM float64) Away {
	of := around(l, heightCM, widestMM+stepsMM[len(stepsMM)-1])
	now := clearanceMM(l, of, heightCM, contactMM)
	best := now + betterMM
	of = slices.DeleteFunc(of, func(p *piece) bool { // what no step brings near enough to matter
		return p.tier == Note || clearanceMM(l, []*piece{p}, heightCM, contactMM) > max(now, 0)+mattersMM
	})
	out := Away{Text: StayOff, To: l.From, Stay: true}
	up, across := l.From.Frame()
	for i := range directions {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / directions)
		for _, mm := range stepsMM {
			units := mm / (heightCM / 100)
			to, ok := solid.Onto(l.From.At.Along(up, cos*units).Along(across, sin*units), l.From)
			if !ok {
				continue
			}
			if c := clearanceMM(solid.Pressure{From: to, Depth: l.Depth}, of, heightCM, contactMM); c > best {
				best = c
				out = Away{MM: mm, To: to, Text: "Move " + solid.Words(l.From, to) + "."}
			}
		}
	}
	return out
}

// Deg is the way of the step in a view: degrees from the picture's right, clockwise.
func (a Away) Deg(v body.View, from solid.Skin) (float64, bool) {
	p, _, ok := from.At.In(v)
	q, _, ok2 := a.To.At.In(v)
	if a.Stay || !ok || !ok2 {
		return 0, false
	}
	return math.Mod(math.Atan2(q.Y-p.Y, q.X-p.X)*180/math.Pi+360, 360), true
}
