package decode_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mokren/core/decode"
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
		"unknown":          {`{"name":"a","nome":1}`, "$.nome", "an unknown field"},
		"case":             {`{"Name":"a"}`, "$.Name", "an unknown field"},
		"missing":          {`{}`, "$.name", "nothing"},
		"twice":            {`{"name":"a","name":"b"}`, "$.name", "the field twice"},
		"null":             {`{"name":null}`, "$.name", "null"},
		"above":            {`{"name":"a","score":10.5}`, "$.score", "10.5"},
		"below":            {`{"name":"a","score":-0.5}`, "$.score", "-0.5"},
		"step":             {`{"name":"a","score":3.3}`, "$.score", "3.3"},
		"text as number":   {`{"name":"a","score":"3"}`, "$.score", `"3"`},
		"half a count":     {`{"name":"a","count":1.5}`, "$.count", "1.5"},
		"too long":         {`{"name":"abcdef"}`, "$.name", `"abcdef"`},
		"deep":             {`{"name":"a","items":[{"side":"left"},{"side":"up"}]}`, "$.items[1].side", `"up"`},
		"too many":         {`{"name":"a","items":[{"side":"left"},{"side":"left"},{"side":"left"}]}`, "$.items", ""},
		"pair":             {`{"name":"a","pair":[1]}`, "$.pair", "[1]"},
		"map":              {`{"name":"a","map":{"x":"y"}}`, "$.map.x", `"y"`},
		"two documents":    {`{"name":"a"}{}`, "$", "text after the document"},
		"cut off":          {`{"name":`, "$.name", "nothing more"},
		"empty":            {``, "$", "nothing more"},
		"cut in a list":    {`{"name":"a","items":[{"side":"left"},{"si`, "$.items[1].si", "nothing more"},
		"cut after a list": {`{"name":"a","items":[{"side":"left"}]`, "$.items", "nothing more"},
		"cut in an escape": {`{"na\u006de\"]}`, `$.na\u006de\"]}`, "nothing more"},
		"a comma too many": {`{"items":[{"side":"left"},]}`, "$.items[1]", ""},
		"no comma":         {`{"name":"a" "score":1}`, "$.name", ""},
		"not a value":      {`{"name":"}","pair":[1,[2],x]}`, "$.pair[2]", ""},
		"broken key":       {"{\"na\x01me\":1}", "$.na", ""},
		"huge number":      {`{"name":"a","score":1e999}`, "$.score", "1e999"},
	} {
		t.Run(name, func(t *testing.T) {
			var s sample
			err := decode.JSON([]byte(c.in), &s)
			var e *decode.Error
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
	require.NoError(t, decode.JSON([]byte(`{"name":"a"}`), &a))
	require.NoError(t, decode.JSON([]byte(`{"name":"a","score":0,"raw":{"k":[1,null]}}`), &z))
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
	assert.Error(t, decode.JSON(deep, &v))
}

// Fields may come in any order; what is missing is named wherever it would have stood.
func TestFieldsComeInAnyOrder(t *testing.T) {
	type three struct {
		A int    `json:"a"`
		B string `json:"b"`
		C *int   `json:"c,omitempty"`
	}
	fields := []string{`"a":1`, `"b":"two"`, `"c":3`}
	want := three{1, "two", new(3)}
	for _, order := range [][3]int{{0, 1, 2}, {0, 2, 1}, {1, 0, 2}, {1, 2, 0}, {2, 0, 1}, {2, 1, 0}} {
		var got three
		raw := "{" + fields[order[0]] + "," + fields[order[1]] + "," + fields[order[2]] + "}"
		require.NoError(t, decode.JSON([]byte(raw), &got))
		assert.Equal(t, want, got, raw)
	}
	for raw, path := range map[string]string{
		`{"c":3,"b":"two"}`:                "$.a",
		`{"c":3,"a":1}`:                    "$.b",
		`{"b":"two","d":1,"a":1}`:          "$.d",
		`{"b":"two","a":1,"b":"again"}`:    "$.b",
		`{"a":1,"b":"two","c":3,"aa":"x"}`: "$.aa",
	} {
		var got three
		var refused *decode.Error
		require.ErrorAs(t, decode.JSON([]byte(raw), &got), &refused, raw)
		assert.Equal(t, path, refused.Path, raw)
	}
}
