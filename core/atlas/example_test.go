package atlas_test

import (
	"fmt"

	"mokren/core/atlas"
)

func ExampleSearch() {
	for _, m := range atlas.Search(atlas.Query{Text: "infraspinatis"}) {
		fmt.Println(m.Name, m.Layer)
	}
	// Output: Infraspinatus 2
}
