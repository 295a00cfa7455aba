package safety_test

import (
	"fmt"

	"mokren/core/safety"
)

func ExampleScreen() {
	s := safety.Screen([]safety.Answer{{Question: "calf-warm-swollen", Answer: "yes"}})
	fmt.Println(s.Outcome, s.NoTreatment)
	// Output: refer-first true
}
