package body

import (
	"fmt"
	"math"

	"mokren/core/decode"
	"mokren/core/ids"
)

// spine lists the palpable levels from above down, by landmark.
var spine = []ids.Landmark{
	"C1", "C2", "C3", "C4", "C5", "C6", "C7", "T1", "T2", "T3", "T4", "T5", "T6", "T7", "T8",
	"T9", "T10", "T11", "T12", "L1", "L2", "L3", "L4", "L5", "S1", "S2", "S3", "S4",
}

// levelOf names the vertebral level at a landmark and how it is found. Every
// palpated level is ± 1 (standard surface anatomy; the crest line is often
// L3–L4, and the lower scapular angle moves with the arms).
var levelOf = map[ids.Landmark]struct {
	level ids.Landmark
	text  string
}{
	"iliac-crest": {"L4", "The line joining the crests crosses L4, often L3–L4."},
	"psis": {
		"S2",
		"The posterior iliac spines lie level with S2: from the dimple slide down, then press in and up.",
	},
	"above-sacral-hollow": {"L5", "The first bony point above the sacral hollow."},
	"sacrum-base":         {"L5", "The first bony point above the sacral hollow."},
	"crest-scapula-midpoint": {
		"T12",
		"Halfway between the crest and the lower angle of the shoulder blade, arms by the side.",
	},
	"scapula-inferior-angle": {
		"T7",
		"Level with the lower angle of the shoulder blade, arms by the side: it moves with them.",
	},
	"scapula-spine-root": {"T3", "Level with the inner end of the shoulder blade's ridge."},
	"external-occipital-protuberance": {
		"C1",
		"The hollow below the protuberance; C1 itself has no spinous tip to feel.",
	},
	"suboccipital-hollow": {
		"C1",
		"The hollow below the protuberance; C1 itself has no spinous tip to feel.",
	},
	"mastoid": {
		"C1",
		"Its transverse process lies just below and in front of the mastoid's tip.",
	},
	"first-spinous-below-occiput": {"C2", "The first spinous process felt below the hollow."},
	"sternal-notch":               {"T2", "Level with the notch, face-up."},
	"xiphoid":                     {"T9", "Level with the tip, face-up."},
	"rib-12-tip":                  {"L2", "Level with the tip of the last rib."},
	"navel":                       {"L4", "Level with the navel in a lean person only."},
}

// Level is a vertebral level found by palpation.
type Level struct {
	Level ids.Landmark `json:"level"`
	// PlusMinus is how many levels palpation may be out.
	PlusMinus int    `json:"plus_minus"`
	Text      string `json:"text"`
}

// LevelAt gives the level at a landmark.
func LevelAt(l ids.Landmark) (Level, error) {
	if x, ok := levelOf[l]; ok {
		return Level{x.level, 1, x.text}, nil
	}
	if i := levelIndex(l); i >= 0 {
		return Level{l, 1, "Count again from a second landmark; palpated levels are ± 1."}, nil
	}
	return Level{}, &decode.Error{
		Path: "$.landmark", Given: fmt.Sprintf("%q", l),
		Allowed: "a landmark that marks a vertebral level, such as iliac-crest, psis, scapula-inferior-angle, or " +
			"a spinous level",
	}
}

// levelIndex is a level's place from above down, or −1.
func levelIndex(l ids.Landmark) int {
	for i, s := range spine {
		if s == l {
			return i
		}
	}
	return -1
}

// Count goes from a known level down (up when negative).
func Count(from ids.Landmark, down int) (Level, error) {
	i := levelIndex(from)
	if i < 0 {
		return Level{}, &decode.Error{Path: "$.level", Given: fmt.Sprintf("%q", from), Allowed: "a level from C1 to S4"}
	}
	if i+down < 0 || i+down >= len(spine) {
		return Level{}, &decode.Error{
			Path: "$.count_down", Given: fmt.Sprint(down),
			Allowed: fmt.Sprintf("%d to %d from %s", -i, len(spine)-1-i, from),
		}
	}
	return Level{spine[i+down], 1, fmt.Sprintf("%d from %s; each step may add to the error, so check against a "+
		"second landmark.", down, from)}, nil
}

