package atlas

import (
	"cmp"

	"mokren/core/body"
	"mokren/core/ids"
	"mokren/core/solid"
	"mokren/core/stable"
)

// Pressed is the line of pressure at a place: straight into the skin. at is where the
// place lies, in a view. ok is false beside the figure.
func (m *Muscle) Pressed(f FibrePlace, side ids.Side, v body.View, at body.Point) (l solid.Pressure, ok bool) {
	return pressed(v, at, side, m.part(f).Behind != "")
}

// pressed is Pressed of a place; behind means the trunk where the hanging arm hides it.
func pressed(v body.View, at body.Point, side ids.Side, behind bool) (l solid.Pressure, ok bool) {
	touch := solid.Touch
	if behind {
		touch = solid.TouchBehind
	}
	s, ok := touch(v, at, side)
	if !ok {
		return l, false
	}
	return solid.Press(s), true
}

// MuscleDepth is a muscle under a line of pressure, with how deep it begins.
type MuscleDepth struct {
	Muscle  ids.Muscle `json:"muscle"`
	DepthCM float64    `json:"depth_cm" doc:"below the skin; from the order of layers, a working value"`
}

// edgeMM is how far beside a muscle's edge a line still goes through it.
const edgeMM = 2

// Skin and fat are about so thick, and a muscle over another at most.
const (
	skinCM  = 0.4
	layerCM = 1.4
)

// Layers lists the muscles that a line of pressure goes through, the nearest to the surface first.
// The way to the bone, less skin and fat, is shared evenly among the layers that there are, and
// no layer is thicker than layerCM: a working value, for muscles have no volume here.
func Layers(l solid.Pressure, v body.View, p body.Point, heightCM float64) []MuscleDepth {
	var found []Candidate
	layers := []int{}
	for _, c := range Under(v, p, heightCM) {
		if c.OffMM <= edgeMM {
			found = append(found, c)
			layers = ids.With(layers, c.Layer)
		}
	}
	stable.Sort(found, func(a, b Candidate) int { return cmp.Compare(a.Layer, b.Layer) })
	out := make([]MuscleDepth, len(found))
	thick := min((l.Depth*heightCM/1000-skinCM)/float64(max(len(layers), 1)), layerCM)
	rank, last := -1, 0
	for i, c := range found {
		if c.Layer != last {
			rank, last = rank+1, c.Layer
		}
		out[i] = MuscleDepth{c.Muscle, tenth(skinCM + float64(rank)*max(thick, 0))}
	}
	return out
}
