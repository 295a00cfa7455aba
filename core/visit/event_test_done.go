package visit

import (
	"fmt"
	"slices"

	"mokren/core/decode"
	"mokren/core/ids"
	"mokren/core/rights"
	"mokren/core/wording"
)

var testDone = kind{
	name: "test-done",
	body: func() Body { return new(TestDone) },
	by:   rights.Role.Clinical,
}

// TestDone is a test done; unclear takes an earlier answer back.
type TestDone struct {
	Test   ids.Test `json:"test"`
	Side   ids.Side `json:"side"`
	Result string   `json:"result" enum:"positive,negative,unclear"`
}

// Check implements decode.Checker: a side that a test can have.
func (t TestDone) Check() *decode.Error {
	return leftOrRight(t.Side)
}

func (t *TestDone) sets(Event) []thing {
	return []thing{{"result of a test", "test:" + string(t.Test) + ":" + string(t.Side)}}
}

func (t *TestDone) apply(r *reducer, _ Event) error {
	r.state.Tests = slices.DeleteFunc(r.state.Tests,
		func(x TestDone) bool { return x.Test == t.Test && x.Side == t.Side })
	r.state.Tests = append(r.state.Tests, *t)
	return nil
}

func (t *TestDone) timeline() string {
	return fmt.Sprintf("Test: %s: %s", wording.OnSide(wording.Plain(t.Test), t.Side), t.Result)
}
