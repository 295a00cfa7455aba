package picture_test

import (
	"fmt"

	"mokren/core/ids"
	"mokren/core/picture"
)

func ExampleDraw() {
	drawn := picture.Draw(picture.LayerRequest{
		View: "back", Layers: []picture.Layer{"muscles"}, Only: []ids.Muscle{"soleus"}, Side: "left",
	})
	for _, s := range drawn.Strands {
		fmt.Println(s.Muscle, s.Side)
	}
	// Output:
	// soleus left
}
