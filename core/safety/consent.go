package safety

import (
	"slices"

	"mokren/core/ids"
)

// Area is what consent is asked for: the visit as a whole, or one of the areas
// of the body that need a consent of their own.
type Area string

// WholeVisit is the consent to be treated at all today.
const WholeVisit Area = "visit"

// sensitive are the areas that need their own consent, with a chaperone
// offered (common professional codes; local law may ask for more). Muscles are
// named where the hands reach the area from a place outside it.
var sensitive = []struct {
	area    Area
	regions []ids.Region
	muscles []ids.Muscle
}{
	{"groin", []ids.Region{"groin", "pubic"}, []ids.Muscle{"pectineus"}},
	{"buttock", []ids.Region{"upper-buttock", "lower-buttock"}, nil},
	{"chest", []ids.Region{"upper-chest", "mid-chest", "lateral-chest", "sternum"}, nil},
	{
		"abdomen",
		[]ids.Region{"epigastrium", "umbilical", "lower-abdomen"},
		[]ids.Muscle{"psoas-major", "iliacus", "rectus-abdominis", "external-oblique", "internal-oblique", "diaphragm"},
	},
	{"axilla", []ids.Region{"axilla"}, []ids.Muscle{"subscapularis", "coracobrachialis"}},
	{"coccyx", []ids.Region{"coccyx"}, []ids.Muscle{"coccyx-region"}},
}

// SensitiveAreas names the areas that a place on a muscle lies in, none for
// most. A place in two areas needs both.
func SensitiveAreas(m ids.Muscle, where []Place) []Area {
	var out []Area
	for _, s := range sensitive {
		here := slices.ContainsFunc(where, func(p Place) bool { return slices.Contains(s.regions, p.Region) })
		if here || slices.Contains(s.muscles, m) {
			out = append(out, s.area)
		}
	}
	return out
}
