package assess

import (
	"mokren/core/body"
	"mokren/core/ids"
)

// SignSpot is where a sign of the squat or the toe-touch is touched on the
// figure. A toe-touch sign is a posture reading: side-curve or lumbar-curve.
type SignSpot struct {
	Sign    ids.Sign    `json:"sign,omitempty"`
	Measure ids.Measure `json:"measure,omitempty" doc:"instead of a sign: the posture reading that a touch sets"`
	Name    string      `json:"name"`
	Side    ids.Side    `json:"side"`
	View    body.View   `json:"view"`
	X       float64     `json:"x"`
	Y       float64     `json:"y"`
}

// signPlaces hang on a landmark, with a shift in view units: dx away from the
// midline, dy down. They lie far enough apart for a fingertip.
var signPlaces = []struct {
	sign    ids.Sign
	measure ids.Measure
	name    string
	view    body.View
	at      ids.Landmark
	dx, dy  float64
}{
	{"squat-knees-in", "", "Knee falls in", body.Front, "patella", 0, 0},
	{"squat-feet-turn-out", "", "Foot turns out", body.Front, "medial-malleolus", 24, 34},
	{"squat-arms-forward", "", "Arms fall forward", body.Front, "acromion", 0, 40},
	{"squat-forward-lean", "", "Leans far forward", body.Front, "xiphoid", 0, 0},
	{"squat-heels-lift", "", "Heel lifts", body.Back, "calcaneus", 14, 4},
	{"squat-feet-flatten", "", "Foot flattens", body.Back, "calcaneus", -14, -56},
	{"squat-weight-shift", "", "Weight shifts here", body.Back, "greater-trochanter", -6, 0},
	{"squat-back-arches", "", "Low back arches", body.Back, "L4", 0, 0},
	{"", "side-curve", "Curves out to this side", body.Back, "scapula-inferior-angle", 0, 20},
	{"", "lumbar-curve", "Bends mostly at one level", body.Back, "L1", 0, -6},
}

// SignSpots lists the places on the figure, on each side where the sign has one.
func SignSpots() []SignSpot {
	out := []SignSpot{}
	for _, p := range signPlaces {
		for _, l := range body.LandmarksOf(p.view) {
			if l.ID != p.at {
				continue
			}
			at := body.Offset(p.view, l.Point, l.Side, p.dx, p.dy)
			out = append(out, SignSpot{p.sign, p.measure, p.name, l.Side, p.view, at.X, at.Y})
		}
	}
	return out
}
