package progress_test

import (
	"fmt"

	"mokren/core/progress"
)

func ExamplePair() {
	c, err := progress.Pair("nprs", 7, 4)
	fmt.Println(c.Text, err)
	// Output: clearly better <nil>
}
