package rights_test

import (
	"fmt"

	"mokren/core/rights"
)

func ExampleMayCall() {
	fmt.Println(rights.MayCall(rights.Student, "open-visit"), rights.MayCall(rights.Student, "put-weight"))
	// Output: true false
}
