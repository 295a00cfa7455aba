package main

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestOnlyWhatReadersNeedIsLeftOut(t *testing.T) {
	for path, pair := range map[string][2]string{
		"a.go":      {"A int `json:\"a\" doc:\"cm; or none\" minimum:\"0\"`", "A int `json:\"a\" minimum:\"0\"`"},
		"b.go":      {"B int `doc:\"cm\"`\nC int `json:\"c\"`", "B int `doc:\"cm\"`\nC int `json:\"c\"`"},
		"a_test.go": {"A int `json:\"a\" doc:\"cm\"`", "A int `json:\"a\" doc:\"cm\"`"},
		"a.json":    {"{ \"a\": [1,\n 2], \"b\": \"x  y\" }", "{\"a\":[1,2],\"b\":\"x  y\"}"},
		"a.txt":     {"a  b", "a  b"},
	} {
		got, err := smaller(path, []byte(pair[0]))
		require.NoError(t, err)
		assert.Equal(t, pair[1], string(got), path)
	}
	_, err := smaller("a.json", []byte("{"))
	assert.Error(t, err)
}
