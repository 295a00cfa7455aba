package safety

import (
	"fmt"
	"slices"

	"mokren/core/ids"
)

// broad contacts spread the pressure; hard ones bring the most of it to a
// small place (working division). None is both.
var (
	broad = []ids.Contact{"palm", "forearm", "own-thigh"}
	hard  = []ids.Contact{"elbow", "tool", "knuckle", "pisiform-over-thumb"}
)

// overBones are the places over ribs and spine.
var overBones = ids.List[ids.Region]("upper-chest mid-chest sternum lateral-chest costal-margin " +
	"medial-scapular-border inferior-scapular-angle upper-thoracic-spine mid-thoracic-spine lower-thoracic-spine " +
	"posterior-lower-ribs lumbar-spine posterior-neck sacrum")

// TooHard tells why a contact is too hard for brittle bones at a place, or "".
func (a Adaptation) TooHard(places []Place, c ids.Contact) string {
	if !a.SoftOverBones || c != "elbow" && c != "knuckle" && c != "tool" && c != "pisiform-over-thumb" {
		return ""
	}
	if !slices.ContainsFunc(places, func(p Place) bool { return slices.Contains(overBones, p.Region) }) {
		return ""
	}
	return fmt.Sprintf("Not with the %s over ribs and spine today: the bones may be brittle.", c)
}

// Broad reports whether a contact spreads the pressure.
func Broad(c ids.Contact) bool { return slices.Contains(broad, c) }

// onStructure tells why a contact is too hard within a structure's keep-off radius,
// whatever is usual for the muscle, or "". Where care is enough, knuckle and pisiform
// stay in use: small nerves beside or under a muscle.
func onStructure(places []Place, c ids.Contact) string {
	if !slices.Contains(hard, c) {
		return ""
	}
	for _, p := range places {
		s, ok := FindStructure(p.Structure)
		if ok && (c == "elbow" || c == "tool" || p.Tier != Caution) {
			return fmt.Sprintf("Not with the %s so near the %s.", c, lowered(s.Name))
		}
	}
	return ""
}

// ContactForbidden tells why a contact may not be used at a place, or "". Where
// a muscle has ceilings of its own only its usual contacts are; where only the
// region has, the hard ones are not.
func ContactForbidden(m ids.Muscle, places []Place, usual []ids.Contact, c ids.Contact) string {
	if why := onStructure(places, c); why != "" {
		return why
	}
	_, where := Site(m, places)
	if where == "" {
		return ""
	}
	if c == "" {
		return "Name the contact: at " + where + " not every one may be used."
	}
	allowed := !slices.Contains(hard, c)
	if _, own := ceilingOf(byMuscle, string(m)); own {
		allowed = false
	}
	if allowed || slices.Contains(usual, c) {
		return ""
	}
	return fmt.Sprintf("Not with the %s at %s.", c, where)
}

// neckMuscles reach the neck wherever they are pressed.
var neckMuscles = append(ids.List[ids.Muscle]("sternocleidomastoid-sternal sternocleidomastoid-clavicular "+
	"suboccipitals splenius-capitis splenius-cervicis semispinalis-capitis cervical-multifidus levator-scapulae "+
	"longissimus-capitis digastric"),
	scalenes...)

// OnNeck reports whether pressing there is work on the neck.
func OnNeck(m ids.Muscle, places []Place) bool {
	return slices.Contains(neckMuscles, m) ||
		slices.ContainsFunc(places, func(p Place) bool { return slices.Contains(neck, p.Region) })
}
