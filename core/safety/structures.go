package safety

import (
	"math"

	"mokren/core/body"
	"mokren/core/ids"
)

// Structure is something to keep off: what it is, the sign that a finger is
// on it, and what to do then. Courses are drawn from anatomy texts on the
// figure's landmarks; they vary from person to person, so the sign counts
// more than the line.
type Structure struct {
	ID   ids.Structure `json:"id"`
	Name string        `json:"name"`
	Sign string        `json:"sign"`
	Do   string        `json:"do"`
}

// Shape is a structure's geometry in one view: a line (a point when it has
// one place) with a keep-off radius in mm around it.
type Shape struct {
	Structure ids.Structure `json:"structure"`
	Side      ids.Side      `json:"side"`
	View      body.View     `json:"view"`
	RadiusMM  float64       `json:"radius_mm"`
	Line      []body.Point  `json:"line"`
}

// course is authored like the figure: front and back as the half with x
// outward, the side view with x forward.
type course struct {
	view   body.View
	middle bool
	radius float64
	line   []body.Point
}

type entry struct {
	Structure
	courses []course
}

func pts(xy ...float64) []body.Point {
	out := make([]body.Point, 0, len(xy)/2)
	for i := 0; i+1 < len(xy); i += 2 {
		out = append(out, body.Point{X: xy[i], Y: xy[i+1]})
	}
	return out
}

const (
	pulseSign = "A pulse under the finger"
	nerveSign = "Tingling, burning, numbness, electric or shooting pain"
	offVessel = "Move off the vessel before any pressure."
	offNerve  = "Off at once, move 1–2 cm and find the spot again."
)

