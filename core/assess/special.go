package assess

import (
	"strings"
	"sync"

	"mokren/core/ids"
	"mokren/core/safety"
)

// asked is what a test asks of joints, how the client lies, and where it presses.
type asked struct {
	// way is what is done to the joints: moved, stretched, or worked against a hand.
	way safety.Way
	// movements by blanks, on the side that is tested.
	movements string
	// lies is the position that the test needs; empty where any will do.
	lies ids.Position
	// presses is where the test presses, as the screening names places; empty where it does
	// not.
	presses string
	// bothSides: the other side moves as well.
	bothSides bool
}

// special is a test of its own beside the resisted ones: the muscles that it speaks of,
// how it is done and what is positive.
type special struct {
	id                 ids.Test
	name, muscles, how string
	asked
}

// specials are static data: what is built at start costs every page. In the tests at the
// table's end the other knee is drawn to the chest.
var specials = []special{
	{
		id: "thomas-type", name: "Hip extension at the table's end",
		muscles: "psoas-major iliacus sartorius",
		how: "On the back at the table's end, the other knee to the chest: positive when this thigh " +
			"does not sink to the table.",
		asked: asked{way: safety.Stretched, movements: "hip.extension hip.flexion", lies: "supine", bothSides: true},
	},
	{
		id: "thomas-type-knee", name: "Knee straightens at the table's end",
		muscles: "rectus-femoris",
		how:     "In the same position: positive when the hanging knee straightens as the thigh sinks.",
		asked: asked{
			way: safety.Stretched, movements: "hip.extension knee.flexion hip.flexion", lies: "supine", bothSides: true,
		},
	},
	{
		id: "thomas-type-out", name: "Thigh drifts out at the table's end",
		muscles: "tensor-fasciae-latae",
		how:     "In the same position: positive when the thigh drifts outward as it sinks.",
		asked:   asked{way: safety.Stretched, movements: "hip.extension hip.flexion", lies: "supine", bothSides: true},
	},
	{
		id: "ober-type", name: "Side-lying adduction",
		muscles: "tensor-fasciae-latae gluteus-medius gluteus-minimus",
		how: "On the side, upper hip straight and knee bent, let the leg sink: positive when it stays " +
			"above the table.",
		asked: asked{way: safety.Stretched, movements: "hip.adduction hip.extension"},
	},
	{
		id: "straight-leg-raise", name: "Straight-leg raise",
		muscles: "biceps-femoris semitendinosus semimembranosus",
		how: "On the back, raise the straight leg: positive when it stops below 68° with a pull behind " +
			"the thigh; shooting pain is a nerve sign.",
		asked: asked{way: safety.Stretched, movements: "hip.flexion", lies: "supine"},
	},
	{
		id: "calf-length-knee-straight", name: "Calf length, knee straight",
		muscles: "gastrocnemius-medial gastrocnemius-lateral",
		how:     "Knee straight, foot toward the shin: positive when it stops short of 5°.",
		asked:   asked{way: safety.Stretched, movements: "ankle.dorsiflexion-knee-straight"},
	},
	{
		id: "calf-length-knee-bent", name: "Calf length, knee bent",
		muscles: "soleus",
		how:     "Knee bent, foot toward the shin: positive when it stops short of 15°.",
		asked:   asked{way: safety.Stretched, movements: "ankle.dorsiflexion-knee-bent"},
	},
	{
		id: "pectoral-length", name: "Pectoral length",
		muscles: "pectoralis-major pectoralis-minor",
		how: "On the back, arm up and out: positive when it does not reach the table or lifts the " +
			"chest.",
		asked: asked{way: safety.Stretched, movements: "shoulder.abduction", lies: "supine"},
	},
	{
		id: "levator-length", name: "Trapezius and levator length",
		muscles: "levator-scapulae upper-trapezius",
		how: "Head bent away and turned, shoulder held down: positive when it is short against the " +
			"other side.",
		asked: asked{way: safety.Stretched, movements: "cervical.lateral-flexion cervical.rotation"},
	},
	{
		id: "lift-off", name: "Hand lift-off behind the back",
		muscles: "subscapularis",
		how: "Hand behind the back, lift it off: positive when it hurts. A hand that cannot be lifted " +
			"at all may be a torn tendon: refer.",
		asked: asked{way: safety.Active, movements: "shoulder.internal-rotation"},
	},
	{
		id: "painful-arc", name: "Painful arc",
		muscles: "supraspinatus infraspinatus",
		how:     "Raise the arm sideways: positive when it hurts about half-way and eases above.",
		asked:   asked{way: safety.Active, movements: "shoulder.abduction"},
	},
	{
		id: "coracoid-tender", name: "Coracoid tenderness",
		muscles: "pectoralis-minor coracobrachialis biceps-brachii",
		how:     "Press the coracoid lightly, both sides: positive when this one is clearly more tender.",
		asked:   asked{presses: "anterior-shoulder"},
	},
	{
		id: "hip-hike", name: "Standing hip hike",
		muscles: "quadratus-lumborum",
		how:     "Standing, draw the hip up: positive when it hurts in the flank.",
		asked:   asked{way: safety.Active, movements: "pelvis.hike"},
	},
	{
		id: "foot-lift", name: "Foot lift against the hand",
		muscles: "tibialis-anterior extensor-digitorum-longus",
		how: "Foot lifted against your hand: positive when it hurts. Weak without pain is a nerve " +
			"sign: refer.",
		asked: asked{way: safety.Resisted, movements: "ankle.dorsiflexion-knee-straight"},
	},
	{
		id: "first-rib-rise", name: "First rib on a deep breath",
		muscles: "scalenus-anterior scalenus-medius scalenus-posterior",
		how: "Finger behind the collar-bone, a deep breath: positive when the rib does not rise into " +
			"it.",
		asked: asked{presses: "anterior-neck lateral-neck"},
	},
}

// testMuscles are the muscles of each special test.
var testMuscles = sync.OnceValue(func() map[ids.Test][]ids.Muscle {
	out := map[ids.Test][]ids.Muscle{}
	for _, s := range specials {
		out[s.id] = list(s.muscles)
	}
	return out
})

// findSpecial is a special test by id, or an empty one.
func findSpecial(t ids.Test) special {
	for _, s := range specials {
		if s.id == t {
			return s
		}
	}
	return special{}
}

// TestHow gives a test's instruction.
func TestHow(t ids.Test) string {
	if strings.HasPrefix(string(t), "resisted:") {
		return "From the middle of the range, hold against the hand: positive when it hurts in the muscle."
	}
	return findSpecial(t).how
}

// TestName gives a test in words.
func TestName(t ids.Test) string {
	if m, ok := strings.CutPrefix(string(t), "resisted:"); ok {
		return "Resisted " + strings.ReplaceAll(strings.Replace(m, ".", " ", 1), "-", " ")
	}
	return findSpecial(t).name
}

// TestMovements are the movements that a test asks for; one that only presses asks for none.
func TestMovements(t ids.Test) []ids.Movement { return asksOf(t).motion().Movements }

// asksOf is what a test does to the joints, by which the client's answers may forbid it.
func asksOf(t ids.Test) asked {
	if mv, ok := strings.CutPrefix(string(t), "resisted:"); ok {
		return asked{way: safety.Resisted, movements: mv}
	}
	return findSpecial(t).asked
}

// motion puts it into the words of the safety rules.
func (a asked) motion() safety.Motion {
	return safety.Motion{Way: a.way, Movements: ids.List[ids.Movement](a.movements)}
}
