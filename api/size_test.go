package api_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/api"
	"mokren/demo"
	"mokren/demo/crowd"
	"mokren/store"
	"mokren/store/storetest"
)

// crowded is a caller in a practice of a size, on a database, with what its server
// sends.
func crowded(t *testing.T, url, adminURL string, size crowd.Size) (*caller, crowd.Counts, *statements) {
	t.Helper()
	sent := &statements{}
	cfg, err := pgx.ParseConfig(url)
	require.NoError(t, err)
	cfg.Tracer = sent
	st, err := store.Open(stdlib.RegisterConnConfig(cfg))
	require.NoError(t, err)
	t.Cleanup(func() { st.Close() })
	made, err := crowd.Fill(t.Context(), st, adminURL, size, time.Now())
	require.NoError(t, err)
	h, err := api.New(st, api.Options{SignInsPerMinute: 1000})
	require.NoError(t, err)
	srv := httptest.NewServer(h)
	t.Cleanup(srv.Close)
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	c := &caller{t, srv.URL, &http.Client{Jar: jar}, nil}
	c.signIn(demo.Login{Email: made.Email, Password: made.Password})
	return c, made, sent
}

// whole reads a practice's every row, as asked: a file of everything, or what worked
// over all clients.
var whole = map[string]bool{
	"export-practice": true, "outcomes": true, "practice-view": true, "audit": true, "audit-file": true,
	"people": true, "erasures": true,
}

// plan is a node of what PostgreSQL means to do.
type plan struct {
	Node  string `json:"Node Type"`
	Table string `json:"Relation Name"`
	Plans []plan
}

// scanned lists tables that are read from end to end.
func (p plan) scanned() (out []string) {
	if p.Node == "Seq Scan" {
		out = append(out, p.Table)
	}
	for _, sub := range p.Plans {
		out = append(out, sub.scanned()...)
	}
	return out
}

// large are the tables that grow with every visit.
var large = []string{
	"visit", "visit_event", "charted_point", "hold", "range_reading", "screening", "consent", "suspicion", "audit",
}

// At size no read of one client or one day goes through a whole table.
func TestEveryQueryHasItsIndex(t *testing.T) {
	c, made, sent := crowded(t, storetest.URL(), storetest.AdminURL(), crowd.Size{Clients: 400, Visits: 20})
	sent.keep.Store(true)
	for _, op := range operations(t) {
		if op.method != "GET" || whole[op.id] || strings.Contains(op.path, "{code}") || op.id == "own-devices" {
			continue
		}
		id := made.Visit.String()
		if strings.HasPrefix(op.path, "/api/clients") {
			id = made.Client.String()
		}
		path := strings.ReplaceAll(op.path, "{id}", id)
		path = strings.NewReplacer("{view}", "back", "{format}", "archive", "{what}", "note").Replace(path)
		c.call("GET", path+"?from="+time.Now().Format(time.DateOnly)+"&q=bre", nil, nil)
	}
	sent.keep.Store(false)
	db, err := sqlx.Open("pgx", storetest.URL())
	require.NoError(t, err)
	defer db.Close()
	seen := map[string]bool{}
	for _, q := range sent.kept {
		word, _, _ := strings.Cut(strings.TrimSpace(q.SQL), " ")
		if word != "select" && word != "with" || seen[q.SQL] || strings.Contains(q.SQL, "set_config") {
			continue
		}
		seen[q.SQL] = true
		for _, table := range planOf(t, db, made.Who, q).scanned() {
			assert.NotContains(t, large, table, "read from end to end by: %s", q.SQL)
		}
	}
	assert.Greater(t, len(seen), 25, "so many statements were looked at")
}

func planOf(t *testing.T, db *sqlx.DB, who store.Principal, q pgx.TraceQueryStartData) plan {
	t.Helper()
	tx := db.MustBegin()
	defer tx.Rollback() //nolint:errcheck // it only looked
	tx.MustExec(`select set_config('mokren.practice', $1, true), set_config('mokren.person', $2, true)`,
		who.Practice.String(), who.Person.String())
	var raw []byte
	require.NoError(t, tx.QueryRow(`explain (format json) `+q.SQL, q.Args...).Scan(&raw), q.SQL)
	var out []struct{ Plan plan }
	require.NoError(t, json.Unmarshal(raw, &out))
	return out[0].Plan
}

// TestBenchSize sets a practice of 10,000 clients beside one of a hundredth, each in a database of its
// own: with two visits of each client, or for long with twenty, 200,000 visits in all.
func TestBenchSize(t *testing.T) {
	if os.Getenv("MOKREN_BENCH") == "" {
		t.Skip("make bench runs it")
	}
	visits := 2
	if os.Getenv("MOKREN_LONG") != "" {
		visits = 20
	}
	sizes := []crowd.Size{{Clients: 100, Visits: visits}, {Clients: 10_000, Visits: visits}}
	callers, made := make([]*caller, len(sizes)), make([]crowd.Counts, len(sizes))
	for i, size := range sizes {
		app, admin := storetest.Own(t)
		began := time.Now()
		callers[i], made[i], _ = crowded(t, app, admin, size)
		fmt.Printf("%d clients, %d visits: made in %.0f s\n", size.Clients, size.Clients*size.Visits,
			time.Since(began).Seconds())
	}
	type read struct {
		name, path string
		limit      float64
		most       string
	}
	reads := []read{
		{"day", "/api/day", 1.3, ""},
		{"client", "/api/clients/{client}", 1.3, ""},
		{"progress", "/api/clients/{client}?all=true", 1.3, ""},
		{"search", "/api/clients?q=Bre", 1.3, ""},
		{"visit", "/api/visits/{visit}", 1.3, ""},
		{"audit of a client", "/api/audit?client={client}", 1.3, ""},
		// A mistyped name has more names that are like it; it is to be below 20 ms too.
		{"search, mistyped", "/api/clients?q=Brn%20Corfn", 2, " (limit 20)"}, // none of 100, 20 of 10,000
		{"mistyped, 20 found", "/api/clients?q=Brem", 2, " (limit 20)"},
	}
	if visits > 2 {
		// As many people come in a season to the large practice as to the small one.
		reads = append(reads, read{"overview", "/api/practice/view", 1.3, ""})
	}
	for _, k := range reads {
		var times [2][]float64
		const rounds = 40
		for n := range rounds + 5 {
			for i, c := range callers {
				path := strings.NewReplacer("{client}", made[i].Client.String(), "{visit}", made[i].Visit.String()).
					Replace(k.path)
				began := time.Now()
				c.read(path)
				if n >= 5 {
					times[i] = append(times[i], time.Since(began).Seconds()*1000)
				}
			}
		}
		few, many := middle(times[0]), middle(times[1])
		fmt.Printf("%-20s 100 clients %.2f ms, 10,000 clients %.2f ms%s, ratio %.2f (limit %g)\n", k.name, few, many,
			k.most, many/few, k.limit)
	}
}
