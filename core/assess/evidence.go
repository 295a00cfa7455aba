package assess

import (
	"strings"
	"sync"

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

// of is the practice's own ratio, else the one that ships. A kind that is not known weighs
// nothing.
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

// list reads muscles from a table, where they stand by blanks.
func list(s string) []ids.Muscle {
	var out []ids.Muscle
	for w := range strings.FieldsSeq(s) {
		out = append(out, ids.Muscle(w))
	}
	return out
}

// spoken is what a finding speaks of: muscles by a blank.
type spoken struct{ of, muscles string }

// musclesOf reads such a table.
func musclesOf(table []spoken) func() map[string][]ids.Muscle {
	return sync.OnceValue(func() map[string][]ids.Muscle {
		out := map[string][]ids.Muscle{}
		for _, s := range table {
			out[s.of] = list(s.muscles)
		}
		return out
	})
}

var squatMuscles, loadMuscles = musclesOf(bySquat), musclesOf(byLoad)

// bySquat are the signs of squat and toe-touch.
var bySquat = []spoken{
	{"squat-feet-turn-out", "soleus gastrocnemius-lateral biceps-femoris piriformis"},
	{"squat-feet-flatten", "fibularis-longus gastrocnemius-lateral tensor-fasciae-latae tibialis-posterior"},
	{"squat-heels-lift", "soleus gastrocnemius-medial gastrocnemius-lateral"},
	{"squat-knees-in", "adductor-longus adductor-magnus tensor-fasciae-latae gluteus-minimus vastus-lateralis"},
	{"squat-forward-lean", "soleus gastrocnemius-medial psoas-major rectus-femoris"},
	{"squat-arms-forward", "latissimus-dorsi pectoralis-major pectoralis-minor teres-major"},
	{"squat-back-arches", "psoas-major iliacus lumbar-erector-spinae latissimus-dorsi"},
	{"squat-weight-shift", "quadratus-lumborum gluteus-medius piriformis"},
}

var apicalMuscles = list("scalenus-anterior scalenus-medius sternocleidomastoid-clavicular pectoralis-minor " +
	"upper-trapezius")

// byLoad are what work and sport load.
var byLoad = []spoken{
	{"long-sitting", "psoas-major iliacus piriformis quadratus-lumborum lumbar-erector-spinae gluteus-maximus"},
	{"overhead-work", "upper-trapezius supraspinatus deltoid-middle subscapularis levator-scapulae"},
	{"running", "soleus gastrocnemius-medial gastrocnemius-lateral tibialis-posterior " +
		"tensor-fasciae-latae biceps-femoris"},
	{"jumping", "rectus-femoris vastus-lateralis vastus-medialis soleus"},
	{"lifting", "lumbar-erector-spinae quadratus-lumborum biceps-brachii gluteus-maximus"},
	{"one-sided-carrying", "upper-trapezius levator-scapulae quadratus-lumborum scalenus-medius"},
	{"keyboard", "extensor-digitorum extensor-carpi-radialis pronator-teres upper-trapezius " +
		"scalenus-medius"},
	{"fine-hand-work", "adductor-pollicis opponens-pollicis first-dorsal-interosseous flexor-digitorum"},
	{"standing", "soleus lumbar-erector-spinae flexor-digitorum-brevis quadratus-plantae"},
	{"driving", "levator-scapulae upper-trapezius tibialis-anterior gluteus-medius"},
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
