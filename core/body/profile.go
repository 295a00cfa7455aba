package body

import "math"

// The side view, authored once: x forward from the plumb line through ear,
// shoulder, hip joint and ankle, y down, thousandths of the height. Depths
// follow published proportions (head length 113, chest 118, hip 114, foot
// 152); the curves between them are drawn by eye. The arm swings a little
// forward, so that flank and hip stay in sight.

var headProfile = []Point{
	{-5, 0.7},
	{16, 2.4},
	{33, 9.5},
	{44, 22},
	{49, 36},
	{51.2, 47},
	{49.6, 54},
	{52.4, 62},
	{57.4, 71.5},
	{58.6, 76},
	{53.6, 80.5},
	{51.6, 85},
	{53.6, 90},
	{52, 94.6},
	{53, 99},
	{50, 104},
	{51, 111},
	{48.4, 119},
	{41, 124.6},
	{31, 125.4},
	{20, 121},
	{8, 114},
	{-6, 114},
	{-20, 112},
	{-31, 107},
	{-42, 97},
	{-52, 84},
	{-58.6, 67},
	{-60.4, 48},
	{-57, 29},
	{-48, 13.5},
	{-34, 5},
	{-18, 1.6},
}

var earProfile = []Point{
	{-1.5, 66},
	{-4, 58.5},
	{-10.4, 56},
	{-16.4, 59.4},
	{-17.6, 67},
	{-14.4, 75},
	{-9.4, 82.4},
	{-4.4, 85.4},
	{-1.6, 82},
	{-1.2, 74},
}

var neckAndChest = []Point{
	{4, 100},
	{22, 118},
	{26.4, 127},
	{24, 137},
	{22.6, 150},
	{23.6, 166},
	{28.4, 182},
	{33, 192},
	{39, 208},
	{46, 228},
	{52.6, 250},
	{56.4, 268},
	{55, 284},
	{51, 300},
	{48.6, 322},
	{48, 348},
	{49.6, 376},
	{51.6, 402},
	{51.4, 428},
	{48.4, 454},
	{43, 478},
	{39, 496},
	{40.4, 512},
}

var thighToToes = []Point{
	{44.6, 536},
	{47.6, 566},
	{47.8, 598},
	{45.4, 632},
	{41, 664},
	{36, 688},
	{34.6, 704},
	{35.6, 716},
	{32.2, 729},
	{29.4, 744},
	{28, 766},
	{24.6, 800},
	{19.4, 840},
	{13.4, 882},
	{10.2, 912},
	{11, 934},
	{17, 948},
	{32, 959.6},
	{52, 969.6},
	{73, 978},
	{90, 983},
	{103, 985.4},
	{109, 990},
	{108, 996.6},
	{101, 999.6},
	{86, 1000},
	{60, 1000},
	{30, 998.6},
	{8, 999},
	{-16, 1000},
	{-34, 1000},
	{-43, 995},
	{-45, 984},
}

var heelToNeck = []Point{
	{-42, 970},
	{-36.4, 954},
	{-32, 936},
	{-30, 914},
	{-31.6, 890},
	{-37.4, 860},
	{-45.4, 830},
	{-51.6, 800},
	{-52, 774},
	{-47, 752},
	{-41, 735},
	{-38.2, 720},
	{-39, 704},
	{-43.4, 680},
	{-48.6, 650},
	{-53, 616},
	{-55.8, 584},
	{-56, 556},
	{-58.6, 543},
	{-64.6, 530},
	{-71.4, 513},
	{-74.8, 494},
	{-74, 474},
	{-68.6, 455},
	{-60.6, 438},
	{-51.4, 421},
	{-46, 403},
	{-43.6, 384},
	{-45.2, 362},
	{-50, 338},
	{-56, 312},
	{-61.6, 286},
	{-64.6, 262},
	{-64, 240},
	{-60.6, 218},
	{-55, 196},
	{-49, 176},
	{-43.4, 159},
	{-37, 144},
	{-33.4, 130},
	{-32.8, 117},
	{-34.6, 106},
	{-30, 92},
}

func profileBody() []Point {
	var out []Point
	for _, part := range [][]Point{neckAndChest, thighToToes, heelToNeck} {
		out = append(out, part...)
	}
	return out
}

