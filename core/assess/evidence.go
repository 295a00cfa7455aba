package assess

import (
	"strings"

	"mokren/core/atlas"
	"mokren/core/ids"
)

// Ratio is what a finding weighs: the likelihood ratio when it is present and
// when it was looked for and is absent.
type Ratio struct {
	Plus  float64 `json:"plus" minimum:"1" maximum:"50"`
	Minus float64 `json:"minus" minimum:"0.05" maximum:"1"`
}

// Evidence is a kind of finding with its weight and where that comes from.
type Evidence struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	Ratio  Ratio  `json:"ratio"`
	Source string `json:"source"`
}

const expert = "expert working value"

// The weights. None is from a trial of this very question; they are set so
// that one kind of finding alone never reaches the line of 0.80.
var evidence = []Evidence{
	{"referral", "Pain drawing matches the usual pattern", Ratio{14, 0.45}, expert},
	{"restricted", "A movement that lengthens the muscle is short", Ratio{3, 0.6}, expert},
	{"restricted-pull", "… and is felt as a pull on the lengthened side", Ratio{4.5, 0.6}, expert},
	{"restricted-pinch", "… but is felt as a pinch on the shortened side: rather the joint", Ratio{1.2, 0.6}, expert},
	{"painful-movement", "A movement that lengthens the muscle hurts, in full range", Ratio{1.6, 1}, expert},
	{"weak-active", "Active range is much less than passive in the muscle's own action", Ratio{1.8, 1}, expert},
	{"contraction", "Resisted action painful", Ratio{2.8, 0.55}, expert},
	{"length-test", "Length or special test positive", Ratio{3.8, 0.5}, expert},
	{"posture", "Posture flag", Ratio{1.6, 1}, expert},
	{"squat", "Sign in the squat", Ratio{1.6, 1}, expert},
	{"breathing", "Breathing high in the chest", Ratio{1.4, 1}, expert},
	{"load", "Declared load", Ratio{1.25, 1}, expert},
	{"earlier-point", "A point here before, the more the later", Ratio{5, 1}, expert},
}

// Defaults lists the weights as shipped.
func Defaults() []Evidence { return append([]Evidence{}, evidence...) }

// Weights are a practice's own ratios by evidence id, over the defaults.
type Weights map[string]Ratio

func (w Weights) of(id string) Ratio {
	if r, ok := w[id]; ok {
		return r
	}
	for _, e := range evidence {
		if e.ID == id {
			return e.Ratio
		}
	}
	return Ratio{1, 1}
}

func list(s string) []ids.Muscle {
	var out []ids.Muscle
	for w := range strings.FieldsSeq(s) {
		out = append(out, ids.Muscle(w))
	}
	return out
}

// testMuscles names the muscles of each special test.
var testMuscles = map[ids.Test][]ids.Muscle{
	"thomas-type":               list("psoas-major iliacus sartorius"),
	"thomas-type-knee":          list("rectus-femoris"),
	"thomas-type-out":           list("tensor-fasciae-latae"),
	"ober-type":                 list("tensor-fasciae-latae gluteus-medius gluteus-minimus"),
	"straight-leg-raise":        list("biceps-femoris semitendinosus semimembranosus"),
	"calf-length-knee-straight": list("gastrocnemius-medial gastrocnemius-lateral"),
	"calf-length-knee-bent":     list("soleus"),
	"pectoral-length":           list("pectoralis-major pectoralis-minor"),
	"levator-length":            list("levator-scapulae upper-trapezius"),
	"lift-off":                  list("subscapularis"),
	"painful-arc":               list("supraspinatus infraspinatus"),
	"coracoid-tender":           list("pectoralis-minor coracobrachialis biceps-brachii"),
	"hip-hike":                  list("quadratus-lumborum"),
	"foot-lift":                 list("tibialis-anterior extensor-digitorum-longus"),
	"first-rib-rise":            list("scalenus-anterior scalenus-medius scalenus-posterior"),
}

