package calc_test

import (
	"bytes"
	"encoding/json"
	"testing"

	"mokren/core/calc"
)

// fuzz hands whatever is thought of to a computation: it answers with JSON that is the
// same twice, or refuses; it never panics.
func fuzz(f *testing.F, name string) {
	c, ok := calc.Find(name)
	if !ok {
		f.Fatal("no such computation: ", name)
	}
	f.Add([]byte(c.Example))
	f.Fuzz(func(t *testing.T, raw []byte) {
		out, err := calc.Run(name, raw)
		if err != nil {
			return
		}
		for line := range bytes.Lines(out) {
			if !c.Lines {
				line = out
			}
			if !json.Valid(bytes.TrimSpace(line)) {
				t.Fatalf("%s answers what is not JSON: %q", name, line)
			}
			if !c.Lines {
				break
			}
		}
		again, err := calc.Run(name, raw)
		if err != nil || !bytes.Equal(out, again) {
			t.Fatalf("%s answers the same question in two ways: %q, %q, %v", name, out, again, err)
		}
	})
}

func FuzzCoach(f *testing.F)    { fuzz(f, "coach") }
func FuzzPlan(f *testing.F)     { fuzz(f, "plan") }
func FuzzJudge(f *testing.F)    { fuzz(f, "judge") }
func FuzzSuspects(f *testing.F) { fuzz(f, "suspects") }
