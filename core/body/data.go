package body

import (
	_ "embed"
	"sync"

	"mokren/core/ids"
)

// Each file is embedded by itself: a folder would bring a file system, and with it the
// clock, into the browser's core.
var (
	//go:embed data/regions.json
	regionsJSON []byte
	//go:embed data/side-view.json
	sidesJSON []byte
	//go:embed data/front-and-back.json
	frontBackJSON []byte
	//go:embed data/hand.json
	handsJSON []byte
	//go:embed data/soles.json
	solesJSON []byte
	//go:embed data/bones.json
	bonesJSON []byte
	//go:embed data/landmarks.json
	landmarksJSON []byte
)

// placed is a point as the data files write it: x, y.
type placed [2]float64

func (p placed) point() Point { return Point{p[0], p[1]} }

type course []placed

// points are the places of a line as the files write them.
func (o course) points() []Point {
	out := make([]Point, len(o))
	for i, p := range o {
		out[i] = p.point()
	}
	return out
}

// seedData is a seed as data/regions.json has it.
type seedData struct {
	Region ids.Region `json:"region"`
	Part   Part       `json:"part" enum:"head,trunk,arm,hand,leg,foot"`
	Middle bool       `json:"middle,omitempty"`
	Line   course     `json:"line" minItems:"1"`
}

// regionData is data/regions.json: seeds by the drawing in which they lie.
// HeadAndNeck is of both the side views and the head close-ups.
type regionData struct {
	Front       []seedData `json:"front"`
	Back        []seedData `json:"back"`
	Soles       []seedData `json:"soles"`
	HeadAndNeck []seedData `json:"head_and_neck"`
	Head        []seedData `json:"head"`
	Sides       []seedData `json:"sides"`
	Hand        []seedData `json:"hand" doc:"the back of a hand, to be laid on a pose"`
}

// frontBackData is data/front-and-back.json: one half of the figure, x outward
// from the midline, y down, thousandths of the height. Heights and breadths
// follow published proportions (Drillis and Contini 1966; Winter 2009), which a
// test checks; the curves between them are drawn by eye.
type frontBackData struct {
	Contours frontBackContours `json:"contours"`
	Front    []lineData        `json:"front_lines"`
	Back     []lineData        `json:"back_lines"`
}

// frontBackContours are the lines of one half, from the head down and back up.
type frontBackContours struct {
	Head          course `json:"head"`
	Ear           course `json:"ear"`
	NeckToWrist   course `json:"neck_to_wrist"`
	WristToArmpit course `json:"wrist_to_armpit"`
	ArmpitToHip   course `json:"armpit_to_hip"`
	HipToAnkle    course `json:"hip_to_ankle"`
	FootFront     course `json:"foot_front" doc:"points toward the viewer"`
	FootBack      course `json:"foot_back" doc:"the heel"`
	AnkleToCrotch course `json:"ankle_to_crotch"`
}

// handData is data/hand.json: the wrist at the origin, fingers down, thumb
// outward, to be laid on a pose.
type handData struct {
	Outline course     `json:"outline"`
	Palm    []lineData `json:"palm_lines"`
	Back    []lineData `json:"back_lines"`
}

// soleData is data/soles.json: x outward (toward the little toe), y from the
// toes to the heel, thousandths of the foot's length.
type soleData struct {
	Outline course     `json:"outline"`
	Toes    []toeData  `json:"toes" minItems:"5" maxItems:"5" doc:"from the great toe to the little one"`
	Lines   []lineData `json:"lines"`
}

// toeData is a toe from its base to its tip.
type toeData struct {
	From  placed     `json:"from"`
	To    placed     `json:"to"`
	Width [2]float64 `json:"width" doc:"at the base, at the tip"`
}

// authored holds what is drawn or placed, by the drawing in which it is authored;
// data/bones.json and data/landmarks.json are such.
type authored[T any] struct {
	Front []T `json:"front"`
	Back  []T `json:"back"`
	Sides []T `json:"sides"`
	Heads []T `json:"heads"`
	Soles []T `json:"soles"`
}

// in gives what is authored in a view: those of one side are the left ones.
func (a authored[T]) in(v View) []T {
	return map[View][]T{
		Front: a.Front, Back: a.Back, LeftSide: a.Sides, HeadLeft: a.Heads, SoleLeft: a.Soles,
	}[v]
}

// markData is a landmark on the authored half of a view; one that is not in
// the middle exists on both sides. Heights follow Drillis and Contini (1966)
// where they give them (acromion 818, trochanter 530, crest 585, knee 285, ankle
// 39 thousandths above the ground); spinous levels are spaced between the
// palpable ones: C7 most prominent, T3 root of the scapular spine, T7 lower
// scapular angle, T12 halfway from there to the crest, L4 crest line, S2
// posterior iliac spines.
type markData struct {
	ID     ids.Landmark `json:"id"`
	At     placed       `json:"at"`
	Middle bool         `json:"middle,omitempty"`
}

// sideData is data/side-view.json. The side view is authored once: x forward
// from the plumb line through ear, shoulder, hip joint and ankle, y down,
// thousandths of the height. Depths follow published proportions (head length
// 113, chest 118, hip 114, foot 152); the curves between them are drawn by eye.
// The arm swings a little forward, so that flank and hip stay in sight.
type sideData struct {
	Contours sideContours `json:"contours"`
	Body     []lineData   `json:"body_lines"`
	Arm      []lineData   `json:"arm_lines"`
	Head     []lineData   `json:"head_lines"`
}

// sideContours are the lines from the side.
type sideContours struct {
	Head         course `json:"head"`
	Ear          course `json:"ear"`
	NeckAndChest course `json:"neck_and_chest"`
	ThighToToes  course `json:"thigh_to_toes"`
	HeelToNeck   course `json:"heel_to_neck"`
	Arm          course `json:"arm"`
	Bust         course `json:"bust"`
}

// lineData is a light line inside the figure, or, with a softness, a shade
// along it.
type lineData struct {
	ID     string  `json:"id"`
	Weight float64 `json:"weight" minimum:"0" maximum:"1"`
	Soft   float64 `json:"soft,omitempty" minimum:"0" maximum:"60" doc:"width of a soft shade, authored units"`
	Line   course  `json:"line" minItems:"2"`
}

// innerLines reads lines and shades of the drawing.
func innerLines(list []lineData) []innerLine {
	out := make([]innerLine, len(list))
	for i, l := range list {
		out[i] = innerLine{l.ID, l.Weight, l.Soft, l.Line.points()}
	}
	return out
}

// The files, each read when it is asked for first.
var (
	regionFile    = sync.OnceValue(regionsData)
	sideFile      = sync.OnceValue(sidesData)
	frontBackFile = sync.OnceValue(frontAndBackData)
	handFile      = sync.OnceValue(handsData)
	soleFile      = sync.OnceValue(solesData)
	boneFile      = sync.OnceValue(bonesData)
	markFile      = sync.OnceValue(landmarksData)
)