var armProfile = []Point{
	{-6, 175.4},
	{8, 178.6},
	{19.6, 188},
	{26.4, 203},
	{29.6, 222},
	{31.4, 246},
	{34, 270},
	{38.6, 298},
	{43.6, 326},
	{47, 350},
	{49.4, 370},
	{54, 390},
	{61, 412},
	{68.4, 438},
	{75.4, 464},
	{82, 488},
	{87.4, 508},
	{89, 520},
	{78, 527},
	{63, 524},
	{57.6, 510},
	{49.6, 488},
	{40.4, 464},
	{30.6, 438},
	{20.4, 414},
	{11.4, 395},
	{7.6, 380},
	{3.6, 356},
	{-3, 328},
	{-11, 296},
	{-18.6, 264},
	{-25.6, 240},
	{-32, 220},
	{-34, 202},
	{-29, 187},
	{-18, 178},
}

var sideHand = pose{Point{74, 514}, 15 * math.Pi / 180}

var profileLines = []innerLine{
	{"jaw", 0.6, []Point{{-3, 88}, {2, 100}, {9, 109}, {24, 117}, {38, 122}}},
	{"ear-rim", 0.4, []Point{{-4, 63}, {-10, 60.4}, {-13.6, 64}, {-12, 72}, {-7.6, 77}}},
	{"socket", 0.4, []Point{{47, 53}, {41, 54.6}, {37.4, 59}}},
	{"neck-cord", 0.5, []Point{{-11, 92}, {0, 118}, {13, 150}, {24, 178}}},
	{"nape", 0.3, []Point{{-20, 112}, {-22, 132}, {-26, 150}}},
	{"collar-bone", 0.6, []Point{{25, 184}, {14, 181}, {2, 176}}},
	{"shoulder-blade", 0.5, []Point{{-36, 200}, {-45, 226}, {-47, 250}, {-42, 264}}},
	{"chest-fold", 0.45, []Point{{31, 246}, {40, 264}, {53, 273}}},
	{"rib-edge", 0.45, []Point{{44, 306}, {34, 336}, {18, 360}, {-6, 372}}},
	{"back-edge", 0.3, []Point{{-20, 262}, {-24, 310}, {-34, 362}, {-42, 398}}},
	{"crest", 0.55, []Point{{-42, 436}, {-26, 423}, {-4, 417}, {18, 427}, {34, 446}}},
	{"hip-hollow", 0.35, []Point{{-12, 458}, {-16, 474}, {-10, 490}}},
	{"groin", 0.4, []Point{{34, 450}, {36, 476}, {38.6, 498}}},
	{"gluteal-fold", 0.6, []Point{{-60, 541}, {-46, 543}, {-32, 537}}},
	{"thigh-side", 0.35, []Point{{2, 528}, {-2, 590}, {-5, 650}, {-6, 690}}},
	{"kneecap", 0.6, []Point{{26, 697}, {21.6, 710}, {24, 724}, {31, 728}}},
	{"knee-cord", 0.35, []Point{{-26, 676}, {-24, 704}, {-14, 730}}},
	{"knee-fold", 0.4, []Point{{-38, 719}, {-28, 722}}},
	{"calf-edge", 0.4, []Point{{-14, 752}, {-20, 790}, {-20, 830}, {-18, 868}}},
	{"heel-cord", 0.45, []Point{{-23, 896}, {-24, 924}, {-29, 956}}},
	{"ankle-outer", 0.6, []Point{{-11, 944}, {-6.6, 941}, {-1.6, 946}, {-3, 954}, {-8, 957}}},
	{"foot-edge", 0.3, []Point{{-20, 990}, {10, 988}, {44, 988}, {70, 990}}},
	{"toe-gap-1", 0.45, []Point{{92, 984}, {97, 988}, {99, 994}}},
	{"toe-gap-2", 0.35, []Point{{84, 983}, {87, 988.6}, {88, 995}}},
}

var armLines = []innerLine{
	{"deltoid", 0.4, []Point{{29, 236}, {22, 258}, {10, 280}, {0, 262}, {-16, 240}}},
	{"arm-side", 0.3, []Point{{12, 286}, {20, 320}, {28, 352}}},
	{"elbow-point", 0.5, []Point{{9, 374}, {14, 384}, {12, 394}}},
	{"forearm-side", 0.3, []Point{{32, 384}, {46, 420}, {58, 460}}},
	{"wrist-back", 0.4, []Point{{63, 514}, {74, 512}, {86, 507}}},
}

