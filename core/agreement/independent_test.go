package agreement_test

import (
	_ "embed"
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/agreement"
)

//go:embed testdata/independent.json
var independent []byte

// Thirty random sets of findings come to what packages of another language make of them, to four
// digits; testdata/independent.R made them.
func TestAnIndependentPackageSaysTheSame(t *testing.T) {
	var sets []struct {
		Kind             string
		Data             [][]float64
		Value, Low, High float64
	}
	require.NoError(t, json.Unmarshal(independent, &sets))
	require.Len(t, sets, 30)
	for i, s := range sets {
		var value, low, high float64
		if s.Kind == "icc" {
			c := agreement.ICCOf(s.Data)
			value, low, high = c.Value, c.Low, c.High
		} else {
			k := agreement.KappaOf(s.Data, s.Kind == "quadratic")
			value, low, high = k.Value, k.Low, k.High
		}
		assert.InDelta(t, s.Value, value, 5e-5, "set %d, %s", i, s.Kind)
		assert.InDelta(t, s.Low, low, 5e-5, "set %d, %s", i, s.Kind)
		assert.InDelta(t, min(1, s.High), high, 5e-5, "set %d, %s", i, s.Kind)
	}
}
