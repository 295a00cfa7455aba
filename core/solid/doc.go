// Package solid gives the figure depth. Front, back and side contours make one body: every
// part (head, trunk, arm, hand, leg, foot) is a stack of smooth cross-sections. Their width
// comes from the front view and their depth from the side view, in the standing pose of the
// figure.
//
//	skin, ok := solid.Touch(body.Back, point, "left") // the place on the skin, and the way in
//	line := solid.Press(skin)                         // straight in, down to bone or through
//	mm := solid.Skinwise(a, b)                        // along the skin
//	words := solid.Words(from, to)                    // a step in words of the body
//
// # Vocabulary
//
//   - Point: a place in space: X to the client's left of the midline, Y down from the crown,
//     Z forward of the plumb line through ear, shoulder, hip and ankle. A unit is a thousandth
//     of the height, 1.7 mm in a body of 170 cm (MMPerUnit).
//   - Section: one slice of a part: its middle and its half widths, across and deep.
//   - Stack: the sections of a part along its axis: downwards, along the hand, or along the
//     foot.
//   - Level: below 0 within a part, 0 on its skin, above 0 outside, in half widths.
//   - Skin: a place on the skin with the inward normal.
//   - Pressure: a line from the skin straight in, with its depth to bone.
//   - Ring: a cross-section as it is drawn (mokren figure section).
//
// Palms look forward, as in the front view. The side view shows the forearm turned by a
// quarter about its own axis, so that the back of the hand is seen; what is touched there is
// turned back.
//
// # Data flow
//
//	contours (core/body) ─▶ sections, read once ─▶ level of a point ─▶ Inside, the nearest part
//	touch in a view ─▶ ray through the body ─▶ the skin that this view sees ─▶ Skin
//	Skin ─▶ Press ─▶ bones on the way ─▶ Pressure
//	place in space ─▶ Over, Onto: the skin above it, for a projection or a distance
//
// # What it is good for
//
// The sections are superellipses. They meet the drawn contours exactly and are rounder than a
// body in between, so what is computed from them is good to some millimetres: every cell of
// the eight views lies on the solid and comes back within 6.8 mm (15 at the wrist). It is
// no model of one client, and nothing here is measured on one.
//
// # Invariants
//
//   - Left and right mirror exactly; only the left half is computed.
//   - The normal is a unit vector and points inwards.
//   - What front and side view show of one place is one place, within 3 mm.
//   - Only the standard library and core/body; no clock and no file.
package solid