func (f *Figure) drawProfile(v View) {
	f.add(v, "body", Trunk, profileBody(), true)
	f.add(v, "head", Head, headProfile, true)
	f.line(v, profileLines, false)
	f.line(v, []innerLine{{"ear", 0.75, append(append([]Point{}, earProfile...), earProfile[0])}}, false)
	f.layer = 1
	f.add(v, "arm", Arm, armProfile, true)
	f.add(v, "palm", Hand, sideHand.all(palm), true)
	for i, g := range fingers {
		f.add(v, "finger-"+string(rune('1'+i)), Hand,
			capsule(limb{sideHand.at(g.from), sideHand.at(g.to), g.w0, g.w1}), true)
	}
	f.line(v, armLines, false)
}

// The head close-up is the side view's head, larger, on a bust of its own.
var bust = []Point{
	{4, 100},
	{22, 118},
	{26.4, 127},
	{24, 137},
	{22.6, 150},
	{23.6, 166},
	{28.4, 181},
	{33, 191},
	{35, 196},
	{36, 199.2},
	{20, 199.6},
	{0, 199.6},
	{-20, 199.6},
	{-40, 199.6},
	{-55, 199.4},
	{-55, 195},
	{-49, 176},
	{-43.4, 159},
	{-37, 144},
	{-33.4, 130},
	{-32.8, 117},
	{-34.6, 106},
	{-30, 92},
}

var headLines = []innerLine{
	{"jaw", 0.75, []Point{{-3, 88}, {-1, 96}, {4, 104.6}, {12, 111}, {24, 117}, {35, 121.4}, {42, 122}}},
	{"ear-rim", 0.5, []Point{{-3.4, 66}, {-5.4, 61.4}, {-10, 59.4}, {-14, 62}, {-14.4, 68}, {-11.6, 75}, {-8, 79.4}}},
	{"ear-bowl", 0.6, []Point{{-9.6, 64.6}, {-11, 68.6}, {-8.6, 73}, {-5, 76}, {-2.8, 74}}},
	{"tragus", 0.7, []Point{{-1.6, 66.6}, {-3.6, 69.8}, {-1.6, 73}}},
	{"socket", 0.6, []Point{{49, 53}, {44, 53.4}, {39.6, 56}, {37.6, 60.4}}},
	{"lid", 0.45, []Point{{47.4, 60}, {43.6, 61.6}, {40.4, 60.6}}},
	{"cheek-bone", 0.45, []Point{{2, 69.6}, {16, 70}, {28, 71.6}, {36, 76}}},
	{"temple-line", 0.3, []Point{{36, 47}, {26, 30}, {8, 22}, {-14, 26}, {-26, 42}}},
	{"nostril", 0.5, []Point{{52, 79.6}, {49.4, 78}, {49.6, 75}}},
	{"mouth", 0.45, []Point{{51.4, 93}, {47, 93.8}, {44, 95}}},
	{"neck-cord", 0.6, []Point{{-12, 91}, {-4, 108}, {7, 134}, {18, 162}, {26, 182}}},
	{"neck-cord-outer", 0.35, []Point{{-14, 94}, {-8, 122}, {1, 152}, {10, 178}}},
	{"nape", 0.4, []Point{{-28, 106}, {-26, 122}, {-27, 140}, {-33, 158}}},
	{"trapezius-edge", 0.5, []Point{{-22, 118}, {-20, 138}, {-16, 156}, {-8, 172}}},
	{"collar-bone", 0.8, []Point{{27, 184}, {18, 182}, {8, 178}, {-1, 176.4}}},
	{"shoulder", 0.6, []Point{{27, 199}, {20, 187}, {8, 178.6}, {-6, 175.4}, {-18, 178}, {-29, 187}, {-33, 199}}},
	{"larynx", 0.3, []Point{{24, 136}, {20.6, 142}, {21.6, 148}}},
}

