package cluster_test

import (
	"context"
	"database/sql"
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/store/cluster"
)

// One cluster through its life: made, locked, crashed and brought back,
// stopped, and found again with its data.
func TestLifeOfACluster(t *testing.T) {
	ctx := context.Background()
	dir, err := os.MkdirTemp("", "mokren-cluster-")
	require.NoError(t, err)
	defer os.RemoveAll(dir)
	c, err := cluster.Open(ctx, dir)
	require.NoError(t, err)
	defer c.Stop() //nolint:errcheck // stopped below; this is for a failed test

	db, err := sql.Open("pgx", c.OwnerURL("mokren"))
	require.NoError(t, err)
	defer db.Close()
	_, err = db.Exec(`create table kept (n int); insert into kept values (7)`)
	require.NoError(t, err)

	_, err = cluster.Open(ctx, dir)
	require.ErrorContains(t, err, "another Mokren is running")

	require.NoError(t, c.Kill())
	assert.Eventually(t, func() bool { return count(db) == 7 }, 30*time.Second, 100*time.Millisecond,
		"it comes back by itself on the same port, with its data")

	require.NoError(t, c.Stop())
	assert.NotEqual(t, 7, count(db), "nothing is left running")
	_, err = os.Stat(dir + "/data/postmaster.pid")
	assert.ErrorIs(t, err, os.ErrNotExist)

	again, err := cluster.Open(ctx, dir)
	require.NoError(t, err)
	db2, err := sql.Open("pgx", again.OwnerURL("mokren"))
	require.NoError(t, err)
	defer db2.Close()
	assert.Equal(t, 7, count(db2))
	require.NoError(t, again.Stop())
}

func count(db *sql.DB) int {
	n := -1
	db.QueryRow(`select n from kept`).Scan(&n) //nolint:errcheck // -1 says it
	return n
}
