package rights_test

import (
	"fmt"

	"mokren/core/rights"
)

func ExampleMayWrite() {
	fmt.Println(rights.MayWrite(rights.Student, "hold-started"), rights.MayWrite(rights.Student, "block-overridden"))
	// Output: true false
}
