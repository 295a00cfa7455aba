package safety

import (
	"encoding/json"
	"fmt"
)

// What a build may have laid out as values of Go in the place of this file, so that nothing is read
// when the program starts (cmd/slim).

// structureData reads the embedded file; the tests have read it strictly.
func structureData() (out []entry) {
	if err := json.Unmarshal(structureFile, &out); err != nil {
		panic(fmt.Errorf("reading structures.json: %w", err))
	}
	return out
}

// StartData gives each of them by the name of its function.
func StartData() map[string]any { return map[string]any{"structureData": structureData()} }
