package main

import (
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestTheQuestionsAreFresh(t *testing.T) {
	want, err := os.ReadFile("../../ui/src/core/questions.ts")
	require.NoError(t, err)
	assert.Equal(t, string(want), string(generate()), "run `make types`")
	want, err = os.ReadFile("../../ui/src/core/benchQuestions.ts")
	require.NoError(t, err)
	assert.Equal(t, string(want), string(generateBench()), "run `make types`")
}
