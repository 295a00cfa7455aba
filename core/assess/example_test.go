package assess_test

import (
	"fmt"

	"mokren/core/assess"
)

func ExampleRank() {
	deg, other := 9.0, 20.0
	ranking := assess.Rank(assess.Findings{
		Pain: []assess.Pain{{Region: "heel", Side: "left", Intensity: 7}},
		ROM: []assess.ROM{
			{Movement: "ankle.dorsiflexion-knee-bent", Side: "left", Active: &deg},
			{Movement: "ankle.dorsiflexion-knee-bent", Side: "right", Active: &other},
		},
	}, nil)
	first := ranking.Suspects[0]
	fmt.Println(first.Muscle, first.Side)
	// Output: soleus left
}
