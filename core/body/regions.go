package body

import (
	"math"

	"mokren/core/ids"
)

// seed is the spine of a region: a cell takes the region whose seed is
// nearest, among the seeds of its part of the figure. Points are on the
// authored half (x outward); middle regions lie on the midline and belong to
// both sides.
type seed struct {
	region ids.Region
	part   Part
	middle bool
	line   []Point
}

// partAt says which part of the figure a half-figure point belongs to, so
// that a hand never takes its name from the hip beside it.
func partAt(v View, p Point) Part {
	switch {
	case v.sole():
		return Foot
	case v.profile(), v.head():
		return profilePart(v, p)
	}
	switch {
	case p.Y < 94 || (p.Y < 133 && v == Front):
		return Head
	case p.Y >= 956:
		return Foot
	case p.Y > 258 && p.X > armLine(p.Y):
		if p.Y >= 524 {
			return Hand
		}
		return Arm
	case p.Y > 186 && p.Y <= 258 && p.X > 104+(p.Y-186)*-0.05:
		return Arm
	case p.Y > 515+8*math.Min(1, p.X/40):
		return Leg
	}
	return Trunk
}

// armLine runs in the gap between arm and trunk.
func armLine(y float64) float64 { return 99 + (y-258)*0.16 }

// regionAt names a point on the figure.
func regionAt(v View, p Point) (ids.Region, ids.Side) {
	half := v.authored(p)
	part := partAt(v, half)
	best, dist := seed{}, math.Inf(1)
	for _, s := range seedsOf(v) {
		if s.part != part {
			continue
		}
		for i := range s.line {
			j := min(i+1, len(s.line)-1)
			if d := ToSegment(half, s.line[i], s.line[j]); d < dist {
				best, dist = s, d
			}
		}
	}
	if best.middle {
		return best.region, ids.Midline
	}
	return best.region, v.side(p.X >= v.middle())
}

func seedsOf(v View) []seed {
	switch v {
	case Front:
		return frontSeeds
	case Back:
		return backSeeds
	case LeftSide, RightSide:
		return profileSeeds
	case HeadLeft, HeadRight:
		return headSeeds
	default:
		return soleSeeds
	}
}

func at(xy ...float64) []Point {
	out := make([]Point, 0, len(xy)/2)
	for i := 0; i+1 < len(xy); i += 2 {
		out = append(out, Point{xy[i], xy[i+1]})
	}
	return out
}

