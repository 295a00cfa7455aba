package core_test

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// layers says what each layer may import of ours; imports point down only.
var layers = map[string][]string{
	"core":     {"core"},
	"store":    {"core", "exchange", "store"},
	"exchange": {"core", "exchange"},
	"demo":     {"core", "store", "exchange", "demo"},
	"api":      {"core", "store", "exchange", "demo", "api", "devices"}, // demo, devices only in tests, see below
	"devices":  {"core", "devices"},
	"wasm":     {"core", "wasm"},
	"cmd":      {"core", "store", "demo", "devices", "api"},
	"e2e":      {"api", "core", "store", "demo", "devices"},
}

// barred is what of the standard library the core does without: I/O, clock, SQL, HTTP,
// and what brings one of them along into the browser.
var barred = []string{
	"context", "io", "io/fs",
	"os", "net", "net/http", "database/sql", "time", "syscall", "syscall/js", "os/exec", "log",
	"log/slog", "math/rand", "crypto/rand",
}

// lent are pure packages of others that the core uses: quantiles of distributions are no work of
// ours. The browser's core does without.
var lent = []string{"gonum.org/v1/gonum/stat/distuv"}

// below says what each package of the core may import of the core: the rules of
// the job rest on the body and the vocabulary, never the other way.
var below = map[string][]string{
	"decode":    {},
	"ids":       {"decode"},
	"stable":    {},
	"receipt":   {"decode"},
	"rights":    {},
	"body":      {"ids", "stable", "decode"},
	"solid":     {"body", "ids"},
	"bench":     {"assess", "atlas", "body", "decode", "ids", "progress", "safety", "solid", "treat", "wording"},
	"agreement": {"atlas", "body", "ids", "stable", "decode"},
	"pose":      {"body", "ids", "decode"},
	"safety":    {"body", "ids", "stable", "solid", "decode"},
	"atlas":     {"body", "ids", "stable", "safety", "solid", "decode"},
	"wording":   {"atlas", "ids"},
	"device":    {"stable", "decode"},
	"progress":  {"ids", "stable", "decode"},
	"assess":    {"atlas", "body", "ids", "stable", "progress", "safety", "decode"},
	"treat":     {"atlas", "body", "ids", "stable", "safety", "decode", "wording"},
	"picture":   {"atlas", "body", "ids", "stable", "safety", "solid", "decode"},
	"sequence":  {"atlas", "body", "ids", "stable", "safety", "decode", "treat"},
	"points":    {"atlas", "body", "ids", "stable", "safety", "decode", "treat"},
	"plan":      {"atlas", "ids", "stable", "safety", "decode", "treat"},
	"record":    {"atlas", "body", "ids", "safety"},
	"visit": {
		"assess", "atlas", "body", "device", "ids", "stable", "plan", "points", "progress", "record", "rights",
		"pose", "safety", "sequence", "decode", "treat", "wording",
	},
	"note": {"assess", "atlas", "body", "ids", "stable", "progress", "safety", "treat", "visit", "wording"},
	"calc": {
		"agreement", "assess", "atlas", "bench", "body", "device", "ids", "stable", "picture", "plan", "points",
		"progress",
		"safety",
		"solid",
		"decode", "pose", "sequence", "treat", "visit",
	},
	"bridge": {
		"assess", "atlas", "calc", "ids", "note", "stable", "points", "safety", "sequence", "decode", "treat", "visit",
	},
}

func TestTheCoreHasADirection(t *testing.T) {
	packages, err := filepath.Glob("*/*.go")
	require.NoError(t, err)
	seen := map[string]bool{}
	for _, path := range packages {
		if strings.HasSuffix(path, "_test.go") {
			continue
		}
		from := filepath.Dir(path)
		allowed, known := below[from]
		require.True(t, known, "%s stands nowhere in the stable of the core", from)
		seen[from] = true
		f, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		require.NoError(t, err)
		for _, i := range f.Imports {
			name, err := strconv.Unquote(i.Path.Value)
			require.NoError(t, err)
			if to, ours := strings.CutPrefix(name, "mokren/core/"); ours {
				assert.Contains(t, allowed, to, "%s imports %s", path, to)
			}
		}
	}
	assert.Len(t, seen, len(below), "each package of the stable is there")
}

func TestImportsPointDown(t *testing.T) {
	seen := 0
	err := filepath.WalkDir("..", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && (d.Name() == "node_modules" || d.Name() == "ui" ||
			(strings.HasPrefix(d.Name(), ".") && d.Name() != "..")) {
			return fs.SkipDir
		}
		if filepath.Ext(path) != ".go" {
			return nil
		}
		layer, _, _ := strings.Cut(strings.TrimPrefix(filepath.ToSlash(path), "../"), "/")
		if layer == path || strings.HasSuffix(layer, ".go") || path == filepath.Base(path) {
			return nil
		}
		allowed, known := layers[layer]
		require.True(t, known, "%s lies in no known layer", path)
		f, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		require.NoError(t, err)
		test := strings.HasSuffix(path, "_test.go")
		for _, i := range f.Imports {
			name, _ := strconv.Unquote(i.Path.Value)
			if ours, ok := strings.CutPrefix(name, "mokren/"); ok {
				seen++
				to, _, _ := strings.Cut(ours, "/")
				assert.Contains(t, allowed, to, "%s imports %s", path, name)
				if layer == "api" && (to == "demo" || to == "devices") {
					assert.True(t, test, "%s imports %s, which is for its tests", path, to)
				}
				continue
			}
			if slices.Contains(lent, name) {
				continue
			}
			if layer == "core" && !test {
				assert.NotContains(t, barred, name, "%s imports %s", path, name)
				assert.NotContains(t, strings.Split(name, "/")[0], ".",
					"%s imports %s, which is not in the standard library", path, name)
			}
		}
		return nil
	})
	require.NoError(t, err)
	assert.Greater(t, seen, 50, "the test looked at the project")
}
