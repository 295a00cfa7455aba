package sequence

import (
	"slices"

	"mokren/core/ids"
	"mokren/core/safety"
)

// Steer is what a dose counts.
type Steer string

const (
	Seconds     Steer = "seconds"
	Repetitions Steer = "repetitions"
	Breaths     Steer = "breaths"
	Stations    Steer = "stations"
)

// DoseBounds is a usual value and its bounds.
type DoseBounds struct {
	Usual float64 `json:"usual"`
	Least float64 `json:"least"`
	Most  float64 `json:"most"`
}

func (r DoseBounds) holds(v float64) bool { return v >= r.Least && v <= r.Most }

// Technique is one thing that hands do. All that is known of it is in its row.
type Technique struct {
	ID      ids.Technique `json:"technique"`
	Name    string        `json:"name"`
	Kind    string        `json:"kind" enum:"warm-up,compress,stroke,knead,roll-skin,mobilise,stretch,isometric,active,hold,flush,close"`
	Presses string        `json:"presses" enum:"none,light,firm"`
	Steer   Steer         `json:"steer" enum:"seconds,repetitions,breaths,stations"`
	// Amount counts seconds, repetitions, breaths or stations.
	Amount DoseBounds `json:"amount"`
	// Each is the seconds of one repetition or station; zero for seconds and breaths.
	Each     DoseBounds    `json:"each_s"`
	Contacts []ids.Contact `json:"contacts"`
	// Lubricant is glide, grip, none or a-little-oil.
	Lubricant string `json:"lubricant" enum:"glide,grip,none,a-little-oil"`
	// Way is how a joint is moved; zero moves none.
	Way safety.Way `json:"-"`
	// Mover is who moves.
	Mover string `json:"mover" enum:"therapist,client,assistant"`
	// Protocol keeps all of its rules: the step is run by it, and is no copy.
	Protocol ids.Protocol `json:"protocol,omitempty"`
	// NeverAtNeck tells why it is not done at the neck at all.
	NeverAtNeck string `json:"never_at_neck,omitempty"`
	How         string `json:"how"`
	Feel        string `json:"feel"`
}

// broadHands and fingerEnds are contacts in the order in which they are taken.
var (
	broadHands = ids.List[ids.Contact]("palm forearm")
	flatHands  = ids.List[ids.Contact]("palm fingertips")
	fingerEnds = ids.List[ids.Contact]("fingertips thumb-pad braced-fingers")
	grips      = ids.List[ids.Contact]("palm pincer")
	deepHands  = ids.List[ids.Contact]("thumb-over-thumb braced-fingers knuckle forearm")
)

// usual writes a range: the dose that is taken where nobody says otherwise, and the bounds within
// which a practice may set its own.
func usual(u, least, most float64) DoseBounds { return DoseBounds{u, least, most} }

