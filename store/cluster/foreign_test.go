package cluster_test

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/store/cluster"
)

// A folder that cannot be served is named before anyone gives up waiting.
func TestAForeignFolderIsNamedAtOnce(t *testing.T) {
	dir, err := os.MkdirTemp("", "mokren-foreign-")
	require.NoError(t, err)
	defer os.RemoveAll(dir)
	c, err := cluster.Open(t.Context(), dir)
	require.NoError(t, err)
	require.NoError(t, c.Stop())
	for _, k := range []struct{ name, file, text, says string }{
		{"another's secret", "secret", "NOTTHESECRETOFTHISFOLDER\n", "without its secrets"},
		{"another version", "data/PG_VERSION", "9\n", "made by PostgreSQL 9"},
		{"a file cut off", "data/global/pg_control", "", "PostgreSQL does not start"},
	} {
		t.Run(k.name, func(t *testing.T) {
			path := filepath.Join(dir, k.file)
			was, err := os.ReadFile(path)
			require.NoError(t, err)
			require.NoError(t, os.WriteFile(path, []byte(k.text), 0o600))
			_, err = cluster.Open(t.Context(), dir)
			require.ErrorContains(t, err, k.says)
			assert.ErrorContains(t, err, dir)
			require.NoError(t, os.WriteFile(path, was, 0o600))
		})
	}
	again, err := cluster.Open(t.Context(), dir)
	require.NoError(t, err, "nothing was harmed by trying")
	require.NoError(t, again.Stop())
}
