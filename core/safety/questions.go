package safety

import (
	"slices"

	"mokren/core/ids"
)

// Outcome of a screening, from the mildest to the worst.
type Outcome string

// The outcomes.
const (
	Clear      Outcome = "clear"
	Adapt      Outcome = "adapt"
	AvoidHere  Outcome = "avoid-here"
	ReferFirst Outcome = "refer-first"
	Emergency  Outcome = "emergency"
)

var severity = map[Outcome]int{Clear: 0, Adapt: 1, AvoidHere: 2, ReferFirst: 3, Emergency: 4}

// Worse reports whether o is worse than p.
func (o Outcome) Worse(p Outcome) bool { return severity[o] > severity[p] }

// Question is one of the screening with the rule for its answer. Wordings are
// our own; what is asked and its outcome follow the contraindications and red
// flags that textbooks of massage and musculoskeletal assessment agree on.
type Question struct {
	ID      ids.Question `json:"id"`
	Ask     string       `json:"ask"`
	Outcome Outcome      `json:"outcome" doc:"of a yes"`
	Text    string       `json:"text" doc:"what a yes means, and what to do"`
	// Where tells what a yes needs: nothing, the side, or the regions.
	Where string `json:"where" enum:"nowhere,side,regions"`
	// Day tells which day a yes may say: when it happened, or when a birth is due.
	Day string `json:"day,omitempty" enum:"happened,due"`
	// EachVisit: asked again at every visit.
	EachVisit bool         `json:"each_visit,omitempty"`
	Regions   []ids.Region `json:"regions,omitempty" doc:"that a yes blocks, on the side answered"`
	Muscles   []ids.Muscle `json:"muscles,omitempty" doc:"that a yes blocks"`
	Limits    Adaptation   `json:"limits"`
}

// Adaptation is what a rule asks of pressure; zero values ask nothing.
type Adaptation struct {
	// Ceiling is the highest number that pressure may aim at (NPRS).
	Ceiling *float64 `json:"ceiling,omitempty"`
	// Down lowers every ceiling by this much.
	Down           float64        `json:"ceilings_down,omitempty"`
	CapSeconds     *float64       `json:"cap_seconds,omitempty"`
	AvoidPositions []ids.Position `json:"avoid_positions,omitempty"`
	// ScoreCannotSteer: only protocols that are not steered by the score.
	ScoreCannotSteer bool `json:"number_cannot_steer,omitempty"`
	// SlackOrBroad: only with the muscle in slack, or with a broad contact.
	SlackOrBroad bool `json:"slack_or_broad,omitempty"`
	// SoftOverBones: no hard contact over ribs and spine.
	SoftOverBones bool `json:"soft_over_bones,omitempty"`
	// AskArm: each asking also asks for the arm.
	AskArm bool `json:"ask_arm,omitempty"`
}

var (
	leg = ids.List[ids.Region]("anterior-thigh lateral-thigh medial-thigh posterior-thigh anterior-knee lateral-knee " +
		"medial-knee popliteal shin lateral-leg medial-leg upper-calf lower-calf achilles lateral-ankle " +
		"medial-ankle anterior-ankle heel medial-arch lateral-sole mid-sole metatarsal-heads great-toe " +
		"lesser-toes dorsal-foot")
	lowerLeg = ids.List[ids.Region]("popliteal shin lateral-leg medial-leg upper-calf lower-calf achilles " +
		"lateral-ankle medial-ankle anterior-ankle")
	abdomen   = ids.List[ids.Region]("costal-margin epigastrium umbilical lower-abdomen groin pubic")
	kidneys   = ids.List[ids.Region]("flank posterior-lower-ribs")
	neck      = ids.List[ids.Region]("suboccipital anterior-neck lateral-neck posterior-neck neck-angle")
	armRegion = ids.List[ids.Region]("axilla anterior-upper-arm lateral-upper-arm posterior-upper-arm " +
		"medial-upper-arm antecubital volar-forearm dorsal-forearm radial-forearm ulnar-forearm palm dorsal-hand")
	scalenes          = ids.List[ids.Muscle]("scalenus-anterior scalenus-medius scalenus-posterior")
	innerThighAndCalf = ids.List[ids.Muscle]("adductor-longus adductor-magnus gracilis pectineus " +
		"gastrocnemius-medial gastrocnemius-lateral soleus tibialis-posterior popliteus")
	deepCalf  = ids.List[ids.Muscle]("flexor-digitorum-longus flexor-hallucis-longus")
	deepBelly = ids.List[ids.Muscle]("psoas-major iliacus diaphragm")
	bellyWall = ids.List[ids.Muscle]("rectus-abdominis external-oblique internal-oblique")
)

