package visit_test

import (
	"encoding/json"
	"io/fs"
	"reflect"
	"strings"
	"testing"

	"mokren/core/visit"
)

// Whatever a log holds, it comes to a state, and to the same one twice.
func FuzzReduce(f *testing.F) {
	for _, log := range goldenLogs(f) {
		f.Add(log)
	}
	f.Fuzz(func(t *testing.T, raw []byte) {
		var events []visit.Event
		if json.Unmarshal(raw, &events) != nil || len(events) > 500 {
			return
		}
		a, b := visit.Reduce(visit.Context{}, events), visit.Reduce(visit.Context{}, events)
		if !reflect.DeepEqual(a, b) {
			t.Fatal("one log, two states")
		}
		a.Treated()
		a.LeftOff()
	})
}

// goldenLogs are the logs that never change, as JSON.
func goldenLogs(f *testing.F) (out [][]byte) {
	f.Helper()
	files, err := fs.Glob(golden, "testdata/*/*.txt")
	if err != nil || len(files) == 0 {
		f.Fatal("no golden logs: ", err)
	}
	for _, name := range files {
		raw, err := golden.ReadFile(name)
		if err != nil {
			f.Fatal(err)
		}
		var events []string
		for line := range strings.Lines(string(raw)) {
			if text, ok := strings.CutPrefix(line, "> "); ok {
				events = append(events, strings.TrimSpace(text))
			}
		}
		out = append(out, []byte("["+strings.Join(events, ",")+"]"))
	}
	return out
}
