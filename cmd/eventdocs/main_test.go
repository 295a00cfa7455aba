package main

import (
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestThePageIsFresh(t *testing.T) {
	want, err := os.ReadFile("../../docs/events.md")
	require.NoError(t, err)
	got, err := generate("../../core/visit")
	require.NoError(t, err)
	assert.Equal(t, string(want), string(got), "run `make types`")
	assert.NotContains(t, string(got), "|  |", "every kind is described")
}