// testNames are the tests in words; resisted ones are named by movement.
var testNames = map[ids.Test]string{
	"thomas-type": "Hip extension at the table's end", "ober-type": "Side-lying adduction",
	"thomas-type-knee": "Knee straightens at the table's end", "thomas-type-out": "Thigh drifts out at the table's end",
	"straight-leg-raise":        "Straight-leg raise",
	"calf-length-knee-straight": "Calf length, knee straight", "calf-length-knee-bent": "Calf length, knee bent",
	"pectoral-length": "Pectoral length",
	"levator-length":  "Trapezius and levator length", "lift-off": "Hand lift-off behind the back",
	"painful-arc": "Painful arc", "coracoid-tender": "Coracoid tenderness",
	"hip-hike": "Standing hip hike", "foot-lift": "Foot lift against the hand",
	"first-rib-rise": "First rib on a deep breath",
}

// testHow tells how each special test is done and what is positive.
var testHow = map[ids.Test]string{
	"thomas-type": "On the back at the table's end, the other knee to the chest: positive when this " +
		"thigh does not sink to the table.",
	"thomas-type-knee": "In the same position: positive when the hanging knee straightens as the thigh sinks.",
	"thomas-type-out":  "In the same position: positive when the thigh drifts outward as it sinks.",
	"ober-type": "On the side, upper hip straight and knee bent, let the leg sink: positive when " +
		"it stays above the table.",
	"straight-leg-raise": "On the back, raise the straight leg: positive when it stops below 68° with a " +
		"pull behind the thigh; shooting pain is a nerve sign.",
	"calf-length-knee-straight": "Knee straight, foot toward the shin: positive when it stops short of 5°.",
	"calf-length-knee-bent":     "Knee bent, foot toward the shin: positive when it stops short of 15°.",
	"pectoral-length": "On the back, arm up and out: positive when it does not reach the table or lifts " +
		"the chest.",
	"levator-length": "Head bent away and turned, shoulder held down: positive when it is short " +
		"against the other side.",
	"lift-off": "Hand behind the back, lift it off: positive when it hurts. A hand that cannot be lifted at all " +
		"may be a torn tendon: refer.",
	"painful-arc": "Raise the arm sideways: positive when it hurts about half-way and eases above.",
	"coracoid-tender": "Press the coracoid lightly, both sides: positive when this one is clearly more " +
		"tender.",
	"hip-hike":  "Standing, draw the hip up: positive when it hurts in the flank.",
	"foot-lift": "Foot lifted against your hand: positive when it hurts. Weak without pain is a nerve sign: refer.",
	"first-rib-rise": "Finger behind the collar-bone, a deep breath: positive when the rib does not " +
		"rise into it.",
}

// TestHow gives a test's instruction.
func TestHow(t ids.Test) string {
	if strings.HasPrefix(string(t), "resisted:") {
		return "From the middle of the range, hold against the hand: positive when it hurts in the muscle."
	}
	return testHow[t]
}

// TestName gives a test in words.
func TestName(t ids.Test) string {
	if m, ok := strings.CutPrefix(string(t), "resisted:"); ok {
		return "Resisted " + strings.ReplaceAll(strings.Replace(m, ".", " ", 1), "-", " ")
	}
	return testNames[t]
}

var squatMuscles = map[ids.Sign][]ids.Muscle{
	"squat-feet-turn-out": list("soleus gastrocnemius-lateral biceps-femoris piriformis"),
	"squat-feet-flatten":  list("fibularis-longus gastrocnemius-lateral tensor-fasciae-latae tibialis-posterior"),
	"squat-heels-lift":    list("soleus gastrocnemius-medial gastrocnemius-lateral"),
	"squat-knees-in": list("adductor-longus adductor-magnus tensor-fasciae-latae gluteus-minimus " +
		"vastus-lateralis"),
	"squat-forward-lean": list("soleus gastrocnemius-medial psoas-major rectus-femoris"),
	"squat-arms-forward": list("latissimus-dorsi pectoralis-major pectoralis-minor teres-major"),
	"squat-back-arches":  list("psoas-major iliacus lumbar-erector-spinae latissimus-dorsi"),
	"squat-weight-shift": list("quadratus-lumborum gluteus-medius piriformis"),
}

var apicalMuscles = list("scalenus-anterior scalenus-medius sternocleidomastoid-clavicular pectoralis-minor " +
	"upper-trapezius")

