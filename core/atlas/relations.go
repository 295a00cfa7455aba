package atlas

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"sync"

	"mokren/core/ids"
	"mokren/core/stable"
)

// opposites are pairs of movements that undo one another. Where a movement has two opposites
// (the ankle's with the knee bent or straight) the first pair counts in that direction.
var opposites = func() map[ids.Movement]ids.Movement {
	out := map[ids.Movement]ids.Movement{}
	for _, pair := range strings.Fields(`
		cervical.flexion=cervical.extension lumbar.flexion=lumbar.extension jaw.opening=jaw.closing
		shoulder.flexion=shoulder.extension shoulder.internal-rotation=shoulder.external-rotation
		shoulder.abduction=shoulder.adduction elbow.flexion=elbow.extension forearm.pronation=forearm.supination
		wrist.flexion=wrist.extension wrist.radial-deviation=wrist.ulnar-deviation hip.flexion=hip.extension
		hip.abduction=hip.adduction hip.internal-rotation=hip.external-rotation knee.flexion=knee.extension
		ankle.dorsiflexion-knee-bent=ankle.plantarflexion ankle.inversion=ankle.eversion great-toe.extension=great-toe.flexion
		scapula.elevation=scapula.depression scapula.protraction=scapula.retraction scapula.upward-rotation=scapula.downward-rotation
		fingers.flexion=fingers.extension fingers.abduction=fingers.adduction thumb.flexion=thumb.extension thumb.abduction=thumb.adduction
		lesser-toes.flexion=lesser-toes.extension breathing.in=breathing.out pelvis.anterior-tilt=pelvis.posterior-tilt
		shoulder.horizontal-adduction=shoulder.horizontal-abduction thumb.opposition=thumb.extension`) {
		a, b, _ := strings.Cut(pair, "=")
		for _, p := range [][2]string{{a, b}, {b, a}} {
			if _, ok := out[ids.Movement(p[0])]; !ok {
				out[ids.Movement(p[0])] = ids.Movement(p[1])
			}
		}
	}
	out["ankle.dorsiflexion-knee-straight"] = "ankle.plantarflexion"
	return out
}()

// Opposite gives the movement the other way.
func Opposite(m ids.Movement) (ids.Movement, bool) {
	o, ok := opposites[m]
	return o, ok
}

// sided reports whether a movement has a direction to a side.
func sided(m ids.Movement) bool {
	switch m {
	case "cervical.lateral-flexion", "cervical.rotation", "thoracic.rotation", "lumbar.lateral-flexion",
		"trunk.rotation":
		return true
	}
	return false
}

// opposed tells whether two motions undo one another.
func opposed(a, b Motion) bool {
	if sided(a.Movement) {
		return a.Movement == b.Movement && a.Toward != b.Toward
	}
	return opposites[a.Movement] == b.Movement || opposites[b.Movement] == a.Movement
}

// motions leaves degrees and words out: relations are of movements alone.
func motions(list []JointPosition) []Motion {
	out := make([]Motion, len(list))
	for i, p := range list {
		out[i] = p.motion()
	}
	return out
}

// Relations computes who helps (shares an action) and who opposes (does the
// opposite), and applies the file's corrections. Actions stand in a file with
// the strongest first, and so do the lists: a muscle counts by how strong an
// action it is in, on both sides. One that helps in one action and opposes in
// another stands in both lists.
func (m *Muscle) Relations() (synergists, antagonists []ids.Muscle) {
	if known, ok := related.Load(m.ID); ok {
		pair := known.([2][]ids.Muscle)
		return pair[0], pair[1]
	}
	synergists, antagonists = m.relate()
	related.Store(m.ID, [2][]ids.Muscle{synergists, antagonists})
	return synergists, antagonists
}

// related keeps what was worked out; the data never changes.
var related sync.Map

// relate works both lists out, with what the file corrects by hand.
func (m *Muscle) relate() (synergists, antagonists []ids.Muscle) {
	c := m.Corrections
	if c == nil {
		c = &Corrections{}
	}
	same := func(a, b Motion) bool { return a == b }
	return m.ranked(same, c.Synergists, c.NotSynergists), m.ranked(opposed, c.Antagonists, c.NotAntagonists)
}

// byHand: what was set by hand comes before all that is computed.
const byHand = 100

// ranked lists the muscles whose actions match this one's, the strongest first.
func (m *Muscle) ranked(match func(a, b Motion) bool, add, drop []ids.Muscle) []ids.Muscle {
	strength := map[ids.Muscle]float64{}
	var out []ids.Muscle
	for _, o := range All() {
		if o.ID == m.ID || slices.Contains(drop, o.ID) {
			continue
		}
		n := 0.0
		for i, a := range m.Actions {
			for k, b := range o.Actions {
				if match(a, b) {
					n += math.Exp2(-float64(i + k))
				}
			}
		}
		if slices.Contains(add, o.ID) {
			n += byHand
		}
		if n > 0 {
			strength[o.ID] = n
			out = append(out, o.ID)
		}
	}
	stable.Sort(out, func(a, b ids.Muscle) int { return cmp.Compare(strength[b], strength[a]) })
	return out
}
