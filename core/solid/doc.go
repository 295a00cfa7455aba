// Package solid gives the figure depth. Front, back and side contours make one body:
// every part (head, trunk, arm, hand, leg, foot) is a stack of smooth cross-sections,
// whose width comes from the front view and whose depth comes from the side view, in
// the standing pose of the figure. Units are thousandths of the height.
//
// A place has X to the client's left of the midline, Y down from the crown and Z
// forward of the plumb line through ear, shoulder, hip and ankle. Palms look forward,
// as in the front view; the side view shows the forearm turned by a quarter about its
// own axis, so that the back of the hand is seen.
//
// The sections are superellipses: they meet the drawn contours exactly and are rounder
// than a body in between. What is computed from them is good to some millimetres.
package solid
