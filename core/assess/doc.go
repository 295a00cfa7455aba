// Package assess turns findings into suspects: posture readings, photographs'
// geometry, range of motion, tests, the pain drawing, and the evidence that
// each gives for each muscle.
//
//	ranking := assess.Rank(findings, weights) // nil: what was shipped
//
// What comes out is a guide and is worded as one.
package assess
