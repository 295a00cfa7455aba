package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/ids"
)

func f(v float64) *float64 { return &v }

// pain reads "region region>weaker-region" on a side: 6 of 10, weaker 3.
func pain(side ids.Side, strong, weak string) []Pain {
	var out []Pain
	for _, r := range list(strong) {
		out = append(out, Pain{Region: ids.Region(r), Side: side, Intensity: 6})
	}
	for _, r := range list(weak) {
		out = append(out, Pain{Region: ids.Region(r), Side: side, Intensity: 3})
	}
	return out
}

func rom(m ids.Movement, side ids.Side, active float64, felt string) ROM {
	return ROM{Movement: m, Side: side, Active: f(active), Felt: felt}
}

func positive(tests ...ids.Test) []TestResult {
	var out []TestResult
	for _, t := range tests {
		out = append(out, TestResult{Test: t, Side: ids.Left, Result: "positive"})
	}
	return out
}

// Clients as textbooks describe them, all over the body. The complaint is the
// left side's.
var vignettes = []struct {
	name   string
	muscle ids.Muscle
	f      Findings
}{
	{
		"one-sided ache from the neck up behind the ear to the temple, desk work", "upper-trapezius",
		Findings{
			Pain: pain(ids.Left, "lateral-neck temple mastoid", "jaw"),
			ROM: []ROM{
				rom("cervical.lateral-flexion", ids.Right, 30, "pull"),
				rom("cervical.lateral-flexion", ids.Left, 44, ""),
			}, Loads: []ids.Load{"keyboard"},
		},
	},
	{
		"stiff neck, cannot turn to the sore side, pain at the neck's angle", "levator-scapulae",
		Findings{
			Pain:  pain(ids.Left, "neck-angle", "medial-scapular-border posterior-neck"),
			ROM:   []ROM{rom("cervical.rotation", ids.Left, 50, "pull"), rom("cervical.rotation", ids.Right, 76, "")},
			Tests: positive("levator-length"),
		},
	},
	{
		"headache over the back of the head with trouble nodding", "suboccipitals",
		Findings{
			Pain:    pain(ids.Left, "occiput temple", "orbit"),
			ROM:     []ROM{rom("cervical.flexion", ids.Midline, 36, "pull")},
			Posture: []Posture{{Measure: "craniovertebral-angle", Degrees: f(44)}},
		},
	},
	{
		"headache on the crown", "splenius-capitis",
		Findings{
			Pain: pain(ids.Left, "vertex", "occiput"),
			ROM:  []ROM{rom("cervical.rotation", ids.Right, 60, "pull"), rom("cervical.rotation", ids.Left, 78, "")},
		},
	},
	{
		"pain over the eye and cheek, neck turned with effort", "sternocleidomastoid-sternal",
		Findings{
			Pain: pain(ids.Left, "orbit cheek temple", "vertex forehead"),
			ROM:  []ROM{rom("cervical.rotation", ids.Left, 62, "pull")},
		},
	},
	{
		"ache in the ear and across the forehead", "sternocleidomastoid-clavicular",
		Findings{Pain: pain(ids.Left, "forehead ear", "mastoid")},
	},
	{
		"jaw and cheek ache, mouth opens too little", "masseter",
		Findings{Pain: pain(ids.Left, "jaw cheek", "temple"), ROM: []ROM{rom("jaw.opening", ids.Midline, 28, "pull")}},
	},
	{
		"ache at the temple on chewing", "temporalis",
		Findings{
			Pain: pain(ids.Left, "temple orbit", "forehead"),
			ROM:  []ROM{rom("jaw.opening", ids.Midline, 30, "pull")}, Tests: positive("resisted:jaw.closing"),
		},
	},
	{
		"pain of chest, blade and arm to the thumb, side-bend short", "scalenus-anterior",
		Findings{Pain: pain(ids.Left, "mid-chest medial-scapular-border lateral-upper-arm",
			"radial-forearm thumb index-finger"), ROM: []ROM{
			rom("cervical.lateral-flexion", ids.Right, 28, "pull"),
			rom("cervical.lateral-flexion", ids.Left, 44, ""),
		}},
	},
	{
		"low, central neck pain, nodding short", "cervical-multifidus",
		Findings{
			Pain: pain(ids.Left, "suboccipital posterior-neck", "neck-angle"),
			ROM:  []ROM{rom("cervical.flexion", ids.Midline, 34, "pull")},
		},
	},
	{
		"deep ache in the front of the shoulder, hand behind the back short", "infraspinatus",
		Findings{
			Pain: pain(ids.Left, "anterior-shoulder", "anterior-upper-arm radial-forearm"),
			ROM: []ROM{
				rom("shoulder.internal-rotation", ids.Left, 40, "pull"),
				rom("shoulder.internal-rotation", ids.Right, 68, ""),
			}, Tests: positive("resisted:shoulder.external-rotation"),
		},
	},
	{
		"outer shoulder pain in an arc, overhead work", "supraspinatus",
		Findings{
			Pain:  pain(ids.Left, "lateral-shoulder", "lateral-upper-arm lateral-elbow"),
			Tests: positive("painful-arc", "resisted:shoulder.abduction"), Loads: []ids.Load{"overhead-work"},
		},
	},
	{
		"back of the shoulder, hand cannot be turned outward", "subscapularis",
		Findings{
			Pain: pain(ids.Left, "posterior-shoulder", "posterior-upper-arm dorsal-wrist"),
			ROM: []ROM{
				rom("shoulder.external-rotation", ids.Left, 40, "pull"),
				rom("shoulder.external-rotation", ids.Right, 85, ""),
			}, Tests: positive("lift-off"),
		},
	},
	{
		"a spot behind the shoulder, small and sharp", "teres-minor",
		Findings{
			Pain:  pain(ids.Left, "posterior-shoulder", "posterior-upper-arm"),
			ROM:   []ROM{rom("shoulder.internal-rotation", ids.Left, 44, "pull")},
			Tests: positive("resisted:shoulder.external-rotation"),
		},
	},
	{
		"chest and inner arm, arm out to the side short", "pectoralis-major",
		Findings{
			Pain:  pain(ids.Left, "mid-chest sternum", "medial-upper-arm ulnar-forearm"),
			Tests: positive("pectoral-length", "resisted:shoulder.horizontal-adduction"),
		},
	},
	{
		"front of the shoulder and inner arm, shoulder forward", "pectoralis-minor",
		Findings{
			Pain:  pain(ids.Left, "anterior-shoulder", "upper-chest ulnar-forearm little-finger"),
			Tests: positive("coracoid-tender", "pectoral-length"),
			Posture: []Posture{
				{Measure: "acromion-to-table", Side: ids.Left, CM: f(8)},
				{Measure: "acromion-to-table", Side: ids.Right, CM: f(5.5)},
			},
		},
	},
	{
		"below the shoulder blade and inner arm, reaching up short", "latissimus-dorsi",
		Findings{
			Pain: pain(ids.Left, "inferior-scapular-angle", "posterior-shoulder medial-upper-arm ring-finger"),
			ROM:  []ROM{rom("shoulder.flexion", ids.Left, 140, "pull"), rom("shoulder.flexion", ids.Right, 176, "")},
		},
	},
	{
		"between spine and blade, a burning line along the border", "rhomboids",
		Findings{
			Pain:  pain(ids.Left, "medial-scapular-border", "suprascapular"),
			Tests: positive("resisted:scapula.retraction", "resisted:scapula.downward-rotation"),
		},
	},
	{
		"side of the ribs, hurts on a deep breath", "serratus-anterior",
		Findings{
			Pain:  pain(ids.Left, "lateral-chest", "inferior-scapular-angle medial-upper-arm"),
			Tests: positive("resisted:scapula.protraction"),
		},
	},
	{
		"middle of the outer shoulder", "deltoid-middle",
		Findings{
			Pain:  pain(ids.Left, "lateral-shoulder", "lateral-upper-arm"),
			Tests: positive("resisted:shoulder.abduction"),
		},
	},
	{
		"front of the shoulder and elbow fold, lifting with the palm up", "biceps-brachii",
		Findings{
			Pain:  pain(ids.Left, "anterior-shoulder antecubital", "anterior-upper-arm"),
			Tests: positive("resisted:forearm.supination", "resisted:elbow.flexion"), Loads: []ids.Load{"lifting"},
		},
	},
	{
		"thumb pain from the upper arm", "brachialis",
		Findings{Pain: pain(ids.Left, "thumb", "antecubital"), Tests: positive("resisted:elbow.flexion")},
	},
	{
		"back of the arm down to the elbow", "triceps-brachii",
		Findings{
			Pain:  pain(ids.Left, "posterior-upper-arm posterior-shoulder", "olecranon dorsal-forearm"),
			Tests: positive("resisted:elbow.extension"),
		},
	},
	{
		"outer elbow and back of the hand, gripping", "extensor-carpi-radialis",
		Findings{
			Pain:  pain(ids.Left, "lateral-elbow dorsal-hand", "dorsal-forearm"),
			ROM:   []ROM{rom("wrist.flexion", ids.Left, 60, "pull"), rom("wrist.flexion", ids.Right, 80, "")},
			Tests: positive("resisted:wrist.extension"), Loads: []ids.Load{"keyboard"},
		},
	},
	{
		"middle finger and back of the forearm, typing", "extensor-digitorum",
		Findings{
			Pain:  pain(ids.Left, "middle-finger dorsal-forearm", "dorsal-hand"),
			Tests: positive("resisted:fingers.extension"), Loads: []ids.Load{"keyboard"},
		},
	},
	{
		"palm side of wrist and forearm, turning the key", "pronator-teres",
		Findings{
			Pain:  pain(ids.Left, "volar-forearm volar-wrist", "radial-forearm"),
			ROM:   []ROM{rom("forearm.supination", ids.Left, 60, "pull"), rom("forearm.supination", ids.Right, 80, "")},
			Tests: positive("resisted:forearm.pronation"),
		},
	},
	{
		"ball of the thumb and wrist, fine work", "opponens-pollicis",
		Findings{
			Pain: pain(ids.Left, "thumb volar-wrist", "palm"), Tests: positive("resisted:thumb.opposition"),
			Loads: []ids.Load{"fine-hand-work"},
		},
	},
	{
		"low back beside the spine, bending forward short", "lumbar-erector-spinae",
		Findings{
			Pain: pain(ids.Left, "lower-buttock sacroiliac", "iliac-crest"),
			ROM:  []ROM{rom("lumbar.flexion", ids.Midline, 38, "pull")}, Loads: []ids.Load{"lifting"},
		},
	},
	{
		"outer hip and crest, hiking the hip hurts", "quadratus-lumborum",
		Findings{
			Pain: pain(ids.Left, "iliac-crest lateral-hip", "lower-abdomen groin"),
			ROM: []ROM{
				rom("lumbar.lateral-flexion", ids.Right, 14, "pull"),
				rom("lumbar.lateral-flexion", ids.Left, 24, ""),
			}, Tests: positive("hip-hike"),
		},
	},
	{
		"up and down the low back, standing straight hurts", "psoas-major",
		Findings{
			Pain:  pain(ids.Left, "lumbar-spine sacroiliac", "anterior-thigh"),
			ROM:   []ROM{rom("hip.extension", ids.Left, 8, "pull"), rom("hip.extension", ids.Right, 20, "")},
			Tests: positive("thomas-type"), Loads: []ids.Load{"long-sitting"},
		},
	},
	{
		"front of hip and thigh after sitting", "iliacus",
		Findings{
			Pain: pain(ids.Left, "anterior-hip anterior-thigh", "groin"),
			ROM:  []ROM{rom("hip.extension", ids.Left, 8, "pull")}, Tests: positive("thomas-type"),
		},
	},
	{
		"deep in the buttock and behind the hip, sitting", "piriformis",
		Findings{
			Pain: pain(ids.Left, "lower-buttock sacroiliac", "posterior-thigh lateral-hip"),
			ROM: []ROM{
				rom("hip.internal-rotation", ids.Left, 26, "pull"),
				rom("hip.internal-rotation", ids.Right, 42, ""),
			}, Tests: positive("resisted:hip.external-rotation"),
			Loads: []ids.Load{"long-sitting"},
		},
	},
	{
		"outer thigh down to the ankle, lying on it", "gluteus-minimus",
		Findings{
			Pain:  pain(ids.Left, "lower-buttock lateral-thigh", "lateral-knee lateral-leg lateral-ankle"),
			Tests: positive("ober-type", "resisted:hip.abduction"),
		},
	},
	{
		"crest, sacrum and low back, standing on one leg", "gluteus-medius",
		Findings{
			Pain:  pain(ids.Left, "iliac-crest sacroiliac sacrum", "lower-buttock"),
			Tests: positive("resisted:hip.abduction", "ober-type"),
		},
	},
	{
		"outer hip and thigh of a runner", "tensor-fasciae-latae",
		Findings{
			Pain:  pain(ids.Left, "lateral-hip lateral-thigh", "lateral-knee"),
			Tests: positive("ober-type", "thomas-type"), Loads: []ids.Load{"running"},
		},
	},
	{
		"front of the knee going downstairs", "rectus-femoris",
		Findings{
			Pain:  pain(ids.Left, "anterior-knee", "anterior-thigh"),
			ROM:   []ROM{rom("knee.flexion", ids.Left, 108, "pull"), rom("knee.flexion", ids.Right, 134, "")},
			Tests: positive("thomas-type", "resisted:knee.extension"),
		},
	},
	{
		"inner knee that gives way", "vastus-medialis",
		Findings{
			Pain: pain(ids.Left, "anterior-knee medial-knee", "medial-thigh"),
			ROM:  []ROM{rom("knee.flexion", ids.Left, 112, "pull")}, Tests: positive("resisted:knee.extension"),
		},
	},
	{
		"groin and inner thigh, legs apart short", "adductor-longus",
		Findings{
			Pain:  pain(ids.Left, "groin medial-thigh", "medial-knee"),
			ROM:   []ROM{rom("hip.abduction", ids.Left, 28, "pull"), rom("hip.abduction", ids.Right, 44, "")},
			Tests: positive("resisted:hip.adduction"),
		},
	},
	{
		"hollow of the knee and back of the thigh, sprinting", "biceps-femoris",
		Findings{
			Pain:  pain(ids.Left, "popliteal", "posterior-thigh lateral-leg"),
			Tests: positive("straight-leg-raise", "resisted:knee.flexion"),
		},
	},
	{
		"sitting bone and back of the thigh on the chair's edge", "semitendinosus",
		Findings{
			Pain:  pain(ids.Left, "lower-buttock posterior-thigh", "popliteal medial-leg"),
			Tests: positive("straight-leg-raise", "resisted:knee.flexion"),
		},
	},
	{
		"arch of the foot and calf cramps, knee straight only", "gastrocnemius-medial",
		Findings{
			Pain: pain(ids.Left, "medial-arch", "upper-calf"),
			ROM: []ROM{
				rom("ankle.dorsiflexion-knee-straight", ids.Left, 2, "pull"),
				rom("ankle.dorsiflexion-knee-bent", ids.Left, 20, ""),
			}, Tests: positive("calf-length-knee-straight"),
		},
	},
	{
		"heel pain on the first steps, knee bent short", "soleus",
		Findings{
			Pain: pain(ids.Left, "heel achilles", "lower-calf"),
			ROM: []ROM{
				rom("ankle.dorsiflexion-knee-bent", ids.Left, 9, "pull"),
				rom("ankle.dorsiflexion-knee-straight", ids.Left, 3, ""),
			}, Loads: []ids.Load{"running"},
		},
	},
	{
		"front of the ankle and great toe, walking uphill",
		"tibialis-anterior",
		Findings{
			Pain: pain(ids.Left, "great-toe anterior-ankle", "shin"),
			ROM: []ROM{
				rom("ankle.plantarflexion", ids.Left, 34, "pull"),
				rom("ankle.plantarflexion", ids.Right, 50, ""),
			},
			Tests: positive("foot-lift"),
		},
	},
	{
		"outer ankle that feels weak", "fibularis-longus",
		Findings{
			Pain:  pain(ids.Left, "lateral-ankle", "lateral-leg"),
			ROM:   []ROM{rom("ankle.inversion", ids.Left, 24, "pull"), rom("ankle.inversion", ids.Right, 36, "")},
			Tests: positive("resisted:ankle.eversion"),
		},
	},
	{
		"ball of the foot, toes", "flexor-digitorum-brevis",
		Findings{
			Pain:  pain(ids.Left, "metatarsal-heads", "lesser-toes"),
			Tests: positive("resisted:lesser-toes.flexion"), Loads: []ids.Load{"standing"},
		},
	},
	{
		"great toe from underneath",
		"flexor-hallucis-longus",
		Findings{
			Pain: pain(ids.Left, "great-toe", "metatarsal-heads"),
			ROM: []ROM{
				rom("great-toe.extension", ids.Left, 45, "pull"),
				rom("great-toe.extension", ids.Right, 70, ""),
			},
			Tests: positive("resisted:great-toe.flexion"),
		},
	},
}

