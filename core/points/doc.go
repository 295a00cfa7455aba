// Package points judges charted points: how certain each is, whether it is active, what part
// it plays beside the others, where a stubborn one may come from, and which protocol suits it.
//
//	for _, j := range points.Judge(list, painful) { … } // j.Certainty, j.Activity, j.Roles
//	from, ok := points.Trace(points.Search{Point: "a", Points: list})
//	s := points.Suggest(points.Request{Point: list[0]})
//
// # Vocabulary
//
//   - Point: a place on a muscle with what was felt there, by the hand and by the client. A
//     field that is absent was not said, and no default stands for it.
//   - Criteria: taut band, hypersensitive spot, referred pain. Two of the three make a trigger
//     point (international consensus, 2018); one makes it possible.
//   - Hypersensitive: tenderness grade 2 or more, score 4 or more, or a pressure pain threshold
//     196 kPa (2 kgf/cm²) below that of the other side (Fischer 1987).
//   - Active: pressing it gives the pain that the client came with. Latent: it is a trigger
//     point and does not.
//   - Zone: where the point lies and where its pain is felt. Whose word it is counts in this
//     order: what the client answered this time, what this client has answered before, the
//     usual pattern.
//   - Role: primary (it depends on no other active point), satellite (it lies in the zone of
//     another), functional (its muscle works with or against another in a movement that
//     hurts).
//   - Match: how far the painted answer and the usual pattern overlap (Dice, 0 to 1).
//   - Suggestion: a protocol with its limits, or the reason why there is none.
//
// # Data flow
//
//	Point ─▶ judge (by itself) ─▶ roles (beside all active points) ─▶ Judgement, with words
//	Point that did not let go ─▶ Trace: suspects, zones, relations, what was searched ─▶ Candidate
//	Point + Screening + what helped before ─▶ Suggest ─▶ Suggestion
//
// Suggest goes through its rules in their order. The first that matches names the protocol;
// the limits of all combine, the strictest of each. What safety forbids is decided before,
// and a protocol that is chosen by hand passes the same gates.
//
// # Invariants
//
//   - Nothing here depends on the order of the points.
//   - What was not said speaks neither for nor against; Unsaid lists the answers that could
//     change the result.
//   - A suggestion never lies above the limits of the place or of the screening.
//   - The words of a judgement name its reasons and nothing that was not found.
package points
