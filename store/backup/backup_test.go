package backup_test

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/rights"
	"mokren/store"
	"mokren/store/backup"
	"mokren/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

const passphrase = "seven quiet owls"

func server() backup.Server { return backup.Server{URL: storetest.AdminURL(), Bin: storetest.Bin()} }

// empty is a database with nothing in it.
func empty(t *testing.T) backup.Server {
	t.Helper()
	return backup.Server{URL: storetest.Empty(t), Bin: storetest.Bin()}
}

// busy writes pairs of clients, each pair in one transaction, until it is stopped.
func busy(t *testing.T, ctx context.Context, who store.Principal, workers int) *sync.WaitGroup {
	st := storetest.Open(t)
	var running sync.WaitGroup
	for w := range workers {
		running.Go(func() {
			for n := 0; ctx.Err() == nil; n++ {
				err := st.As(
					context.WithoutCancel(ctx),
					who,
					store.Action{Verb: "write", Kind: "test"},
					func(tx *store.Tx) error {
						for _, twin := range []string{"one", "other"} {
							c := store.Client{
								ID:         uuid.New(),
								GivenName:  twin,
								FamilyName: fmt.Sprintf("Pair %d-%d", w, n),
							}
							if err := tx.PutClient(ctx, c); err != nil {
								return err
							}
						}
						return nil
					},
				)
				if ctx.Err() == nil && !assert.NoError(t, err) {
					return
				}
			}
		})
	}
	return &running
}

func practice(t *testing.T) store.Principal {
	t.Helper()
	who := store.Principal{Practice: uuid.New(), Person: uuid.New(), Role: rights.Owner}
	st := storetest.Open(t)
	require.NoError(t, st.As(t.Context(), who, store.Action{Verb: "write", Kind: "test"}, func(tx *store.Tx) error {
		if err := tx.NewPractice(t.Context(), "Backed up", "Europe/Vienna"); err != nil {
			return err
		}
		return tx.NewPerson(
			t.Context(),
			who.Person,
			"An Owner",
			rights.Owner,
			uuid.NewString()+"@x.example",
			passphrase,
		)
	}))
	return who
}

// While eight write, a backup is of one moment: what it says it holds is what comes
// back, and no pair is torn apart.
func TestABackupUnderLoadComesBackAsOneMoment(t *testing.T) {
	who := practice(t)
	ctx, stop := context.WithCancel(t.Context())
	running := busy(t, ctx, who, 8)
	live, err := sqlx.Open("pgx", storetest.AdminURL())
	require.NoError(t, err)
	defer live.Close()
	require.Eventually(t, func() bool {
		var n int
		return live.Get(&n, `select count(*) from client`) == nil && n > 20
	}, 30*time.Second, 10*time.Millisecond)
	path, err := backup.Write(t.Context(), server(), t.TempDir(), passphrase, time.Now())
	stop()
	running.Wait()
	require.NoError(t, err)
	into := empty(t)
	m, err := backup.Restore(t.Context(), into, path, passphrase)
	require.NoError(t, err)
	db, err := sqlx.Open("pgx", into.URL)
	require.NoError(t, err)
	defer db.Close()
	var pairs, torn, now int
	require.NoError(
		t,
		db.Get(&pairs, `select count(distinct family_name) from client where family_name like 'Pair %'`),
	)
	require.NoError(t, db.Get(&torn, `select count(*) from (select from client where family_name like 'Pair %'
		group by family_name having count(*) <> 2) x`))
	assert.Positive(t, pairs)
	assert.Zero(t, torn)
	require.NoError(t, live.Get(&now, `select count(*) from client`))
	for _, table := range m.Tables {
		if table.Name == "client" {
			assert.LessOrEqual(t, table.Rows, int64(now))
			assert.GreaterOrEqual(t, table.Rows, int64(2*pairs))
		}
	}
	_, err = backup.Restore(t.Context(), into, path, passphrase)
	assert.ErrorContains(t, err, "not empty", "nothing is written over")
}

func TestWhatCannotBeABackupIsRefused(t *testing.T) {
	practice(t)
	folder := t.TempDir()
	path, err := backup.Write(t.Context(), server(), folder, passphrase, time.Now())
	require.NoError(t, err)
	_, err = backup.Verify(t.Context(), server(), path, passphrase)
	require.NoError(t, err)
	whole, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.NotContains(t, string(whole), "Backed up", "it is sealed")
	_, err = backup.Verify(t.Context(), server(), path, "some other words")
	require.ErrorIs(t, err, backup.ErrWrongPassphrase)
	bent := append([]byte{}, whole...)
	bent[len(bent)*2/3] ^= 1
	for name, raw := range map[string][]byte{
		"cut in the middle": whole[:len(whole)/2],
		"its end missing":   whole[:len(whole)-1],
		"a bit turned":      bent,
		"something else":    []byte("a letter"),
		"nothing":           {},
	} {
		other := filepath.Join(folder, "x")
		require.NoError(t, os.WriteFile(other, raw, 0o600))
		into := empty(t)
		_, err := backup.Restore(t.Context(), into, other, passphrase)
		require.ErrorIs(t, err, backup.ErrDamaged, name)
		db, err := sqlx.Open("pgx", into.URL)
		require.NoError(t, err)
		var tables int
		require.NoError(
			t,
			db.Get(&tables, `select count(*) from information_schema.tables where table_schema = 'public'`),
		)
		assert.Zero(t, tables, "%s: nothing of it stays", name)
		db.Close()
	}
	_, err = backup.Write(t.Context(), server(), folder, "short", time.Now())
	require.ErrorIs(t, err, backup.ErrPassphrase)
	left, err := filepath.Glob(filepath.Join(folder, ".part-*"))
	require.NoError(t, err)
	assert.Empty(t, left)
}

func TestOldBackupsGoButNotTheLastOnes(t *testing.T) {
	folder, now := t.TempDir(), time.Date(2026, 6, 30, 3, 0, 0, 0, time.UTC)
	for _, days := range []int{0, 1, 29, 30, 31, 40, 400} {
		at := now.AddDate(0, 0, -days)
		require.NoError(t, os.WriteFile(filepath.Join(folder, backup.Name(at)), nil, 0o600))
	}
	require.NoError(t, os.WriteFile(filepath.Join(folder, "mine.txt"), nil, 0o600))
	gone, err := backup.Prune(folder, backup.Keep{Days: 30, Last: 2}, now)
	require.NoError(t, err)
	assert.Equal(t, []string{
		backup.Name(
			now.AddDate(0, 0, -31),
		), backup.Name(now.AddDate(0, 0, -40)), backup.Name(now.AddDate(0, 0, -400)),
	}, gone)
	gone, err = backup.Prune(folder, backup.Keep{Days: 0, Last: 2}, now)
	require.NoError(t, err)
	assert.Len(t, gone, 2, "the last two stay, and what is not a backup")
}
