// Package sequence is everything around the hold: strokes, kneading, stretches and movements in an
// order that is trusted for a region, counted and timed, on one side and then the other.
//
// # Vocabulary
//
// A technique is one thing that hands do, a row of the table (techniques.go) with its dose, its
// bounds and what forbids it. A step is a technique at a place, with position, contact and dose. A
// place is a region, a muscle, a muscle with one of its usual places (soleus:middle), or points:
// each point that is charted. A sequence is 1 to 60 steps and how its sides go: once, each step on
// both sides in turn, or the whole on one side and then the other. A turn is the client lying down
// otherwise. A block is the part of a session that a sequence fills: warm-up, lengthen or close.
//
// # Data flow
//
// Lay takes a sequence and what is known of the client today, and goes through four stages:
//
//  1. unfolded (lay.go): every step is laid out on its sides. What lies on the midline, and what
//     stands at a charted point, is done once. On the other side the client lies the other way
//     round: on the left side for the right one.
//  2. rule (check.go): what is ruled out is left out and says why; else another position or
//     contact is taken where one is barred, the dose is lowered where a limit is lower, and the
//     text says what to be careful of.
//  3. fit (fit.go): where minutes are given, doses are shortened to their minimum by ascending
//     importance, later steps first; then steps are dropped likewise, both sides together. What
//     closes is given up last. Nothing is ever lengthened to fill the time.
//  4. time: each step's beginning follows from the doses before it and from the turns.
//
// # What rules a step out
//
// In this order, the first reason is given:
//
//   - the screening allows no treatment at all (an emergency, or refer first);
//   - the neck: no full circles, no strokes across its front and side, no shaking;
//   - the joint: a stretch, push, pull or movement that an answer forbids (safety.Screening.Moves),
//     and the rules of the protocol that the step is run by;
//   - what presses, lightly or firmly: a blocked region or muscle, and a place closed today;
//   - what presses firmly: a site that was pressed less than 48 hours ago or twice today, a
//     structure in danger under the hand, a region with ceilings of its own;
//   - no position in which it can be done is allowed today;
//   - no contact of the technique may be used there.
//
// A consent of its own (buttock, chest, groin and so on) is told with the step; whoever knows which
// consents were given leaves out what lacks one (LaidOut.Without).
//
// # Units and invariants
//
// Doses are seconds; a breath is 5 s, a turn 120 s, and the first position is free. Steps count
// from 1. A step that presses passes the same rules as a hold (core/safety), when it is laid out and
// again when it is admitted (core/visit). Contract–relax and its kin name their protocol and are no
// copies of it. A side that is ruled out is not a forgotten side. The sum of a fitted plan never
// passes its minutes; with too few nothing is left.
//
// # Sources
//
// Doses and orders are of practitioners' common use (working defaults, class "working order of
// experienced practitioners"). What forbids comes from core/safety, where each rule carries its
// source.
package sequence
