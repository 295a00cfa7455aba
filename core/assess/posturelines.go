package assess

import (
	"mokren/core/body"
	"mokren/core/ids"
)

// PostureLine is where a posture measure is read on the figure: between two landmarks, or at one.
// A touch on it chooses the measure.
type PostureLine struct {
	Measure ids.Measure `json:"measure"`
	// Side is midline for what is read across the body.
	Side ids.Side  `json:"side"`
	View body.View `json:"view"`
	X1   float64   `json:"x1"`
	Y1   float64   `json:"y1"`
	X2   float64   `json:"x2"`
	Y2   float64   `json:"y2"`
}

// postureEnds are the landmarks of each measure, in the order of reading: from behind first, then
// from the side, from the front, lying. Across: both ends are the two sides of one landmark. The
// shift keeps what is read at the same landmarks apart for a fingertip.
var postureEnds = []struct {
	measure  ids.Measure
	views    []body.View
	from, to ids.Landmark
	across   bool
	dy       float64
}{
	{"shoulder-height", []body.View{body.Back, body.Front}, "acromion", "acromion", true, 0},
	{"scapula-distance", []body.View{body.Back}, "T7", "scapula-medial-border", false, 0},
	{"scapular-upward-rotation", []body.View{body.Back}, "scapula-spine-root", "scapula-inferior-angle", false, 0},
	{"side-curve", []body.View{body.Back}, "C7", "S2", false, 0},
	{"lumbar-curve", []body.View{body.Back}, "L1", "L5", false, 0},
	{"pelvis-height", []body.View{body.Back, body.Front}, "iliac-crest", "iliac-crest", true, 0},
	{"craniovertebral-angle", []body.View{body.LeftSide, body.RightSide}, "C7", "tragus", false, 0},
	{"pelvic-tilt", []body.View{body.LeftSide, body.RightSide}, "psis", "asis", false, 0},
	{"shoulder-girdle-rotation", []body.View{body.Front}, "acromion", "acromion", true, 46},
	{"pelvis-rotation", []body.View{body.Front}, "iliac-crest", "iliac-crest", true, 46},
	{"acromion-to-table", []body.View{body.Front}, "acromion", "acromion", false, -34},
}

// PostureLines lists the places on the figure, for each side where the measure has one.
func PostureLines() []PostureLine {
	out := []PostureLine{}
	for _, p := range postureEnds {
		for _, v := range p.views {
			out = append(out, linesIn(v, p.measure, p.from, p.to, p.across, p.dy)...)
		}
	}
	return out
}

func linesIn(v body.View, m ids.Measure, from, to ids.Landmark, across bool, dy float64) (out []PostureLine) {
	marks := map[ids.Landmark]map[ids.Side]body.Point{}
	for _, l := range body.LandmarksOf(v) {
		if marks[l.ID] == nil {
			marks[l.ID] = map[ids.Side]body.Point{}
		}
		marks[l.ID][l.Side] = body.Point{X: l.X, Y: l.Y + dy}
	}
	line := func(side ids.Side, a, b body.Point) { out = append(out, PostureLine{m, side, v, a.X, a.Y, b.X, b.Y}) }
	if across {
		a, left := marks[from][ids.Left]
		b, right := marks[to][ids.Right]
		if left && right {
			line(ids.Midline, a, b)
		}
		return out
	}
	for _, side := range []ids.Side{ids.Left, ids.Right, ids.Midline} {
		b, ok := marks[to][side]
		if !ok {
			continue
		}
		a, ok := marks[from][side]
		if !ok {
			a, ok = marks[from][ids.Midline]
		}
		if ok {
			of := side
			if m == "scapula-distance" { // level, at the height of the blade's border
				a.Y = b.Y
			}
			if m == "craniovertebral-angle" { // of the head, whichever ear is seen
				of = ids.Midline
			}
			line(of, a, b)
		}
	}
	return out
}
