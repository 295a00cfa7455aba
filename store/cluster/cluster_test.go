package cluster_test

import (
	"context"
	"database/sql"
	"net/url"
	"os"
	"syscall"
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

	// D10: who knows one role's secret knows no other's.
	passwords := map[string]bool{}
	for _, address := range []string{c.AdminURL("mokren"), c.OwnerURL("mokren"), c.AppURL("mokren")} {
		u, err := url.Parse(address)
		require.NoError(t, err)
		p, _ := u.User.Password()
		passwords[p] = true
	}
	assert.Len(t, passwords, 3)

	// D9: what goes wrong in a statement is not written down, nor its values.
	_, err = db.Exec(`select 'private-health'::int`)
	require.Error(t, err)
	_, err = db.Exec(`insert into kept values ($1)`, "private-health")
	require.Error(t, err)
	log, err := os.ReadFile(dir + "/server.log")
	require.NoError(t, err)
	assert.NotContains(t, string(log), "private-health")
	assert.NotContains(t, string(log), "insert into")

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

// D12: a restart right after a kill waits for the folder to be let go.
func TestD12ARestartWaitsForTheLock(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, os.Chmod(dir, 0o755))
	held, err := os.OpenFile(dir+"/lock", os.O_CREATE|os.O_RDWR, 0o600)
	require.NoError(t, err)
	require.NoError(t, syscall.Flock(int(held.Fd()), syscall.LOCK_EX))
	go func() {
		time.Sleep(300 * time.Millisecond) // the old one is on its way out
		held.Close()
	}()
	c, err := cluster.Open(context.Background(), dir)
	require.NoError(t, err)
	require.NoError(t, c.Stop())
}

func count(db *sql.DB) int {
	n := -1
	db.QueryRow(`select n from kept`).Scan(&n) //nolint:errcheck // -1 says it
	return n
}