var techniques = []Technique{
	// Beginning and end: hands arrive before they work, and leave after it. They press lightly, so a
	// first contact is never firm.
	{
		ID: "rocking", Name: "Rocking", Kind: "warm-up", Presses: "light", Steer: Seconds, Amount: usual(30, 15, 120),
		Contacts: broadHands, Lubricant: "none", Mover: "therapist",
		How: "Rock the part to and fro in its own rhythm.", Feel: "It swings by itself, without holding on.",
	},
	{
		ID: "resting-hands", Name: "Resting hands", Kind: "close", Presses: "light", Steer: Breaths,
		Amount: usual(6, 3, 24), Contacts: broadHands, Lubricant: "none", Mover: "therapist",
		How: "Lay both hands down and wait.", Feel: "The breath arrives under the hands.",
	},
	// Compressions: repetitions with the weight of the body. The broad ones are firm and keep the 48
	// hours; the light ones close.
	{
		ID: "broad-compressions", Name: "Broad compressions", Kind: "compress", Presses: "firm", Steer: Repetitions,
		Amount: usual(8, 4, 20), Each: usual(4, 2, 8), Contacts: broadHands, Lubricant: "none", Mover: "therapist",
		How: "Sink in with the weight of the body, and come out as slowly.", Feel: "It gives a little more each time.",
	},
	{
		ID: "light-compressions", Name: "Light compressions", Kind: "close", Presses: "light", Steer: Repetitions,
		Amount: usual(6, 3, 16), Each: usual(3, 2, 6), Contacts: broadHands, Lubricant: "none", Mover: "therapist",
		How: "Press lightly, hand beside hand.", Feel: "Warm and even.",
	},
	// Strokes glide and want oil; what lifts or rolls wants grip, and little of it.
	{
		ID: "gliding-strokes", Name: "Gliding strokes", Kind: "stroke", Presses: "light", Steer: Repetitions,
		Amount: usual(5, 3, 15), Each: usual(6, 3, 12), Contacts: broadHands, Lubricant: "glide", Mover: "therapist",
		How: "Long strokes toward the heart, light on the way back.", Feel: "Where the tissue is cool or thick.",
	},
	{
		ID: "kneading", Name: "Kneading", Kind: "knead", Presses: "light", Steer: Seconds, Amount: usual(60, 20, 240),
		Contacts: grips, Lubricant: "a-little-oil", Mover: "therapist",
		How: "Lift and roll the muscle between both hands.", Feel: "Bands that do not roll with the rest.",
	},
	{
		ID: "grasp-and-lift", Name: "Grasp and lift", Kind: "knead", Presses: "light", Steer: Repetitions,
		Amount: usual(5, 3, 12), Each: usual(6, 3, 12), Contacts: grips, Lubricant: "grip", Mover: "therapist",
		How: "Take the muscle off what lies under it, and wait.", Feel: "It softens in the hand.",
	},
	{
		ID: "skin-rolling", Name: "Skin rolling", Kind: "roll-skin", Presses: "light", Steer: Seconds,
		Amount: usual(40, 15, 120), Contacts: ids.List[ids.Contact]("pincer"), Lubricant: "none", Mover: "therapist",
		How: "Roll a fold of skin along, without pinching.", Feel: "Where the fold sticks.",
	},
	// Stations: a place, some seconds, the next place. The skin goes with the finger, so no oil.
	{
		ID: "small-circles", Name: "Small circles at stations", Kind: "stroke", Presses: "light", Steer: Stations,
		Amount: usual(5, 3, 12), Each: usual(10, 5, 20), Contacts: fingerEnds, Lubricant: "grip", Mover: "therapist",
		How:  "Small circles with the skin, not over it; then the next place.",
		Feel: "The layer under the finger moves.",
	},
	// Firm strokes along and across a muscle. They take the contacts of deep work, and what lies over
	// a structure in danger takes none of them.
	{
		ID: "cross-fibre-strokes", Name: "Cross-fibre strokes", Kind: "stroke", Presses: "firm", Steer: Repetitions,
		Amount: usual(10, 5, 30), Each: usual(2, 1, 4), Contacts: deepHands, Lubricant: "a-little-oil",
		Mover: "therapist", NeverAtNeck: "No strokes across the front and side of the neck.",
		How: "Short strokes across the fibres, the skin goes along.", Feel: "A band snaps less from stroke to stroke.",
	},
	{
		ID: "longitudinal-strokes", Name: "Longitudinal strokes", Kind: "stroke", Presses: "firm", Steer: Repetitions,
		Amount: usual(5, 3, 12), Each: usual(8, 5, 15), Contacts: deepHands, Lubricant: "a-little-oil",
		Mover: "therapist",
		How:   "One slow stroke along the fibres, as deep as it is welcome.", Feel: "Ropes, and where they end.",
	},
	{
		ID: "fascia-spread", Name: "Fascia spread between two hands", Kind: "stroke", Presses: "light",
		Steer: Repetitions, Amount: usual(3, 2, 8), Each: usual(15, 8, 40), Contacts: flatHands, Lubricant: "grip",
		Mover: "therapist", How: "Two flat hands take up the slack and wait.", Feel: "A slow give, like dough.",
	},
	// Joints: drawn apart, moved in circles, glided and shaken. The way of moving decides which of the
	// screening's rules speak of it.
	{
		ID: "gentle-traction", Name: "Gentle traction", Kind: "mobilise", Presses: "none", Steer: Repetitions,
		Amount: usual(3, 2, 6), Each: usual(10, 5, 20), Contacts: grips, Lubricant: "grip", Way: safety.Drawn,
		Mover: "therapist", How: "Draw the joint apart along the limb, and let it back slowly.",
		Feel: "It lengthens without a pull elsewhere.",
	},
	{
		ID: "joint-circles", Name: "Joint circles", Kind: "mobilise", Presses: "none", Steer: Repetitions,
		Amount: usual(6, 3, 12), Each: usual(5, 3, 10), Contacts: grips, Lubricant: "none", Way: safety.Stretched,
		Mover: "therapist", NeverAtNeck: "No full circles of the neck.",
		How: "Slow circles within what is free, both ways round.", Feel: "Where the circle has a corner.",
	},
	{
		ID: "scapula-glide", Name: "Scapula lift and glide", Kind: "mobilise", Presses: "light", Steer: Repetitions,
		Amount: usual(6, 3, 12), Each: usual(8, 4, 15), Contacts: flatHands, Lubricant: "grip", Mover: "therapist",
		How: "One hand under the shoulder, one on the blade: up, down, round.", Feel: "The blade floats on the ribs.",
	},
	{
		ID: "limb-shaking", Name: "Limb shaking", Kind: "mobilise", Presses: "none", Steer: Seconds,
		Amount: usual(20, 10, 60), Contacts: grips, Lubricant: "none", Way: safety.Active, Mover: "therapist",
		NeverAtNeck: "The neck is not shaken.",
		How:         "Take up the limb and let it shake loosely.", Feel: "It is heavy.",
	},
	// Lengthening by a hand, and with the client's own push. The latter three are protocols of the
	// coach; their rows only say how they stand in a sequence.
	{
		ID: "passive-stretch", Name: "Passive stretch", Kind: "stretch", Presses: "none", Steer: Repetitions,
		Amount: usual(3, 1, 6), Each: usual(20, 10, 40), Contacts: grips, Lubricant: "none", Way: safety.Stretched,
		Mover: "therapist", How: "To the first pull, with the out-breath; wait; a little more.",
		Feel: "A pull in the muscle, no pinch in the joint.",
	},
	{
		ID: "contract-relax", Name: "Contract and relax", Kind: "isometric", Presses: "none", Steer: Repetitions,
		Amount: usual(3, 2, 5), Each: usual(30, 20, 40), Contacts: grips, Lubricant: "none", Way: safety.Resisted,
		Mover: "client", Protocol: "contract-relax",
		How: "Push for 15 to 20 s against the hand, let go, lengthen for 10 s.", Feel: "The new barrier.",
	},
	{
		ID: "reciprocal-contraction", Name: "Reciprocal contraction", Kind: "isometric", Presses: "none",
		Steer: Repetitions, Amount: usual(3, 2, 5), Each: usual(20, 12, 30), Contacts: grips, Lubricant: "none",
		Way: safety.Resisted, Mover: "client", Protocol: "contract-relax",
		How: "The client pulls into the stretch against the hand.", Feel: "The other side lets go.",
	},
	{
		ID: "slow-lowering", Name: "Slow lowering", Kind: "isometric", Presses: "none", Steer: Repetitions,
		Amount: usual(3, 2, 5), Each: usual(12, 6, 20), Contacts: grips, Lubricant: "none", Way: safety.Resisted,
		Mover: "client", Protocol: "resisted-lengthening",
		How: "The client gives way slowly against the hand.", Feel: "It lengthens without a jerk.",
	},
	// What the client does alone is forbidden least and tells most.
	{
		ID: "active-movement", Name: "Active movement", Kind: "active", Presses: "none", Steer: Repetitions,
		Amount: usual(6, 3, 15), Each: usual(5, 3, 10), Contacts: []ids.Contact{}, Lubricant: "none",
		Way: safety.Active, Mover: "client", How: "The client moves slowly through all that is free.",
		Feel: "Where it goes round a corner.",
	},
	{
		ID: "active-movement-under-contact", Name: "Active movement under contact", Kind: "active", Presses: "light",
		Steer: Repetitions, Amount: usual(5, 3, 10), Each: usual(6, 4, 12), Contacts: fingerEnds, Lubricant: "grip",
		Way: safety.Active, Mover: "client", How: "Rest on the band while the client moves slowly.",
		Feel: "The fibres slide under the finger.",
	},
	{
		ID: "breathing-together", Name: "Breathing together", Kind: "warm-up", Presses: "none", Steer: Breaths,
		Amount: usual(5, 3, 12), Contacts: []ids.Contact{}, Lubricant: "none", Mover: "client",
		How: "In by the nose, out longer than in.", Feel: "The belly rises before the chest.",
	},
	// The hold is the coach's, with all of its rules; a flush follows every release.
	{
		ID: "hold", Name: "Hold", Kind: "hold", Presses: "firm", Steer: Seconds, Amount: usual(90, 30, 180),
		Contacts:  ids.List[ids.Contact]("thumb-pad thumb-over-thumb braced-fingers pincer knuckle elbow"),
		Lubricant: "none", Mover: "therapist", Protocol: "graded-stages",
		How: "The hold screen leads; it comes back here.", Feel: "What its protocol asks for.",
	},
	{
		ID: "flush", Name: "Flush", Kind: "flush", Presses: "light", Steer: Seconds, Amount: usual(25, 15, 60),
		Contacts: broadHands, Lubricant: "glide", Mover: "therapist",
		How: "Long light strokes over the place.", Feel: "It grows warm.",
	},
	// On the feet again: nobody leaves the table without sitting up first.
	{
		ID: "walking-the-legs", Name: "Walking the legs", Kind: "active", Presses: "none", Steer: Repetitions,
		Amount: usual(10, 6, 20), Each: usual(3, 2, 6), Contacts: []ids.Contact{}, Lubricant: "none",
		Way: safety.Active, Mover: "client", How: "On the back: one heel away, then the other, from the hip.",
		Feel: "The pelvis swings evenly.",
	},
	{
		ID: "standing-and-walking", Name: "Standing and walking", Kind: "active", Presses: "none", Steer: Seconds,
		Amount: usual(60, 30, 180), Contacts: []ids.Contact{}, Lubricant: "none", Way: safety.Active, Mover: "client",
		How: "Sit up, wait, stand, walk round the room.", Feel: "What is easier than before.",
	},
}

// Techniques lists all.
func Techniques() []Technique { return slices.Clone(techniques) }

// Find gives a technique by its id.
func Find(id ids.Technique) (Technique, bool) {
	for i := range techniques {
		if techniques[i].ID == id {
			return techniques[i], true
		}
	}
	return Technique{}, false
}

// closes reports whether it counts toward the end of a session: fitted last.
func (t *Technique) closes() bool { return t.Kind == "close" || t.ID == "standing-and-walking" }
