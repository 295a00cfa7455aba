package main

import (
	"go/parser"
	"go/token"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestOldTermsAreNamed(t *testing.T) {
	for source, want := range map[string]string{
		"package strict":                       "package strict is called decode",
		"package a\ntype OwnSchool int":        "type OwnSchool: write protocol",
		"package a\nfunc schools() {}":         "func schools: write protocol",
		"package a\nconst steeringKind = 1":    "value steeringKind: write strategy",
		"package a\ntype Told struct{}":        "type Told: write what it holds",
		"package a\nfunc Judge() {}":           "",
		"package a\n// A school of thought.":   "",
		"package a\ntype Outdoors struct{}":    "",
		"package a\nvar x = `json:\"school\"`": "",
	} {
		file, err := parser.ParseFile(token.NewFileSet(), "a.go", source, parser.SkipObjectResolution)
		require.NoError(t, err, source)
		said := ""
		for _, d := range declared(file) {
			said += wrong(d)
		}
		assert.Equal(t, want, said, source)
	}
}

func TestTheCodeKeepsToItsWords(t *testing.T) {
	found, err := check("../..")
	require.NoError(t, err)
	assert.Empty(t, found)
}
