package api_test

import (
	"fmt"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"mokren/demo"
	"mokren/demo/crowd"
	"mokren/store/storetest"
)

// ofPractice are the reads of a practice's day, with what each may cost.
var ofPractice = []struct{ name, path string }{
	{"day", "/api/day"},
	{"client", "/api/clients/{client}"},
	{"progress", "/api/clients/{client}?all=true"},
	{"search", "/api/clients?q=Bre"},
	{"visit", "/api/visits/{visit}"},
}

func addressOf(path string, made crowd.Counts) string {
	return strings.NewReplacer("{client}", made.Client.String(), "{visit}", made.Visit.String()).Replace(path)
}

// TestBenchPractices sets a database of a thousand practices beside one of ten, each of a hundred
// clients with two visits, and row security beside none.
func TestBenchPractices(t *testing.T) {
	if os.Getenv("MOKREN_BENCH") == "" {
		t.Skip("make bench-large runs it")
	}
	sizes := []int{10, 1000}
	callers, made := make([]*caller, len(sizes)), make([]crowd.Counts, len(sizes))
	writers := map[*caller]*writer{}
	for i, practices := range sizes {
		app, admin := storetest.Own(t)
		began := time.Now()
		callers[i], made[i], _ = crowded(t, app, admin, crowd.Size{Clients: 100, Visits: 2})
		require.NoError(t, crowd.Copy(t.Context(), admin, made[i].Who.Practice, practices-1))
		writers[callers[i]] = newLongCareIn(t, app).newWriter()
		fmt.Printf("%d practices: made in %.0f s\n", practices, time.Since(began).Seconds())
	}
	pair := func(name string, rounds int, act func(c *caller, made crowd.Counts)) {
		var times [2][]float64
		for n := range rounds + 5 {
			for i, c := range callers {
				began := time.Now()
				act(c, made[i])
				if n >= 5 {
					times[i] = append(times[i], time.Since(began).Seconds()*1000)
				}
			}
		}
		a, b := middle(times[0]), middle(times[1])
		fmt.Printf("%-10s 10 practices %.2f ms, 1,000 practices %.2f ms, ratio %.2f (limit 1.3)\n", name, a, b, b/a)
	}
	for _, k := range ofPractice {
		pair(k.name, 60, func(c *caller, made crowd.Counts) {
			c.read(addressOf(k.path, made))
		})
	}
	at := int64(10_000)
	pair("append", 60, func(c *caller, _ crowd.Counts) {
		at++
		w := writers[c]
		w.send(w.word(at))
	})
	pair("sign-in", 12, func(c *caller, made crowd.Counts) {
		c.signIn(demo.Login{Email: made.Email, Password: made.Password})
	})
}

// TestBenchRowSecurity sends the statements of each read as the app, whose rows are guarded, and as a
// role that sees every row, by turns; the database has one practice, so that both read the same.
func TestBenchRowSecurity(t *testing.T) {
	if os.Getenv("MOKREN_BENCH") == "" {
		t.Skip("make bench runs it")
	}
	app, admin := storetest.Own(t)
	c, made, sent := crowded(t, app, admin, crowd.Size{Clients: 1000, Visits: 10})
	for _, k := range ofPractice {
		path := addressOf(k.path, made)
		c.call("GET", path, nil, nil)
		sent.kept = nil
		sent.keep.Store(true)
		c.call("GET", path, nil, nil)
		sent.keep.Store(false)
		var ms [2][]float64
		dbs := []*sqlx.DB{sqlx.MustConnect("pgx", app), sqlx.MustConnect("pgx", admin)}
		for n := range 60 {
			for i, db := range dbs {
				began := time.Now()
				readAgain(t, db, sent.kept)
				if n >= 5 {
					ms[i] = append(ms[i], time.Since(began).Seconds()*1000)
				}
			}
		}
		guarded, open := middle(ms[0]), middle(ms[1])
		fmt.Printf("row security, %-10s %.2f ms with it, %.2f ms without, ratio %.2f (limit 1.15)\n", k.name, guarded,
			open, guarded/open)
		for _, db := range dbs {
			db.Close()
		}
	}
}

// readAgain sends the statements that read, in one transaction.
func readAgain(t *testing.T, db *sqlx.DB, kept []pgx.TraceQueryStartData) {
	t.Helper()
	tx := db.MustBegin()
	defer tx.Rollback() //nolint:errcheck // it only looked
	for _, q := range kept {
		word, _, _ := strings.Cut(strings.TrimSpace(q.SQL), " ")
		if word != "select" && word != "with" || strings.Contains(q.SQL, "session") {
			continue
		}
		rows, err := tx.Query(q.SQL, q.Args...)
		require.NoError(t, err, q.SQL)
		for rows.Next() {
		}
		require.NoError(t, rows.Close())
	}
}
