// Package stable sorts lists, the equal ones left as they were.
package stable

import "slices"

// Sort sorts a list by a comparison. It sorts the places, so that the sorting itself is
// compiled once and not for each kind of list: the browser loads the core.
func Sort[T any](list []T, compare func(a, b T) int) {
	places := make([]int, len(list))
	for i := range places {
		places[i] = i
	}
	before := slices.Clone(list)
	sortPlaces(places, func(i, j int) int { return compare(before[i], before[j]) })
	for to, from := range places {
		list[to] = before[from]
	}
}

// sortPlaces never finds two alike: of equal ones the earlier comes first.
func sortPlaces(places []int, compare func(i, j int) int) {
	slices.SortFunc(places, func(i, j int) int {
		if c := compare(i, j); c != 0 {
			return c
		}
		return i - j
	})
}
