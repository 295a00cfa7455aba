package safety

import (
	"slices"
	"strings"

	"mokren/core/ids"
)

// Limits bound one hold. Scores are NPRS 0–10; CapMS is the longest pressure
// in milliseconds.
type Limits struct {
	Target float64 `json:"target"`
	Soft   float64 `json:"soft_ceiling"`
	Hard   float64 `json:"hard_ceiling"`
	CapMS  int64   `json:"cap_ms"`
}

// Absolute bounds of pressure in one hold, whatever a practice has tuned.
const (
	MinCapMS int64 = 10_000
	MaxCapMS int64 = 120_000
)

// Strictest combines limits: the lower of each.
func (l Limits) Strictest(o Limits) Limits {
	return Limits{min(l.Target, o.Target), min(l.Soft, o.Soft), min(l.Hard, o.Hard), min(l.CapMS, o.CapMS)}
}

// Within reports whether l nowhere passes o.
func (l Limits) Within(o Limits) bool { return l.Strictest(o) == l }

// Open is the limit of a site without a rule of its own.
var Open = Limits{10, 10, 10, MaxCapMS}

// Site ceilings (working defaults of experienced practitioners): tender,
// vessel- and nerve-rich places get a lower target, soft and hard ceiling; the
// front of the neck also a short cap, since pressure there acts on the carotid
// sinus.
var (
	guarded   = Limits{4, 5, 6, MaxCapMS}
	scalene   = Limits{4, 4, 5, MaxCapMS}
	coccyx    = Limits{3, 4, 5, MaxCapMS}
	neckFront = Limits{4, 5, 6, 30_000}
	blade     = Limits{5, 6, 7, MaxCapMS}
)

// ceiling is what a muscle or a region is limited to, and what the place is called.
type ceiling struct {
	of     string
	limits Limits
	where  string
}

var byMuscle = []ceiling{
	{"sternocleidomastoid-sternal", neckFront, "the front of the neck"},
	{"sternocleidomastoid-clavicular", neckFront, "the front of the neck"},
	{"suboccipitals", guarded, "below the skull"},
	{"scalenus-anterior", scalene, "the scalenes"},
	{"scalenus-medius", scalene, "the scalenes"},
	{"scalenus-posterior", scalene, "the scalenes"},
	{"subscapularis", guarded, "the armpit"},
	{"coracobrachialis", guarded, "the armpit"},
	{"splenius-capitis", guarded, "the side of the neck"},
	{"splenius-cervicis", guarded, "the side of the neck"},
	{"rectus-abdominis", guarded, "the abdomen"},
	{"external-oblique", guarded, "the abdomen"},
	{"internal-oblique", guarded, "the abdomen"},
	{"digastric", neckFront, "the front of the neck"},
	{"lateral-pterygoid", guarded, "the jaw joint"},
	{"medial-pterygoid", guarded, "the jaw angle"},
	{"longissimus-capitis", guarded, "the side of the neck"},
	{"diaphragm", guarded, "the abdomen"},
	{"psoas-major", guarded, "the abdomen"},
	{"iliacus", guarded, "the abdomen"},
	{"pectineus", guarded, "the groin"},
	{"popliteus", guarded, "the hollow of the knee"},
	{"coccyx-region", coccyx, "the coccyx"},
}

// byRegion are places that are guarded whatever muscle is pressed through them.
var byRegion = []ceiling{
	{"anterior-neck", neckFront, "the front of the neck"},
	{"lateral-neck", guarded, "the side of the neck"},
	{"suboccipital", guarded, "below the skull"},
	{"posterior-neck", guarded, "the upper back of the neck"},
	{"medial-scapular-border", blade, "the inner edge of the blade"},
	{"medial-upper-arm", guarded, "the inner side of the upper arm"},
	{"antecubital", guarded, "the front of the elbow"},
	{"flank", guarded, "the flank over the kidney"},
	{"posterior-lower-ribs", guarded, "the flank over the kidney"},
	{"medial-ankle", guarded, "the tarsal tunnel"},
	{"medial-arch", guarded, "the sole over the plantar nerves"},
	{"mid-sole", guarded, "the sole over the plantar nerves"},
	{"axilla", guarded, "the armpit"},
	{"epigastrium", guarded, "the abdomen"},
	{"umbilical", guarded, "the abdomen"},
	{"lower-abdomen", guarded, "the abdomen"},
	{"groin", guarded, "the groin"},
	{"pubic", guarded, "the groin"},
	{"popliteal", guarded, "the hollow of the knee"},
	{"coccyx", coccyx, "the coccyx"},
}

// ceilingOf finds the row of a muscle or region.
func ceilingOf(table []ceiling, of string) (ceiling, bool) {
	for _, c := range table {
		if c.of == of {
			return c, true
		}
	}
	return ceiling{}, false
}

// Site gives the ceilings of a place on a muscle and where they come from: the
// muscle's own, those of every region that the place lies in, and those of every
// structure in danger there, the strictest of each. where is empty when none applies.
func Site(m ids.Muscle, places []Place) (l Limits, where string) {
	l = Open
	var names []string
	add := func(o Limits, name string) {
		l = l.Strictest(o)
		if !slices.Contains(names, name) {
			names = append(names, name)
		}
	}
	if s, ok := ceilingOf(byMuscle, string(m)); ok {
		add(s.limits, s.where)
	}
	for _, p := range places {
		if s, ok := ceilingOf(byRegion, string(p.Region)); ok {
			add(s.limits, s.where)
		}
		if s, ok := FindStructure(p.Structure); ok && p.Tier != Caution {
			add(guarded, "the "+lowered(s.Name))
		}
	}
	return l, strings.Join(names, " and ")
}