func rankOf(s []Suspect, m ids.Muscle, side ids.Side) int {
	for i, x := range s {
		if x.Muscle == m && x.Side == side {
			return i
		}
	}
	return len(s)
}

// The expected muscle is within the first three in nine of ten, and the side
// that hurts is always the side that is named.
func TestVignettes(t *testing.T) {
	require.GreaterOrEqual(t, len(vignettes), 40)
	hit := 0
	for _, v := range vignettes {
		r := Rank(v.f, nil)
		place := rankOf(r.Suspects, v.muscle, ids.Left)
		if place < 3 {
			hit++
		} else {
			t.Logf("%s: %s is %d; first %s, %s, %s", v.name, v.muscle, place+1, r.Suspects[0].Muscle,
				r.Suspects[1].Muscle, r.Suspects[2].Muscle)
		}
		assert.Equal(t, ids.Left, r.Suspects[0].Side, "%s", v.name)
		right := rankOf(r.Suspects, v.muscle, ids.Right)
		assert.Less(t, place, right, "%s: the wrong side first", v.name)
		// The same on the other side gives the mirror image.
		m := Rank(mirror(v.f), nil)
		assert.Equal(t, r.Suspects[0].Muscle, m.Suspects[0].Muscle, "%s", v.name)
		assert.Equal(t, ids.Right, m.Suspects[0].Side, "%s", v.name)
		assert.InDelta(t, r.Suspects[0].Confidence, m.Suspects[0].Confidence, 1e-9)
	}
	t.Logf("%d of %d within the first three", hit, len(vignettes))
	assert.GreaterOrEqual(t, float64(hit), 0.9*float64(len(vignettes)))
}

func mirror(f Findings) Findings {
	out := f
	out.Pain, out.ROM, out.Tests, out.Posture = nil, nil, nil, nil
	for _, x := range f.Pain {
		x.Side = x.Side.Other()
		out.Pain = append(out.Pain, x)
	}
	for _, x := range f.ROM {
		x.Side = x.Side.Other()
		out.ROM = append(out.ROM, x)
	}
	for _, x := range f.Tests {
		x.Side = x.Side.Other()
		out.Tests = append(out.Tests, x)
	}
	for _, x := range f.Posture {
		x.Side, x.HighSide = x.Side.Other(), x.HighSide.Other()
		out.Posture = append(out.Posture, x)
	}
	return out
}
