package e2e

import (
	"context"
	"errors"
	"net/http"
	"os"
	"path/filepath"
	"sync"
	"sync/atomic"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/visit"
	"mokren/demo"
	"mokren/demo/crowd"
	"mokren/store"
	"mokren/store/cluster"
)

// smallDisk is a disk of its own, of so many bytes.
func smallDisk(t *testing.T, size string) string {
	t.Helper()
	// Not t.TempDir: as root the database runs as another user, who must get in.
	dir, err := os.MkdirTemp("", "mokren-small-")
	require.NoError(t, err)
	t.Cleanup(func() { os.Remove(dir) })
	if err := syscall.Mount("tmpfs", dir, "tmpfs", 0, "size="+size+",mode=0755"); err != nil {
		require.ErrorIs(t, err, syscall.EPERM)
		t.Skip("only root may mount a disk; the database's own word for a full one is tried in the API's tests")
	}
	t.Cleanup(func() { assert.NoError(t, syscall.Unmount(dir, 0)) })
	return dir
}

// fill leaves no byte free.
func fill(t *testing.T, path string) {
	t.Helper()
	f, err := os.Create(path)
	require.NoError(t, err)
	defer f.Close()
	for _, size := range []int{1 << 20, 4096} {
		for err = nil; err == nil; {
			_, err = f.Write(make([]byte, size))
		}
		require.True(t, errors.Is(err, syscall.ENOSPC), "%v", err)
	}
}

// The disk beneath PostgreSQL fills while clients are treated. What was acknowledged
// stays, what is refused waits on its device, and once there is room all of it arrives.
func TestHoldsOverAFullDisk(t *testing.T) {
	t.Parallel()
	disk := smallDisk(t, "160m")
	ctx := t.Context()
	own, err := cluster.Open(ctx, filepath.Join(disk, "pg"))
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, own.Stop()) })
	require.DirExists(t, filepath.Join(disk, "pg", "data"), "the records lie on the small disk")
	const name = "full_disk"
	require.NoError(t, own.CreateDatabase(ctx, name, ""))
	require.NoError(t, store.Migrate(ctx, own.OwnerURL(name)))
	st, err := store.Open(own.AppURL(name))
	require.NoError(t, err)
	made, err := crowd.Fill(ctx, st, own.AdminURL(name), crowd.Size{Clients: 1, Visits: 1}, time.Now())
	require.NoError(t, err)
	st.Close()
	s := &server{t: t, addr: "127.0.0.1:0", url: own.AppURL(name), inclinometer: "ws://127.0.0.1:1/"}
	s.start()
	t.Cleanup(s.kill)
	base := "http://" + s.addr
	c := session(t, base, demo.Login{Email: made.Email, Password: made.Password})

	treating, enough := context.WithCancel(ctx)
	defer enough()
	deadline := time.Now().Add(2 * time.Minute)
	var refused atomic.Int64
	var recorders []*recorder
	var wg sync.WaitGroup
	for range 8 {
		r := &recorder{
			http: c, bases: []string{base}, author: made.Who.Person,
			acked: map[string]visit.Event{}, refused: &refused,
		}
		recorders = append(recorders, r)
		wg.Go(func() { r.record(treating, t, deadline) })
	}
	time.Sleep(time.Second)
	ballast := filepath.Join(disk, "ballast")
	fill(t, ballast)
	require.Eventually(t, func() bool { return refused.Load() > 40 }, time.Minute, 20*time.Millisecond,
		"nothing was refused: the disk was not full")
	res, err := c.Get(base + "/healthz")
	require.NoError(t, err)
	res.Body.Close()
	assert.Equal(t, http.StatusNoContent, res.StatusCode, "the program stands")
	require.NoError(t, os.Remove(ballast))
	time.Sleep(2 * time.Second)
	enough()
	wg.Wait()
	same(t, own.AdminURL(name), recorders)
	t.Logf("%d batches were refused while the disk was full", refused.Load())
}
