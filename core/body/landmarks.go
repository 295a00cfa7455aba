package body

import (
	"fmt"
	"sync"

	"mokren/core/ids"
)

// Landmark is a named place in a view.
type Landmark struct {
	ID   ids.Landmark `json:"id"`
	Side ids.Side     `json:"side"`
	Point
}

var landmarks sync.Map // View → []Landmark

// LandmarksOf lists the landmarks that a view shows; do not alter the list.
func LandmarksOf(v View) []Landmark {
	if l, ok := landmarks.Load(v); ok {
		return l.([]Landmark)
	}
	l, _ := landmarks.LoadOrStore(v, placeLandmarks(v))
	return l.([]Landmark)
}

// placeLandmarks puts every landmark of the authored views on each side that this view shows.
func placeLandmarks(v View) []Landmark {
	var out []Landmark
	for _, authored := range Views {
		for _, m := range markFile().in(authored) {
			p := m.At.point()
			if !v.Shows(authored, p) {
				continue
			}
			for _, s := range m.sides(v) {
				out = append(out, Landmark{m.ID, s, v.place(p, s)})
			}
		}
	}
	return out
}

// sides on which a view shows the landmark.
func (m markData) sides(v View) []ids.Side {
	switch {
	case m.Middle:
		return []ids.Side{ids.Midline}
	case v.OneSided():
		return []ids.Side{v.side(true)}
	}
	return []ids.Side{ids.Left, ids.Right}
}

// FindLandmark gives a landmark's place in a view, on a side.
func FindLandmark(v View, id ids.Landmark, side ids.Side) (Point, error) {
	for _, l := range LandmarksOf(v) {
		if l.ID == id && (l.Side == side || l.Side == ids.Midline) {
			return l.Point, nil
		}
	}
	return Point{}, fmt.Errorf("body: landmark %s (%s) is not shown in view %s", id, side, v)
}

// Offset moves a point outward (toward the side, x > 0) and down.
func Offset(v View, p Point, side ids.Side, outward, down float64) Point {
	return Point{p.X + outward*v.Outward(side), p.Y + down}
}
