package decode_test

import (
	"fmt"

	"mokren/core/decode"
)

func ExampleJSON() {
	var in struct {
		Grade int `json:"grade" minimum:"0" maximum:"4"`
	}
	fmt.Println(decode.JSON([]byte(`{"grade": 5}`), &in))
	fmt.Println(decode.JSON([]byte(`{"Grade": 3}`), &in))
	// Output:
	// $.grade: given 5; allowed: a whole number from 0 to 4
	// $.Grade: given an unknown field; allowed: one of grade
}
