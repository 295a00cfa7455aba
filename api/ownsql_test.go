package api_test

import (
	"database/sql/driver"
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"reflect"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgtype"
	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"mokren/store/storetest"
)

// TestBenchOwnSQL sets a long course, and a visit, beside the very statements that they
// send: what the program adds to its database.
func TestBenchOwnSQL(t *testing.T) {
	if os.Getenv("MOKREN_BENCH") == "" {
		t.Skip("make bench runs it")
	}
	c := newLongCare(t)
	c.points, c.holds = 5, 5
	client, today := c.client(199)
	c.analyze()
	db, err := sqlx.Open("pgx", storetest.URL())
	require.NoError(t, err)
	defer db.Close()
	api, sql := c.besideSQL(db, "/api/clients/"+client.String()+"?all=true")
	fmt.Printf("200 visits, 1,000 points, 5,000 holds: API %.1f ms, its own SQL %.1f ms, ratio %.2f (limit 2)\n",
		api, sql, api/sql)
	api, sql = c.besidePgbench("/api/visits/" + today.String())
	fmt.Printf("reading a visit: API %.0f a second, pgbench with its SQL %.0f, ratio %.2f (limit at least 0.4)\n",
		1000/api, 1000/sql, sql/api)
}

// keep reads an address once and keeps the statements that it sends.
func (c *longCare) keep(path string) {
	c.t.Helper()
	c.get(path)
	c.sent.kept = nil
	c.sent.keep.Store(true)
	c.get(path)
	c.sent.keep.Store(false)
}

// besidePgbench reads an address and has pgbench send its statements, by turns; the
// mean of one reading, and of its transaction, in ms.
func (c *longCare) besidePgbench(path string) (api, sql float64) {
	c.t.Helper()
	c.keep(path)
	script := filepath.Join(c.t.TempDir(), "visit.sql")
	require.NoError(c.t, os.WriteFile(script, []byte(c.script()), 0o600))
	const turns, readings = 5, 100
	for range turns {
		began := time.Now()
		for range readings {
			c.read(path)
		}
		api += time.Since(began).Seconds() * 1000 / readings / turns
		out, err := exec.Command("pgbench", "--no-vacuum", "--protocol=prepared",
			"--transactions", strconv.Itoa(readings), "--file", script, storetest.URL()).CombinedOutput()
		require.NoError(c.t, err, string(out))
		latency := regexp.MustCompile(`latency average = ([\d.]+) ms`).FindSubmatch(out)
		require.Len(c.t, latency, 2, string(out))
		one, err := strconv.ParseFloat(string(latency[1]), 64)
		require.NoError(c.t, err)
		sql += one / turns
	}
	return api, sql
}

var placeholder = regexp.MustCompile(`\$\d+`)

// script is what was kept, as pgbench reads it: each value in its place.
func (c *longCare) script() string {
	var b strings.Builder
	for _, q := range c.sent.kept {
		args := slices.DeleteFunc(slices.Clone(q.Args), func(v any) bool {
			_, hint := v.(pgx.QueryResultFormatsByOID)
			return hint
		})
		b.WriteString(placeholder.ReplaceAllStringFunc(q.SQL, func(at string) string {
			n, err := strconv.Atoi(at[1:])
			require.NoError(c.t, err)
			return c.literal(args[n-1])
		}))
		b.WriteString(";\n")
	}
	return b.String()
}

// literal is a value as SQL text.
func (c *longCare) literal(v any) string {
	if at := reflect.ValueOf(v); v == nil || at.Kind() == reflect.Pointer && at.IsNil() {
		return "null"
	}
	if own, ok := v.(driver.Valuer); ok {
		value, err := own.Value()
		require.NoError(c.t, err)
		return c.literal(value)
	}
	if text, ok := v.([]byte); ok && json.Valid(text) {
		v = string(text)
	}
	types := pgtype.NewMap()
	kind, ok := types.TypeForValue(v)
	require.True(c.t, ok, "%T", v)
	text, err := types.Encode(kind.OID, pgtype.TextFormatCode, v, nil)
	require.NoError(c.t, err)
	return "'" + strings.ReplaceAll(string(text), "'", "''") + "'"
}

// besideSQL reads an address and sends its statements by turns; both in ms.
func (c *longCare) besideSQL(db *sqlx.DB, path string) (api, sql float64) {
	c.t.Helper()
	c.keep(path)
	const rounds = 20
	for i := range rounds + 3 {
		began := time.Now()
		c.read(path)
		between := time.Now()
		c.replay(db)
		if i >= 3 {
			api += between.Sub(began).Seconds() * 1000 / rounds
			sql += time.Since(between).Seconds() * 1000 / rounds
		}
	}
	return api, sql
}

// replay sends what was kept, in one transaction.
func (c *longCare) replay(db *sqlx.DB) {
	c.t.Helper()
	tx := db.MustBegin()
	for _, q := range c.sent.kept {
		if word, _, _ := strings.Cut(q.SQL, " "); word == "begin" || word == "commit" || word == "rollback" {
			continue
		}
		rows, err := tx.Queryx(q.SQL, q.Args...)
		require.NoError(c.t, err, q.SQL)
		for rows.Next() {
			_, err := rows.SliceScan()
			require.NoError(c.t, err)
		}
		require.NoError(c.t, rows.Close())
	}
	require.NoError(c.t, tx.Commit())
}
