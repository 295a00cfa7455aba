package main

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestWhatFailedIsShownAndTheSlowestAreListed(t *testing.T) {
	var out strings.Builder
	ok, err := run(strings.NewReader(`{"Action":"output","Package":"mokren/a","Test":"TestOne","Output":"quiet words\n"}
{"Action":"pass","Package":"mokren/a","Test":"TestOne","Elapsed":0.1}
{"Action":"output","Package":"mokren/a","Test":"TestTwo","Output":"want 1, got 2\n"}
{"Action":"fail","Package":"mokren/a","Test":"TestTwo","Elapsed":3.25}
{"Action":"fail","Package":"mokren/a","Elapsed":4}
`), &out)
	require.NoError(t, err)
	assert.False(t, ok)
	assert.Contains(t, out.String(), "want 1, got 2")
	assert.NotContains(t, out.String(), "quiet words")
	assert.Regexp(t, `(?s)3\.2 s  a TestTwo.*0\.1 s  a TestOne`, out.String())
	assert.Contains(t, out.String(), "\n1 passed, 1 failed, 0 skipped\n")
}

func TestATestThatNeverEndedFailsTheRun(t *testing.T) {
	var out strings.Builder
	ok, err := run(strings.NewReader(`{"Action":"output","Package":"mokren/a","Test":"TestHangs","Output":"at page_test.go:12\n"}
{"Action":"output","Package":"mokren/a","Output":"panic: test timed out\n"}
{"Action":"fail","Package":"mokren/a","Elapsed":4}
`), &out)
	require.NoError(t, err)
	assert.False(t, ok)
	assert.Contains(t, out.String(), "TestHangs did not end")
	assert.Contains(t, out.String(), "at page_test.go:12")
	assert.Contains(t, out.String(), "test timed out")
}

func TestABuildThatFailsIsSaid(t *testing.T) {
	var out strings.Builder
	ok, err := run(strings.NewReader(`{"Action":"build-output","Output":"x.go:1: no\n"}
{"Action":"build-fail"}
{"Action":"pass","Package":"mokren/b","Elapsed":1}
`), &out)
	require.NoError(t, err)
	assert.False(t, ok)
	assert.Contains(t, out.String(), "x.go:1: no")
}