var frontSeeds = []seed{
	{"vertex", Head, true, at(0, 4, 18, 7)},
	{"forehead", Head, true, at(0, 32, 20, 32)},
	{"temple", Head, false, at(38, 38, 39, 54)},
	{"orbit", Head, false, at(11, 56, 25, 56)},
	{"cheek", Head, false, at(12, 80, 28, 84)},
	{"jaw", Head, false, at(0, 118, 16, 119, 30, 108)},
	{"ear", Head, false, at(45, 62, 45, 80)},
	{"anterior-neck", Trunk, false, at(2, 138, 10, 158, 6, 168)},
	{"lateral-neck", Trunk, false, at(27, 134, 27, 154)},
	{"top-of-shoulder", Trunk, false, at(52, 166, 88, 174)},
	{"neck-angle", Trunk, false, at(36, 156, 42, 162)},
	{"upper-chest", Trunk, false, at(24, 196, 60, 200, 76, 206)},
	{"anterior-shoulder", Trunk, false, at(95, 192, 96, 236)},
	{"sternum", Trunk, true, at(0, 196, 0, 286)},
	{"mid-chest", Trunk, false, at(34, 248, 60, 250)},
	{"lateral-chest", Trunk, false, at(87, 276, 82, 326)},
	{"axilla", Trunk, false, at(95, 252, 94, 262)},
	{"costal-margin", Trunk, false, at(26, 318, 44, 336, 60, 356)},
	{"epigastrium", Trunk, true, at(0, 312, 0, 350, 12, 350)},
	{"umbilical", Trunk, true, at(0, 388, 0, 418, 22, 400)},
	{"flank", Trunk, false, at(72, 378, 76, 404)},
	{"lower-abdomen", Trunk, false, at(18, 452, 46, 440)},
	{"pubic", Trunk, true, at(0, 498, 8, 500)},
	{"groin", Trunk, false, at(26, 506, 52, 478)},
	{"iliac-crest", Trunk, false, at(86, 420, 90, 430)},
	{"anterior-hip", Trunk, false, at(74, 464, 76, 484)},
	{"lateral-hip", Trunk, false, at(99, 456, 100, 506)},
	{"anterior-shoulder", Arm, false, at(112, 196, 114, 236)},
	{"lateral-shoulder", Arm, false, at(136, 206, 141, 250)},
	{"top-of-shoulder", Arm, false, at(112, 183, 119, 187)},
	{"anterior-upper-arm", Arm, false, at(130, 272, 143, 350)},
	{"lateral-upper-arm", Arm, false, at(149, 286, 162, 356)},
	{"medial-upper-arm", Arm, false, at(105, 276, 124, 352)},
	{"antecubital", Arm, false, at(142, 386, 154, 386)},
	{"lateral-elbow", Arm, false, at(167, 378, 171, 396)},
	{"medial-elbow", Arm, false, at(129, 378, 130, 392)},
	{"volar-forearm", Arm, false, at(152, 416, 166, 486)},
	{"radial-forearm", Arm, false, at(175, 414, 181, 492)},
	{"ulnar-forearm", Arm, false, at(135, 416, 152, 490)},
	{"volar-wrist", Arm, false, at(160, 516, 184, 514)},
	{"volar-wrist", Hand, false, at(164, 525, 180, 525)},
	{"palm", Hand, false, at(170, 544, 176, 572)},
	{"thumb", Hand, false, at(196, 548, 216, 584)},
	{"index-finger", Hand, false, at(202, 590, 207, 624)},
	{"middle-finger", Hand, false, at(190, 594, 193, 632)},
	{"ring-finger", Hand, false, at(178, 592, 178, 626)},
	{"little-finger", Hand, false, at(166, 588, 161, 612)},
	{"anterior-thigh", Leg, false, at(58, 528, 62, 560, 60, 670)},
	{"lateral-thigh", Leg, false, at(98, 524, 93, 590, 83, 672)},
	{"medial-thigh", Leg, false, at(14, 536, 24, 600, 36, 672)},
	{"anterior-knee", Leg, false, at(56, 700, 58, 734)},
	{"lateral-knee", Leg, false, at(79, 702, 79, 738)},
	{"medial-knee", Leg, false, at(36, 702, 36, 738)},
	{"shin", Leg, false, at(58, 760, 55, 840, 58, 916)},
	{"lateral-leg", Leg, false, at(79, 762, 80, 800, 71, 896)},
	{"medial-leg", Leg, false, at(38, 762, 36, 800, 46, 896)},
	{"anterior-ankle", Leg, false, at(58, 944, 61, 946)},
	{"lateral-ankle", Leg, false, at(71, 944, 72, 952)},
	{"medial-ankle", Leg, false, at(46, 942, 46, 952)},
	{"dorsal-foot", Foot, false, at(58, 964, 66, 976)},
	{"lateral-ankle", Foot, false, at(76, 957, 78, 960)},
	{"medial-ankle", Foot, false, at(44, 957, 45, 960)},
	{"great-toe", Foot, false, at(50, 986, 50, 997)},
	{"lesser-toes", Foot, false, at(64, 994, 86, 990)},
}

