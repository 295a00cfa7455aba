package ids

import "strings"

func words(s string) []string { return strings.Fields(s) }

var sides = []string{"left", "right", "midline"}

var muscles = words(`
	temporalis masseter sternocleidomastoid-sternal sternocleidomastoid-clavicular scalenus-anterior
	scalenus-medius scalenus-posterior suboccipitals splenius-capitis splenius-cervicis semispinalis-capitis
	cervical-multifidus levator-scapulae upper-trapezius middle-trapezius lower-trapezius rhomboids
	serratus-anterior pectoralis-major pectoralis-minor subclavius supraspinatus infraspinatus teres-minor
	teres-major subscapularis latissimus-dorsi deltoid-anterior deltoid-middle deltoid-posterior biceps-brachii
	brachialis coracobrachialis triceps-brachii anconeus brachioradialis extensor-carpi-radialis
	extensor-digitorum extensor-carpi-ulnaris supinator pronator-teres flexor-carpi-radialis flexor-carpi-ulnaris
	flexor-digitorum adductor-pollicis opponens-pollicis first-dorsal-interosseous thoracic-erector-spinae
	lumbar-erector-spinae lumbar-multifidus serratus-posterior-inferior quadratus-lumborum rectus-abdominis
	external-oblique diaphragm psoas-major iliacus gluteus-maximus gluteus-medius gluteus-minimus
	tensor-fasciae-latae piriformis deep-hip-rotators sartorius rectus-femoris vastus-medialis vastus-lateralis
	vastus-intermedius adductor-longus adductor-magnus pectineus gracilis biceps-femoris semitendinosus
	semimembranosus popliteus gastrocnemius-medial gastrocnemius-lateral soleus tibialis-posterior
	flexor-digitorum-longus flexor-hallucis-longus tibialis-anterior extensor-digitorum-longus fibularis-longus
	fibularis-brevis flexor-digitorum-brevis quadratus-plantae abductor-hallucis abductor-digiti-minimi-foot
	flexor-hallucis-brevis adductor-hallucis internal-oblique extensor-digitorum-brevis digastric
	lateral-pterygoid medial-pterygoid longissimus-capitis longus-colli
	plantar-fascia achilles-tendon sacroiliac-region coccyx-region
`)

var regions = words(`
	vertex forehead temple orbit cheek jaw ear mastoid occiput suboccipital anterior-neck lateral-neck
	posterior-neck neck-angle top-of-shoulder anterior-shoulder lateral-shoulder posterior-shoulder axilla
	anterior-upper-arm lateral-upper-arm posterior-upper-arm medial-upper-arm antecubital olecranon lateral-elbow
	medial-elbow volar-forearm dorsal-forearm radial-forearm ulnar-forearm volar-wrist dorsal-wrist palm
	dorsal-hand thumb index-finger middle-finger ring-finger little-finger upper-chest mid-chest sternum
	lateral-chest costal-margin epigastrium umbilical lower-abdomen groin pubic suprascapular scapula
	medial-scapular-border inferior-scapular-angle upper-thoracic-spine mid-thoracic-spine lower-thoracic-spine
	posterior-lower-ribs flank lumbar-spine iliac-crest sacroiliac sacrum coccyx upper-buttock lower-buttock
	lateral-hip anterior-hip anterior-thigh lateral-thigh medial-thigh posterior-thigh anterior-knee lateral-knee
	medial-knee popliteal shin lateral-leg medial-leg upper-calf lower-calf achilles lateral-ankle medial-ankle
	anterior-ankle heel medial-arch lateral-sole mid-sole metatarsal-heads great-toe lesser-toes dorsal-foot
`)

