package main

import (
	"bytes"
	"errors"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/alecthomas/kong"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/calc"
)

var binary string

func TestMain(m *testing.M) {
	dir, err := os.MkdirTemp("", "mokren-cli-")
	if err != nil {
		panic(err)
	}
	binary = filepath.Join(dir, "mokren")
	if out, err := exec.Command("go", "build", "-o", binary, ".").CombinedOutput(); err != nil {
		panic(string(out))
	}
	code := m.Run()
	os.RemoveAll(dir)
	os.Exit(code)
}

func run(t *testing.T, in string, args ...string) (out, errs string, code int) {
	t.Helper()
	cmd := exec.Command(binary, args...)
	cmd.Stdin = strings.NewReader(in)
	var o, e bytes.Buffer
	cmd.Stdout, cmd.Stderr = &o, &e
	err := cmd.Run()
	var exit *exec.ExitError
	if err != nil && !errors.As(err, &exit) {
		t.Fatal(err)
	}
	return o.String(), e.String(), cmd.ProcessState.ExitCode()
}

// The contract of the command line: names, examples, exit codes, where things go.
func TestCalcContract(t *testing.T) {
	out, _, code := run(t, "", "calc", "--list")
	require.Zero(t, code)
	names := strings.Fields(out)
	assert.Subset(t, names, []string{"coach", "change", "palpate"})
	for _, n := range names {
		example, _, code := run(t, "", "calc", n, "--example")
		require.Zero(t, code, n)
		out, errs, code := run(t, example, "calc", n)
		assert.Zero(t, code, "%s: %s", n, errs)
		want, err := calc.Run(n, []byte(example))
		require.NoError(t, err, n)
		assert.Equal(t, string(want), out, "the core's own answer, byte for byte")
		assert.NotEmpty(t, want, n)
		assert.Empty(t, errs)

		out, errs, code = run(t, `{"nonsense":1}`, "calc", n)
		assert.Equal(t, 2, code, n)
		assert.Empty(t, out, "nothing on standard output")
		assert.Equal(t, 1, strings.Count(errs, "\n"), "one line: %q", errs)
		assert.Contains(t, errs, "$.nonsense")
	}
	out, _, code = run(t, "", "calc", "--ids")
	require.Zero(t, code)
	for _, kind := range strings.Fields("muscles regions movements landmarks structures protocols contacts " +
		"positions questions signs tests measures loads") {
		assert.Contains(t, out, `"`+kind+`"`)
	}
	out, errs, code := run(t, "", "calc", "guess")
	assert.Equal(t, 2, code)
	assert.Empty(t, out)
	assert.Contains(t, errs, "coach")
	_, _, code = run(
		t,
		`{"t":0,"event":"start","protocol":"graded-stages"}`+"\n"+
			`{"t":1,"event":"contact"}`+"\n"+
			`{"t":0.5,"event":"tick"}`+"\n",
		"calc",
		"coach",
	)
	assert.Equal(t, 2, code, "all lines are read before any is answered")
}

func TestFigureAndDescription(t *testing.T) {
	out, _, code := run(t, "", "figure", "sole-left")
	assert.Zero(t, code)
	assert.True(t, strings.HasPrefix(out, "<svg"))
	out, _, code = run(t, "", "figure", "section", "--at", "62%")
	assert.Zero(t, code)
	assert.Contains(t, out, "Sciatic nerve")
	assert.Equal(t, 2, strings.Count(out, "<title>thigh</title>"))
	for _, wrong := range []string{"", "0%", "99%", "NaN", "high"} {
		_, said, code := run(t, "", "figure", "section", "--at", wrong)
		assert.NotZero(t, code, "%q", wrong)
		assert.Contains(t, said, "--at", "%q", wrong)
	}
	out, _, code = run(t, "", "openapi")
	assert.Zero(t, code)
	assert.Contains(t, out, `"openapi":"3.1`)
}

func TestABadDatabaseIsSaidPlainly(t *testing.T) {
	cmd := exec.Command(binary, "serve")
	cmd.Env = append(os.Environ(), "MOKREN_DATABASE_URL=postgres://nobody@127.0.0.1:1/none?connect_timeout=2")
	out, err := cmd.CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "reaching the database (does it run, at this address?)")
	assert.NotContains(t, string(out), "panic")
}

// Whatever the papers tell to run is there, with its flags.
func TestTheCommandsOfThePapersAreThere(t *testing.T) {
	k, err := kong.New(&cli{})
	require.NoError(t, err)
	known := map[string]*kong.Node{}
	for _, n := range k.Model.Children {
		known[n.Name] = n
	}
	var papers []string
	for _, at := range []string{"../../README.md", "../../docs/*.md", "../../packaging/*"} {
		some, err := filepath.Glob(at)
		require.NoError(t, err)
		papers = append(papers, some...)
	}
	told := regexp.MustCompile("(?m)(?:^|`|ExecStart=/usr/|sudo -u mokren )(?:bin/)?mokren ([a-z][a-z-]*)([^`\n]*)")
	flag := regexp.MustCompile(`--([a-z][a-z-]*)`)
	found := 0
	for _, paper := range papers {
		if info, err := os.Stat(paper); err == nil && info.IsDir() {
			continue
		}
		text, err := os.ReadFile(paper)
		require.NoError(t, err)
		for _, m := range told.FindAllStringSubmatch(string(text), -1) {
			node := known[m[1]]
			if !assert.NotNil(t, node, "%s: mokren %s", paper, m[1]) {
				continue
			}
			found++
			var flags []string
			for _, f := range node.Flags {
				flags = append(flags, f.Name)
			}
			for _, f := range flag.FindAllStringSubmatch(m[2], -1) {
				if len(node.Children) == 0 {
					assert.Contains(t, flags, f[1], "%s: mokren %s", paper, m[1])
				}
			}
		}
	}
	assert.Greater(t, found, 15)
}
