// Command testreport reads what `go test -json` says: it shows what failed, whole, a line
// for each package, and at the end the ten slowest tests. It fails when a test did.
package main

import (
	"bufio"
	"cmp"
	"encoding/json"
	"fmt"
	"io"
	"os"
	"slices"
	"strings"
)

// slowest is how many of the slowest tests are listed.
const slowest = 10

// event is one line of `go test -json`.
type event struct {
	Action, Package, Test, Output string
	Elapsed                       float64
}

type timed struct {
	name    string
	seconds float64
}

type report struct {
	out io.Writer
	// said is what each test, or a package outside of its tests, has printed so far.
	said           map[string]*strings.Builder
	times          []timed
	passed, failed int
	skipped        int
	broken         bool
}

func main() {
	ok, err := run(os.Stdin, os.Stdout)
	if err != nil {
		fmt.Fprintln(os.Stderr, "testreport:", err)
	}
	if !ok || err != nil {
		os.Exit(1)
	}
}

func run(in io.Reader, out io.Writer) (ok bool, err error) {
	r := &report{out: out, said: map[string]*strings.Builder{}}
	lines := bufio.NewScanner(in)
	lines.Buffer(nil, 1<<24)
	for lines.Scan() {
		var e event
		if json.Unmarshal(lines.Bytes(), &e) != nil {
			fmt.Fprintln(out, lines.Text()) // what a build says
			continue
		}
		r.take(e)
	}
	r.end()
	return !r.broken && r.failed == 0, lines.Err()
}

func (r *report) take(e event) {
	key := e.Package + " " + e.Test
	switch e.Action {
	case "output":
		b := r.said[key]
		if b == nil {
			b = &strings.Builder{}
			r.said[key] = b
		}
		b.WriteString(e.Output)
	case "build-output":
		fmt.Fprint(r.out, e.Output)
	case "build-fail":
		r.broken = true
	case "pass", "fail", "skip":
		if e.Test == "" {
			r.endPackage(e, key)
		} else {
			r.endTest(e, key)
		}
		delete(r.said, key)
	}
}

func (r *report) endTest(e event, key string) {
	switch e.Action {
	case "pass":
		r.passed++
	case "skip":
		r.skipped++
	case "fail":
		r.failed++
		fmt.Fprint(r.out, r.said[key])
	}
	// A test with parts is as long as they are; the parts are listed.
	r.times = append(r.times, timed{strings.TrimPrefix(e.Package, "mokren/") + " " + e.Test, e.Elapsed})
}

func (r *report) endPackage(e event, key string) {
	if e.Action == "fail" {
		r.broken = true
		if b := r.said[key]; b != nil {
			fmt.Fprint(r.out, b)
		}
		return
	}
	if e.Elapsed > 0 {
		fmt.Fprintf(r.out, "%-4s %-30s %6.1f s\n", e.Action, e.Package, e.Elapsed)
	}
}

func (r *report) end() {
	// A test that never ended was ended with its package: what it said is its trace.
	for key, b := range r.said {
		if !strings.HasSuffix(key, " ") && r.broken {
			fmt.Fprintf(r.out, "--- %s did not end\n%s", key, b)
		}
	}
	slices.SortStableFunc(r.times, func(a, b timed) int { return cmp.Compare(b.seconds, a.seconds) })
	fmt.Fprintf(r.out, "\nThe %d slowest tests:\n", slowest)
	for _, t := range r.times[:min(slowest, len(r.times))] {
		fmt.Fprintf(r.out, "%6.1f s  %s\n", t.seconds, t.name)
	}
	fmt.Fprintf(r.out, "\n%d passed, %d failed, %d skipped\n", r.passed, r.failed, r.skipped)
}
