// Command nearest passes a benchmark's lines on and ends with the three figures that are nearest to
// their limits, or farthest beyond. A figure is the last number before "(limit …)"; with "at least"
// it is to be greater.
//
//	make bench
package main

import (
	"bufio"
	"cmp"
	"fmt"
	"io"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// figure is a line with a limit: what share of it is used up, over 1 when it is missed.
type figure struct {
	used float64
	line string
}

// limited is a figure in front of its limit.
var limited = regexp.MustCompile(`(-?\d+(?:\.\d+)?)[^0-9(]*\(limit (at least )?(\d+(?:\.\d+)?)[^)]*\)`)

// noise is what a test run says beside its figures.
var noise = regexp.MustCompile(`^(=== |--- |PASS|ok |goos:|goarch:|pkg:|cpu:|\d{4}/\d\d/\d\d )|no test files|no tests to run`)

func main() {
	if err := run(os.Stdin, os.Stdout); err != nil {
		fmt.Fprintln(os.Stderr, "nearest:", err)
		os.Exit(1)
	}
}

func run(in io.Reader, out io.Writer) error {
	var all []figure
	scan := bufio.NewScanner(in)
	scan.Buffer(nil, 1<<20)
	for scan.Scan() {
		line := strings.TrimSpace(scan.Text())
		if noise.MatchString(line) {
			continue
		}
		fmt.Fprintln(out, line)
		all = append(all, figures(line)...)
	}
	slices.SortStableFunc(all, func(a, b figure) int { return cmp.Compare(b.used, a.used) })
	fmt.Fprintln(out, "\nNearest to their limits, or beyond:")
	for _, f := range all[:min(3, len(all))] {
		fmt.Fprintf(out, "%4.0f %%  %s\n", f.used*100, f.line)
	}
	return scan.Err()
}

// figures of a line, each with how much of its limit it uses.
func figures(line string) (all []figure) {
	for _, m := range limited.FindAllStringSubmatch(line, -1) {
		value, errV := strconv.ParseFloat(m[1], 64)
		limit, errL := strconv.ParseFloat(m[3], 64)
		if errV != nil || errL != nil || limit == 0 {
			continue
		}
		used := value / limit
		if m[2] != "" {
			used = limit / max(value, 1e-9)
		}
		all = append(all, figure{used, line})
	}
	return all
}
