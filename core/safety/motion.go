package safety

import (
	"slices"
	"strings"

	"mokren/core/ids"
)

// Way is how a joint is moved; a rule may speak of several.
type Way uint8

// The ways: the client moves by itself, pushes against a hand, is taken to the end of
// the range (by a hand or by itself), or the joint is drawn apart.
const (
	Active Way = 1 << iota
	Resisted
	Stretched
	Drawn

	byHand = Resisted | Stretched | Drawn
	anyWay = Active | byHand
)

// Motion is what a test, a stretch or a technique asks of joints.
type Motion struct {
	Way       Way
	Movements []ids.Movement
}

// motionRule is what an answer says of a motion. On names movements or joints; empty
// is every one.
type motionRule struct {
	question ids.Question
	// ways of moving that the rule is about, as a set.
	ways Way
	// on are joints or movements by blanks; empty is any.
	on string
	// forbids, or else it is a caution that is said.
	forbids bool
	text    string
}

const (
	bends      = "lumbar.flexion lumbar.lateral-flexion thoracic.rotation trunk.rotation"
	hipLocked  = "hip.flexion hip.adduction hip.internal-rotation hip.external-rotation"
	bellyWorks = "lumbar.flexion thoracic.rotation trunk.rotation pelvis.posterior-tilt"
	turnsNeck  = "cervical.extension cervical.rotation"
)

// motionRules follow the precautions that textbooks of joint assessment, stretching and
// care after a joint replacement agree on; the wording is ours.
var motionRules = []motionRule{
	{"unstable-neck", byHand, "cervical", true, "Nothing by hand at an unstable neck."},
	{"carotid-disease", byHand, "cervical", true, "Nothing by hand at the neck with narrowed arteries."},
	{"recent-whiplash", byHand, "cervical", true, "No push, stretch or pull of the neck after whiplash."},
	{"dizziness", Stretched, turnsNeck, true, "With dizziness the neck is not turned or bent back to the end."},
	{"dizziness", Drawn, "cervical", true, "No pull at the head with dizziness."},
	{"osteoporosis", Drawn, "cervical", true, "No pull at the head with thin bones."},
	{
		"osteoporosis", Stretched, bends + " " + turnsNeck, true,
		"Thin bones: the spine is not bent or turned to the end.",
	},
	{
		"hip-replacement", Stretched, hipLocked, true,
		"Replaced hip: no bending over 90 degrees, no crossing of the midline, no turning to the end.",
	},
	{"stiff-shoulder-painful", Stretched, "shoulder", true, "No forced range of a shoulder in its painful stage."},
	{"hernia", Resisted, bellyWorks, true, "No push of the belly wall with a hernia."},
	{"abdominal-disease", Resisted, bellyWorks, true, "No push of the belly wall today."},

	{"unstable-neck", anyWay, "cervical", false, "Only as far as the neck goes by itself."},
	{"carotid-disease", anyWay, "cervical", false, "Only as far as the neck goes by itself."},
	{"recent-whiplash", anyWay, "cervical", false, "Slowly, and not into pain."},
	{"dizziness", anyWay, "cervical", false, "Slowly; stop at the first dizziness."},
	{"osteoporosis", byHand, "", false, "Lightly and without jerks: thin bones."},
	{"hip-replacement", anyWay, "hip", false, "Hip below 90 degrees, knee not across the midline."},
	{"stiff-shoulder-painful", anyWay, "shoulder", false, "Only within what does not hurt."},
	{"thoracic-outlet", anyWay, "cervical shoulder", false, "Ask about the arm; stop at tingling."},
	{"hypermobility", Stretched, "", false, "Not to the end of the range."},
	{"pregnancy", Stretched, "", false, "Not to the end of the range: joints are looser now."},
	{"high-blood-pressure", Resisted, "", false, "Breathe out with the push; no held breath."},
	{"fibromyalgia", byHand, "", false, "Light and short."},
	{"diabetes-sensory-loss", Stretched, "", false, "Feels less: stop well before the end."},
	{"sedation-or-opioids", Stretched, "", false, "Feels less today: stop well before the end."},
	{"no-shared-language", byHand, "", false, "Agree on a sign for stop first."},
}

// injuries are the avoid-here answers that a pull or a push at the place could make worse.
var injuries = ids.List[ids.Question]("acute-muscle-tear recent-surgery healing-fracture joint-replacement " +
	"recent-injection hot-swollen-area")

// speaksOf reports whether a rule is about a way of moving and, where it names joints or
// movements, about one of these.
func (r motionRule) speaksOf(m Motion) bool {
	if r.ways&m.Way == 0 || r.on == "" {
		return r.ways&m.Way != 0
	}
	return slices.ContainsFunc(m.Movements, func(mv ids.Movement) bool {
		joint, _, _ := strings.Cut(string(mv), ".")
		for on := range strings.FieldsSeq(r.on) {
			if on == string(mv) || on == joint {
				return true
			}
		}
		return false
	})
}

// Moves tells why the answers forbid a motion, or "", and what to say with it where they
// do not. A muscle that is pulled or pushed may lie in where; a clearance has lifted what
// it may before.
func (s Screening) Moves(m Motion, muscle ids.Muscle, where []Place) (forbidden string, cautions []string) {
	for _, r := range s.Rules {
		switch {
		case r.Outcome == Emergency || r.Outcome == ReferFirst, r.Outcome == AvoidHere && len(r.Regions) == 0:
			return r.Text, nil
		case m.Way != Active && slices.Contains(injuries, r.ID) && r.At(muscle, where):
			return "Neither pulled nor pushed: " + lowered(r.Text), nil
		}
	}
	for _, r := range motionRules {
		if !s.has(r.question) || !r.speaksOf(m) {
			continue
		}
		if r.forbids {
			return r.text, nil
		}
		cautions = ids.With(cautions, r.text)
	}
	return "", cautions
}

func lowered(text string) string { return strings.ToLower(text[:1]) + text[1:] }