var keepOff = []entry{
	{
		Structure{
			"carotid-artery", "Carotid artery", pulseSign,
			"No pressure; pinch and lift the muscle away from it instead.",
		},
		[]course{
			{body.Front, false, 12, pts(14, 176, 18, 150, 21, 124)},
			{body.LeftSide, false, 12, pts(16, 178, 17, 150, 13, 122)},
		},
	},
	{
		Structure{"carotid-sinus", "Carotid sinus", "A pulse, faintness", "Never press here: it can slow the heart."},
		[]course{{body.Front, false, 14, pts(20, 130, 20, 124)}, {body.LeftSide, false, 14, pts(14, 130, 13, 124)}},
	},
	{
		Structure{"jugular-vein", "Jugular vein", "A soft, bluish swelling that empties", offVessel},
		[]course{{body.Front, false, 10, pts(17, 178, 24, 128)}, {body.LeftSide, false, 10, pts(14, 176, 6, 124)}},
	},
	{
		Structure{"trachea", "Windpipe", "A hard ringed tube, coughing", "Stay outward of it."},
		[]course{{body.Front, true, 14, pts(0, 146, 0, 184)}, {body.LeftSide, true, 12, pts(20, 146, 24, 184)}},
	},
	{
		Structure{"thyroid", "Thyroid gland", "Soft tissue that moves on swallowing", "No pressure."},
		[]course{{body.Front, false, 12, pts(5, 158, 7, 174)}, {body.LeftSide, false, 10, pts(19, 156, 21, 172)}},
	},
	{
		Structure{"subclavian-artery", "Subclavian artery", pulseSign + " behind the collar-bone", offVessel},
		[]course{
			{body.Front, false, 12, pts(20, 174, 46, 176, 66, 186)},
			{body.LeftSide, false, 12, pts(17, 176, 8, 174, 4, 180)},
		},
	},
	{
		Structure{
			"brachial-plexus", "Brachial plexus", nerveSign + " into the arm",
			"Off at once; ask about the arm before going on.",
		},
		[]course{
			{body.Front, false, 12, pts(25, 148, 44, 172, 70, 190)},
			{body.LeftSide, false, 12, pts(-3, 140, 8, 170)},
		},
	},
	{
		Structure{"spinal-accessory-nerve", "Spinal accessory nerve", nerveSign + ", shrugging weak", offNerve},
		[]course{
			{body.Back, false, 10, pts(30, 114, 32, 140, 50, 172, 42, 200)},
			{body.LeftSide, false, 10, pts(-6, 114, -16, 142, -22, 164)},
		},
	},
	{
		Structure{"dorsal-scapular-nerve", "Dorsal scapular nerve", nerveSign + " along the shoulder blade", offNerve},
		[]course{{body.Back, false, 10, pts(22, 138, 34, 184, 32, 248)}},
	},
	{Structure{
		"greater-occipital-nerve", "Greater occipital nerve", nerveSign + " over the back of the head",
		"Off; broad pressure beside it only.",
	}, []course{
		{body.Back, false, 10, pts(8, 106, 13, 92, 18, 66)},
		{body.LeftSide, false, 10, pts(-34, 106, -46, 90, -53, 66)},
	}},
	{
		Structure{
			"vertebral-artery", "Vertebral artery", "Dizziness, visual change, nausea",
			"Stop. No deep pressure just below the skull, no extension with rotation.",
		},
		[]course{{body.Back, false, 10, pts(12, 100, 20, 98)}, {body.LeftSide, false, 10, pts(-26, 103, -18, 101)}},
	},
	{
		Structure{"axillary-vessels", "Axillary vessels", pulseSign + " in the armpit", offVessel},
		[]course{{body.Front, false, 14, pts(84, 202, 98, 250, 108, 276)}},
	},
	{
		Structure{"axillary-plexus", "Nerves of the armpit", nerveSign + " into the arm", offNerve},
		[]course{{body.Front, false, 14, pts(80, 204, 95, 252, 104, 276)}},
	},
	{
		Structure{"axillary-nerve", "Axillary nerve", nerveSign + " over the outer shoulder", offNerve},
		[]course{{body.Back, false, 10, pts(102, 218, 130, 228)}},
	},
	{
		Structure{"long-thoracic-nerve", "Long thoracic nerve", nerveSign + " down the ribs", offNerve},
		[]course{{body.Front, false, 10, pts(90, 268, 84, 330)}, {body.LeftSide, false, 10, pts(2, 262, 2, 330)}},
	},
	{Structure{
		"axillary-lymph-nodes", "Lymph nodes of the armpit", "Pea-like lumps that slide",
		"Do not press; swollen or hard ones are referred.",
	}, []course{{body.Front, false, 16, pts(93, 244, 94, 258)}}},
	{
		Structure{"radial-nerve", "Radial nerve", nerveSign + " down the back of the arm", offNerve},
		[]course{
			{body.Back, false, 12, pts(122, 252, 142, 300, 158, 352)},
			{body.LeftSide, false, 12, pts(-8, 258, 12, 300, 32, 356)},
		},
	},
	{
		Structure{"ulnar-nerve", "Ulnar nerve", nerveSign + " into the little finger", offNerve},
		[]course{
			{body.Back, false, 8, pts(132, 356, 137, 384, 140, 402)},
			{body.Front, false, 8, pts(124, 350, 131, 384, 140, 430)},
		},
	},
	{
		Structure{"breast-tissue", "Breast tissue", "Soft glandular tissue", "Work beside it, drape, ask."},
		[]course{{body.Front, false, 42, pts(52, 256, 54, 258)}},
	},
	{Structure{
		"styloid-process", "Styloid process", "A sharp bony point behind the jaw",
		"No pressure: it can break.",
	}, []course{{body.LeftSide, false, 7, pts(-4, 90, -2, 98)}}},
	{
		Structure{
			"xiphoid-process", "Xiphoid process", "A bony tip below the breastbone",
			"No pressure: it can break.",
		},
		[]course{{body.Front, true, 14, pts(0, 286, 0, 297)}},
	},
	{
		Structure{
			"floating-ribs", "Floating ribs", "A rib that gives way",
			"Direct pressure along, not onto, the free ends.",
		},
		[]course{{body.Back, false, 10, pts(30, 346, 52, 372)}, {body.LeftSide, false, 10, pts(-42, 346, -26, 372)}},
	},
	{
		Structure{"kidney", "Kidney", "A deep, sickening ache", "No deep or struck pressure below the last ribs."},
		[]course{{body.Back, false, 30, pts(33, 344, 31, 376)}},
	},
	{Structure{
		"abdominal-aorta", "Abdominal aorta", pulseSign + " in the belly",
		"Move outward; a wide pulsing mass is an emergency.",
	}, []course{{body.Front, true, 20, pts(0, 310, 0, 402)}}},
	{Structure{
		"external-iliac-vessels", "External iliac vessels", pulseSign + " on the inner edge of psoas",
		offVessel,
	}, []course{{body.Front, false, 14, pts(14, 434, 30, 462, 44, 488)}}},
	{
		Structure{
			"lateral-femoral-cutaneous-nerve", "Lateral cutaneous nerve of the thigh",
			nerveSign + " on the outer thigh", offNerve,
		},
		[]course{{body.Front, false, 12, pts(65, 452, 71, 474, 76, 516)}},
	},
	{
		Structure{"femoral-vessels-and-nerve", "Femoral vessels and nerve", pulseSign + " in the groin", offVessel},
		[]course{{body.Front, false, 18, pts(44, 488, 42, 516, 38, 556)}},
	},
	{
		Structure{"sciatic-nerve", "Sciatic nerve", nerveSign + " down the leg", offNerve},
		[]course{{body.Back, false, 14, pts(38, 484, 50, 520, 54, 590, 56, 690)}},
	},
	{
		Structure{"popliteal-vessels", "Popliteal vessels", pulseSign + " in the hollow of the knee", offVessel},
		[]course{{body.Back, false, 16, pts(55, 690, 57, 742)}},
	},
	{
		Structure{"tibial-nerve", "Tibial nerve", nerveSign + " into the sole", offNerve},
		[]course{{body.Back, false, 10, pts(57, 692, 57, 760, 54, 840, 49, 942)}},
	},
	{
		Structure{
			"small-saphenous-vein", "Small saphenous vein", "A cord just under the skin",
			"Light and broad between the calf heads.",
		},
		[]course{{body.Back, false, 8, pts(57, 736, 58, 800, 63, 884, 71, 946)}},
	},
	{
		Structure{"sural-nerve", "Sural nerve", nerveSign + " along the outer foot", offNerve},
		[]course{{body.Back, false, 8, pts(59, 780, 65, 880, 73, 944)}},
	},
	{Structure{
		"common-fibular-nerve", "Common fibular nerve", nerveSign + " on the shin and the back of the foot",
		offNerve,
	}, []course{
		{body.Back, false, 12, pts(70, 700, 77, 734, 81, 752)},
		{body.Front, false, 12, pts(80, 738, 78, 758)},
		{body.LeftSide, false, 12, pts(-26, 704, -13, 736, -2, 756)},
	}},
	{
		Structure{"coccyx-tip", "Tip of the coccyx", "A bony tip in the cleft", "Gentle contact with consent only."},
		[]course{{body.Back, true, 10, pts(0, 496, 0, 503)}},
	},
	{
		Structure{
			"lymph-nodes", "Lymph nodes", "Pea-like lumps that slide",
			"Do not press; swollen or hard ones are referred.",
		},
		[]course{{body.Front, false, 14, pts(36, 490, 54, 478)}, {body.LeftSide, false, 8, pts(-3, 122, 4, 150)}},
	},
}