var movements = words(`
	cervical.flexion cervical.extension cervical.lateral-flexion cervical.rotation thoracic.rotation
	lumbar.flexion lumbar.extension lumbar.lateral-flexion jaw.opening jaw.closing shoulder.flexion
	shoulder.extension shoulder.abduction shoulder.horizontal-adduction shoulder.internal-rotation
	shoulder.external-rotation elbow.flexion elbow.extension forearm.pronation forearm.supination wrist.flexion
	wrist.extension wrist.radial-deviation wrist.ulnar-deviation hip.flexion hip.extension hip.abduction
	hip.adduction hip.internal-rotation hip.external-rotation knee.flexion knee.extension
	ankle.dorsiflexion-knee-straight ankle.dorsiflexion-knee-bent ankle.plantarflexion ankle.inversion
	ankle.eversion great-toe.extension scapula.elevation scapula.depression scapula.protraction
	scapula.retraction scapula.upward-rotation scapula.downward-rotation fingers.flexion fingers.extension
	fingers.abduction thumb.flexion thumb.extension thumb.abduction thumb.adduction thumb.opposition
	great-toe.flexion great-toe.abduction lesser-toes.flexion lesser-toes.extension lesser-toes.abduction
	trunk.rotation shoulder.adduction shoulder.horizontal-abduction fingers.adduction
	breathing.in breathing.out pelvis.anterior-tilt pelvis.posterior-tilt pelvis.hike
`)

var landmarks = words(`
	vertex mastoid external-occipital-protuberance tragus mandible-angle C1 C2 C3 C4 C5 C6 C7 T1 T2 T3 T4 T5 T6
	T7 T8 T9 T10 T11 T12 L1 L2 L3 L4 L5 S1 S2 S3 S4 sternal-notch xiphoid clavicle-medial clavicle-lateral coracoid
	acromion scapula-spine-root scapula-superior-angle scapula-inferior-angle scapula-medial-border
	deltoid-tuberosity lateral-epicondyle medial-epicondyle olecranon radial-styloid ulnar-styloid rib-12-tip
	costal-margin navel pubic-symphysis asis psis iliac-crest greater-trochanter ischial-tuberosity sacrum-base
	coccyx lesser-trochanter adductor-tubercle patella tibial-tuberosity fibular-head medial-malleolus
	lateral-malleolus calcaneus metatarsal-head-1 metatarsal-head-2 metatarsal-head-3 metatarsal-head-4
	metatarsal-head-5 bicipital-groove radial-head thumb-base index-base rib-3 rib-4 rib-5 rib-11-tip
	suboccipital-hollow first-spinous-below-occiput above-sacral-hollow crest-scapula-midpoint
`)

var structures = words(`
	carotid-artery carotid-sinus jugular-vein trachea thyroid subclavian-artery brachial-plexus
	spinal-accessory-nerve dorsal-scapular-nerve greater-occipital-nerve vertebral-artery axillary-vessels
	axillary-plexus axillary-nerve long-thoracic-nerve axillary-lymph-nodes radial-nerve ulnar-nerve
	breast-tissue styloid-process xiphoid-process floating-ribs kidney abdominal-aorta external-iliac-vessels
	lateral-femoral-cutaneous-nerve femoral-vessels-and-nerve sciatic-nerve popliteal-vessels tibial-nerve
	small-saphenous-vein sural-nerve common-fibular-nerve coccyx-tip lymph-nodes
	phrenic-nerve median-nerve brachial-artery musculocutaneous-nerve deep-radial-nerve inferior-vena-cava
	common-iliac-vessels spleen great-saphenous-vein saphenous-nerve posterior-tibial-vessels tarsal-tunnel
	plantar-nerves deep-fibular-nerve superficial-fibular-nerve anterior-tibial-vessels
	superficial-temporal-artery facial-artery facial-nerve suprascapular-nerve
	external-jugular-vein lesser-occipital-nerve great-auricular-nerve parotid-gland thoracodorsal-nerve
	radial-artery ulnar-artery thenar-branch liver bladder femoral-nerve obturator-nerve pudendal-nerve
	superior-gluteal-nerve inferior-gluteal-nerve genitofemoral-nerve
`)

var protocols = words(`
	graded-stages hold-to-release short-repeats pulses slow-ramp brief-holds slack-hold breath-sink
	press-and-move resisted-lengthening contract-relax pin-and-stretch attachment-strokes broad-first
`)