func (f *Figure) drawHead(v View) {
	f.add(v, "bust", Trunk, bust, true)
	f.add(v, "head", Head, headProfile, true)
	f.line(v, headLines, false)
	f.line(v, []innerLine{{"ear", 0.9, append(append([]Point{}, earProfile...), earProfile[0])}}, false)
}

// profilePart finds the part by the foremost shape that holds the point.
func profilePart(v View, p Point) Part {
	q := v.place(p, v.side(true))
	part := Trunk
	for _, s := range Draw(v).Shapes {
		if inside(s.poly, q) {
			part = s.Part
		}
	}
	if part != Trunk {
		return part
	}
	switch {
	case p.Y >= 956:
		return Foot
	case p.Y > 521-0.44*p.X:
		return Leg
	}
	return Trunk
}

var headAndNeckSeeds = []seed{
	{"vertex", Head, true, at(-30, 8, -6, 2, 20, 8)},
	{"forehead", Head, true, at(42, 26, 47, 44)},
	{"temple", Head, false, at(28, 42, 24, 58)},
	{"orbit", Head, false, at(48, 57, 42, 62)},
	{"cheek", Head, false, at(26, 74, 44, 82, 54, 76)},
	{"jaw", Head, false, at(48, 98, 46, 114, 28, 118, 8, 106, 6, 96)},
	{"ear", Head, false, at(-8, 61, -8, 80)},
	{"mastoid", Head, false, at(-17, 86, -13, 95)},
	{"occiput", Head, false, at(-46, 32, -54, 56, -48, 78)},
	{"suboccipital", Head, false, at(-44, 92, -28, 101)},
	{"lateral-neck", Head, false, at(-4, 112, -10, 112)},
	{"suboccipital", Trunk, false, at(-36, 101, -24, 107)},
	{"lateral-neck", Trunk, false, at(-8, 116, 2, 160)},
	{"anterior-neck", Trunk, false, at(22, 128, 20, 172)},
	{"posterior-neck", Trunk, false, at(-31, 116, -34, 150)},
	{"neck-angle", Trunk, false, at(-28, 158, -16, 166)},
	{"jaw", Trunk, false, at(18, 116, 20, 118)},
	{"top-of-shoulder", Trunk, false, at(-16, 176, 2, 176)},
	{"upper-chest", Trunk, false, at(24, 193, 40, 212)},
	{"suprascapular", Trunk, false, at(-38, 182, -30, 188)},
	{"upper-thoracic-spine", Trunk, true, at(-48, 166, -58, 206)},
}

var headSeeds = append(headAndNeckSeeds[:len(headAndNeckSeeds):len(headAndNeckSeeds)],
	seed{"anterior-shoulder", Trunk, false, at(12, 194, 20, 198)},
	seed{"lateral-shoulder", Trunk, false, at(-6, 194, -4, 198)},
	seed{"posterior-shoulder", Trunk, false, at(-26, 196, -24, 198)})

