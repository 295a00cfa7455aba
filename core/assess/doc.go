// Package assess turns findings into suspects: posture readings, the geometry of photographs,
// range of motion, tests, the pain drawing, and the evidence that each gives for each muscle.
//
//	ranking := assess.Rank(findings, weights) // nil: the weights as shipped
//	for _, s := range ranking.Suspects { … }  // s.Confidence, s.Why, s.Blocked
//
// What comes out is a guide and is worded as one.
//
// # Vocabulary
//
//   - Finding: something seen, measured, tested or said, with a side where it has one.
//   - Evidence: a kind of finding, with its weight and the source of the weight.
//   - Ratio: the likelihood ratios of a kind: when it is present, and when it was looked for
//     and is absent. What was not looked for says nothing.
//   - Hypothesis: one muscle on one side. It begins at a prior and adds the logarithm of each
//     ratio (natural log-odds).
//   - Group: findings that say the same. Within a group the strongest counts in full and the
//     others are damped, so that one thing said five ways is not five reasons.
//   - Suspect: a hypothesis with its confidence, 0 to 1, and its reasons.
//   - Line (Threshold, 0.80): from here on a suspect is ready for hands. The weights are set
//     so that no kind of finding reaches it alone.
//   - Gain: by how many bits a test is expected to lower the uncertainty of the whole list.
//   - Gauge: a measure beside the ranges of motion, such as toe-touch in cm.
//   - Calibration: what the list said, beside what hands found later.
//
// # Data flow
//
//	findings ─▶ newModel (every muscle, both sides) ─▶ add each finding to the hypotheses
//	         that it speaks of ─▶ Suspects, highest first
//	model ─▶ each test not done yet ─▶ expected entropy after it ─▶ NextTest
//	findings ─▶ kinds that were not taken ─▶ Missing, the most telling first
//
// A finding speaks of muscles through the atlas (actions, what they restrict, referral
// regions) or through a table beside the test; side-bends and turns of the spine follow the
// muscle's own side.
//
// # Invariants
//
//   - The order of findings does not matter.
//   - Confidence is above 0 and below 1: nothing is proven here.
//   - A muscle that safety blocks stays in the list, is marked, and is never ready.
//   - Weights of a practice are bounded (Ratio), so that none can decide alone.
//   - Every number of a bound or a threshold carries its source in the row where it stands.
package assess