var loadMuscles = map[ids.Load][]ids.Muscle{
	"long-sitting": list("psoas-major iliacus piriformis quadratus-lumborum lumbar-erector-spinae " +
		"gluteus-maximus"),
	"overhead-work": list("upper-trapezius supraspinatus deltoid-middle subscapularis levator-scapulae"),
	"running": list("soleus gastrocnemius-medial gastrocnemius-lateral tibialis-posterior " +
		"tensor-fasciae-latae biceps-femoris"),
	"jumping":            list("rectus-femoris vastus-lateralis vastus-medialis soleus"),
	"lifting":            list("lumbar-erector-spinae quadratus-lumborum biceps-brachii gluteus-maximus"),
	"one-sided-carrying": list("upper-trapezius levator-scapulae quadratus-lumborum scalenus-medius"),
	"keyboard": list("extensor-digitorum extensor-carpi-radialis pronator-teres upper-trapezius " +
		"scalenus-medius"),
	"fine-hand-work": list("adductor-pollicis opponens-pollicis first-dorsal-interosseous flexor-digitorum"),
	"standing":       list("soleus lumbar-erector-spinae flexor-digitorum-brevis quadratus-plantae"),
	"driving":        list("levator-scapulae upper-trapezius tibialis-anterior gluteus-medius"),
}

// postureHit is a muscle that a flagged reading speaks of, on a side.
type postureHit struct {
	muscles []ids.Muscle
	side    ids.Side // midline is both
}

// postureMuscles names the muscles of a flagged reading; a practice's own usual
// tilt says which way the pelvis is tipped.
func postureMuscles(p Posture, own Thresholds) []postureHit {
	deg := func(f func(float64) bool) bool { return p.Degrees != nil && f(*p.Degrees) }
	switch p.Measure {
	case "shoulder-height":
		return []postureHit{{list("upper-trapezius levator-scapulae"), p.HighSide}}
	case "pelvis-height":
		return []postureHit{{list("quadratus-lumborum"), p.HighSide}}
	case "pelvic-tilt":
		side := p.Side
		if side == "" {
			side = ids.Midline
		}
		if deg(func(d float64) bool { return d > own.Of("pelvic-tilt-usual") }) {
			return []postureHit{
				{list("psoas-major iliacus rectus-femoris tensor-fasciae-latae lumbar-erector-spinae"), side},
			}
		}
		return []postureHit{{
			list("biceps-femoris semitendinosus semimembranosus rectus-abdominis gluteus-maximus"),
			side,
		}}
	case "scapula-distance":
		return []postureHit{{list("serratus-anterior pectoralis-minor pectoralis-major"), p.HighSide}}
	case "scapular-upward-rotation":
		// They turn the blade down: they are sought where it turns up less.
		return []postureHit{{list("levator-scapulae rhomboids"), p.HighSide.Other()}}
	case "craniovertebral-angle":
		return []postureHit{{list("suboccipitals sternocleidomastoid-sternal sternocleidomastoid-clavicular " +
			"pectoralis-minor semispinalis-capitis"), ids.Midline}}
	case "shoulder-girdle-rotation":
		return []postureHit{{list("pectoralis-major pectoralis-minor serratus-anterior"), p.HighSide}}
	case "acromion-to-table":
		return []postureHit{{list("pectoralis-minor"), p.HighSide}}
	case "pelvis-rotation":
		return []postureHit{{list("piriformis adductor-longus psoas-major"), p.HighSide}}
	case "side-curve":
		// Short on the hollow side of the curve.
		return []postureHit{{list("quadratus-lumborum lumbar-erector-spinae"), p.HighSide.Other()}}
	case "lumbar-curve":
		if p.Kind == "deep" || p.Kind == "hinge" {
			return []postureHit{{list("psoas-major lumbar-erector-spinae lumbar-multifidus"), ids.Midline}}
		}
	}
	return nil
}

// ownSide is the side of the muscle that a motion of a reading speaks of. For
// side-bends and turns of the spine the reading's side is the direction.
func ownSide(m atlas.Motion, reading ids.Side) ids.Side {
	if m.Toward == "other" {
		return reading.Other()
	}
	return reading
}
