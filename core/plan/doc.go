// Package plan fits a session into the time there is: which points, in which
// order, lying how. The choice is exact up to 14 points: the most worth treated
// within the minutes, then the fewest turns of the client, then the shortest.
//
//	p, err := plan.Make(plan.Request{Minutes: 45, Points: list})
//	for _, s := range p.Steps { … } // s.Kind, s.Position, s.StartsMin, s.Minutes
//
// An order of the therapist's own is taken as it is; what it breaks is said,
// and what safety forbids is left out of it all the same. During the session the
// same request with what was done, and the time gone, gives the rest anew.
package plan
