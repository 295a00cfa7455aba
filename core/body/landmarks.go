package body

import (
	"fmt"
	"sync"

	"mokren/core/ids"
)

// mark is a landmark's place on the authored half (x outward) of a view.
// paired landmarks exist on both sides, the others on the midline.
type mark struct {
	id     ids.Landmark
	view   View
	x, y   float64
	paired bool
}

// Heights follow Drillis and Contini (1966) where they give them (acromion
// 818, trochanter 530, crest 585, knee 285, ankle 39 thousandths above the
// ground); spinous levels are spaced between the palpable ones: C7 most
// prominent, T3 root of the scapular spine, T7 lower scapular angle, T12
// halfway from there to the crest, L4 crest line, S2 posterior iliac spines.
var marks = []mark{
	{"vertex", Front, 0, 2, false},
	{"vertex", Back, 0, 2, false},
	{"tragus", Front, 43, 69, true},
	{"mandible-angle", Front, 34, 103, true},
	{"mastoid", Back, 38, 88, true},
	{"external-occipital-protuberance", Back, 0, 84, false},
	{"C1", Back, 0, 98, false},
	{"C2", Back, 0, 106, false},
	{"C3", Back, 0, 115, false},
	{"C4", Back, 0, 124, false},
	{"C5", Back, 0, 133, false},
	{"C6", Back, 0, 143, false},
	{"C7", Back, 0, 153, false},
	{"T1", Back, 0, 167, false},
	{"T2", Back, 0, 186, false},
	{"T3", Back, 0, 205, false},
	{"T4", Back, 0, 220, false},
	{"T5", Back, 0, 234, false},
	{"T6", Back, 0, 249, false},
	{"T7", Back, 0, 263, false},
	{"T8", Back, 0, 278, false},
	{"T9", Back, 0, 293, false},
	{"T10", Back, 0, 308, false},
	{"T11", Back, 0, 324, false},
	{"T12", Back, 0, 339, false},
	{"L1", Back, 0, 357, false},
	{"L2", Back, 0, 376, false},
	{"L3", Back, 0, 396, false},
	{"L4", Back, 0, 415, false},
	{"L5", Back, 0, 434, false},
	{"S2", Back, 0, 455, false},
	{"suboccipital-hollow", Back, 0, 95, false},
	{"first-spinous-below-occiput", Back, 0, 107, false},
	{"above-sacral-hollow", Back, 0, 435, false},
	{"crest-scapula-midpoint", Back, 64, 340, true},
	{"sternal-notch", Front, 0, 186, false},
	{"xiphoid", Front, 0, 290, false},
	{"clavicle-medial", Front, 9, 181, true},
	{"clavicle-lateral", Front, 96, 176, true},
	{"coracoid", Front, 84, 196, true},
	{"acromion", Front, 110, 181, true},
	{"acromion", Back, 110, 181, true},
	{"scapula-spine-root", Back, 39, 205, true},
	{"scapula-superior-angle", Back, 44, 189, true},
	{"scapula-inferior-angle", Back, 50, 263, true},
	{"scapula-medial-border", Back, 37, 232, true},
	{"deltoid-tuberosity", Front, 141, 278, true},
	{"deltoid-tuberosity", Back, 141, 278, true},
	{"lateral-epicondyle", Front, 164, 380, true},
	{"lateral-epicondyle", Back, 164, 380, true},
	{"medial-epicondyle", Front, 131, 381, true},
	{"medial-epicondyle", Back, 131, 381, true},
	{"olecranon", Back, 149, 383, true},
	{"radial-styloid", Front, 185, 518, true},
	{"radial-styloid", Back, 185, 518, true},
	{"ulnar-styloid", Front, 159, 520, true},
	{"ulnar-styloid", Back, 159, 520, true},
	{"rib-12-tip", Back, 52, 372, true},
	{"costal-margin", Front, 62, 350, true},
	{"navel", Front, 0, 401, false},
	{"pubic-symphysis", Front, 0, 500, false},
	{"asis", Front, 74, 446, true},
	{"psis", Back, 25, 455, true},
	{"iliac-crest", Back, 78, 417, true},
	{"iliac-crest", Front, 86, 420, true},
	{"greater-trochanter", Front, 98, 472, true},
	{"greater-trochanter", Back, 97, 472, true},
	{"ischial-tuberosity", Back, 34, 526, true},
	{"sacrum-base", Back, 0, 444, false},
	{"coccyx", Back, 0, 497, false},
	{"lesser-trochanter", Front, 56, 512, true},
	{"adductor-tubercle", Front, 38, 690, true},
	{"patella", Front, 58, 713, true},
	{"tibial-tuberosity", Front, 57, 745, true},
	{"fibular-head", Front, 79, 738, true},
	{"fibular-head", Back, 78, 738, true},
	{"medial-malleolus", Front, 47, 947, true},
	{"medial-malleolus", Back, 47, 946, true},
	{"lateral-malleolus", Front, 71, 952, true},
	{"lateral-malleolus", Back, 72, 952, true},
	{"calcaneus", Back, 61, 976, true},
	{"calcaneus", SoleLeft, 8, 890, true},
	{"metatarsal-head-1", SoleLeft, -112, 316, true},
	{"metatarsal-head-2", SoleLeft, -28, 290, true},
	{"metatarsal-head-3", SoleLeft, 36, 308, true},
	{"metatarsal-head-4", SoleLeft, 92, 344, true},
	{"metatarsal-head-5", SoleLeft, 140, 394, true},

	{"vertex", LeftSide, -4, 3, false},
	{"tragus", LeftSide, -1, 70, true},
	{"mandible-angle", LeftSide, 6, 103, true},
	{"mastoid", LeftSide, -13, 87, true},
	{"external-occipital-protuberance", LeftSide, -50, 83, false},
	{"C1", HeadLeft, -37, 99, false},
	{"C2", LeftSide, -34, 107, false},
	{"C3", HeadLeft, -32, 116, false},
	{"C4", HeadLeft, -31, 125, false},
	{"C5", HeadLeft, -31, 134, false},
	{"C6", HeadLeft, -34, 144, false},
	{"C7", LeftSide, -41, 154, false},
	{"T1", LeftSide, -46, 167, false},
	{"T2", LeftSide, -52, 186, false},
	{"T3", LeftSide, -57, 205, false},
	{"T7", LeftSide, -61, 263, false},
	{"T12", LeftSide, -48, 339, false},
	{"L2", LeftSide, -41, 376, false},
	{"L4", LeftSide, -44, 415, false},
	{"L5", LeftSide, -50, 434, false},
	{"S2", LeftSide, -63, 455, false},
	{"sternal-notch", LeftSide, 29, 187, false},
	{"xiphoid", LeftSide, 51, 290, false},
	{"navel", LeftSide, 49, 401, false},
	{"pubic-symphysis", LeftSide, 36, 500, false},
	{"clavicle-medial", LeftSide, 25, 183, true},
	{"clavicle-lateral", LeftSide, -1, 176, true},
	{"coracoid", LeftSide, 14, 197, true},
	{"acromion", LeftSide, -6, 180, true},
	{"scapula-inferior-angle", LeftSide, -46, 263, true},
	{"deltoid-tuberosity", LeftSide, 10, 278, true},
	{"lateral-epicondyle", LeftSide, 27, 381, true},
	{"olecranon", LeftSide, 11, 386, true},
	{"radial-styloid", LeftSide, 83, 511, true},
	{"ulnar-styloid", LeftSide, 61, 519, true},
	{"rib-12-tip", LeftSide, -26, 372, true},
	{"costal-margin", LeftSide, 30, 352, true},
	{"asis", LeftSide, 35, 446, true},
	{"psis", LeftSide, -56, 455, true},
	{"iliac-crest", LeftSide, -2, 417, true},
	{"greater-trochanter", LeftSide, 1, 472, true},
	{"ischial-tuberosity", LeftSide, -38, 526, true},
	{"coccyx", LeftSide, -63, 497, false},
	{"patella", LeftSide, 30, 713, true},
	{"tibial-tuberosity", LeftSide, 24, 745, true},
	{"fibular-head", LeftSide, -10, 738, true},
	{"lateral-malleolus", LeftSide, -6, 952, true},
	{"calcaneus", LeftSide, -34, 980, true},
	{"metatarsal-head-5", LeftSide, 68, 991, true},
}

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

func placeLandmarks(v View) []Landmark {
	var out []Landmark
	for _, m := range marks {
		if !v.Shows(m.view, Point{m.x, m.y}) {
			continue
		}
		sides := []ids.Side{ids.Midline}
		switch {
		case m.paired && v.OneSided():
			sides = []ids.Side{v.side(true)}
		case m.paired:
			sides = []ids.Side{ids.Left, ids.Right}
		}
		for _, s := range sides {
			out = append(out, Landmark{m.id, s, v.place(Point{m.x, m.y}, s)})
		}
	}
	return out
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
