package bench_test

import (
	"encoding/json"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/bench"
	"mokren/core/decode"
)

// The same case, seed and actions give the same bytes on every machine: testdata/NAME.in.json gives
// testdata/NAME.out.json, natively and in WebAssembly. MOKREN_GOLDEN=1 writes the answer of a new one.
func TestGoldenExercises(t *testing.T) {
	list, err := filepath.Glob(filepath.Join("testdata", "*.in.json"))
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(list), 6)
	for _, name := range list {
		raw, err := os.ReadFile(name)
		require.NoError(t, err)
		var in bench.ExerciseIn
		require.NoError(t, decode.JSON(raw, &in), name)
		out, err := bench.Run(in)
		require.NoError(t, err, name)
		got, err := json.Marshal(out)
		require.NoError(t, err)
		wanted := name[:len(name)-len("in.json")] + "out.json"
		if _, err := os.Stat(wanted); err != nil && os.Getenv("MOKREN_GOLDEN") != "" {
			require.NoError(t, os.WriteFile(wanted, got, 0o600))
		}
		want, err := os.ReadFile(wanted)
		require.NoError(t, err)
		assert.Equal(t, string(want), string(got), name)
	}
}
