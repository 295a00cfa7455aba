// Package bench is the practice bench: a simulated client to learn on, made of the same body, atlas
// and evidence as the rest. It is a pure function of a case, a seed and actions with times in whole
// milliseconds; the same three give the same bytes on every machine. docs/bench.md has the bodies of
// actions and the keys of scores.
//
//	out, err := bench.Run(bench.ExerciseIn{Case: …, Exercise: "reasoning", Actions: …})
//	out.Score["found"], out.Marks
//
// Run lives through a list of actions; Open and Live.Act through one at a time, for a page (Desk) and for
// an exam's server. Both are the same code: what was told step by step is what a run tells.
//
// # Vocabulary
//
//   - Case: a story with its truth, shipped as a file or generated from a seed and a level.
//   - Exercise: what is practised: landmarks, search, grading, asking, reasoning, or a whole visit, which
//     is all of them with one client.
//   - Hold: one press of a grading with the real coach; its times run from its own beginning.
//   - Mark: what happened, when, and by which rule it counts.
//
// # Invariants
//
//   - Only integers, tables and exact operations decide: no power, logarithm or sine, which differ
//     between machines.
//   - The truth is told only when an exercise is finished.
//   - A treatable generated case has its true muscle and side among the engine's first three.
//
// All numbers of tissue, clients and scores are working values.
package bench
