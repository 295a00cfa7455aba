package ids_test

import (
	"fmt"

	"mokren/core/ids"
)

func ExampleMuscle_Check() {
	fmt.Println(ids.Muscle("soleus").Check())
	fmt.Println(ids.Muscle("solues").Check().Allowed)
	// Output:
	// <nil>
	// a known muscle id (nearest: soleus)
}