var profileSeeds = append(append(headAndNeckSeeds[:len(headAndNeckSeeds):len(headAndNeckSeeds)], []seed{
	{"mid-chest", Trunk, false, at(44, 236, 50, 264)},
	{"lateral-chest", Trunk, false, at(14, 268, 8, 330)},
	{"costal-margin", Trunk, false, at(38, 318, 28, 348)},
	{"epigastrium", Trunk, true, at(47, 316, 47, 350)},
	{"umbilical", Trunk, true, at(48, 388, 50, 416)},
	{"lower-abdomen", Trunk, false, at(38, 440, 42, 470)},
	{"flank", Trunk, false, at(6, 382, 6, 404)},
	{"groin", Trunk, false, at(36, 492, 38, 504)},
	{"iliac-crest", Trunk, false, at(-22, 424, -2, 418, 16, 426)},
	{"anterior-hip", Trunk, false, at(30, 456, 26, 492)},
	{"lateral-hip", Trunk, false, at(0, 456, 2, 512)},
	{"scapula", Trunk, false, at(-40, 212, -40, 246)},
	{"inferior-scapular-angle", Trunk, false, at(-46, 264, -42, 266)},
	{"medial-scapular-border", Trunk, false, at(-54, 214, -55, 246)},
	{"mid-thoracic-spine", Trunk, true, at(-62, 240, -62, 286)},
	{"lower-thoracic-spine", Trunk, true, at(-57, 306, -49, 342)},
	{"posterior-lower-ribs", Trunk, false, at(-36, 306, -30, 350)},
	{"lumbar-spine", Trunk, true, at(-41, 362, -42, 412)},
	{"sacroiliac", Trunk, false, at(-54, 446, -58, 458)},
	{"sacrum", Trunk, true, at(-64, 446, -70, 462)},
	{"upper-buttock", Trunk, false, at(-40, 448, -42, 462)},
	{"lower-buttock", Trunk, false, at(-62, 496, -44, 516)},
	{"anterior-shoulder", Arm, false, at(18, 198, 24, 236)},
	{"lateral-shoulder", Arm, false, at(-4, 200, 2, 240)},
	{"posterior-shoulder", Arm, false, at(-26, 200, -18, 238)},
	{"top-of-shoulder", Arm, false, at(-10, 178, 4, 180)},
	{"anterior-upper-arm", Arm, false, at(31, 280, 42, 350)},
	{"lateral-upper-arm", Arm, false, at(10, 284, 24, 350)},
	{"posterior-upper-arm", Arm, false, at(-12, 282, 4, 350)},
	{"olecranon", Arm, false, at(10, 380, 13, 390)},
	{"lateral-elbow", Arm, false, at(27, 378, 31, 390)},
	{"antecubital", Arm, false, at(46, 376, 50, 388)},
	{"radial-forearm", Arm, false, at(60, 422, 84, 502)},
	{"dorsal-forearm", Arm, false, at(42, 420, 68, 496)},
	{"ulnar-forearm", Arm, false, at(26, 424, 56, 500)},
	{"dorsal-wrist", Arm, false, at(64, 516, 82, 512)},
	{"anterior-thigh", Leg, false, at(38, 530, 42, 580, 32, 676)},
	{"lateral-thigh", Leg, false, at(2, 556, -4, 680)},
	{"posterior-thigh", Leg, false, at(-44, 566, -38, 676)},
	{"lower-buttock", Leg, false, at(-50, 536, -36, 532)},
	{"lateral-hip", Leg, false, at(2, 520, 2, 532)},
	{"anterior-knee", Leg, false, at(26, 700, 28, 732)},
	{"lateral-knee", Leg, false, at(0, 700, -2, 736)},
	{"popliteal", Leg, false, at(-32, 706, -34, 728)},
	{"shin", Leg, false, at(20, 768, 8, 908)},
	{"lateral-leg", Leg, false, at(-6, 766, -8, 900)},
	{"upper-calf", Leg, false, at(-40, 766, -40, 812)},
	{"lower-calf", Leg, false, at(-34, 846, -28, 882)},
	{"achilles", Leg, false, at(-27, 908, -31, 946)},
	{"lateral-ankle", Leg, false, at(-8, 940, -6, 952)},
	{"anterior-ankle", Leg, false, at(10, 930, 16, 950)},
	{"heel", Foot, false, at(-36, 978, -20, 992)},
	{"lateral-ankle", Foot, false, at(-6, 958, -6, 962)},
	{"achilles", Foot, false, at(-38, 957, -36, 959)},
	{"anterior-ankle", Foot, false, at(18, 957, 20, 957)},
	{"dorsal-foot", Foot, false, at(34, 968, 74, 980)},
	{"lateral-sole", Foot, false, at(6, 994, 58, 996)},
	{"lesser-toes", Foot, false, at(92, 990, 106, 992)},
}...), handSeeds(sideHand)...)

// handSeeds lays the back of the hand's seeds on a pose.
func handSeeds(h pose) []seed {
	out := []seed{
		{"dorsal-wrist", Hand, false, at(-8, 4, 8, 4)},
		{"dorsal-hand", Hand, false, at(-4, 24, -4, 50)},
		{"thumb", Hand, false, at(19, 30, 37, 66)},
		{"index-finger", Hand, false, at(18, 70, 21, 104)},
		{"middle-finger", Hand, false, at(5, 72, 6, 112)},
		{"ring-finger", Hand, false, at(-7, 70, -8, 104)},
		{"little-finger", Hand, false, at(-19, 66, -22, 90)},
	}
	for i := range out {
		out[i].line = h.all(out[i].line)
	}
	return out
}
