package main

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestTheNearestThreeComeLast(t *testing.T) {
	var out strings.Builder
	require.NoError(t, run(strings.NewReader(strings.Join([]string{
		"=== RUN   TestBench", "PASS", "no limit here: 9 ms",
		"a: ratio 1.20 (limit 1.5)", "b: 12 ms, ratio 0.20 (limit at least 0.4); p99 30 ms (limit 50)",
		"    x_test.go:3: c: 149 MB after its start (limit 150)", "d: 1.9 × the page (limit 1.5)",
	}, "\n")), &out))
	said, last, _ := strings.Cut(out.String(), "\nNearest to their limits, or beyond:\n")
	assert.NotContains(t, said, "PASS")
	assert.Contains(t, said, "no limit here")
	lines := strings.Split(strings.TrimSpace(last), "\n")
	require.Len(t, lines, 3)
	assert.Contains(t, lines[0], "200 %  b:")
	assert.Contains(t, lines[1], "127 %  d:")
	assert.Contains(t, lines[2], "99 %  x_test.go:3: c:")
}

func TestFiguresOfALine(t *testing.T) {
	assert.Empty(t, figures("12 ms and no limit"))
	assert.InDelta(t, 0.6, figures("30.0 ms to the next frame at the most (limit 50)")[0].used, 1e-9)
}
