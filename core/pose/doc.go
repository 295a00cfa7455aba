// Package pose draws how a movement is measured and how a muscle is set: a lay figure whose
// segments turn about the joints of the body model.
//
// Vocabulary: a segment is a rigid part of the figure (thigh), carried by the one before it
// (pelvis) and turned about the joint between them (hip). A plane is the picture in which a
// movement is seen in its true angle: from the side for bending and straightening, from the front
// for leading away and bending sideways. What turns about its own length (rotation of the neck,
// pronation) is seen in no plane; there the drawing says so and shows an arrow.
//
// Data flow: the joints come from the landmarks of core/body; a table (movements.go) says for each
// movement which segment turns, in which plane, from which start and which way round; Draw gives
// the shapes with the moving ones at zero, and the page turns them by the angle of the moment.
//
// Invariants: angles are degrees of the movement as the handbook counts them, from the neutral
// zero; Sense is +1 where a growing angle turns clockwise on the picture. Lengths are thousandths
// of the body's height.
//
//	d, _ := pose.Draw("knee.flexion", "left")
//	// Turn d.Moving about d.Pivot by d.Sense × 90 for 90°.
package pose
