// Package sequence is everything around the hold: strokes, kneading, stretches and movements in an
// order that is trusted for a region, counted and timed, on one side and then the other.
//
// Vocabulary: a technique is one thing that hands do, a row of the table with its dose, its bounds
// and what forbids it. A step is a technique at a place, with position, contact and dose. A
// sequence is 1 to 60 steps and how its sides go: once, each step on both sides in turn, or the
// whole on one side and then the other. A turn is the client lying down otherwise.
//
// Data flow: Lay takes a sequence and what is known of the client today. Every step is first laid
// out on its sides, then checked (check.go): what is ruled out is left out and says why, a dose is
// lowered where a limit is lower, another position or contact is taken where one is barred. Then
// all is fitted to the minutes (fit.go), and the times follow from the doses and the turns.
//
// Invariants: a step that presses passes the same rules as a hold (core/safety); contract–relax and
// its kin name their protocol and are no copies of it; nothing is ever lengthened to fill the time;
// a side that is ruled out is not a forgotten side. Doses are seconds; a breath is 5 s, a turn
// 120 s.
//
// Doses are of practitioners' common use (working defaults); what forbids comes from core/safety,
// where each rule carries its source.
package sequence
