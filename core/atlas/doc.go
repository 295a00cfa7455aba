// Package atlas knows the muscles: where they run, where their trigger points usually lie,
// how to find and confirm them, what is near, and where they send pain. The knowledge is
// data, one file per muscle in data/. This package reads and checks the files and places the
// muscles on the figure of core/body, and in its depth with core/solid.
//
// What the atlas says is a guide from the standard anatomy and myofascial-pain literature,
// never proof about one client. Each file names its sources.
//
//	m, err := atlas.Get("soleus")
//	guide, err := m.Palpate("left", "", 170, 1.8) // how to find it, step by step
//	list := atlas.Under(body.Back, point, 170)    // which muscles may be meant by a touch
//	from := atlas.Hurts(body.Back, point, 170)    // which muscles usually send pain there
//
// The examples in example_test.go run as tests.
//
// # Vocabulary
//
//   - Muscle: one data file. Its kind is muscle, or contact: a ligament or fascia that is
//     pressed, without trigger points, actions or referral.
//   - Part: one sheet of a muscle in one view: the area between a line along the origin and
//     a line along the insertion. A muscle has one part for each view that shows it, or
//     several where it has several heads.
//   - Anchor: a point of such a line, given from a landmark in the units of the view. Because
//     every line hangs on landmarks, a muscle follows when the figure is redrawn.
//   - Sheet: a part laid on a view (sheet.go). Fibres are its lines of equal share of the
//     width, so that they converge, fan or run side by side as in the body.
//   - Fibre place: a place as the muscle itself keeps it: the part, percent of the way from
//     origin to insertion, and mm from the middle fibre. This is what a record stores.
//   - Site: a usual trigger-point site: a fibre place with a name, how hard it is to reach,
//     and its own referral pattern.
//   - Essential and spillover: the regions of a pattern that are usually felt, and those that
//     are felt less often. Spillover counts half.
//   - Near: a structure that is not to be pressed. A muscle's file adds only what to say of
//     it there; where it runs is in core/safety.
//   - Line of pressure: straight into the skin at the place touched (core/solid).
//   - Layer: 1 is next to the skin. It orders what lies under a finger and gives depths.
//   - Measure: words like "two fingers below the landmark". A file has the slot {measure} and
//     the landmark; the words are worked out from the place, so that they cannot disagree.
//   - Correction: what a file sets by hand beside the relations that are computed.
//
// # Data flow
//
// Reading happens once, when the atlas is first asked:
//
//	data/*.json ─▶ read ─▶ fillMeasures ─▶ Get, All
//	          └──▶ Verify (tests only): strict reading, check of each file, check of all together
//
// The program trusts what it carries; the tests read every file strictly, so that a mistake
// in a file is found before it ships and costs nothing at start. check.go holds what a file
// must satisfy by itself (anchors on the figure, sites in their part, positions that lengthen
// what they should) and what only all files together can tell: muscles that are mistaken for
// each other name each other, and no order of easing runs in a circle.
//
// From a touch on the figure to a muscle, and back:
//
//	view, point ─▶ Under ─▶ Candidate{Muscle, Place} ─▶ stored with the figure's version
//	stored place ─▶ Carry (an earlier figure) ─▶ OnFigure ─▶ view, point
//
// Under sorts by what a hand means: first a muscle with a usual site within 12 mm (the radius
// of a thumb), then what lies beneath the finger, nearest to the surface first, then what
// lies just beside it.
//
// From a place to what may happen there:
//
//	OnFigure ─▶ Pressed (line of pressure) ─▶ PressedThrough: region and structures too near
//	                                      └─▶ Layers: the muscles it goes through, with depths
//
// core/safety turns those places into ceilings, refused contacts, consents and the way off.
//
// # Example: one place, kept over visits
//
//	f, off, ok := m.OnFibre(body.Back, touched, "left", heightCM)
//
// ok is false when no part of the muscle is seen in that view within 60 mm. off is how far
// outside the edge the touch was; up to 12 mm still mean the muscle. At the next visit
//
//	m.SameSpot(f, g, "left", heightCM)
//
// says whether the point charted then is the same one: within 15 mm along the fibres and
// 10 mm across them. PerhapsSameSpot is true up to twice as far, and then the therapist is
// asked. These are working values: what a hand can find again.
//
// # Relations
//
// Synergists share an action, with the same joint and side; antagonists do the opposite.
// Actions stand in a file with the strongest first, and a muscle counts by how strong the
// action is in both. A muscle may stand in both lists: levator scapulae lifts the shoulder
// blade with the upper trapezius and turns it against it.
//
// A correction adds or takes out by hand what the actions alone get wrong; each is in the file
// of the muscle that it is about.
//
// # Adding a muscle
//
// One file in data/, its id in core/ids/lists.go, and go generate ./core/atlas, which writes
// files.go. Every muscle that it is mistaken for names it too. Verify in the tests says what
// is missing, with file and field. docs/atlas.md describes the fields.
//
// # Earlier figures
//
// A stored place names the version of the figure on which it was placed. On figure 1 a muscle
// was a few lines and a place lay beside one of them; on figure 2 some sheets lay otherwise.
// figure-1.json and figure-2.json keep what is needed to carry such a place to where it lay
// on the body, or to the nearest edge of the muscle when it is no longer there.
//
// # Invariants
//
//   - The data never changes while the program runs. What is worked out from it is kept for
//     ever: sheets, relations, patterns; near structures, which depend on a client's height,
//     up to a number.
//   - Left and right are mirror images: a place of the right is the mirror image of the same
//     fibre place of the left.
//   - Distances are of a client's height in cm; 170 where it is not known. Files are written
//     for 170 cm.
//   - Every anchor lies on the figure, every site within its part, every stored place on its
//     muscle.
//   - What is near is computed from the courses in core/safety and never left to a file: a
//     file that forgets a nerve changes its words, not the caution.
//   - Nothing here says that a place may be pressed. It says where it lies.
package atlas
