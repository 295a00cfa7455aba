package visit

import (
	"fmt"
	"slices"

	"mokren/core/atlas"
	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/wording"
)

var muscleSearched = kind{
	name: "muscle-searched",
	body: func() Body { return new(MuscleSearched) },
	by:   rights.Role.Clinical,
}

// MuscleSearched is a search that found no point; open takes it back.
type MuscleSearched struct {
	Muscle ids.Muscle `json:"muscle"`
	Side   ids.Side   `json:"side"`
	Result string     `json:"result" enum:"nothing,not-reachable,open"`
}

// Check implements decode.Checker: a muscle that can be searched, and a side that it has.
func (b MuscleSearched) Check() *decode.Error {
	if e := atlas.Pressable(b.Muscle, "$.muscle"); e != nil {
		return e
	}
	return leftOrRight(b.Side)
}

// sets: the result of a search is of one muscle on one side.
func (b *MuscleSearched) sets(Event) []thing {
	return []thing{{"search of a muscle", "search:" + string(b.Muscle) + ":" + string(b.Side)}}
}

// apply replaces the earlier result; open means that the search has not happened after all.
func (b *MuscleSearched) apply(r *reducer, _ Event) error {
	s := &r.state
	s.Searched = slices.DeleteFunc(s.Searched,
		func(x MuscleSearched) bool { return x.Muscle == b.Muscle && x.Side == b.Side })
	if b.Result != "open" {
		s.Searched = append(s.Searched, *b)
	}
	return nil
}

// timeline tells what was searched and with which result, since nothing else in the record
// does.
func (b *MuscleSearched) timeline() string {
	return fmt.Sprintf("Searched: %s: %s", wording.Muscle(b.Muscle, b.Side, ""), wording.Plain(b.Result))
}