func number(v float64) *float64 { return &v }

// emergency is a question whose yes ends the visit: the client needs urgent medical care.
func emergency(id ids.Question, ask, text string) *Question {
	return &Question{
		ID: id, Ask: ask, Outcome: Emergency, Text: text + " No treatment: seek urgent medical care.",
		Where: "nowhere",
	}
}

// refer is a question whose yes waits for a clinician.
func refer(id ids.Question, ask, text, where string) *Question {
	return &Question{
		ID: id, Ask: ask, Outcome: ReferFirst,
		Text: text + " No treatment until a clinician has cleared it.", Where: where,
	}
}

// avoid is a question whose yes closes places: fixed ones, or those that the client shows.
func avoid(id ids.Question, ask, text string, regions ...ids.Region) *Question {
	q := &Question{ID: id, Ask: ask, Outcome: AvoidHere, Text: text, Where: "regions", Regions: regions}
	if len(regions) > 0 {
		q.Where = "nowhere"
	}
	return q
}

// adapt is a question whose yes makes the work gentler.
func adapt(id ids.Question, ask, text string, l *Adaptation) *Question {
	return &Question{ID: id, Ask: ask, Outcome: Adapt, Text: text, Where: "nowhere", Limits: *l}
}

func (q *Question) eachVisit() *Question { q.EachVisit = true; return q }

func (q *Question) on(day string) *Question { q.Day = day; return q }

// sided closes these regions on the side that was answered.
func (q *Question) sided(regions ...ids.Region) *Question {
	q.Where, q.Regions = "side", regions
	return q
}
func (q *Question) blocking(muscles ...ids.Muscle) *Question { q.Muscles = muscles; return q }

