package calc_test

import (
	"fmt"

	"mokren/core/calc"
)

func ExampleRun() {
	_, err := calc.Run("range", []byte(`{"movement":"cervical.rotatoin"}`))
	fmt.Println(err)
	// Output: $.movement: given "cervical.rotatoin"; allowed: a known movement id (nearest: cervical.rotation)
}
