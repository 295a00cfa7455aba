package decode_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/decode"
)

// D9: what a record cannot keep is refused with its field.
func TestD9WhatARecordCannotKeep(t *testing.T) {
	for in, path := range map[string]string{
		`{"a":{"b":"x\u0000y"}}`:            "$.a.b",
		`{"list":[{"n":1},{"t":"\ud83d"}]}`: "$.list[1].t",
		`{"t":"\udc00 low first"}`:          "$.t",
		`{"n":1e-20000}`:                    "$.n",
		`{"n":1e20000}`:                     "$.n",
		`["ok",{"k\u0000":1}]`:              "$[1]",
		"{\"t\":\"\xff\"}":                  "$.t",
	} {
		e := decode.Storable([]byte(in))
		require.NotNil(t, e, in)
		assert.Equal(t, path, e.Path, in)
	}
	for _, in := range []string{
		`{"t":"\ud83d\ude00 é \\u0000","n":[0,-0.0,0e5,1e-300,12]}`, `{}`, `[]`, `"x"`, `{"broken`, `{"n":00}`,
	} {
		assert.Nil(t, decode.Storable([]byte(in)), in)
	}
}
