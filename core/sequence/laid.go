package sequence

import (
	"encoding/json"
	"fmt"
)

// What a build may have laid out as values of Go in the place of this file, so that nothing is read
// when the program starts (cmd/slim).

// shippedData reads the embedded files; a test has read them strictly.
func shippedData() []Shipped {
	out := make([]Shipped, len(files))
	for i, raw := range files {
		if err := json.Unmarshal([]byte(raw), &out[i]); err != nil {
			panic(fmt.Errorf("reading sequence %d: %w", i, err))
		}
	}
	return out
}

// StartData gives each of them by the name of its function.
func StartData() map[string]any { return map[string]any{"shippedData": shippedData()} }
