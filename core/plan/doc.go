// Package plan fits a session into the time there is: which points, in which order, lying
// how. The choice is exact up to 14 points: the most worth treated within the minutes, then
// the fewest turns of the client, then the shortest.
//
//	p, err := plan.Make(plan.Request{Minutes: 45, Points: list})
//	for _, s := range p.Steps { … } // s.Kind, s.Position, s.StartsMin, s.Minutes
//
// # Vocabulary
//
//   - Point: what was judged, with its part, its protocol and where it lies.
//   - Worth: how much a point matters today: active before latent, primary before satellite,
//     in the region of the complaint before elsewhere.
//   - Block: a fixed part of the session: recheck, warm-up, lengthening, closing.
//   - Step: a block, a turn of the client, or a point.
//   - Turn: the client changes position. It costs time and trust.
//   - Candidate: a point that may be planned. The others are left out, each with its reason.
//   - Rule of order: for example a primary point before its satellites, the most intense not
//     last, never both sides of the front of the neck in a row.
//   - Order by hand: the therapist's own. It is taken as it is; what it breaks is said, and
//     what safety forbids is left out of it all the same.
//
// # Data flow
//
//	Request ─▶ candidates (safety, two treatments a site and day, screening)
//	        ─▶ problem: worth, minutes, positions, what must come before what
//	        ─▶ best (dynamic programming over sets of points) ─▶ route ─▶ Steps with times
//
// What a set of points is worth, its pressure and its minutes do not depend on its order. So
// the search keeps, for every set, how the client lies at its end and which side of the neck
// was pressed last, the best way to get there. Above 14 points the least worth is left out
// first, and a note says so.
//
// During the session the same request, with what was done and the minutes gone, gives the
// rest anew: nothing is remembered here.
//
// SearchOrder puts muscles in the order of a search with the fewest turns.
//
// # Invariants
//
//   - The same request gives the same plan, whatever the order of its points.
//   - No plan is longer than its minutes, unless the order is by hand; then OverMin says by
//     how much.
//   - No site gets more than two treatments a day, done and planned together.
//   - Every point of the request is in the plan or left out with a reason.
package plan