// Beside is what lies under a finger beside the spine.
type Beside struct {
	Structure string `json:"structure" doc:"spinous-process, facet-joint, transverse-process, rib-joint, rib-angle, lamina, sacral-foramen, sacroiliac-joint, psis, soft-tissue"`
	// Level that the place belongs to.
	Level     ids.Landmark `json:"level" doc:"the vertebra it belongs to"`
	PlusMinus int          `json:"plus_minus"`
	// OutCM and DownCM are what the finger-widths come to.
	OutCM  float64 `json:"out_cm"`
	DownCM float64 `json:"down_cm"`
	Text   string  `json:"text"`
}

// slant is how far a spinous tip lies below its own transverse processes, in
// levels: the rule of threes (T1–T3 and T12 level, T4–T6 and T11 half a level,
// T7–T10 a whole level).
func slant(level ids.Landmark) float64 {
	switch level {
	case "T4", "T5", "T6", "T11":
		return 0.5
	case "T7", "T8", "T9", "T10":
		return 1
	}
	return 0
}

// FindBeside names the structure some finger-widths out from and down (up when
// negative) from a spinous tip. fingerCM is the therapist's own finger-width.
func FindBeside(level ids.Landmark, out, down, fingerCM float64) (Beside, error) {
	i := levelIndex(level)
	if i < 0 {
		return Beside{}, &decode.Error{
			Path: "$.level", Given: fmt.Sprintf("%q", level),
			Allowed: "a level from C1 to S4",
		}
	}
	b := Beside{Level: level, PlusMinus: 1, OutCM: out * fingerCM, DownCM: down * fingerCM}
	at, ok := onSpine(i, b.DownCM)
	if !ok {
		return Beside{}, &decode.Error{
			Path: "$.fingers_down", Given: fmt.Sprintf("%.1f cm from %s", b.DownCM, level),
			Allowed: "a distance that stays between C1 and S4",
		}
	}
	if out < 0.5 {
		return onTheMiddle(b, at), nil
	}
	near := int(math.Round(at))
	if spine[near][0] == 'T' {
		return chest(b, near, out, at-float64(near))
	}
	return b.beside(at, out, fingerCM), nil
}

// below is how far past a lumbar tip what lies beside it still belongs to the vertebra
// above: one finger down is still the joint below that vertebra.
const below = 0.7

// beside names what lies beside a tip of the neck, the low back or the sacrum.
func (b Beside) beside(at, out, fingerCM float64) Beside {
	near := int(math.Round(at))
	if up := int(math.Floor(at)); spine[near][0] == 'L' && spine[up][0] == 'L' && at-float64(up) < below {
		near = up
	}
	b.Level = spine[near]
	switch b.Level[0] {
	case 'C':
		return b.neck(out)
	case 'L':
		return b.lowBack(out, (at-float64(near))*gapCM(near)/fingerCM)
	}
	return b.sacrum(out)
}

// tipCM is how far down each spinous tip lies in a body of 170 cm: as the figure has
// them, so that counting and drawing agree.
func tipCM(i int) float64 {
	p, err := FindLandmark(Back, spine[i], ids.Midline)
	if err != nil {
		panic(err) // a test says that each is drawn
	}
	return p.Y * Back.CMPerUnit(DefaultHeightCM)
}

// gapCM is from a tip to the one below it; below the last, to the one above.
func gapCM(i int) float64 {
	i = min(i, len(spine)-2)
	return tipCM(i+1) - tipCM(i)
}

// onSpine is which level lies so many cm down (up when negative) from a tip: a number
// with what is between two tips as a fraction. ok is false beyond C1 and S4.
func onSpine(from int, downCM float64) (at float64, ok bool) {
	goal := tipCM(from) + downCM
	last := len(spine) - 1
	if goal < tipCM(0)-gapCM(0)/2 || goal > tipCM(last)+gapCM(last)/2 {
		return 0, false
	}
	i := 0
	for i < last-1 && tipCM(i+1) <= goal {
		i++
	}
	return min(max(float64(i)+(goal-tipCM(i))/gapCM(i), 0), float64(last)), true
}

// named is the answer with what lies there.
func (b Beside) named(structure, text string) Beside {
	b.Structure, b.Text = structure, text
	return b
}

const noBone = "No bony landmark at this distance."