// Questions of the screening, in the order in which they are asked.
var questions = values([]*Question{
	emergency("saddle-numbness", "Numbness between the legs, where a saddle touches?",
		"Possible pressure on the nerves of bladder and bowel."),
	emergency("bladder-bowel-change", "New problems controlling bladder or bowels?",
		"Possible pressure on the nerves of bladder and bowel."),
	emergency("cannot-pass-urine", "Unable to urinate?", "Possible pressure on the nerves of bladder and bowel."),
	emergency("both-legs-signs", "Weakness or numbness in both legs at once, or pain shooting down both?",
		"Possible pressure on the spinal nerves."),
	emergency("chest-pain-breathless", "Chest pain with breathlessness, or spreading to arm or jaw?",
		"Possible heart trouble."),
	emergency("clot-breathless", "A swollen leg together with breathlessness?",
		"Possible clot that has reached the lung."),
	emergency("sudden-worst-headache", "A sudden headache, the worst ever?", "Possible bleeding in the head."),
	emergency("new-weakness-or-speech", "New weakness of one side, of the face, or trouble speaking?",
		"Possible stroke."),
	emergency("dizziness-with-double-vision",
		"Dizziness with double vision, a fall without warning, trouble speaking or swallowing, or neck pain like "+
			"never before?", "Possible trouble of the arteries of the neck."),
	emergency("pulsing-abdominal-mass", "A pulsing swelling in the belly with back pain?",
		"Possible widening of the great artery."),
	emergency("hot-joint-fever", "A hot joint together with fever?", "Possible infection of the joint."),
	emergency("tense-compartment",
		"A tense, swollen shin, calf or forearm whose pain grows, beyond what happened to it?",
		"Possible pressure in a closed compartment of muscle."),
	emergency("acute-belly-or-testicular-pain", "A sudden severe pain in the belly, or in a testicle?",
		"Possible trouble that needs a surgeon."),
	emergency("pregnancy-warning-signs",
		"Pregnant, with a severe headache, trouble seeing, sudden swelling or bleeding?",
		"Possible danger to mother and child."),
	emergency("fever-stiff-neck-headache", "Fever with a stiff neck and a headache?",
		"Possible infection round the brain."),
	emergency("cold-limb", "A cold, pale arm or leg without a pulse?", "Possible blocked artery."),

	refer("calf-warm-swollen", "One calf warm, swollen or tender?", "Possible clot: same-day medical care.",
		"side").sided(leg...).eachVisit(),
	refer("recent-clot", "A blood clot in the last months?", "A clot may loosen.", "side").sided(leg...).on("happened"),
	refer("one-leg-swollen", "One leg newly thicker than the other?", "Possible clot: same-day medical care.",
		"side").sided(leg...).eachVisit(),
	refer("fever", "Fever, or feeling ill with the pain?", "Possible infection.", "nowhere").eachVisit(),
	refer("weight-loss", "Weight lost without a reason?", "Needs an explanation first.", "nowhere"),
	refer("night-pain", "Pain at night that no position changes?", "Needs an explanation first.", "nowhere"),
	refer("cancer-history", "Cancer in the past, and a new pain now?", "Needs an explanation first.", "nowhere"),
	refer("active-cancer", "Cancer that is being treated now?",
		"What may be pressed, and where, is for the treating team to say.", "nowhere"),
	refer("suspected-fracture", "A recent hard fall or blow, or a bone that may be broken?",
		"A fracture is excluded first.", "regions"),
	refer("progressive-weakness", "Weakness or numbness that is getting worse?", "Possible pressure on a nerve.",
		"nowhere").eachVisit(),
	refer("clumsy-hands-or-gait", "Clumsy hands or an unsteady walk?", "Possible pressure on the spinal cord.",
		"nowhere"),
	refer("temple-headache-over-50", "Over 50, with a new headache at the temple and trouble of jaw or sight?",
		"Possible inflammation of an artery.", "nowhere"),
	refer("unexplained-chest-pain", "Chest pain that no doctor has explained?",
		"The heart is excluded first.", "nowhere"),
	refer("swollen-joint", "A joint newly swollen?", "Needs an explanation first.", "regions"),
	refer("walking-calf-pain", "Calf pain that comes with walking and goes at rest?", "Possible narrowed artery.",
		"side").sided(lowerLeg...),
	refer("unexplained-dizziness", "Dizziness that no doctor has explained?",
		"Explained before any work on the neck.", "nowhere"),

	refer("aneurysm", "A known aneurysm, or a belly that pulses?", "Pressure may tear it.", "nowhere"),
	refer("kidney-signs", "Pain in the flank with fever, or blood in the urine?", "Possible trouble of the kidneys.",
		"nowhere"),
	refer("heart-failure", "A weak heart (heart failure)?", "What the heart can bear is for the doctor to say.",
		"nowhere"),
	refer("recent-heart-attack-or-stroke", "A heart attack or a stroke in the last twelve weeks?",
		"Not for twelve weeks.", "nowhere").on("happened"),
	refer("cannot-bear-weight", "A leg that cannot bear weight since an injury?", "A fracture is excluded first.",
		"side").sided(leg...),
	refer("fragility-fracture", "A bone that broke from a slight fall or none?", "Needs an explanation first.",
		"nowhere"),

	avoid("acute-muscle-tear", "A fresh muscle tear or bruise?", "Not here until cleared, never before 72 h.").
		on("happened"),
	avoid("open-skin", "Open skin, rash, infection or burn?", "Not on or near it."),
	avoid("hot-swollen-area", "An inflamed, hot or swollen place?", "Not here."),
	avoid("recent-surgery", "An operation in the last twelve weeks?",
		"Not here for 6 weeks and until cleared; care for clots for 12 weeks.").on("happened"),
	avoid("healing-fracture", "A fracture that is still healing?", "Not here until cleared."),
	avoid("joint-replacement", "A replaced joint that is not yet cleared for massage?", "Not here until cleared."),
	avoid("recent-injection", "An injection in the last 7 days?", "Not here for 7 days.").on("happened"),
	avoid("varicose-veins", "Varicose veins?", "Not on them."),
	avoid("hernia", "A hernia of the belly wall or the groin?", "No work on the abdomen.", abdomen...).
		blocking(slices.Concat(deepBelly, bellyWall)...),
	avoid("abdominal-disease", "A disease of the belly?", "No work on the abdomen.", abdomen...).
		blocking(slices.Concat(deepBelly, bellyWall)...),
	avoid("kidney-disease", "A disease of the kidneys?", "No pressure over the kidneys.", kidneys...),
	avoid("enlarged-spleen", "An enlarged spleen?", "No pressure over spleen and belly.",
		slices.Concat(kidneys, abdomen)...).blocking(deepBelly...),
	avoid("lymphoedema", "A limb swollen by lymph (lymphoedema)?", "No pressure on that limb."),
	avoid("implanted-device", "An implanted device or port?", "Not on or near it."),
	avoid("enlarged-nodes", "Swollen lymph nodes?", "Not on or near them."),
	avoid("node-removal", "Lymph nodes removed at armpit or groin?", "No pressure on that limb."),
	avoid("nerve-entrapment", "A diagnosed nerve entrapment?", "Not on the place where it is trapped."),
	avoid("radiotherapy", "Radiotherapy?", "Not on the treated field."),
	avoid("carotid-disease", "Narrowed arteries of the neck?", "No work on the neck.", neck...),
	avoid("unstable-neck", "An unstable neck, or rheumatoid arthritis of the neck?", "No work on the neck.", neck...),

	adapt("anticoagulant", "Blood thinners, or a bleeding disorder?",
		"At most 3 of 10, slack or broad contact only, no deep abdomen.",
		&Adaptation{Ceiling: number(3), SlackOrBroad: true}).blocking(deepBelly...),
	adapt("osteoporosis", "Osteoporosis, or cortisone for a long time?",
		"Light over ribs and spine, without elbow, knuckle or tool: pressure limits 1 lower.",
		&Adaptation{Down: 1, SoftOverBones: true}),
	adapt("pregnancy", "Pregnant, or a birth in the last six weeks?",
		"Not face-down after the first three months, not flat on the back for more than a few minutes after 20 "+
			"weeks; no work on the belly, no deep inner thigh or calf.",
		&Adaptation{AvoidPositions: ids.List[ids.Position]("prone supine")}).
		blocking(slices.Concat(innerThighAndCalf, deepCalf, deepBelly, bellyWall)...).eachVisit().on("due"),
	adapt("diabetes-sensory-loss", "Diabetes or another loss of feeling?",
		"The number cannot steer: light, broad, by first resistance.", &Adaptation{ScoreCannotSteer: true}),
	adapt("sedation-or-opioids", "Sedatives, opioids or alcohol today?",
		"The number cannot steer: light, broad, by first resistance.", &Adaptation{ScoreCannotSteer: true}).
		eachVisit(),
	adapt("no-shared-language", "Can't give a pain score (language)?",
		"The number cannot steer: light, broad, by first resistance.", &Adaptation{ScoreCannotSteer: true}),
	adapt("fibromyalgia", "Fibromyalgia, or tender all over?", "Slack and gentle: at most 3 of 10.",
		&Adaptation{Ceiling: number(3)}),
	adapt("hypermobility", "Hypermobile joints?", "No stretching to the end; pressure limits 1 lower.",
		&Adaptation{Down: 1}),
	adapt("hip-replacement", "A replaced hip that has not been released for all movements?",
		"No bending over 90 degrees, no crossing of the midline, no turning to the end until cleared.", &Adaptation{}),
	adapt("recent-whiplash", "Whiplash in the last weeks?", "Front of the neck: indirect work only.",
		&Adaptation{}).blocking(append(
		ids.List[ids.Muscle]("sternocleidomastoid-sternal sternocleidomastoid-clavicular"), scalenes...,
	)...),
	adapt("thoracic-outlet", "Arm tingling from the collar-bone region (thoracic outlet)?",
		"Scalenes light, ask about the arm at each stage: shorter holds.",
		&Adaptation{CapSeconds: number(60), AskArm: true}),
	adapt("high-blood-pressure", "High or unstable blood pressure?", "Shorter holds; sit up slowly.",
		&Adaptation{CapSeconds: number(60)}),
	adapt("dizziness", "Dizziness that a doctor has explained?", "Neck gently; sit up slowly.", &Adaptation{Down: 1}),
	adapt("first-visit", "First visit?", "Pressure limits 1 lower; no more than four points.", &Adaptation{Down: 1}),
	adapt("minor", "Under 18?", "A guardian consents and may be present; pressure limits 1 lower.",
		&Adaptation{Down: 1}),
	adapt("lubricant-allergy", "Allergic to an oil or lotion?", "Another lubricant, or none.", &Adaptation{}),
	adapt("sore-over-48h", "Sore for more than 48 h after the last visit?", "Pressure limits 1 lower.",
		&Adaptation{Down: 1}).eachVisit(),
	adapt("bruising", "Bruised after the last visit?", "Pressure limits 1 lower.", &Adaptation{Down: 1}).eachVisit(),
	adapt("stiff-shoulder-painful", "A stiff shoulder in its painful stage?", "No forced range.", &Adaptation{}),
})

// values: the rows are made as pointers, which makes less code for the browser to load.
func values(rows []*Question) []Question {
	out := make([]Question, len(rows))
	for i, q := range rows {
		out[i] = *q
	}
	return out
}