var backSeeds = []seed{
	{"vertex", Head, true, at(0, 8, 20, 13)},
	{"occiput", Head, false, at(4, 52, 22, 58)},
	{"suboccipital", Head, false, at(2, 92, 24, 91)},
	{"temple", Head, false, at(41, 42, 41, 54)},
	{"ear", Head, false, at(46, 62, 45, 80)},
	{"mastoid", Head, false, at(38, 84, 36, 92)},
	{"suboccipital", Trunk, false, at(2, 97, 20, 98)},
	{"mastoid", Trunk, false, at(30, 98, 33, 102)},
	{"posterior-neck", Trunk, false, at(8, 118, 8, 150)},
	{"lateral-neck", Trunk, false, at(28, 118, 28, 140)},
	{"neck-angle", Trunk, false, at(32, 156, 44, 162)},
	{"top-of-shoulder", Trunk, false, at(62, 168, 92, 175)},
	{"suprascapular", Trunk, false, at(54, 184, 84, 184)},
	{"upper-thoracic-spine", Trunk, true, at(0, 168, 0, 228)},
	{"mid-thoracic-spine", Trunk, true, at(0, 240, 0, 290)},
	{"lower-thoracic-spine", Trunk, true, at(0, 304, 0, 344)},
	{"medial-scapular-border", Trunk, false, at(30, 194, 29, 230, 32, 246)},
	{"scapula", Trunk, false, at(54, 210, 76, 210, 58, 242)},
	{"inferior-scapular-angle", Trunk, false, at(50, 264, 52, 268)},
	{"posterior-shoulder", Trunk, false, at(98, 190, 98, 232)},
	{"axilla", Trunk, false, at(96, 254, 95, 262)},
	{"lateral-chest", Trunk, false, at(88, 284, 84, 322)},
	{"posterior-lower-ribs", Trunk, false, at(24, 310, 60, 318, 60, 346)},
	{"lumbar-spine", Trunk, true, at(0, 360, 0, 430, 12, 396)},
	{"flank", Trunk, false, at(46, 386, 72, 386)},
	{"iliac-crest", Trunk, false, at(46, 424, 82, 417)},
	{"sacroiliac", Trunk, false, at(24, 448, 22, 466)},
	{"sacrum", Trunk, true, at(0, 450, 0, 476)},
	{"coccyx", Trunk, true, at(0, 494, 0, 504)},
	{"upper-buttock", Trunk, false, at(46, 452, 72, 446)},
	{"lower-buttock", Trunk, false, at(22, 506, 60, 508)},
	{"lateral-hip", Trunk, false, at(98, 462, 99, 506)},
	{"posterior-shoulder", Arm, false, at(112, 196, 114, 236)},
	{"lateral-shoulder", Arm, false, at(136, 206, 141, 250)},
	{"top-of-shoulder", Arm, false, at(112, 183, 119, 187)},
	{"posterior-upper-arm", Arm, false, at(130, 272, 143, 350)},
	{"lateral-upper-arm", Arm, false, at(149, 286, 162, 356)},
	{"medial-upper-arm", Arm, false, at(105, 276, 124, 352)},
	{"olecranon", Arm, false, at(148, 380, 150, 388)},
	{"lateral-elbow", Arm, false, at(167, 376, 171, 396)},
	{"medial-elbow", Arm, false, at(129, 376, 130, 392)},
	{"dorsal-forearm", Arm, false, at(154, 412, 166, 486)},
	{"radial-forearm", Arm, false, at(175, 414, 181, 492)},
	{"ulnar-forearm", Arm, false, at(135, 416, 152, 490)},
	{"dorsal-wrist", Arm, false, at(160, 516, 184, 514)},
	{"dorsal-wrist", Hand, false, at(164, 525, 180, 525)},
	{"dorsal-hand", Hand, false, at(170, 544, 176, 572)},
	{"thumb", Hand, false, at(196, 548, 216, 584)},
	{"index-finger", Hand, false, at(202, 590, 207, 624)},
	{"middle-finger", Hand, false, at(190, 594, 193, 632)},
	{"ring-finger", Hand, false, at(178, 592, 178, 626)},
	{"little-finger", Hand, false, at(166, 588, 161, 612)},
	{"lower-buttock", Leg, false, at(16, 526, 60, 526)},
	{"lateral-hip", Leg, false, at(101, 520, 101, 524)},
	{"posterior-thigh", Leg, false, at(52, 566, 56, 670)},
	{"lateral-thigh", Leg, false, at(96, 556, 93, 590, 83, 672)},
	{"medial-thigh", Leg, false, at(12, 556, 22, 600, 34, 672)},
	{"popliteal", Leg, false, at(56, 706, 57, 730)},
	{"lateral-knee", Leg, false, at(79, 702, 79, 738)},
	{"medial-knee", Leg, false, at(36, 702, 36, 738)},
	{"upper-calf", Leg, false, at(48, 768, 66, 768, 58, 810)},
	{"lower-calf", Leg, false, at(57, 846, 58, 880)},
	{"lateral-leg", Leg, false, at(84, 770, 84, 800, 74, 886)},
	{"medial-leg", Leg, false, at(33, 770, 33, 800, 44, 886)},
	{"achilles", Leg, false, at(59, 914, 60, 944)},
	{"lateral-ankle", Leg, false, at(73, 942, 73, 954)},
	{"medial-ankle", Leg, false, at(45, 940, 45, 954)},
	{"heel", Foot, false, at(54, 978, 68, 978)},
	{"achilles", Foot, false, at(59, 956, 61, 958)},
	{"lateral-ankle", Foot, false, at(76, 958, 77, 962)},
	{"medial-ankle", Foot, false, at(46, 957, 46, 962)},
	{"dorsal-foot", Foot, false, at(84, 984, 86, 990)},
}

var soleSeeds = []seed{
	{"great-toe", Foot, false, at(-106, 50, -106, 130)},
	{"lesser-toes", Foot, false, at(-16, 80, 46, 116, 100, 162, 148, 216)},
	{"metatarsal-heads", Foot, false, at(-112, 310, -20, 292, 50, 316, 134, 392)},
	{"medial-arch", Foot, false, at(-70, 500, -58, 680)},
	{"mid-sole", Foot, false, at(20, 480, 20, 690)},
	{"lateral-sole", Foot, false, at(142, 500, 116, 690)},
	{"heel", Foot, false, at(-30, 850, 60, 850, 12, 900)},
}
