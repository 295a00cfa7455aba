// Package points judges charted points: how certain each is, whether it is
// active, what part it plays beside the others, where a stubborn one may come
// from, and which protocol suits it.
//
//	for _, j := range points.Judge(list, painful) { … } // j.Certainty, j.Activity, j.Roles
//	from := points.Trace(points.Search{Point: "a", Points: list})
//	s := points.Suggest(points.Request{Point: list[0]})
//
// Nothing here depends on the order of the points. What was not said speaks
// neither for nor against.
package points
