// Package pose draws how a movement is measured, and the positions that words name: a lay figure
// whose segments turn about the joints of the body model.
//
// # Vocabulary
//
// A segment is a rigid part of the figure (thigh), carried by the one before it (pelvis) and turned
// about the joint between them (hip). A plane is the picture in which a movement is seen in its
// true angle: from the side for bending and straightening, from the front for leading away and
// bending sideways. What turns about its own length (rotation of the neck, pronation) is seen in no
// plane; there the drawing says so and shows an arrow. The start is how the client is placed.
//
// # Data flow
//
// The joints come from the landmarks of core/body, moved from the skin to the middle of the joint;
// straight limbs hang plumb, so that zero is zero. A table (movements.go) says for each movement
// which segment turns, in which plane, from which start and which way round. Draw sets the joints of
// the start, lays the whole figure down where the start lies, and gives the shapes in two heaps:
// what stands still, and what turns, at 0°. The page turns the second about Pivot by Sense times the
// angle of the moment, so a streamed reading costs no question to the core.
//
//	d, _ := pose.Draw("knee.flexion", "left")
//	// Turn d.Moving about d.Pivot by d.Sense × 90 for 90°.
//
// # Sides
//
// From the side the figure looks to the picture's right for a right limb and to the left for a left
// one. From the front a left limb is on the picture's right, as it is of somebody who stands before
// one. The drawing of the other side is the mirror image, and its sense is the opposite.
//
// # Units and invariants
//
// Lengths are thousandths of the body's height, y down. Angles are degrees of the movement as the
// handbook counts them, from the neutral zero; Sense is +1 where a growing angle turns clockwise on
// the picture and −1 where it turns the other way. The frame holds the pivot and the whole way of
// what moves. A movement that is no turn about a joint (the opening of the jaw is a distance) has no
// drawing, and the error says so.
//
// Known limit: the segments are round-ended, not the outlines of the figure.
//
// # Positions
//
// Position draws several joints at once: how a muscle lies on stretch or on slack, what a test asks
// for. The plane is the one that shows most of them; what turns about its own length in it is an
// arrow, what slides (the shoulder blade) a line, and what the figure does not have (jaw, thumb) is
// named. Where the atlas knows no degrees none are claimed: the joint is drawn as a direction.
package pose
