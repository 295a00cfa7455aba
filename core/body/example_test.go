package body_test

import (
	"fmt"

	"mokren/core/body"
)

func ExampleRegionOf() {
	cell := body.CellAt(body.Back, body.Point{X: 195, Y: 770})
	named, onTheFigure := body.RegionOf(cell)
	fmt.Println(named.Region, named.Side, onTheFigure)
	// Output: upper-calf left true
}
