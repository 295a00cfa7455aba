package visit

import (
	"fmt"
	"slices"

	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/strict"
	"mokren/core/wording"
)

var testDone = kind{
	name: "test-done",
	body: func() Body { return new(Tested) },
	by:   rights.Role.Clinical,
}

// Tested is a test done; unclear takes an earlier answer back.
type Tested struct {
	Test   ids.Test `json:"test"`
	Side   ids.Side `json:"side"`
	Result string   `json:"result" enum:"positive,negative,unclear"`
}

// Check implements strict.Checker: a side that a test can have.
func (t Tested) Check() *strict.Error {
	return leftOrRight(t.Side)
}

func (t *Tested) sets(Event) []thing {
	return []thing{{"result of a test", "test:" + string(t.Test) + ":" + string(t.Side)}}
}

func (t *Tested) apply(r *reducer, _ Event) error {
	r.state.Tests = slices.DeleteFunc(r.state.Tests,
		func(x Tested) bool { return x.Test == t.Test && x.Side == t.Side })
	r.state.Tests = append(r.state.Tests, *t)
	return nil
}

func (t *Tested) timeline() string {
	return fmt.Sprintf("Test: %s: %s", wording.OnSide(wording.Plain(t.Test), t.Side), t.Result)
}
