package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/demo"
	"mokren/store"
	"mokren/store/cluster"
	"mokren/store/storetest"
)

// filled is the migrated database with the demo's practice that each test has a copy of.
const filled = "mokren_filled"

// records is the PostgreSQL of the whole test run; without one it is this package's.
var records *cluster.Cluster

// openRecords reaches or starts the cluster and fills the template.
func openRecords(ctx context.Context, dir string) (end func(), err error) {
	end = func() {}
	if env := os.Getenv("MOKREN_TEST_CLUSTER"); env != "" {
		records, err = cluster.Reach(env)
	} else {
		if records, err = cluster.Open(ctx, dir); err != nil {
			return end, err
		}
		end = func() { records.Stop() } //nolint:errcheck // the folder goes anyway
		err = storetest.Prepare(ctx, records)
	}
	if err != nil {
		return end, err
	}
	if err := records.CreateDatabase(ctx, filled, storetest.Template); err != nil {
		return end, err
	}
	st, err := store.Open(records.AppURL(filled))
	if err != nil {
		return end, err
	}
	defer st.Close()
	if err := demo.Fill(ctx, st, time.Now()); err != nil {
		return end, err
	}
	return end, signEveryoneIn(st)
}

// sessionCookie is the cookie's name, sessions are those of the demo's people: every
// copy of the template knows them.
const sessionCookie = "mokren"

var sessions = map[string]*http.Cookie{}

func signEveryoneIn(st *store.Store) error {
	h, err := api.New(st, api.Options{})
	if err != nil {
		return err
	}
	for _, l := range demo.Logins {
		body, err := json.Marshal(map[string]string{"email": l.Email, "password": l.Password})
		if err != nil {
			return err
		}
		r := httptest.NewRequest(http.MethodPost, "/api/session", bytes.NewReader(body))
		r.Header.Set("Content-Type", "application/json")
		w := httptest.NewRecorder()
		h.ServeHTTP(w, r)
		for _, c := range w.Result().Cookies() {
			if c.Name == sessionCookie {
				sessions[l.Email] = c
			}
		}
		if sessions[l.Email] == nil {
			return fmt.Errorf("%s cannot sign in: %s", l.Email, w.Body)
		}
	}
	return nil
}

// database is one test's.
type database struct {
	on   *cluster.Cluster
	name string
}

// copyOf makes a test's own copy of a database.
func copyOf(t testing.TB, on *cluster.Cluster, template string) database {
	t.Helper()
	d := database{on, "e2e_" + strings.ReplaceAll(uuid.NewString(), "-", "")}
	ctx := context.Background()
	require.NoError(t, on.CreateDatabase(ctx, d.name, template))
	t.Cleanup(func() { on.DropDatabase(ctx, d.name) }) //nolint:errcheck // the cluster goes anyway
	return d
}

// demoDatabase is a test's copy of the demo, empty one of a migrated database in which
// there is nothing yet.
func demoDatabase(t testing.TB) database  { return copyOf(t, records, filled) }
func emptyDatabase(t testing.TB) database { return copyOf(t, records, storetest.Template) }

// databases are the tests' own, by the test that serves one.
var databases sync.Map

// db reads what the program that this test has started wrote.
func db(t testing.TB) *sqlx.DB {
	t.Helper()
	return databaseOf(t).asAdmin(t)
}

func databaseOf(t testing.TB) database {
	t.Helper()
	d, ok := databases.Load(strings.Split(t.Name(), "/")[0])
	require.True(t, ok, "start a server first")
	return d.(database)
}

// asAdmin reads past row security.
func (d database) asAdmin(t testing.TB) *sqlx.DB {
	t.Helper()
	db, err := sqlx.Open("pgx", d.on.AdminURL(d.name))
	require.NoError(t, err)
	t.Cleanup(func() { db.Close() })
	return db
}

// asApp reaches it as the program does.
func (d database) asApp(t testing.TB) *store.Store {
	t.Helper()
	st, err := store.Open(d.on.AppURL(d.name))
	require.NoError(t, err)
	t.Cleanup(func() { st.Close() })
	return st
}

// mortal is a PostgreSQL that tests may kill, one at a time.
var mortal struct {
	sync.Mutex
	c *cluster.Cluster
}

// mortalDatabase is a copy of the demo on a PostgreSQL that this test may kill. The
// first one brings the template over from the run's own cluster.
func mortalDatabase(t testing.TB) database {
	t.Helper()
	mortal.Lock()
	t.Cleanup(mortal.Unlock)
	if mortal.c == nil {
		// Not t.TempDir: as root the database runs as another user, who must get in.
		dir, err := os.MkdirTemp("", "mokren-mortal-")
		require.NoError(t, err)
		mortal.c, err = cluster.Open(context.Background(), dir)
		require.NoError(t, err)
		atTheEnd(func() {
			mortal.c.Stop() //nolint:errcheck // the folder goes anyway
			os.RemoveAll(dir)
		})
		require.NoError(t, mortal.c.CreateDatabase(context.Background(), filled, ""))
		dump := filepath.Join(t.TempDir(), "filled")
		pg := func(program string, args ...string) {
			out, err := exec.Command(filepath.Join(storetest.Bin(), program), args...).CombinedOutput()
			require.NoError(t, err, "%s: %s", program, out)
		}
		pg("pg_dump", "--format=custom", "--file="+dump, records.AdminURL(filled))
		pg("pg_restore", "--dbname="+mortal.c.AdminURL(filled), dump)
	}
	return copyOf(t, mortal.c, filled)
}
