package strict_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/strict"
)

type inner struct {
	Side string `json:"side" enum:"left,right"`
}

type sample struct {
	Score *float64        `json:"score,omitempty" minimum:"0" maximum:"10" multipleOf:"0.5"`
	Name  string          `json:"name" maxLength:"5"`
	Count int             `json:"count,omitempty"`
	Items []inner         `json:"items,omitempty" maxItems:"2"`
	Pair  [2]float64      `json:"pair,omitempty"`
	Map   map[string]int  `json:"map,omitempty"`
	Raw   json.RawMessage `json:"raw,omitempty"`
}

func TestRefusalsNameTheField(t *testing.T) {
	for name, c := range map[string]struct{ in, path, given string }{
		"unknown":        {`{"name":"a","nome":1}`, "$.nome", "an unknown field"},
		"case":           {`{"Name":"a"}`, "$.Name", "an unknown field"},
		"missing":        {`{}`, "$.name", "nothing"},
		"twice":          {`{"name":"a","name":"b"}`, "$.name", "the field twice"},
		"null":           {`{"name":null}`, "$.name", "null"},
		"above":          {`{"name":"a","score":10.5}`, "$.score", "10.5"},
		"below":          {`{"name":"a","score":-0.5}`, "$.score", "-0.5"},
		"step":           {`{"name":"a","score":3.3}`, "$.score", "3.3"},
		"text as number": {`{"name":"a","score":"3"}`, "$.score", `"3"`},
		"half a count":   {`{"name":"a","count":1.5}`, "$.count", "1.5"},
		"too long":       {`{"name":"abcdef"}`, "$.name", `"abcdef"`},
		"deep":           {`{"name":"a","items":[{"side":"left"},{"side":"up"}]}`, "$.items[1].side", `"up"`},
		"too many":       {`{"name":"a","items":[{"side":"left"},{"side":"left"},{"side":"left"}]}`, "$.items", ""},
		"pair":           {`{"name":"a","pair":[1]}`, "$.pair", "[1]"},
		"map":            {`{"name":"a","map":{"x":"y"}}`, "$.map.x", `"y"`},
		"two documents":  {`{"name":"a"}{}`, "$", "text after the document"},
		"cut off":        {`{"name":`, "$.name", "nothing more"},
		"empty":          {``, "$", "nothing more"},
		"huge number":    {`{"name":"a","score":1e999}`, "$.score", "1e999"},
	} {
		t.Run(name, func(t *testing.T) {
			var s sample
			err := strict.Decode([]byte(c.in), &s)
			var e *strict.Error
			require.ErrorAs(t, err, &e)
			assert.Equal(t, c.path, e.Path)
			if c.given != "" {
				assert.Equal(t, c.given, e.Given)
			}
			assert.NotEmpty(t, e.Allowed)
			assert.NotContains(t, e.Error(), "\n")
		})
	}
}

func TestAbsentAndZeroAreToldApart(t *testing.T) {
	var a, z sample
	require.NoError(t, strict.Decode([]byte(`{"name":"a"}`), &a))
	require.NoError(t, strict.Decode([]byte(`{"name":"a","score":0,"raw":{"k":[1,null]}}`), &z))
	assert.Nil(t, a.Score)
	require.NotNil(t, z.Score)
	assert.Zero(t, *z.Score)
	assert.JSONEq(t, `{"k":[1,null]}`, string(z.Raw))
}

func TestDepthIsBounded(t *testing.T) {
	deep := make([]byte, 0, 2000)
	for range 1000 {
		deep = append(deep, '[')
	}
	var v struct {
		Name string `json:"name"`
	}
	assert.Error(t, strict.Decode(deep, &v))
}
