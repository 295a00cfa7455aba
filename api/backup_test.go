package api_test

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"mokren/demo/crowd"
	"mokren/store"
	"mokren/store/backup"
	"mokren/store/storetest"
)

// TestBenchBackup sets what a write takes while 20,000 visits are backed up beside what it takes
// otherwise, and bringing them back beside what pg_restore does with a dump of its own.
func TestBenchBackup(t *testing.T) {
	if os.Getenv("MOKREN_BENCH") == "" {
		t.Skip("make bench-large runs it")
	}
	app, admin := storetest.Own(t)
	st, err := store.Open(app)
	require.NoError(t, err)
	t.Cleanup(func() { st.Close() })
	made, err := crowd.Fill(t.Context(), st, admin, crowd.Size{Clients: 1000, Visits: 20}, time.Now())
	require.NoError(t, err)
	const sealedBy = "seven quiet owls"
	from := backup.Server{URL: admin, Bin: storetest.Bin()}
	folder := t.TempDir()

	const lasts = 6 * time.Second
	var alone, beside []float64
	var path string
	for range 2 {
		ended := time.After(lasts)
		alone = append(alone, paced(t, st, made.Who, ended)...)
		done := make(chan time.Time)
		go func() {
			defer close(done)
			for began := time.Now(); time.Since(began) < lasts; {
				p, err := backup.Write(t.Context(), from, folder, sealedBy, time.Now())
				if err != nil {
					t.Error(err)
					return
				}
				path = p
			}
		}()
		beside = append(beside, paced(t, st, made.Who, done)...)
	}
	a, b := ninetyNinth(alone), ninetyNinth(beside)
	fmt.Printf("writing, p99: %.0f ms by itself, %.0f ms while 20,000 visits are backed up, ratio %.2f (limit 2)\n",
		a, b, b/a)

	dump := filepath.Join(folder, "plain.dump")
	postgres(t, "pg_dump", "--format=custom", "--file="+dump, admin)
	var ours, theirs time.Duration
	for range 3 {
		into := storetest.Empty(t)
		began := time.Now()
		_, err := backup.Restore(t.Context(), backup.Server{URL: into, Bin: storetest.Bin()}, path, sealedBy)
		require.NoError(t, err)
		ours += time.Since(began)
		into = storetest.Empty(t)
		began = time.Now()
		postgres(t, "pg_restore", "--single-transaction", "--dbname="+into, dump)
		theirs += time.Since(began)
	}
	fmt.Printf("20,000 visits brought back in %.1f s, by pg_restore alone in %.1f s, ratio %.2f (limit 1.2)\n",
		ours.Seconds()/3, theirs.Seconds()/3, ours.Seconds()/theirs.Seconds())
}

// paced has four devices write until something is done, each twenty times a second, and gives how long
// each write took.
func paced[T any](t *testing.T, st *store.Store, who store.Principal, done <-chan T) (ms []float64) {
	t.Helper()
	var mu sync.Mutex
	var all sync.WaitGroup
	stop := make(chan struct{})
	for range 4 {
		all.Go(func() {
			for {
				began := time.Now()
				err := st.As(t.Context(), who, store.Action{Verb: "write", Kind: "test"}, func(tx *store.Tx) error {
					c := store.Client{ID: uuid.New(), GivenName: "Ada", FamilyName: "Beside"}
					return tx.PutClient(t.Context(), c)
				})
				if err != nil {
					t.Error(err)
					return
				}
				mu.Lock()
				ms = append(ms, time.Since(began).Seconds()*1000)
				mu.Unlock()
				select {
				case <-stop:
					return
				case <-time.After(50 * time.Millisecond):
				}
			}
		})
	}
	<-done
	close(stop)
	all.Wait()
	return ms
}

func ninetyNinth(ms []float64) float64 {
	slices.Sort(ms)
	return ms[len(ms)*99/100]
}

func postgres(t *testing.T, program string, args ...string) {
	t.Helper()
	out, err := exec.Command(filepath.Join(storetest.Bin(), program), args...).CombinedOutput()
	require.NoError(t, err, string(out))
}
