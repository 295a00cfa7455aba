package strict_test

import (
	"fmt"

	"mokren/core/strict"
)

func ExampleDecode() {
	var in struct {
		Grade int `json:"grade" minimum:"0" maximum:"4"`
	}
	fmt.Println(strict.Decode([]byte(`{"grade": 5}`), &in))
	fmt.Println(strict.Decode([]byte(`{"Grade": 3}`), &in))
	// Output:
	// $.grade: given 5; allowed: a whole number from 0 to 4
	// $.Grade: given an unknown field; allowed: one of grade
}