// neck goes by the spacing of the neck: joints and tips lie closer to the middle than in the
// low back. Distances are in finger-widths.
func (b Beside) neck(out float64) Beside {
	switch {
	case out < 1.25:
		return b.named("facet-joint", "The pillar of joints, closer to the middle than in the low back.")
	case out < 2.5:
		return b.named("transverse-process",
			"Tips lie closer than in the low back; vessels and nerves run before them, so light touch.")
	}
	return b.named("soft-tissue", noBone)
}

// lowBack goes by distance outward and by how far below the tip the finger is, in finger-
// widths.
func (b Beside) lowBack(out, down float64) Beside {
	switch {
	case out < 1.5 && down >= 0.5:
		return b.named("facet-joint",
			fmt.Sprintf("One finger down and out from %s: the joint with the vertebra below.", b.Level))
	case out < 1.5:
		return b.named("lamina", "Erectors over the arch of the vertebra.")
	case out < 2.75 && math.Abs(down) < 0.75:
		return b.named("transverse-process",
			"Two fingers straight out: the tip of the transverse process, deep under the erectors.")
	}
	return b.named("soft-tissue", noBone)
}

// sacrum goes by distance outward. The iliac spine is named only at its own level.
func (b Beside) sacrum(out float64) Beside {
	switch {
	case out < 1.75:
		return b.named("sacral-foramen",
			"The foramina S1–S4 lie under a relaxed hand laid from the posterior iliac spine.")
	case out < 2.75 && b.Level == "S2" && out >= 2.25:
		return b.named("psis", "The posterior iliac spine, level with S2.")
	case out < 2.75 && b.Level != "S4":
		return b.named("sacroiliac-joint",
			"Runs obliquely over S1–S3, deep; only its lower part is near the posterior iliac spine.")
	}
	return b.named("soft-tissue", noBone)
}

// onTheMiddle is what lies at a level, straight on the spine.
func onTheMiddle(b Beside, at float64) Beside {
	b.Level = spine[int(math.Round(at))]
	b.Structure, b.Text = "soft-tissue", ""
	switch {
	case math.Abs(at-math.Round(at)) > 0.3:
		b.Text = "Between two spinous processes."
	case b.Level == "C1":
		b.Text = "C1 has no spinous tip: a hollow below the skull, light touch only."
	default:
		b.Structure, b.Text = "spinous-process", "The tip under the finger."
	}
	return b
}

// chest walks out from a thoracic spinous tip. A tip stands beside the
// transverse process of its own vertebra, of the one below, or between two.
func chest(b Beside, i int, out, downLevels float64) (Beside, error) {
	own := spine[i]
	at := slant(own) + downLevels // levels below the own transverse process
	whole := math.Floor(at + 0.5)
	if frac := at - math.Floor(at); math.Abs(frac-0.5) < 1e-9 {
		whole = math.Floor(at) // between two: the upper one, the own
	}
	b.Level = spine[clampIndex(i, whole)]
	if b.Level[0] != 'T' {
		return b.beside(float64(levelIndex(b.Level)), out, b.OutCM/out), nil
	}
	where := map[float64]string{
		0:   "level with its own transverse processes",
		0.5: "half a level below its own transverse processes",
		1:   "a whole level below its own transverse processes",
	}[slant(own)]
	text := fmt.Sprintf("The tip of %s lies %s.", own, where)
	floating := b.Level == "T11" || b.Level == "T12"
	switch {
	case out < 1.5:
		return b.named("facet-joint", text+" The joints lie over the arch, under the erectors."), nil
	case out < 2.5:
		return b.named("transverse-process", text), nil
	case out < 3.5 && floating:
		return b.named("soft-tissue", text+" Ribs eleven and twelve have no joint with the transverse process."), nil
	case out < 3.5:
		return b.named("rib-joint", text+" Beyond the transverse process comes the joint with the rib."), nil
	case out < 5 && b.Level == "T12":
		return b.named("soft-tissue", text+" Rib twelve is short and has no angle."), nil
	case out < 5:
		return b.named("rib-angle", text+" Further out the rib bends forward."), nil
	}
	return b.named("soft-tissue", "Beyond the rib angle."), nil
}

func clampIndex(i int, by float64) int { return min(max(i+int(by), 0), len(spine)-1) }
