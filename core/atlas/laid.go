package atlas

import (
	"encoding/json"

	"mokren/core/ids"
)

// What a build may have laid out as values of Go in the place of this file, so that nothing is read
// when the program starts (cmd/slim).

// muscleData reads the embedded files, by id; the tests have read them strictly.
func muscleData() []Muscle {
	all, err := read(files(), func(raw []byte, m *Muscle) error { return json.Unmarshal(raw, m) })
	if err != nil {
		panic(err) // the data is embedded and tested
	}
	out := make([]Muscle, 0, len(all))
	for _, id := range ids.Muscles() {
		if m, ok := all[id]; ok {
			out = append(out, *m)
		}
	}
	return out
}

// StartData gives each of them by the name of its function.
func StartData() map[string]any { return map[string]any{"muscleData": muscleData()} }