// Structures lists everything to keep off.
func Structures() []Structure {
	out := make([]Structure, len(keepOff))
	for i, e := range keepOff {
		out[i] = e.Structure
	}
	return out
}

// FindStructure gives a structure by id.
func FindStructure(id ids.Structure) (Structure, bool) {
	for _, e := range keepOff {
		if e.ID == id {
			return e.Structure, true
		}
	}
	return Structure{}, false
}

// Shapes gives the geometry of every structure that a view shows.
func Shapes(v body.View) []Shape {
	var out []Shape
	for _, e := range keepOff {
		for _, c := range e.courses {
			if !v.Shows(c.view, c.line[0]) {
				continue
			}
			sides := []ids.Side{ids.Left, ids.Right}
			switch {
			case c.middle:
				sides = []ids.Side{ids.Midline}
			case v.OneSided():
				sides = []ids.Side{v.SideAt(body.Point{})}
			}
			for _, s := range sides {
				sh := Shape{e.ID, s, v, c.radius, make([]body.Point, len(c.line))}
				for i, p := range c.line {
					sh.Line[i] = v.Place(p, s)
				}
				out = append(out, sh)
			}
		}
	}
	return out
}

// Distance in view units from a point to the structure's line.
func (s Shape) Distance(p body.Point) float64 {
	best := math.Inf(1)
	for i := range s.Line {
		best = min(best, body.ToSegment(p, s.Line[i], s.Line[min(i+1, len(s.Line)-1)]))
	}
	return best
}