var techniques = words(`
	rocking resting-hands broad-compressions light-compressions gliding-strokes kneading grasp-and-lift skin-rolling
	small-circles cross-fibre-strokes longitudinal-strokes fascia-spread gentle-traction joint-circles scapula-glide
	limb-shaking passive-stretch contract-relax reciprocal-contraction slow-lowering active-movement
	active-movement-under-contact breathing-together hold flush walking-the-legs standing-and-walking
`)

var sequences = words(`
	neck shoulder-girdle stiff-shoulder-painful-stage stiff-shoulder-stiff-stage low-back-side-lying
	hip-flexors-side-lying hip-flexors-face-up buttock-and-outer-hip hamstrings-and-adductors calf-and-sole
	forearm-and-hand jaw-and-temple ten-quiet-minutes
`)

var contacts = words(`
	thumb-pad thumb-over-thumb pisiform-over-thumb thenar-over-thumb fingertips braced-fingers pincer knuckle
	elbow forearm palm own-thigh tool
`)

var positions = words(`
	prone supine side-lying-left side-lying-right seated
`)

var questions = words(`
	saddle-numbness bladder-bowel-change chest-pain-breathless sudden-worst-headache new-weakness-or-speech
	dizziness-with-double-vision pulsing-abdominal-mass calf-warm-swollen recent-clot fever weight-loss
	night-pain cancer-history suspected-fracture acute-muscle-tear open-skin hot-swollen-area cannot-pass-urine
	both-legs-signs hot-joint-fever cold-limb unexplained-chest-pain progressive-weakness clumsy-hands-or-gait
	temple-headache-over-50 swollen-joint walking-calf-pain unexplained-dizziness joint-replacement
	enlarged-nodes node-removal radiotherapy nerve-entrapment carotid-disease unstable-neck sedation-or-opioids
	no-shared-language sore-over-48h bruising recent-surgery recent-injection varicose-veins hernia
	implanted-device anticoagulant osteoporosis pregnancy diabetes-sensory-loss fibromyalgia hypermobility
	recent-whiplash dizziness thoracic-outlet high-blood-pressure first-visit minor clot-breathless
	healing-fracture abdominal-disease lubricant-allergy stiff-shoulder-painful
	active-cancer tense-compartment acute-belly-or-testicular-pain pregnancy-warning-signs
	fever-stiff-neck-headache aneurysm kidney-signs heart-failure recent-heart-attack-or-stroke cannot-bear-weight
	fragility-fracture one-leg-swollen kidney-disease enlarged-spleen lymphoedema hip-replacement
`)

var signs = words(`
	squat-feet-turn-out squat-feet-flatten squat-heels-lift squat-knees-in squat-forward-lean squat-arms-forward
	squat-back-arches squat-weight-shift
`)

var plainTests = words(`
	thomas-type thomas-type-knee thomas-type-out ober-type straight-leg-raise calf-length-knee-straight calf-length-knee-bent pectoral-length
	levator-length lift-off painful-arc coracoid-tender hip-hike foot-lift first-rib-rise
`)

var loads = words(`
	long-sitting overhead-work running jumping lifting one-sided-carrying keyboard fine-hand-work standing
	driving
`)

var postureMeasures = words(`
	shoulder-height pelvis-height pelvic-tilt scapula-distance scapular-upward-rotation craniovertebral-angle
	shoulder-girdle-rotation pelvis-rotation lumbar-curve side-curve acromion-to-table head-tilt
`)

// tests are the named ones and one resisted test for each movement.
func tests() []string {
	out := append([]string{}, plainTests...)
	for _, m := range movements {
		out = append(out, "resisted:"+m)
	}
	return out
}

// measures are those of change over time, with one for each movement.
func measures() []string {
	out := words("nprs ppt-kpa tenderness-grade psfs-mean psfs-item pain-area-cm2")
	for _, m := range movements {
		out = append(out, "rom."+m)
	}
	return append(out, postureMeasures...)
}
